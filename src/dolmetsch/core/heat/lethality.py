"""Lethality of a cook: how much of a reduction of salmonella its coldest inside has come to.

Over each interval between neighboring moments the lowest temperature that is known of it counts; it adds the
interval's length ÷ the time that temperature needs (``reference.heat``). 1 is met.
"""

from bisect import bisect_left, bisect_right
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Context, Decimal
from fractions import Fraction
from functools import cache, lru_cache
from itertools import pairwise
from math import floor
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS, PhaseKind
from dolmetsch.core.heat.moments import CountedLog, Moment, Scale, join_stretches
from dolmetsch.core.reference.heat import LETHAL_AT_ONCE, LETHAL_FROM, LETHALITY_SECONDS

#: Lethality counts in these; not in cold smoke, not while it cools.
HEATING: Final[tuple[PhaseKind, ...]] = ("cook", "hold", "rest")
#: Times between two rows of the table carry so many digits; far beyond what is printed.
_DIGITS: Final = 40
_EXACT: Final = Context(prec=_DIGITS)
_GRAIN: Final = 10**30
#: Thousands of floats may be off by less than this is from 1.
_NEARLY_MET: Final = 1 - 1e-9
LOG_6_5, LOG_7 = 0, 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Lethality:
    """Parts of a 6.5-log and a 7-log reduction that are met, and when each came to 1 (None: not yet)."""

    log6_5: Fraction
    log7: Fraction
    met_at_6_5: Fraction | None
    met_at_7: Fraction | None


def compute_lethality(counted: CountedLog, moments: Sequence[Moment]) -> Lethality | None:
    """The lethality of a cook's moments; None for poultry, which has tables of its own.

    Only what is known is credited: an interval over which a piece is not known adds nothing.
    """
    log = counted.log
    if log.meat == "poultry":
        return None
    known = _Known(counted)
    log6_5, log7 = (_Reduction(column, counted.scale) for column in (LOG_6_5, LOG_7))
    for start, end in join_stretches(log.list_phases(*HEATING)):
        first = bisect_left(moments, start, key=lambda one: one.at)
        last = len(moments) if end is None else bisect_right(moments, end, key=lambda one: one.at)
        for one, other in pairwise(moments[first:last]):
            cold = known.coldest_over(one, other)
            if cold is not None:
                for reduction in (log6_5, log7):
                    reduction.add(cold, other.tick - one.tick, until=other)
    return Lethality(log6_5=log6_5.met(), log7=log7.met(), met_at_6_5=log6_5.met_at, met_at_7=log7.met_at)


class _Known:
    """What is known between two neighboring moments of a log."""

    def __init__(self, counted: CountedLog) -> None:
        log, scale = counted.log, counted.scale
        self._least, self._stale = scale.degrees.count(LETHAL_FROM), scale.clock.count(STALE_SECONDS)
        self._inside = [probe.id for probe in log.inside]
        self._probes = {
            piece: [probe.id for probe in log.inside if probe.piece == piece] for piece in log.pieces
        }
        self._hand: dict[str, dict[str, dict[int, int]]] = {}
        self._read: dict[int, int] = {}
        for one in counted.by_hand:
            times = self._hand.setdefault(one.piece, {}).setdefault(one.where, {})
            times[one.tick] = min(one.count, times.get(one.tick, one.count))
            self._read[one.tick] = min(one.count, self._read.get(one.tick, one.count))
        self._times = {
            (piece, where): list(times) for piece, own in self._hand.items() for where, times in own.items()
        }

    def coldest_over(self, one: Moment, other: Moment) -> int | None:
        """The lowest that is known over the interval; None where a piece is not known, or where it cannot
        count: too long, or colder than lethality counts from.
        """
        if other.tick - one.tick > self._stale:
            return None
        values = [
            counts[name] for counts in (one.counts, other.counts) for name in self._inside if name in counts
        ]
        values += [self._read[at] for at in (one.tick, other.tick) if at in self._read]
        by_hand = {piece: self._pairs(piece, one.tick, other.tick) for piece in self._hand}
        values += [lower for lowers in by_hand.values() for lower in lowers]
        if not values or (cold := min(values)) < self._least:
            return None
        for piece, probes in self._probes.items():
            if not by_hand.get(piece) and not self._at_both(probes, one, other):
                return None
        if not self._probes and not self._at_both(self._inside, one, other):
            return None
        return cold

    def _at_both(self, probes: Sequence[str], one: Moment, other: Moment) -> bool:
        return any(name in one.counts and name in other.counts for name in probes)

    def _pairs(self, piece: str, start: int, end: int) -> list[int]:
        """Of each place of the piece that was read by hand before and after: the lower of the two."""
        found = []
        for where, counts in self._hand[piece].items():
            times = self._times[piece, where]
            after = bisect_left(times, end)
            before = bisect_right(times, start) - 1
            if before >= 0 and after < len(times) and times[after] - times[before] <= self._stale:
                found.append(min(counts[times[before]], counts[times[after]]))
        return found


class _Reduction:
    """The part of one reduction that is met: exact, with one division for each temperature there was.

    An interval adds seconds ÷ needed seconds. A running sum in floats says when the exact one may have come
    to 1, so that it is worked out only there and at the end.
    """

    def __init__(self, column: int, scale: Scale) -> None:
        self.met_at: Fraction | None = None
        self._column, self._scale = column, scale
        self._at_once = scale.degrees.count(LETHAL_AT_ONCE)
        self._base = Fraction(0)
        self._ticks: defaultdict[int, int] = defaultdict(int)
        self._about = 0.0
        self._needs = cache(self._need)

    def add(self, cold: int, ticks: int, *, until: Moment) -> None:
        """An interval of so many ticks at a temperature."""
        if cold >= self._at_once:
            if self.met_at is None:
                self._base, self.met_at = Fraction(1), until.at
                self._ticks.clear()
            return
        self._ticks[cold] += ticks
        if self.met_at is None:
            self._about += ticks / self._needs(cold)
            if self._about > _NEARLY_MET and self.met() >= 1:
                self.met_at = until.at

    def met(self) -> Fraction:
        """The part that is met, exactly."""
        degrees, clock = self._scale.degrees, self._scale.clock
        parts = [
            clock.value(ticks) / _needed_seconds(degrees.value(cold), self._column)
            for cold, ticks in self._ticks.items()
        ]
        # added two by two, so that few of the sums have long denominators
        while len(parts) > 1:
            parts = [sum(parts[at : at + 2], Fraction(0)) for at in range(0, len(parts), 2)]
        return sum(parts, self._base)

    def _need(self, cold: int) -> float:
        """Ticks that meet the reduction at a temperature, about."""
        return float(_needed_seconds(self._scale.degrees.value(cold), self._column) * self._scale.clock.parts)


@lru_cache(maxsize=4096)
def _needed_seconds(fahrenheit: Fraction, column: int) -> Fraction:
    """Seconds that a temperature of the table's needs, the last degree's up to 158 °F."""
    row = floor(fahrenheit)
    below = LETHALITY_SECONDS[row][column]
    part = fahrenheit - row
    above = LETHALITY_SECONDS.get(row + 1, LETHALITY_SECONDS[row])[column]
    if not part or above == below:
        return Fraction(below)
    exponent = _EXACT.divide(Decimal(part.numerator), Decimal(part.denominator))
    ratio = _EXACT.power(_EXACT.divide(Decimal(above), Decimal(below)), exponent)
    # on a grid, so that sums of thousands of intervals keep a denominator of sane size
    return Fraction(round(Fraction(_EXACT.multiply(Decimal(below), ratio)) * _GRAIN), _GRAIN)
