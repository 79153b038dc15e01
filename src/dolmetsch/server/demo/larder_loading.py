"""Loading the larder's part of the demo, through the same actions as anyone's."""

from datetime import datetime, timedelta
from typing import Final

from django.utils import timezone

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.demo import larder
from dolmetsch.server.demo.keys import write_demo
from dolmetsch.server.dishes.actions import note_stock, save_dish, serve_plates, set_aims
from dolmetsch.server.dishes.schemas import AimsIn, DishIn, PlatesIn, StockIn
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.larder.actions import move_pack, take_from
from dolmetsch.server.larder.packing import pack_batch
from dolmetsch.server.larder.schemas import MoveIn, PackingIn, TakingIn
from dolmetsch.server.meals.actions import put_on_list, save_meal
from dolmetsch.server.meals.schemas import MealIn
from dolmetsch.server.prices.actions import note_price
from dolmetsch.server.prices.schemas import QuoteIn

SATURDAY: Final = 5


def load_larder(kitchen: Kitchen, cooks: dict[str, User], now: datetime) -> None:
    """Packs in the freezer and the fridge, what was eaten, sold and plated of them, dishes, the cupboard."""
    maren = cooks["maren"]
    codes = {batch.name: batch for batch in Batch.objects.filter(kitchen=kitchen)}
    for days, name, packs in larder.PACKINGS:
        at = _at(now, days, 11)
        batch = codes[name]
        lines = [
            {
                "piece": piece,
                "product": product,
                "form": form,
                "weight": weight,
                "slices": slices,
                "store": store,
            }
            for count, piece, product, form, weight, slices, store in packs
            for _ in range(count)
        ]
        data = PackingIn.model_validate({"packs": lines, "seen": batch.last_sequence, "happened_at": at})
        pack_batch(write_demo(kitchen, maren, ["packs", name], at), batch.code, data)
    for days, name, mark, store in larder.MOVES:
        at = _at(now, days, 7)
        move = MoveIn(sort="placed" if store else "opened", store=store, at=at)
        move_pack(write_demo(kitchen, maren, ["move", name, mark, store], at), codes[name].code, mark, move)
    for days, hour, cook, name, mark, content in larder.TAKINGS:
        at = _at(now, days, hour)
        taking = TakingIn.model_validate({**content, "at": at})
        write = write_demo(kitchen, cooks[cook], ["take", days, name, mark, content], at)
        take_from(write, codes[name].code, mark, taking)
    _load_dishes(kitchen, maren, now)
    for days, what, sort, amount in larder.STOCK:
        at = _at(now, days, 9)
        stock = StockIn.model_validate({"what": what, "sort": sort, "amount": amount, "at": at})
        note_stock(write_demo(kitchen, maren, ["stock", days, what, amount], at), stock)
    _load_plan(kitchen, maren, now)


def _load_plan(kitchen: Kitchen, cook: User, now: datetime) -> None:
    ahead = timezone.localdate(now) + timedelta(days=larder.PLAN_DAYS)
    day = ahead + timedelta(days=(SATURDAY - ahead.weekday()) % 7)
    data = MealIn.model_validate({**larder.PLAN, "day": day})
    save_meal(write_demo(kitchen, cook, ["plan"], now), data)
    put_on_list(write_demo(kitchen, cook, ["plan on the list"], now), data.name)


def _load_dishes(kitchen: Kitchen, cook: User, now: datetime) -> None:
    set_aims(write_demo(kitchen, cook, ["aims"], _at(now, 30, 10)), AimsIn.model_validate(larder.AIMS))
    early = [line for line in larder.PRICES if line[1] > 6]
    for late, lines in ((False, early), (True, [line for line in larder.PRICES if line not in early])):
        for name, days, price, size in lines:
            on = _at(now, days, 9)
            quote = {
                "sort": "ingredient",
                "name": name,
                "source": "Harbour market",
                "price": price,
                "size": size,
            }
            data = QuoteIn.model_validate({**quote, "on": on.date().isoformat()})
            note_price(write_demo(kitchen, cook, ["price", name, days], on), data)
        if not late:
            for dish in larder.DISHES:
                at = _at(now, 6, 15)
                save_dish(write_demo(kitchen, cook, ["dish", dish["name"]], at), DishIn.model_validate(dish))
    for days, hour, name, plates in larder.PLATES:
        at = _at(now, days, hour)
        served = PlatesIn(plates=str(plates), at=at)
        serve_plates(write_demo(kitchen, cook, ["plates", days, name], at), name, served)


def _at(now: datetime, days: int, hour: int) -> datetime:
    return (now - timedelta(days=days)).replace(hour=hour, minute=10, second=0, microsecond=0)
