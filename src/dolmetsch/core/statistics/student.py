"""Student's t distribution, for few batches: the part below a value, and the value below which a part lies.

By the regularized incomplete beta function, its continued fraction evaluated by Lentz's method (Press et al.,
*Numerical Recipes*, 3rd ed., 6.4); the quantile by halving the interval.
"""

from math import exp, lgamma, log, log1p
from typing import Final

#: Of the continued fraction: what stands in for a zero divisor, when it has settled, and when to give up.
_TINY: Final = 1e-300
_CLOSE: Final = 1e-15
_MOST_TERMS: Final = 500
_HALVINGS: Final = 200


def t_below(value: float, freedom: float) -> float:
    """The part of Student's t with ``freedom`` degrees of freedom that lies below ``value``.

    Raises:
        ValueError: ``freedom`` is not above 0.
    """
    if freedom <= 0:
        raise ValueError("degrees of freedom are above 0")
    tail = 0.5 * _beta_part(freedom / 2, 0.5, freedom / (freedom + value * value))
    return tail if value < 0 else 1 - tail


def t_quantile(part: float, freedom: float) -> float:
    """The value below which ``part`` (above 0, below 1) of Student's t lies.

    Raises:
        ValueError: ``part`` or ``freedom`` is out of range.
    """
    if not 0 < part < 1:
        raise ValueError("a part lies between 0 and 1")
    if part < 0.5:
        return -t_quantile(1 - part, freedom)
    low, high = 0.0, 1.0
    while t_below(high, freedom) < part:
        high *= 2
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        if not low < middle < high:
            break
        low, high = (middle, high) if t_below(middle, freedom) < part else (low, middle)
    return (low + high) / 2


def two_sided(value: float, freedom: float) -> float:
    """How often chance alone gives a t as far from 0 as ``value``, to either side."""
    return min(1.0, 2 * t_below(-abs(value), freedom))


def _beta_part(a: float, b: float, x: float) -> float:
    """The regularized incomplete beta function I_x(a, b)."""
    if x <= 0:
        return 0.0
    if x >= 1:
        return 1.0
    front = exp(lgamma(a + b) - lgamma(a) - lgamma(b) + a * log(x) + b * log1p(-x))
    if x < (a + 1) / (a + b + 2):
        return front * _fraction(a, b, x) / a
    return 1 - front * _fraction(b, a, 1 - x) / b


def _fraction(a: float, b: float, x: float) -> float:
    c, d = 1.0, 1 / _away(1 - (a + b) * x / (a + 1))
    found = d
    for m in range(1, _MOST_TERMS):
        even = m * (b - m) * x / ((a + 2 * m - 1) * (a + 2 * m))
        odd = -(a + m) * (a + b + m) * x / ((a + 2 * m) * (a + 2 * m + 1))
        for term in (even, odd):
            d = 1 / _away(1 + term * d)
            c = _away(1 + term / c)
            found *= c * d
        if abs(c * d - 1) < _CLOSE:
            break
    return found


def _away(value: float) -> float:
    """``value``, or almost nothing in place of nothing: it is divided by."""
    return value if abs(value) > _TINY else _TINY
