"""Whether two kinds of batches keep differently, and what a change of one figure goes with.

Two groups: Welch's unequal variances t (Welch 1947); a slope: ordinary least squares (Draper and Smith,
*Applied Regression Analysis*, 3rd ed., 1.4). Neither says what the cause is.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import fsum, sqrt
from typing import Final

from dolmetsch.core.statistics.spread import variance_of
from dolmetsch.core.statistics.student import t_quantile, two_sided

#: Batches of each kind, and of a slope, below which nothing is said.
FEWEST_EACH: Final = 3
FEWEST_OF_SLOPE: Final = 5
#: A difference that chance gives less often is more than chance.
MORE_THAN_CHANCE: Final = 0.05
_RANGE: Final = 0.9


@dataclass(frozen=True, slots=True, kw_only=True)
class Difference:
    """How much more the one has than the other, with its 80 % range, and how often chance alone does that."""

    middle: float
    low: float
    high: float
    chance: float

    @property
    def is_more_than_chance(self) -> bool:
        """Whether chance alone gives one as large in fewer than one case of twenty."""
        return self.chance < MORE_THAN_CHANCE


def compute_difference(ones: Sequence[float], others: Sequence[float]) -> Difference | None:
    """Mean of ``ones`` less that of ``others``; None where either is too few or none of them differ."""
    if min(len(ones), len(others)) < FEWEST_EACH:
        return None
    parts = [(variance_of(group) or 0.0) / len(group) for group in (ones, others)]
    error = sqrt(sum(parts))
    if not error:
        return None
    freedom = sum(parts) ** 2 / sum(
        part**2 / (len(group) - 1) for part, group in zip(parts, (ones, others), strict=True)
    )
    middle = fsum(ones) / len(ones) - fsum(others) / len(others)
    return _difference(middle, error, freedom)


def compute_slope(points: Sequence[tuple[float, float]]) -> Difference | None:
    """By how much the second goes up with one more of the first; None where there is too little to say."""
    if len(points) < FEWEST_OF_SLOPE:
        return None
    count = len(points)
    x_mean = fsum(x for x, _ in points) / count
    y_mean = fsum(y for _, y in points) / count
    width = fsum((x - x_mean) ** 2 for x, _ in points)
    if not width:
        return None
    slope = fsum((x - x_mean) * (y - y_mean) for x, y in points) / width
    left = fsum((y - y_mean - slope * (x - x_mean)) ** 2 for x, y in points)
    error = sqrt(left / (count - 2) / width)
    return _difference(slope, error, count - 2) if error else None


def _difference(middle: float, error: float, freedom: float) -> Difference:
    reach = t_quantile(_RANGE, freedom) * error
    return Difference(
        middle=middle, low=middle - reach, high=middle + reach, chance=two_sided(middle / error, freedom)
    )
