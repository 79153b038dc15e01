"""What trials and tastings take and show."""

import uuid
from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.core.statistics.tasting import LEAST_SCORE, MOST_SCORE
from dolmetsch.server.quantities.schemas import Fixed, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Code, Mark, Name, Word


class SideIn(Body):
    """A side of a trial: a piece of a batch, or without a ``mark`` all of it; and what is different in it."""

    batch: Code
    mark: Mark = ""
    what: Word


class CureTrialIn(Body):
    """A trial of two to six sides."""

    name: Name
    sides: Annotated[list[SideIn], Field(max_length=12)]


class StepKeptOut(BaseModel):
    """What a step kept of one side, in per cent; None where it has no such step."""

    kind: str
    label: str
    kept: list[Fixed | None]


class SideOut(BaseModel):
    """A side as it came out so far. ``kept`` of what was bought, in per cent; ``price`` of its last stage.

    ``salt`` as the cure desk expected it in the slice, ``cure`` in words; None: no cure on record.
    """

    letter: str
    what: str
    batch: str
    mark: str
    is_finished: bool
    is_gone: bool
    stage: str
    weight: Weight | None
    kept: Fixed | None
    price: UnitCost | None
    days: int
    cure: str | None
    salt: str | None


class PlateScoreOut(BaseModel):
    """A plate's mean score and its 80 % range with the tasters' own heights taken out."""

    letter: str
    what: str
    mean: Fixed
    low: Fixed | None
    high: Fixed | None


class PairOut(BaseModel):
    """Two plates: how far apart, and whether that is more than chance. ``more`` tastings would settle it."""

    first: str
    second: str
    ahead: Fixed
    chance: Fixed
    is_more_than_chance: bool
    wins: int
    ties: int
    losses: int
    more: int | None


class ScaleResultOut(BaseModel):
    """The result on one scale, on all of them together, or of what tasters would have again."""

    key: str
    label: str
    plates: list[PlateScoreOut]
    pairs: list[PairOut]
    said: list[str]


class TastingOut(BaseModel):
    """A tasting: its link's path, whether it is open, the plates' codes by letter, and who scored."""

    id: int
    path: str
    closes_at: datetime
    is_open: bool
    codes: dict[str, str]
    tasters: list[str]


class CureTrialOut(BaseModel):
    """A trial whole. ``results`` are empty until someone scored; the first is of all scales together."""

    id: int
    name: str
    begun_at: datetime
    by: str
    sides: list[SideOut]
    steps: list[StepKeptOut]
    tastings: list[TastingOut]
    sheets: int
    results: list[ScaleResultOut]


class TrialRowOut(BaseModel):
    """A trial in a list."""

    id: int
    name: str
    begun_at: datetime
    sides: list[str]
    sheets: int
    is_open: bool


class TrialsOut(BaseModel):
    """All trials, the latest first."""

    trials: list[TrialRowOut]


Score = Annotated[int, Field(ge=LEAST_SCORE, le=MOST_SCORE)]


class PlateScoresIn(Body):
    """What a taster gave one plate, by its code; a scale left out is not scored."""

    code: Annotated[str, Field(max_length=3)]
    salt: Score | None = None
    smoke: Score | None = None
    sweetness: Score | None = None
    texture: Score | None = None
    color: Score | None = None


class SheetIn(Body):
    """A taster's sheet. ``again``: the code of the plate they would have again; empty: they cannot choose."""

    taster: Word
    device: uuid.UUID
    plates: Annotated[list[PlateScoresIn], Field(max_length=12)]
    again: Annotated[str, Field(max_length=3)] = ""


class TableOut(BaseModel):
    """What a taster sees: whose table, the plates' codes in this taster's own order, the scales."""

    kitchen: str
    closes_at: datetime
    plates: list[str]
    scales: list[Literal["salt", "smoke", "sweetness", "texture", "color"]]
    least: int
    most: int
    scored_at: datetime | None
