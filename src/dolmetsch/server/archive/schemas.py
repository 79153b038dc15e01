"""What the archive tells."""

from pydantic import BaseModel


class FilledOut(BaseModel):
    """What an empty kitchen was filled with."""

    batches: int
    records: int
    people: int


class ArchiveFactsOut(BaseModel):
    """Whether everything can be brought into this kitchen, and which lists there are."""

    is_empty: bool
    lists: list[str]
