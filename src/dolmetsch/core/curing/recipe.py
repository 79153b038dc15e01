"""A recipe for a cure: what goes with a gram of meat, whatever the piece weighs."""

from dataclasses import dataclass, field
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.curing.schools import SCHOOLS, School, SchoolKey
from dolmetsch.core.ledger.course import COURSE_FACTS, Course
from dolmetsch.core.reference.agents import Agent
from dolmetsch.core.reference.nitrite import PICK_UP_RATIO
from dolmetsch.core.reference.spoons import Spoonful

#: Salts by what a spoon of them is called.
_SALT_SPOONS: Final = frozenset({"fine_salt", "sea_salt", "dense_flake", "light_flake"})
#: Words that make a salt a curing agent, whose nitrite has to be counted.
_AGENT_WORDS: Final = ("curing", "cure", "nitrite", "nitrate", "pink")


@dataclass(frozen=True, slots=True, kw_only=True)
class Ingredient:
    """Something of a recipe: ``share`` of the meat (of meat and water for the salt and sugar of a brine).

    ``by_spoon``: measured by spoons, so that its amount is uncertain. ``spoon``: what a spoonful weighs, None
    where unknown. ``stage``: 2 goes on after the first stage.
    """

    name: str
    share: Fraction
    by_spoon: bool = False
    spoon: Spoonful | None = None
    stage: Literal[1, 2] = 1

    @property
    def is_agent(self) -> bool:
        """Whether its name says that it brings nitrite: then it belongs where its nitrite is counted."""
        name = self.name.casefold()
        return any(word in name for word in _AGENT_WORDS)

    @property
    def is_salt(self) -> bool:
        """Whether it salts the meat: by its spoon, or by its name."""
        by_spoon = self.spoon is not None and self.spoon.key in _SALT_SPOONS
        return by_spoon or "salt" in self.name.casefold().replace("-", " ").split()


@dataclass(frozen=True, slots=True, kw_only=True)
class MixedBrine:
    """A brine as it was mixed, for all the meat in one tub, in grams. ``by_volume``: cups or spoons of it."""

    water: Fraction
    salt: Fraction
    sugar: Fraction = Fraction(0)
    agent: Fraction = Fraction(0)
    by_volume: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Recipe:
    """A recipe of one school.

    Attributes:
        salt: all salt wanted; by spoon, the salt that is spooned out. None where the agent brings it all.
        agent: the curing agent, its nitrite None where no label tells; None: without nitrite.
        agent_spoon: what a teaspoon of it weighs, where ``agent_by_spoon`` says that it is measured so.
        target_ppm, agent_share: just one of them where there is an agent; the share is of the meat.
        water: of the meat; brines alone. ``mixed``: the brine as it was mixed, in place of all shares.
        pump: weight gained ÷ green weight; injections alone.
        spare: so much more brine than the pump takes, for hoses and needles.
        box: salt of the box, of the meat. ``uptake``: salt the cook expects the meat to take from it.
    """

    school: SchoolKey
    salt: Ingredient | None
    sugar: Ingredient | None = None
    agent: Agent | None = None
    target_ppm: Fraction | None = None
    agent_share: Fraction | None = None
    agent_by_spoon: bool = False
    agent_spoon: Spoonful | None = None
    extras: tuple[Ingredient, ...] = ()
    water: Fraction = Fraction(0)
    pump: Fraction | None = None
    spare: Fraction = Fraction(1, 10)
    pick_up: Fraction = PICK_UP_RATIO
    box: Fraction = Fraction(0)
    uptake: Fraction | None = None
    mixed: MixedBrine | None = None

    @property
    def has_second_stage(self) -> bool:
        """Whether something goes on later, once the cure has been in: in two stages, or spices of a brine."""
        return "spices_later" in self.facts.shows or any(extra.stage == 2 for extra in self.extras)

    @property
    def facts(self) -> School:
        """What is usual in its school."""
        return SCHOOLS[self.school]


@dataclass(frozen=True, slots=True, kw_only=True)
class CuredPiece:
    """A piece to be cured: green weight in grams, thickness at its thickest, and what it is to become.

    ``kinds``: steps it has been through. ``is_kept_warm``: rests a day or two at 66–68 °F after the salt.
    ``carried_ppm``: nitrite from earlier cures, in parts per million of its weight now; None: not known.
    """

    grams: Fraction
    product: Literal["bacon", "whole_muscle", "comminuted"]
    course: Course | None = None
    skin_on: bool = False
    thickness_mm: float | None = None
    kinds: frozenset[str] = field(default_factory=frozenset)
    is_kept_warm: bool = False
    carried_ppm: Fraction | None = Fraction(0)

    @property
    def is_to_be_dried(self) -> bool:
        """Whether it hangs for weeks."""
        return self.course is not None and COURSE_FACTS[self.course].is_dried
