"""What bringing in past batches takes and shows."""

from datetime import date
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.server.quantities.schemas import Fixed, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Name
from dolmetsch.server.tables.schemas import UploadedOut, UploadPreviewOut

HistoryTarget = Literal[
    "name",
    "cut",
    "day",
    "finished",
    "bought",
    "paid",
    "price",
    "trim",
    "cure",
    "rest",
    "smoke",
    "chill",
    "dry",
    "slice",
    "slices",
    "minutes",
    "unit",
    "source",
    "way",
]


class HistoryMatchIn(Body):
    """How to read a spreadsheet of batches: which column (from 0) is what, and what the columns do not say.

    ``unit`` of weights without one, also of the price by weight; empty: not said yet. ``day_first`` None: it
    is not said what 03/04/2026 means. ``cut`` stands where no column says it.
    """

    columns: dict[HistoryTarget, Annotated[int, Field(ge=0, le=200)]]
    unit: Literal["", "lb", "oz", "kg", "g"] = ""
    decimal: Literal["", ".", ","] = ""
    day_first: bool | None = None
    cut: Name = ""


class HistoryFileOut(UploadedOut):
    """A spreadsheet with the match confirmed, remembered of such heads, or guessed."""

    match: HistoryMatchIn


class PastBatchOut(BaseModel):
    """A row as the batch it becomes."""

    row: int
    name: str
    cut: str
    day: date
    bought: Weight
    finished: Weight
    kept: Fixed
    price: UnitCost | None
    is_known: bool


class HistoryPreviewOut(UploadPreviewOut):
    """What writing would do: also the first rows, and what is asked of weights and days."""

    sample: list[PastBatchOut]
    asks_unit: bool
    asks_days: bool


class HistoryWriteIn(Body):
    """The next piece to write, from the row it begins with, by a confirmed match."""

    from_row: Annotated[int, Field(ge=0)]
    match: HistoryMatchIn
