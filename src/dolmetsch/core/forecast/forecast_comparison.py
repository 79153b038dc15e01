"""House against shop before a batch is finished: the forecast beside the shop, never an unsliced pound.

Prices carry their 80 % range; the chance is that of the forecast's own distribution (``outlook.py``). All
in floating point: nothing here enters the ledger.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import hypot
from typing import Final, Literal

from dolmetsch.core.costing.sheet import Comparison
from dolmetsch.core.forecast.outlook import Estimate, Outlook
from dolmetsch.core.forecast.way import Way
from dolmetsch.core.ledger.batch import Portion
from dolmetsch.core.numbers.exact import GRAMS_PER_LB

LB: Final = float(GRAMS_PER_LB)
OUNCE: Final = LB / 16
#: A chance of beating the shop from which it counts as cheaper, and up to the rest as dearer.
SURE_AT: Final = 0.75

Basis = Literal["pound", "portion", "slice", "cooked"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ForecastComparison:
    """One shop pack beside the forecast. Saved is shop − house: below zero where the house is dearer.

    ``saved_per_lb`` at the middle price, ``saved_low`` and ``saved_high`` at the ends of the 80 % range;
    ``chance``, 0–1, that the house is cheaper; ``earned_per_hour`` None where no work is counted or expected.
    """

    name: str
    chance: float
    saved_per_lb: float
    saved_low: float
    saved_high: float
    saved_on_batch: float
    saved_per_portion: float | None
    earned_per_hour: float | None

    @property
    def is_cheaper(self) -> bool | None:
        """Whether the house is the cheaper one; None where the chance leaves it open."""
        if self.chance >= SURE_AT:
            return True
        return False if self.chance <= 1 - SURE_AT else None


def price_bases(
    outlook: Outlook, way: Way, *, portion: Portion | None, fry: Estimate
) -> dict[Basis, Estimate]:
    """Forecast prices of a finished pound, a portion, a slice and a cooked ounce, those that can be had.

    Slices need a way that says what one weighs. ``fry``: cooked ÷ raw weight of what the house makes.
    """
    price = outlook.price
    cooked = Estimate(
        middle=price.middle / fry.middle, log_deviation=hypot(price.log_deviation, fry.log_deviation)
    )
    bases: dict[Basis, Estimate] = {"pound": _times(price, LB), "cooked": _times(cooked, OUNCE)}
    if way.slice_grams is not None:
        bases["slice"] = _times(price, float(way.slice_grams))
    served = _price_portion(price, cooked, way, portion)
    if served is not None:
        bases["portion"] = served
    return bases


def _price_portion(price: Estimate, cooked: Estimate, way: Way, portion: Portion | None) -> Estimate | None:
    if portion is None:
        return None
    if portion.grams is not None:
        return _times(price, float(portion.grams))
    if portion.cooked_grams is not None:
        return _times(cooked, float(portion.cooked_grams))
    if portion.slices is None or way.slice_grams is None:
        return None
    return _times(price, float(portion.slices * way.slice_grams))


def _times(estimate: Estimate, factor: float) -> Estimate:
    return Estimate(middle=estimate.middle * factor, log_deviation=estimate.log_deviation)


def compare_forecast(
    shop: Comparison, outlook: Outlook, bases: Mapping[Basis, Estimate], *, minutes: float
) -> ForecastComparison:
    """A shop pack beside the forecast; ``minutes`` of work already done."""
    theirs = float(shop.cost_per_lb)
    pound = bases["pound"]
    served = bases.get("portion")
    worked = minutes + outlook.minutes
    worth = theirs / LB * outlook.grams.middle
    return ForecastComparison(
        name=shop.name,
        chance=pound.chance_below(theirs),
        saved_per_lb=theirs - pound.middle,
        saved_low=theirs - pound.high,
        saved_high=theirs - pound.low,
        saved_on_batch=worth - outlook.cost,
        saved_per_portion=None
        if shop.portion is None or served is None
        else float(shop.portion) - served.middle,
        earned_per_hour=(worth - (outlook.cost - outlook.labour)) * 60 / worked if worked else None,
    )
