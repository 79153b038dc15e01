"""How much to buy so that there is enough: raw meat for what is wanted sliced, with its odds.

What is kept of raw meat is log-normal (``forecast.outlook``), so that with the chance p there is enough of
wanted ÷ (middle · exp(−z(p) · deviation)).
"""

from dataclasses import dataclass
from fractions import Fraction
from math import ceil, exp, log, pi, sqrt
from typing import Final

from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.forecast.yields import NORMAL

#: Chances that can be asked for, and the one that is where nobody asks for another.
LEAST_CHANCE, MOST_CHANCE, USUAL_CHANCE = 0.5, 0.99, 0.9
_POINTS: Final = 41
_WIDE: Final = 3.0


@dataclass(frozen=True, slots=True, kw_only=True)
class RawNeed:
    """Grams of raw meat: ``even`` is enough every other time, ``sure`` with the chance asked for."""

    even: float
    sure: float


def raw_needed(wanted: float, kept: Estimate, *, chance: float) -> RawNeed:
    """Raw grams of which ``wanted`` grams are left, ``kept`` of each gram, with ``chance`` (0–1).

    Raises:
        ValueError: nothing is kept, or the chance is none that can be asked for.
    """
    if kept.middle <= 0 or not LEAST_CHANCE <= chance <= MOST_CHANCE:
        raise ValueError("something is kept, and a chance is from a half to 99 per cent")
    even = wanted / kept.middle
    return RawNeed(even=even, sure=even * exp(NORMAL.inv_cdf(chance) * kept.log_deviation))


def chance_enough(raw: float, wanted: float, kept: Estimate) -> float:
    """The chance that ``raw`` grams are enough."""
    if wanted <= 0:
        return 1.0
    return 1.0 - Estimate(middle=raw * kept.middle, log_deviation=kept.log_deviation).chance_below(wanted)


def whole_packs(raw: float, pack_grams: Fraction) -> int:
    """How many packs have at least so many grams; a thousandth short of one is not another."""
    return ceil(raw / float(pack_grams) - 1e-3) if raw > 0 else 0


def draw_odds(wanted: float, kept: Estimate) -> list[tuple[float, float]]:
    """Raw grams, and how likely it is that just so many are needed (density by gram), to be drawn."""
    if wanted <= 0 or kept.log_deviation <= 0:
        return []
    even = wanted / kept.middle
    points = []
    for index in range(_POINTS):
        z = _WIDE * (2 * index / (_POINTS - 1) - 1)
        raw = even * exp(z * kept.log_deviation)
        density = exp(-((log(raw / even) / kept.log_deviation) ** 2) / 2)
        points.append((raw, density / (raw * kept.log_deviation * sqrt(2 * pi))))
    return points
