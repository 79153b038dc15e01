"""What the books show and take."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.server.quantities.schemas import Fixed, Money, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Name, Reason, Typed, Word


class YieldDotOut(BaseModel):
    """A batch: what it kept in per cent, what a pound or kilogram cost then, and when."""

    code: str
    name: str
    at: datetime
    kept: Fixed
    price: UnitCost | None
    is_last: bool


class YieldSpreadOut(BaseModel):
    """Batches together, in per cent. ``low`` and ``high``: the band of eight in ten, from three batches on.

    ``deviation`` as found, ``scale`` what the scale alone makes of it, ``own`` what is left; in points.
    """

    batches: int
    middle: Fixed
    low: Fixed | None
    high: Fixed | None
    deviation: Fixed | None
    scale: Fixed
    own: Fixed | None
    price: UnitCost | None


class YieldPartOut(BaseModel):
    """Batches of one source, season, cook, thickness or temperature; empty ``label``: all of them."""

    label: str
    spread: YieldSpreadOut
    dots: list[YieldDotOut]


class SortOut(BaseModel):
    """Batches of one cut and way, or steps of one cut and method. ``unsaid``: batches whose part is unknown.

    ``forecast``: what forecasts of the step go by; None of whole batches.
    """

    key: str
    label: str
    cut: str
    way: str
    parts: list[YieldPartOut]
    unsaid: int
    forecast: str | None


class ChangeOut(BaseModel):
    """What a change goes with, in words, and on what that rests."""

    sort: str
    said: str
    basis: str
    is_more_than_chance: bool


class YieldBookOut(BaseModel):
    """Yields by cut and way or by step, and what changes go with; of each sort the latest batches."""

    sorts: list[SortOut]
    changes: list[ChangeOut]
    batches: int
    read_of_each: int


class UnusualOut(BaseModel):
    """A batch or a step beyond what is usual; ``differed``: what else was different then."""

    code: str
    name: str
    at: datetime
    said: str
    basis: str
    differed: list[str]


class UnusualBookOut(BaseModel):
    """What was out of the usual, the latest first; ``too_few``: sorts with too few batches to say."""

    unusual: list[UnusualOut]
    looked_at: int
    too_few: int


class SavedPointOut(BaseModel):
    """The sum saved up to a batch, or up to the last of ``batches`` batches."""

    at: datetime
    code: str
    batches: int
    saved: Money
    sum: Money
    sum_without_work: Money


class MonthOut(BaseModel):
    """A month: batches finished, and what they saved with and without work."""

    month: date
    batches: int
    saved: Money
    saved_without_work: Money
    weight: Weight
    per_weight: UnitCost | None


class YearSumOut(BaseModel):
    """A calendar year: batches finished, and what they saved."""

    year: int
    batches: int
    saved: Money


class FateSumOut(BaseModel):
    """What became of packs: weight, cost and income."""

    fate: str
    label: str
    weight: Weight
    cost: Money
    income: Money


class ToolOut(BaseModel):
    """A machine bought: what it cost, what was saved since, and when that had paid for it."""

    id: int
    name: str
    paid: Money
    bought_on: date
    saved_since: Money
    batches_since: int
    paid_on: date | None
    said: str


class MoneyYearOut(BaseModel):
    """A year beside one kind of the shop's; figures None where there is too little to say.

    ``beat`` and ``lost`` count batches that were cheaper and dearer than the shop; ``hours`` are those of the
    ``hours_batches`` batches whose minutes were recorded.
    """

    batches: int
    saved: Money
    saved_without_work: Money
    labor: Money
    weight: Weight
    per_weight: UnitCost | None
    per_month: Money | None
    hours: Fixed
    hours_batches: int
    earned_an_hour: Money | None
    beat: int
    lost: int
    too_little: str | None


class MoneyOut(BaseModel):
    """Money of one calendar year beside one kind of the shop's (None: there is none yet).

    ``sold_part``: of what people ate, the part that was sold or plated, in per cent of its cost.
    """

    year: int
    years: list[YearSumOut]
    kind: str | None
    kinds: list[str]
    sums: MoneyYearOut | None
    points: list[SavedPointOut]
    months: list[MonthOut]
    fates: list[FateSumOut]
    sold_part: Fixed | None
    thrown_weight: Weight
    thrown_cost: Money
    tools: list[ToolOut]


class ToolIn(Body):
    """A machine as bought: a slicer, a sealer, a smoker."""

    name: Word
    paid: Typed
    bought_on: date


class ToolGoneIn(Body):
    """A machine recorded by mistake: why it should not count."""

    reason: Reason


class PricePointOut(BaseModel):
    """A price seen on a day."""

    on: date
    price: UnitCost


class PriceLineOut(BaseModel):
    """The prices of one thing at one source, oldest first."""

    source: str
    points: list[PricePointOut]
    latest: UnitCost


class PriceBookItemOut(BaseModel):
    """A thing with its prices by source. ``change``: the latest against a year before, in per cent."""

    name: str
    sort: Literal["meat", "shop_pack"]
    kind: str
    lines: list[PriceLineOut]
    change: Fixed | None


class TodaysHouseOut(BaseModel):
    """A sort of batch at today's prices: the last batch's pound as it was, and with today's meat.

    ``shop`` is the shop's pack of its kind today, ``saved`` a pound or kilogram less the house's; None: no
    price.
    """

    code: str
    label: str
    then: UnitCost
    meat_item: str | None
    now: UnitCost | None
    shop_name: str | None
    shop: UnitCost | None
    saved: UnitCost | None


class SellerOut(BaseModel):
    """A seller's name as written, and the name they go by; how many prices and batches are from them."""

    name: str
    called: str
    prices: int
    batches: int


class PriceBookOut(BaseModel):
    """Prices over time, and where the house would be at today's."""

    items: list[PriceBookItemOut]
    house: list[TodaysHouseOut]
    sellers: list[SellerOut]


YearAsked = Annotated[int | None, Field(ge=2000, le=2199)]
KindAsked = Name


class ForecastKindOut(BaseModel):
    """How often one kind of forecast held, and how often it should have, in per cent; 95 % interval.

    ``early`` and ``late``: times that came before and after their range.
    """

    key: Literal["price", "enough", "ready", "dry"]
    label: str
    expected: Fixed
    count: int
    held: int
    held_part: Fixed | None
    low: Fixed | None
    high: Fixed | None
    early: int | None = None
    late: int | None = None


class ForecastKindsOut(BaseModel):
    """Every kind of forecast."""

    kinds: list[ForecastKindOut]
