"""What the pieces' API takes and tells."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from dolmetsch.core.curing.cure import Product
from dolmetsch.core.ledger.course import Course
from dolmetsch.core.ledger.strands import Heat
from dolmetsch.server.quantities.schemas import Fixed, Money, MoneyText, UnitCost, Weight
from dolmetsch.server.quantities.typed import Body, Mark, Name, Reason, Typed, TypedMoney, Word

StoreSort = Literal["fridge", "smoker", "chamber", "freezer"]
Room = Annotated[int, Field(ge=1, le=20)]


class Length(BaseModel):
    """A length in both units."""

    inch: Fixed
    cm: Fixed


class PlaceIn(Body):
    """A place: the store's name, level from the top and slot from the left. An empty name: taken out."""

    store: Word
    level: Room = 1
    slot: Room = 1


class OwnerIn(Body):
    """Whose pieces are."""

    owner: Name
    marks: Annotated[list[Mark], Field(min_length=1, max_length=200)]


class StepHeadOut(BaseModel):
    """A step of the table."""

    kind: str
    label: str


class PieceRowOut(BaseModel):
    """A piece in the table. ``weights`` after each step it was weighed in alone; ``gain`` in the cure, in %.

    ``kept`` of its first weight as a piece of its own, in per cent.
    """

    mark: str
    owner: str
    weights: list[Weight | None]
    now: Weight
    gain: Fixed | None
    kept: Fixed
    place: str | None
    price: UnitCost | None


class PiecesTableOut(BaseModel):
    """All living pieces of a batch, P2 before P10."""

    steps: list[StepHeadOut]
    rows: list[PieceRowOut]
    owners: list[str]


class FactsIn(Body):
    """What was learned of a piece; what is left out stays as it was."""

    length: Typed = ""
    width: Typed = ""
    thickness: Typed = ""
    skin: Literal["", "on", "off"] = ""
    product: Product | Literal[""] = ""
    place: PlaceIn | None = None


class PlaceOut(BaseModel):
    """Where a piece lies; ``level_text`` is its shelf or rack alone."""

    store: str
    level: int
    slot: int
    text: str
    level_text: str


class PieceFactsOut(BaseModel):
    """A living piece with all that is known of it. ``kinds``: steps it has been through.

    ``product``: what it is cured as, and so its limit: as the cook set it (``is_product_set``), else read
    from the cut. ``course``: what it is to become, null: not said; ``is_raw``: as it is, it has to be cooked
    before it is eaten; ``smoke``: how its next smoke is expected to be.
    """

    mark: str
    label: str
    weight: Weight
    course: Course | None
    course_label: str
    is_raw: bool
    smoke: Heat
    kinds: list[str]
    product: Product
    is_product_set: bool
    length: Length | None
    width: Length | None
    thickness: Length | None
    skin: Literal["", "on", "off"]
    place: PlaceOut | None


class PiecesOut(BaseModel):
    """The living pieces of a batch."""

    code: str
    name: str
    cut: str
    pieces: list[PieceFactsOut]
    looked_over_at: datetime | None


class StoreIn(Body):
    """A store; saving again under its name replaces it."""

    name: Word
    sort: StoreSort = "fridge"
    levels: Room = 3
    slots: Room = 2
    put_away: bool = False


class LyingOut(BaseModel):
    """A piece as it lies in a store. ``course``: what it is to become, null: not said."""

    code: str
    name: str
    mark: str
    label: str
    weight: Weight
    course: Course | None
    level: int
    slot: int


class StoreOut(BaseModel):
    """A store, and what lies in it."""

    name: str
    sort: StoreSort
    levels: int
    slots: int
    lying: list[LyingOut]


class MapOut(BaseModel):
    """Every store with what lies in it, and what lies nowhere."""

    stores: list[StoreOut]
    nowhere: list[LyingOut]


class LookOut(BaseModel):
    """One thing to look for, and what to do where it is found."""

    key: str
    question: str
    what_to_do: str
    stops: bool


class LookOverIn(Body):
    """What was found, by the keys of what was looked for."""

    found: Annotated[list[Word], Field(max_length=12)] = []
    note: Reason = ""


class OffcutOut(BaseModel):
    """A kind of thing cut off before, and what it was worth the last time."""

    name: str
    material: str
    worth: Literal["nothing", "price", "as_main"]
    price: MoneyText


class TestIn(Body):
    """Next week's price of a pound (or a kilogram, in a kitchen of kilograms); empty: none."""

    price: TypedMoney = ""


class TestPartOut(BaseModel):
    """A part of what was cut; ``share`` of what was bought, in per cent."""

    name: str
    is_usable: bool
    weight: Weight
    share: Fixed
    worth: Money


class TestOut(BaseModel):
    """A butcher's test. ``factor``: price of usable ÷ price as purchased, to three places."""

    bought: Weight
    paid: Money
    price: UnitCost
    parts: list[TestPartOut]
    lost: Weight
    lost_share: Fixed
    usable: Weight
    usable_share: Fixed
    usable_price: UnitCost
    factor: Fixed | None
    next_price: UnitCost | None
    next_usable: UnitCost | None
    next_with_same_worth: UnitCost | None
