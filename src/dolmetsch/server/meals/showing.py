"""A meal plan as it is shown: what is needed, what to buy, the jobs, what it costs, and what does not fit."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from fractions import Fraction

from django.utils import timezone

from dolmetsch.core.dishes.plate import Menu, Plate
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.planning.count_back import ready_at
from dolmetsch.core.planning.need import chance_enough, draw_odds
from dolmetsch.core.reference.yields import METHODS
from dolmetsch.server.dishes.costing import ReadDish
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.fitting import show_clashes, show_lanes
from dolmetsch.server.meals.inputs.jobs import DAY, DAYS_NEEDED, words_of
from dolmetsch.server.meals.shopping import list_shopping
from dolmetsch.server.meals.ways_out import list_ways_out
from dolmetsch.server.meals.words import say_hours, say_products
from dolmetsch.server.meals.working import Batch, Worked, find_soonest, work_out
from dolmetsch.server.quantities.calendar import print_week_moment
from dolmetsch.server.quantities.printing import (
    print_money,
    print_money_or_none,
    print_percent,
    print_weight,
)


def show_meal(kitchen: Kitchen, data: schemas.MealIn, now: datetime) -> schemas.MealOut:
    """A plan worked out, with what can be done where it does not fit or is too late; nothing is written."""
    return show_worked(work_out(kitchen, data, now))


def show_worked(worked: Worked) -> schemas.MealOut:
    """A plan that was worked out."""
    read, batches, fitted = worked.read, worked.batches, worked.fitted
    clashes = show_clashes(fitted, worked.around)
    layings = [(_name(worked, batch), batch.placed) for batch in batches]
    return schemas.MealOut(
        needed=[
            schemas.NeededOut(
                product=one.product,
                wanted=print_weight(one.wanted),
                here=print_weight(one.here),
                taken=print_weight(one.taken),
                coming=print_weight(one.coming),
                short=print_weight(one.short),
            )
            for one in worked.needed
        ],
        coming=list(_show_coming(worked)),
        buys=[_show_buy(worked, batch) for batch in batches],
        plates=list(_show_plates(worked)),
        jobs=sorted(_show_jobs(worked), key=lambda job: job.starts),
        latest_start=worked.first_start,
        is_too_late=worked.is_too_late,
        later=_say_later(worked),
        work_minutes=sum(one.job.hands_minutes for batch in batches for one in batch.placed),
        cost=print_money_or_none(worked.cost) if batches else None,
        lanes=show_lanes(worked.around, layings, fitted),
        first=worked.around.lanes.first,
        days=worked.around.lanes.days,
        meal_at=read.meal_at,
        clashes=clashes,
        ways_out=list(list_ways_out(worked)) if clashes or worked.is_too_late else [],
        shopping=[] if read.reader.problems else list_shopping(worked),
        missing=[*_list_missing(worked), *fitted.missing],
        problems=read.reader.problems,
    )


def _name(worked: Worked, batch: Batch) -> str:
    """What a batch of the plan is called on its lanes."""
    if len(worked.batches) > 1:
        return say_products(batch.products)
    return worked.read.data.name or "this plan"


def _show_coming(worked: Worked) -> Iterator[schemas.ComingOut]:
    left_out = set(worked.read.data.leave_out)
    for one, counts in worked.coming:
        yield schemas.ComingOut(
            code=one.batch.code,
            products=list(one.products),
            brings=print_weight(Fraction(one.grams.middle)),
            ready=one.ready,
            counts=counts,
            is_left_out=one.batch.code in left_out,
        )


def _list_missing(worked: Worked) -> Iterator[str]:
    """What is not known of a plan's batches, and how to set it."""
    for batch in worked.batches:
        if not batch.is_priced:
            meat = batch.read.cut_words.capitalize()
            yield f"{meat} has no price yet: choose a line of the price list, or type one."
        for step in batch.steps:
            if step.kind in DAYS_NEEDED and not step.days:
                label = METHODS[step.method].label
                yield f"How many days “{label}” take is not set: set it with the method."


def _show_buy(worked: Worked, batch: Batch) -> schemas.BuyOut:
    read = worked.read
    by = batch.placed[0].start
    is_too_late = by < read.known.now
    over = max(0.0, batch.grams * batch.kept.middle - batch.short)
    odds = draw_odds(batch.short, batch.kept)
    peak = max((density for _, density in odds), default=0.0)
    price = batch.read.price
    return schemas.BuyOut(
        make=batch.make,
        products=batch.products,
        meat=batch.read.cut_words if batch.read.meat is None else batch.read.meat.item.name,
        even=print_weight(Fraction(batch.need.even)),
        sure=print_weight(Fraction(batch.need.sure)),
        buy=print_weight(Fraction(batch.grams)),
        packs=batch.packs,
        by=None if is_too_late else timezone.localdate(by),
        is_too_late=is_too_late,
        cost=None if price is None else print_money(Fraction(batch.grams) * price),
        over=print_weight(Fraction(over)),
        over_plates=_count_over(worked, batch, over),
        odds=[
            schemas.OddsOut(grams=round(grams, 1), part=round(density / peak, 4)) for grams, density in odds
        ],
        least=print_weight(Fraction(odds[0][0] if odds else batch.need.even)),
        most=print_weight(Fraction(odds[-1][0] if odds else batch.need.even)),
        even_grams=round(batch.need.even, 1),
        sure_grams=round(batch.grams, 1),
        chance=print_percent(Fraction(chance_enough(batch.grams, batch.short, batch.kept))),
    )


def _count_over(worked: Worked, batch: Batch, over: float) -> str:
    """What is left over would do for: "14 more plates of Harbor roll"; empty where no dish is served."""
    mine = {same_name(product) for product in batch.products}
    want = next(
        (one for one in worked.read.wants if one.dish is not None and same_name(one.product) in mine), None
    )
    if want is None or not want.grams:
        return ""
    plates = int(over / float(want.grams / want.plates))
    return f"{plates} more {'plate' if plates == 1 else 'plates'} of {want.dish}" if plates else ""


def _show_jobs(worked: Worked) -> Iterator[schemas.JobOut]:
    own = worked.read.known.own
    for index, batch in enumerate(worked.batches):
        for place, (one, step) in enumerate(zip(batch.placed, batch.steps, strict=True)):
            yield schemas.JobOut(
                product=say_products(batch.products) if len(worked.batches) > 1 else "",
                basis=own.say_basis(step),
                reserve_hours=round(one.job.reserve.total_seconds() / 3600, 1),
                kind=one.job.kind,
                words=words_of(one.job.kind),
                starts=one.start,
                hands_end=one.hands_end,
                ends=one.end,
                minutes=one.job.hands_minutes,
                spare_hours=round(one.spare.total_seconds() / 3600, 1),
                store=", ".join(worked.fitted.rooms_of.get((index, place), ())),
                is_too_long=one.is_too_long,
            )


def _say_later(worked: Worked) -> str:
    """What a day later than the latest start would do, and how soon it can be met if that has gone by."""
    if not worked.batches:
        return ""
    if worked.is_too_late:
        return (
            f"It is too late for that day. Begun now it is ready {print_week_moment(find_soonest(worked))}."
        )
    ready = max(
        ready_at(batch.jobs, batch.placed[0].start + timedelta(days=1), DAY) for batch in worked.batches
    )
    if ready <= worked.read.meal_at:
        return f"A day later it is still ready in time, {print_week_moment(ready)}."
    late = say_hours(ready - worked.read.meal_at)
    return f"A day later it is ready {print_week_moment(ready)}, {late} after the meal."


def _show_plates(worked: Worked) -> Iterator[schemas.PlateOut]:
    """What a plate of each dish will cost: its meat partly from the larder, partly as it will be made."""
    read = worked.read
    for name, dish in read.dishes.items():
        cost = _cost_so_far(dish, read.known.plates.get(same_name(name)))
        span = None if cost is None else _price_range(worked, name, cost)
        low, high = (None, None) if span is None else span
        menu = dish.menu
        yield schemas.PlateOut(
            dish=name,
            plates=f"{float(read.plates[name]):g}",
            low=print_money_or_none(low),
            high=print_money_or_none(high),
            food_low=_food(menu, low),
            food_high=_food(menu, high),
            leave_low=_leave(menu, high, read.plates[name]),
            leave_high=_leave(menu, low, read.plates[name]),
        )


def _cost_so_far(dish: ReadDish, plate: Plate | None) -> Fraction | None:
    """What a plate costs now, meat that was never made left out; None where another part has no price."""
    if plate is None:
        return None
    whole = Fraction(0)
    for data, cost in zip(dish.data.parts, plate.parts, strict=True):
        if cost is None and data.sort != "larder":
            return None
        whole += cost or Fraction(0)
    return whole


def _food(menu: Menu | None, cost: Fraction | None) -> str | None:
    if menu is None or cost is None:
        return None
    part = menu.food_cost(cost)
    return None if part is None else print_percent(part)


def _leave(menu: Menu | None, cost: Fraction | None, plates: Fraction) -> str | None:
    return None if menu is None or cost is None else print_money(menu.leaves(cost) * plates)


def _price_range(worked: Worked, name: str, cost: Fraction) -> tuple[Fraction, Fraction] | None:
    """A plate's cost at the low and the high end of what the meat that is to be made will cost."""
    parts = {
        same_name(one.product): float(one.short / one.wanted) if one.wanted else 0.0 for one in worked.needed
    }
    made = {same_name(product): batch for batch in worked.batches for product in batch.products}
    meats = worked.read.known.prices.meats
    low = high = float(cost)
    for want in worked.read.wants:
        batch = made.get(same_name(want.product))
        if want.dish != name or batch is None:
            continue
        if not batch.is_priced:
            return None
        grams = float(want.grams / want.plates) * parts[same_name(want.product)]
        meat = meats.get(same_name(want.product))
        now = 0.0 if meat is None else float(meat.per_gram)
        low += grams * (batch.outlook.price.low - now)
        high += grams * (batch.outlook.price.high - now)
    return Fraction(low), Fraction(high)
