"""Lethality of a cook: how much of a reduction of salmonella its coldest inside has come to.

Over each interval between neighbouring moments the lower temperature of its two ends counts; it adds the
interval's length ÷ the time that temperature needs (``reference.heat``). 1 is met.
"""

from collections import defaultdict
from dataclasses import dataclass
from decimal import Context, Decimal
from fractions import Fraction
from functools import cache, lru_cache
from math import floor
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog, PhaseKind
from dolmetsch.core.heat.moments import InsideMoment, Scale, join_stretches, pairs, within
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


def compute_lethality(log: CookLog, inside: list[InsideMoment]) -> Lethality | None:
    """The lethality of a cook's moments; None for poultry, which has tables of its own."""
    if log.meat == "poultry":
        return None
    if not inside:
        return Lethality(log6_5=Fraction(0), log7=Fraction(0), met_at_6_5=None, met_at_7=None)
    scale = inside[0].scale
    least, stale = scale.degrees.count(LETHAL_FROM), scale.clock.count(STALE_SECONDS)
    log6_5, log7 = (_Reduction(column, scale) for column in (LOG_6_5, LOG_7))
    for stretch in join_stretches(log.list_phases(*HEATING)):
        for one, other in pairs(within(inside, stretch)):
            cold, ticks = min(one.cold, other.cold), other.tick - one.tick
            if cold < least or ticks > stale:
                continue
            for reduction in (log6_5, log7):
                reduction.add(cold, ticks, until=other)
    return Lethality(log6_5=log6_5.met(), log7=log7.met(), met_at_6_5=log6_5.met_at, met_at_7=log7.met_at)


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

    def add(self, cold: int, ticks: int, *, until: InsideMoment) -> None:
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


def lethal_seconds(fahrenheit: Fraction, column: int) -> Fraction | None:
    """Seconds at ``fahrenheit`` that meet a reduction by themselves; None where it does not count.

    At a whole degree as the table has it; between two the logarithm of the time is linear. ``column`` is
    ``LOG_6_5`` or ``LOG_7``. From 158 °F on the time is nothing at all: 0.
    """
    if fahrenheit < LETHAL_FROM:
        return None
    if fahrenheit >= LETHAL_AT_ONCE:
        return Fraction(0)
    return _needed_seconds(fahrenheit, column)


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
