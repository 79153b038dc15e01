"""What the larder tells and takes."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import AwareDatetime, BaseModel, Field

from dolmetsch.core.slicing.packs import Fate
from dolmetsch.server.batches.entries.typed import SplitIn
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, Money, ReadQuantity, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Code, Mark, Name, Reason, Typed, TypedMoney, Word

Form = Literal["slices", "dice", "lardons", "pulled", "ends", "whole"]
StateKey = Literal["chilled", "frozen", "thawed", "open"]
#: Packs closed in one go at most.
MOST_PACKS = 200


class PackIn(Body):
    """A pack of a final piece: what is in it, what it weighs, where it goes."""

    piece: Mark
    product: Name
    form: Form = "slices"
    weight: Typed
    slices: Typed = ""
    store: Word = ""


class PackingIn(Body):
    """Packs closed in one go, and the slicing they come from; without ``split`` they are of pieces that are
    finished already. ``seen``: last sequence of the batch the sender knew of.

    A piece of ``split`` without weight weighs what its packs do, and has their slices. ``is_done`` false, for
    previews: more is to be cut, so what is left of the piece is taken for more of the first product.
    """

    split: SplitIn | None = None
    is_done: bool = True
    packs: Annotated[list[PackIn], Field(max_length=MOST_PACKS)] = []
    seen: Annotated[int, Field(ge=0, le=2**31)]
    happened_at: AwareDatetime | None = None


class PackCostOut(BaseModel):
    """What a pack that is being made weighs and costs; null while it cannot be read."""

    weight: Weight | None
    cost: Money | None


class UnpackedOut(BaseModel):
    """What of a final piece is in no pack."""

    mark: str
    weight: Weight
    cost: Money
    slices: int | None
    unit_cost: UnitCost | None
    slice_cost: Money | None


class PackingPreview(BaseModel):
    """What this slicing and packing would make; nothing is written. ``slice_weight`` is that of the slices
    packed so far, ``to_go`` how many more of them come of what is left. ``left``: what is on no scale yet;
    null where that is next to nothing.
    """

    slice_weight: Weight | None
    to_go: int | None
    left: Weight | None
    packs: list[PackCostOut]
    pieces: list[UnpackedOut]
    portion: Money | None
    unit_cost: UnitCost | None
    slice_cost: Money | None
    readings: list[ReadQuantity]
    problems: list[FieldProblem]


class CuttableOut(BaseModel):
    """A piece that can be sliced now."""

    mark: str
    label: str
    weight: Weight
    grams: Fixed
    unit_cost: UnitCost | None
    cost: Money
    length_mm: Fixed | None
    free_marks: list[str]
    is_finished: bool
    slices: int | None


class StoreChoice(BaseModel):
    """A store packs can be put into."""

    name: str
    sort: str


class BoardOut(BaseModel):
    """What lies on the board: pieces to slice or to pack, and what is packed already. ``product``: what the
    slices of this batch are called, as long as nobody says otherwise.
    """

    code: str
    name: str
    cut: str
    seen: int
    pieces: list[CuttableOut]
    packs: list["PackOut"]
    unpacked: list[UnpackedOut]
    product: str
    products: list[str]
    stores: list[StoreChoice]
    portion_slices: str
    next_mark: str
    cautions: list[FindingOut]


class ThicknessIn(Body):
    """How thick: of a weight that costs so much, by slices that were weighed (``count`` of them, at
    ``millimetres``, in packs that weigh ``of_slices``), else by the piece's length.
    """

    mark: Mark
    millimetres: Typed = ""
    of_slices: Annotated[list[Typed], Field(max_length=MOST_PACKS)] = []
    count: Typed = ""
    in_pack: Typed = ""
    in_portion: Typed = ""


class ThicknessPoint(BaseModel):
    """Slices of a thickness."""

    millimetres: Fixed
    slices: int
    slice_weight: Weight
    slice_cost: Money
    portion_cost: Money | None
    packs: int
    over: int


class ThicknessOut(BaseModel):
    """Slices at one thickness after another; ``missing`` says what to record so that it can be had."""

    points: list[ThicknessPoint]
    missing: str | None
    problems: list[FieldProblem]


class PackOut(BaseModel):
    """A pack as it is now."""

    code: str
    batch_name: str
    mark: str
    product: str
    form: Form
    piece: str
    made: Weight
    left: Weight
    slices: int | None
    left_slices: int | None
    cost: Money
    left_cost: Money
    packed_at: datetime
    state: StateKey
    store: str
    keep_until: date | None
    is_past: bool
    is_past_best: bool
    is_soon: bool
    is_raw: bool
    is_gone: bool
    owner: str


class NewsOut(BaseModel):
    """Something that happened to a pack. ``taken``: the taking's id, where it can be taken back."""

    at: datetime
    by: str
    words: str
    is_canceled: bool
    taken: int | None


class PackPage(BaseModel):
    """A pack whole, with all that happened to it."""

    pack: PackOut
    news: list[NewsOut]
    keeps_like: str
    keep_source: str
    vacuum: str
    stores: list[StoreChoice]
    batches: list[str]


class StackOut(BaseModel):
    """Packs of one product in one place, oldest first, ``more`` not listed. ``lasts``: days at its pace.

    ``owner``: the customer whose they are; empty: the kitchen's own.
    """

    product: str
    owner: str
    packs: list[PackOut]
    more: int
    count: int
    weight: Weight
    slices: int | None
    cost: Money
    lasts: int | None
    use_by: date | None


class ShelfOut(BaseModel):
    """A store with its stacks; of a ``store`` nobody named it is empty."""

    store: str
    sort: str
    stacks: list[StackOut]


class WentOut(BaseModel):
    """What went one way in the last 30 days."""

    fate: Fate
    weight: Weight
    cost: Money
    income: Money


class RunsOutOut(BaseModel):
    """When a product runs out at its pace of late."""

    product: str
    day: date
    a_day: Weight
    left: Weight
    is_soon: bool


class ThawOut(BaseModel):
    """A pack to move from the freezer to the fridge tonight."""

    code: str
    mark: str
    product: str


class LostOut(BaseModel):
    """What of a product spoiled or was thrown away after it was packed, and per cent of what was packed.

    ``purge``: what packs that were weighed again had lost in the bag, per cent of what was in them; null
    where none (``weighed``) was.
    """

    product: str
    packed: Weight
    lost: Weight
    cost: Money
    percent: Fixed
    weighed: int
    purge: Fixed | None


class LarderOut(BaseModel):
    """What lies where, what to thaw, what runs out, where it went.

    ``soon``: packs past their day, or near it. ``lost``: of every product ever packed, the most first.
    ``packs``, ``weight`` and ``cost`` are of the kitchen's own; customers' are counted apart.
    """

    packs: int
    weight: Weight
    cost: Money
    their_packs: int
    their_weight: Weight
    shelves: list[ShelfOut]
    thaw: list[ThawOut]
    thaw_why: str
    runs_out: list[RunsOutOut]
    went: list[WentOut]
    past: int
    soon: list[PackOut]
    lost: list[LostOut]
    unpacked: list["ToPackOut"]


class ToPackOut(BaseModel):
    """A batch with pieces to slice, or finished and not packed."""

    code: str
    name: str
    weight: Weight
    is_finished: bool


class PackFoundOut(BaseModel):
    """A pack of a file that is not here yet."""

    code: str
    mark: str
    product: str
    weight: Weight
    slices: int | None
    store: str


class PacksFoundOut(BaseModel):
    """What bringing in a file would do: packs that are new, the first of them, and that are here already."""

    new: int
    same: int
    packs: list[PackFoundOut]
    problems: list[FieldProblem]


class WeighedIn(Body):
    """What a pack weighs now: less than what is left of it by the book is purge, or what the freezer took."""

    weight: Typed
    at: AwareDatetime | None = None


class TakingIn(Body):
    """What leaves a pack: a ``weight``, ``slices``, or with neither all that is left."""

    fate: Fate
    weight: Typed = ""
    slices: Typed = ""
    income: TypedMoney = ""
    why: Reason = ""
    into: Code = ""
    dish: Name = ""
    at: AwareDatetime | None = None


class MoveIn(Body):
    """A pack is placed in a store, or opened where it is."""

    sort: Literal["placed", "opened"]
    store: Word = ""
    at: AwareDatetime | None = None


class CancelIn(Body):
    """Why something did not happen."""

    reason: Reason


class CountIn(Body):
    """The shelves were counted: packs that were looked for and not found, and gone ones that were."""

    expected: Annotated[int, Field(ge=0, le=100_000)]
    missing: Annotated[list["PackName"], Field(max_length=500)] = []
    found_again: Annotated[list["PackName"], Field(max_length=500)] = []


class PackName(Body):
    """A pack by its batch's code and its mark."""

    code: Code
    mark: Mark
