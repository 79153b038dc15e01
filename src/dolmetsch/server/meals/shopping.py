"""What to fetch for a plan: what the method uses and the dishes ask for, less what the cupboard has."""

from collections.abc import Iterable, Mapping
from fractions import Fraction

from dolmetsch.core.forecast.outlook import Outlook
from dolmetsch.core.forecast.way import Way
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.server.dishes.costing import ReadDish
from dolmetsch.server.dishes.cupboard import Amount, list_left
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals import schemas
from dolmetsch.server.quantities.printing import print_money


def list_shopping(
    kitchen: Kitchen,
    *,
    way: Way | None,
    grams: float,
    outlook: Outlook | None,
    dishes: Mapping[str, ReadDish],
    lines: Mapping[str, Price],
    plates: Mapping[str, Fraction],
) -> list[schemas.ShoppingOut]:
    """Things to fetch for a batch of so many raw ``grams`` and for the ``plates`` of ``dishes``, which has
    all dishes, at the prices ``lines``, by their names in small letters; the dearest first.
    """
    here = (
        list_left(kitchen, {use.what for step in way.steps for use in step.used}) if way is not None else {}
    )
    rows = [
        *(_list_used(kitchen, way, grams, outlook, here) if way is not None and outlook is not None else ()),
        *(row for name, count in plates.items() for row in _list_parts(kitchen, name, count, dishes, lines)),
    ]
    return [row for _, row in sorted(rows, key=lambda one: (-one[0], one[1].what.casefold()))]


def _list_used(
    kitchen: Kitchen, way: Way, grams: float, outlook: Outlook, here: Mapping[str, Amount]
) -> Iterable[tuple[Fraction, schemas.ShoppingOut]]:
    """What the steps use, each by what enters it; the same thing in several steps is one line."""
    entering = [grams, *(one.grams.middle for one in outlook.milestones)]
    needed: dict[str, Fraction] = {}
    uses = {}
    for step, weight in zip(way.steps, entering, strict=False):
        for use in step.used:
            amount = use.amount if use.per == "batch" else use.amount * Fraction(weight) / 1000
            needed[use.what] = needed.get(use.what, Fraction(0)) + amount
            uses[use.what] = use
    for what, amount in needed.items():
        price = uses[what].price
        is_weight = price.grams is not None
        have = here.get(what.casefold())
        left = have.size if have is not None and (have.grams is not None) == is_weight else Fraction(0)
        short = max(Fraction(0), amount - max(left, Fraction(0)))
        cost = price.cost_of(short)
        unit = kitchen.weight_unit
        yield (
            cost,
            schemas.ShoppingOut(
                what=what,
                needed=_amount(amount, is_weight=is_weight).say(unit),
                here=_amount(max(left, Fraction(0)), is_weight=is_weight).say(unit)
                if have
                else "not counted",
                buy=_amount(short, is_weight=is_weight).say(unit) if short else "",
                cost=print_money(cost) if short else None,
            ),
        )


def _amount(size: Fraction, *, is_weight: bool) -> Amount:
    return Amount(grams=size) if is_weight else Amount(count=size)


def _list_parts(
    kitchen: Kitchen,
    name: str,
    plates: Fraction,
    dishes: Mapping[str, ReadDish],
    lines: Mapping[str, Price],
) -> Iterable[tuple[Fraction, schemas.ShoppingOut]]:
    """Lines of the price list that so many plates ask for, those of the dishes in them too."""
    dish = dishes.get(name.casefold())
    if dish is None:
        return
    share = plates / dish.plates
    for data, part in zip(dish.data.parts, dish.parts, strict=False):
        used = part.part.amount / part.part.yield_ratio * share
        if data.sort == "dish":
            yield from _list_parts(kitchen, data.name, used, dishes, lines)
        elif data.sort == "price":
            cost = None if part.part.unit_cost is None else used * part.part.unit_cost
            line = lines.get(data.name.casefold())
            amount = _amount(used, is_weight=line is None or line.grams is not None)
            yield (
                cost or Fraction(0),
                schemas.ShoppingOut(
                    what=data.name,
                    needed="",
                    here="",
                    buy=amount.say(kitchen.weight_unit),
                    cost=None if cost is None else print_money(cost),
                ),
            )
