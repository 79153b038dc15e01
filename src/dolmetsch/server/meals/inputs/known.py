"""What a plan is worked out from, read once however many changes of it are tried."""

from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from fractions import Fraction

from django.db.models import Sum
from django.utils import timezone

from dolmetsch.core.dishes.plate import Plate
from dolmetsch.core.forecast.way import Way
from dolmetsch.core.forecast.yields import History
from dolmetsch.core.ledger.batch import Policy
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.slicing.pace import Pace
from dolmetsch.server.batches.entries.chain import policy_record
from dolmetsch.server.batches.entries.own_slices import as_sliced_here
from dolmetsch.server.batches.forecast.history import read_history
from dolmetsch.server.dishes.costing import Prices, ReadDish
from dolmetsch.server.dishes.queries import read_some
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.here import find_usable
from dolmetsch.server.larder.queries import find_paces
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.inputs.coming import Coming, list_coming
from dolmetsch.server.meals.inputs.facts import find_facts
from dolmetsch.server.meals.inputs.listed import input_of, list_jobs_of, list_listed
from dolmetsch.server.meals.inputs.record import OwnRecord, read_record
from dolmetsch.server.meals.models import Meal
from dolmetsch.server.prices.queries import Priced, list_priced
from dolmetsch.server.ways.models import Way as WayRow
from dolmetsch.server.ways.queries import list_latest, read_kept
from dolmetsch.server.writing.kept_answers import keep_until_write


@dataclass(frozen=True, slots=True, kw_only=True)
class Known:
    """Dishes, plates and what is left of each product by names in small letters; methods (None: cannot be
    read any more) and meats by name. ``others``: plans on the list beside this one,
    whose open jobs ask for so many minutes of ``work`` by day.
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
    work: Sequence[tuple[date, int]]


def gather(kitchen: Kitchen, now: datetime, data: schemas.MealIn) -> Known:
    """All that is known to the plan ``data``: its methods and dishes, and what is under way beside it.

    Kept until the next write, for a plan that is dragged about.
    """
    ways = sorted({make.way for make in data.makes})
    dishes = sorted({same_name(want.name) for want in data.wants if want.sort == "dish"})
    known = keep_until_write(
        kitchen,
        now,
        ("meal", data.name, ways, dishes),
        lambda: _gather(kitchen, now, ways, dishes, data.name),
    )
    left = _count_here(kitchen, max(timezone.localdate(now), data.day))
    return replace(known, kitchen=kitchen, now=now, left=left)


def _count_here(kitchen: Kitchen, day: date) -> dict[str, Fraction]:
    """Grams of each product of the larder that are still good on the day of the meal, by its name."""
    left: dict[str, Fraction] = {}
    packs = find_usable(kitchen, day).values_list("pack__product")
    for product, grams in packs.annotate(grams=Sum("left_grams")):
        left[same_name(product)] = left.get(same_name(product), Fraction(0)) + Fraction(grams)
    return left


def _read_way(row: WayRow) -> Way | None:
    way = read_kept(row).way
    return None if way is None else as_sliced_here(way, row.kitchen)


def _gather(
    kitchen: Kitchen, now: datetime, ways: Collection[str], dishes: Iterable[str], name: str
) -> Known:
    today = timezone.localdate(now)
    others = [meal for meal in list_listed(kitchen) if meal.name != name]
    beside = [want.name for meal in others for want in input_of(meal, today).wants if want.sort == "dish"]
    read, plates, prices = read_some(kitchen, [*dishes, *beside])
    own = read_record(kitchen)
    return Known(
        kitchen=kitchen,
        now=now,
        today=today,
        dishes=read,
        plates=plates,
        prices=prices,
        ways={row.name: _read_way(row) for row in list_latest(kitchen) if row.name in ways},
        meats={priced.item.name: priced for priced in list_priced(kitchen, "meat")},
        left={},
        paces=find_paces(kitchen, today),
        history=read_history(kitchen),
        policy=policy_record(kitchen),
        own=own,
        coming=list_coming(kitchen, now, own, apart_from=name),
        others=others,
        work=list(_list_work(kitchen, others)),
    )


def _list_work(kitchen: Kitchen, meals: Sequence[Meal]) -> Iterator[tuple[date, int]]:
    """Days and minutes of the jobs of ``meals`` that are not done."""
    jobs = list_jobs_of(meals) if meals else []
    facts = find_facts(kitchen, jobs)
    for job in jobs:
        if job.pk not in facts:
            yield timezone.localdate(job.due_at), job.minutes
