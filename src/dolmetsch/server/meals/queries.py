"""Reads: every plan, one plan whole, the jobs that are on the list, and a plan as a calendar."""

from collections.abc import Sequence
from datetime import date, datetime, timedelta
from typing import Final

from django.utils import timezone
from icalendar import Calendar, Event

from dolmetsch.core.planning.count_back import Job, ready_at
from dolmetsch.server.dishes.costing import list_dishes
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import PackNow
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.listed import is_done, latest_news, list_jobs_of, list_meals
from dolmetsch.server.meals.models import Meal, MealJob
from dolmetsch.server.meals.working import DAY, say_hours, say_time, show_meal
from dolmetsch.server.plans.queries import make_alarm
from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.problems import not_found
from dolmetsch.server.ways.queries import list_latest

WEEK: Final = timedelta(days=7)
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


def input_of(meal: Meal, today: date) -> schemas.MealIn:
    """A plan as typed; one that repeats for the next of its days."""
    data = schemas.MealIn.model_validate(meal.input)
    if not data.is_weekly or data.day >= today:
        return data
    weeks = -(-(today - data.day).days // 7)
    return data.model_copy(update={"day": data.day + weeks * WEEK})


def read_meals(kitchen: Kitchen, now: datetime) -> schemas.MealsOut:
    """Every plan, the next meal first, and what a new one can be made of."""
    today = timezone.localdate(now)
    rows = list_meals(kitchen)
    jobs = list_jobs_of(rows)
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
        jobs=show_jobs(jobs, now),
    )


def _show_row(meal: Meal, data: schemas.MealIn, today: date, *, is_listed: bool) -> schemas.MealRow:
    words = ", ".join(f"{want.amount} {want.name}".strip() for want in data.wants)
    return schemas.MealRow(
        name=meal.name,
        version=meal.version,
        day=data.day,
        at=data.at,
        words=words,
        is_weekly=data.is_weekly,
        is_listed=is_listed,
        is_over=data.day < today,
    )


def show_jobs(jobs: Sequence[MealJob], now: datetime) -> list[schemas.MealJobOut]:
    """Jobs on the list, and which are done."""
    latest = latest_news(jobs)
    return [
        schemas.MealJobOut(
            uid=job.uid,
            meal=job.meal.name,
            words=job.words,
            due_at=job.due_at,
            minutes=job.minutes,
            state="done" if is_done(latest.get(job.pk)) else "open",
            is_late=not is_done(latest.get(job.pk)) and now > job.due_at + GRACE,
        )
        for job in sorted(jobs, key=lambda job: (job.due_at, job.pk))
    ]


def read_meal_page(kitchen: Kitchen, name: str, now: datetime) -> schemas.MealPage:
    """One plan whole.

    Raises:
        DomainError: not_found.
    """
    meal = get_meal(kitchen, name)
    data = input_of(meal, timezone.localdate(now))
    plan = show_meal(kitchen, data, now)
    jobs = list_jobs_of([meal])
    ready = find_ready(jobs, now)
    is_late = ready is not None and ready > plan.meal_at
    return schemas.MealPage(
        name=meal.name,
        version=meal.version,
        input=data,
        plan=plan,
        jobs=show_jobs(jobs, now),
        on_time="" if ready is None else _say_ready(ready, plan.meal_at),
        is_late=is_late,
    )


def _say_ready(ready: datetime, meal_at: datetime) -> str:
    apart = say_hours(abs(meal_at - ready))
    side = "after" if ready > meal_at else "before"
    return f"Ready {say_time(ready)} as it stands: {apart} {side} the meal."


def find_ready(jobs: Sequence[MealJob], now: datetime) -> datetime | None:
    """When it is ready by what was done so far; None where nothing is on the list.

    What is not done is done as soon as it can be, but not before now; a job that is done has its wait behind
    it from then on.
    """
    if not jobs:
        return None
    latest = latest_news(jobs)
    done = [position for position, job in enumerate(jobs) if is_done(latest.get(job.pk))]
    left = jobs[done[-1] + 1 :] if done else jobs
    at = timezone.localtime(now)
    if done:
        last = jobs[done[-1]]
        over = latest[last.pk].happened_at + timedelta(minutes=last.wait_minutes)
        at = timezone.localtime(max(over, now)) if left else timezone.localtime(over)
    remaining = [
        Job(
            kind=job.kind,
            hands=timedelta(minutes=job.minutes),
            least=timedelta(minutes=job.wait_minutes),
        )
        for job in left
    ]
    return ready_at(remaining, at, DAY)


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
        event.add("summary", f"{job.words}: {meal.name}")
        event.add_component(make_alarm(job.words))
        calendar.add_component(event)
    written: bytes = calendar.to_ical()
    return written
