"""What finding tells."""

from typing import Literal

from pydantic import BaseModel

FoundKind = Literal["batch", "piece", "pack", "note", "price", "dish", "plan", "person"]


class FoundOut(BaseModel):
    """Something that was found: what it is called, and what it is in a line.

    ``code``, ``mark``, ``name`` and ``id`` say where it is, as far as its kind has them.
    """

    kind: FoundKind
    title: str
    detail: str
    code: str = ""
    mark: str = ""
    name: str = ""
    id: int | None = None


class FindOut(BaseModel):
    """What was found, kind by kind, of each the latest; ``more``: kinds of which there is more."""

    found: list[FoundOut]
    more: list[FoundKind]
