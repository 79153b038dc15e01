"""What went wrong in a cook, each with what to do. A condition lasts until the first moment it does not hold.

The marks are in ``reference.fire`` and ``reference.heat``.
"""

from bisect import bisect_left, bisect_right, insort
from collections import deque
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Final, Literal, get_args

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog, Phase, Probe
from dolmetsch.core.heat.lethality import HEATING
from dolmetsch.core.heat.moments import (
    CountedLog,
    InsideMoment,
    Moment,
    instants_of,
    join_stretches,
    list_within,
    pairs,
    within,
)
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.grid import Grid
from dolmetsch.core.numbers.moment import MINUTE_SECONDS
from dolmetsch.core.numbers.temperature import TemperatureUnit, difference_from_fahrenheit, from_fahrenheit
from dolmetsch.core.reference.fire import (
    FIRE_LOW_DROP,
    FIRE_LOW_LEAST_SECONDS,
    FIRE_LOW_SECONDS,
    FIRE_LOW_WINDOW_SECONDS,
    PROBE_OUT_NEAR_AIR,
    PROBE_OUT_NEAR_SECONDS,
    PROBE_OUT_NEIGHBOR_SECONDS,
    PROBE_OUT_OTHERS_UNDER,
    PROBE_OUT_RISE,
    PROBE_OUT_SECONDS,
    PROBE_SWAP_NEARER,
)
from dolmetsch.core.reference.heat import (
    COLD_SMOKE_AIR,
    COLD_SMOKE_MOST,
    COLD_SMOKE_SECONDS,
    COLD_SMOKE_SOURCE,
    DANGER_CURED_SECONDS,
    DANGER_FROM,
    DANGER_SECONDS,
    DANGER_SOURCE,
    DANGER_TO,
)

TroubleCode = Literal["fire_low", "smoke_warm", "probe_out", "probe_swap", "gap", "danger"]
_ORDER: Final[dict[str, int]] = {code: index for index, code in enumerate(get_args(TroubleCode))}


@dataclass(frozen=True, slots=True, kw_only=True)
class Trouble:
    """Something wrong from ``start`` to ``end``; ``probe`` None where it is of no single probe."""

    code: TroubleCode
    start: Fraction
    end: Fraction
    probe: str | None
    text: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Track:
    """What one probe read, in order of time: times and temperatures as counts on the grids of the log."""

    clock: Grid
    degrees: Grid
    times: list[int]
    counts: list[int]

    def time(self, index: int) -> Fraction:
        """The time of a reading, the last one beyond the end."""
        return self.clock.value(self.times[min(index, len(self.times) - 1)])

    def within(self, phase: Phase) -> "Track":
        """What was read in ``phase``, both ends included."""
        first = bisect_left(self.times, phase.start * self.clock.parts)
        end = phase.end
        last = len(self.times) if end is None else bisect_right(self.times, end * self.clock.parts)
        return replace(self, times=self.times[first:last], counts=self.counts[first:last])


def list_troubles(
    counted: CountedLog, moments: Sequence[Moment], inside: Sequence[InsideMoment]
) -> list[Trouble]:
    """All troubles of a cook, in order of their beginning."""
    log, tracks = counted.log, dict(list_tracks(counted))
    found = [
        *_fires_low(log, tracks),
        *_smokes_warm(log, tracks),
        *_probes_out(log, moments, tracks),
        *_probes_swapped(log, moments),
        *_gaps(log, inside),
        *_dangers(log, inside),
    ]
    return sorted(found, key=lambda one: (one.start, _ORDER[one.code]))


def list_tracks(counted: CountedLog) -> Iterator[tuple[str, Track]]:
    """What each probe read, by its id."""
    for probe in counted.log.probes:
        name = probe.id
        own = [
            (at, counts[name])
            for at, counts in zip(counted.times, counted.counts, strict=True)
            if name in counts
        ]
        yield (
            name,
            Track(
                clock=counted.scale.clock,
                degrees=counted.scale.degrees,
                times=[at for at, _ in own],
                counts=[count for _, count in own],
            ),
        )


def list_runs(holds: Sequence[bool]) -> Iterator[tuple[int, int]]:
    """Runs in which a condition holds: index of its first, and of the first that does not hold again, which
    is one beyond the end where it holds to the last.
    """
    begun: int | None = None
    for index, holding in enumerate(holds):
        if holding and begun is None:
            begun = index
        elif not holding and begun is not None:
            yield begun, index
            begun = None
    if begun is not None:
        yield begun, len(holds)


def _fires_low(log: CookLog, tracks: Mapping[str, Track]) -> Iterator[Trouble]:
    for probe in log.air:
        for phase in log.list_phases():
            for start, end, usual in _drops(tracks[probe.id].within(phase)):
                if end - start > FIRE_LOW_SECONDS:
                    text = (
                        f"The air fell over {_degrees(FIRE_LOW_DROP, log.unit)} under its usual"
                        f" {_temperature(usual, log.unit)} for {_minutes(end - start)}."
                        " Look at the fire: fuel, ash, air, the door."
                    )
                    yield Trouble(code="fire_low", start=start, end=end, probe=probe.id, text=text)


def _drops(track: Track) -> Iterator[tuple[Fraction, Fraction, Fraction]]:
    """Beginning and end of each time the air was low, and the median it is measured by."""
    drop = 2 * track.degrees.count(FIRE_LOW_DROP)
    index = 0
    for begun, twice_usual in _usuals(track):
        if begun < index or 2 * track.counts[begun] >= twice_usual - drop:
            continue
        index = begun
        while index < len(track.counts) and 2 * track.counts[index] < twice_usual - drop:
            index += 1
        yield track.time(begun), track.time(index), track.degrees.value(twice_usual) / 2


def _usuals(track: Track) -> Iterator[tuple[int, int]]:
    """Each reading that has enough of the hour before it: its index, and twice the median of that hour."""
    window, least = track.clock.count(FIRE_LOW_WINDOW_SECONDS), track.clock.count(FIRE_LOW_LEAST_SECONDS)
    hour: list[int] = []
    first = 0
    for index, at in enumerate(track.times):
        while track.times[first] < at - window:
            del hour[bisect_left(hour, track.counts[first])]
            first += 1
        if at - track.times[first] >= least:
            yield index, hour[(len(hour) - 1) // 2] + hour[len(hour) // 2]
        insort(hour, track.counts[index])


def _smokes_warm(log: CookLog, tracks: Mapping[str, Track]) -> Iterator[Trouble]:
    for probe in log.air:
        track = tracks[probe.id]
        limit = track.degrees.count(COLD_SMOKE_AIR)
        for phase in log.list_phases("cold_smoke"):
            own = track.within(phase)
            for begun, ended in list_runs([count > limit for count in own.counts]):
                start, end = own.time(begun), own.time(ended)
                most = own.degrees.value(max(own.counts[begun:ended]))
                if end - start > COLD_SMOKE_SECONDS or most > COLD_SMOKE_MOST:
                    text = (
                        f"The air came to {_temperature(most, log.unit)}, too warm for a cold smoke:"
                        f" keep it under {_temperature(COLD_SMOKE_AIR, log.unit)}."
                        f" Let cool air in or bank the fire ({COLD_SMOKE_SOURCE})."
                    )
                    yield Trouble(code="smoke_warm", start=start, end=end, probe=probe.id, text=text)


def _probes_out(log: CookLog, moments: Sequence[Moment], tracks: Mapping[str, Track]) -> Iterator[Trouble]:
    every = _like_air(log, moments)
    for probe in log.inside:
        track = tracks[probe.id]
        jumps = [(track.time(begun), track.time(ended)) for begun, ended in list_runs(list(_jumps(track)))]
        known, near = every[probe.id]
        runs = [(known[begun].at, known[min(ended, len(known) - 1)].at) for begun, ended in list_runs(near)]
        lying = [(start, end) for start, end in runs if end - start >= PROBE_OUT_NEAR_SECONDS]
        for start, end in _join([*jumps, *lying]):
            text = (
                f"Probe {probe.id} reads like the air, or rose faster than meat can:"
                " it may have come out. Push it back into the middle of the thickest part."
            )
            yield Trouble(code="probe_out", start=start, end=end, probe=probe.id, text=text)


def _jumps(track: Track) -> Iterator[bool]:
    """Whether each reading lies too far above one shortly before it."""
    rise = track.degrees.count(PROBE_OUT_RISE)
    minute, neighbor = track.clock.count(PROBE_OUT_SECONDS), track.clock.count(PROBE_OUT_NEIGHBOR_SECONDS)
    # of the last minute those that none after them lies under, so that the first is the lowest
    low: deque[tuple[int, int]] = deque()
    last: tuple[int, int] | None = None
    for at, count in zip(track.times, track.counts, strict=True):
        while low and low[0][0] < at - minute:
            low.popleft()
        if low:
            yield count - low[0][1] > rise
        else:
            yield last is not None and at - last[0] <= neighbor and count - last[1] > rise
        while low and low[-1][1] >= count:
            low.pop()
        last = (at, count)
        low.append(last)


def _like_air(log: CookLog, moments: Sequence[Moment]) -> dict[str, tuple[list[Moment], list[bool]]]:
    """For each inside probe the moments at which it is known, and whether it reads like the air then while
    every other is far under it.
    """
    airs, names = [one.id for one in log.air], [one.id for one in log.inside]
    found: dict[str, tuple[list[Moment], list[bool]]] = {name: ([], []) for name in names}
    if not moments:
        return found
    degrees = moments[0].scale.degrees
    near, under = degrees.count(PROBE_OUT_NEAR_AIR), degrees.count(PROBE_OUT_OTHERS_UNDER)
    for moment in moments:
        counts = moment.counts
        air = next((counts[name] for name in airs if name in counts), None)
        for name in names:
            count = counts.get(name)
            if count is None:
                continue
            known, like = found[name]
            known.append(moment)
            if air is None or abs(count - air) > near:
                like.append(False)
                continue
            beside = [counts[other] for other in names if other != name and other in counts]
            like.append(bool(beside) and air - max(beside) > under)
    return found


def _join(spans: Iterable[tuple[Fraction, Fraction]]) -> list[tuple[Fraction, Fraction]]:
    """Spans that touch or overlap, as one each."""
    joined: list[tuple[Fraction, Fraction]] = []
    for start, end in sorted(spans):
        if joined and start <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(end, joined[-1][1]))
        else:
            joined.append((start, end))
    return joined


def _probes_swapped(log: CookLog, moments: Sequence[Moment]) -> Iterator[Trouble]:
    probes = [one for one in log.inside if one.piece]
    for instant in instants_of(log):
        moment = moments[bisect_left(moments, instant.at, key=lambda one: one.at)]
        values = {one.id: value for one in probes if (value := moment.value_of(one.id)) is not None}
        own = _nearest(values, instant.fahrenheit, [one for one in probes if one.piece == instant.piece])
        other = _nearest(values, instant.fahrenheit, [one for one in probes if one.piece != instant.piece])
        if own is None or other is None or own[0] - other[0] <= PROBE_SWAP_NEARER:
            continue
        text = (
            f"{instant.piece} read {_temperature(instant.fahrenheit, log.unit)} by hand, which is what probe"
            f" {other[1].id} in {other[1].piece} reads, not probe {own[1].id}:"
            " the two may be mixed up. Look which is where."
        )
        yield Trouble(code="probe_swap", start=instant.at, end=instant.at, probe=other[1].id, text=text)


def _nearest(
    values: dict[str, Fraction], fahrenheit: Fraction, probes: Iterable[Probe]
) -> tuple[Fraction, Probe] | None:
    """Which of ``probes`` reads nearest to a temperature, and how far off it is."""
    found = [(abs(values[one.id] - fahrenheit), one) for one in probes if one.id in values]
    return min(found, key=lambda one: one[0]) if found else None


def _gaps(log: CookLog, inside: Sequence[InsideMoment]) -> Iterator[Trouble]:
    for stretch in join_stretches(log.list_phases(*HEATING)):
        for one, other in pairs(within(inside, stretch)):
            if other.tick - one.tick > STALE_SECONDS * one.scale.clock.parts:
                text = (
                    f"No inside temperature for {_minutes(other.at - one.at)}:"
                    " nothing counts toward lethality in that time."
                )
                yield Trouble(code="gap", start=one.at, end=other.at, probe=None, text=text)


def _dangers(log: CookLog, inside: Sequence[InsideMoment]) -> Iterator[Trouble]:
    limit = DANGER_CURED_SECONDS if log.is_cured else DANGER_SECONDS
    if not inside:
        return
    low, high = (inside[0].scale.degrees.count(mark) for mark in (DANGER_FROM, DANGER_TO))
    heated = {one.tick for one in list_within(inside, log.list_phases(*HEATING))}
    holds = [low <= one.cold <= high and one.tick in heated for one in inside]
    for begun, ended in list_runs(holds):
        start, end = inside[begun].at, inside[min(ended, len(inside) - 1)].at
        if end - start > limit:
            hours = fixed((end - start) / 3600, 1)
            text = (
                f"The coldest inside lay between {_temperature(DANGER_FROM, log.unit)} and"
                f" {_temperature(DANGER_TO, log.unit)} for {hours} hours; {limit // 3600} are the most"
                f" ({DANGER_SOURCE}). Your food authority decides what may be done with it."
            )
            yield Trouble(code="danger", start=start, end=end, probe=None, text=text)


def _temperature(fahrenheit: Fraction, unit: TemperatureUnit) -> str:
    return f"{fixed(from_fahrenheit(fahrenheit, unit), 0)} °{unit}"


def _degrees(fahrenheit: Fraction, unit: TemperatureUnit) -> str:
    return f"{fixed(difference_from_fahrenheit(fahrenheit, unit), 0)} °{unit}"


def _minutes(seconds: Fraction) -> str:
    minutes = fixed(seconds / MINUTE_SECONDS, 0)
    return f"{minutes} minute{'' if minutes == '1' else 's'}"
