"""What dishes and the store cupboard tell and take."""

from datetime import date
from typing import Annotated, Literal

from pydantic import AwareDatetime, BaseModel, Field

from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, Money, Weight
from dolmetsch.server.quantities.typed import Body, Name, Reason, Typed, TypedMoney, Word

PartSort = Literal["larder", "price", "own", "dish"]
MOST_PARTS = 40


class DishPartIn(Body):
    """A part of a dish: a product of the larder (so many slices, or a weight, raw unless ``is_cooked``), a
    line of the price list, own words with a cost, or plates of another dish. ``kept``: its yield, per cent.
    """

    sort: PartSort
    name: Name
    amount: Typed = ""
    is_cooked: bool = False
    kept: Typed = ""
    cost: TypedMoney = ""


class DishIn(Body):
    """A dish. Its parts are for ``plates``; ``tax`` in per cent, in the ``price`` or on top of it."""

    name: Name
    parts: Annotated[list[DishPartIn], Field(max_length=MOST_PARTS)]
    plates: Typed = ""
    price: TypedMoney = ""
    tax: Typed = ""
    is_tax_in: bool = False
    words: Annotated[str, Field(max_length=2000)] = ""
    put_away: bool = False


class PlatePartOut(BaseModel):
    """A part of a plate: how much is on it, and what it costs there; null without a price.

    ``is_raw``: meat that has to be cooked before it is eaten.
    """

    sort: PartSort
    name: str
    amount: str
    cost: Money | None
    basis: str
    is_raw: bool = False


class BarOut(BaseModel):
    """A plate of a kind of meat: the house's, or a shop kind in its place."""

    name: str
    parts: list[Fixed | None]
    cost: Money | None
    leaves: Money | None


class MenuOut(BaseModel):
    """What a plate brings in and leaves; food cost in per cent."""

    price: Money
    net: Money
    food_cost: Fixed | None
    leaves: Money | None


class ChargePoint(BaseModel):
    """Food cost in per cent at a menu price."""

    price: Money
    food_cost: Fixed


class AimsOut(BaseModel):
    """The kitchen's aims in per cent; null while none are set."""

    low: Fixed
    high: Fixed
    threshold: Fixed


class AimsIn(Body):
    """The kitchen's aims in per cent."""

    low: Typed
    high: Typed
    threshold: Typed


class NextOut(BaseModel):
    """A plate with meat made at today's prices: its range, 8 times out of 10. ``why`` none can be had."""

    name: str
    low: Money | None
    high: Money | None
    plate_low: Money | None
    plate_high: Money | None
    why: str | None


class PlatesOut(BaseModel):
    """Plates that were served."""

    id: int
    at: AwareDatetime
    by: str
    plates: int
    income: Money | None
    canceled: str | None


class VersionOut(BaseModel):
    """A version of a dish."""

    version: int
    on: date
    by: str
    cost: Money | None
    price: Money | None


class DishOut(BaseModel):
    """One dish in a list. ``moved``: per cent since it was saved or last looked at, beyond the threshold."""

    name: str
    version: int
    cost: Money | None
    price: Money | None
    food_cost: Fixed | None
    leaves: Money | None
    plates: int
    moved: Fixed | None
    cost_then: Money | None
    missing: list[str]


class PastPackOut(BaseModel):
    """A pack past its use-by date: it does not count, and leaves only knowingly."""

    code: str
    mark: str
    product: str
    left: Weight
    keep_until: date | None


class DishPage(BaseModel):
    """One dish whole."""

    dish: DishOut
    input: DishIn
    parts: list[PlatePartOut]
    bars: list[BarOut]
    menu: MenuOut | None
    aims: AimsOut | None
    charge: list[Fixed]
    curve: list[ChargePoint]
    next: list[NextOut]
    past: list[PastPackOut]
    enough: int | None
    until: date | None
    month_plates: int
    month_income: Money
    month_left: Fixed | None
    versions: list[VersionOut]
    served: list[PlatesOut]


class DishesOut(BaseModel):
    """Every dish, and what parts can be chosen from."""

    dishes: list[DishOut]
    aims: AimsOut | None
    products: list[str]
    priced: list[str]


class DishPreview(BaseModel):
    """What a dish as typed would cost; nothing is written."""

    cost: Money | None
    parts: list[PlatePartOut]
    menu: MenuOut | None
    charge: list[Fixed]
    problems: list[FieldProblem]


class PlatesIn(Body):
    """Plates served; ``price`` of one where it is not that of the menu.

    ``use_past``: what is past its use-by date is served too, knowingly, where nothing else is left.
    """

    plates: Typed
    price: TypedMoney = ""
    is_free: bool = False
    use_past: bool = False
    at: AwareDatetime | None = None


class CancelPlatesIn(Body):
    """Why plates were not served."""

    reason: Reason


class StockIn(Body):
    """Something bought for the store cupboard, or counted in it: by weight, or so many."""

    what: Name
    sort: Literal["bought", "counted"]
    amount: Typed
    at: AwareDatetime | None = None


class StockOut(BaseModel):
    """One thing of the store cupboard. ``left`` in words; null where it was never bought or counted.

    ``a_batch``: what a batch that uses it takes, ``batches`` how many more of those there is enough for.
    """

    what: Word
    left: str | None
    used: str
    a_batch: str | None
    batches: int | None
    is_low: bool
    noted_on: date | None
    note: str


class CupboardOut(BaseModel):
    """The store cupboard."""

    stock: list[StockOut]
