"""How good forecasts were: how often the 80 % range held, from what came true.

With n forecasts of which h held, the count is binomial; the interval is Wilson's, which behaves with few
(Wilson 1927, *J. Am. Stat. Assoc.* 22, 209–212). Forecasts of one batch lean on one another, so that the
interval is, if anything, too narrow where a batch is counted more than once.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import log, sqrt
from statistics import median
from typing import Final

from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.forecast.yields import NORMAL

#: Standard normal quantile of a 95 % interval.
_Z: Final = NORMAL.inv_cdf(0.975)


@dataclass(frozen=True, slots=True, kw_only=True)
class Score:
    """So many forecasts, and how many were held, came out ``above`` or ``below`` their range.

    ``low`` and ``high``: the 95 % interval of the part that holds in the long run; ``off_ratio``: by how
    much the middle was off, typically (median of |ln(true ÷ middle)|). None where there are no forecasts.
    """

    count: int
    held: int
    above: int
    below: int
    low: float | None
    high: float | None
    off_ratio: float | None

    @property
    def is_enough(self) -> bool:
        """Whether it says anything: the interval leaves out a range that is worthless."""
        return self.low is not None and self.high is not None and self.high - self.low < 0.4


def compute_quantile(estimate: Estimate, true: float) -> float:
    """Where what came true lies in the forecast's distribution: 0–1; a tenth lies below 0.1."""
    if estimate.log_deviation <= 0:
        return 0.5 if estimate.middle == true else float(true > estimate.middle)
    return NORMAL.cdf(log(true / estimate.middle) / estimate.log_deviation)


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """A forecast beside what came true: within its range (0), above (1) or below it (−1), and how far off.

    ``off``: ln(true ÷ middle) without its sign.
    """

    came: int
    off: float


def judge_forecast(estimate: Estimate, true: float) -> Outcome:
    """A forecast beside what came true (above 0)."""
    came = 1 if true > estimate.high else -1 if true < estimate.low else 0
    return Outcome(came=came, off=abs(log(true / estimate.middle)))


def score(outcomes: Sequence[Outcome]) -> Score:
    """The score of forecasts by what came true of each."""
    return score_counts(
        count=len(outcomes),
        above=sum(1 for one in outcomes if one.came > 0),
        below=sum(1 for one in outcomes if one.came < 0),
        off_ratio=median(one.off for one in outcomes) if outcomes else None,
    )


def score_counts(*, count: int, above: int, below: int, off_ratio: float | None) -> Score:
    """The score of forecasts that were counted: above and below their range; how far off the middle was."""
    held = count - above - below
    if not count:
        return Score(count=0, held=0, above=0, below=0, low=None, high=None, off_ratio=None)
    low, high = part_interval(held, count)
    return Score(count=count, held=held, above=above, below=below, low=low, high=high, off_ratio=off_ratio)


def part_interval(held: int, count: int) -> tuple[float, float]:
    """Wilson's 95 % interval of the part of which ``held`` of ``count`` (above 0) are."""
    part, z = held / count, _Z * _Z / count
    centre = (part + z / 2) / (1 + z)
    reach = _Z / (1 + z) * sqrt(part * (1 - part) / count + z / count / 4)
    return max(centre - reach, 0.0), min(centre + reach, 1.0)
