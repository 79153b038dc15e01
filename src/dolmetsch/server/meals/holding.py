"""The places that plans on the list hold, until their meat lies there itself."""

from collections.abc import Iterator
from datetime import datetime

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.lanes.schemas import StayOut
from dolmetsch.server.meals.fitting import show_stay
from dolmetsch.server.meals.inputs.facts import find_facts
from dolmetsch.server.meals.inputs.listed import list_jobs_of, list_made, list_meals
from dolmetsch.server.plans.models import PlannedTask

#: Stays that the tasks of a batch show by themselves.
_BY_TASKS = ("cure", "rest", "smoke", "cook", "dry")


def list_stays(kitchen: Kitchen, since: datetime, apart_from: str) -> Iterator[tuple[str, StayOut]]:
    """The places that listed plans hold, by store (``apart_from``: the plan left out).

    A job that is done holds nothing: its meat lies there by the map. Nor does one that the tasks of the batch
    named for it show already.
    """
    meals = [meal for meal in list_meals(kitchen) if meal.name != apart_from]
    jobs = list_jobs_of(meals) if meals else []
    facts = find_facts(kitchen, jobs)
    made = list_made(kitchen) if jobs else {}
    open_tasks = PlannedTask.objects.filter(batch__in=[batch.pk for batch in made.values()], state="open")
    shown = set(open_tasks.values_list("batch_id", flat=True)) if made else set()
    for job in jobs:
        batch = made.get((job.meal.name, tuple(job.products)))
        is_shown = batch is not None and batch.pk in shown and job.kind in _BY_TASKS
        if job.ends_at <= since or job.pk in facts or is_shown:
            continue
        share = -(-job.pieces // max(1, len(job.stores)))
        for store in job.stores:
            yield (
                store,
                show_stay(job.kind, meal=job.meal.name, begins=job.due_at, ends=job.ends_at, pieces=share),
            )
