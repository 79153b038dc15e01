"""What can be done where a plan does not fit, or is begun too late: each way worked out, with its price."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Final

from django.utils import timezone

from dolmetsch.core.planning.count_back import ready_at
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.coming import DAY
from dolmetsch.server.meals.reading import read_meal
from dolmetsch.server.meals.words import say_time
from dolmetsch.server.meals.working import Worked, work
from dolmetsch.server.quantities.printing import print_day, print_money

#: A meal that cannot be met is offered on so many days from when it can.
LATER_DAYS: Final = 4
#: What is begun at once is begun within the hour.
SLACK: Final = timedelta(hours=1)
_SMOKED: Final = ("smoke", "cook")


def list_ways_out(worked: Worked) -> Iterator[schemas.WayOutOut]:
    """What can be done: each is worked out, and offered where it then fits and is not begun too late."""
    for words, data in _try_ways(worked):
        other = _work_out_again(worked, data)
        if other is not None:
            yield schemas.WayOutOut(words=words, more=_more(worked, other), input=data)


def find_soonest(worked: Worked) -> datetime:
    """When all of it is ready, its reserve kept, if it is begun now."""
    now = timezone.localtime(worked.read.known.now)
    return max(ready_at(batch.jobs, now, DAY) for batch in worked.batches) + worked.read.reserve


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
        if batch.read.loads == 1 and any(step.kind in _SMOKED for step in batch.steps):
            which = f"{' and '.join(batch.products)} " if len(worked.batches) > 1 else "it "
            yield f"Smoke {which}in two loads", _with_loads(data, batch.make, 2)
    for days in (1, 2):
        moved = data.model_copy(update={"day": data.day + timedelta(days=days)})
        yield f"Move the meal to {print_day(read.meal_at + timedelta(days=days))}", moved
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


def _work_out_again(worked: Worked, data: schemas.MealIn) -> Worked | None:
    """The plan changed to ``data``, where that fits and is not begun too late; else None."""
    read = read_meal(worked.read.known, data)
    if read.reader.problems:
        return None
    other = work(read, worked.around, worked.others)
    is_clear = not other.fitted.clashes and not other.fitted.hands
    return other if is_clear and not other.is_too_late and not read.reader.problems else None


def _more(worked: Worked, other: Worked) -> str | None:
    """Money the other plan costs more than this one."""
    if worked.cost is None or other.cost is None:
        return None
    return print_money(other.cost - worked.cost)
