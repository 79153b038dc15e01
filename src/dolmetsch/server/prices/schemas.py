"""What the price list takes and tells."""

from datetime import date
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.server.quantities.schemas import Fixed, Money, MoneyText, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Name, Reason, Source, Typed, Word
from dolmetsch.server.tables.schemas import UploadedOut, UploadPreviewOut

SortKey = Literal["meat", "ingredient", "packaging", "fuel", "by_product", "shop_pack"]
Target = Literal["name", "price", "size", "unit", "day", "sort", "kind", "slices", "solution"]


class QuoteIn(Body):
    """A price to note. ``price`` as typed: "3.49/lb", "12.00 for 100 each", or bare, for all of ``size``.

    ``corrects``: the price that was wrong, with a ``reason``; ``withdraw``: it never was. ``is_sure``: it was
    asked about, being far off the usual one, and is right.
    """

    sort: SortKey
    name: Name
    kind: Word = ""
    source: Source
    on: date
    price: Typed
    size: Typed = ""
    slices: Typed = ""
    solution: Typed = ""
    corrects: int | None = None
    withdraw: bool = False
    reason: Reason = ""
    is_sure: bool = False


class FryTestIn(Body):
    """A frying: weight before and after."""

    raw: Typed
    cooked: Typed
    on: date


class SellerIn(Body):
    """A seller's name that stands for another one's; ``same_as`` empty: for itself again."""

    name: Source
    same_as: Source = ""


class PointOut(BaseModel):
    """A price in a history, in the unit of its item."""

    on: date
    each: Money


class PerUnit(BaseModel):
    """A price of one unit: by weight in both units, or each."""

    weight: UnitCost | None = None
    each: Money | None = None


class QuoteOut(BaseModel):
    """One dated price. ``overruled``: a later one corrects it or takes it back."""

    id: int
    source: str
    on: date
    typed: MoneyText
    per: PerUnit
    pack: Weight | None
    slices: int | None
    solution: Fixed | None
    by: str
    overruled: bool
    reason: str
    same_day: bool


class FryOut(BaseModel):
    """Fryings: so many, mean and spread (standard deviation, from two on) of what is left, in per cent."""

    tests: int
    mean: Fixed | None
    spread: Fixed | None


class ItemOut(BaseModel):
    """A line of the price list: latest, lowest, and usual (median of a year) price, and a short history."""

    id: int
    sort: SortKey
    name: str
    kind: str
    latest: PerUnit
    latest_typed: MoneyText
    latest_on: date
    source: str
    lowest: PerUnit
    lowest_on: date
    usual: PerUnit
    quotes: int
    history: list[PointOut]
    pack: Weight | None
    slices: int | None
    solution: Fixed | None
    fry: FryOut | None


class PricesOut(BaseModel):
    """A page of the price list, and how many lines there are of each sort."""

    items: list[ItemOut]
    total: int
    counts: dict[str, int]
    sources: list[str]


class FryTestOut(BaseModel):
    """One frying, its weights as typed."""

    on: date
    raw: str
    cooked: str
    kept: Fixed
    by: str


class ItemWholeOut(BaseModel):
    """One line with everything that was ever noted of it."""

    item: ItemOut
    quotes: list[QuoteOut]
    fryings: list[FryTestOut]


class NotedOut(BaseModel):
    """A price that was noted, its line (null: no price of it counts any more), and what to know about it."""

    quote: int
    item: ItemOut | None
    notes: list[str]


class MatchIn(Body):
    """How to read a list: which column (from 0) is what, and what stands for columns that are not there.

    ``per``: what a price alone is for. ``decimal`` empty: guessed. ``is_in_cents`` null: nobody said; it is
    asked where they look like it. ``on``: the day where no column tells it.
    """

    columns: dict[Target, Annotated[int, Field(ge=0, le=200)]]
    sort: SortKey = "meat"
    per: Literal["", "lb", "kg", "each"] = ""
    decimal: Literal["", ".", ","] = ""
    is_in_cents: bool | None = None
    day_first: bool = True
    on: date


class ReadRowOut(BaseModel):
    """A row as it was read."""

    row: int
    sort: SortKey
    name: str
    price: MoneyText
    per: PerUnit
    on: date
    is_known: bool


class FileOut(UploadedOut):
    """An uploaded list, with its match remembered or guessed."""

    source: str
    match: MatchIn


class FilePreviewOut(UploadPreviewOut):
    """What a list would write: also a few rows as read. ``notes``: two prices on one day, and the like.

    ``asks_cents``: the question whether the prices are in cents, to be answered before they are written.
    """

    sample: list[ReadRowOut]
    asks_cents: str
    decimal: Literal[".", ","]


class FileWriteIn(Body):
    """Write the rows from ``from_row`` on, as confirmed."""

    from_row: Annotated[int, Field(ge=0, le=10**7)]
    match: MatchIn
