"""What batches under way will bring to the larder: of which product, how much, and when."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from fractions import Fraction
from functools import cached_property
from typing import Final

from django.db.models import Max, Sum
from django.utils import timezone

from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.planning.count_back import ready_at
from dolmetsch.server.batches.entries.course import course_of_summary
from dolmetsch.server.batches.models import Batch, BatchFacts, BatchWay, Forecast
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import Pack
from dolmetsch.server.meals.inputs.begins import list_begins, places_of
from dolmetsch.server.meals.inputs.facts import find_facts, find_ready
from dolmetsch.server.meals.inputs.jobs import DAY, DAYS_NEEDED, list_jobs
from dolmetsch.server.meals.inputs.listed import list_jobs_of, list_made, list_meals
from dolmetsch.server.meals.inputs.record import OwnRecord
from dolmetsch.server.meals.models import MealJob
from dolmetsch.server.ways.queries import read_kept

#: So many of the latest packs say what a method and a cut bring.
PACKS_READ: Final = 300


@dataclass(frozen=True, kw_only=True)
class Coming:
    """A batch under way, the products it brings, how many grams in all; ``way``: its method, if chosen.

    ``jobs``: those of the plan it is made for, in order, where that is on the list.
    """

    batch: Batch
    products: tuple[str, ...]
    grams: Estimate
    way: BatchWay | None
    is_named: bool
    jobs: Sequence[MealJob]
    now: datetime
    own: OwnRecord

    @cached_property
    def ready(self) -> datetime | None:
        """When it is ready by the jobs of its plan, else by the list of tasks and its method; None where a
        step of unknown length is to come.
        """
        if self.jobs:
            return find_ready(self.jobs, find_facts(self.batch.kitchen, self.jobs), self.now, DAY)
        way = None if self.way is None else read_kept(self.way.way).way
        if way is None:
            return None
        kinds = [step.kind for step in way.steps]
        following = (self.batch.summary.get("next") or {}).get("kind")
        first = kinds.index(following) if following in kinds else len(kinds)
        begins = {
            place: at for place, at in places_of(kinds, list_begins(self.batch)).items() if place >= first
        }
        # what is under way now is over when the list says that the next begins
        since = min(begins, default=first)
        left = way.steps[since:]
        if any(step.kind in DAYS_NEEDED and not step.days for step in left):
            return None
        grams = float(sum(Fraction(piece["weight"]["kg"]) for piece in self.batch.summary["mains"]) * 1000)
        return ready_at(
            list_jobs(left, grams, own=self.own),
            timezone.localtime(self.now),
            DAY,
            not_before={place - since: timezone.localtime(at) for place, at in begins.items()},
        )


def list_coming(kitchen: Kitchen, now: datetime, own: OwnRecord, *, apart_from: str) -> list[Coming]:
    """Batches under way of which it is known what they bring: they are named by the plan ``apart_from``, or
    by none and have packs already, or are made by a method, or become something, that a cut brought before.
    """
    batches = list(Batch.objects.filter(kitchen=kitchen, is_finished=False))
    if not batches:
        return []
    ways = _latest_ways(batches)
    named = {batch.pk: key for key, batch in list_made(kitchen).items()}
    jobs = _jobs_of(kitchen, apart_from) if named else []
    brought = _what_was_brought(kitchen)
    grams = _forecast_grams(batches)
    found = []
    for batch in batches:
        meal, products = named.get(batch.pk, (apart_from, ()))
        way = ways.get(batch.pk)
        if not products:
            products = brought.get((batch.pk,), ())
        how = course_of_summary(batch.summary) if way is None else way.way.name
        if not products and how:
            products = brought.get((same_name(batch.cut), how), ())
        if products and meal == apart_from and batch.pk in grams:
            batch.kitchen = kitchen
            one = Coming(
                batch=batch,
                products=products,
                grams=grams[batch.pk],
                way=way,
                is_named=batch.pk in named,
                jobs=[job for job in jobs if batch.pk in named and tuple(job.products) == products],
                now=now,
                own=own,
            )
            found.append(one)
    return found


def _jobs_of(kitchen: Kitchen, name: str) -> list[MealJob]:
    return list_jobs_of([meal for meal in list_meals(kitchen) if meal.name == name])


def _latest_ways(batches: Iterable[Batch]) -> dict[int, BatchWay]:
    rows = BatchWay.objects.filter(batch__in=batches).select_related("way__kitchen").order_by("id")
    return {row.batch_id: row for row in rows}


def _what_was_brought(kitchen: Kitchen) -> dict[tuple[object, ...], tuple[str, ...]]:
    """The product most was packed of: by batch, and by cut (in small letters) and method; where none was
    chosen, by cut and what it became.
    """
    packs = Pack.objects.filter(kitchen=kitchen, canceled__isnull=True).order_by("-id")
    rows = packs.values_list("batch_id", "batch__cut", "product", "grams")[:PACKS_READ]
    weighed: dict[int, dict[str, Fraction]] = {}
    cuts: dict[int, str] = {}
    for batch, cut, product, grams in rows:
        cuts[batch] = same_name(cut)
        mine = weighed.setdefault(batch, {})
        mine[product] = mine.get(product, Fraction(0)) + Fraction(grams)
    ways = BatchWay.objects.filter(batch__in=cuts).order_by("id").values_list("batch_id", "way__name")
    names = dict(ways)
    became = BatchFacts.objects.filter(batch__in=cuts.keys() - names.keys()).exclude(course="")
    names |= dict(became.values_list("batch", "course"))
    found: dict[tuple[object, ...], tuple[str, ...]] = {}
    # the latest batch comes first, and says it
    for batch, mine in weighed.items():
        most = (max(mine, key=lambda product: mine[product]),)
        found[batch,] = most
        if batch in names:
            found.setdefault((cuts[batch], names[batch]), most)
    return found


def _forecast_grams(batches: Sequence[Batch]) -> Mapping[int, Estimate]:
    """What is still to come of each batch as it was forecast last, less what was packed of it."""
    latest = Forecast.objects.filter(batch__in=batches).values("batch").annotate(last=Max("id"))
    rows = Forecast.objects.filter(pk__in=[row["last"] for row in latest])
    packed = Pack.objects.filter(batch__in=batches, canceled__isnull=True).values_list("batch")
    made = {batch: float(grams) for batch, grams in packed.annotate(grams=Sum("grams"))}
    found = {}
    for row in rows:
        middle = row.grams_middle - made.get(row.batch_id, 0.0)
        if middle > 0:
            found[row.batch_id] = Estimate(middle=middle, log_deviation=row.grams_deviation)
    return found


def is_in_time(one: Coming, meal_at: datetime, reserve: timedelta) -> bool:
    """Whether it is known to be ready by the meal, its ``reserve`` kept free."""
    return one.ready is not None and one.ready + reserve <= meal_at
