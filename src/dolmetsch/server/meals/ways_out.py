"""What can be done where a plan does not fit, or is begun too late: each way worked out, with its price."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from fractions import Fraction
from itertools import combinations, islice
from typing import Final

from django.utils import timezone

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.inputs.jobs import SMOKED
from dolmetsch.server.meals.reading import read_meal
from dolmetsch.server.meals.words import say_products
from dolmetsch.server.meals.working import LATER_DAYS, MOST_MOVED, Worked, find_soonest, work
from dolmetsch.server.quantities.calendar import print_day, print_week_moment
from dolmetsch.server.quantities.printing import print_money, print_weight
from dolmetsch.server.quantities.reader import Reader

#: What is begun at once is begun within the hour.
SLACK: Final = timedelta(hours=1)
#: So many pairs of changes are shown.
PAIRS_SHOWN: Final = 3
#: Less of something that is not counted is found to so small a part.
FINEST: Final = 32
#: So many days to which it can be moved.
TIMES_SHOWN: Final = 3


def list_ways_out(worked: Worked) -> Iterator[schemas.WayOutOut]:
    """What can be done: each is worked out, and offered where it then fits and is not begun too late.

    Two changes at once are tried where no single one does; less is made as little as it has to be. Where it
    is too late the nearest time that can be met is always among them.
    """
    yield from _list_times(worked) if worked.is_too_late else _list_ways(worked)
    less = _make_less(worked)
    if less is not None:
        yield less


def _list_times(worked: Worked) -> list[schemas.WayOutOut]:
    """Times at which it fits; where there are none, the first at which there is time for it."""
    times = list(_try_times(worked))
    found = list(islice(_offer(worked, times), TIMES_SHOWN))
    if found:
        return found
    said = "then there is time, but not yet the room or the hands"
    in_time = ((words, data) for words, data in times if not _work_again(worked, data).is_too_late)
    return [
        schemas.WayOutOut(words=f"{words}: {said}", more=None, input=data)
        for words, data in islice(in_time, 1)
    ]


def _list_ways(worked: Worked) -> list[schemas.WayOutOut]:
    data = worked.read.data
    changes = list(_list_changes(worked))
    at_other_times = not worked.fitted.is_too_big
    found = [
        *(_offer(worked, _begin_earlier(worked)) if at_other_times else ()),
        *_offer(worked, ((one.words, one.take(data)) for one in changes)),
        *(islice(_offer(worked, _move_by_days(worked)), TIMES_SHOWN) if at_other_times else ()),
    ]
    return found or list(islice(_offer(worked, _try_pairs(data, changes)), PAIRS_SHOWN))


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """A change to how the plan's make at ``position`` is made."""

    words: str
    position: int
    update: Mapping[str, int]

    def take(self, data: schemas.MealIn) -> schemas.MealIn:
        """``data`` with it."""
        makes = [
            one.model_copy(update=dict(self.update)) if index == self.position else one
            for index, one in enumerate(data.makes)
        ]
        return data.model_copy(update={"makes": makes})


def _offer(worked: Worked, ways: Iterable[tuple[str, schemas.MealIn]]) -> Iterator[schemas.WayOutOut]:
    """Those of ``ways`` (words, plan) that fit and are not begun too late, with their price."""
    for words, data in ways:
        other = _work_again(worked, data)
        is_bad = other.read.reader.problems or other.fitted.clashes or other.fitted.hands
        if not is_bad and not other.is_too_late:
            yield schemas.WayOutOut(words=words, more=_more(worked, other), input=data)


def _work_again(worked: Worked, data: schemas.MealIn) -> Worked:
    """The plan as ``data`` says instead, beside the same."""
    return work(read_meal(worked.read.known, data), worked.around, worked.others)


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


def _try_times(worked: Worked) -> Iterator[tuple[str, schemas.MealIn]]:
    read = worked.read
    # nobody begins this very minute
    soonest = max(find_soonest(worked), read.meal_at) + SLACK
    for moment in list_meal_times(read.meal_at, soonest):
        yield f"Move the meal to {print_week_moment(moment)}", move_to(read.data, moment)


def _begin_earlier(worked: Worked) -> Iterator[tuple[str, schemas.MealIn]]:
    hours = worked.read.reserve.total_seconds() / 3600
    for days in (1, 2, 3):
        earlier = worked.read.data.model_copy(update={"reserve_hours": f"{hours + 24 * days:g}"})
        said = _say_days(days)
        yield f"Begin {said} earlier: all is ready {said} before the meal", earlier


def _move_by_days(worked: Worked) -> Iterator[tuple[str, schemas.MealIn]]:
    data = worked.read.data
    for days in range(1, MOST_MOVED + 1):
        moved = data.model_copy(update={"day": data.day + timedelta(days=days)})
        yield f"Move the meal to {print_day(worked.read.meal_at + timedelta(days=days))}", moved


def _list_changes(worked: Worked) -> Iterator[Change]:
    """Changes to one batch of the plan: more loads of the smoker, or ready earlier than the others."""
    for batch in worked.batches:
        which = say_products(batch.products) if len(worked.batches) > 1 else "it"
        if batch.read.loads == 1 and any(step.kind in SMOKED for step in batch.steps):
            yield Change(words=f"Smoke {which} in two loads", position=batch.make, update={"loads": 2})
        for days in (1, 2) if len(worked.batches) > 1 else ():
            early = batch.read.early // timedelta(days=1) + days
            if early <= schemas.MOST_EARLY:
                words = f"Make {which} earlier: ready {_say_days(early)} before the meal"
                yield Change(words=words, position=batch.make, update={"days_early": early})


def _try_pairs(data: schemas.MealIn, changes: Sequence[Change]) -> Iterator[tuple[str, schemas.MealIn]]:
    for one, other in combinations(changes, 2):
        if one.position != other.position:
            words = f"{one.words}, and {other.words[0].lower()}{other.words[1:]}"
            yield words, other.take(one.take(data))


def _say_days(days: int) -> str:
    return f"{days} {'day' if days == 1 else 'days'}"


def _make_less(worked: Worked) -> schemas.WayOutOut | None:
    """The most of it that fits, found by halving: to the plate, or to a 32nd of it."""
    data, kitchen = worked.read.data, worked.read.known.kitchen
    most = max((int(want.amount) for want in data.wants if want.amount.isdigit()), default=0)
    fits, too_much = Fraction(0), Fraction(1)
    best: schemas.WayOutOut | None = None
    while too_much - fits > Fraction(1, max(most, FINEST)):
        part = (fits + too_much) / 2
        less = make_less(kitchen, data, part)
        if less is None:
            return None
        way = next(_offer(worked, [(f"Make less: {say_wants(less)}", less)]), None)
        if way is None:
            too_much = part
        else:
            best, fits = way, part
    return best


def make_less(kitchen: Kitchen, data: schemas.MealIn, part: Fraction) -> schemas.MealIn | None:
    """A part of everything, whole plates; None where an amount cannot be parted."""
    wants = []
    for want in data.wants:
        if want.sort == "dish":
            if not want.amount.isdigit():
                return None
            amount = str(max(1, int(int(want.amount) * part)))
        else:
            grams = Reader.of(kitchen).weight("amount", want.amount)
            if grams is None:
                return None
            amount = print_weight(Fraction(grams) * part).say(kitchen.weight_unit)
        wants.append(want.model_copy(update={"amount": amount}))
    return data.model_copy(update={"wants": wants})


def say_wants(data: schemas.MealIn) -> str:
    """What is served: "30 Harbor roll, 5 lb Cherry jowl"."""
    return ", ".join(f"{want.amount} {want.name}".strip() for want in data.wants)


def _more(worked: Worked, other: Worked) -> str | None:
    """Money the other plan costs more than this one."""
    if worked.cost is None or other.cost is None:
        return None
    return print_money(other.cost - worked.cost)
