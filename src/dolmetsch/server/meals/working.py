"""A meal plan worked out: what is short, what to buy for it, the jobs counted back, and whether it fits."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, time, timedelta
from fractions import Fraction
from math import ceil, exp, sqrt
from typing import Final

from django.utils import timezone

from dolmetsch.core.forecast.outlook import Estimate, Outlook, Start, carry
from dolmetsch.core.forecast.way import WayStep, cost_step
from dolmetsch.core.forecast.yields import NORMAL, believe
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.planning.count_back import Job, PlacedJob, count_back, pass_time, ready_at
from dolmetsch.core.planning.need import RawNeed, raw_needed, whole_packs
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.fitting import Fitted, Laying, Surroundings, fit_plan, look_around
from dolmetsch.server.meals.inputs.coming import Coming, is_in_time
from dolmetsch.server.meals.inputs.jobs import DAY, in_loads, list_jobs
from dolmetsch.server.meals.inputs.known import Known, gather
from dolmetsch.server.meals.inputs.listed import input_of
from dolmetsch.server.meals.reading import ReadMake, ReadMeal, read_meal, wants_of
from dolmetsch.server.meals.words import say_products

#: Lanes show so many days after the meal.
SHOWN_AFTER: Final = timedelta(days=2)
#: A meal is moved by so many days to make it fit; one that cannot be met, by so many from when it could be.
MOST_MOVED, LATER_DAYS = 5, 21


@dataclass(frozen=True, slots=True, kw_only=True)
class Needed:
    """Grams of a product: ``here`` on the day, of which ``taken`` was taken off for plans for before;
    ``coming`` from batches under way.
    """

    product: str
    wanted: Fraction
    here: Fraction
    taken: Fraction
    coming: Fraction

    @property
    def short(self) -> Fraction:
        """What has to be made."""
        return max(Fraction(0), self.wanted - self.here - self.coming)


@dataclass(frozen=True, slots=True, kw_only=True)
class Batch:
    """What is to be made for ``products``, by the plan's make at that position: raw grams to buy, of which so
    much is kept, what it comes to, in which jobs.
    """

    make: int
    read: ReadMake
    products: list[str]
    short: float
    kept: Estimate
    need: RawNeed
    packs: int | None
    grams: float
    pieces: int
    steps: Sequence[WayStep]
    outlook: Outlook
    jobs: list[Job]
    placed: list[PlacedJob]

    @property
    def is_priced(self) -> bool:
        """Whether the meat has a price, so that its cost is known."""
        return self.read.price is not None


@dataclass(frozen=True, slots=True, kw_only=True)
class Others:
    """Other plans on the list: when their meals are, their names, what they take of each product in grams."""

    takes: Sequence[tuple[datetime, str, Mapping[str, Fraction]]]

    def before(self, meal_at: datetime, name: str, product: str) -> Fraction:
        """Grams of a product for plans whose meal is before, or at the same time and by its name before."""
        return sum(
            (
                takes.get(product, Fraction(0))
                for at, other, takes in self.takes
                if (at, other) < (meal_at, name)
            ),
            Fraction(0),
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Worked:
    """A plan as read, what it needs of each product, what is made for it and whether that fits."""

    read: ReadMeal
    needed: list[Needed]
    coming: list[tuple[Coming, bool]]
    batches: list[Batch]
    around: Surroundings
    others: Others
    fitted: Fitted

    @property
    def first_start(self) -> datetime | None:
        """When the first job begins at the latest."""
        return min((batch.placed[0].start for batch in self.batches), default=None)

    @property
    def is_too_late(self) -> bool:
        """Whether that has gone by."""
        return self.first_start is not None and self.first_start < self.read.known.now

    @property
    def cost(self) -> Fraction | None:
        """Money all that is made costs; None where a meat has no price."""
        if not all(batch.is_priced for batch in self.batches):
            return None
        return sum((Fraction(batch.outlook.cost) for batch in self.batches), Fraction(0))


def work_out(kitchen: Kitchen, data: schemas.MealIn, now: datetime) -> Worked:
    """``data`` worked out as far as it can be read."""
    known = gather(kitchen, now, data)
    read = read_meal(known, data)
    others = Others(takes=list(_list_takes(known)))
    last = max(read.meal_at, now)
    around = _look_around(known, read, last, days=MOST_MOVED)
    worked = work(read, around, others)
    if worked.is_too_late:
        # what it can be moved to lies further ahead
        soonest = max(find_soonest(worked), last)
        worked = work(read, _look_around(known, read, soonest, days=LATER_DAYS), others)
    return worked


def _look_around(known: Known, read: ReadMeal, last: datetime, *, days: int) -> Surroundings:
    """What is around the plan up to so many ``days`` after it is served ``last``."""
    if read.reader.problems:
        last = known.now
    return look_around(
        known.kitchen,
        known.now,
        until=last + timedelta(days=days),
        shown_until=last + SHOWN_AFTER,
        apart_from=read.data.name,
        work=known.work,
    )


def find_soonest(worked: Worked) -> datetime:
    """When all of it is ready, its reserve kept, if it is begun now."""
    now = timezone.localtime(worked.read.known.now)
    ready = max(ready_at(batch.jobs, now, DAY) + batch.read.early for batch in worked.batches)
    return pass_time(ready, worked.read.reserve)


def _list_takes(known: Known) -> Iterator[tuple[datetime, str, Mapping[str, Fraction]]]:
    for meal in known.others:
        data = input_of(meal, known.today)
        meal_at = timezone.make_aware(datetime.combine(data.day, time.fromisoformat(data.at.zfill(5))))
        if meal_at > known.now:
            yield meal_at, meal.name, wants_of(known, data)


def work(read: ReadMeal, around: Surroundings, others: Others) -> Worked:
    """A plan that was read, worked out beside what is around it."""
    coming = list(_list_coming(read))
    needed = list(list_needed(read, coming, others))
    batches: list[Batch] = []
    if not read.reader.problems:
        batches = list(_list_batches(read, needed))
    fitted = fit_plan(
        around,
        [
            Laying(
                name=say_products(batch.products),
                placed=batch.placed,
                pieces=batch.pieces,
                places=batch.read.places,
                loads=batch.read.loads,
            )
            for batch in batches
        ],
        minutes_a_day=read.minutes_a_day,
    )
    return Worked(
        read=read,
        needed=needed,
        coming=coming,
        batches=batches,
        around=around,
        others=others,
        fitted=fitted,
    )


def _list_coming(read: ReadMeal) -> Iterator[tuple[Coming, bool]]:
    """Batches under way that bring something of what is wanted, and whether each is counted."""
    wanted = {same_name(want.product) for want in read.wants}
    left_out = set(read.data.leave_out)
    for one in read.known.coming:
        if any(same_name(product) in wanted for product in one.products):
            counts = one.batch.code not in left_out and is_in_time(one, read.meal_at, read.reserve)
            yield one, counts


def list_needed(read: ReadMeal, coming: Iterable[tuple[Coming, bool]], others: Others) -> Iterator[Needed]:
    """Each product that is wanted: how much, and how much there will be on the day at the current pace."""
    wanted: dict[str, tuple[str, Fraction]] = {}
    for want in read.wants:
        name, before = wanted.get(same_name(want.product), (want.product, Fraction(0)))
        wanted[same_name(want.product)] = name, before + want.grams
    days = max(0, (read.data.day - read.known.today).days)
    counted = [one for one, counts in coming if counts]
    brought = {one.batch.pk: _surely(one, read) for one in counted}
    for key, (name, grams) in wanted.items():
        pace = read.known.paces.get(key)
        eaten = Fraction(0) if pace is None else pace.grams_a_day * days
        left = max(Fraction(0), read.known.left.get(key, Fraction(0)) - eaten)
        before = others.before(read.meal_at, read.data.name, key)
        taken = min(left, before)
        here, brings = left - taken, Fraction(0)
        for one in counted:
            mine = [same_name(product) for product in one.products if same_name(product) in wanted]
            if key in mine:
                # of what is made together each takes what it lacks, and the last all that stays
                lacking = max(Fraction(0), grams - here - brings)
                part = brought[one.batch.pk] if key == mine[-1] else min(lacking, brought[one.batch.pk])
                brought[one.batch.pk] -= part
                brings += part
        yield Needed(product=name, wanted=grams, here=here, taken=taken, coming=brings)


def _surely(one: Coming, read: ReadMeal) -> Fraction:
    """Grams a batch brings with the chance the plan asks for."""
    return Fraction(one.grams.middle * exp(-NORMAL.inv_cdf(read.sure) * one.grams.log_deviation))


def _list_batches(read: ReadMeal, needed: Iterable[Needed]) -> Iterator[Batch]:
    """A batch for each make of which something is short; a fault where nothing makes it."""
    short: dict[int, list[Needed]] = {}
    for one in needed:
        if not one.short:
            continue
        make = read.make_of(one.product)
        if make is None:
            said = f"Nothing here makes {one.product}: choose a method for it."
            read.reader.refuse("makes", "no_way", said)
        else:
            short.setdefault(make, []).append(one)
    if not read.reader.problems:
        for make in sorted(short):
            yield _plan_batch(read, make, short[make])


def _plan_batch(read: ReadMeal, position: int, wanted: Sequence[Needed]) -> Batch:
    make = read.makes[position]
    way, cut = make.way, make.cut
    if way is None or cut is None:
        raise ValueError("a batch is planned by a method and for a cut")
    short = float(sum(one.short for one in wanted))
    beliefs = [believe(step.method, cut, read.known.history) for step in way.steps]
    kept = Estimate(
        middle=exp(sum(belief.log_mean for belief in beliefs)),
        log_deviation=sqrt(sum(belief.log_deviation**2 for belief in beliefs)),
    )
    need = raw_needed(short, kept, chance=read.sure)
    packs = None if make.pack is None else whole_packs(need.sure, make.pack)
    grams = need.sure if packs is None or make.pack is None else packs * float(make.pack)
    start = Start(cost=grams * float(make.price or 0), labour=0.0, joining=[grams, *[0.0] * len(beliefs)])
    steps = [in_loads(read.known.own.scaled(step), make.loads) for step in way.steps]
    costs = [cost_step(step, read.known.policy) for step in steps]
    jobs = list_jobs(steps, grams, own=read.known.own, loads=make.loads)
    return Batch(
        make=position,
        read=make,
        products=[one.product for one in wanted],
        short=short,
        kept=kept,
        need=need,
        packs=packs,
        grams=grams,
        pieces=max(1, ceil(grams / float(make.piece) - 1e-3)),
        steps=steps,
        outlook=carry(start, list(zip(costs, beliefs, strict=True))),
        jobs=jobs,
        placed=count_back(jobs, pass_time(read.meal_at, -read.reserve) - make.early, DAY),
    )
