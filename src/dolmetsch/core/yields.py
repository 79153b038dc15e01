"""What a step is expected to keep: start values, and the kitchen's own batches learned from.

The model, for each method (hot smoke, dry cure, …), on y = ln(weight out ÷ weight in):

- a batch of cut c keeps y ~ N(μ_c, σ²), and is weighed with the scale's own known error v besides;
- μ_c = ln(start value) + a + b_c, where a (this method across all cuts) and b_c (this cut) are normal and
  share alike the prior variance σ² ÷ 3: the start value is worth three batches;
- σ comes from the start value's own standard deviation s, which is that of a next batch while nothing is
  known, s² = σ² (1 + 1/3); own batches correct it, the start value again worth three of them (the mean of a
  scaled inverse chi-square, put in as if known).

Conjugate normal updating throughout (Gelman et al., *Bayesian Data Analysis*, 3rd ed., 2.5, 3.3 and 5.4).
These are statistics, in floating point; nothing here enters the ledger.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from math import exp, fsum, log, sqrt
from typing import Final

from dolmetsch.core.cuts import Cut, cut_of_key
from dolmetsch.core.reference import METHODS, PRIOR_BATCHES, START_YIELDS, StartYield

#: Standard normal quantile that leaves a tenth above it: the 80 % range reaches so many deviations each way.
RANGE_80: Final = 1.2815515655446004
#: Prior variances of a and of b_c, in units of σ².
_SHARE: Final = 1 / (2 * PRIOR_BATCHES)
#: s² ÷ σ² while nothing is known.
_FRESH: Final = 1 + 1 / PRIOR_BATCHES


@dataclass(frozen=True, slots=True, kw_only=True)
class Tally:
    """What batches of one method and cut kept, summed up; two add to a third, so it is kept incrementally.

    ``count`` of batches, sums of ln(ratio) and of its square, and the sum of the scale's own variance of
    ln(ratio).
    """

    count: int = 0
    log_sum: float = 0.0
    square_sum: float = 0.0
    scale_variance_sum: float = 0.0

    def __add__(self, other: "Tally") -> "Tally":
        return Tally(
            count=self.count + other.count,
            log_sum=self.log_sum + other.log_sum,
            square_sum=self.square_sum + other.square_sum,
            scale_variance_sum=self.scale_variance_sum + other.scale_variance_sum,
        )


def tally(ratios: Iterable[float], *, scale_variance: float = 0.0) -> Tally:
    """The tally of kept ratios (each above 0), all weighed on a scale of one variance of ln(ratio)."""
    logs = [log(ratio) for ratio in ratios]
    return Tally(
        count=len(logs),
        log_sum=fsum(logs),
        square_sum=fsum(one * one for one in logs),
        scale_variance_sum=scale_variance * len(logs),
    )


#: Tallies by method, then by the key of the cut.
History = Mapping[str, Mapping[str, Tally]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Belief:
    """What is believed of one step of the next batch: ln(ratio) is normal about ``log_mean``.

    ``batches`` of this cut and ``others`` (of other cuts, this method) it was learned from; ``start`` is
    the start value it began with, and ``is_borrowed`` says that this cut has none of its own, so that it was
    taken from those of all cuts.
    """

    method: str
    log_mean: float
    log_deviation: float
    batches: int
    others: int
    start: StartYield
    is_borrowed: bool

    @property
    def ratio(self) -> float:
        """The middle one: as often more as less is kept."""
        return exp(self.log_mean)

    @property
    def deviation(self) -> float:
        """One standard deviation of the ratio, to first order."""
        return self.ratio * self.log_deviation

    @property
    def low(self) -> float:
        """One batch in ten keeps less."""
        return exp(self.log_mean - RANGE_80 * self.log_deviation)

    @property
    def high(self) -> float:
        """One batch in ten keeps more."""
        return exp(self.log_mean + RANGE_80 * self.log_deviation)

    def explain(self) -> str:
        """In words: "0.87 ± 0.03: start value, 0 batches", or "…: your last 8 hot smokes of this cut"."""
        places = 3 if self.deviation < 0.01 else 2
        figure = f"{self.ratio:.{places}f} ± {self.deviation:.{places}f}"
        label = METHODS[self.method].label
        if self.batches:
            whence = (
                f"your last {self.batches} {label} of this cut"
                if self.batches > 1
                else f"one of your {label}"
            )
            beside = f", and {self.others} of other cuts" if self.others else ""
            return f"{figure}: {whence}{beside}"
        if self.others:
            return f"{figure}: start value, and {self.others} of your {label} of other cuts"
        whence = "mean of the start values of all cuts" if self.is_borrowed else "start value"
        return f"{figure}: {whence}, 0 batches"


def start_of(method: str, cut: Cut) -> tuple[StartYield, bool]:
    """The start value of a method for a cut, and whether it had to be borrowed from all cuts.

    A borrowed one is their mean; its variance is their mean variance and the variance between them.
    """
    row = START_YIELDS[method]
    own = row.get(cut.column or "")
    if own is not None:
        return own, False
    cells = list(row.values())
    mean = fsum(cell.mean for cell in cells) / len(cells)
    within = fsum(cell.deviation**2 for cell in cells) / len(cells)
    between = fsum((cell.mean - mean) ** 2 for cell in cells) / len(cells)
    return StartYield(mean=mean, deviation=sqrt(within + between)), True


@dataclass(frozen=True, slots=True)
class _Standard:
    """A tally measured from its start value in units of σ: mean, squares about it, variance of the mean."""

    count: int
    mean: float
    squares: float
    mean_variance: float


def _sigma(start: StartYield) -> float:
    """σ as the start value says: its own deviation is that of a next batch."""
    return start.deviation / start.mean / sqrt(_FRESH)


def _standardise(told: Tally, start: StartYield) -> _Standard:
    sigma = _sigma(start)
    centre = told.log_sum / told.count
    scale_variance = told.scale_variance_sum / told.count / sigma**2
    raw = told.square_sum - told.count * centre * centre
    # what the scale alone would scatter is not the batches' own
    squares = max(raw / sigma**2 - (told.count - 1) * scale_variance, 0.0)
    return _Standard(
        count=told.count,
        mean=(centre - log(start.mean)) / sigma,
        squares=squares,
        mean_variance=(1 + scale_variance) / told.count,
    )


def believe(method: str, cut: Cut, history: History) -> Belief:
    """What the next batch of ``cut`` keeps in a step done by ``method``.

    Raises:
        KeyError: no such method.
    """
    start, is_borrowed = start_of(method, cut)
    own = Tally()
    others = []
    for key, told in history.get(method, {}).items():
        other_cut = cut_of_key(key)
        if cut.is_like(other_cut):
            own += told
        elif told.count:
            others.append(_standardise(told, start_of(method, other_cut)[0]))
    precision = 1 / _SHARE
    weighed = 0.0
    freedom, squares = float(PRIOR_BATCHES), float(PRIOR_BATCHES)
    for other in others:
        worth = 1 / (_SHARE + other.mean_variance)
        precision += worth
        weighed += worth * other.mean
        freedom += other.count - 1
        squares += other.squares
    mean, variance = weighed / precision, 1 / precision + _SHARE
    log_mean, log_deviation = _update(start, own, prior=(mean, variance), freedom=freedom, squares=squares)
    return Belief(
        method=method,
        log_mean=log_mean,
        log_deviation=log_deviation,
        batches=own.count,
        others=sum(other.count for other in others),
        start=start,
        is_borrowed=is_borrowed,
    )


def believe_ratio(start: StartYield, own: Tally) -> tuple[float, float]:
    """ln of the next ratio where there is nothing to pool (frying): its mean and deviation."""
    worth = float(PRIOR_BATCHES)
    return _update(start, own, prior=(0.0, 1 / PRIOR_BATCHES), freedom=worth, squares=worth)


def _update(
    start: StartYield, own: Tally, *, prior: tuple[float, float], freedom: float, squares: float
) -> tuple[float, float]:
    """Mean and deviation of ln(next ratio), from a prior of μ (mean, variance in units of σ)."""
    mean, variance = prior
    if own.count:
        mine = _standardise(own, start)
        apart = mine.mean - mean
        squares += mine.squares + apart * apart / (mine.mean_variance + variance)
        freedom += mine.count
        gain = variance / (variance + mine.mean_variance)
        mean, variance = mean + gain * apart, variance * (1 - gain)
    sigma = _sigma(start)
    return log(start.mean) + sigma * mean, sigma * sqrt(squares / freedom * (1 + variance))
