"""What a plan is worked out from, read once however many changes of it are tried."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime
from fractions import Fraction

from django.utils import timezone

from dolmetsch.core.dishes.plate import Plate
from dolmetsch.core.forecast.way import Way
from dolmetsch.core.forecast.yields import History
from dolmetsch.core.ledger.batch import Policy
from dolmetsch.core.slicing.pace import Pace
from dolmetsch.server.batches.entries.chain import policy_record
from dolmetsch.server.batches.forecast.history import read_history
from dolmetsch.server.dishes.costing import Prices, ReadDish
from dolmetsch.server.dishes.queries import read_all
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.queries import find_paces, list_lying
from dolmetsch.server.meals.jobs import find_own_hours
from dolmetsch.server.prices.queries import Priced, list_priced
from dolmetsch.server.ways.queries import list_latest, read_kept


@dataclass(frozen=True, slots=True, kw_only=True)
class Known:
    """Dishes, plates and what is left of each product by names in small letters; methods (None: cannot be
    read any more) and meats by name.
    """

    kitchen: Kitchen
    now: datetime
    today: date
    dishes: Mapping[str, ReadDish]
    plates: Mapping[str, Plate]
    prices: Prices
    ways: Mapping[str, Way | None]
    meats: Mapping[str, Priced]
    left: Mapping[str, Fraction]
    paces: Mapping[str, Pace]
    history: History
    policy: Policy
    own_hours: Mapping[str, float]


def gather(kitchen: Kitchen, now: datetime, *, way: str) -> Known:
    """All that is known; of the methods ``way`` alone is read."""
    _, dishes, plates, prices = read_all(kitchen)
    left: dict[str, Fraction] = {}
    for pack in list_lying(kitchen):
        key = pack.product.casefold()
        left[key] = left.get(key, Fraction(0)) + Fraction(pack.left_grams)
    today = timezone.localdate(now)
    return Known(
        kitchen=kitchen,
        now=now,
        today=today,
        dishes=dishes,
        plates=plates,
        prices=prices,
        ways={row.name: read_kept(row).way for row in list_latest(kitchen) if row.name == way},
        meats={priced.item.name: priced for priced in list_priced(kitchen, "meat")},
        left=left,
        paces=find_paces(kitchen, today),
        history=read_history(kitchen),
        policy=policy_record(kitchen),
        own_hours=find_own_hours(kitchen),
    )
