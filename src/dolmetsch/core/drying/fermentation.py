"""Degree-hours of a fermentation against their limit (``reference.drying``)."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise
from typing import Literal

from dolmetsch.core.drying.drying_log import DryingLog, Ferment, PhReading
from dolmetsch.core.numbers.moment import HOUR_SECONDS
from dolmetsch.core.reference.drying import FERMENT_FROM, FERMENT_PH, degree_hours_limit

FermentState = Literal["met", "failed", "running"]
#: A time and the °F then.
Point = tuple[Fraction, Fraction]


@dataclass(frozen=True, slots=True, kw_only=True)
class Fermentation:
    """Degree-hours (°F·h above 60 °F) so far or until pH 5.3, their limit, and when that was reached."""

    degree_hours: Fraction
    limit: Fraction
    ph_reached_at: Fraction | None
    state: FermentState


def follow_fermentation(log: DryingLog) -> Fermentation | None:
    """The fermentation of a piece; None where it is not fermented."""
    ferment = log.ferment
    if ferment is None:
        return None
    reached = _find_reached(log.ph)
    last = log.ph[-1].at if log.ph else ferment.start
    end = max(ferment.start, last if log.until is None else log.until)
    if reached is not None:
        end = max(ferment.start, reached)
    curve = _curve(log, ferment, end)
    hours = _integrate(curve)
    limit = degree_hours_limit(max(fahrenheit for _, fahrenheit in curve))
    state: FermentState = "failed" if hours > limit else "running" if reached is None else "met"
    return Fermentation(degree_hours=hours, limit=limit, ph_reached_at=reached, state=state)


def _find_reached(ph: Sequence[PhReading]) -> Fraction | None:
    """When the pH first came down to 5.3, by straight line between readings."""
    if ph and ph[0].ph <= FERMENT_PH:
        return ph[0].at
    for one, other in pairwise(ph):
        if one.ph > FERMENT_PH >= other.ph:
            return one.at + (one.ph - FERMENT_PH) / (one.ph - other.ph) * (other.at - one.at)
    return None


def _curve(log: DryingLog, ferment: Ferment, end: Fraction) -> list[Point]:
    """The temperature over the time: by the chamber's readings of it, held flat outside, else as given."""
    read = [(one.at, one.fahrenheit) for one in log.chamber if one.fahrenheit is not None]
    own = [point for point in read if ferment.start <= point[0] <= end]
    if not own:
        fahrenheit = ferment.fahrenheit
        if fahrenheit is None:
            # the reading nearest to the time has to do
            fahrenheit = min(read, key=lambda point: abs(point[0] - ferment.start))[1]
        return [(ferment.start, fahrenheit), (end, fahrenheit)]
    return [(ferment.start, own[0][1]), *own, (end, own[-1][1])]


def _integrate(curve: Sequence[Point]) -> Fraction:
    """Degree-hours under a line from point to point, where it is above 60 °F."""
    total = Fraction(0)
    for (start, first), (end, last) in pairwise(curve):
        over, above = sorted((first - FERMENT_FROM, last - FERMENT_FROM))
        if above <= 0:
            continue
        # of a line that crosses 60 °F only the part above it counts
        part = Fraction(1) if over >= 0 else above / (above - over)
        total += (max(over, Fraction(0)) + above) / 2 * part * (end - start)
    return total / HOUR_SECONDS
