"""What can still be done for a meal that what was done so far makes late."""

from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime
from fractions import Fraction
from typing import Final

from dolmetsch.core.planning.count_back import WorkDay
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.inputs.facts import Fact, find_ready
from dolmetsch.server.meals.models import MealJob
from dolmetsch.server.meals.ways_out import list_meal_times, make_less, move_to, say_wants
from dolmetsch.server.meals.working import Worked, list_needed
from dolmetsch.server.prices.queries import list_priced
from dolmetsch.server.quantities.calendar import print_week_moment
from dolmetsch.server.quantities.printing import print_money, print_weight

#: The longest day anybody works to save a meal (ours).
LONG_DAY: Final = WorkDay(begins=5, ends=23)
#: So many times are offered to move the meal to.
TIMES: Final = 2


def list_rescues(
    worked: Worked, jobs: Sequence[MealJob], facts: Mapping[int, Fact], ready: datetime
) -> Iterator[schemas.WayOutOut]:
    """What can still be done where it is ``ready`` after the meal, nothing taken by itself."""
    read = worked.read
    hurried = find_ready(jobs, facts, read.known.now, LONG_DAY)
    if hurried is not None and hurried <= read.meal_at:
        hours = f"{LONG_DAY.begins:02d}:00 to {LONG_DAY.ends}:00"
        yield _offer(f"Work from {hours}: ready {print_week_moment(hurried)}, in time")
    for moment in list_meal_times(read.meal_at, ready)[:TIMES]:
        yield _offer(f"Move the meal to {print_week_moment(moment)}", move_to(read.data, moment))
    without = _without_what_is_late(worked)
    part = min((have / wanted for wanted, have in without.values() if wanted), default=Fraction(0))
    less = make_less(read.known.kitchen, read.data, part) if 0 < part < 1 else None
    if less is not None:
        yield _offer(f"Serve what there will be without it: {say_wants(less)}", less)
    lacking = sum((wanted - min(wanted, have) for wanted, have in without.values()), Fraction(0))
    yield from _ready_made(worked, lacking)


def _without_what_is_late(worked: Worked) -> dict[str, tuple[Fraction, Fraction]]:
    """Grams of each product that are wanted, and that there are without what is made for this plan."""
    coming = [(one, counts and not one.is_named) for one, counts in worked.coming]
    return {
        one.product: (one.wanted, one.here + one.coming)
        for one in list_needed(worked.read, coming, worked.others)
    }


def _ready_made(worked: Worked, grams: Fraction) -> Iterator[schemas.WayOutOut]:
    """The cheapest ready-made thing of the price list in place of what is late."""
    kitchen = worked.read.known.kitchen
    packs = [
        (priced.price.paid / priced.price.grams, priced.item.name)
        for priced in list_priced(kitchen, "shop_pack")
        if priced.price.grams
    ]
    if packs and grams > 0:
        each, name = min(packs)
        amount = print_weight(grams).say(kitchen.weight_unit)
        yield _offer(f"Fetch {amount} of {name} ready-made", more=print_money(each * grams))


def _offer(words: str, data: schemas.MealIn | None = None, *, more: str | None = None) -> schemas.WayOutOut:
    return schemas.WayOutOut(words=words, more=more, input=data)
