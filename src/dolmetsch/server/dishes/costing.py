"""What plates cost: every dish read into the core, at the prices of the larder and of the price list."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal
from fractions import Fraction
from typing import Final

from django.db.models import Max
from django.utils import timezone

from dolmetsch.core.dishes.plate import DishError, Menu, Part, Plate, Recipe, cost_plates
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.models import Entry, FryLine
from dolmetsch.server.dishes.models import Dish
from dolmetsch.server.dishes.schemas import DishIn, DishPartIn
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.here import find_usable
from dolmetsch.server.larder.models import PackNow
from dolmetsch.server.prices.queries import find_used
from dolmetsch.server.quantities.reader import MAX_SLICES, Reader
from dolmetsch.server.writing.kept import latest_by_name

PLATES_MOST: Final = Fraction(10_000)
#: What a slice, a plate, a piece of something is called.
EACH: Final = "each"


@dataclass(frozen=True, slots=True, kw_only=True)
class Meat:
    """A product of the larder: the pack that leaves next, else the last that was made of it.

    ``fry``: cooked ÷ raw weight of its batch; None where it was not tried.
    """

    now: PackNow
    is_here: bool
    fry: Fraction | None

    @property
    def per_gram(self) -> Fraction:
        """Its cost by weight, as it was weighed last."""
        as_made = Fraction(self.now.cost) / Fraction(self.now.pack.grams)
        left = Fraction(self.now.left_grams)
        return as_made * Fraction(self.now.book_grams) / left if left else as_made

    @property
    def per_slice(self) -> Fraction | None:
        """Its cost of a slice; None where they were not counted."""
        slices = self.now.pack.slices
        return None if slices is None else Fraction(self.now.cost) / slices

    @property
    def slice_grams(self) -> Fraction | None:
        """What a slice weighs."""
        slices = self.now.pack.slices
        return None if slices is None else Fraction(self.now.pack.grams) / slices


@dataclass(frozen=True, slots=True, kw_only=True)
class Prices:
    """What parts may cost: meat by product, lines of the price list by name, all in small letters."""

    meats: Mapping[str, Meat]
    lines: Mapping[str, Price]


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadPart:
    """A part as read: for a plate of meat so many ``slices`` or ``grams`` raw, its yield counted in.

    ``is_raw``: it is meat that has to be cooked before it is eaten.
    """

    part: Part
    text: str
    basis: str
    slices: Fraction | None = None
    grams: Fraction | None = None
    is_cooked: bool = False
    is_raw: bool = False


@dataclass(slots=True, kw_only=True)
class ReadDish:
    """A dish as read, the faults with it."""

    name: str
    data: DishIn
    parts: list[ReadPart]
    plates: Fraction
    menu: Menu | None
    reader: Reader = field(repr=False)

    @property
    def recipe(self) -> Recipe:
        """The dish as the core costs it."""
        return Recipe(parts=[one.part for one in self.parts], plates=self.plates)


def list_dishes(kitchen: Kitchen) -> list[Dish]:
    """The latest version of each dish that is not put away, by name."""
    latest = Dish.objects.filter(kitchen=kitchen).values("name").annotate(last=Max("id")).values("last")
    rows = Dish.objects.filter(pk__in=latest).order_by("id")
    return sorted(latest_by_name(rows), key=lambda dish: dish.name.casefold())


def gather_prices(kitchen: Kitchen, dishes: Iterable[DishIn]) -> Prices:
    """The prices of everything ``dishes`` are made of."""
    parts = [part for dish in dishes for part in dish.parts]
    lines = find_used(kitchen, {part.name for part in parts if part.sort == "price"})
    return Prices(
        meats=find_meats(kitchen, {same_name(part.name) for part in parts if part.sort == "larder"}),
        lines={name: priced.price for name, priced in lines.items()},
    )


def find_meats(kitchen: Kitchen, products: set[str]) -> dict[str, Meat]:
    """The pack of each of ``products`` that leaves next; of what is not here, the last that was made."""
    if not products:
        return {}
    mine = PackNow.objects.filter(kitchen=kitchen, owner="").exclude(pack__product="")
    usable = find_usable(kitchen, timezone.localdate()).exclude(pack__product="")
    oldest = usable.order_by("pack__packed_at", "pack_id")
    here = _first_of_each(oldest.values_list("pack_id", "pack__product"), products)
    missing = products - here.keys()
    latest = mine.order_by("-pack__packed_at", "-pack_id").values_list("pack_id", "pack__product")
    gone = _first_of_each(latest, missing) if missing else {}
    rows = PackNow.objects.select_related("pack__batch")
    by_pack = rows.in_bulk([*here.values(), *gone.values()])
    fries = _fries({now.pack.batch_id for now in by_pack.values()})
    return {
        name: Meat(now=by_pack[pack], is_here=name in here, fry=fries.get(by_pack[pack].pack.batch_id))
        for name, pack in {**gone, **here}.items()
    }


def _first_of_each(rows: Iterable[tuple[int, str]], products: set[str]) -> dict[str, int]:
    """The first pack of each of ``products`` among ``rows`` (pack and product), by its name."""
    found: dict[str, int] = {}
    for pack, product in rows:
        name = same_name(product)
        if name in products:
            found.setdefault(name, pack)
    return found


def _fries(batches: set[int]) -> dict[int, Fraction]:
    """Cooked ÷ raw of each batch whose slices were fried, the mean of all times."""
    found: dict[int, list[Fraction]] = {}
    rows = FryLine.objects.filter(entry__in=Entry.current.filter(batch__in=batches))
    for batch, ratio in rows.values_list("entry__batch", "ratio"):
        found.setdefault(batch, []).append(Fraction(ratio))
    return {batch: sum(ratios, Fraction(0)) / len(ratios) for batch, ratios in found.items()}


def read_dish(kitchen: Kitchen, data: DishIn, prices: Prices) -> ReadDish:
    """A dish as typed, read part by part; what cannot be read is a fault of its reader."""
    reader = Reader.of(kitchen)
    plates = reader.number("plates", data.plates, what="number of plates", limit=PLATES_MOST, places=2)
    if plates is not None and plates <= 0:
        reader.refuse("plates", "zero", "A recipe makes at least part of a plate.")
    parts = [_read_part(reader, part, f"parts[{index}]", prices) for index, part in enumerate(data.parts)]
    return ReadDish(
        name=data.name,
        data=data,
        parts=[part for part in parts if part is not None],
        plates=Fraction(plates) if plates else Fraction(1),
        menu=_read_menu(reader, data),
        reader=reader,
    )


def _read_menu(reader: Reader, data: DishIn) -> Menu | None:
    tax = reader.percent("tax", data.tax, what="tax", most=100)
    price = reader.money("price", data.price) if data.price else None
    if price is None:
        return None
    return Menu(
        price=Fraction(price), tax=Fraction(tax) if tax is not None and data.is_tax_in else Fraction(0)
    )


def _read_part(reader: Reader, data: DishPartIn, path: str, prices: Prices) -> ReadPart | None:
    if not reader.need(f"{path}.name", data.name, "Give the part a name."):
        return None
    kept = reader.percent(f"{path}.kept", data.kept, what="yield")
    if kept is not None and kept <= 0:
        reader.refuse(f"{path}.kept", "zero", "A yield is more than 0 and at most 100 %.")
        return None
    ratio = Fraction(1) if kept is None else Fraction(kept)
    match data.sort:
        case "larder":
            meat = prices.meats.get(same_name(data.name))
            read = _read_meat(reader, data, path, meat, ratio)
            return None if read is None else replace(read, is_raw=meat is not None and meat.now.is_raw)
        case "price":
            return _read_line(reader, data, path, prices, ratio)
        case "dish":
            amount = _read_count(reader, data, path, default="1")
            if amount is None:
                return None
            part = Part(name=data.name, amount=amount, yield_ratio=ratio, dish=same_name(data.name))
            return ReadPart(part=part, text=f"{data.amount or '1'} of it", basis="its own parts")
    cost = reader.money(f"{path}.cost", data.cost)
    if cost is None:
        return None
    part = Part(name=data.name, amount=Fraction(1), unit_cost=Fraction(cost), yield_ratio=ratio)
    return ReadPart(part=part, text=data.amount, basis="as typed")


def _read_count(reader: Reader, data: DishPartIn, path: str, *, default: str = "") -> Fraction | None:
    typed = data.amount or default
    bare = typed.casefold().removesuffix("slices").removesuffix("slice").removesuffix(EACH).strip()
    if not bare:
        reader.refuse(f"{path}.amount", "missing", "How much of it?")
        return None
    value = reader.number(f"{path}.amount", bare, what="amount", limit=MAX_SLICES, places=4)
    if value is not None and value <= 0:
        reader.refuse(f"{path}.amount", "zero", "How much of it?")
        return None
    return None if value is None else Fraction(value)


def is_count(typed: str) -> bool:
    """Whether an amount is a count: "3", "3 slices", "2 each"."""
    bare = typed.casefold().removesuffix("slices").removesuffix("slice").removesuffix(EACH).strip()
    return bare.replace(".", "", 1).isdigit()


def _read_meat(
    reader: Reader, data: DishPartIn, path: str, meat: Meat | None, ratio: Fraction
) -> ReadPart | None:
    basis = "not made yet" if meat is None else f"{meat.now.pack.label}"
    if is_count(data.amount):
        slices = _read_count(reader, data, path)
        if slices is None:
            return None
        unit = None if meat is None else meat.per_slice
        part = Part(name=data.name, amount=slices, unit_cost=unit, yield_ratio=ratio)
        grams = None if meat is None or meat.slice_grams is None else meat.slice_grams * slices / ratio
        return ReadPart(
            part=part,
            text=f"{data.amount.split()[0]} slices",
            basis=basis,
            slices=slices / ratio,
            grams=grams,
        )
    weight = reader.weight(f"{path}.amount", data.amount, bare=False)
    if weight is None:
        return None
    grams, text = Fraction(weight), data.amount
    if data.is_cooked:
        text = f"{data.amount} cooked"
        fry = None if meat is None else meat.fry
        if fry is None:
            return ReadPart(
                part=Part(name=data.name, amount=grams, yield_ratio=ratio),
                text=text,
                basis="fry a slice first",
                is_cooked=True,
            )
        part = Part(
            name=data.name,
            amount=grams,
            unit_cost=None if meat is None else meat.per_gram / fry,
            yield_ratio=ratio,
        )
        return ReadPart(part=part, text=text, basis=basis, grams=grams / fry / ratio, is_cooked=True)
    unit = None if meat is None else meat.per_gram
    part = Part(name=data.name, amount=grams, unit_cost=unit, yield_ratio=ratio)
    return ReadPart(part=part, text=text, basis=basis, grams=grams / ratio)


def _read_line(
    reader: Reader, data: DishPartIn, path: str, prices: Prices, ratio: Fraction
) -> ReadPart | None:
    price = prices.lines.get(same_name(data.name))
    by_count = is_count(data.amount)
    amount: Fraction | Decimal | None
    if by_count:
        amount = _read_count(reader, data, path)
    else:
        amount = reader.weight(f"{path}.amount", data.amount, bare=False)
    if amount is None:
        return None
    unit = None
    basis = "no price yet"
    if price is not None and by_count == (price.grams is None):
        unit, basis = price.paid / price.size, "the price list"
    elif price is not None:
        basis = "priced each, not by weight" if price.grams is None else "priced by weight, not each"
    part = Part(name=data.name, amount=Fraction(amount), unit_cost=unit, yield_ratio=ratio)
    return ReadPart(part=part, text=data.amount, basis=basis)


def cost_dishes(dishes: Sequence[ReadDish]) -> dict[str, Plate]:
    """What a plate of each costs, by its name in small letters; a dish that cannot be costed is left out."""
    recipes = {same_name(dish.name): dish.recipe for dish in dishes}
    costed: dict[str, Plate] = {}
    for name in recipes:
        if name in costed:
            continue
        try:
            costed |= cost_plates(list_within(name, recipes))
        except DishError:
            continue
    return costed


def list_within(name: str, recipes: Mapping[str, Recipe]) -> dict[str, Recipe]:
    """The dish ``name`` first, and those that are parts of it, all the way down; of those that are there."""
    wanted, found = [name], dict[str, Recipe]()
    while wanted:
        one = wanted.pop()
        if one in found or one not in recipes:
            continue
        found[one] = recipes[one]
        wanted += [part.dish for part in recipes[one].parts if part.dish is not None]
    return found


@dataclass(slots=True, kw_only=True)
class Need:
    """What plates take of a product of the larder: so many slices where they are counted, else a weight.

    ``grams`` None: not known, for the product was never made.
    """

    product: str
    slices: Fraction | None
    grams: Fraction | None


def list_needs(dish: ReadDish, dishes: Mapping[str, ReadDish], plates: Fraction) -> list[Need]:
    """What ``plates`` of a dish take, those of the dishes in it counted in."""
    found: list[Need] = []
    for data, part in zip(dish.data.parts, dish.parts, strict=False):
        share = plates / dish.plates
        if data.sort == "dish" and same_name(data.name) in dishes:
            inner = part.part.amount / part.part.yield_ratio * share
            found += list_needs(dishes[same_name(data.name)], dishes, inner)
        elif data.sort == "larder":
            found.append(
                Need(
                    product=data.name,
                    slices=None if part.slices is None else part.slices * share,
                    grams=None if part.grams is None else part.grams * share,
                )
            )
    return found


def cost_needs(needs: Iterable[Need], prices: Prices) -> Fraction:
    """What the meat of ``needs`` costs."""
    whole = Fraction(0)
    for need in needs:
        meat = prices.meats.get(same_name(need.product))
        if meat is None:
            continue
        if need.slices is not None and meat.per_slice is not None:
            whole += need.slices * meat.per_slice
        elif need.grams is not None:
            whole += need.grams * meat.per_gram
    return whole
