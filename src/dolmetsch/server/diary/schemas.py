"""What the diary's API takes and tells."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import AwareDatetime, BaseModel, StringConstraints

from dolmetsch.server.quantities.lengths import NOTE_LENGTH
from dolmetsch.server.quantities.typed import Body, Mark, Reason, Visible

#: A note may run over several lines; other control characters are refused.
Text = Annotated[
    str,
    StringConstraints(strip_whitespace=True, max_length=NOTE_LENGTH, pattern=r"^[^\x00-\x08\x0b-\x1f\x7f]*$"),
    Visible,
]


class NoteIn(Body):
    """Something to write down, of the batch or of one piece."""

    text: Text
    mark: Mark = ""
    happened_at: AwareDatetime | None = None


class PhotoIn(Body):
    """What a photo is of, in a few words."""

    mark: Mark = ""
    note: Reason = ""


class PhotoOut(BaseModel):
    """A photo: where its two sizes are served, and how large it is."""

    id: int
    width: int
    height: int
    large: str
    small: str


Sort = Literal["entry", "cure", "task", "fact", "look", "note", "photo", "fire", "pack"]


class LeafOut(BaseModel):
    """One thing in the diary. ``lines`` tell it; ``is_wrong``: corrected or taken back later."""

    sort: Sort
    happened_at: datetime
    recorded_at: datetime
    by: str
    title: str
    lines: list[str]
    marks: list[str]
    is_wrong: bool
    photo: PhotoOut | None = None


class DiaryOut(BaseModel):
    """The diary of a batch, in the order in which things happened."""

    code: str
    name: str
    cut: str
    pieces: list[str]
    leaves: list[LeafOut]
