"""What the scales' API takes and answers. The stream's events are described in docs/devices.md."""

from typing import Literal

from pydantic import BaseModel

from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Code, Kind, Mark, Typed


class ScalesOut(BaseModel):
    """The scales there are, by name."""

    names: list[str]


class CommandIn(Body):
    """Set the tare to what lies on it, or clear it."""

    command: Literal["tare", "clear"]


class LayIn(Body):
    """What lies on a simulated scale: a weight, a piece as it will weigh after a step, or nothing.

    ``trouble``: what it has for a few seconds instead.
    """

    weight: Typed = ""
    code: Code = ""
    mark: Mark = ""
    kind: Kind = ""
    trouble: Literal["", "silent", "rubbish", "over"] = ""


class LoadOut(BaseModel):
    """What lies on it now."""

    grams: Fixed


class OnScaleIn(Body):
    """A weight of a piece after a step, as it lies on the scale or was typed; ``heat`` of a smoke."""

    kind: Kind
    mark: Mark
    weight: Typed
    heat: Literal["", "hot", "cold"] = ""


class UsualOut(BaseModel):
    """What the kitchen's own past batches kept of this step, in per cent, the latest last.

    ``low`` to ``high``: where four in five are expected. ``learned``: in words, and from what.
    """

    label: str
    kept: list[Fixed]
    low: Fixed
    high: Fixed
    learned: str


class MeaningOut(BaseModel):
    """What a weight means: kept of this step and since before it, and what a pound now costs.

    ``asks``: a question where it falls outside of what is usual. ``gain``: weight came on.
    """

    weight: Weight | None = None
    before: Weight | None = None
    before_label: str = ""
    apart: Weight | None = None
    gain: bool = False
    kept: Fixed | None = None
    cost: UnitCost | None = None
    usual: UsualOut | None = None
    asks: str = ""
    problems: list[FieldProblem] = []
