"""What the verdict tells and takes: house against shop, and what would change it."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.core.slicing.packs import Fate
from dolmetsch.server.batches.entries.typed import PolicyIn
from dolmetsch.server.batches.show.schemas import HouseOut, ShopOut, SourceOut, StripOut, TakerOut
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, Money, ReadQuantity, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Kind, Typed

BasisKey = Literal["pound", "portion", "slice", "cooked"]


class RungOut(BaseModel):
    """A shop's pack on a basis; ``price`` null where it cannot be had, ``apart``: by more than scale error.

    Of a forecast, ``chance`` in per cent that the house is cheaper; ``apart``: at least 3 in 4 either way.
    """

    name: str
    price: Money | None
    saved: Money | None
    apart: bool
    chance: int | None = None


class BasisOut(BaseModel):
    """House and shop on one basis: ``pound`` and ``cooked`` are of the kitchen's unit, so of a kilogram and
    of 100 g in one that weighs in kilograms.

    ``low`` and ``high``: two standard deviations of scale error about it, or the 80 % range of the forecast.

    ``missing`` says what to record so that it can be had.
    """

    key: BasisKey
    label: str
    price: Money | None
    low: Money | None
    high: Money | None
    shops: list[RungOut]
    missing: str | None


class PartOut(BaseModel):
    """A part of the bill; the columns add up to their totals to the cent. ``entries`` it comes from."""

    sort: str
    name: str
    label: str
    per_lb: Money
    per_kg: Money
    per_portion: Fixed | None
    on_batch: Fixed
    entries: list[int]


class BillOut(BaseModel):
    """Where the bill went."""

    parts: list[PartOut]
    per_lb: Money
    per_kg: Money
    per_portion: Fixed | None
    on_batch: Fixed


class GoneOut(BaseModel):
    """What of a batch went one way: eaten, plated, sold, given, used, spoiled, discarded."""

    fate: Fate
    weight: Weight
    cost: Money
    income: Money


class EarnedOut(BaseModel):
    """What a batch earned if what brought no money is worth what the shop asks: on the batch, and an hour."""

    shop: str
    on_batch: Fixed
    per_hour: Fixed | None


class StowedOut(BaseModel):
    """Where a finished batch's packs went, what is left of them, and what they brought in.

    ``shrink``: spoiled and thrown away, per cent of what was packed.
    """

    went: list[GoneOut]
    left: Weight
    left_cost: Money
    income: Money
    shrink: Fixed
    earned: list[EarnedOut]


class YoursOut(BaseModel):
    """What of a batch with customers' pieces is the kitchen's own.

    ``saved``: what that saved beside each shop pack, in their order; None where nothing is compared.
    """

    pieces: int
    weight: Weight
    unit_cost: UnitCost | None
    customers_pieces: int
    customers_weight: Weight
    saved: list[Money | None]


class SpreadOut(BaseModel):
    """Standard deviations from scale error alone. ``is_known``: some weighing names its scale."""

    is_known: bool
    unit_cost: UnitCost | None
    portion: Money | None
    kept: Fixed | None
    saved_on_batch: list[Money | None]


class YearOut(BaseModel):
    """What the finished batches of the past year saved beside each shop's pack, summed up.

    ``batches`` in all, ``compared`` of them with a pack of that name; ``saved`` null where those are too few.
    """

    batches: int
    compared: list[int]
    saved: list[Money | None]


class SizePointOut(BaseModel):
    """The price of a final pound with so many slabs at once."""

    slabs: int
    unit_cost: UnitCost


class SizeOut(BaseModel):
    """Batch size. ``wall``: no more fit, and why; ``crossings``: slabs from which the shop is undercut."""

    slabs: int
    wall: int | None
    wall_is: str | None
    points: list[SizePointOut]
    crossings: list[int | None]
    work: str


class ExpectedOut(BaseModel):
    """What a finished pound is expected to cost, with its 80 % range; ``stage``: what it is then called."""

    stage: str
    price: UnitCost
    low: UnitCost
    high: UnitCost
    grams: Weight


class JudgedOut(BaseModel):
    """Everything that follows from the records, or from a trial of them.

    ``is_forecast``: the batch is not finished, so that every comparison is of ``expected``; null where no
    forecast can be made, and there is none then. ``size`` only of finished batches.
    """

    house: HouseOut
    shops: list[ShopOut]
    is_forecast: bool
    expected: ExpectedOut | None
    spread: SpreadOut
    bases: list[BasisOut]
    bill: BillOut | None
    year: YearOut
    size: SizeOut | None


class InputOut(BaseModel):
    """An input of a figure, printed with its unit; ``entries`` it comes from."""

    label: str
    value: str
    entries: list[int]


class DerivationOut(BaseModel):
    """Where a figure comes from."""

    figure: str
    shop: int | None
    title: str
    formula: str
    value: str
    inputs: list[InputOut]


class LeverOut(BaseModel):
    """How much the price of a final pound changes if one thing gets ten percent worse."""

    label: str
    change_per_lb: Fixed
    change_per_kg: Fixed


class OutlayOut(BaseModel):
    """What left the till beside what the batch is charged."""

    what: str
    packs: int | None
    paid: Money
    charged: Money


class YieldDial(BaseModel):
    """A kind of step and what it kept, in per cent."""

    kind: str
    label: str
    kept: Fixed


class DialsOut(BaseModel):
    """Where the what-if begins: the figures as recorded."""

    tag_per_lb: Fixed
    tag_per_kg: Fixed
    yields: list[YieldDial]
    minutes: Fixed
    portion_slices: str
    portion_weight: str
    portion_cooked_weight: str
    shops: list[Fixed]


class VerdictOut(BaseModel):
    """One batch's verdict, whole."""

    code: str
    name: str
    cut: str
    is_finished: bool
    judged: JudgedOut
    dials: DialsOut
    levers: list[LeverOut]
    outlay: list[OutlayOut]
    outlay_paid: Money
    outlay_charged: Money
    derivations: list[DerivationOut]
    policy: PolicyIn
    policy_words: str
    policy_is_own: bool
    kitchen_policy: PolicyIn
    sources: list[SourceOut]
    takers: list[TakerOut]
    loss_account: Money
    warnings: list[FindingOut]
    cautions: list[FindingOut]
    seen: int
    hourly: Fixed | None
    stowed: StowedOut | None = None
    yours: YoursOut | None = None


class PortionTrial(Body):
    """A portion to try: one of three."""

    slices: Typed = ""
    weight: Typed = ""
    cooked_weight: Typed = ""


class TrialIn(Body):
    """What to try; empty or absent: as recorded. Yields in per cent by kind of step."""

    tag: Typed = ""
    tag_unit: Literal["lb", "kg"] = "lb"
    yields: Annotated[dict[Kind, Typed], Field(max_length=40)] = {}
    minutes: Typed = ""
    portion: PortionTrial | None = None
    shops: Annotated[list[Typed], Field(max_length=20)] = []
    policy: PolicyIn | None = None


class TrialOut(BaseModel):
    """What would come of it; nothing is written. ``judged`` is null where ``problems`` leave nothing."""

    judged: JudgedOut | None
    strip: StripOut | None
    readings: list[ReadQuantity] = []
    problems: list[FieldProblem] = []


class MachineIn(Body):
    """A slicer or sealer: price, minutes it saves a batch, and how much more is kept, in per cent."""

    price: Typed
    minutes: Typed = ""
    kept_more: Typed = ""


class PayBackOut(BaseModel):
    """Batches until it is paid; null: never. ``years`` at the kitchen's pace."""

    saved_by_minutes: Money
    saved_by_loss: Money
    saved: Money
    batches: int | None
    years: Fixed | None
    problems: list[FieldProblem] = []
