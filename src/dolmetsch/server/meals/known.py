"""What a plan is worked out from, read once however many changes of it are tried."""

from collections.abc import Collection, Mapping, Sequence
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
from dolmetsch.server.meals.coming import Coming, list_coming
from dolmetsch.server.meals.listed import list_listed
from dolmetsch.server.meals.models import Meal
from dolmetsch.server.meals.record import OwnRecord, read_record
from dolmetsch.server.prices.queries import Priced, list_priced
from dolmetsch.server.ways.queries import list_latest, read_kept


@dataclass(frozen=True, slots=True, kw_only=True)
class Known:
    """Dishes, plates and what is left of each product by names in small letters; methods (None: cannot be
    read any more) and meats by name. ``others``: plans on the list beside this one.
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
    own: OwnRecord
    coming: Sequence[Coming]
    others: Sequence[Meal]


def gather(kitchen: Kitchen, now: datetime, *, ways: Collection[str], name: str) -> Known:
    """All that is known to the plan ``name``; of the methods ``ways`` alone are read."""
    _, dishes, plates, prices = read_all(kitchen)
    left: dict[str, Fraction] = {}
    for pack in list_lying(kitchen):
        key = pack.product.casefold()
        left[key] = left.get(key, Fraction(0)) + Fraction(pack.left_grams)
    today = timezone.localdate(now)
    own = read_record(kitchen)
    return Known(
        kitchen=kitchen,
        now=now,
        today=today,
        dishes=dishes,
        plates=plates,
        prices=prices,
        ways={row.name: read_kept(row).way for row in list_latest(kitchen) if row.name in ways},
        meats={priced.item.name: priced for priced in list_priced(kitchen, "meat")},
        left=left,
        paces=find_paces(kitchen, today),
        history=read_history(kitchen),
        policy=policy_record(kitchen),
        own=own,
        coming=list_coming(kitchen, now, own, apart_from=name),
        others=[meal for meal in list_listed(kitchen) if meal.name != name],
    )
