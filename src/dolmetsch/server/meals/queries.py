"""Reads: every plan, one plan whole, the jobs that are on the list, and a plan as a calendar."""

from collections.abc import Iterable, Mapping, Sequence
from datetime import date, datetime, timedelta
from typing import Final

from django.utils import timezone
from icalendar import Calendar, Event

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.dishes.costing import list_dishes
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import PackNow
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.changes import list_changes
from dolmetsch.server.meals.inputs.facts import Fact, find_facts, find_ready
from dolmetsch.server.meals.inputs.jobs import DAY
from dolmetsch.server.meals.inputs.listed import (
    input_of,
    list_jobs_of,
    list_live_jobs,
    list_made,
    list_meals,
)
from dolmetsch.server.meals.models import Meal, MealJob
from dolmetsch.server.meals.rescues import list_rescues
from dolmetsch.server.meals.showing import show_worked
from dolmetsch.server.meals.ways_out import say_wants
from dolmetsch.server.meals.words import say_hours, say_products
from dolmetsch.server.meals.working import work_out
from dolmetsch.server.plans.queries import make_alarm
from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.problems import not_found
from dolmetsch.server.quantities.calendar import print_week_moment
from dolmetsch.server.ways.queries import list_latest

#: A job counts as late so long after it was to begin.
GRACE: Final = timedelta(hours=2)
#: So many names are offered.
OFFERED: Final = 400


def get_meal(kitchen: Kitchen, name: str) -> Meal:
    """The latest version of a plan.

    Raises:
        DomainError: not_found.
    """
    meal = Meal.objects.filter(kitchen=kitchen, name=name).order_by("-version").first()
    if meal is None or meal.is_put_away:
        raise not_found(f"plan “{name}”")
    return meal


def read_meals(kitchen: Kitchen, now: datetime) -> schemas.MealsOut:
    """Every plan, the next meal first, and what a new one can be made of."""
    today = timezone.localdate(now)
    rows = list_meals(kitchen)
    jobs = list_live_jobs(rows, now)
    products = PackNow.objects.filter(kitchen=kitchen).values_list("pack__product", flat=True)
    meats = PriceItem.objects.filter(kitchen=kitchen, sort="meat").order_by("name")
    listed = {job.meal.name for job in jobs}
    shown = [_show_row(meal, input_of(meal, today), today, is_listed=meal.name in listed) for meal in rows]
    return schemas.MealsOut(
        meals=sorted(shown, key=lambda one: (one.is_over, one.day, one.name.casefold())),
        dishes=[dish.name for dish in list_dishes(kitchen)],
        products=sorted(set(products))[:OFFERED],
        ways=[way.name for way in list_latest(kitchen)],
        meats=list(meats.values_list("name", flat=True)[:OFFERED]),
        jobs=show_jobs(jobs, find_facts(kitchen, jobs), now),
    )


def _show_row(meal: Meal, data: schemas.MealIn, today: date, *, is_listed: bool) -> schemas.MealRow:
    return schemas.MealRow(
        name=meal.name,
        version=meal.version,
        day=data.day,
        at=data.at,
        words=say_wants(data),
        is_weekly=data.is_weekly,
        is_listed=is_listed,
        is_over=data.day < today,
    )


def show_jobs(jobs: Sequence[MealJob], facts: Mapping[int, Fact], now: datetime) -> list[schemas.MealJobOut]:
    """Jobs on the list, and which are done."""
    shown = []
    for job in sorted(jobs, key=lambda job: (job.due_at, job.pk)):
        fact = facts.get(job.pk)
        shown.append(
            schemas.MealJobOut(
                uid=job.uid,
                meal=job.meal.name,
                product=say_products(job.products),
                done_at=None if fact is None else fact.at,
                by_batch=fact is not None and fact.by_batch,
                words=job.words,
                due_at=job.due_at,
                minutes=job.minutes,
                state="open" if fact is None else "done",
                is_late=fact is None and now > job.due_at + GRACE,
            )
        )
    return shown


def read_meal_page(kitchen: Kitchen, name: str, now: datetime) -> schemas.MealPage:
    """One plan whole.

    Raises:
        DomainError: not_found.
    """
    meal = get_meal(kitchen, name)
    data = input_of(meal, timezone.localdate(now))
    worked = work_out(kitchen, data, now)
    meal_at = worked.read.meal_at
    jobs = list_live_jobs([meal], now)
    facts = find_facts(kitchen, jobs)
    ready = find_ready(jobs, facts, now, DAY)
    is_late = ready is not None and ready > meal_at
    made = {products: batch.code for (plan, products), batch in list_made(kitchen).items() if plan == name}
    return schemas.MealPage(
        name=meal.name,
        version=meal.version,
        input=data,
        plan=show_worked(worked),
        jobs=show_jobs(jobs, facts, now),
        made=[
            schemas.MadeOut(product=say_products(products), batch=made.get(products, ""))
            for products in dict.fromkeys(tuple(job.products) for job in jobs)
        ],
        batches=_list_choices(kitchen, made.values()),
        is_under_way=bool(facts),
        on_time="" if ready is None else _say_on_time(jobs, facts, ready, meal_at),
        is_late=is_late,
        changes=list(list_changes(worked, jobs, facts)) if jobs else [],
        rescues=list(list_rescues(worked, jobs, facts, ready)) if ready is not None and is_late else [],
    )


def _list_choices(kitchen: Kitchen, named: Iterable[str]) -> list[str]:
    """Codes of batches that can be named as made for a plan: those under way, and those named already."""
    under_way = Batch.objects.filter(kitchen=kitchen, is_finished=False).order_by("-id")
    codes = under_way.values_list("code", flat=True)[:OFFERED]
    return sorted({*codes, *named})


def _say_on_time(
    jobs: Sequence[MealJob], facts: Mapping[int, Fact], ready: datetime, meal_at: datetime
) -> str:
    """When it is ready, as it stands; of what is not begun and not late, when it begins."""
    if not facts and ready <= meal_at:
        return f"Not started. First job: {print_week_moment(min(job.due_at for job in jobs))}."
    apart = say_hours(abs(meal_at - ready))
    side = "after" if ready > meal_at else "before"
    return f"Ready {print_week_moment(ready)} as it stands: {apart} {side} the meal."


def write_meal_calendar(kitchen: Kitchen, name: str) -> bytes:
    """The jobs of a plan that are on the list as an iCalendar file (RFC 5545), each with an alarm.

    Raises:
        DomainError: not_found.
    """
    meal = get_meal(kitchen, name)
    calendar = Calendar()
    calendar.add("prodid", "-//Dolmetsch//meal plan//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{kitchen.name}: {meal.name}")
    for job in list_jobs_of([meal]):
        event = Event()
        event.add("uid", f"{job.uid}@dolmetsch")
        event.add("dtstamp", job.recorded_at)
        event.add("dtstart", job.due_at)
        event.add("dtend", job.due_at + timedelta(minutes=job.minutes or 15))
        of = f", {say_products(job.products)}" if job.products else ""
        event.add("summary", f"{job.words}: {meal.name}{of}")
        event.add_component(make_alarm(job.words))
        calendar.add_component(event)
    written: bytes = calendar.to_ical()
    return written
