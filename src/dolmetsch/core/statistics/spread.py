"""What is usual: the middle of a step's or a batch's yields, their band, and what of it the scale made.

Yields are taken as log-normal, as everywhere (``forecast.yields``): the band is that of one more batch,
mean ± t(0.9, n − 1) · s · √(1 + 1 ÷ n) of ln(yield) (prediction interval of a normal sample, Hahn and Meeker,
*Statistical Intervals*, 2nd ed., 4.7).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, fsum, log, sqrt
from typing import Final

from dolmetsch.core.statistics.student import t_quantile, two_sided

#: The band holds eight in ten.
BAND_PART: Final = 0.8
#: From so many batches there is a band; below it nothing is usual yet.
FEWEST: Final = 3
#: From so many others a batch is held against them.
FEWEST_OTHERS: Final = 5
#: Farther off than one batch in twenty is called out of the usual.
UNUSUAL_BELOW: Final = 0.05
#: Values that agree to the last digit still differ by less than this.
_LEAST_DEVIATION: Final = 1e-9


@dataclass(frozen=True, slots=True, kw_only=True)
class Yielded:
    """A yield: ``ratio`` (weight out ÷ weight in, above 0) and what variance of its ln the scale makes."""

    ratio: float
    scale_variance: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Spread:
    """``count`` yields: their middle, and (from ``FEWEST``) the band of eight in ten of one more.

    ``deviation`` of the ratio as found, ``scale_deviation`` what the scale alone makes of it, and
    ``own_deviation`` what is then left to meat and cook; all to first order, None below two yields.
    """

    count: int
    middle: float
    low: float | None
    high: float | None
    deviation: float | None
    scale_deviation: float
    own_deviation: float | None


def compute_spread(yields: Sequence[Yielded]) -> Spread:
    """The spread of at least one yield.

    Raises:
        ValueError: there is none.
    """
    if not yields:
        raise ValueError("nothing has no spread")
    logs = [log(one.ratio) for one in yields]
    count = len(logs)
    mean = fsum(logs) / count
    middle = exp(mean)
    scale = fsum(one.scale_variance for one in yields) / count
    variance = variance_of(logs)
    low = high = None
    if variance is not None and count >= FEWEST:
        reach = t_quantile((1 + BAND_PART) / 2, count - 1) * sqrt(variance * (1 + 1 / count))
        low, high = exp(mean - reach), exp(mean + reach)
    return Spread(
        count=count,
        middle=middle,
        low=low,
        high=high,
        deviation=None if variance is None else middle * sqrt(variance),
        scale_deviation=middle * sqrt(scale),
        own_deviation=None if variance is None else middle * sqrt(max(variance - scale, 0.0)),
    )


def variance_of(values: Sequence[float]) -> float | None:
    """The sample variance; None of fewer than two."""
    if len(values) < 2:
        return None
    mean = fsum(values) / len(values)
    return fsum((value - mean) ** 2 for value in values) / (len(values) - 1)


@dataclass(frozen=True, slots=True, kw_only=True)
class Unusual:
    """A yield beside the ``others``: how much more (below 0: less) it kept than their middle, and how rare.

    ``off``: difference of the ratios; ``chance``: how often a batch like the others is that far off, to
    either side.
    """

    ratio: float
    usual: float
    off: float
    chance: float
    others: int


def find_unusual(yields: Sequence[Yielded]) -> dict[int, Unusual]:
    """By position, the yields that lie beyond what nineteen in twenty of the others keep.

    Each is held against all the others, from ``FEWEST_OTHERS`` of them: t = (y − mean) ÷ (s · √(1 + 1 ÷ n)).
    What the scale alone may have made is never called unusual.
    """
    count = len(yields) - 1
    if count < FEWEST_OTHERS:
        return {}
    logs = [log(one.ratio) for one in yields]
    total, squares = fsum(logs), fsum(value * value for value in logs)
    found = {}
    for at, (one, value) in enumerate(zip(yields, logs, strict=True)):
        mean = (total - value) / count
        variance = max((squares - value * value - count * mean * mean) / (count - 1), one.scale_variance)
        spread = max(sqrt(variance * (1 + 1 / count)), _LEAST_DEVIATION)
        chance = two_sided((value - mean) / spread, count - 1)
        if chance < UNUSUAL_BELOW:
            usual = exp(mean)
            found[at] = Unusual(
                ratio=one.ratio, usual=usual, off=one.ratio - usual, chance=chance, others=count
            )
    return found
