"""A dry recipe in a few words: what it brings, so that two of them can be distinguished."""

from fractions import Fraction

from dolmetsch.core.curing.desk import weigh_out
from dolmetsch.core.curing.recipe import CuredPiece, Recipe
from dolmetsch.core.errors import CureError
from dolmetsch.core.numbers.exact import fixed

#: Shares are the same for any piece; this one stands for all.
_KILOGRAM = CuredPiece(grams=Fraction(1000), product="whole_muscle")


def describe_cure(recipe: Recipe) -> str:
    """ "150 ppm nitrite, 2.5 % salt, 1 % sugar": what goes on meat by a dry recipe."""
    try:
        mix = weigh_out(recipe, _KILOGRAM).mix
    except CureError:
        return "what cannot be mixed"
    ppm = "no nitrite"
    if mix.ppm is None:
        ppm = "nitrite not known"
    elif mix.ppm:
        ppm = f"{fixed(mix.ppm, 0)} ppm nitrite"
    salt = (mix.salt + mix.agent * _salt_of_agent(recipe)) / 10
    return f"{ppm}, {_short(salt)} % salt, {_short(mix.sugar / 10)} % sugar"


def _salt_of_agent(recipe: Recipe) -> Fraction:
    agent = recipe.agent
    return Fraction(0) if agent is None else 1 - (agent.nitrite or Fraction(0)) - agent.nitrate


def _short(percent: Fraction) -> str:
    return fixed(percent, 2).rstrip("0").rstrip(".")
