"""A forecast of a time: between which two, which is likely, or why nothing can be said."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final

#: The parts of a range that holds eight times of ten, and its middle.
LOW, LIKELY, HIGH = 0.1, 0.5, 0.9
#: Why a forecast is none: it has come true.
REACHED: Final = "reached"


@dataclass(frozen=True, slots=True, kw_only=True)
class TimeSpan:
    """The times (seconds since 1970) before which something comes once, five and nine times of ten."""

    low: Fraction
    likely: Fraction
    high: Fraction


def at_once(at: Fraction) -> TimeSpan:
    """A span of what is known: it was ``at``."""
    return TimeSpan(low=at, likely=at, high=at)


@dataclass(frozen=True, slots=True, kw_only=True)
class TimeForecast:
    """When something comes (None: nothing can be said yet), and why not, or ``REACHED``."""

    span: TimeSpan | None
    why: str | None = None
