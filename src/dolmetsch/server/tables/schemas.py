"""What every table that is brought in shows of itself."""

from pydantic import BaseModel

from dolmetsch.server.problems import FieldProblem


class UploadedOut(BaseModel):
    """A table as uploaded: heads, first rows, and how far it is written. ``is_remembered``: its columns are
    matched as those of the last one like it were.
    """

    id: int
    name: str
    heads: list[str]
    first: list[list[str]]
    rows: int
    notes: list[str]
    is_remembered: bool
    next_row: int
    added: int
    known: int
    faulty: int
    is_done: bool


class FaultyRowOut(BaseModel):
    """A row that cannot be read: its number in the file, what it says, and why."""

    row: int
    cells: list[str]
    message: str


class UploadPreviewOut(BaseModel):
    """What a table would write, nothing written: ``problems`` to be settled first; then counts and faults.

    ``faults`` holds the first of them; ``faulty`` counts them all.
    """

    problems: list[FieldProblem]
    new: int = 0
    known: int = 0
    faulty: int = 0
    faults: list[FaultyRowOut] = []
    notes: list[str] = []
