"""What the fires' API takes and gives. Temperatures are text in the kitchen's unit, as typed or printed."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.core.ledger.course import Course
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import MoneyText, UnitCost, Weight
from dolmetsch.server.quantities.typed import Mark, Name, Reason, Typed, TypedMoney, Word

#: Seconds from the beginning of the fire, and degrees.
Point = list[float]
Temperature = Annotated[str, Field(max_length=12)]
StageKind = Literal["dry", "cold_smoke", "smoke", "cook", "steam", "wrap", "hold"]
FireState = Literal["burning", "resting", "holding", "cooling", "done"]
EventKind = Literal[
    "probe",
    "swap",
    "stage",
    "instant",
    "wrap",
    "spritz",
    "fuel",
    "taste",
    "tender",
    "note",
    "rest",
    "hold",
    "cool",
    "done",
    "quiet",
    "import",
]


class StageIn(BaseModel):
    """A stage of the program: its air, and its end: minutes, an inside temperature, or the cook's word."""

    kind: StageKind
    air: Temperature = ""
    minutes: Annotated[str, Field(max_length=8)] = ""
    inside: Temperature = ""


class FirePieceIn(BaseModel):
    """A piece, where it hangs, and the probe in it, if any."""

    code: Annotated[str, Field(max_length=20)]
    mark: Mark
    rack: Annotated[int, Field(ge=0, le=20)] = 0
    slot: Annotated[int, Field(ge=0, le=20)] = 0
    probe: Annotated[str, Field(max_length=2)] = ""
    where: Word = ""


class FireIn(BaseModel):
    """Into the smoke. ``store``: the smoker of the map whose racks the pieces hang on; empty: none of it.

    ``course``: what the pieces become; empty: as said before, else by the program, which must lead there;
    ``as_said``: as said before, wherever the program leads.
    """

    name: Name = ""
    store: Word = ""
    cooker: Word = ""
    meat: Literal["pork", "beef", "poultry", "other"] = "pork"
    ground: bool = False
    nitrite_ppm: Annotated[str, Field(max_length=12)] = ""
    wood: Name = ""
    program: Name = ""
    pull_at: Temperature = ""
    course: Course | Literal["", "as_said"] = ""
    meal_at: datetime | None = None
    begun_at: datetime | None = None
    pieces: Annotated[list[FirePieceIn], Field(max_length=60)]
    stages: Annotated[list[StageIn], Field(max_length=20)] = []


class EventIn(BaseModel):
    """Something that happened; what is needed follows from ``kind``."""

    kind: EventKind
    at: datetime | None = None
    probe: Annotated[str, Field(max_length=2)] = ""
    other: Annotated[str, Field(max_length=2)] = ""
    piece: Annotated[str, Field(max_length=80)] = ""
    where: Word = ""
    temp: Temperature = ""
    stage: Annotated[int, Field(ge=0, le=19)] | None = None
    text: Reason = ""
    amount: Typed = ""
    price: TypedMoney = ""
    minutes: Annotated[str, Field(max_length=8)] = ""


class LogMatchIn(BaseModel):
    """How an uploaded log is read: its column of times, and the probe each other column is (empty: none).

    ``places``: probes that are put into a piece from the beginning of the fire. ``zone``: of bare times.
    """

    time: Annotated[int, Field(ge=0, le=60)] = 0
    columns: dict[str, Annotated[str, Field(max_length=4)]] = {}
    places: dict[str, Annotated[str, Field(max_length=80)]] = {}
    unit: Literal["F", "C"] = "F"
    zone: Annotated[str, Field(max_length=60)] = "UTC"
    day_first: bool = False


class LogPreviewOut(BaseModel):
    """What taking in a log would do, and how it is matched."""

    heads: list[str]
    first: list[list[str]]
    rows: int
    match: LogMatchIn
    problems: list[FieldProblem]
    readings: int
    first_at: datetime | None
    last_at: datetime | None
    faults: list[str]
    faulty: int
    notes: list[str]
    asks_unit: bool


class CookerCommandIn(BaseModel):
    """A command for a simulated cooker, in its own words."""

    command: Annotated[str, Field(max_length=100)]


class CookerOut(BaseModel):
    """A cooker, and what it read last; ``is_heard``: within the last half minute."""

    name: str
    air: str | None
    probes: dict[str, str]
    at: datetime | None
    is_heard: bool
    fire: int | None


class FireOut(BaseModel):
    """A fire in a list."""

    id: int
    name: str
    cooker: str
    begun_at: datetime
    done_at: datetime | None
    pieces: list[str]


class ProgramIn(BaseModel):
    """A program to save: the next version of its name. ``way``: the method it belongs to, if any."""

    name: Name = ""
    stages: Annotated[list[StageIn], Field(max_length=20)]
    pull_at: Temperature = ""
    wood: Name = ""
    way: Name = ""
    put_away: bool = False


class ProgramOut(BaseModel):
    """A program to begin with; its stages as they would be typed. ``version`` null: a start value.

    ``courses``: for meat that is to become one of them.
    """

    name: str
    version: int | None
    stages: list[StageIn]
    pull_at: str
    wood: str
    way: str
    courses: list[Course]


class FiresOut(BaseModel):
    """Fires that burn or cool, those lately done, the cookers, and programs to begin with.

    ``methods``: of batches under way that have one, the method each is made by.
    """

    unit: Literal["F", "C"]
    burning: list[FireOut]
    done: list[FireOut]
    cookers: list[CookerOut]
    programs: list[ProgramOut]
    programs_source: str
    methods: dict[str, str]


class StageOut(BaseModel):
    """A stage of the program, and when it ran."""

    kind: StageKind
    label: str
    air: str | None
    minutes: str | None
    inside: str | None
    begun_at: datetime | None
    ended_at: datetime | None


class CurveOut(BaseModel):
    """What a probe read, thinned; gaps are parted by null."""

    id: str
    probe: str
    piece: str
    where: str
    is_now: bool
    now: str | None
    points: list[Point | None]


class HangingOut(BaseModel):
    """A piece in the fire and what it reads: the lowest of its probes and of its readings by hand.

    ``now`` was read at ``read_at``; ``is_unread``: too long ago to count, or never (null).
    """

    code: str
    mark: str
    label: str
    rack: int
    slot: int
    probe: str | None
    where: str
    now: str | None
    read_at: datetime | None
    is_by_hand: bool
    is_unread: bool
    is_coldest: bool
    step_kind: str


class ReadyOut(BaseModel):
    """When it is ready; ``why``: why nothing can be said, or ``reached``.

    ``back_low`` and ``back_high``: where the air is far under what is asked for, when it would be ready if it
    were back now.
    """

    low: datetime | None
    likely: datetime | None
    high: datetime | None
    why: str | None
    left_seconds: int | None
    back_low: datetime | None = None
    back_high: datetime | None = None


class HandPointOut(BaseModel):
    """A reading by hand, as it is drawn: so many seconds after the fire began."""

    piece: str
    where: str
    seconds: int
    degrees: float


class ReductionOut(BaseModel):
    """Part of a reduction that is met."""

    name: str
    part: str
    met_at: datetime | None


class LegOut(BaseModel):
    """A leg of cooling."""

    name: str
    rule: Literal["plain", "cured"]
    label: str
    state: Literal["waiting", "running", "met", "failed"]
    seconds: int
    most_seconds: int
    source: str


class PullOut(BaseModel):
    """What taking it to an inside temperature leaves and costs."""

    inside: str
    kept: str
    low: str
    high: str
    weight: Weight
    price: UnitCost | None
    is_plan: bool


class TenderOut(BaseModel):
    """When it is likely to be tender, at which inside, by so many of the kitchen's own cooks."""

    likely: datetime
    over_seconds: int | None
    inside: str
    cooks: int


class AlarmOut(BaseModel):
    """Something that asks for the cook now. ``key`` names it when it is quieted; it stays in sight."""

    fire: int
    name: str
    key: str
    text: str
    is_quiet: bool


class AlarmsOut(BaseModel):
    """The alarms of all fires, and how many pieces hang in fires and chambers."""

    alarms: list[AlarmOut]
    pieces: int


class TroubleOut(BaseModel):
    """Something wrong, with what to do; ``is_on``: it still is."""

    code: str
    begun_at: datetime
    ended_at: datetime
    probe: str | None
    text: str
    is_on: bool


class HappenedOut(BaseModel):
    """An event in words."""

    at: datetime
    kind: EventKind
    text: str
    by: str


class LiveOut(BaseModel):
    """A fire as it is now."""

    id: int
    name: str
    cooker: str
    unit: Literal["F", "C"]
    meat: str
    wood: str
    program: str
    now: datetime
    begun_at: datetime
    out_at: datetime | None
    done_at: datetime | None
    meal_at: datetime | None
    pull_at: str | None
    state: FireState
    stage: int
    stages: list[StageOut]
    next_stage: str | None
    air: str | None
    air_points: list[Point | None]
    curves: list[CurveOut]
    by_hand: list[HandPointOut]
    hanging: list[HangingOut]
    coldest: str | None
    coldest_probe: str | None
    unread: list[str]
    cooked_by: str
    rate_per_hour: str | None
    ready: ReadyOut | None
    lethality: list[ReductionOut]
    lethality_source: str
    home_rule: str | None
    home_met_at: datetime | None
    cooling: list[LegOut]
    peak: str | None
    pulls: list[PullOut]
    pulls_source: str
    tender: TenderOut | None
    troubles: list[TroubleOut]
    alarms: list[AlarmOut]
    events: list[HappenedOut]
    notes: list[FindingOut]
    is_raw: bool
    heard_at: datetime | None


class FuelOut(BaseModel):
    """A piece's share of fuel, as a line of what its step used."""

    what: str
    price: MoneyText


class SharesOut(BaseModel):
    """A piece's share of what a fire took."""

    used: list[FuelOut]
    minutes: str


class PieceFireOut(BaseModel):
    """The latest fire of a piece: the step it is, and what to record with it; ``is_weighed``: since."""

    mark: str
    fire: int
    name: str
    kind: str
    begun_at: datetime
    out_at: datetime | None
    is_weighed: bool
    minutes: str
    used: list[FuelOut]


class BatchFiresOut(BaseModel):
    """The latest fire of each piece of a batch that was in one."""

    pieces: list[PieceFireOut]


class BegunOut(BaseModel):
    """The fire that was begun."""

    id: int
