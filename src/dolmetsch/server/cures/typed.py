"""What the cure desk takes: amounts as a cook tells them ("2.5 %", "1 tbsp/lb"), temperatures in °F or °C."""

from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from dolmetsch.core.curing.schools import SchoolKey
from dolmetsch.core.ledger.course import Course
from dolmetsch.server.quantities.typed import Body, Mark, Name, Reason, Typed, Word

AgentKey = Literal["", "none", "no_1", "no_2", "weak", "complete", "packet"]
Product = Literal["bacon", "whole_muscle", "comminuted"]
Days = Annotated[int, Field(ge=1, le=120)]


class IngredientIn(Body):
    """Something of a recipe. ``spoon``: which kind of spoonful it is (a key); empty: none known."""

    name: Word = ""
    amount: Typed = ""
    spoon: Word = ""
    stage: Literal[1, 2] = 1


class RecipeIn(Body):
    """A recipe of one school. Amounts are of the meat; salt and sugar of a brine of meat and water.

    Of ``target`` (parts per million) and ``agent_amount`` just one, where there is an agent; ``agent`` none:
    without nitrite, whatever the school. A brine may be given as it was mixed instead, for all the meat in
    its tub: ``mixed_water`` ("8 qt"), ``mixed_salt`` ("1 cup"), ``mixed_sugar``, ``mixed_agent``.
    ``agent_nitrite`` and ``agent_nitrate`` in per cent, by the label; empty: as usual for its kind.
    """

    name: Name = ""
    school: SchoolKey = "measured"
    salt: IngredientIn = IngredientIn(name="salt")
    sugar: IngredientIn = IngredientIn(name="sugar")
    agent: AgentKey = "no_1"
    agent_nitrite: Typed = ""
    agent_nitrate: Typed = ""
    target: Typed = ""
    agent_amount: Typed = ""
    extras: Annotated[list[IngredientIn], Field(max_length=20)] = []
    water: Typed = ""
    pump: Typed = ""
    pick_up: Typed = ""
    spare: Typed = ""
    box: Typed = ""
    uptake: Typed = ""
    hot_part: Typed = ""
    hot_water: Typed = ""
    cold_water: Typed = ""
    mixed_water: Typed = ""
    mixed_salt: Typed = ""
    mixed_sugar: Typed = ""
    mixed_agent: Typed = ""


class SaveRecipeIn(Body):
    """A recipe to keep: the next version of its name. ``put_away``: listed no more."""

    recipe: RecipeIn
    put_away: bool = False


class CuredPieceIn(Body):
    """A piece on the desk and its own recipe.

    ``thickness``, ``skin`` and ``product``: empty, as known of the piece. ``out_day``: the day the cook
    picks. ``mix``: a mix it is cured with, by its id. ``tub``: pieces of one tub share one brine.
    ``is_kept_warm``: it rests a day or two at 66–68 °F after the salt. ``course``: what it is to become;
    empty: as said of the piece before.
    """

    mark: Mark
    recipe: RecipeIn
    product: Product | Literal[""] = ""
    course: Course | Literal[""] = ""
    thickness: Typed = ""
    skin: Literal["", "on", "off"] = ""
    out_day: Days | None = None
    mix: int | None = None
    tub: Word = ""
    is_kept_warm: bool = False


class DeskIn(Body):
    """Pieces to be cured. ``scale``: what the scale for the cure shows steps of; empty: the kitchen's."""

    pieces: Annotated[list[CuredPieceIn], Field(min_length=1, max_length=40)]
    scale: Typed = ""


class WishesIn(Body):
    """How the days in between are wanted. ``turn_days`` 0: never turned; ``spice_day`` of two stages."""

    turn_days: Annotated[int, Field(ge=0, le=14)] = 1
    dry_hours: Annotated[int, Field(ge=0, le=72)] = 12
    soak_minutes: Annotated[int, Field(ge=5, le=600)] | None = None
    reseason: bool = False
    spice_day: Days | None = None


class PutInIn(DeskIn):
    """Pieces that went into the cure. ``sure``: what the desk asks about has been answered."""

    in_at: AwareDatetime | None = None
    wishes: WishesIn = WishesIn()
    sure: bool = False


class TakeBackIn(Body):
    """Why a cure that was put down counts no more."""

    reason: Reason


class FigureIn(Body):
    """A kitchen's own figure: a limit in parts per million, a teaspoon in grams. No value: the reference."""

    sort: Literal["limit", "spoon"]
    name: Word
    value: Typed = ""
    source: Reason = ""


class MixIn(Body):
    """A mix made: so much of the dry things of a recipe's latest version."""

    recipe: Name
    weight: Typed
    note: Reason = ""
