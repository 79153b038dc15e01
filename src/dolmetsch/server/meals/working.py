"""A meal plan worked out: what to buy, the jobs counted back, whether it fits, and what it costs."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from fractions import Fraction
from math import ceil, exp, sqrt

from django.utils import timezone

from dolmetsch.core.dishes.plate import Menu, Plate
from dolmetsch.core.forecast.outlook import Estimate, Outlook, Start, carry
from dolmetsch.core.forecast.way import Way, cost_step
from dolmetsch.core.forecast.yields import believe
from dolmetsch.core.planning.count_back import (
    Job,
    PlacedJob,
    WorkDay,
    count_back,
    ready_at,
)
from dolmetsch.core.planning.need import RawNeed, chance_enough, draw_odds, raw_needed, whole_packs
from dolmetsch.core.planning.plan import DAY_BEGINS, DAY_ENDS
from dolmetsch.core.reference.yields import METHODS
from dolmetsch.server.dishes.costing import ReadDish
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.fitting import (
    Fitted,
    Surroundings,
    fit_plan,
    look_around,
    show_clashes,
    show_lanes,
)
from dolmetsch.server.meals.jobs import list_jobs, words_of
from dolmetsch.server.meals.known import gather
from dolmetsch.server.meals.reading import ReadMeal, read_meal
from dolmetsch.server.meals.shopping import list_shopping
from dolmetsch.server.quantities.printing import (
    print_day,
    print_money,
    print_money_or_none,
    print_percent,
    print_weight,
)

#: Steps nobody knows the length of unless the method says it.
_DAYS_NEEDED = frozenset({"cure", "dry", "age"})
#: A meal may be moved so far to make it fit.
MOST_LATER = timedelta(days=2)
#: The hours at which hands are put on.
DAY = WorkDay(begins=DAY_BEGINS, ends=DAY_ENDS)


@dataclass(frozen=True, slots=True, kw_only=True)
class Batch:
    """What is to be made: raw grams to buy, of which so much is kept, what it comes to, in which jobs.

    ``priced`` false: the meat has no price, so its cost is not known.
    """

    short: float
    kept: Estimate
    need: RawNeed
    packs: int | None
    grams: float
    outlook: Outlook
    jobs: list[Job]
    placed: list[PlacedJob]
    priced: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Worked:
    """A plan as read, what it needs of each product, what is made for it and whether that fits."""

    read: ReadMeal
    needed: list[tuple[str, Fraction, Fraction]]
    batch: Batch | None
    around: Surroundings
    fitted: Fitted | None
    pieces: int = 0


def work_out(kitchen: Kitchen, data: schemas.MealIn, now: datetime) -> Worked:
    """``data`` worked out as far as it can be read."""
    read = read_meal(gather(kitchen, now, way=data.way), data)
    until = max(read.meal_at, now) + MOST_LATER if not read.reader.problems else now
    around = look_around(kitchen, now, until=until, apart_from=data.name)
    return _work(read, around)


def _work(read: ReadMeal, around: Surroundings) -> Worked:
    needed = list(_list_needed(read))
    short = sum((max(Fraction(0), wanted - here) for _, wanted, here in needed), Fraction(0))
    batch = None
    if short and read.way is not None and read.cut is not None and not read.reader.problems:
        batch = _plan_batch(read, float(short))
    fitted, pieces = None, 0
    if batch is not None:
        pieces = max(1, ceil(batch.grams / float(read.piece) - 1e-3))
        fitted = fit_plan(
            around,
            batch.placed,
            pieces=pieces,
            loads=read.data.loads,
            minutes_a_day=read.minutes_a_day,
        )
    return Worked(read=read, needed=needed, batch=batch, around=around, fitted=fitted, pieces=pieces)


def _list_needed(read: ReadMeal) -> Iterator[tuple[str, Fraction, Fraction]]:
    """Each product that is wanted: how much, and how much will be here on the day at the pace of late."""
    wanted: dict[str, tuple[str, Fraction]] = {}
    for want in read.wants:
        name, before = wanted.get(want.product.casefold(), (want.product, Fraction(0)))
        wanted[want.product.casefold()] = name, before + want.grams
    days = max(0, (read.data.day - read.known.today).days)
    for key, (name, grams) in wanted.items():
        pace = read.known.paces.get(key)
        eaten = Fraction(0) if pace is None else pace.grams_a_day * days
        yield name, grams, max(Fraction(0), read.known.left.get(key, Fraction(0)) - eaten)


def _plan_batch(read: ReadMeal, short: float) -> Batch:
    way, cut = read.way, read.cut
    if way is None or cut is None:
        raise ValueError("a batch is planned by a method and for a cut")
    beliefs = [believe(step.method, cut, read.known.history) for step in way.steps]
    kept = Estimate(
        middle=exp(sum(belief.log_mean for belief in beliefs)),
        log_deviation=sqrt(sum(belief.log_deviation**2 for belief in beliefs)),
    )
    need = raw_needed(short, kept, chance=read.sure)
    packs = None if read.pack is None else whole_packs(need.sure, read.pack)
    grams = need.sure if packs is None or read.pack is None else packs * float(read.pack)
    paid = grams * float(read.price or 0)
    start = Start(cost=paid, labour=0.0, joining=[grams, *[0.0] * len(beliefs)])
    costs = [cost_step(step, read.known.policy) for step in way.steps]
    jobs = list_jobs(way, grams, own_hours=read.known.own_hours, loads=read.data.loads)
    return Batch(
        short=short,
        kept=kept,
        need=need,
        packs=packs,
        grams=grams,
        outlook=carry(start, list(zip(costs, beliefs, strict=True))),
        jobs=jobs,
        placed=count_back(jobs, read.meal_at - read.reserve, DAY),
        priced=read.price is not None,
    )


def show_meal(kitchen: Kitchen, data: schemas.MealIn, now: datetime) -> schemas.MealOut:
    """A plan worked out, with what can be done where it does not fit; nothing is written."""
    worked = work_out(kitchen, data, now)
    read, batch, fitted = worked.read, worked.batch, worked.fitted
    placed = [] if batch is None else batch.placed
    clashes = [] if fitted is None else show_clashes(fitted)
    return schemas.MealOut(
        needed=[
            schemas.NeededOut(
                product=product,
                wanted=print_weight(wanted),
                here=print_weight(here),
                short=print_weight(max(Fraction(0), wanted - here)),
            )
            for product, wanted, here in worked.needed
        ],
        buy=None if batch is None else _show_buy(read, batch, now),
        plates=list(_show_plates(worked)),
        jobs=[] if batch is None or fitted is None else list(_show_jobs(batch, fitted)),
        latest_start=placed[0].start if placed else None,
        later="" if batch is None else _say_later(read, batch, now),
        work_minutes=sum(one.job.hands_minutes for one in placed),
        cost=print_money(Fraction(batch.outlook.cost)) if batch is not None and batch.priced else None,
        lanes=worked.around.lanes.lanes
        if fitted is None
        else show_lanes(worked.around, placed, fitted, name=data.name or "this plan"),
        first=worked.around.lanes.first,
        days=worked.around.lanes.days,
        meal_at=read.meal_at,
        clashes=clashes,
        ways_out=list(list_ways_out(worked, now)) if clashes else [],
        shopping=list_shopping(
            kitchen,
            way=read.way if batch is not None else None,
            grams=0.0 if batch is None else batch.grams,
            outlook=None if batch is None else batch.outlook,
            dishes=read.known.dishes,
            lines=read.known.prices.lines,
            plates=read.plates,
        ),
        missing=[*_list_missing(read, batch), *(fitted.missing if fitted is not None else [])],
        problems=read.reader.problems,
    )


def _list_missing(read: ReadMeal, batch: Batch | None) -> Iterator[str]:
    """What is not known of a plan's batch, and how to set it."""
    if batch is None or read.way is None:
        return
    if not batch.priced:
        yield "The meat has no price yet: choose a line of the price list, or type one."
    for step in read.way.steps:
        if step.kind in _DAYS_NEEDED and not step.days:
            yield f"How many days “{METHODS[step.method].label}” take is not set: set it with the method."


def _show_buy(read: ReadMeal, batch: Batch, now: datetime) -> schemas.BuyOut:
    by = batch.placed[0].start
    over = max(0.0, batch.grams * batch.kept.middle - batch.short)
    odds = draw_odds(batch.short, batch.kept)
    peak = max((density for _, density in odds), default=0.0)
    return schemas.BuyOut(
        even=print_weight(Fraction(batch.need.even)),
        sure=print_weight(Fraction(batch.need.sure)),
        buy=print_weight(Fraction(batch.grams)),
        packs=batch.packs,
        by=timezone.localdate(by),
        is_too_late=by < now,
        cost=print_money(Fraction(batch.grams) * read.price) if read.price is not None else None,
        over=print_weight(Fraction(over)),
        over_plates=_count_over(read, over),
        odds=[
            schemas.OddsOut(grams=round(grams, 1), part=round(density / peak, 4)) for grams, density in odds
        ],
        least=print_weight(Fraction(odds[0][0] if odds else batch.need.even)),
        most=print_weight(Fraction(odds[-1][0] if odds else batch.need.even)),
        even_grams=round(batch.need.even, 1),
        sure_grams=round(batch.grams, 1),
        chance=print_percent(Fraction(chance_enough(batch.grams, batch.short, batch.kept))),
    )


def _count_over(read: ReadMeal, over: float) -> str:
    """What is left over would do for: "14 more plates of Harbor roll"; empty where no dish is served."""
    want = next((one for one in read.wants if one.dish is not None and one.grams), None)
    if want is None:
        return ""
    plates = int(over / float(want.grams / want.plates))
    return f"{plates} more {'plate' if plates == 1 else 'plates'} of {want.dish}" if plates else ""


def _show_jobs(batch: Batch, fitted: Fitted) -> Iterator[schemas.JobOut]:
    for index, one in enumerate(batch.placed):
        yield schemas.JobOut(
            kind=one.job.kind,
            words=words_of(one.job.kind),
            starts=one.start,
            hands_end=one.hands_end,
            ends=one.end,
            minutes=one.job.hands_minutes,
            spare_hours=round(one.spare.total_seconds() / 3600, 1),
            store=", ".join(fitted.rooms_of.get(index, ())),
            is_too_long=one.is_too_long,
        )


def _say_later(read: ReadMeal, batch: Batch, now: datetime) -> str:
    """What a day later at the latest start would do, and how soon it can be met if that has gone by."""
    start = batch.placed[0].start
    if start < now:
        soonest = ready_at(batch.jobs, timezone.localtime(now), DAY) + read.reserve
        return f"It is too late for that day. Begun now it is ready {say_time(soonest)}."
    ready = ready_at(batch.jobs, start + timedelta(days=1), DAY)
    if ready <= read.meal_at:
        return f"A day later it is still ready in time, {say_time(ready)}."
    late = say_hours(ready - read.meal_at)
    return f"A day later it is ready {say_time(ready)}, {late} after the meal."


def say_time(moment: datetime) -> str:
    """ "Sat 5 Dec, 18:30", by the kitchen's clock."""
    return f"{timezone.localtime(moment):%a %-d %b, %H:%M}"


def say_hours(span: timedelta) -> str:
    """ "5 hours", from two days on "2 days"."""
    hours = round(span.total_seconds() / 3600)
    if hours >= 48:
        return f"{hours // 24} days"
    return "1 hour" if hours == 1 else f"{hours} hours"


def _show_plates(worked: Worked) -> Iterator[schemas.PlateOut]:
    """What a plate of each dish will cost: its meat partly from the larder, partly as it will be made."""
    read = worked.read
    plates = read.known.plates
    short = {
        product.casefold(): float(max(Fraction(0), wanted - here) / wanted) if wanted else 0.0
        for product, wanted, here in worked.needed
    }
    for name, dish in read.dishes.items():
        cost = _cost_so_far(dish, plates.get(name.casefold()))
        span = None if cost is None else _price_range(worked, name, cost, short)
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


def _price_range(
    worked: Worked, name: str, cost: Fraction, short: Mapping[str, float]
) -> tuple[Fraction, Fraction] | None:
    """A plate's cost at the low and the high end of what the meat that is to be made will cost."""
    batch, read = worked.batch, worked.read
    if batch is None:
        return cost, cost
    if not batch.priced:
        return None
    meats = read.known.prices.meats
    low = high = float(cost)
    for want in read.wants:
        if want.dish != name:
            continue
        part = short.get(want.product.casefold(), 0.0)
        grams = float(want.grams / want.plates) * part
        meat = meats.get(want.product.casefold())
        now = 0.0 if meat is None else float(meat.per_gram)
        low += grams * (batch.outlook.price.low - now)
        high += grams * (batch.outlook.price.high - now)
    return Fraction(low), Fraction(high)


def list_ways_out(worked: Worked, now: datetime) -> Iterator[schemas.WayOutOut]:
    """What can be done where it does not fit: each is worked out, and offered where it then does."""
    for words, price, data in _try_ways(worked, now):
        if _fits(worked, data):
            yield schemas.WayOutOut(words=words, price=price, input=data)


def _try_ways(worked: Worked, now: datetime) -> Iterator[tuple[str, str, schemas.MealIn]]:
    data, batch = worked.read.data, worked.batch
    assert batch is not None
    hours = worked.read.reserve.total_seconds() / 3600
    for days in (1, 2, 3):
        if batch.placed[0].start - timedelta(days=days) > now:
            later = data.model_copy(update={"reserve_hours": f"{hours + 24 * days:g}"})
            word = "day" if days == 1 else "days"
            yield f"Begin {days} {word} earlier: it is ready {days} {word} before the meal", "0.00", later
    if data.loads == 1:
        more = _price_of_load(worked)
        yield "Smoke it in two loads", more, data.model_copy(update={"loads": 2})
    for days in (1, 2):
        moved = data.model_copy(update={"day": data.day + timedelta(days=days)})
        yield f"Move the meal to {print_day(worked.read.meal_at + timedelta(days=days))}", "", moved
    for part in (0.75, 0.5, 0.25):
        less = _make_less(data, part)
        if less is not None:
            yield f"Make {round(part * 100)} % of it: {_say_wants(less)}", "", less


def _price_of_load(worked: Worked) -> str:
    """What a second load costs more: what a smoke uses by the batch, and its work."""
    way: Way | None = worked.read.way
    steps = [step for step in (way.steps if way is not None else ()) if step.kind in ("smoke", "cook")]
    costs = [cost_step(step, worked.read.known.policy) for step in steps]
    return print_money(Fraction(sum(one.batch + one.minutes * one.wage for one in costs)))


def _make_less(data: schemas.MealIn, part: float) -> schemas.MealIn | None:
    """Every plate less by a part, whole plates; None where an amount is no plain number of plates."""
    wants = []
    for want in data.wants:
        if want.sort != "dish" or not want.amount.isdigit():
            return None
        wants.append(want.model_copy(update={"amount": str(max(1, int(int(want.amount) * part)))}))
    return data.model_copy(update={"wants": wants})


def _say_wants(data: schemas.MealIn) -> str:
    return ", ".join(f"{want.amount} {want.name}" for want in data.wants)


def _fits(worked: Worked, data: schemas.MealIn) -> bool:
    """Whether the plan changed to ``data`` fits, and is not begun too late."""
    read = read_meal(worked.read.known, data)
    if read.reader.problems:
        return False
    other = _work(read, worked.around)
    if other.batch is None or other.fitted is None:
        return other.batch is None
    return (
        not other.fitted.clashes and not other.fitted.hands and other.batch.placed[0].start > read.known.now
    )
