"""Hands-on minutes of the kinds of step: start values."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkStart:
    """Hands-on minutes of a kind of step: so many a batch and so many a piece (*start values*)."""

    fixed_minutes: Fraction
    piece_minutes: Fraction
    pound_minutes: Fraction = Fraction(0)


WORK_SOURCE: Final = "start values of common practice, until the kitchen's own log says better"
#: Hands-on minutes a batch, by kind of step; slicing and packing by knife, by the pound.
WORK_STARTS: Final[dict[str, WorkStart]] = {
    "trim": WorkStart(fixed_minutes=Fraction(10), piece_minutes=Fraction(3)),
    "cure": WorkStart(fixed_minutes=Fraction(10), piece_minutes=Fraction(4)),
    "rest": WorkStart(fixed_minutes=Fraction(5), piece_minutes=Fraction(3)),
    "smoke": WorkStart(fixed_minutes=Fraction(20), piece_minutes=Fraction(2)),
    "slice": WorkStart(fixed_minutes=Fraction(10), piece_minutes=Fraction(0), pound_minutes=Fraction(4)),
}
