"""Reads: every dish with what a plate costs, one dish whole, a dish as typed."""

from collections.abc import Iterable, Mapping, Sequence
from datetime import timedelta
from fractions import Fraction
from typing import Final

from django.db.models import Sum
from django.utils import timezone

from dolmetsch.core.dishes.plate import Menu, Plate, price_for
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.dishes import schemas
from dolmetsch.server.dishes.costing import (
    Prices,
    ReadDish,
    ReadPart,
    cost_dishes,
    gather_prices,
    list_dishes,
    list_within,
    read_dish,
)
from dolmetsch.server.dishes.in_larder import find_how_long, list_past
from dolmetsch.server.dishes.models import Dish, DishAims, Plating
from dolmetsch.server.dishes.next_meat import list_next
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import PackNow
from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.prices.queries import Priced, list_priced
from dolmetsch.server.problems import FieldProblem, not_found
from dolmetsch.server.quantities.printing import (
    print_money,
    print_money_or_none,
    print_parts,
    print_percent,
)
from dolmetsch.server.quantities.reader import Reader

#: Plates of so many days are a month.
MONTH_DAYS: Final = 30
#: Menu prices that are drawn, as multiples of what a plate costs.
CURVE: Final = tuple(Fraction(step, 4) for step in range(6, 33))
#: So many of the latest platings of a dish are listed.
SERVED_SHOWN: Final = 12
#: So many names are offered for parts.
OFFERED: Final = 400


def find_aims(kitchen: Kitchen) -> DishAims | None:
    """What the kitchen aims at, as set last."""
    return DishAims.objects.filter(kitchen=kitchen).order_by("-id").first()


def get_dish(kitchen: Kitchen, name: str) -> Dish:
    """The latest version of a dish.

    Raises:
        DomainError: not_found.
    """
    dish = Dish.objects.filter(kitchen=kitchen, name=name).order_by("-version").first()
    if dish is None or dish.is_put_away:
        raise not_found(f"dish “{name}”")
    dish.kitchen = kitchen
    return dish


def read_all(kitchen: Kitchen) -> tuple[list[Dish], dict[str, ReadDish], dict[str, Plate], Prices]:
    """Every dish, as read and as costed, by its name in small letters."""
    return _read_rows(kitchen, list_dishes(kitchen))


def read_some(kitchen: Kitchen, names: Iterable[str]) -> tuple[dict[str, ReadDish], dict[str, Plate], Prices]:
    """As ``read_all``, of ``names`` and the dishes they are made of alone."""
    every = {same_name(row.name): row for row in list_dishes(kitchen)}
    waiting = [same_name(name) for name in names]
    wanted: dict[str, Dish] = {}
    while waiting:
        name = waiting.pop()
        if name in every and name not in wanted:
            wanted[name] = every[name]
            parts = every[name].input["parts"]
            waiting += [same_name(part["name"]) for part in parts if part["sort"] == "dish"]
    _, read, plates, prices = _read_rows(kitchen, list(wanted.values()))
    return read, plates, prices


def _read_rows(
    kitchen: Kitchen, rows: list[Dish]
) -> tuple[list[Dish], dict[str, ReadDish], dict[str, Plate], Prices]:
    inputs = [schemas.DishIn.model_validate(row.input) for row in rows]
    prices = gather_prices(kitchen, inputs)
    read = {
        same_name(row.name): read_dish(kitchen, data, prices) for row, data in zip(rows, inputs, strict=True)
    }
    return rows, read, cost_dishes(list(read.values())), prices


def read_dishes(kitchen: Kitchen) -> schemas.DishesOut:
    """Every dish, and what parts can be chosen from."""
    rows, read, plates, _prices = read_all(kitchen)
    aims = find_aims(kitchen)
    sold = _count_plates(kitchen)
    products = (
        PackNow.objects.filter(kitchen=kitchen).order_by("-pack_id").values_list("pack__product", flat=True)
    )
    priced = PriceItem.objects.filter(kitchen=kitchen).exclude(sort__in=["meat", "shop_pack"])
    return schemas.DishesOut(
        dishes=[_show(row, read[same_name(row.name)], plates, aims, sold) for row in rows],
        aims=_show_aims(aims),
        products=list(dict.fromkeys(products[: 4 * OFFERED]))[:OFFERED],
        priced=list(priced.order_by("name").values_list("name", flat=True)[:OFFERED]),
    )


def _count_plates(kitchen: Kitchen) -> dict[str, int]:
    since = timezone.now() - timedelta(days=MONTH_DAYS)
    rows = Plating.objects.filter(kitchen=kitchen, at__gt=since, canceled__isnull=True).values("name")
    return {row["name"]: row["plates"] for row in rows.annotate(plates=Sum("plates"))}


def _show_aims(aims: DishAims | None) -> schemas.AimsOut | None:
    if aims is None:
        return None
    return schemas.AimsOut(
        low=print_percent(Fraction(aims.low)),
        high=print_percent(Fraction(aims.high)),
        threshold=print_percent(Fraction(aims.threshold)),
    )


def _show(
    row: Dish, read: ReadDish, plates: Mapping[str, Plate], aims: DishAims | None, sold: Mapping[str, int]
) -> schemas.DishOut:
    plate = plates.get(same_name(row.name))
    cost = None if plate is None else plate.cost
    menu = _show_menu(read.menu, cost)
    then = None if row.cost_then is None else Fraction(row.cost_then)
    moved = None
    if cost is not None and then and aims is not None:
        change = cost / then - 1
        moved = print_percent(change) if abs(change) > Fraction(aims.threshold) else None
    parts = () if plate is None else plate.parts
    return schemas.DishOut(
        name=row.name,
        version=row.version,
        cost=print_money_or_none(cost),
        price=None if menu is None else menu.price,
        food_cost=None if menu is None else menu.food_cost,
        leaves=None if menu is None else menu.leaves,
        plates=sold.get(row.name, 0),
        moved=moved,
        cost_then=print_money_or_none(then),
        missing=[one.part.name for one, part in zip(read.parts, parts, strict=False) if part is None],
    )


def _show_menu(menu: Menu | None, cost: Fraction | None) -> schemas.MenuOut | None:
    if menu is None:
        return None
    food = None if cost is None else menu.food_cost(cost)
    return schemas.MenuOut(
        price=print_money(menu.price),
        net=print_money(menu.net),
        food_cost=None if food is None else print_percent(food),
        leaves=None if cost is None else print_money(menu.leaves(cost)),
    )


def _show_parts(read: ReadDish, plate: Plate | None) -> list[schemas.PlatePartOut]:
    parts = (None,) * len(read.parts) if plate is None else plate.parts
    return [
        schemas.PlatePartOut(
            sort=data.sort,
            name=one.part.name,
            amount=one.text,
            cost=cost,
            basis=one.basis,
            is_raw=one.is_raw,
        )
        for data, one, cost in zip(read.data.parts, read.parts, print_parts(parts), strict=False)
    ]


def _charge(cost: Fraction | None, menu: Menu | None, aims: DishAims | None) -> list[str]:
    """The menu prices at the upper and the lower end of the aim."""
    if cost is None or aims is None or not cost:
        return []
    tax = Fraction(0) if menu is None else menu.tax
    return [print_money(price_for(cost, Fraction(aim), tax=tax)) for aim in (aims.high, aims.low)]


def preview_dish(kitchen: Kitchen, data: schemas.DishIn) -> schemas.DishPreview:
    """What a dish as typed would cost; nothing is written."""
    read, plate, faults = draft_dish(kitchen, data)
    cost = None if plate is None else plate.cost
    return schemas.DishPreview(
        cost=print_money_or_none(cost),
        parts=_show_parts(read, plate),
        menu=_show_menu(read.menu, cost),
        charge=_charge(cost, read.menu, find_aims(kitchen)),
        problems=faults,
    )


def draft_dish(kitchen: Kitchen, data: schemas.DishIn) -> tuple[ReadDish, Plate | None, list[FieldProblem]]:
    """A dish as typed among the others: as read, as costed, and its faults."""
    rows = [row for row in list_dishes(kitchen) if same_name(row.name) != same_name(data.name)]
    inputs = [schemas.DishIn.model_validate(row.input) for row in rows]
    prices = gather_prices(kitchen, [*inputs, data])
    read = read_dish(kitchen, data, prices)
    others = [read_dish(kitchen, one, prices) for one in inputs]
    faults = list(read.reader.problems)
    own = same_name(data.name)
    recipes = {same_name(one.name): one.recipe for one in (*others, read)}
    for index, part in enumerate(data.parts):
        if part.sort != "dish" or not part.name:
            continue
        path = f"parts[{index}].name"
        if own in list_within(same_name(part.name), recipes):
            faults.append(_fault(path, "contains_itself", f"“{data.name}” would contain itself."))
        elif same_name(part.name) not in recipes:
            faults.append(_fault(path, "unknown", f"There is no dish “{part.name}”."))
    if faults or len(read.parts) < len(data.parts):
        return read, None, faults
    return read, cost_dishes([read, *others]).get(same_name(data.name)), faults


def _fault(path: str, code: str, message: str) -> FieldProblem:
    return FieldProblem(path=path, code=code, message=message)


def read_dish_page(kitchen: Kitchen, name: str) -> schemas.DishPage:
    """One dish whole.

    Raises:
        DomainError: not_found.
    """
    dish = get_dish(kitchen, name)
    _rows, every, plates, prices = read_all(kitchen)
    read = every[same_name(dish.name)]
    plate = plates.get(same_name(dish.name))
    cost = None if plate is None else plate.cost
    aims = find_aims(kitchen)
    sold = _count_plates(kitchen)
    enough, until = find_how_long(kitchen, read, every)
    income, left = _month(kitchen, dish, cost)
    return schemas.DishPage(
        dish=_show(dish, read, plates, aims, sold),
        input=read.data,
        parts=_show_parts(read, plate),
        bars=_list_bars(kitchen, read, plate),
        menu=_show_menu(read.menu, cost),
        aims=_show_aims(aims),
        charge=_charge(cost, read.menu, aims),
        curve=_draw_curve(cost, read.menu),
        next=list_next(kitchen, read, plate, prices),
        past=list_past(kitchen, read, every),
        enough=enough,
        until=until,
        month_plates=sold.get(dish.name, 0),
        month_income=print_money(income),
        month_left=print_money_or_none(left),
        versions=_list_versions(kitchen, dish),
        served=_list_served(kitchen, dish),
    )


def _draw_curve(cost: Fraction | None, menu: Menu | None) -> list[schemas.ChargePoint]:
    if not cost:
        return []
    tax = Fraction(0) if menu is None else menu.tax
    points = []
    for factor in CURVE:
        at = Menu(price=cost * factor * (1 + tax), tax=tax)
        food = at.food_cost(cost)
        if food is not None:
            points.append(schemas.ChargePoint(price=print_money(at.price), food_cost=print_percent(food)))
    return points


def _list_bars(kitchen: Kitchen, read: ReadDish, plate: Plate | None) -> list[schemas.BarOut]:
    """The plate with the house's meat, and with each shop kind in its place."""
    own = (None,) * len(read.parts) if plate is None else plate.parts
    bars = [_show_bar("our own", list(own), read.menu)]
    if not any(part.sort == "larder" for part in read.data.parts):
        return bars
    for shop in list_priced(kitchen, "shop_pack"):
        parts = [
            _shop_cost(shop, one, read) if data.sort == "larder" else cost
            for data, one, cost in zip(read.data.parts, read.parts, own, strict=False)
        ]
        bars.append(_show_bar(shop.item.name, parts, read.menu))
    # the shop's dearest last; what has no price after them
    return [bars[0], *sorted(bars[1:], key=lambda bar: (bar.cost is None, Fraction(bar.cost or 0)))]


def _shop_cost(shop: Priced, part: ReadPart, read: ReadDish) -> Fraction | None:
    """What the meat of ``part`` costs from a shop pack: by its slices where both are counted, else by weight;
    of a cooked weight by how the shop's own fries. None where that cannot be had.
    """
    latest = shop.latest
    if latest.grams is None:
        return None
    per_gram = Fraction(latest.paid) / Fraction(latest.grams)
    amount = part.part.amount / part.part.yield_ratio / read.plates
    if part.slices is not None:
        return None if not latest.slices else amount * Fraction(latest.paid) / latest.slices
    if not part.is_cooked:
        return amount * per_gram
    fry = mean_fry(shop)
    return None if fry is None else amount / fry * per_gram


def mean_fry(shop: Priced) -> Fraction | None:
    """Cooked ÷ raw of a shop pack, the mean of all times it was fried."""
    tests = list(shop.fryings)
    return sum(tests, Fraction(0)) / len(tests) if tests else None


def _show_bar(name: str, parts: Sequence[Fraction | None], menu: Menu | None) -> schemas.BarOut:
    known = [part for part in parts if part is not None]
    cost = sum(known, Fraction(0)) if known and len(known) == len(parts) else None
    leaves = None if cost is None or menu is None else menu.leaves(cost)
    return schemas.BarOut(
        name=name,
        parts=print_parts(parts),
        cost=print_money_or_none(cost),
        leaves=print_money_or_none(leaves),
    )


def _month(kitchen: Kitchen, dish: Dish, cost: Fraction | None) -> tuple[Fraction, Fraction | None]:
    """What plates of the last 30 days brought in, and what they left after food, as a plate costs now."""
    since = timezone.now() - timedelta(days=MONTH_DAYS)
    mine = Plating.objects.filter(kitchen=kitchen, name=dish.name, at__gt=since, canceled__isnull=True)
    sums = mine.aggregate(plates=Sum("plates"), income=Sum("income"))
    income = Fraction(sums["income"] or 0)
    return income, None if cost is None else income - cost * (sums["plates"] or 0)


def _list_versions(kitchen: Kitchen, dish: Dish) -> list[schemas.VersionOut]:
    rows = Dish.objects.filter(kitchen=kitchen, name=dish.name).select_related("recorded_by")
    return [
        schemas.VersionOut(
            version=row.version,
            on=timezone.localdate(row.recorded_at),
            by=row.recorded_by.called,
            cost=None if row.cost_then is None else print_money(Fraction(row.cost_then)),
            price=_price_of(row),
        )
        for row in rows.order_by("-version")[:20]
    ]


def _list_served(kitchen: Kitchen, dish: Dish) -> list[schemas.PlatesOut]:
    rows = Plating.objects.filter(kitchen=kitchen, name=dish.name).select_related("recorded_by", "canceled")
    shown = []
    for row in rows.order_by("-at", "-id")[:SERVED_SHOWN]:
        canceled = getattr(row, "canceled", None)
        shown.append(
            schemas.PlatesOut(
                id=row.pk,
                at=row.at,
                by=row.recorded_by.called,
                plates=row.plates,
                income=None if row.income is None else print_money(Fraction(row.income)),
                canceled=None if canceled is None else canceled.reason,
            )
        )
    return shown


def _price_of(row: Dish) -> str | None:
    typed = row.input.get("price", "")
    money = Reader.of(row.kitchen).money("price", typed) if typed else None
    return None if money is None else print_money(Fraction(money))
