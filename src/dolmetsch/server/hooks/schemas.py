"""What the hooks' API takes and gives. Weights and temperatures are text, as typed or printed."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.core.ledger.course import Course
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.quantities.schemas import UnitCost, Weight
from dolmetsch.server.quantities.typed import Mark, Typed, Word

NoteKind = Literal["air", "ph", "ferment", "cut", "down"]


class HangIn(BaseModel):
    """Hang a piece. ``green`` empty: as it weighs now. ``target``: per cent it is to lose; empty: as
    usual for what it is to become.
    """

    code: Annotated[str, Field(max_length=20)]
    mark: Mark
    green: Typed = ""
    target: Typed = ""
    hung_at: datetime | None = None
    chamber: Word = ""
    cell: Annotated[str, Field(max_length=1)] = ""


class HookNoteIn(BaseModel):
    """A note of a hanging piece; what is needed follows from ``kind``."""

    kind: NoteKind
    at: datetime | None = None
    temp: Typed = ""
    humidity: Typed = ""
    ph: Typed = ""
    before: Typed = ""
    after: Typed = ""


class DotOut(BaseModel):
    """A weighing: days since it was hung, and per cent lost."""

    day: float
    lost: float


class FermentOut(BaseModel):
    """Degree-hours against their limit."""

    degree_hours: str
    limit: str
    ph: str | None
    reached_at: datetime | None
    state: Literal["met", "failed", "running"]
    source: str


class HookOut(BaseModel):
    """A hanging piece: what it has lost, and when it is dry."""

    id: int
    code: str
    mark: str
    label: str
    name: str
    chamber: str
    cell: str
    hung_at: datetime
    down_at: datetime | None
    day: float
    green: Weight
    weight: Weight
    lost: str
    target: str
    weight_at_target: Weight
    price: UnitCost | None
    price_at_target: UnitCost | None
    dots: list[DotOut]
    line: list[DotOut]
    low: datetime | None
    likely: datetime | None
    high: datetime | None
    low_day: float | None
    high_day: float | None
    why: str | None
    rim: Literal["none", "possible", "suspected"] | None
    ferment: FermentOut | None
    findings: list[FindingOut]


class AirOut(BaseModel):
    """The chamber's air as it was noted."""

    at: datetime
    temp: str | None
    humidity: str | None


class AirPointOut(BaseModel):
    """A point of a chamber's curve: °F or °C as the kitchen has it, and per cent."""

    at: datetime
    value: float


class HeardOut(BaseModel):
    """A chamber that is heard: its air lately, and how long it lay outside of what dries well."""

    name: str
    is_heard: bool
    temp: str | None
    humidity: str | None
    cells: list[str]
    days: int
    temps: list[AirPointOut]
    humidities: list[AirPointOut]
    outside: list[str]
    source: str


class LooseOut(BaseModel):
    """A piece that hangs by the log ``since`` a time, and is not followed here yet."""

    code: str
    mark: str
    label: str
    since: datetime
    weight: Weight
    course: Course | None


class ChamberOut(BaseModel):
    """What hangs, the next ready first, the air as noted, and the chambers that are heard.

    ``loose``: what hangs by the log of its batch alone. ``targets``: what a piece is to lose, in per cent, by
    what it is to become: as it was hung here last.
    """

    unit: Literal["F", "C"]
    hanging: list[HookOut]
    loose: list[LooseOut]
    targets: dict[Course, str]
    down: list[HookOut]
    air: list[AirOut]
    chambers: list[HeardOut]


class HungOut(BaseModel):
    """The hook that was made."""

    id: int
