"""What the batch API tells: figures printed in fixed notation, rounded once by the core."""

from datetime import datetime

from pydantic import BaseModel

from dolmetsch.server.batches.entries.typed import Content, PolicyIn
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, Money, MoneyText, ReadQuantity, UnitCost, Weight


class PeelOut(BaseModel):
    """What left the ribbon; ``gain`` where weight came on. ``carried``: money it took along."""

    material: str
    name: str
    weight: Weight
    gain: bool
    carried: Money | None


class ColumnOut(BaseModel):
    """A column of the strip. Percentages to one place, money to two."""

    kind: str
    label: str
    first_at: datetime
    last_at: datetime
    entries: list[int]
    pieces: list[str]
    weight_in: Weight
    weight_out: Weight
    kept_of_step: Fixed | None
    kept_of_bought: Fixed
    spent: Money
    worth_back: Money
    cost: UnitCost | None
    peels: list[PeelOut]
    came_together: bool = False


class KindOut(BaseModel):
    """A kind of step and its word."""

    kind: str
    label: str


class StripOut(BaseModel):
    """The strip: columns done, and usual ones to come."""

    columns: list[ColumnOut]
    to_come: list[KindOut]


class GroupOut(BaseModel):
    """A group of the final bill: money on the batch and on a pound of what is left."""

    group: str
    money: Money
    per_lb: Money | None


class HouseOut(BaseModel):
    """What the house's meat costs at its latest, named stage: so far, where the batch is not finished.

    ``fry_kept``: mean of its fryings in per cent, ``fry_spread`` their standard deviation, from two on.
    """

    stage: str
    is_sliced: bool
    is_finished: bool
    weight: Weight
    cost: Money
    unit_cost: UnitCost | None
    kept_of_bought: Fixed
    slices: int | None
    cost_per_slice: Money | None
    cost_per_cooked: UnitCost | None
    fry_kept: Fixed | None
    fry_spread: Fixed | None
    fry_tests: int
    portion: Money | None
    portion_label: str | None
    groups: list[GroupOut]


class ShopOut(BaseModel):
    """A shop's pack beside the house; saved below zero: the house is dearer.

    ``entry`` is where it was recorded. Of a batch that is not finished all of it is of the forecast:
    ``chance`` in per cent that the house is cheaper, ``saved_low`` and ``saved_high`` by its 80 % range; null
    once finished, and where there is no forecast. ``is_cheaper`` null: too close to call. ``break_even``: the
    price as purchased above which it stops paying.
    """

    entry: int
    name: str
    pack: MoneyText
    unit_cost: UnitCost
    cost_per_slice: Money | None
    portion: Money | None
    saved_per_lb: Money | None
    saved_per_kg: Money | None
    saved_per_portion: Money | None
    saved_on_batch: Money | None
    is_cheaper: bool | None
    chance: int | None = None
    saved_low: UnitCost | None = None
    saved_high: UnitCost | None = None
    cost_per_cooked: UnitCost | None
    break_even: UnitCost | None
    earned_per_hour: Money | None


class PieceOut(BaseModel):
    """A piece that lives: its last step, weight, price, and marks free for what comes of it."""

    mark: str
    label: str
    weight: Weight
    cost: UnitCost | None
    slices: int | None
    free_marks: list[str]


class ByProductOut(BaseModel):
    """Something cut off and kept."""

    mark: str
    name: str
    material: str
    weight: Weight
    carried: Money


class SourceOut(BaseModel):
    """A lot that is a piece of another batch: what it carries now, and carried on the day it was taken."""

    lot: str
    batch: str
    name: str
    piece: str
    weight: Weight
    carried: Money
    carried_then: Money
    has_changed: bool


class TakerOut(BaseModel):
    """A batch that took a piece of this one."""

    batch: str
    name: str
    piece: str


class LogOut(BaseModel):
    """An entry as the log tells it. ``content`` is what was typed, to be corrected from."""

    id: int
    sequence: int
    act: str
    label: str
    lines: list[str]
    happened_at: datetime
    recorded_at: datetime
    by: str
    corrects: int | None
    reason: str
    overruled_by: int | None
    content: Content


class BatchOut(BaseModel):
    """One batch, whole."""

    code: str
    name: str
    cut: str
    started_at: datetime
    seen: int
    is_finished: bool
    place: str
    strip: StripOut
    house: HouseOut
    shops: list[ShopOut]
    pieces: list[PieceOut]
    by_products: list[ByProductOut]
    loss_account: Money
    sources: list[SourceOut]
    policy: PolicyIn
    warnings: list[FindingOut]
    log: list[LogOut]


class RecordedOut(BaseModel):
    """The entry that was made (or had been, by the same key) and the batch as it is now."""

    entry: int
    batch: BatchOut


class BrieflyRecordedOut(BaseModel):
    """The entry that was made, or had been by the same key; the batch was not asked for."""

    entry: int


class PreviewOut(BaseModel):
    """What an entry would do, nothing written.

    ``readings``: each quantity as understood; ``problems``: what would refuse it; the rest, once it
    can be computed: the column it lands in, and the batch after it. ``asks``: what looks like a slip.
    """

    readings: list[ReadQuantity] = []
    problems: list[FieldProblem] = []
    asks: list[str] = []
    paid: Money | None = None
    bought_cost: UnitCost | None = None
    column: ColumnOut | None = None
    house: HouseOut | None = None
    shops: list[ShopOut] = []


class SummaryOut(BaseModel):
    """A batch in a list: where its ribbon has got to."""

    code: str
    name: str
    cut: str
    place: str
    is_finished: bool
    pieces: list[str]
    labels: list[str]
    kept: list[Fixed]
    stage: str
    last_at: datetime
    started_at: datetime
    next: KindOut | None
    weight: Weight
    cost: UnitCost | None
    shop_name: str | None
    saved_per_lb: Money | None
    saved_on_batch: Money | None = None


class UnderWayOut(BaseModel):
    """A batch under way by its forecast: its price so far, and what a finished pound will cost.

    ``low`` to ``high``: the 80 % range; ``chance`` in per cent that it beats ``shop_name``; null where no
    forecast can be made.
    """

    code: str
    name: str
    cut: str
    stage: str
    last_at: datetime
    so_far: UnitCost | None
    price: UnitCost | None
    low: UnitCost | None
    high: UnitCost | None
    shop_name: str | None
    chance: int | None


class VerdictsOut(BaseModel):
    """What finished batches came to against the shop, newest first, and what is under way by its forecast."""

    finished: list[SummaryOut]
    under_way: list[UnderWayOut]
    page: int
    pages: int
    more_under_way: int


class TodayOut(BaseModel):
    """Batches under way and lately finished, and how many pieces hang at each place."""

    under_way: list[SummaryOut]
    finished: list[SummaryOut]
    more_under_way: int
    hanging: dict[str, int]


class BatchesOut(BaseModel):
    """A page (from 1) of the batches found, latest entry first; ``total`` of all pages."""

    batches: list[SummaryOut]
    total: int
    page: int
    pages: int


class ImportedOut(BaseModel):
    """A batch that an import made, or would make."""

    code: str
    name: str
    cut: str
    entries: int
    house: HouseOut
    strip: StripOut
    warnings: list[FindingOut]


class ImportOut(BaseModel):
    """What an import made; ``written`` false for a dry run, which wrote nothing."""

    written: bool
    batches: list[ImportedOut]
