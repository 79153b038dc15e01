"""What is shown of forecasts, of what steps keep, and of how good forecasts were."""

from typing import Literal

from pydantic import BaseModel

from dolmetsch.core.ledger.course import Course
from dolmetsch.server.quantities.schemas import Fixed, Money, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Name


class RangeOut(BaseModel):
    """A price with its 80 % range."""

    middle: UnitCost
    low: UnitCost
    high: UnitCost


class WeightRangeOut(BaseModel):
    """A weight with its 80 % range."""

    middle: Weight
    low: Weight
    high: Weight


class StepToComeOut(BaseModel):
    """A step to come: what it is believed to keep, in words too, and how things then stand.

    ``kept`` of what enters the step and ``kept_of_bought`` in per cent, the middle value.
    """

    kind: str
    label: str
    kept: Fixed
    kept_of_bought: Fixed
    basis: str
    weight: WeightRangeOut
    price: RangeOut
    spent: Money
    worth_back: Money


class CourseForecastOut(BaseModel):
    """What a batch would come to on one of the ways it can still go; null where that cannot be said."""

    course: Course
    label: str
    price: RangeOut


class GroupForecastOut(BaseModel):
    """What those pieces come to that become one thing, where others of the batch become another; the price of
    a finished pound null where nobody said, or nothing is to come of them.
    """

    marks: list[str]
    course: Course | None
    label: str
    price: RangeOut | None
    weight: WeightRangeOut | None


class ForecastOut(BaseModel):
    """A batch under way, carried on to the end. ``chance`` in per cent that it beats ``shop_name``.

    ``course``: what it is to become, null where nobody said and no method does; then ``courses`` has a line
    for each it can still become, this kitchen's last for the cut first, and there is no ``price``. Where
    pieces become different things there is none either, and ``groups`` has a line for each thing.
    Empty ``steps``: nothing is to come, or nothing can be said (``notes`` says why).
    """

    way: str | None
    way_version: int | None
    steps: list[StepToComeOut]
    price: RangeOut | None
    weight: WeightRangeOut | None
    shop_name: str | None
    chance: int | None
    notes: list[str]
    course: Course | None = None
    course_label: str = ""
    courses: list[CourseForecastOut] = []
    groups: list[GroupForecastOut] = []
    seen: int = 0


class ChooseWayIn(Body):
    """The way a batch is made by, by name."""

    way: Name


class YieldOut(BaseModel):
    """What a method keeps of a cut: middle and 80 % range in per cent, and where that is from."""

    method: str
    label: str
    cut: str
    kept: Fixed
    low: Fixed
    high: Fixed
    start: Fixed
    batches: int
    others: int
    basis: str


class YieldsOut(BaseModel):
    """What every step keeps of the cuts this kitchen has made."""

    yields: list[YieldOut]
    batches: int
    source: str


class ScoredOut(BaseModel):
    """One forecast beside what came true. ``place``: where it lay in the forecast, in per cent."""

    batch: str
    name: str
    stage: str
    price: RangeOut
    true: UnitCost
    came: Literal["held", "above", "below"]
    place: Fixed


class StageScoreOut(BaseModel):
    """How forecasts made after one step did. ``low`` and ``high``: 95 % interval of the part that holds."""

    stage: str
    label: str
    count: int
    held: int
    above: int
    below: int
    held_part: Fixed | None
    low: Fixed | None
    high: Fixed | None
    off: Fixed | None
    is_enough: bool


class CalibrationOut(BaseModel):
    """How often the 80 % range held, from the kitchen's own record."""

    all: StageScoreOut
    stages: list[StageScoreOut]
    scored: list[ScoredOut]
    batches: int
    waiting: int
