"""Exact numbers in, fixed-notation strings out.

All arithmetic of the core is on ``fractions.Fraction``; nothing is rounded before it is printed.
"""

from collections.abc import Sequence
from decimal import Decimal
from fractions import Fraction
from math import floor
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

#: Two figures that print alike are told apart by more decimals, but by no more than these.
_MOST_PLACES: Final = 6
#: Powers of ten by place.
TENS: Final = tuple(int("1" + "0" * place) for place in range(30))


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
    whole = round_to(value, places)
    digits = f"{abs(whole):0{places + 1}d}"
    sign = "-" if whole < 0 else ""
    return f"{sign}{digits[:-places]}.{digits[-places:]}" if places else f"{sign}{digits}"


def text_beside(value: Fraction, other: Fraction, *, places: int = 0) -> str:
    """``value`` with as many decimals, from ``places`` up to six, as it takes to read otherwise than
    ``other``.
    """
    begun = places
    while value != other and places < _MOST_PLACES and fixed(value, places) == fixed(other, places):
        places += 1
    if places > begun and (value * 100).denominator == 1:
        # 156.25 beside 156 reads 156.25, not 156.2
        return fixed(value, 2).rstrip("0").rstrip(".")
    return fixed(value, places)


def round_to(value: Fraction, places: int) -> int:
    """``value`` × 10^``places``, rounded half to even."""
    whole, rest = divmod(value.numerator * TENS[places], value.denominator)
    twice = 2 * rest
    return whole + 1 if twice > value.denominator or (twice == value.denominator and whole & 1) else whole


def apportion(values: Sequence[Fraction], *, places: int) -> list[str]:
    """``values`` printed so that the printed ones add up to their printed sum.

    Each is rounded down; the units that are missing go to those with the largest remainders, the
    earlier first among equals (largest remainder method).
    """
    wanted = round_to(sum(values, Fraction(0)), places)
    scaled = [value * 10**places for value in values]
    floors = [floor(value) for value in scaled]
    order = sorted(range(len(values)), key=lambda at: (floors[at] - scaled[at], at))
    for at in order[: wanted - sum(floors)]:
        floors[at] += 1
    return [fixed(Fraction(units, 10**places), places) for units in floors]


def weigh_in(grams: Fraction, unit: str) -> Fraction:
    """The weight in ``unit`` (lb, oz, kg or g)."""
    return grams / GRAMS_PER[unit]
