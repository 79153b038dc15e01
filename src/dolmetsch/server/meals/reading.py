"""A meal plan as typed, read: what is wanted by product, how it is made of which meat, the day."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from fractions import Fraction
from typing import Final

from django.utils import timezone

from dolmetsch.core.forecast.way import Way
from dolmetsch.core.meat.cuts import Cut, read_cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.planning.need import USUAL_CHANCE
from dolmetsch.server.dishes.costing import Meat, ReadDish, list_needs
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.inputs.known import Known
from dolmetsch.server.prices.queries import Priced
from dolmetsch.server.quantities.reader import Reader

MOST_PLATES: Final = Fraction(10_000)
MOST_HOURS: Final = Fraction(24)
MOST_RESERVE: Final = Fraction(14 * 24)
#: So far ahead a meal can be planned.
MOST_AHEAD: Final = timedelta(days=400)
#: A piece weighs so much where nobody says (ours): five pounds.
PIECE_GRAMS: Final = 5 * GRAMS_PER_LB


@dataclass(frozen=True, slots=True, kw_only=True)
class Want:
    """Grams of a product for ``plates`` of a dish; without a dish None."""

    product: str
    grams: Fraction
    dish: str | None = None
    plates: Fraction = Fraction(0)


@dataclass(slots=True, kw_only=True)
class ReadMake:
    """How something is made, as read: ``product`` empty: all that nothing else makes."""

    product: str
    way: Way | None = None
    cut: Cut | None = None
    cut_words: str = ""
    meat: Priced | None = None
    price: Fraction | None = None
    pack: Fraction | None = None
    piece: Fraction = PIECE_GRAMS
    places: int = 1
    loads: int = 1
    early: timedelta = timedelta()


@dataclass(slots=True, kw_only=True)
class ReadMeal:
    """A meal plan as read, its faults with it. What is None was not given, or could not be read."""

    known: Known
    data: schemas.MealIn
    reader: Reader
    meal_at: datetime
    wants: list[Want] = field(default_factory=list)
    dishes: dict[str, ReadDish] = field(default_factory=dict)
    plates: dict[str, Fraction] = field(default_factory=dict)
    makes: list[ReadMake] = field(default_factory=list)
    sure: float = USUAL_CHANCE
    reserve: timedelta = timedelta()
    minutes_a_day: int | None = None

    def make_of(self, product: str) -> int | None:
        """The position of what makes ``product`` among the makes; None where nothing does."""
        return find_make([one.product for one in self.makes], product)


def find_make(made: Sequence[str], product: str) -> int | None:
    """The position of what makes ``product`` among what is ``made`` (empty: all else); None: nothing does."""
    names, key = [same_name(one) for one in made], same_name(product)
    return names.index(key) if key in names else names.index("") if "" in names else None


def read_meal(known: Known, data: schemas.MealIn) -> ReadMeal:
    """``data`` read; what cannot be is a fault of its reader."""
    reader, now = Reader.of(known.kitchen), known.now
    hour, minute = (int(part) for part in data.at.split(":"))
    meal_at = timezone.make_aware(
        datetime(data.day.year, data.day.month, data.day.day, hour, minute)  # noqa: DTZ001 (made aware)
    )
    read = ReadMeal(known=known, data=data, reader=reader, meal_at=meal_at)
    if meal_at <= now:
        reader.refuse("day", "odd_time", "That day has gone by. Choose one to come.")
    elif meal_at > now + MOST_AHEAD:
        reader.refuse("day", "odd_time", "That is over a year away.")
    read.makes = [_read_make(read, f"makes[{index}]", one) for index, one in enumerate(data.makes)]
    _refuse_made_twice(read)
    _read_wants(read)
    read.sure = reader.chance("sure", data.sure)
    reserve = reader.number(
        "reserve_hours", data.reserve_hours, what="number of hours", limit=MOST_RESERVE, places=2
    )
    read.reserve = timedelta(hours=float(reserve or 0))
    hours = reader.number("hours_a_day", data.hours_a_day, what="number of hours", limit=MOST_HOURS, places=2)
    if hours is not None and hours <= 0:
        reader.refuse(
            "hours_a_day", "zero", "With no hands nothing is done; leave it empty to not count them."
        )
    elif hours is not None:
        read.minutes_a_day = round(hours * 60)
    return read


def _refuse_made_twice(read: ReadMeal) -> None:
    seen = set()
    for index, one in enumerate(read.makes):
        key = same_name(one.product)
        if key in seen:
            said = f"{one.product or 'All else'} is made above already: choose one way for it."
            read.reader.refuse(f"makes[{index}].product", "twice", said)
        seen.add(key)


def _read_make(read: ReadMeal, path: str, data: schemas.MakeIn) -> ReadMake:
    make, reader = ReadMake(product=data.product, places=data.places, loads=data.loads), read.reader
    make.early = timedelta(days=data.days_early)
    make.way = _read_way(read, path, data.way)
    if data.meat:
        make.meat = read.known.meats.get(data.meat)
        if make.meat is None:
            reader.refuse(f"{path}.meat", "unknown", f"There is no meat “{data.meat}” on the price list.")
        else:
            _take_price(make, make.meat.price)
    if data.price:
        price = reader.price_by_weight(f"{path}.price", data.price)
        if price is not None:
            _take_price(make, price)
    pack = reader.weight(f"{path}.pack", data.pack) if data.pack else None
    make.pack = Fraction(pack) if pack else make.pack
    cut = make.cut_words = data.cut or data.meat
    make.cut = read_cut(cut) if reader.need(f"{path}.cut", cut, "Say which cut is bought.") else None
    piece = reader.weight(f"{path}.piece", data.piece) if data.piece else None
    make.piece = Fraction(piece) if piece else make.pack or PIECE_GRAMS
    return make


def _read_way(read: ReadMeal, path: str, name: str) -> Way | None:
    if not name:
        read.reader.refuse(f"{path}.way", "missing", "Choose the method it is made by.")
        return None
    if name not in read.known.ways:
        read.reader.refuse(f"{path}.way", "unknown", f"There is no method “{name}” here.")
        return None
    way = read.known.ways[name]
    if way is None:
        read.reader.refuse(f"{path}.way", "unreadable", f"“{name}” cannot be read as it is; save it again.")
    return way


def _take_price(make: ReadMake, price: Price) -> None:
    if price.grams is None:
        return
    make.price = price.paid / price.grams
    make.pack = price.grams if price.is_pack else None


def _read_wants(read: ReadMeal) -> None:
    dishes, prices = read.known.dishes, read.known.prices
    for index, want in enumerate(read.data.wants):
        path = f"wants[{index}]"
        if not read.reader.need(f"{path}.name", want.name, "Say what is to be served."):
            continue
        if want.sort == "product":
            grams = read.reader.weight(f"{path}.amount", want.amount)
            if grams is not None:
                read.wants.append(Want(product=want.name, grams=Fraction(grams)))
            continue
        plates = read.reader.number(
            f"{path}.amount", want.amount or "0", what="number of plates", limit=MOST_PLATES, places=2
        )
        if plates is not None and plates <= 0:
            read.reader.refuse(f"{path}.amount", "zero", "How many plates? At least part of one.")
        dish = dishes.get(same_name(want.name))
        if dish is None:
            read.reader.refuse(f"{path}.name", "unknown", f"There is no dish “{want.name}”.")
        elif plates:
            read.dishes[dish.name] = dish
            read.plates[dish.name] = Fraction(plates)
            _add_needs(read, path, dish, dishes, Fraction(plates), prices.meats)


def _add_needs(
    read: ReadMeal,
    path: str,
    dish: ReadDish,
    dishes: Mapping[str, ReadDish],
    plates: Fraction,
    meats: Mapping[str, Meat],
) -> None:
    """What the plates of a dish take of each product, by weight."""
    for need in list_needs(dish, dishes, plates):
        meat = meats.get(same_name(need.product))
        grams = need.grams
        if grams is None and need.slices is not None:
            # what is made is counted as it is at the case: by its method; what is not, as it was packed
            made = read.make_of(need.product)
            way = None if made is None else read.makes[made].way
            each = None if way is None else way.slice_grams
            each = each or (None if meat is None else meat.slice_grams)
            grams = None if each is None else need.slices * each
        if grams is None:
            said = (
                f"What a slice of {need.product} weighs is not known: set it with the method, or pack some."
            )
            read.reader.refuse(f"{path}.name", "no_slice_weight", said)
            continue
        read.wants.append(Want(product=need.product, grams=grams, dish=dish.name, plates=plates))


def wants_of(known: Known, data: schemas.MealIn) -> dict[str, Fraction]:
    """Grams of each product, by its name in small letters, that a saved plan asks for, as far as it can be
    read.
    """
    read = ReadMeal(known=known, data=data, reader=Reader.of(known.kitchen), meal_at=known.now)
    _read_wants(read)
    wanted: dict[str, Fraction] = {}
    for want in read.wants:
        key = same_name(want.product)
        wanted[key] = wanted.get(key, Fraction(0)) + want.grams
    return wanted
