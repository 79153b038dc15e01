"""What the cures' API tells. Grams as they are read from a scale; money to the cent."""

from datetime import datetime
from typing import Literal

from pydantic import AliasChoices, BaseModel, Field

from dolmetsch.core.curing.schools import SchoolField, SchoolKey
from dolmetsch.core.ledger.course import Course
from dolmetsch.server.cures.typed import AgentKey, Product, RecipeIn
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.pieces.schemas import Length
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, Money, MoneyText, Weight


class DoseOut(BaseModel):
    """The curing salt to begin with for a piece that is cured as ``product``, with its skin on or off, and is
    to become one of ``courses``; null: nobody said.
    """

    product: Product
    skin: Literal["on", "off"]
    courses: list[Course | None]
    agent: AgentKey
    target: str
    agent_amount: str


class SchoolOut(BaseModel):
    """A school of curing. ``course``: what is cured so usually becomes, where nobody said; null: anything.
    ``shows``: what its recipes say; ``begins``: the usual amounts of one, whose curing
    salt is that of ``doses`` for the piece.
    """

    key: SchoolKey
    label: str
    method: Literal["dry", "brine", "pump", "pump_and_brine"]
    how: str
    turn_days: int
    course: Course | None
    shows: list[SchoolField]
    begins: RecipeIn
    doses: list[DoseOut]


class AgentOut(BaseModel):
    """A kind of curing agent; shares in per cent, null where only its label tells."""

    key: AgentKey
    label: str
    is_ready_mixed: bool
    nitrite: Fixed | None
    nitrate: Fixed
    purpose: str


class SpoonOut(BaseModel):
    """What a level teaspoon weighs in grams, here and in the reference."""

    key: str
    label: str
    grams: Fixed
    reference: Fixed
    source: str
    is_own: bool


class LimitOut(BaseModel):
    """A nitrite limit in parts per million, here and in the reference."""

    key: str
    label: str
    ppm: Fixed
    reference: Fixed
    source: str
    reference_source: str
    is_own: bool


class RecipeOut(BaseModel):
    """A recipe, its latest version."""

    name: str
    version: int
    input: RecipeIn
    recorded_at: datetime
    by: str


class MixOut(BaseModel):
    """A mix made: what is left of it, and ``words`` for what it brings."""

    id: int
    recipe: str
    version: int
    made: Weight
    left: Weight
    left_grams: Fixed
    made_at: datetime
    note: str
    words: str


class DeskFactsOut(BaseModel):
    """All the cure desk knows before a piece is laid on it."""

    schools: list[SchoolOut]
    agents: list[AgentOut]
    spoons: list[SpoonOut]
    limits: list[LimitOut]
    recipes: list[RecipeOut]
    mixes: list[MixOut]
    scale: Fixed | None


class LineOut(BaseModel):
    """One thing to weigh out. ``share`` of the meat in per cent; ``spoons`` for those without a scale.

    ``spoons_grams``: what those spoons hold, ``spoons_from`` and ``spoons_to``: what they may really hold;
    ``is_spooned``: the recipe measures it by the spoon. ``own_grams``: this piece's part of what is weighed
    out for its tub; null: all of it. ``cost`` null: no price known.
    """

    name: str
    role: Literal["salt", "agent", "sugar", "extra", "water", "box", "mix"]
    stage: int
    grams: Fixed
    share: Fixed
    text: str
    spoons: str | None
    spoons_grams: Fixed | None = None
    is_spooned: bool = False
    own_grams: Fixed | None = None
    spoons_from: Fixed | None
    spoons_to: Fixed | None
    cost: Money | None


class GaugeOut(BaseModel):
    """Ingoing nitrite against the limit. ``low`` to ``high``: by the scale's or the spoons' own error.

    ``own``: of ``ppm`` what this cure brings; ``carried_ppm``: the rest, from earlier cures, null where it is
    none. ``is_at_rule``: over a limit printed as 156 by the rule it comes from.
    ``pick_up`` and ``one_system``: both brine figures. ``ppm`` null: not known. ``reference``: what the
    reference table says, where the kitchen's own limit stands in its place.
    """

    ppm: Fixed | None
    own: Fixed | None = None
    # of cures put in before it had this name as well
    carried_ppm: Fixed | None = Field(None, validation_alias=AliasChoices("carried_ppm", "carried"))
    is_at_rule: bool = False
    low: Fixed | None
    high: Fixed | None
    pick_up: Fixed | None
    one_system: Fixed | None
    limit: Fixed
    limit_name: str
    source: str
    reference: Fixed | None
    is_over: bool
    error: str


class BrineOut(BaseModel):
    """A brine: all of it, for the injector, for the tub, to spare; strength in per cent; its water parted.

    It is kept with the cure it was made for, so what came to it later has a default.
    """

    weight: Weight
    grams: Fixed
    injector_grams: Fixed
    tub_grams: Fixed
    spare_grams: Fixed = "0"
    strength: Fixed
    hot_grams: Fixed
    cold_grams: Fixed
    mixed_f: Fixed
    mixed_c: Fixed
    may_go_in: bool
    ice_grams: Fixed | None
    water_note: str


class CentrePointOut(BaseModel):
    """The salt at the centre after ``days``, in per cent of that outside; low and high by the literature."""

    days: Fixed
    middle: Fixed
    low: Fixed
    high: Fixed


class TimeOut(BaseModel):
    """How long: rules side by side, the window in days, the planned day, and the curve of the center.

    ``state`` is where ``out`` lies beside the window, ``said`` what that means; ``center``: per cent of the
    salt outside that the center has on that day, null without a thickness.
    """

    rules: list[str]
    first: int
    last: int
    out: int
    planned: int = 0
    state: Literal["early", "inside", "over"] = "inside"
    said: str = ""
    center: Fixed | None = None
    asks_thickness: bool = False
    curve: list[CentrePointOut]
    curve_source: str


class DeskPieceOut(BaseModel):
    """What the desk answers for one piece; null parts where something typed cannot be taken yet."""

    mark: str
    weight: Weight
    grams: Fixed
    thickness: Length | None
    skin: Literal["", "on", "off"]
    school: str
    how: str
    course: Course | None
    product: Product
    lines: list[LineOut]
    gauge: GaugeOut | None
    brine: BrineOut | None
    time: TimeOut | None
    salt_in_slice: str | None
    cautions: list[FindingOut]
    questions: list[FieldProblem]
    cost: Money | None
    stage_note: str
    tub: str = ""
    tub_weight: Weight | None = None
    is_kept_warm: bool = False


class TotalOut(BaseModel):
    """A thing over all pieces: what to buy."""

    name: str
    grams: Fixed
    cost: Money | None


class DeskOut(BaseModel):
    """What the desk answers."""

    pieces: list[DeskPieceOut]
    totals: list[TotalOut]
    cost: Money
    unpriced: list[str]
    problems: list[FieldProblem]


class ChargeOut(BaseModel):
    """Something that went into the cure of a piece, as a line of its weighing after it."""

    what: str
    group: Literal["cure"]
    amount: str
    price: MoneyText
    pieces: list[str]


class CureOut(BaseModel):
    """A piece in the cure, as put down."""

    id: int
    mark: str
    school: str
    recipe: str
    in_at: datetime
    first_at: datetime
    last_at: datetime
    out_at: datetime
    by: str
    input: RecipeIn
    answer: DeskPieceOut
    is_under_way: bool
    taken_back: str | None


class CuresOut(BaseModel):
    """Every cure of a batch, the latest first, and what its open ones are yet to be charged with.

    ``unpriced``: what went into them that has no price by weight, and so comes on no bill.
    """

    cures: list[CureOut]
    charges: list[ChargeOut]
    unpriced: list[str]
