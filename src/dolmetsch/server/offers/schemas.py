"""What the case check takes and tells."""

from datetime import date
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.core.ledger.course import Course
from dolmetsch.server.batches.forecast.schemas import RangeOut
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.schemas import Fixed, Money, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Name, Typed, Word


class OfferIn(Body):
    """An offer as its tag reads. ``is_sure``: the price was asked about and is right as typed."""

    id: Word
    cut: Name
    skin: Literal["", "on", "off"] = ""
    bone: Literal["", "in", "out"] = ""
    trimmed: bool = False
    price: Typed
    basis: Literal["per_lb", "per_kg", "pack"] = "per_lb"
    pack_weight: Typed = ""
    solution: Typed = ""
    enhanced: bool = False
    is_sure: bool = False


class CaseIn(Body):
    """Offers to rank. ``about``: meat as purchased it is for; or ``portions`` wanted on a day; or so much
    ``sliced``, as a meal plan lacks it, with the chance (``sure``, per cent) that it suffices.

    ``way`` empty: the standard method to what it is to become, its ``course``.
    """

    way: Word = ""
    course: Course = "cooked"
    against: Word = ""
    about: Typed = "20 lb"
    portions: Typed = ""
    sliced: Typed = ""
    sure: Typed = "90"
    on: date | None = None
    offers: Annotated[list[OfferIn], Field(max_length=40)]


class TakeIn(Body):
    """An offer to take home, as a new batch's lot. ``packs`` of it; ``weight`` where its tag has none."""

    case: CaseIn
    offer: Word
    packs: Annotated[int, Field(ge=1, le=500)] = 1
    weight: Typed = ""
    name: Name = ""


class ShopLineOut(BaseModel):
    """A shop kind: its price by weight, and what is left of it after frying, per cent, and by what."""

    name: str
    kind: str
    price: UnitCost
    fry: Fixed
    fry_basis: str


class StepBeliefOut(BaseModel):
    """What a step of the way is believed to keep of an offer, in words, and how it stands after it."""

    label: str
    basis: str
    price: RangeOut


class AmountOut(BaseModel):
    """How much to buy for what is wanted, and what is left over then, as expected."""

    packs: int | None
    weight: Weight
    cost: Money
    left: Weight
    left_portions: Fixed | None


class MoneyRangeOut(BaseModel):
    """A sum of money with its 80 % range."""

    middle: Money
    low: Money
    high: Money


class CaseOfferOut(BaseModel):
    """An offer carried to the end.

    ``tag`` and ``meat`` are prices as bought: of what lies in the case, and of the meat in it.
    ``worth_up_to`` is null where no shop kind is known; below zero it is worth nothing. ``chance`` in per
    cent that it beats that kind. ``hour``: what an hour earns against it. ``question``: the price may be
    on the other basis.
    """

    id: str
    cut: str
    tag: UnitCost
    meat: UnitCost | None
    sliced: RangeOut
    portion: MoneyRangeOut | None
    cooked: MoneyRangeOut
    worth_up_to: UnitCost | None
    worth_pack: Fixed | None
    chance: int | None
    verdict: Literal["buy", "walk_past", "too_close"] | None
    hour: Fixed | None
    amount: AmountOut | None
    pack: Weight | None
    packs_wanted: int | None
    warning: str
    doubts: list[FindingOut]
    steps: list[StepBeliefOut]
    question: str | None
    question_is: Literal["is_pack", "is_each"] | None


class CaseOut(BaseModel):
    """The offers that could be read, cheapest sliced pound first, and the faults of the rest.

    They are ranked for meat that is to become ``course``; null: what the way leads to is not known.
    """

    offers: list[CaseOfferOut]
    shops: list[ShopLineOut]
    against: str | None
    problems: list[FieldProblem]
    way: str
    course: Course | None
    course_label: str
    portion_label: str | None
    buy_by: date | None
    ready_if_bought_today: date | None
    notes: list[str]


class WayChoiceOut(BaseModel):
    """A way to choose, with its portion in words."""

    name: str
    steps: str
    portion: str | None


class CourseChoiceOut(BaseModel):
    """What meat may become by the standard method, where none is chosen."""

    course: Course
    label: str
    steps: str


class ListedOut(BaseModel):
    """Raw meat from the price list, as an offer."""

    cut: str
    price: Money
    source: str
    on: date
    pack_weight: str
    solution: str


class ChoicesOut(BaseModel):
    """What a case check can be made of."""

    ways: list[WayChoiceOut]
    courses: list[CourseChoiceOut]
    shops: list[ShopLineOut]
    listed: list[ListedOut]
