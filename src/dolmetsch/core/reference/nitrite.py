"""Limits of ingoing nitrite, and what brines and pumps may hold, each with its source."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

INSPECTED_PLANTS: Final = (
    "US inspected-plant limit, 9 CFR 424.21(c) and 424.22(b); calculated as in FSIS Directive 7620.3"
)


@dataclass(frozen=True, slots=True, kw_only=True)
class NitriteLimit:
    """The most ingoing sodium nitrite, in parts per million of the green weight, and where it is from."""

    ppm: Fraction
    name: str
    source: str = INSPECTED_PLANTS


#: By product and method, bacon also by its skin. ``pump_and_brine`` is judged as pumped.
NITRITE_LIMITS: Final[dict[tuple[str, str, bool], NitriteLimit]] = {
    ("bacon", "dry", False): NitriteLimit(ppm=Fraction(200), name="bacon, dry rub"),
    ("bacon", "brine", False): NitriteLimit(ppm=Fraction(120), name="bacon, immersion"),
    ("bacon", "pump", False): NitriteLimit(ppm=Fraction(120), name="bacon, pumped"),
    ("bacon", "dry", True): NitriteLimit(ppm=Fraction(180), name="skin-on bacon, dry rub"),
    ("bacon", "brine", True): NitriteLimit(ppm=Fraction(108), name="skin-on bacon, immersion"),
    ("bacon", "pump", True): NitriteLimit(ppm=Fraction(108), name="skin-on bacon, pumped"),
    ("whole_muscle", "dry", False): NitriteLimit(ppm=Fraction(625), name="whole muscle, dry rub"),
    ("whole_muscle", "brine", False): NitriteLimit(ppm=Fraction(200), name="whole muscle, immersion"),
    ("whole_muscle", "pump", False): NitriteLimit(ppm=Fraction(200), name="whole muscle, pumped"),
    ("comminuted", "dry", False): NitriteLimit(ppm=Fraction(156), name="comminuted meat, dry"),
    ("comminuted", "brine", False): NitriteLimit(ppm=Fraction(156), name="comminuted meat, immersion"),
    ("comminuted", "pump", False): NitriteLimit(ppm=Fraction(156), name="comminuted meat, pumped"),
}

#: A stated pick-up of an immersion brine, unless measured (FSIS Directive 7620.3).
PICK_UP_RATIO: Final = Fraction(1, 10)
#: A scale is too coarse where half its resolution is more than this part of the amount of curing agent.
COARSE_SCALE_RATIO: Final = Fraction(5, 100)


#: A limit by product, method and skin; a kitchen's own set has the same keys.
Limits = Mapping[tuple[str, str, bool], NitriteLimit]


def limit_for(*, product: str, method: str, skin_on: bool, limits: Limits = NITRITE_LIMITS) -> NitriteLimit:
    """The limit for a product and method out of ``limits``; skin counts for bacon alone."""
    judged = "pump" if method == "pump_and_brine" else method
    return limits[product, judged, skin_on and product == "bacon"]


PRACTICE: Final = "common practice"
#: The usual least nitrite of cured goods that are kept cold, bacon apart.
FLOOR_PPM: Final = Fraction(120)
#: From so much ingoing nitrite on meat counts as cured.
CURED_PPM: Final = Fraction(100)
CURED_SOURCE: Final = "cured from 100 ppm ingoing nitrite: FSIS stabilization guideline (Appendix B)"
#: The rule behind the limit printed as 156 ppm: ¼ oz of nitrite to 100 lb of meat.
QUARTER_OUNCE_PPM: Final = Fraction(10**6, 4 * 16 * 100)
RULE_LIMIT_PPM: Final = Fraction(156)
FLOOR_SOURCE: Final = "usual floor for cured, kept-cold products, other than bacon; FSIS Directive 7620.3"
#: The most salt that dissolves at the temperature of a fridge: salt ÷ (salt + water), by weight.
SOLUBLE_RATIO: Final = Fraction(26, 100)
SOLUBLE_SOURCE: Final = "a brine saturated at fridge temperature holds 26 % salt by weight"
#: More than this is no pump percentage but a slip.
MAX_PUMP_RATIO: Final = Fraction(30, 100)
#: Meat in the cure is kept between these, in °F; not into a brine above the upper one.
CURING_FAHRENHEIT: Final = (34, 40)
