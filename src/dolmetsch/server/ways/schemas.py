"""What ways take and tell."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import ReadQuantity, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Kind, Name, Typed, TypedMoney, Word

MethodKey = Literal[
    "trim",
    "dry_cure",
    "salt_box",
    "immersion",
    "pumped",
    "rest",
    "cold_smoke",
    "hot_smoke",
    "stepped_smoke",
    "pulled",
    "chill",
    "slice",
    "air_dry",
    "dry_age",
]


class WayUseIn(Body):
    """Something a step uses: ``amount`` a kilogram or a pound of the meat in it, or a batch.

    An empty ``price`` is looked up in the price list by its name, as of today.
    """

    what: Word
    group: Kind = "other"
    amount: Typed
    per: Literal["kg", "lb", "batch"] = "kg"
    price: TypedMoney = ""


class WayStepIn(Body):
    """A step: minutes of hands-on work a batch, and a pound or a kilogram of meat; days; what comes off is
    worth.
    """

    method: MethodKey
    batch_minutes: Typed = ""
    pound_minutes: Typed = ""
    kilo_minutes: Typed = ""
    days: Annotated[int, Field(ge=0, le=400)] = 0
    used: Annotated[list[WayUseIn], Field(max_length=20)] = []
    worth: TypedMoney = ""


class WayIn(Body):
    """A way: its steps in order; a portion by slices (a slice's weight known), weight, or weight cooked."""

    name: Name
    steps: Annotated[list[WayStepIn], Field(min_length=1, max_length=20)]
    portion_slices: Typed = ""
    slice_weight: Typed = ""
    portion_weight: Typed = ""
    portion_cooked: Typed = ""
    put_away: bool = False


class MethodOut(BaseModel):
    """A method a step can be done by."""

    key: MethodKey
    kind: str
    label: str


class UsePricedOut(BaseModel):
    """What a used thing costs now, and where that is from."""

    what: str
    cost: UnitCost | None
    batch: str | None
    origin: str


class WayOut(BaseModel):
    """The latest version of a way. ``missing``: used things that have no price yet."""

    name: str
    version: int
    input: WayIn
    days: int
    recorded_at: datetime
    by: str
    priced: list[UsePricedOut]
    missing: list[str]
    portion: str | None
    slice_weight: Weight | None


class WaysOut(BaseModel):
    """Every way, and the methods there are."""

    ways: list[WayOut]
    methods: list[MethodOut]


class WayPreviewOut(BaseModel):
    """How a way being typed is read, nothing written."""

    readings: list[ReadQuantity]
    problems: list[FieldProblem]
