"""Numbers as cooks write them: a decimal comma, ½, "4 1/2", a money sign before or behind."""

import re
import unicodedata
from fractions import Fraction
from typing import Final

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.exact import fixed

#: Signs that may stand before or behind a sum of money.
MONEY_SIGNS: Final = "$€£¥"
_SIGNED: Final = re.compile(rf"^[{MONEY_SIGNS}]\s*|(?<=[0-9])\s*[{MONEY_SIGNS}](?=\s|/|$)")
#: A fraction that needs more decimals than this is left as it is.
_MOST_PLACES: Final = 12
_SPACES: Final = str.maketrans({"\u00a0": " ", "\u202f": " ", "\u2009": " ", "−": "-", "⁄": "/"})
_COMMA: Final = re.compile(r"([0-9]*),([0-9]+)")
_FRACTION: Final = re.compile(r"(?<![0-9./])(?:([0-9]+)\s+)?([0-9]+)\s*/\s*([0-9]+)(?![0-9.])")


def tidy(text: str, *, fractions: bool = True) -> str:
    """``text`` in lower case with its numbers written plainly: "4½ lb" as "4.5 lb", "2,5 %" as "2.5 %".

    ``fractions``: "1/2" becomes "0.5" (a price keeps its slash, which there means "for"). A fraction
    without an end, like 1/3, stays as it is.

    Raises:
        QuantityError: a comma before three digits, which may part thousands or decimals.
    """
    bare = text.strip().lower().translate(_SPACES)
    bare = "".join(_spell_out(letter, before) for before, letter in zip(" " + bare, bare, strict=False))
    bare = _COMMA.sub(lambda found: _as_point(found, text.strip()), bare)
    return _FRACTION.sub(_as_decimal, bare) if fractions else bare


def _spell_out(letter: str, before: str) -> str:
    """½ as "1/2", parted from a number before it."""
    if not unicodedata.decomposition(letter).startswith("<fraction>"):
        return letter
    plain = unicodedata.normalize("NFKC", letter).replace("⁄", "/")
    return f" {plain}" if before.isdigit() else plain


def _as_point(found: re.Match[str], typed: str) -> str:
    whole, decimals = found[1], found[2]
    if not whole:
        # "4 lb ,5" is not a number, and "4 lb, 6 oz" has a space behind its comma
        return found[0]
    if len(decimals) == 3 and whole.strip("0"):
        joined = f"{whole}{decimals}"
        said = f"“{typed}” may be {whole}.{decimals} or {joined}: write it without the comma"
        raise QuantityError("unreadable", typed, said)
    return f"{whole}.{decimals}"


def _as_decimal(found: re.Match[str]) -> str:
    below = int(found[3])
    if not below:
        return found[0]
    value = int(found[1] or 0) + Fraction(int(found[2]), below)
    finite = (places for places in range(_MOST_PLACES) if (value * 10**places).denominator == 1)
    places = next(finite, None)
    return found[0] if places is None else fixed(value, places)


def strip_sign(bare: str, *, typed: str, sign: str = "") -> str:
    """``bare`` without the money sign before or behind its sum.

    Raises:
        QuantityError: a sign other than ``sign``, the kitchen's own, where that is given.
    """
    found = _SIGNED.search(bare)
    if found is None:
        return bare
    if sign and sign.strip() != found[0].strip():
        said = f"“{typed}” is in {found[0].strip()}; prices here are in {sign.strip()}"
        raise QuantityError("other_currency", typed, said)
    return f"{bare[: found.start()]}{bare[found.end() :]}".strip()
