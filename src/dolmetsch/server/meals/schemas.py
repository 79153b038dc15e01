"""What meal plans take and tell."""

import uuid
from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.server.lanes.schemas import LaneOut
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, Weight
from dolmetsch.server.quantities.typed import Body, Name, Typed

MOST_WANTS = 10
Clock = Annotated[str, Field(pattern=r"^([01]?\d|2[0-3]):[0-5]\d$")]


class WantIn(Body):
    """What is to be served: so many plates of a dish, or so much of a product of the larder."""

    sort: Literal["dish", "product"] = "dish"
    name: Name = ""
    amount: Typed = ""


class MealIn(Body):
    """A meal plan. ``meat``: a line of the price list; without one the ``price`` by weight is typed.

    ``sure``: in how many of a hundred cases there is to be enough. ``reserve_hours``: kept free before the
    meal. ``piece``: what a piece weighs when it is laid, which takes one place. ``loads``: of the smoker.
    """

    name: Name = ""
    day: date
    at: Clock = "19:00"
    wants: Annotated[list[WantIn], Field(min_length=1, max_length=MOST_WANTS)]
    way: Name = ""
    cut: Name = ""
    meat: Name = ""
    price: Typed = ""
    pack: Typed = ""
    piece: Typed = ""
    sure: Typed = "90"
    reserve_hours: Typed = ""
    hours_a_day: Typed = ""
    loads: Annotated[int, Field(ge=1, le=6)] = 1
    is_weekly: bool = False
    put_away: bool = False


class NeededOut(BaseModel):
    """A product that is needed: of it so much is here, so much has to be made."""

    product: str
    wanted: Weight
    here: Weight
    short: Weight


class OddsOut(BaseModel):
    """Raw meat, and how likely just so much is needed, of the most likely amount's."""

    grams: float
    part: float


class BuyOut(BaseModel):
    """What to buy: ``even`` is enough every other time, ``sure`` as often as was asked for."""

    even: Weight
    sure: Weight
    buy: Weight
    packs: int | None
    by: date
    is_too_late: bool
    cost: Fixed | None
    over: Weight
    over_plates: str
    odds: list[OddsOut]
    least: Weight
    most: Weight
    even_grams: float
    sure_grams: float
    chance: str


class JobOut(BaseModel):
    """A job counted back: its hands, and until when it passes by itself; how much longer it may take."""

    kind: str
    words: str
    starts: datetime
    hands_end: datetime
    ends: datetime
    minutes: int
    spare_hours: float
    store: str
    is_too_long: bool


class ClashOut(BaseModel):
    """Where it does not fit, in words."""

    store: str
    begins: datetime
    ends: datetime
    words: str


class WayOutOut(BaseModel):
    """Something that can be done about a clash, and the plan as it would be then; ``price``: money it costs,
    empty where it costs something else.
    """

    words: str
    price: str
    input: MealIn


class ShoppingOut(BaseModel):
    """A thing to fetch: ``needed``, of which ``here``; ``buy`` empty: enough is here."""

    what: str
    needed: str
    here: str
    buy: str
    cost: Fixed | None


class PlateOut(BaseModel):
    """What a plate of a dish will cost, 8 times out of 10 between ``low`` and ``high``."""

    dish: str
    plates: str
    low: Fixed | None
    high: Fixed | None
    food_low: Fixed | None
    food_high: Fixed | None
    leave_low: Fixed | None
    leave_high: Fixed | None


class MealOut(BaseModel):
    """A meal plan worked out; ``missing``: what is not known, so that it was left out."""

    needed: list[NeededOut]
    buy: BuyOut | None
    plates: list[PlateOut]
    jobs: list[JobOut]
    latest_start: datetime | None
    later: str
    work_minutes: int
    cost: Fixed | None
    lanes: list[LaneOut]
    first: datetime
    days: int
    meal_at: datetime
    clashes: list[ClashOut]
    ways_out: list[WayOutOut]
    shopping: list[ShoppingOut]
    missing: list[str]
    problems: list[FieldProblem]


class MealJobOut(BaseModel):
    """A job on the list, and whether it is done."""

    uid: uuid.UUID
    meal: str
    words: str
    due_at: datetime
    minutes: int
    state: Literal["open", "done"]
    is_late: bool


class MealRow(BaseModel):
    """A plan in the list."""

    name: str
    version: int
    day: date
    at: str
    words: str
    is_weekly: bool
    is_listed: bool
    is_over: bool


class MealsOut(BaseModel):
    """Every plan, the next meal first, and what can be chosen from."""

    meals: list[MealRow]
    dishes: list[str]
    products: list[str]
    ways: list[str]
    meats: list[str]
    jobs: list[MealJobOut]


class MealPage(BaseModel):
    """One plan whole: as typed, as worked out now, and what was done so far means for the meal."""

    name: str
    version: int
    input: MealIn
    plan: MealOut
    jobs: list[MealJobOut]
    on_time: str
    is_late: bool


class JobNewsIn(Body):
    """What became of a job."""

    sort: Literal["done", "open"] = "done"
