"""What the batch API takes: quantities as typed ("4 lb 6 oz"), an entry a body."""

from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from dolmetsch.core.ledger.course import Course
from dolmetsch.server.quantities.lengths import MOST_PIECES
from dolmetsch.server.quantities.typed import (
    Body,
    ByName,
    Code,
    Kind,
    Mark,
    Marks,
    Name,
    Reason,
    Source,
    Typed,
    TypedMoney,
    Word,
)

Material = Literal["skin", "lean", "fat", "bone", "waste", "ends", "other"]


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
    price: TypedMoney = ""


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
    price: TypedMoney
    pieces: Marks = []


class StepIn(Body):
    """What every step may carry."""

    kind: Kind
    minutes: Typed = ""
    used: Annotated[list[UsedIn], Field(max_length=30)] = []
    overhead: TypedMoney = ""
    scale: Typed = ""


class ExtraIn(Body):
    """A cost of buying: delivery, tax, the trip."""

    what: Word
    cost: TypedMoney


class SourceIn(Body):
    """A piece of another batch, by that batch's code; all of it where no weight is given."""

    batch: Code
    piece: Mark
    weight: Typed = ""


class BoughtIn(Body):
    """Meat as purchased: at least one weight; a price by weight or for the pack.

    With ``source`` it is a piece of another batch and brings its cost along: then weight and price may be
    left out. ``solution`` in per cent. An empty mark takes the next free one. ``bought_from``: the
    butcher or shop.
    """

    act: Literal["bought"] = "bought"
    mark: Mark = ""
    cut: Name
    label_weight: Typed = ""
    own_weight: Typed = ""
    price_basis: Literal["per_lb", "per_kg", "pack"] = "pack"
    price: TypedMoney = ""
    extras: Annotated[list[ExtraIn], Field(max_length=12)] = []
    solution: Typed = ""
    scale: Typed = ""
    bought_from: Source = ""
    source: SourceIn | None = None


class HeatedStepIn(StepIn):
    """What a smoke, a cook or a steaming may carry: hot or cold, and the highest temperature inside.

    ``inside`` in the kitchen's unit unless it names another: "152", "67 C".
    """

    heat: Literal["", "hot", "cold"] = ""
    inside: Typed = ""


class SplitIn(HeatedStepIn):
    """One piece becomes many."""

    act: Literal["split"] = "split"
    piece: Mark
    pieces: Annotated[list[PieceIn], Field(max_length=MOST_PIECES)]
    cut_off: Annotated[list[CutOffIn], Field(max_length=40)] = []


class WeighIn(HeatedStepIn):
    """Pieces go on at a new weight."""

    act: Literal["weigh"] = "weigh"
    weights: Annotated[list[WeightIn], Field(max_length=MOST_PIECES)]


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
    labour_rate: TypedMoney = ""
    by_products: bool = True
    fuel: bool = True
    packaging: bool = True
    overhead: bool = True


class FryIn(Body):
    """A frying: what is left, ``kept`` in per cent of the raw weight, or both weights. Any number of them."""

    act: Literal["fry"] = "fry"
    kept: Typed = ""
    raw: Typed = ""
    cooked: Typed = ""


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
    paid: TypedMoney
    weight: Typed
    slices: Typed = ""
    fry: Typed = ""


class FinishIn(Body):
    """Nothing more is to come: pulled, dried or whole, the batch is finished as it is."""

    act: Literal["finish"] = "finish"


class CourseIn(Body):
    """What pieces are to become; none named: all of the batch. ``course`` empty: not said any more."""

    act: Literal["course"] = "course"
    course: Course | Literal[""]
    pieces: Marks = []


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
    | FinishIn
    | CourseIn
    | WithdrawIn,
    Field(discriminator="act"),
]


class StartIn(Body):
    """A new batch and what was bought for it. ``course``: what it is to become; empty: not said."""

    name: Name
    bought: BoughtIn
    course: Course | Literal[""] = ""
    happened_at: AwareDatetime | None = None


class EntryIn(Body):
    """An entry. ``seen``: last sequence the sender knew of; ``corrects``: an entry's id, with a reason."""

    content: Content
    seen: Annotated[int, Field(ge=0, le=2**31)]
    corrects: Annotated[int, Field(ge=1, le=2**62)] | None = None
    reason: Reason = ""
    happened_at: AwareDatetime | None = None


class ImportIn(Body):
    """The text of a batch document."""

    document: Annotated[str, Field(max_length=2_000_000)]
