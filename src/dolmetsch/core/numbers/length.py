"""Lengths as a cook types them: inches, centimetres, millimetres."""

import re
from fractions import Fraction
from typing import Final

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.numerals import tidy

#: Millimetres in each unit; an inch is exact.
MM_PER: Final[dict[str, Fraction]] = {"in": Fraction("25.4"), "cm": Fraction(10), "mm": Fraction(1)}
#: Longer is no piece of meat.
MAX_MM: Final = Fraction(2000)
LENGTH_HINT: Final = "write it like 1.6 in, 4 cm or 41 mm"

_WORDS: Final = {
    **dict.fromkeys(("in", "inch", "inches", '"', "”", "″"), "in"),
    **dict.fromkeys(("cm", "centimetre", "centimetres"), "cm"),
    **dict.fromkeys(("mm", "millimetre", "millimetres"), "mm"),
}
_LENGTH = re.compile(r"([0-9]+(?:\.[0-9]{1,3})?|\.[0-9]{1,3})\s*([a-z\"”″]+)?\.?")


def read_length(text: str, *, default_unit: str) -> Fraction:
    """A length in millimetres; a number alone is in ``default_unit``.

    Raises:
        QuantityError: unreadable, nothing, or longer than meat is.
    """
    found = text.strip()
    if found.startswith("-"):
        raise QuantityError("negative", found, f"“{found}” is below zero; measure again")
    match = _LENGTH.fullmatch(tidy(found))
    unit = None if match is None else default_unit if match[2] is None else _WORDS.get(match[2])
    if match is None or unit is None:
        raise QuantityError("unreadable", found, f"“{found}” is not a length: {LENGTH_HINT}")
    length = Fraction(match[1]) * MM_PER[unit]
    if length == 0:
        raise QuantityError(
            "zero", found, f"“{found}” is not a size: measure the thickest part, or leave it out"
        )
    if length > MAX_MM:
        raise QuantityError("too_large", found, f"“{found}” is longer than meat is; check the unit")
    return length
