"""What meal plans take and tell."""

import uuid
from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.server.lanes.schemas import LaneOut
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, Money, Weight
from dolmetsch.server.quantities.typed import Body, Name, Typed, TypedMoney

MOST_WANTS = 10
MOST_MAKES = 6
MOST_EARLY = 14
MOST_PLACES = 6
MOST_LEFT_OUT = 40
Clock = Annotated[str, Field(pattern=r"^([01]?\d|2[0-3]):[0-5]\d$")]


class WantIn(Body):
    """What is to be served: so many plates of a dish, or so much of a product of the larder."""

    sort: Literal["dish", "product"] = "dish"
    name: Name = ""
    amount: Typed = ""


class MakeIn(Body):
    """How what is short is made: the ``product`` made so; empty: all that nothing else here makes.

    ``meat``: a line of the price list; without one the ``price`` by weight is typed. ``piece``: what a piece
    weighs when it is laid, which takes so many ``places``. ``loads``: of the smoker. ``days_early``: ready so
    many days before the meal.
    """

    product: Name = ""
    way: Name = ""
    cut: Name = ""
    meat: Name = ""
    price: TypedMoney = ""
    pack: Typed = ""
    piece: Typed = ""
    places: Annotated[int, Field(ge=1, le=MOST_PLACES)] = 1
    loads: Annotated[int, Field(ge=1, le=6)] = 1
    days_early: Annotated[int, Field(ge=0, le=MOST_EARLY)] = 0


class MealIn(Body):
    """A meal plan.

    ``sure``: in how many of a hundred cases there is to be enough of each product. ``reserve_hours``: kept
    free before the meal. ``leave_out``: codes of batches under way whose meat is not to be counted.
    """

    name: Name = ""
    day: date
    at: Clock = "19:00"
    wants: Annotated[list[WantIn], Field(min_length=1, max_length=MOST_WANTS)]
    makes: Annotated[list[MakeIn], Field(max_length=MOST_MAKES)] = []
    sure: Typed = "90"
    reserve_hours: Typed = ""
    hours_a_day: Typed = ""
    leave_out: Annotated[list[Name], Field(max_length=MOST_LEFT_OUT)] = []
    is_weekly: bool = False
    put_away: bool = False


class ComingOut(BaseModel):
    """A batch under way, and what it brings of ``products``; ``ready`` None: nobody knows when.

    ``counts`` false: it comes too late, nobody knows when, or it is left out on purpose.
    """

    code: str
    products: list[str]
    brings: Weight
    ready: datetime | None
    counts: bool
    is_left_out: bool


class NeededOut(BaseModel):
    """A product that is needed: of it so much will be here on the day, so much comes from batches under way,
    so much has to be made. ``taken``: of what is here, what plans for before take.
    """

    product: str
    wanted: Weight
    here: Weight
    taken: Weight
    coming: Weight
    short: Weight


class OddsOut(BaseModel):
    """Raw meat, and how likely just so much is needed, of the most likely amount's."""

    grams: float
    part: float


class BuyOut(BaseModel):
    """What to buy for ``products``: ``even`` is enough every other time, ``sure`` as often as was asked for.

    ``make``: its position among the plan's makes. ``by`` None: too late to be bought for that day.
    """

    make: int
    products: list[str]
    meat: str
    even: Weight
    sure: Weight
    buy: Weight
    packs: int | None
    by: date | None
    is_too_late: bool
    cost: Money | None
    over: Weight
    over_plates: str
    odds: list[OddsOut]
    least: Weight
    most: Weight
    even_grams: float
    sure_grams: float
    chance: str


class JobOut(BaseModel):
    """A job counted back: its hands, and until when it passes by itself; how much longer it may take.

    ``product``: what it is for, where the plan makes several; ``basis``: whose minutes and hours these are.
    """

    product: str
    basis: str
    reserve_hours: float
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
    """Something that can be done, and the plan as it would be then (None: it stays as it is); ``more``: money
    it costs more, below zero less; None where that is not known.
    """

    words: str
    more: Fixed | None
    input: MealIn | None


class ShoppingOut(BaseModel):
    """A thing to fetch from ``source`` (empty: nobody said): ``needed``, of which ``here``; ``buy`` empty:
    enough is here.
    """

    source: str
    what: str
    needed: str
    here: str
    buy: str
    cost: Money | None


class PlateOut(BaseModel):
    """What a plate of a dish will cost, 8 times out of 10 between ``low`` and ``high``."""

    dish: str
    plates: str
    low: Money | None
    high: Money | None
    food_low: Fixed | None
    food_high: Fixed | None
    leave_low: Money | None
    leave_high: Money | None


class MealOut(BaseModel):
    """A meal plan worked out; ``missing``: what is not known, so that it was left out."""

    needed: list[NeededOut]
    coming: list[ComingOut]
    buys: list[BuyOut]
    plates: list[PlateOut]
    jobs: list[JobOut]
    latest_start: datetime | None
    is_too_late: bool
    later: str
    work_minutes: int
    cost: Money | None
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
    """A job on the list, and whether it is done: ``done_at`` as it was recorded; ``by_batch``: by the batch
    that is made for the plan.
    """

    uid: uuid.UUID
    meal: str
    product: str
    done_at: datetime | None
    by_batch: bool
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


class MadeOut(BaseModel):
    """What is made for a plan: a ``product``, and the ``batch`` it is made in, empty where none is named."""

    product: str
    batch: str


class MealPage(BaseModel):
    """One plan whole: as typed, as worked out now, and what was done so far means for the meal.

    ``batches``: those that can be named as made for it. ``is_under_way``: some of it was done already.
    ``rescues``: what can still be done where it is late. ``changes``: what it asks for now that the list does
    not say.
    """

    name: str
    version: int
    input: MealIn
    plan: MealOut
    jobs: list[MealJobOut]
    made: list[MadeOut]
    batches: list[str]
    is_under_way: bool
    on_time: str
    is_late: bool
    changes: list[str]
    rescues: list[WayOutOut]


class JobNewsIn(Body):
    """What became of a job."""

    sort: Literal["done", "open"] = "done"


class MadeIn(Body):
    """The batch a product of the plan is made in, or several by one method as it names them ("A and B");
    ``batch`` empty: none after all.
    """

    product: Annotated[str, Field(max_length=1_000)] = ""
    batch: Name = ""
