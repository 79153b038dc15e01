"""What a step is expected to keep: start values, and the kitchen's own batches learned from.

The model, for each method (hot smoke, dry cure, …), on y = ln(weight out ÷ weight in):

- a batch of cut c keeps y ~ N(μ_c, σ²), and is weighed with the scale's own known error v besides;
- μ_c = ln(start value) + a + b_c, where a (this method across all cuts) and b_c (this cut) are normal and
  share alike the prior variance σ² ÷ 3: the start value is worth three batches;
- σ comes from the start value's own standard deviation s, which is that of a next batch while nothing is
  known, s² = σ² (1 + 1/3); own batches correct it, the start value again worth three of them (the mean of a
  scaled inverse chi-square, put in as if known).

Records are not all to be believed alike, and kitchens not all like the start values:

- of three or more batches each counts by its distance r from their middle, in deviations: wholly up to 2.5,
  beyond it by (2.5 ÷ r)², so that a slip of the scale counts like a batch 2.5 deviations off (a redescending
  weight);
- a single batch, or two that disagree, over 4 deviations off the start value is more likely a slip than the
  kitchen, and counts by (4 ÷ z)²; otherwise a kitchen may well differ from the start value: over 2 deviations
  off, the prior's variance is widened until it is 2 (a prior with heavy tails, taken in steps);
- a range is never narrower than the scale's own error, and ends at 1 where nothing is added.

Conjugate normal updating throughout (Gelman et al., *Bayesian Data Analysis*, 3rd ed., 2.5, 3.3 and 5.4).
These are statistics, in floating point; nothing here enters the ledger.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from math import exp, fsum, log, sqrt
from statistics import NormalDist, median
from typing import Final

from dolmetsch.core.meat.cuts import Cut, cut_of_key
from dolmetsch.core.reference.yields import METHODS, PRIOR_BATCHES, START_YIELDS, StartYield

#: The standard normal distribution, by which every range and chance goes.
NORMAL: Final = NormalDist()
#: Standard normal quantile that leaves a tenth above it: the 80 % range reaches so many deviations each way.
RANGE_80: Final = NORMAL.inv_cdf(0.9)
#: Prior variances of a and of b_c, in units of σ².
_SHARE: Final = 1 / (2 * PRIOR_BATCHES)
#: s² ÷ σ² while nothing is known.
_FRESH: Final = 1 + 1 / PRIOR_BATCHES
#: Deviations from the middle of its like from which a batch counts less, and the fewest batches that have
#: one.
_FAR: Final = 2.5
_TELLING: Final = 3
#: Deviations from the start value: at which few batches are taken for a slip, and at which the prior gives
#: way.
_SLIP_AT, _GIVES_WAY_AT = 4.0, 2.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Tally:
    """What batches of one method and cut kept, summed up; two add to a third.

    ``count`` of batches, and with what each counts as its weight: the sums of weights, of ln(ratio), of its
    square, and of the scale's own variance of ln(ratio).
    """

    count: int = 0
    weight: float = 0.0
    log_sum: float = 0.0
    square_sum: float = 0.0
    scale_variance_sum: float = 0.0

    def __add__(self, other: "Tally") -> "Tally":
        return Tally(
            count=self.count + other.count,
            weight=self.weight + other.weight,
            log_sum=self.log_sum + other.log_sum,
            square_sum=self.square_sum + other.square_sum,
            scale_variance_sum=self.scale_variance_sum + other.scale_variance_sum,
        )


def tally(ratios: Iterable[float], *, scale_variance: float = 0.0, start: StartYield | None = None) -> Tally:
    """The tally of kept ratios (each above 0), all weighed on a scale of one variance of ln(ratio)."""
    return tally_logs([(log(ratio), scale_variance) for ratio in ratios], start=start)


def tally_logs(logs: Sequence[tuple[float, float]], *, start: StartYield | None = None) -> Tally:
    """The tally of ln(ratio) with the scale's variance of each.

    ``start``: whose deviation is the least that tells a batch far off from its like; None: each counts whole.
    """
    weights = [1.0] * len(logs) if start is None else _weigh([one for one, _ in logs], _sigma(start))
    pairs = list(zip(logs, weights, strict=True))
    return Tally(
        count=len(logs),
        weight=fsum(weights),
        log_sum=fsum(weight * one for (one, _), weight in pairs),
        square_sum=fsum(weight * one * one for (one, _), weight in pairs),
        scale_variance_sum=fsum(weight * scale for (_, scale), weight in pairs),
    )


def _weigh(logs: Sequence[float], sigma: float) -> list[float]:
    """With what each counts: 1 up to ``_FAR`` deviations from their middle, less beyond."""
    if len(logs) < _TELLING:
        return [1.0] * len(logs)
    middle = median(logs)
    # 1.4826 times the median deviation is the standard deviation of what is normal
    spread = max(1.4826 * median(abs(one - middle) for one in logs), sigma)
    far = [abs(one - middle) / spread / _FAR for one in logs]
    return [1.0 if one <= 1 else 1 / one**2 for one in far]


#: Tallies by method, then by the key of the cut.
History = Mapping[str, Mapping[str, Tally]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Belief:
    """What is believed of one step of the next batch: ln(ratio) is normal about ``log_mean``.

    ``batches`` of this cut and ``others`` (of other cuts, this method) it was learned from; ``start`` is
    the start value it began with, and ``is_borrowed`` says that this cut has none of its own, so that it was
    taken from those of all cuts. ``basis``: what it rests on in words, where it is not by method and cut.
    """

    method: str
    log_mean: float
    log_deviation: float
    batches: int
    others: int
    start: StartYield
    is_borrowed: bool
    basis: str = ""

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
        """One batch in ten keeps more; never more than all of it where nothing is added."""
        high = exp(self.log_mean + RANGE_80 * self.log_deviation)
        return high if METHODS[self.method].can_gain else min(high, 1.0)

    def explain(self) -> str:
        """In words: "87.0 % ± 3.0: start value, 0 batches", or "…: your last 8 hot smokes of this cut"."""
        places = 2 if self.deviation < 0.001 else 1
        figure = f"{self.ratio * 100:.{places}f} % ± {self.deviation * 100:.{places}f}"
        if self.basis:
            return f"{figure}: {self.basis}"
        label = METHODS[self.method].label
        if self.batches:
            based_on = (
                f"your last {self.batches} {label} of this cut"
                if self.batches > 1
                else f"one of your {label}"
            )
            beside = f", and {self.others} of other cuts" if self.others else ""
            return f"{figure}: {based_on}{beside}"
        if self.others:
            return f"{figure}: start value, and {self.others} of your {label} of other cuts"
        based_on = "mean of the start values of all cuts" if self.is_borrowed else "start value"
        return f"{figure}: {based_on}, 0 batches"


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
    """A tally measured from its start value in units of σ: mean, squares about it, variance of the mean.

    ``weight``: batches as they count; ``is_slip``: so few and so far off that a slip is likelier.
    """

    weight: float
    mean: float
    squares: float
    mean_variance: float
    is_slip: bool


def _sigma(start: StartYield) -> float:
    """σ as the start value says: its own deviation is that of a next batch."""
    return start.deviation / start.mean / sqrt(_FRESH)


def _standardise(own: Tally, start: StartYield) -> _Standard:
    sigma = _sigma(start)
    centre = own.log_sum / own.weight
    scale_variance = own.scale_variance_sum / own.weight / sigma**2
    raw = own.square_sum - own.weight * centre * centre
    # what the scale alone would scatter is not the batches' own
    squares = max(raw / sigma**2 - max(own.weight - 1, 0.0) * scale_variance, 0.0)
    mean, mean_variance = (centre - log(start.mean)) / sigma, (1 + scale_variance) / own.weight
    off = abs(mean) / sqrt(mean_variance + 1 / PRIOR_BATCHES)
    counts = 1.0
    # two that agree are no slip, however far off
    is_alone = own.count == 1 or (own.count < _TELLING and squares > 2 * _FAR**2)
    if is_slip := is_alone and off > _SLIP_AT:
        counts = (_SLIP_AT / off) ** 2
        squares = min(squares, own.count * _FAR**2)
    return _Standard(
        weight=own.weight * counts,
        mean=mean,
        squares=squares,
        mean_variance=mean_variance / counts,
        is_slip=is_slip,
    )


def believe(method: str, cut: Cut, history: History) -> Belief:
    """What the next batch of ``cut`` keeps in a step done by ``method``.

    Raises:
        KeyError: no such method.
    """
    start, is_borrowed = start_of(method, cut)
    own = Tally()
    others = []
    lenders = 0
    for key, kept in history.get(method, {}).items():
        other_cut = cut_of_key(key)
        if cut.is_like(other_cut):
            own += kept
        elif kept.count:
            others.append(_standardise(kept, start_of(method, other_cut)[0]))
            lenders += kept.count
    precision = 1 / _SHARE
    weighed = 0.0
    freedom, squares = float(PRIOR_BATCHES), float(PRIOR_BATCHES)
    for other in others:
        worth = 1 / (_SHARE + other.mean_variance)
        precision += worth
        weighed += worth * other.mean
        freedom += max(other.weight - 1, 0.0)
        squares += other.squares
    mean, variance = weighed / precision, 1 / precision + _SHARE
    log_mean, log_deviation = _update(start, own, prior=(mean, variance), freedom=freedom, squares=squares)
    return Belief(
        method=method,
        log_mean=log_mean if METHODS[method].can_gain else min(log_mean, 0.0),
        log_deviation=log_deviation,
        batches=own.count,
        others=lenders,
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
    scale_variance = 0.0
    if own.count:
        mine = _standardise(own, start)
        apart = mine.mean - mean
        if not mine.is_slip:
            variance = max(variance, (apart / _GIVES_WAY_AT) ** 2 - mine.mean_variance)
        squares += mine.squares
        squares += min(apart * apart / (mine.mean_variance + variance), _SLIP_AT)
        freedom += mine.weight
        gain = variance / (variance + mine.mean_variance)
        mean, variance = mean + gain * apart, variance * (1 - gain)
        scale_variance = own.scale_variance_sum / own.weight
    sigma = _sigma(start)
    batches = sigma**2 * squares / freedom * (1 + variance)
    return log(start.mean) + sigma * mean, sqrt(max(batches, scale_variance))
