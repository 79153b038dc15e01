"""Exact numbers in, fixed-notation strings out.

All arithmetic of the core is on ``fractions.Fraction``; nothing is rounded before it is printed.
"""

from decimal import Decimal
from fractions import Fraction
from typing import Final

#: Grams in a pound: exact by the international agreement of 1959.
GRAMS_PER_LB: Final = Fraction("453.59237")
#: Grams in each unit of weight that may be typed; an ounce is a sixteenth of a pound.
GRAMS_PER: Final[dict[str, Fraction]] = {
    "lb": GRAMS_PER_LB,
    "oz": GRAMS_PER_LB / 16,
    "kg": Fraction(1000),
    "g": Fraction(1),
}


def exact(value: Decimal | Fraction | int | str) -> Fraction:
    """The number as an exact rational.

    Raises:
        TypeError: for a binary float (it is not the number that was meant) or a bool.
    """
    if isinstance(value, bool) or not isinstance(value, Decimal | Fraction | int | str):
        raise TypeError(f"{value!r} is a {type(value).__name__}; the ledger takes exact numbers only")
    return Fraction(value)


def fixed(value: Fraction, places: int) -> str:
    """``value`` with just ``places`` decimals, rounded once, half to even, never as ``-0.00``."""
    scaled = round(value * 10**places)
    digits = f"{abs(scaled):0{places + 1}d}"
    sign = "-" if scaled < 0 else ""
    return f"{sign}{digits[:-places]}.{digits[-places:]}" if places else f"{sign}{digits}"


def weigh_in(grams: Fraction, unit: str) -> Fraction:
    """The weight in ``unit`` (lb, oz, kg or g)."""
    return grams / GRAMS_PER[unit]
