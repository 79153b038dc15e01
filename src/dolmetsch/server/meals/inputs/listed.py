"""Plans, those that are on the list, their jobs, and the batches they are made in."""

from collections.abc import Iterable, Sequence
from datetime import date, datetime, timedelta
from typing import Final

from django.utils import timezone

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.models import Meal, MealJob, MealJobNews, MealMade
from dolmetsch.server.writing.kept import latest_by_name

WEEK: Final = timedelta(days=7)
#: Fields of a plan saved before it could make several things: they are of the one thing it makes.
_OF_ONE_MAKE: Final = ("way", "cut", "meat", "price", "pack", "piece", "loads")


def input_of(meal: Meal, today: date) -> schemas.MealIn:
    """A plan as typed; one that repeats for the next of its days."""
    typed = dict(meal.input)
    if "makes" not in typed:
        typed["makes"] = [{name: typed.pop(name) for name in _OF_ONE_MAKE if name in typed}]
    data = schemas.MealIn.model_validate(typed)
    if not data.is_weekly or data.day >= today:
        return data
    weeks = -(-(today - data.day).days // 7)
    return data.model_copy(update={"day": data.day + weeks * WEEK})


def list_meals(kitchen: Kitchen) -> list[Meal]:
    """The latest version of each plan that was not dropped."""
    return latest_by_name(Meal.objects.filter(kitchen=kitchen).order_by("id"))


def list_jobs_of(meals: Sequence[Meal]) -> list[MealJob]:
    """The jobs of ``meals`` that are on the list, those of the latest listing of each, in order."""
    names = {meal.name for meal in meals}
    kitchens = {meal.kitchen_id for meal in meals}
    rows = MealJob.objects.filter(meal__kitchen__in=kitchens, meal__name__in=names).select_related("meal")
    by_name: dict[str, list[MealJob]] = {}
    for row in rows.order_by("id"):
        mine = by_name.setdefault(row.meal.name, [])
        if mine and mine[0].listing != row.listing:
            mine.clear()
        mine.append(row)
    return [job for name in by_name for job in by_name[name]]


def list_live_jobs(meals: Sequence[Meal], now: datetime) -> list[MealJob]:
    """As ``list_jobs_of``, without those of a meal that is over: a week ago, or of a week that repeats."""
    today = timezone.localdate(now)
    last: dict[str, date] = {}
    jobs = list_jobs_of(meals)
    for job in jobs:
        end = timezone.localdate(job.ends_at)
        last[job.meal.name] = max(end, last.get(job.meal.name, end))
    live = {meal.name for meal in meals if meal.name in last and _is_live(meal, last[meal.name], today)}
    return [job for job in jobs if job.meal.name in live]


def _is_live(meal: Meal, last: date, today: date) -> bool:
    """Whether a listing whose ``last`` job ended on that day is of the meal that is planned now."""
    data = input_of(meal, today)
    if data.is_weekly and data.day - last > WEEK / 2:
        return False
    return today - last <= WEEK


def list_listed(kitchen: Kitchen) -> list[Meal]:
    """The latest version of each plan that is on the list and was not dropped."""
    names = set(MealJob.objects.filter(kitchen=kitchen).values_list("meal__name", flat=True).distinct())
    return [meal for meal in list_meals(kitchen) if meal.name in names] if names else []


def list_made(kitchen: Kitchen) -> dict[tuple[str, tuple[str, ...]], Batch]:
    """The batch each (plan, products) is made in, where one was named; of plans that were not dropped."""
    rows = MealMade.objects.filter(kitchen=kitchen).select_related("meal", "batch").order_by("id")
    latest = {(row.meal.name, tuple(row.products)): row.batch for row in rows}
    live = {meal.name for meal in list_meals(kitchen)} if latest else set()
    return {key: batch for key, batch in latest.items() if batch is not None and key[0] in live}


def latest_news(jobs: Iterable[MealJob]) -> dict[int, MealJobNews]:
    """What became of each of ``jobs``, as recorded last."""
    return {one.job_id: one for one in MealJobNews.objects.filter(job__in=list(jobs)).order_by("id")}


def is_done(news: MealJobNews | None) -> bool:
    """Whether a job is done, by its latest news."""
    return news is not None and news.sort == "done"
