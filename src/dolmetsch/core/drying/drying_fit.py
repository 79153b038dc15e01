"""When a hanging piece is dry: the curve fitted to its weighings, and the time it reaches its target.

The part of the green weight left after t days is m∞ + (1 − m∞)·e^(−kt). m∞ and ln k have priors
(``reference.drying``); the likelihood is normal with the scale's error and what the curve itself is off by.
The mode is found by Newton's method, the range by weighing a grid around it.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import exp, log, sqrt
from typing import Final

from dolmetsch.core.drying.drying_log import DryingLog
from dolmetsch.core.numbers.moment import DAY_SECONDS
from dolmetsch.core.numbers.span import HIGH, LIKELY, LOW, REACHED, TimeForecast, TimeSpan, at_once
from dolmetsch.core.reference.drying import K_LOG_DEVIATION, K_MIDDLE, M_INF_DEVIATION, M_INF_MEAN

#: What a real hook is off its curve by, as a part of the green weight: air and fat are never even.
CURVE_DEVIATION: Final = 0.008
#: How far the rate of the days to come may be off the rate so far: standard deviation of its logarithm.
RATE_DRIFT: Final = 0.01
#: The deviation above is believed like so many weighings: later ones speak for themselves.
USUAL_WEIGHINGS: Final = 0.1
_LN_K: Final = log(K_MIDDLE)
_STEPS: Final = 60
_GRID: Final = 12
_GRID_DEVIATIONS: Final = 3.5
#: Drift is spread over so many equally likely middles of a normal distribution.
_DRIFTS: Final = (-1.2816, -0.6745, -0.3186, 0.0, 0.3186, 0.6745, 1.2816)
#: Further ahead nothing is said: ten years.
_MOST_DAYS: Final = 3650.0


@dataclass(frozen=True, slots=True, kw_only=True)
class DryingFit:
    """The most likely curve: m∞ as a part of the green weight, and k a day.

    ``points`` are curves around it, as (m∞, ln k, weight).
    """

    m_inf_ratio: float
    k_per_day: float
    points: tuple[tuple[float, float, float], ...]

    def kept_after(self, days: float) -> float:
        """The part of the green weight left after so many days."""
        return self.m_inf_ratio + (1 - self.m_inf_ratio) * exp(-self.k_per_day * days)


def days_hung(log: DryingLog, at: Fraction) -> float:
    """Days from hanging to a time."""
    return float((at - log.hung_at) / DAY_SECONDS)


@dataclass(frozen=True, slots=True)
class _Seen:
    """A weighing as the fit sees it: days hung, part of green kept, and how far that may be off."""

    days: float
    kept: float
    deviation: float


def fit_drying(log: DryingLog) -> DryingFit | None:
    """The curve through the weighings; None where there is none."""
    if not log.weighings:
        return None
    seen = [_see(log, index) for index in range(len(log.weighings))]
    m_inf, ln_k = _find_mode(seen, 1.0)
    # how far off the curve they really lie, beside a few weighings' worth of what is usual
    square = sum(_off(one, m_inf, ln_k) ** 2 for one in seen)
    wide = sqrt((USUAL_WEIGHINGS + square) / (USUAL_WEIGHINGS + len(seen) - 1))
    m_inf, ln_k = _find_mode(seen, wide)
    points = tuple(_list_points(seen, wide, m_inf, ln_k))
    return DryingFit(m_inf_ratio=m_inf, k_per_day=exp(ln_k), points=points)


def forecast_dry(log: DryingLog, fit: DryingFit | None) -> TimeForecast:
    """When the loss reaches the target, by the fit carried on from the last weighing."""
    for weighing in log.weighings:
        if log.loss_at(weighing) >= log.target_loss:
            return TimeForecast(span=at_once(weighing.at), why=REACHED)
    if fit is None:
        return TimeForecast(span=None, why="not weighed yet")
    last = log.weighings[-1]
    kept, target = float(1 - log.loss_at(last)), float(1 - log.target_loss)
    waits = sorted(_list_waits(fit, kept=kept, target=target))
    reaching = sum(weight for _, weight in waits)
    if reaching < LIKELY * sum(weight for _, _, weight in fit.points):
        return TimeForecast(span=None, why="by its weighings so far it will not lose that much")
    low, likely, high = (_quantile(waits, part * reaching) for part in (LOW, LIKELY, HIGH))
    return TimeForecast(
        span=TimeSpan(
            low=last.at + Fraction(low * DAY_SECONDS),
            likely=last.at + Fraction(likely * DAY_SECONDS),
            high=last.at + Fraction(high * DAY_SECONDS),
        )
    )


def _see(log: DryingLog, index: int) -> _Seen:
    weighing = log.weighings[index]
    green = log.green_at(weighing.at)
    # half a step of the scale either way, for the weighing and for the green weight alike
    scale = float(log.scale_grams / green) / sqrt(12)
    deviation = sqrt(2 * scale**2 + CURVE_DEVIATION**2)
    return _Seen(days_hung(log, weighing.at), float(weighing.grams / green), deviation)


def _off(seen: _Seen, m_inf: float, ln_k: float) -> float:
    """How many deviations a weighing lies above a curve."""
    return (seen.kept - m_inf - (1 - m_inf) * exp(-exp(ln_k) * seen.days)) / seen.deviation


def _misfit(seen: Sequence[_Seen], wide: float, m_inf: float, ln_k: float) -> float:
    """Twice the negative logarithm of the posterior, to a constant."""
    prior = ((m_inf - M_INF_MEAN) / M_INF_DEVIATION) ** 2 + ((ln_k - _LN_K) / K_LOG_DEVIATION) ** 2
    return prior + sum((_off(one, m_inf, ln_k) / wide) ** 2 for one in seen)


def _curvature(
    seen: Sequence[_Seen], wide: float, m_inf: float, ln_k: float
) -> tuple[tuple[float, float], tuple[float, float, float]]:
    """Gradient of half the misfit, and its Gauss-Newton matrix as (m∞ m∞, m∞ k, k k)."""
    prior_m, prior_k = M_INF_DEVIATION**-2, K_LOG_DEVIATION**-2
    by_m, by_k = (m_inf - M_INF_MEAN) * prior_m, (ln_k - _LN_K) * prior_k
    mm, mk, kk = prior_m, 0.0, prior_k
    for one in seen:
        left = exp(-exp(ln_k) * one.days)
        sigma = one.deviation * wide
        slope_m, slope_k = -(1 - left) / sigma, (1 - m_inf) * left * exp(ln_k) * one.days / sigma
        off = _off(one, m_inf, ln_k) / wide
        by_m, by_k = by_m + slope_m * off, by_k + slope_k * off
        mm, mk, kk = mm + slope_m**2, mk + slope_m * slope_k, kk + slope_k**2
    return (by_m, by_k), (mm, mk, kk)


def _find_mode(seen: Sequence[_Seen], wide: float) -> tuple[float, float]:
    """The most likely m∞ and ln k: Gauss-Newton with a damping that shrinks while it helps."""
    m_inf, ln_k, damping = M_INF_MEAN, _LN_K, 1e-3
    misfit = _misfit(seen, wide, m_inf, ln_k)
    for _ in range(_STEPS):
        (by_m, by_k), (mm, mk, kk) = _curvature(seen, wide, m_inf, ln_k)
        mm, kk = mm * (1 + damping), kk * (1 + damping)
        under = mm * kk - mk * mk
        step_m, step_k = (kk * by_m - mk * by_k) / under, (mm * by_k - mk * by_m) / under
        tried_m, tried_k = min(max(m_inf - step_m, 0.0), 0.99), min(max(ln_k - step_k, -9.0), 2.0)
        tried = _misfit(seen, wide, tried_m, tried_k)
        if tried > misfit:
            damping *= 10
            continue
        is_there = abs(tried_m - m_inf) < 1e-12 and abs(tried_k - ln_k) < 1e-12
        m_inf, ln_k, misfit, damping = tried_m, tried_k, tried, damping / 10
        if is_there:
            break
    return m_inf, ln_k


def _list_points(
    seen: Sequence[_Seen], wide: float, m_inf: float, ln_k: float
) -> Iterator[tuple[float, float, float]]:
    """Curves on a grid along the axes of the posterior around its mode, each with its weight."""
    _, (mm, mk, kk) = _curvature(seen, wide, m_inf, ln_k)
    under = mm * kk - mk * mk
    deviation_m = sqrt(kk / under)
    # of ln k what m∞ leaves open, and how it follows m∞
    deviation_k, follows = 1 / sqrt(kk), -mk / kk
    least = _misfit(seen, wide, m_inf, ln_k)
    offsets = [_GRID_DEVIATIONS * step / _GRID for step in range(-_GRID, _GRID + 1)]
    for along in offsets:
        m = m_inf + along * deviation_m
        if not 0.0 <= m < 1.0:
            continue
        for across in offsets:
            k = ln_k + follows * (m - m_inf) + across * deviation_k
            yield m, k, exp((least - _misfit(seen, wide, m, k)) / 2)


def _list_waits(fit: DryingFit, *, kept: float, target: float) -> Iterator[tuple[float, float]]:
    """Days still to hang by each curve that reaches the target, with its weight."""
    for m_inf, ln_k, weight in fit.points:
        if kept <= m_inf or target <= m_inf:
            continue
        days = log((kept - m_inf) / (target - m_inf)) / exp(ln_k)
        for drift in _DRIFTS:
            yield min(days * exp(drift * RATE_DRIFT), _MOST_DAYS), weight / len(_DRIFTS)


def _quantile(waits: Sequence[tuple[float, float]], wanted: float) -> float:
    """The wait up to which ``wanted`` of the weight lies; ``waits`` in order."""
    total = 0.0
    for wait, weight in waits:
        total += weight
        if total >= wanted:
            return wait
    return waits[-1][0]
