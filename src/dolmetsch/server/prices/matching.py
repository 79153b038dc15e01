"""Rows of a list as prices: which column is what, and each row read or its fault named."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from fractions import Fraction
from statistics import median
from typing import Final, get_args

from dolmetsch.core.buying.offer import MAX_SOLUTION
from dolmetsch.core.errors import QuantityError
from dolmetsch.core.findings import Finding
from dolmetsch.core.numbers.listed import (
    DecimalSign,
    guess_decimal,
    read_listed_day,
    read_listed_number,
    refuse_formula,
)
from dolmetsch.core.numbers.quantity import MONEY_PLACES, Price
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.prices.models import Sort
from dolmetsch.server.prices.reading import BY_WEIGHT, EARLIEST, combine_price
from dolmetsch.server.prices.schemas import MatchIn, SortKey, Target
from dolmetsch.server.quantities.reader import round_decimal
from dolmetsch.server.tables.reading import Cell

#: Words in a head that tell what its column is.
HEAD_WORDS: Final[dict[Target, tuple[str, ...]]] = {
    "price": ("price", "cost", "amount", "paid", "total"),
    "name": ("item", "product", "description", "article", "name", "cut", "what"),
    "size": ("pack", "size", "weight", "quantity", "qty"),
    "unit": ("unit", "per", "uom"),
    "day": ("date", "day"),
    "sort": ("sort", "group", "category"),
    "kind": ("kind",),
    "slices": ("slices",),
    "solution": ("solution", "water"),
}
#: Whole prices of which half are this or more may be in cents.
CENTS_FROM: Final = 100
_UNITS: Final = {"ea": "each", "pc": "each", "pcs": "each", "piece": "each", "pieces": "each", "unit": "each"}
_SORTS: Final[dict[str, SortKey]] = {
    **{key: key for key in ("meat", "ingredient", "packaging", "fuel", "by_product", "shop_pack")},
    "ingredients": "ingredient",
    "by-product": "by_product",
    "trim": "by_product",
    "shop pack": "shop_pack",
    "shop": "shop_pack",
    "raw meat": "meat",
    **{label.lower(): key for key, label in zip(get_args(SortKey), Sort.labels, strict=True)},
}


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadRow:
    """A row that could be read. ``identity`` parts it from others of its source: one twice is one."""

    row: int
    sort: SortKey
    name: str
    kind: str
    price: Price
    typed: str
    on: date
    slices: int | None
    solution: Fraction | None

    @property
    def identity(self) -> tuple[str, str, date, Fraction, Fraction, bool]:
        """Line, day, and what was paid for what."""
        paid = Fraction(round_decimal(self.price.paid, MONEY_PLACES))
        return self.sort, same_name(self.name), self.on, paid, self.price.size, self.price.grams is None


@dataclass(frozen=True, slots=True, kw_only=True)
class FaultyRow:
    """A row that could not be read, and why."""

    row: int
    cells: list[str]
    finding: Finding


def guess_columns(heads: Sequence[str]) -> dict[Target, int]:
    """Which column is what, by the words in the heads; the first that fits."""
    found: dict[Target, int] = {}
    for target, words in HEAD_WORDS.items():
        for at, head in enumerate(heads):
            if at not in found.values() and set(re.findall(r"[a-z]+", head.lower())) & set(words):
                found[target] = at
                break
    return found


def find_decimal(match: MatchIn, table: Sequence[Sequence[Cell]]) -> DecimalSign:
    """The decimal sign of the prices: as chosen, else as guessed, else the point."""
    if match.decimal:
        return match.decimal
    at = match.columns.get("price")
    if at is None:
        return "."
    cells = (row[at + 1] for row in table if at + 1 < len(row))
    return guess_decimal(cell for cell in cells if isinstance(cell, str)) or "."


def ask_cents(match: MatchIn, table: Sequence[Sequence[Cell]]) -> str:
    """What to ask where nobody said whether prices are in cents, and they look like it; empty: nothing.

    They do where all of them are whole numbers, and half of them a hundred or more (ours).
    """
    at = match.columns.get("price")
    if at is None or match.is_in_cents is not None:
        return ""
    cells = [row[at + 1] for row in table if at + 1 < len(row) and str(row[at + 1]).strip()]
    texts = [_plain(cell) if not isinstance(cell, str) else cell.strip() for cell in cells]
    if not texts or not all(re.fullmatch(r"\d{1,9}", text) for text in texts):
        return ""
    middle = median(int(text) for text in texts)
    if middle < CENTS_FROM:
        return ""
    first = texts[0]
    return f"Are the prices in cents? “{first}” would be {int(first) / 100:.2f}, or else {int(first)}.00."


def read_rows(
    table: Sequence[Sequence[Cell]], match: MatchIn, *, decimal: DecimalSign, today: date
) -> Iterator[ReadRow | FaultyRow]:
    """Each row of ``table`` (its first cell is its number in the file), read or with its fault."""
    for row in table:
        number, cells = int(row[0]), row[1:]
        try:
            yield _read_row(
                number, _Cells(cells=cells, columns=match.columns), match, decimal=decimal, today=today
            )
        except QuantityError as error:
            found = Finding(
                code=error.reason, severity="refuse", subject=f"rows[{number}]", message=str(error)
            )
            yield FaultyRow(row=number, cells=[str(cell) for cell in cells], finding=found)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Cells:
    cells: Sequence[Cell]
    columns: dict[Target, int]

    def raw(self, target: Target) -> Cell:
        at = self.columns.get(target)
        return "" if at is None or at >= len(self.cells) else self.cells[at]

    def text(self, target: Target) -> str:
        cell = self.raw(target)
        if isinstance(cell, str):
            if cell[:1] == "'" and cell[1:2] in tuple("=+-@"):
                # an export put the apostrophe there, so that no table program runs it
                return cell[1:].strip()
            refuse_formula(cell)
            return cell.strip()
        return _plain(cell)


def _plain(cell: float | int) -> str:
    """A number of a table as digits; what binary numbers add behind the sixth place is dropped."""
    return f"{cell:.6f}".rstrip("0").rstrip(".")


def _read_row(number: int, cells: _Cells, match: MatchIn, *, decimal: DecimalSign, today: date) -> ReadRow:
    name = cells.text("name")
    if not name:
        raise QuantityError("missing", name, "the name is missing")
    if len(name) > 80 or not name.isprintable():
        raise QuantityError("unreadable", name, f"“{name[:40]}…” is not a name: at most 80 plain letters")
    sort = _read_sort(cells.text("sort"), match.sort)
    on = _read_day(cells, match, today=today)
    price, typed = _read_price(cells, match, sort, decimal=decimal)
    slices = cells.text("slices")
    solution = cells.text("solution").removesuffix("%").strip()
    water = read_listed_number(solution, decimal=decimal, what="solution") / 100 if solution else None
    if water is not None and water > MAX_SOLUTION:
        raise QuantityError("too_large", solution, f"“{solution}” % of water is more than any label says")
    if slices and not (slices.isdigit() and 0 < int(slices) < 1_000_000):
        raise QuantityError("unreadable", slices, f"“{slices}” is not a number of slices")
    return ReadRow(
        row=number,
        sort=sort,
        name=name,
        kind=cells.text("kind")[:40] if sort == "shop_pack" else "",
        price=price,
        typed=typed[:80],
        on=on,
        slices=int(slices) if slices else None,
        solution=water,
    )


def _read_sort(text: str, otherwise: SortKey) -> SortKey:
    if not text:
        return otherwise
    sort = _SORTS.get(text.lower())
    if sort is None:
        raise QuantityError(
            "unreadable", text, f"“{text}” is not a kind: meat, ingredient, packaging, fuel, …"
        )
    return sort


def _read_day(cells: _Cells, match: MatchIn, *, today: date) -> date:
    text = cells.text("day")
    on = read_listed_day(text, day_first=match.day_first) if "day" in match.columns else match.on
    if not EARLIEST <= on <= today:
        raise QuantityError("odd_time", text, f"{on.isoformat()} is in the future, or before the year 2000")
    return on


def _read_price(cells: _Cells, match: MatchIn, sort: SortKey, *, decimal: DecimalSign) -> tuple[Price, str]:
    """The price of a row, and how it stood there: "48.50 for 12 lb"."""
    text, size, unit = cells.text("price"), cells.text("size"), cells.text("unit").lower()
    if not text:
        raise QuantityError("missing", text, "the price is missing")
    unit = unit.removeprefix("per ").removeprefix("/").strip(" .")
    unit = _UNITS.get(unit, unit)
    try:
        cell = cells.raw("price")
        number = text if isinstance(cell, int | float) else None
        sign: DecimalSign = "." if number else decimal
        value = read_listed_number(text, decimal=sign)
        bare = _print(value / 100 if match.is_in_cents else value)
    except QuantityError as error:
        if error.reason != "unreadable" or not any(letter.isalpha() for letter in text):
            raise
        bare = text
    if size and unit and _is_number(size):
        size, unit = f"{size} {unit}".removesuffix(" each"), ""
    price = combine_price(f"{bare}/{unit}" if unit else bare, size, unit=match.per or None)
    _refuse_other_unit(price, sort, text)
    return price, " for ".join(part for part in (f"{text}/{unit}" if unit else text, size) if part)


def _print(value: Fraction) -> str:
    return f"{float(value):.4f}".rstrip("0").rstrip(".")


def _is_number(size: str) -> bool:
    return re.fullmatch(r"\d+(\.\d+)?", size) is not None


def _refuse_other_unit(price: Price, sort: SortKey, text: str) -> None:
    if sort in BY_WEIGHT and price.grams is None:
        raise QuantityError("unreadable", text, f"“{text}” is not by weight; say what it weighs")
    if sort == "shop_pack" and not (price.is_pack and price.grams is not None):
        raise QuantityError("missing", text, "the weight of the pack is missing")
