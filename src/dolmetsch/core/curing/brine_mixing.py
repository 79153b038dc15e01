"""Mixing a brine of hot and cold water: how warm it comes out, and what brings it down for the meat.

Heat is conserved, the salt's own being left out: T = h·T_hot + (1 − h)·T_cold. Ice takes 334 J/g to melt and
water 4.186 J/g·K to warm (handbook values).
"""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from dolmetsch.core.errors import CureError
from dolmetsch.core.reference.nitrite import CURING_FAHRENHEIT

#: Joules that a gram of ice takes to melt, and a gram of water to warm by a kelvin.
MELTING: Final = Fraction(334)
WARMING: Final = Fraction("4.186")
FREEZING_FAHRENHEIT: Final = 32
BOILING_FAHRENHEIT: Final = 212


@dataclass(frozen=True, slots=True, kw_only=True)
class Water:
    """Hot and cold water in grams, the temperature once mixed in °F, and whether meat may go in.

    ``ice``: so much of the cold water taken as ice brings it to the upper limit; None where even all of it
    does not.
    """

    hot: Fraction
    cold: Fraction
    mixed: Fraction
    may_go_in: bool
    ice: Fraction | None


def mix_water(
    grams: Fraction, *, hot_ratio: Fraction, hot_fahrenheit: Fraction, cold_fahrenheit: Fraction
) -> Water:
    """Part ``grams`` of water into hot and cold.

    Raises:
        CureError: temperatures no water has, or a hot part that is no part.
    """
    for field, fahrenheit in (("hot", hot_fahrenheit), ("cold", cold_fahrenheit)):
        if not FREEZING_FAHRENHEIT <= fahrenheit <= BOILING_FAHRENHEIT:
            raise CureError(field, "water is between 32 and 212 °F (0 and 100 °C)")
    if not 0 <= hot_ratio <= 1:
        raise CureError("hot_part", "the hot part is from none to all of the water")
    hot = grams * hot_ratio
    cold = grams - hot
    mixed = hot_ratio * hot_fahrenheit + (1 - hot_ratio) * cold_fahrenheit
    upper = CURING_FAHRENHEIT[1]
    ice: Fraction | None = Fraction(0)
    if mixed > upper:
        kelvin = (mixed - upper) * 5 / 9
        # ice instead of as much cold water: it melts, and lacks the warmth that water had above freezing
        each = MELTING + WARMING * (cold_fahrenheit - FREEZING_FAHRENHEIT) * 5 / 9
        ice = grams * WARMING * kelvin / each
        ice = ice if ice <= cold else None
    return Water(hot=hot, cold=cold, mixed=mixed, may_go_in=mixed <= upper, ice=ice)
