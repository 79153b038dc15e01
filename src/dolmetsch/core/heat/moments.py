"""The moments of a cook: what was known of the inside at each. The coldest decides."""

from bisect import bisect_left, bisect_right
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import chain, pairwise
from operator import itemgetter
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog, InstantReading, Phase
from dolmetsch.core.numbers.grid import Grid

#: What the coldest came from where it was an instant reading alone.
INSTANT: Final = "instant"


@dataclass(frozen=True, slots=True, kw_only=True)
class Moment:
    """What was known at a time: what the probes read, the coldest and the warmest inside.

    ``counts`` are the probes' temperatures on the log's ``grid``. ``probe`` is what the coldest came from: a
    probe's id (the first listed of equal ones) or ``instant``. Of a moment without any inside temperature
    ``coldest``, ``warmest`` and ``probe`` are None.
    """

    at: Fraction
    grid: Grid
    counts: dict[str, int]
    coldest: Fraction | None
    warmest: Fraction | None
    probe: str | None

    def value_of(self, probe: str) -> Fraction | None:
        """What ``probe`` read (°F); None where it is not known then."""
        count = self.counts.get(probe)
        return None if count is None else self.grid.value(count)


@dataclass(frozen=True, slots=True, kw_only=True)
class InsideMoment:
    """A moment that has an inside temperature."""

    at: Fraction
    coldest: Fraction
    warmest: Fraction
    probe: str


def degree_grid(log: CookLog) -> Grid:
    """A grid on which all temperatures of ``log`` lie."""
    read = (value for reading in log.readings for value in reading.values.values())
    return Grid.of(chain(read, (one.fahrenheit for one in log.instant)))


def time_grid(log: CookLog) -> Grid:
    """A grid on which all times of ``log`` lie."""
    return Grid.of(chain((one.at for one in log.readings), (one.at for one in log.instant)))


def list_moments(log: CookLog) -> list[Moment]:
    """Every time of a reading or an instant reading, in order, with what was known then.

    A probe counts with its last value for ``STALE_SECONDS``, an instant reading at its own moment alone.
    """
    grid, clock = degree_grid(log), time_grid(log)
    readings = {clock.count(reading.at): reading.values for reading in log.readings}
    instant: dict[int, list[int]] = defaultdict(list)
    for one in log.instant:
        instant[clock.count(one.at)].append(grid.count(one.fahrenheit))
    inside = [probe.id for probe in log.inside]
    stale = clock.count(STALE_SECONDS)
    last: dict[str, tuple[int, int]] = {}
    found = []
    for at in sorted(readings.keys() | instant.keys()):
        for probe, value in readings.get(at, {}).items():
            last[probe] = (at, grid.count(value))
        oldest = at - stale
        counts = {probe: count for probe, (read_at, count) in last.items() if read_at >= oldest}
        candidates = [(counts[probe], probe) for probe in inside if probe in counts]
        # behind the probes, so that of equal ones the probe is named
        candidates += [(count, INSTANT) for count in instant.get(at, ())]
        found.append(_moment(clock.value(at), grid, counts, candidates))
    return found


def _moment(at: Fraction, grid: Grid, counts: dict[str, int], candidates: list[tuple[int, str]]) -> Moment:
    if not candidates:
        return Moment(at=at, grid=grid, counts=counts, coldest=None, warmest=None, probe=None)
    coldest, probe = min(candidates, key=itemgetter(0))
    warmest = max(candidates, key=itemgetter(0))[0]
    return Moment(
        at=at,
        grid=grid,
        counts=counts,
        coldest=grid.value(coldest),
        warmest=grid.value(warmest),
        probe=probe,
    )


def list_inside(moments: Iterable[Moment]) -> list[InsideMoment]:
    """The moments that have an inside temperature."""
    return [
        InsideMoment(at=one.at, coldest=one.coldest, warmest=one.warmest, probe=one.probe)
        for one in moments
        if one.coldest is not None and one.warmest is not None and one.probe is not None
    ]


def join_stretches(phases: Iterable[Phase]) -> list[tuple[Fraction, Fraction | None]]:
    """Phases that touch or overlap, as one stretch each, in order; the end None: open."""
    stretches: list[tuple[Fraction, Fraction | None]] = []
    for phase in sorted(phases, key=lambda one: one.start):
        if stretches:
            start, end = stretches[-1]
            if end is None or phase.start <= end:
                stretches[-1] = (start, None if end is None or phase.end is None else max(end, phase.end))
                continue
        stretches.append((phase.start, phase.end))
    return stretches


def within(
    inside: Sequence[InsideMoment], stretch: tuple[Fraction, Fraction | None]
) -> Sequence[InsideMoment]:
    """The moments of ``inside``, which are in order, that lie in ``stretch``, both ends included."""
    start, end = stretch
    first = bisect_left(inside, start, key=lambda one: one.at)
    last = len(inside) if end is None else bisect_right(inside, end, key=lambda one: one.at)
    return inside[first:last]


def list_within(inside: Sequence[InsideMoment], phases: Iterable[Phase]) -> list[InsideMoment]:
    """The moments of ``inside`` that lie in any of ``phases``, in order."""
    return [one for stretch in join_stretches(phases) for one in within(inside, stretch)]


def pairs(inside: Sequence[InsideMoment]) -> Iterator[tuple[InsideMoment, InsideMoment]]:
    """Neighbours, two by two."""
    return pairwise(inside)


def instants_of(log: CookLog) -> list[InstantReading]:
    """The instant readings in order of time."""
    return sorted(log.instant, key=lambda one: one.at)
