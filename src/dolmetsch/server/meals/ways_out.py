"""What can be done where a plan does not fit, or is begun too late: each way worked out, with its price."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Final

from django.utils import timezone

from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.jobs import SMOKED
from dolmetsch.server.meals.reading import read_meal
from dolmetsch.server.meals.words import say_time
from dolmetsch.server.meals.working import LATER_DAYS, Worked, find_soonest, work
from dolmetsch.server.quantities.printing import print_day, print_money

#: What is begun at once is begun within the hour.
SLACK: Final = timedelta(hours=1)


def list_ways_out(worked: Worked) -> Iterator[schemas.WayOutOut]:
    """What can be done: each is worked out, and offered where it then fits and is not begun too late. Of
    several that make less the one that makes most is enough.
    """
    for words, data in _try_ways(worked):
        way = _try_way(worked, words, data)
        if way is not None:
            yield way
    less = (_try_way(worked, words, data) for words, data in _try_less(worked.read.data))
    if not worked.is_too_late and (way := next((one for one in less if one is not None), None)) is not None:
        yield way


def move_to(data: schemas.MealIn, moment: datetime) -> schemas.MealIn:
    """The plan with its meal at ``moment``."""
    at = timezone.localtime(moment)
    return data.model_copy(update={"day": at.date(), "at": f"{at:%H:%M}"})


def list_meal_times(meal_at: datetime, soonest: datetime) -> list[datetime]:
    """Times to which a meal can be moved that is not ready before ``soonest``: the quarter of an hour after
    that, and the hour of the meal on the days that follow.
    """
    after = timezone.localtime(soonest).replace(second=0, microsecond=0)
    first = after + timedelta(minutes=-after.minute % 15)
    hour = timezone.localtime(meal_at)
    days = [
        first.replace(hour=hour.hour, minute=hour.minute) + timedelta(days=days) for days in range(LATER_DAYS)
    ]
    return sorted({first, *(day for day in days if day >= first)})


def _try_ways(worked: Worked) -> Iterator[tuple[str, schemas.MealIn]]:
    read, data = worked.read, worked.read.data
    if worked.is_too_late:
        # nobody begins this very minute
        soonest = max(find_soonest(worked), read.meal_at) + SLACK
        for moment in list_meal_times(read.meal_at, soonest):
            yield f"Move the meal to {say_time(moment)}", move_to(data, moment)
        return
    hours = read.reserve.total_seconds() / 3600
    for days in (1, 2, 3):
        later = data.model_copy(update={"reserve_hours": f"{hours + 24 * days:g}"})
        word = "day" if days == 1 else "days"
        yield f"Begin {days} {word} earlier: it is ready {days} {word} before the meal", later
    for batch in worked.batches:
        if batch.read.loads == 1 and any(step.kind in SMOKED for step in batch.steps):
            which = f"{' and '.join(batch.products)} " if len(worked.batches) > 1 else "it "
            yield f"Smoke {which}in two loads", _with_loads(data, batch.make, 2)
    for days in (1, 2):
        moved = data.model_copy(update={"day": data.day + timedelta(days=days)})
        yield f"Move the meal to {print_day(read.meal_at + timedelta(days=days))}", moved


def _try_less(data: schemas.MealIn) -> Iterator[tuple[str, schemas.MealIn]]:
    for part in (0.75, 0.5, 0.25):
        less = make_less(data, part)
        if less is not None:
            yield f"Make {round(part * 100)} % of it: {say_wants(less)}", less


def _with_loads(data: schemas.MealIn, make: int, loads: int) -> schemas.MealIn:
    makes = [
        one.model_copy(update={"loads": loads}) if index == make else one
        for index, one in enumerate(data.makes)
    ]
    return data.model_copy(update={"makes": makes})


def make_less(data: schemas.MealIn, part: float) -> schemas.MealIn | None:
    """Every plate less by a part, whole plates; None where an amount is no plain number of plates."""
    wants = []
    for want in data.wants:
        if want.sort != "dish" or not want.amount.isdigit():
            return None
        wants.append(want.model_copy(update={"amount": str(max(1, int(int(want.amount) * part)))}))
    return data.model_copy(update={"wants": wants})


def say_wants(data: schemas.MealIn) -> str:
    """What is served: "30 Harbor roll, 5 lb Cherry jowl"."""
    return ", ".join(f"{want.amount} {want.name}".strip() for want in data.wants)


def _try_way(worked: Worked, words: str, data: schemas.MealIn) -> schemas.WayOutOut | None:
    """The plan changed to ``data``, where that fits and is not begun too late; else None."""
    read = read_meal(worked.read.known, data)
    other = work(read, worked.around, worked.others)
    if read.reader.problems or other.is_too_late or other.fitted.clashes or other.fitted.hands:
        return None
    return schemas.WayOutOut(words=words, more=_more(worked, other), input=data)


def _more(worked: Worked, other: Worked) -> str | None:
    """Money the other plan costs more than this one."""
    if worked.cost is None or other.cost is None:
        return None
    return print_money(other.cost - worked.cost)
