"""Typed quantities spelt as a document spells them: the same number, the unit's short word."""

import re
from typing import Final

from dolmetsch.core.numbers.numerals import tidy
from dolmetsch.core.numbers.quantity import (
    match_count,
    match_one,
    match_pack,
    match_two,
    match_unit_price,
    tidy_price,
)

Spelt = str | dict[str, str]


def spell_weight(typed: str, unit: str) -> str:
    """A weight that was read from ``typed`` (a bare number in ``unit``), like ``4 lb 6 oz`` or ``1.98 kg``.

    Raises:
        ValueError: it is not a weight.
    """
    bare = tidy(typed)
    if (two := match_two(bare)) is not None:
        return f"{two[0]} lb {two[1]} oz"
    if (one := match_one(bare, unit)) is not None:
        return f"{one[0]} {one[1]}"
    raise ValueError(f"{typed!r} is not a weight")


def spell_price(price: str, amount: str, unit: str) -> tuple[str, str | int, Spelt]:
    """What was used, for a document: "amount" or "count", how much, and the price.

    ``price`` and ``amount`` as they were read: a bare price is the sum for all of it, or for one thing
    where no amount was said.
    """
    bare = tidy_price(price)
    count = match_count(tidy(amount)) if amount else "1"
    if (pack := match_pack(bare)) is not None:
        paid, size = pack
        counted = match_count(size)
        spelt: Spelt = {
            "paid": paid,
            "for": spell_weight(size, unit) if counted is None else f"{counted} each",
        }
    elif (per := match_unit_price(bare)) is not None and per[1]:
        spelt = f"{per[0]}/{per[1]}"
    elif not amount:
        spelt = f"{bare}/each"
    else:
        spelt = {"paid": bare, "for": spell_weight(amount, unit) if count is None else f"{count} each"}
    if count is None:
        return "amount", spell_weight(amount, unit), spelt
    return "count", int(count) if count.isdigit() else count, spelt


def spell_worth(price: str, unit: str) -> Spelt:
    """What a by-product is worth by weight, for a document; a bare number is for one ``unit``.

    Raises:
        ValueError: ``price`` is not a price.
    """
    bare = tidy_price(price)
    if (pack := match_pack(bare)) is not None:
        return {"paid": pack[0], "for": spell_weight(pack[1], unit)}
    per = match_unit_price(bare)
    if per is None:
        raise ValueError(f"{price!r} is not a price")
    return f"{per[0]}/{per[1] or unit}"


#: What is replaced, in this order, so that no two spellings of a name differ by spaces; one between digits
#: stays ("bag 1 10" is not "bag 11 0"). As Python and MariaDB both read it.
IDLE_SPACES: Final = ((r"\s+", " "), (r"(?<![0-9]) | (?![0-9])", ""))


def same_name(name: str) -> str:
    """What two spellings of one name have in common: neither case nor spaces tell them apart, but for those
    between two digits.
    """
    bare = name.casefold()
    for spaces, instead in IDLE_SPACES:
        bare = re.sub(spaces, instead, bare)
    return bare
