"""Reading the cells of a supplier's list: prices with signs and separators, weights, days.

A list is read with one decimal sign, ``.`` or ``,``, found by ``guess_decimal`` or set by the cook; the
other one, spaces and apostrophes part thousands and are dropped where they part groups of three digits.
"""

import re
from collections.abc import Iterable
from datetime import date, datetime
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.quantity import MAX_MONEY, read_number

DecimalSign = Literal[".", ","]
_SIGNS: Final = re.compile(r"(?i)us\$|[$€£¥]|\b(?:usd|eur|gbp|chf|cad|aud|nzd)\b")
_SPACES: Final = "[ \u00a0\u202f'’]"
_DAYS: Final = ("%Y-%m-%d", "%d.%m.%Y", "%Y/%m/%d", "%d %b %Y", "%d %B %Y", "%b %d, %Y", "%B %d, %Y")
#: 03/04/2026 is two days: which, depends on the list.
_SLASHED: Final = re.compile(r"(\d{1,2})/(\d{1,2})/(\d{4})")
#: What begins so in a cell is computed by a table, not read.
_FORMULA: Final = re.compile(r"^[=@]|^[+-](?![0-9.])|^[+-].*[A-Za-z(]")


def refuse_formula(cell: str) -> None:
    """Refuse a formula, which a list must hold as the value it came to.

    Raises:
        QuantityError: formula.
    """
    found = cell.strip()
    if _FORMULA.match(found):
        raise QuantityError("formula", found, f"“{found[:40]}” is a formula, not a value; save the values")


def guess_decimal(cells: Iterable[str]) -> DecimalSign | None:
    """The decimal sign of a column of numbers: shown by cells that can be read one way only; None: none."""
    votes: dict[DecimalSign, int] = {".": 0, ",": 0}
    for cell in cells:
        bare = _bare(cell)
        if re.fullmatch(r"\d{1,3}(,\d{3})+\.\d+|\d*\.\d{1,2}|\d+\.\d{4,}", bare):
            votes["."] += 1
        elif re.fullmatch(r"\d{1,3}(\.\d{3})+,\d+|\d*,\d{1,2}|\d+,\d{4,}", bare):
            votes[","] += 1
    if votes["."] == votes[","]:
        return None
    return "." if votes["."] > votes[","] else ","


def read_listed_number(cell: str, *, decimal: DecimalSign, what: str = "price") -> Fraction:
    """The number in a cell like ``$1,234.50``, ``3,49 €`` or ``1 234``.

    Raises:
        QuantityError: empty, formula, unreadable, below zero, too large or too fine.
    """
    found = cell.strip()
    if not found:
        raise QuantityError("missing", found, f"the {what} is missing")
    refuse_formula(found)
    bare = re.sub(rf"(?<=\d){_SPACES}(?=\d{{3}}(?!\d))", "", _bare(found))
    other = "," if decimal == "." else "."
    whole, mark, part = bare.partition(decimal)
    if other in part or decimal in part:
        raise QuantityError("unreadable", found, f"“{found}” is not a {what}")
    if other in whole:
        if not re.fullmatch(rf"\d{{1,3}}({re.escape(other)}\d{{3}})+", whole):
            said = f"“{found}” is not a {what} where the decimal sign is “{decimal}”"
            raise QuantityError("unreadable", found, said)
        whole = whole.replace(other, "")
    plain = f"{whole}.{part}" if mark and part else whole
    try:
        return read_number(plain, what=what, limit=MAX_MONEY)
    except QuantityError as error:
        raise QuantityError(error.reason, found, str(error).replace(f"“{plain}”", f"“{found}”")) from None


def _bare(cell: str) -> str:
    return _SIGNS.sub("", cell).strip(" \u00a0\u202f\t")


def read_listed_day(cell: str, *, day_first: bool = True) -> date:
    """The day in a cell: 2026-11-25, 25.11.2026, 25 Nov 2026, or 25/11/2026 (``day_first``; else 11/25/2026).

    Raises:
        QuantityError: empty, unreadable, or no such day.
    """
    found = cell.strip()
    if not found:
        raise QuantityError("missing", found, "the day is missing")
    bare = found.removesuffix(" 00:00:00").removesuffix("T00:00:00")
    slashed = _SLASHED.fullmatch(bare)
    if slashed:
        first, second, year = (int(part) for part in slashed.groups())
        day, month = (first, second) if day_first else (second, first)
        bare = f"{year:04d}-{month:02d}-{day:02d}"
    for form in _DAYS:
        try:
            return datetime.strptime(bare, form).date()  # noqa: DTZ007
        except ValueError:
            continue
    raise QuantityError("unreadable", found, f"“{found}” is not a day: write it like 2026-11-25")
