"""What taking it hotter costs: the weight kept at an inside temperature (``reference.cook_shrink``).

``forecast.pull`` corrects it by the kitchen's own cooks.
"""

from dataclasses import dataclass
from itertools import pairwise
from math import log

from dolmetsch.core.reference.cook_shrink import COOK_SHRINK, HOURS_WITHOUT, LOST_AN_HOUR


def kept_at(fahrenheit: float, *, hours: float) -> tuple[float, float]:
    """The part of the cured weight kept, and its standard deviation, after so many ``hours`` in the smoke.

    Beyond the table its ends hold.
    """
    kept, deviation = _on_the_line(fahrenheit)
    return max(kept - LOST_AN_HOUR * max(0.0, hours - HOURS_WITHOUT), 0.05), deviation


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnCook:
    """A cook of one's own: taken to ``peak`` (°F) in so many ``hours``, it kept exp(``log_ratio``)."""

    peak: float
    hours: float
    log_ratio: float

    @property
    def off(self) -> float:
        """ln of what it kept over what the start values say."""
        return self.log_ratio - log(kept_at(self.peak, hours=self.hours)[0])


def _on_the_line(fahrenheit: float) -> tuple[float, float]:
    if fahrenheit <= COOK_SHRINK[0][0]:
        return COOK_SHRINK[0][1:]
    for (start, kept, deviation), (end, next_kept, next_deviation) in pairwise(COOK_SHRINK):
        if fahrenheit <= end:
            part = (fahrenheit - start) / (end - start)
            return kept + part * (next_kept - kept), deviation + part * (next_deviation - deviation)
    return COOK_SHRINK[-1][1:]
