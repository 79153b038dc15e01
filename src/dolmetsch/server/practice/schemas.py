"""What the practice API takes and gives."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.server.fires.schemas import EventKind, LiveOut
from dolmetsch.server.quantities.schemas import Money, UnitCost, Weight
from dolmetsch.server.quantities.typed import Reason


class PracticeIn(BaseModel):
    """A run to begin: its lesson, and how many times real time it goes."""

    lesson: Annotated[str, Field(max_length=40)]
    speed: Annotated[int, Field(ge=1, le=600)] = 120


class PracticeActIn(BaseModel):
    """Something done in a run; an instant reading is read by the fire itself."""

    kind: EventKind
    stage: Annotated[int, Field(ge=0, le=19)] | None = None
    text: Reason = ""


class LessonOut(BaseModel):
    """A lesson; ``hours`` it takes where nothing goes wrong."""

    key: str
    name: str
    why: str
    hours: str


class RunOut(BaseModel):
    """A run in the list: how it ended, or that it still goes on."""

    id: int
    name: str
    begun_at: str
    is_done: bool
    lost: str | None


class PracticesOut(BaseModel):
    """Lessons, and runs of the kitchen's cooks, the latest first."""

    lessons: list[LessonOut]
    runs: list[RunOut]


class CaughtOut(BaseModel):
    """A trouble of the run: when it came, and when it was caught (seconds after; null: never)."""

    kind: Literal["fire_out", "fat", "stall", "late", "pull", "raw"]
    text: str
    after_seconds: int | None
    is_caught: bool
    next_time: str


class PracticeVerdictOut(BaseModel):
    """How a run ended, beside the best that could have been done."""

    weight: Weight
    best_weight: Weight
    lost: Weight | None
    price: UnitCost | None
    best_price: UnitCost | None
    money: Money
    out_seconds: int
    best_seconds: int
    late_seconds: int
    peak: str
    is_cooked: bool
    caught: list[CaughtOut]


class PracticeOut(BaseModel):
    """A run as it is now; the verdict once it is done."""

    id: int
    lesson: str
    speed: int
    live: LiveOut
    verdict: PracticeVerdictOut | None


class PracticeBegunOut(BaseModel):
    """The run that was begun."""

    id: int
