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
class Scale:
    """What a log is counted by: a grid on which all of its times lie, and one for its temperatures (°F).

    A long cook has fifty thousand readings: whole numbers are compared many times as quickly as fractions.
    """

    clock: Grid
    degrees: Grid


@dataclass(frozen=True, slots=True, kw_only=True)
class Moment:
    """What was known at a time: what the probes read, the coldest and the warmest inside.

    ``tick``, ``counts`` (by probe), ``cold`` and ``warm`` are whole numbers on the log's ``scale``. ``probe``
    is what the coldest came from: a probe's id (the first listed of equal ones) or ``instant``;
    ``probed`` the coldest of the probes alone. Of a moment without any inside temperature ``cold``, ``warm``
    and ``probe`` are None. ``unread`` are the pieces of which nothing is known then.
    """

    scale: Scale
    tick: int
    counts: dict[str, int]
    cold: int | None
    warm: int | None
    probe: str | None
    probed: int | None = None
    unread: tuple[str, ...] = ()

    @property
    def at(self) -> Fraction:
        """Its time, seconds since 1970."""
        return self.scale.clock.value(self.tick)

    def value_of(self, probe: str) -> Fraction | None:
        """What ``probe`` read (°F); None where it is not known then."""
        count = self.counts.get(probe)
        return None if count is None else self.scale.degrees.value(count)


@dataclass(frozen=True, slots=True, kw_only=True)
class InsideMoment:
    """A moment that has an inside temperature."""

    scale: Scale
    tick: int
    cold: int
    warm: int
    probe: str
    probed: int | None = None
    unread: tuple[str, ...] = ()

    @property
    def at(self) -> Fraction:
        """Its time, seconds since 1970."""
        return self.scale.clock.value(self.tick)

    @property
    def coldest(self) -> Fraction:
        """The lowest inside temperature, °F."""
        return self.scale.degrees.value(self.cold)

    @property
    def warmest(self) -> Fraction:
        """The highest inside temperature, °F."""
        return self.scale.degrees.value(self.warm)

    @property
    def point(self) -> tuple[float, float]:
        """Its time and the lowest inside temperature, for what is fitted."""
        return self.tick / self.scale.clock.parts, self.cold / self.scale.degrees.parts


@dataclass(frozen=True, slots=True, kw_only=True)
class HandReading:
    """A reading by hand on the log's ``scale``."""

    tick: int
    piece: str
    where: str
    count: int


@dataclass(frozen=True, slots=True, kw_only=True)
class CountedLog:
    """The readings of a log, in order of time, as whole numbers on its ``scale``; ``counts`` by probe.

    ``by_hand`` in order of time too, of equal times as recorded.
    """

    log: CookLog
    scale: Scale
    times: Sequence[int]
    counts: Sequence[dict[str, int]]
    by_hand: Sequence["HandReading"]


def count_log(log: CookLog) -> CountedLog:
    """``log`` on the coarsest grids on which all of its times and temperatures lie."""
    # by identity: most values are the same few objects, and to hash an exact number takes long
    read = {id(value): value for reading in log.readings for value in reading.values.values()}
    degrees = Grid.of(chain(read.values(), (one.fahrenheit for one in log.instant)))
    clock = Grid.of(chain((one.at for one in log.readings), (one.at for one in log.instant)))
    count_of = {name: degrees.count(value) for name, value in read.items()}
    return CountedLog(
        log=log,
        scale=Scale(clock=clock, degrees=degrees),
        times=[clock.count(one.at) for one in log.readings],
        counts=[
            {probe: count_of[id(value)] for probe, value in reading.values.items()}
            for reading in log.readings
        ],
        by_hand=[
            HandReading(
                tick=clock.count(one.at),
                piece=one.piece,
                where=one.where,
                count=degrees.count(one.fahrenheit),
            )
            for one in instants_of(log)
        ],
    )


def list_moments(counted: CountedLog) -> list[Moment]:
    """Every time of a reading or a reading by hand, in order, with what was known then.

    A probe counts with its last value for ``STALE_SECONDS``, a reading by hand as long, or until its piece is
    read again at the same place.
    """
    log, stale = counted.log, counted.scale.clock.count(STALE_SECONDS)
    readings = dict(zip(counted.times, counted.counts, strict=True))
    by_hand: dict[int, list[HandReading]] = defaultdict(list)
    for one in counted.by_hand:
        by_hand[one.tick].append(one)
    inside = [probe.id for probe in log.inside]
    pieces, piece_of = log.pieces, {probe.id: probe.piece for probe in log.inside if probe.piece}
    last: dict[str, tuple[int, int]] = {}
    hand: dict[tuple[str, str], list[HandReading]] = {}
    found = []
    for at in sorted(readings.keys() | by_hand.keys()):
        for probe, read in readings.get(at, {}).items():
            last[probe] = (at, read)
        for key in {(one.piece, one.where) for one in by_hand.get(at, ())}:
            hand[key] = [one for one in by_hand[at] if (one.piece, one.where) == key]
        oldest = at - stale
        counts = {probe: count for probe, (read_at, count) in last.items() if read_at >= oldest}
        held = [one for ones in hand.values() for one in ones if one.tick >= oldest]
        candidates = [(counts[probe], probe) for probe in inside if probe in counts]
        known = {piece_of[probe] for _, probe in candidates if probe in piece_of}
        probed = min((count for count, _ in candidates), default=None)
        # behind the probes, so that of equal ones the probe is named
        candidates += [(one.count, INSTANT) for one in held]
        known.update(one.piece for one in held)
        cold, probe_of_cold = min(candidates, key=itemgetter(0), default=(None, None))
        warm, _ = max(candidates, key=itemgetter(0), default=(None, None))
        found.append(
            Moment(
                scale=counted.scale,
                tick=at,
                counts=counts,
                cold=cold,
                warm=warm,
                probe=probe_of_cold,
                probed=probed,
                unread=tuple(piece for piece in pieces if piece not in known),
            )
        )
    return found


def list_inside(moments: Iterable[Moment]) -> list[InsideMoment]:
    """The moments that have an inside temperature."""
    return [
        InsideMoment(
            scale=one.scale,
            tick=one.tick,
            cold=one.cold,
            warm=one.warm,
            probe=one.probe,
            probed=one.probed,
            unread=one.unread,
        )
        for one in moments
        if one.cold is not None and one.warm is not None and one.probe is not None
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
