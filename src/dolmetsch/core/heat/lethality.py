"""Lethality of a cook: how much of a reduction of salmonella its coldest inside has come to.

Over each interval between neighbouring moments the lower temperature of its two ends counts; it adds the
interval's length ÷ the time that temperature needs (``reference.heat``). 1 is met.
"""

from dataclasses import dataclass
from decimal import Context, Decimal
from fractions import Fraction
from functools import lru_cache
from math import floor
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog, PhaseKind
from dolmetsch.core.heat.moments import InsideMoment, join_stretches, pairs, within
from dolmetsch.core.reference.heat import LETHAL_AT_ONCE, LETHAL_FROM, LETHALITY_SECONDS

#: Lethality counts in these; not in cold smoke, not while it cools.
HEATING: Final[tuple[PhaseKind, ...]] = ("cook", "hold", "rest")
#: Times between two rows of the table carry so many digits; far beyond what is printed.
_DIGITS: Final = 40
_EXACT: Final = Context(prec=_DIGITS)
_GRAIN: Final = 10**30
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
    met = [Fraction(0), Fraction(0)]
    found: list[Fraction | None] = [None, None]
    for stretch in join_stretches(log.list_phases(*HEATING)):
        for one, other in pairs(within(inside, stretch)):
            coldest = min(one.coldest, other.coldest)
            if coldest < LETHAL_FROM or other.at - one.at > STALE_SECONDS:
                continue
            for column in (LOG_6_5, LOG_7):
                met[column] = _add(met[column], coldest, other.at - one.at, column)
                if found[column] is None and met[column] >= 1:
                    found[column] = other.at
    return Lethality(log6_5=met[LOG_6_5], log7=met[LOG_7], met_at_6_5=found[LOG_6_5], met_at_7=found[LOG_7])


def _add(met: Fraction, fahrenheit: Fraction, seconds: Fraction, column: int) -> Fraction:
    if fahrenheit >= LETHAL_AT_ONCE:
        return max(met, Fraction(1))
    needed = lethal_seconds(fahrenheit, column)
    return met if needed is None else met + seconds / needed


@lru_cache(maxsize=4096)
def lethal_seconds(fahrenheit: Fraction, column: int) -> Fraction | None:
    """Seconds at ``fahrenheit`` that meet a reduction by themselves; None where it does not count.

    At a whole degree as the table has it; between two the logarithm of the time is linear. ``column`` is
    ``LOG_6_5`` or ``LOG_7``. From 158 °F on the time is nothing at all: 0.
    """
    if fahrenheit < LETHAL_FROM:
        return None
    if fahrenheit >= LETHAL_AT_ONCE:
        return Fraction(0)
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
