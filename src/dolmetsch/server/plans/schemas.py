"""What the plans' API takes and tells."""

import uuid
from datetime import datetime
from typing import Annotated, Literal

from pydantic import AwareDatetime, BaseModel, Field

from dolmetsch.core.planning.plan import TaskKind, Taste
from dolmetsch.server.quantities.typed import Body, Kind, Marks, Reason

Minutes = Annotated[int, Field(ge=1, le=100_000)]


class TaskIn(Body):
    """A task planned by hand; ``words`` where its kind says too little."""

    kind: TaskKind = "other"
    words: Kind = ""
    marks: Marks = []
    due_at: AwareDatetime
    minutes: Minutes | None = None


class NewsIn(Body):
    """What became of a task.

    ``due_at``: the new time, of one that is moved; ``with_following``: what was planned with it and comes
    later is moved by as much. ``taste`` of a tasting; too salty plans a soak of ``soak_minutes`` and another
    tasting. ``happened_at``: when it was done, if not just now.
    """

    sort: Literal["done", "moved", "dropped", "open"]
    happened_at: AwareDatetime | None = None
    due_at: AwareDatetime | None = None
    with_following: bool = False
    taste: Taste | Literal[""] = ""
    soak_minutes: Annotated[int, Field(ge=5, le=600)] = 30
    note: Reason = ""


class PlannedOut(BaseModel):
    """A task. ``count`` of ``of``: the third of eight turns; ``where``: where its pieces lie."""

    uid: uuid.UUID
    kind: TaskKind
    words: str
    code: str
    name: str
    marks: list[str]
    due_at: datetime
    until_at: datetime
    minutes: int | None
    state: Literal["open", "done", "dropped"]
    done_at: datetime | None
    by: str | None
    is_late: bool
    count: int
    of: int
    where: str
    text: str
    taste: Taste | Literal[""]


class PlanOut(BaseModel):
    """Tasks in the order of their days: those open, and those lately ticked off."""

    now: datetime
    tasks: list[PlannedOut]
    more: int
