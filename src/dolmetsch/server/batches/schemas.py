"""What the batch API takes and tells.

Quantities go in as typed ("4 lb 6 oz") and come out printed: fixed notation, rounded once by the core.
"""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, StringConstraints

from dolmetsch.server.problems import FieldProblem

#: No control characters: a line is a line.
PRINTABLE = r"^[^\x00-\x1f\x7f]*$"


def _line(longest: int) -> StringConstraints:
    return StringConstraints(strip_whitespace=True, max_length=longest, pattern=PRINTABLE)


Typed = Annotated[str, _line(40)]
Word = Annotated[str, _line(40)]
Kind = Annotated[str, _line(60)]
ByName = Annotated[str, _line(40)]
Mark = Annotated[str, _line(60)]
Marks = Annotated[list[Mark], Field(max_length=60)]
Name = Annotated[str, _line(80)]
Reason = Annotated[str, _line(200)]
Fixed = Annotated[str, Field(pattern=r"^-?\d+(\.\d+)?$")]
Material = Literal["skin", "lean", "fat", "bone", "waste", "ends", "other"]


class Body(BaseModel):
    """A request body: unknown fields are refused, so that a slip of the pen is not lost."""

    model_config = ConfigDict(extra="forbid")


# --- in -----------------------------------------------------------------------------------------


class PieceIn(Body):
    """A piece that stays; an empty mark takes the next free one."""

    mark: Mark = ""
    weight: Typed
    slices: Typed = ""


class CutOffIn(Body):
    """Something that came off, with its worth: nothing, a price by weight, or as the meat.

    An empty mark is made of the name.
    """

    mark: Mark = ""
    name: ByName
    material: Material = "other"
    weight: Typed
    worth: Literal["nothing", "price", "as_main"] = "nothing"
    price: Typed = ""


class WeightIn(Body):
    """The new weight of a piece that goes on."""

    mark: Mark
    weight: Typed


class UsedIn(Body):
    """Something used. ``amount`` empty and a bare ``price``: the sum for all of it.

    ``group`` is a free word but for the ledger's own; ``pieces`` that bear it: none named, all.
    """

    what: Word
    group: Kind = "other"
    amount: Typed = ""
    price: Typed
    pieces: Marks = []


class StepIn(Body):
    """What every step may carry."""

    kind: Kind
    minutes: Typed = ""
    used: Annotated[list[UsedIn], Field(max_length=30)] = []
    overhead: Typed = ""
    scale: Typed = ""


class ExtraIn(Body):
    """A cost of buying: delivery, tax, the trip."""

    what: Word
    cost: Typed


class SourceIn(Body):
    """A piece of another batch, by that batch's code; all of it where no weight is given."""

    batch: Annotated[str, _line(12)]
    piece: Mark
    weight: Typed = ""


class BoughtIn(Body):
    """Meat as purchased: at least one weight; a price by weight or for the pack.

    With ``source`` it is a piece of another batch and brings its cost along: then weight and price may be
    left out. ``solution`` in per cent. An empty mark takes the next free one.
    """

    act: Literal["bought"] = "bought"
    mark: Mark = ""
    cut: Name
    label_weight: Typed = ""
    own_weight: Typed = ""
    price_basis: Literal["per_lb", "per_kg", "pack"] = "pack"
    price: Typed = ""
    extras: Annotated[list[ExtraIn], Field(max_length=12)] = []
    solution: Typed = ""
    scale: Typed = ""
    source: SourceIn | None = None


class SplitIn(StepIn):
    """One piece becomes many."""

    act: Literal["split"] = "split"
    piece: Mark
    pieces: Annotated[list[PieceIn], Field(max_length=40)]
    cut_off: Annotated[list[CutOffIn], Field(max_length=40)] = []


class WeighIn(StepIn):
    """Pieces go on at a new weight."""

    act: Literal["weigh"] = "weigh"
    weights: Annotated[list[WeightIn], Field(max_length=60)]


class MergeIn(StepIn):
    """Many pieces become one."""

    act: Literal["merge"] = "merge"
    pieces: Marks
    into: PieceIn


class DiscardIn(StepIn):
    """Pieces are thrown away; the other pieces bear what they cost, or it is booked as loss."""

    act: Literal["discard"] = "discard"
    kind: Kind = "discard"
    pieces: Marks
    charge: Literal["batch", "loss"] = "batch"
    why: Reason = ""


class PolicyIn(Body):
    """What this batch counts. ``labour_rate`` an hour; empty: work is left out."""

    act: Literal["policy"] = "policy"
    labour_rate: Typed = ""
    by_products: bool = True
    fuel: bool = True
    packaging: bool = True
    overhead: bool = True


class FryIn(Body):
    """What is left after frying, in per cent of the raw weight."""

    act: Literal["fry"] = "fry"
    kept: Typed


class PortionIn(Body):
    """A portion: just one of slices, weight raw and weight cooked."""

    act: Literal["portion"] = "portion"
    slices: Typed = ""
    weight: Typed = ""
    cooked_weight: Typed = ""


class ShopPackIn(Body):
    """A pack the shop sells. ``fry``: what is left after frying, in per cent."""

    act: Literal["shop_pack"] = "shop_pack"
    name: Word
    paid: Typed
    weight: Typed
    slices: Typed = ""
    fry: Typed = ""


class WithdrawIn(Body):
    """Takes an entry back; only as a correction."""

    act: Literal["withdraw"] = "withdraw"


Step = SplitIn | WeighIn | MergeIn | DiscardIn
Content = Annotated[
    BoughtIn
    | SplitIn
    | WeighIn
    | MergeIn
    | DiscardIn
    | PolicyIn
    | FryIn
    | PortionIn
    | ShopPackIn
    | WithdrawIn,
    Field(discriminator="act"),
]


class StartIn(Body):
    """A new batch and what was bought for it."""

    name: Name
    bought: BoughtIn
    happened_at: AwareDatetime | None = None


class EntryIn(Body):
    """An entry. ``seen``: last sequence the sender knew of; ``corrects``: an entry's id, with a reason."""

    content: Content
    seen: Annotated[int, Field(ge=0, le=2**31)]
    corrects: Annotated[int, Field(ge=1, le=2**62)] | None = None
    reason: Reason = ""
    happened_at: AwareDatetime | None = None


# --- out ----------------------------------------------------------------------------------------


class Weight(BaseModel):
    """A weight in both units."""

    lb: Fixed
    kg: Fixed


class UnitCost(BaseModel):
    """A price by weight in both units."""

    per_lb: Fixed
    per_kg: Fixed


class PeelOut(BaseModel):
    """What left the ribbon; ``gain`` where weight came on. ``carried``: money it took along."""

    material: str
    name: str
    weight: Weight
    gain: bool
    carried: Fixed | None


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
    spent: Fixed
    worth_back: Fixed
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
    money: Fixed
    per_lb: Fixed | None


class HouseOut(BaseModel):
    """What the house's meat costs at its latest, named stage."""

    stage: str
    is_sliced: bool
    weight: Weight
    cost: Fixed
    unit_cost: UnitCost | None
    kept_of_bought: Fixed
    slices: int | None
    cost_per_slice: Fixed | None
    cost_per_cooked: UnitCost | None
    fry_kept: Fixed | None
    portion: Fixed | None
    portion_label: str | None
    groups: list[GroupOut]


class ShopOut(BaseModel):
    """A shop's pack beside the house; saved below zero: the house is dearer.

    ``entry`` is where it was told. ``break_even``: the price as purchased above which it stops paying.
    """

    entry: int
    name: str
    pack: str
    unit_cost: UnitCost
    cost_per_slice: Fixed | None
    portion: Fixed | None
    saved_per_lb: Fixed | None
    saved_per_kg: Fixed | None
    saved_per_portion: Fixed | None
    saved_on_batch: Fixed | None
    is_cheaper: bool | None
    cost_per_cooked: UnitCost | None
    break_even: UnitCost | None
    earned_per_hour: Fixed | None


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
    carried: Fixed


class SourceOut(BaseModel):
    """A lot that is a piece of another batch: what it carries now, and carried on the day it was taken."""

    lot: str
    batch: str
    name: str
    piece: str
    weight: Weight
    carried: Fixed
    carried_then: Fixed
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
    loss_account: Fixed
    sources: list[SourceOut]
    policy: PolicyIn
    warnings: list[str]
    log: list[LogOut]


class RecordedOut(BaseModel):
    """The entry that was made (or had been, by the same key) and the batch as it is now."""

    entry: int
    batch: BatchOut


class Reading(BaseModel):
    """How a typed quantity was read: the weight in both units, or the money."""

    path: str
    weight: Weight | None = None
    money: Fixed | None = None


class PreviewOut(BaseModel):
    """What an entry would do, nothing written.

    ``readings``: each quantity as understood; ``problems``: what would refuse it; the rest, once it
    can be computed: the column it lands in, and the batch after it.
    """

    readings: list[Reading] = []
    problems: list[FieldProblem] = []
    paid: Fixed | None = None
    bought_cost: UnitCost | None = None
    column: ColumnOut | None = None
    house: HouseOut | None = None
    shops: list[ShopOut] = []


class StandingOut(BaseModel):
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
    saved_per_lb: Fixed | None


class TodayOut(BaseModel):
    """Batches under way and lately finished, and how many pieces hang at each place."""

    under_way: list[StandingOut]
    finished: list[StandingOut]
    more_under_way: int
    hanging: dict[str, int]


class ImportIn(Body):
    """The text of a batch document."""

    document: Annotated[str, Field(max_length=2_000_000)]


class ImportedOut(BaseModel):
    """A batch that an import made, or would make."""

    code: str
    name: str
    cut: str
    entries: int
    house: HouseOut
    strip: StripOut
    warnings: list[str]


class ImportOut(BaseModel):
    """What an import made; ``written`` false for a dry run, which wrote nothing."""

    written: bool
    batches: list[ImportedOut]
