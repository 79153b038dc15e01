"""What is asked before a cure is believed, and what is said beside it. Neither blocks a record."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from dolmetsch.core.desk import Desk
from dolmetsch.core.exact import GRAMS_PER_LB, fixed
from dolmetsch.core.recipe import CuredPiece, Recipe
from dolmetsch.core.reference import FLOOR_PPM, FLOOR_SOURCE, INSPECTED_PLANTS, MAX_PUMP_RATIO, PRACTICE

#: Salt outside of these, of the meat, is more likely a slip of the pen than a recipe.
SALT_RATIOS: Final = (Fraction(2, 1000), Fraction(10, 100))
#: So much curing salt no. 1 or 2 is a slip: 625 ppm, the highest limit of all, is 1 %.
MAX_AGENT_RATIO: Final = Fraction(1, 100)


@dataclass(frozen=True, slots=True, kw_only=True)
class Caution:
    """Something to mind: a stable ``code``, the words, and where they are from."""

    code: str
    text: str
    source: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Question:
    """Something asked before it is believed: the field, and the question. A yes settles it."""

    field: str
    text: str


POISON: Final = Caution(
    code="poison",
    text="Curing salt is poison by the spoon. Weigh it alone, keep it locked away from children. "
    "Selling cured meat may need a written plan: ask your food authority.",
    source=PRACTICE,
)


def ask(recipe: Recipe, piece: CuredPiece) -> list[Question]:
    """What to ask of a recipe and a piece before they are believed."""
    asked = []
    low, high = SALT_RATIOS
    salt = recipe.salt
    # what would be too much in a brine does not dissolve
    most = high if recipe.facts.method == "dry" else 1
    is_covered = recipe.facts.method in ("brine", "pump_and_brine")
    base = piece.grams * (1 + recipe.water) if is_covered else piece.grams
    of = "meat and water" if is_covered else "the meat"
    if salt is not None and not low <= salt.share <= most:
        told = f"{_percent(salt.share)} % salt is {fixed(salt.share * base, 1)} g for this piece."
        meant = f"Did you mean {_percent(salt.share * 100)} %?" if salt.share < low else "Is it grams?"
        asked.append(Question(field="salt", text=f"{told} Amounts here are in per cent of {of}. {meant}"))
    agent = recipe.agent
    is_strong = agent is not None and agent.key in ("no_1", "no_2")
    if is_strong and recipe.agent_share is not None and recipe.agent_share > MAX_AGENT_RATIO:
        told = (
            f"{_percent(recipe.agent_share)} % curing salt is {fixed(recipe.agent_share * piece.grams, 1)} g"
        )
        asked.append(
            Question(field="agent_amount", text=f"{told} for this piece, far over any limit. Is it so?")
        )
    if recipe.pump is not None and recipe.pump > MAX_PUMP_RATIO:
        told = f"A pump of {_percent(recipe.pump)} % is more than meat holds; 8 to 15 % is usual."
        asked.append(Question(field="pump", text=f"{told} Is it so?"))
    done = sorted(piece.kinds & {"smoke", "slice", "cook"})
    if done:
        asked.append(
            Question(field="piece", text=f"This piece has been through the {done[0]} already. A cure now?")
        )
    return asked


def caution(recipe: Recipe, piece: CuredPiece, desk: Desk) -> list[Caution]:
    """What to mind with this cure, the gravest first."""
    cautions = [*_over_limit(desk), *_wrong_agent(recipe, piece), *_amounts(recipe, piece, desk)]
    if recipe.agent is not None:
        cautions.append(POISON)
    return cautions


def _over_limit(desk: Desk) -> Iterator[Caution]:
    mix = desk.mix
    if mix.ppm is None or mix.limit_ppm is None or mix.limit_source is None:
        return
    most = f"{fixed(mix.limit_ppm, 0)} ppm for {mix.limit_name}"
    if mix.over_limit:
        told = f"{fixed(mix.ppm, 0)} ppm of nitrite is over the limit of {most}."
        yield Caution(code="over_limit", text=f"{told} Weigh out less.", source=mix.limit_source)
    elif desk.ppm_high is not None and desk.ppm_high > mix.limit_ppm:
        told = f"By its own error it may be {fixed(desk.ppm_high, 0)} ppm, over the limit of {most}."
        yield Caution(code="maybe_over", text=told, source=mix.limit_source)


def _wrong_agent(recipe: Recipe, piece: CuredPiece) -> Iterator[Caution]:
    agent = recipe.agent
    cold = {"cold_smoked": "cold-smoked", "air_dried": "air-dried"}.get(piece.finish)
    if agent is None:
        if cold is not None:
            told = f"No nitrite, and to be {cold}: never without it, nor for anything kept warm."
            yield Caution(code="no_nitrite", text=f"{told} Cook it through, or take a cure.", source=PRACTICE)
        told = "Without nitrite it turns out greyer and keeps a shorter time: as fresh meat, salted."
        yield Caution(code="plain", text=told, source=PRACTICE)
        return
    if agent.nitrate and piece.product == "bacon":
        told = f"There is nitrate in {agent.label}: it is not allowed in bacon in US inspected plants."
        yield Caution(code="nitrate_in_bacon", text=f"{told} Take no. 1.", source=INSPECTED_PLANTS)
    elif agent.nitrate and piece.finish != "air_dried":
        told = f"{agent.label.capitalize()} is for {agent.purpose}; its nitrate has no time to work here."
        yield Caution(code="nitrate_too_soon", text=told, source=PRACTICE)
    elif not agent.nitrate and piece.finish == "air_dried" and agent.key == "no_1":
        told = "No. 1 is for what is done within weeks; pieces dried over about 30 days are given no. 2."
        yield Caution(code="dried_long", text=told, source=PRACTICE)


def _amounts(recipe: Recipe, piece: CuredPiece, desk: Desk) -> Iterator[Caution]:
    mix = desk.mix
    if recipe.agent is not None and mix.ppm is None:
        told = "How much nitrite is in it is not known, so neither are its parts per million."
        yield Caution(code="unknown", text=f"{told} Keep to the packet's rate.", source=PRACTICE)
    if mix.scale_too_coarse and mix.agent_error is not None and desk.smallest_grams is not None:
        told = (
            f"The scale may be {fixed(mix.agent_error * 100, 0)} % off on this much curing agent: too coarse."
        )
        lb, kg = fixed(desk.smallest_grams / GRAMS_PER_LB, 1), fixed(desk.smallest_grams / 1000, 1)
        told = f"{told} It is fit for pieces from {lb} lb ({kg} kg) up; use a finer one, or mix for several."
        yield Caution(code="coarse", text=told, source="a scale's half step over 5 % of the agent")
    if recipe.agent_by_spoon:
        told = "Level spoons differ by a tenth, and heaped ones by more: weigh it if you can."
        yield Caution(code="spoons", text=told, source=PRACTICE)
    if mix.ppm is not None and 0 < mix.ppm < FLOOR_PPM and piece.product == "whole_muscle":
        told = f"{fixed(mix.ppm, 0)} ppm is under the usual floor of {FLOOR_PPM} for what is kept cold."
        yield Caution(code="under_floor", text=told, source=FLOOR_SOURCE)


def _percent(ratio: Fraction) -> str:
    told = fixed(ratio * 100, 3)
    return told.rstrip("0").rstrip(".")
