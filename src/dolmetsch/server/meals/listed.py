"""Plans that are on the list: their jobs, which are done, and the places they hold."""

from collections.abc import Iterable, Iterator, Sequence
from datetime import datetime

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.lanes.schemas import StayOut
from dolmetsch.server.meals.fitting import show_stay
from dolmetsch.server.meals.models import Meal, MealJob, MealJobNews
from dolmetsch.server.writing.kept import latest_by_name


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


def latest_news(jobs: Iterable[MealJob]) -> dict[int, MealJobNews]:
    """What became of each of ``jobs``, as recorded last."""
    return {one.job_id: one for one in MealJobNews.objects.filter(job__in=list(jobs)).order_by("id")}


def is_done(news: MealJobNews | None) -> bool:
    """Whether a job is done, by its latest news."""
    return news is not None and news.sort == "done"


def list_stays(kitchen: Kitchen, since: datetime, apart_from: str) -> Iterator[tuple[str, StayOut]]:
    """The places that listed plans hold, by store, until their meat lies there itself (``apart_from``: the
    plan left out). A job that is done holds nothing: its meat lies there by the map.
    """
    meals = [meal for meal in list_meals(kitchen) if meal.name != apart_from]
    jobs = list_jobs_of(meals) if meals else []
    news = latest_news(jobs)
    for job in jobs:
        if job.ends_at <= since or is_done(news.get(job.pk)):
            continue
        share = -(-job.pieces // max(1, len(job.stores)))
        for store in job.stores:
            yield (
                store,
                show_stay(job.kind, meal=job.meal.name, begins=job.due_at, ends=job.ends_at, pieces=share),
            )
