"""Printed figures: rounded once, half to even, from the core's exact values."""

from collections.abc import Sequence
from decimal import Decimal
from fractions import Fraction
from typing import Any, Final, TypeVar

from dolmetsch.core.numbers.exact import GRAMS_PER_LB, apportion, fixed, weigh_in
from dolmetsch.server.quantities.countries import SIGNS
from dolmetsch.server.quantities.schemas import UnitCost, Weight


def print_weight(grams: Fraction) -> Weight:
    """Pounds to 2 places, to 3 below a tenth of a pound; kilograms to 3."""
    lb_places = 3 if abs(grams) < GRAMS_PER_LB / 10 else 2
    return Weight(lb=fixed(weigh_in(grams, "lb"), lb_places), kg=fixed(weigh_in(grams, "kg"), 3))


def sign_of(currency: str) -> str:
    """What stands before money of ``currency``."""
    return SIGNS.get(currency, f"{currency} ")


def print_money(money: Fraction) -> str:
    """To the cent."""
    return fixed(money, 2)


def print_money_or_none(money: Fraction | None) -> str | None:
    """To the cent; None stays None."""
    return None if money is None else fixed(money, 2)


def print_percent(ratio: Fraction) -> str:
    """A ratio in per cent, to one place."""
    return fixed(ratio * 100, 1)


def print_unit_cost(per_lb: Fraction | None) -> UnitCost | None:
    """A price of a pound, and of a kilogram beside it."""
    if per_lb is None:
        return None
    return UnitCost(per_lb=print_money(per_lb), per_kg=print_money(per_kg(per_lb)))


def print_price_of_gram(per_gram: Fraction | float) -> UnitCost:
    """A price of a pound and of a kilogram, from that of a gram."""
    per_lb = Fraction(per_gram) * GRAMS_PER_LB
    return UnitCost(per_lb=print_money(per_lb), per_kg=print_money(per_kg(per_lb)))


def per_kg(per_lb: Fraction) -> Fraction:
    """The price of a kilogram from that of a pound."""
    return per_lb * 1000 / GRAMS_PER_LB


def as_sentence(text: str) -> str:
    """A core error's words as a sentence of their own."""
    return f"{text[:1].upper()}{text[1:]}."


Cell = TypeVar("Cell")
#: What a table program takes for the beginning of a formula.
DANGEROUS: Final = ("=", "+", "-", "@", "\t", "\r")


def make_safe(cell: Cell) -> Cell | str:
    """A text that a spreadsheet would run, with an apostrophe before it; numbers stay numbers."""
    return f"'{cell}" if isinstance(cell, str) and cell.startswith(DANGEROUS) else cell


def print_parts(parts: Sequence[Fraction | None]) -> list[str | None]:
    """Money of parts, so that what is printed adds up to its sum; where one is unknown, each by itself."""
    known = [part for part in parts if part is not None]
    if len(known) < len(parts):
        return [print_money_or_none(part) for part in parts]
    return list(apportion(known, places=2))


def add_up(rows: Sequence[list[Any]], *columns: int) -> None:
    """Print money in ``columns`` of ``rows`` to the cent, so that each adds up to its printed sum; what
    is no number stays.
    """
    for column in columns:
        counted = [row for row in rows if isinstance(row[column], Decimal | Fraction)]
        # what is kept differs in its last digits by how it came to be kept
        printed = apportion([round(Fraction(row[column]), 8) for row in counted], places=2)
        for row, text in zip(counted, printed, strict=True):
            row[column] = Decimal(text)
