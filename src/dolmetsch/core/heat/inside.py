"""Where the coldest inside is, how fast it climbs, and the highest it came to."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog, InstantReading
from dolmetsch.core.heat.lethality import HEATING
from dolmetsch.core.heat.moments import INSTANT, CountedLog, InsideMoment, list_within
from dolmetsch.core.numbers.moment import HOUR_SECONDS

#: A time and the temperature (°F) read then.
Point = tuple[Fraction, Fraction]
#: The climb of a probe is that of the last half hour, by hand that of the last three hours.
RATE_SECONDS, HAND_RATE_SECONDS = 1800, 10_800
#: Readings by hand closer together than this say nothing of a climb.
HAND_LEAST_SECONDS: Final = 600


@dataclass(frozen=True, slots=True, kw_only=True)
class InsideNow:
    """The inside temperature (°F) at the last moment that has one, and what it was read by.

    ``rate_per_hour``: °F an hour by least squares, of the probes or of the readings by hand of the piece and
    place that decided; None with fewer than two, or by hand too close together. ``unread``: the pieces of
    which nothing was known then.
    """

    at: Fraction
    fahrenheit: Fraction
    probe: str
    rate_per_hour: Fraction | None
    unread: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Peak:
    """The highest the coldest inside came to while it was cooked, held or rested, and when first."""

    at: Fraction
    fahrenheit: Fraction


def find_now(counted: CountedLog, inside: Sequence[InsideMoment]) -> InsideNow | None:
    """The inside now; None where it was never read."""
    if not inside:
        return None
    last = inside[-1]
    points = _of_hand(counted, last) if last.probe == INSTANT else _of_probes(inside)
    return InsideNow(
        at=last.at,
        fahrenheit=last.coldest,
        probe=last.probe,
        rate_per_hour=_fit_rate(points),
        unread=last.unread,
    )


def _of_probes(inside: Sequence[InsideMoment]) -> list[Point]:
    """What probes read of the inside in the last half hour."""
    since = bisect_left(inside, inside[-1].at - RATE_SECONDS, key=lambda one: one.at)
    return [(one.at, one.coldest) for one in inside[since:] if one.probe != INSTANT]


def _of_hand(counted: CountedLog, last: InsideMoment) -> list[Point]:
    """The readings by hand of the piece and place that decided at ``last``; none where too close together."""
    clock, degrees = counted.scale.clock, counted.scale.degrees
    latest = {(one.piece, one.where): one.tick for one in counted.by_hand if one.tick <= last.tick}
    # in order of time, of equal times as recorded; the first in the document of equal ones decides
    held = [one for one in counted.log.instant if clock.count(one.at) == latest.get((one.piece, one.where))]
    decided = next(one for one in held if degrees.count(one.fahrenheit) == last.cold and _counts(one, last))
    key, since = (decided.piece, decided.where), last.tick - clock.count(HAND_RATE_SECONDS)
    own = [one for one in counted.by_hand if (one.piece, one.where) == key and since <= one.tick <= last.tick]
    if own[-1].tick - own[0].tick < clock.count(HAND_LEAST_SECONDS):
        return []
    return [(clock.value(one.tick), degrees.value(one.count)) for one in own]


def _counts(reading: InstantReading, last: InsideMoment) -> bool:
    return reading.at >= last.at - STALE_SECONDS


def _fit_rate(points: Sequence[Point]) -> Fraction | None:
    """The least-squares slope, °F an hour."""
    if len(points) < 2:
        return None
    times = [at - points[0][0] for at, _ in points]
    count, sum_times = len(times), sum(times)
    values = [value for _, value in points]
    over = count * sum(
        (time * value for time, value in zip(times, values, strict=True)), Fraction(0)
    ) - sum_times * sum(values)
    under = count * sum((time * time for time in times), Fraction(0)) - sum_times * sum_times
    return over / under * HOUR_SECONDS if under else None


def find_peak(log: CookLog, inside: Sequence[InsideMoment]) -> Peak | None:
    """The peak; None where nothing was read while it was cooked, held or rested."""
    heated = list_within(inside, log.list_phases(*HEATING))
    if not heated:
        return None
    # of equal ones the first
    highest = max(heated, key=lambda one: one.cold)
    return Peak(at=highest.at, fahrenheit=highest.coldest)


@dataclass(frozen=True, slots=True, kw_only=True)
class PieceReading:
    """What a piece reads (°F): the lowest of what counts of it, else the last that was read of it.

    ``probe`` is ``instant`` for a reading by hand; ``where`` it was read. ``is_unread``: nothing counts any
    more.
    """

    fahrenheit: Fraction
    at: Fraction
    probe: str
    where: str
    is_unread: bool


def read_pieces(log: CookLog, *, now: Fraction) -> dict[str, PieceReading]:
    """What each piece of ``log`` reads at ``now``; those never read are left out."""
    found: dict[str, list[PieceReading]] = {}

    def note(piece: str, at: Fraction, fahrenheit: Fraction, probe: str, where: str) -> None:
        reading = PieceReading(
            fahrenheit=fahrenheit, at=at, probe=probe, where=where, is_unread=at < now - STALE_SECONDS
        )
        found.setdefault(piece, []).append(reading)

    for probe in log.inside:
        last = next((one for one in reversed(log.readings) if one.at <= now and probe.id in one.values), None)
        if probe.piece and last is not None:
            note(probe.piece, last.at, last.values[probe.id], probe.id, probe.where)
    known = [one for one in log.instant if one.at <= now]
    latest: dict[tuple[str, str], Fraction] = {}
    for one in known:
        latest[one.piece, one.where] = max(one.at, latest.get((one.piece, one.where), one.at))
    for one in known:
        # read again at the same place, the newer one counts
        if one.at == latest[one.piece, one.where]:
            note(one.piece, one.at, one.fahrenheit, INSTANT, one.where)
    return {piece: _decide(readings) for piece, readings in found.items()}


def _decide(readings: Sequence[PieceReading]) -> PieceReading:
    counting = [one for one in readings if not one.is_unread]
    if counting:
        return min(counting, key=lambda one: one.fahrenheit)
    return max(readings, key=lambda one: (one.at, -one.fahrenheit))
