"""What the lanes tell."""

from datetime import datetime
from typing import Literal

from pydantic import BaseModel

StayKind = Literal["cure", "dry", "smoke", "hang", "wait", "packs"]


class TaskPointOut(BaseModel):
    """A task on a bar."""

    at: datetime
    words: str
    is_late: bool


class StayOut(BaseModel):
    """Pieces of a batch in one place, from ``begins`` until ``ends``; None: until somebody says.

    ``latest``: the end of the window, or of the range. Packs take no places, and are a stay until the last of
    them is to be used.
    ``is_planned``: by the list, not by the map. Of a meal plan ``code`` is empty, and it has no marks yet.
    """

    code: str
    name: str
    marks: list[str]
    kind: StayKind
    words: str
    begins: datetime
    ends: datetime | None
    latest: datetime | None
    is_planned: bool
    pieces: int
    points: list[TaskPointOut]


class LaneOut(BaseModel):
    """A store with what lies in it. ``slots``: places for pieces; of what lies nowhere None."""

    name: str
    sort: str
    slots: int | None
    bars: list[StayOut]


class LanesOut(BaseModel):
    """The lanes of so many days from ``first`` on."""

    now: datetime
    first: datetime
    days: int
    lanes: list[LaneOut]
