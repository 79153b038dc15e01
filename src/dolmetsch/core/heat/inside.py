"""Where the coldest inside is, how fast it climbs, and the highest it came to."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from dolmetsch.core.heat.cook_log import CookLog
from dolmetsch.core.heat.lethality import HEATING
from dolmetsch.core.heat.moments import InsideMoment, list_within
from dolmetsch.core.numbers.moment import HOUR_SECONDS

#: The climb is that of the last half hour.
RATE_SECONDS: Final = 1800


@dataclass(frozen=True, slots=True, kw_only=True)
class InsideNow:
    """The inside temperature (°F) at the last moment that has one, and what it was read by.

    ``rate_per_hour``: °F an hour by least squares over the last half hour; None with fewer than two moments.
    """

    at: Fraction
    fahrenheit: Fraction
    probe: str
    rate_per_hour: Fraction | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Peak:
    """The highest the coldest inside came to while it was cooked, held or rested, and when first."""

    at: Fraction
    fahrenheit: Fraction


def find_now(inside: Sequence[InsideMoment]) -> InsideNow | None:
    """The inside now; None where it was never read."""
    if not inside:
        return None
    last = inside[-1]
    recent = inside[bisect_left(inside, last.at - RATE_SECONDS, key=lambda one: one.at) :]
    return InsideNow(at=last.at, fahrenheit=last.coldest, probe=last.probe, rate_per_hour=_fit_rate(recent))


def _fit_rate(moments: Sequence[InsideMoment]) -> Fraction | None:
    """The least-squares slope, °F an hour."""
    if len(moments) < 2:
        return None
    times = [one.at - moments[0].at for one in moments]
    count, sum_times = len(times), sum(times)
    values = [one.coldest for one in moments]
    over = count * sum(
        (time * value for time, value in zip(times, values, strict=True)), Fraction(0)
    ) - sum_times * sum(values)
    under = count * sum((time * time for time in times), Fraction(0)) - sum_times * sum_times
    return over / under * HOUR_SECONDS


def find_peak(log: CookLog, inside: Sequence[InsideMoment]) -> Peak | None:
    """The peak; None where nothing was read while it was cooked, held or rested."""
    heated = list_within(inside, log.list_phases(*HEATING))
    if not heated:
        return None
    # of equal ones the first
    highest = max(heated, key=lambda one: one.cold)
    return Peak(at=highest.at, fahrenheit=highest.coldest)
