"""Reference figures, each with its source. A kitchen may put its own, stricter or local, in their place.

Figures marked *practice* are common practice, not a rule; a *start value* is a first guess that the
kitchen's own records replace.
"""

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
    ("comminuted", "dry", False): NitriteLimit(ppm=Fraction(156), name="comminuted meat"),
    ("comminuted", "brine", False): NitriteLimit(ppm=Fraction(156), name="comminuted meat"),
    ("comminuted", "pump", False): NitriteLimit(ppm=Fraction(156), name="comminuted meat"),
}

#: A stated pick-up of an immersion brine, unless measured (FSIS Directive 7620.3).
PICK_UP_RATIO: Final = Fraction(1, 10)
#: A scale is too coarse where half its resolution is more than this part of the amount of curing agent.
COARSE_SCALE_RATIO: Final = Fraction(5, 100)


def limit_for(*, product: str, method: str, skin_on: bool) -> NitriteLimit:
    """The limit for a product and method; skin counts for bacon alone."""
    judged = "pump" if method == "pump_and_brine" else method
    return NITRITE_LIMITS[product, judged, skin_on and product == "bacon"]


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkStart:
    """Hands-on minutes of a kind of step: so many a batch and so many a piece (*start values*)."""

    fixed_minutes: Fraction
    piece_minutes: Fraction
    pound_minutes: Fraction = Fraction(0)


WORK_SOURCE: Final = "start values of common practice, until the kitchen's own log says better"
#: Hands-on minutes a batch, by kind of step; slicing and packing by knife, by the pound.
WORK_STARTS: Final[dict[str, WorkStart]] = {
    "trim": WorkStart(fixed_minutes=Fraction(10), piece_minutes=Fraction(3)),
    "cure": WorkStart(fixed_minutes=Fraction(10), piece_minutes=Fraction(4)),
    "rest": WorkStart(fixed_minutes=Fraction(5), piece_minutes=Fraction(3)),
    "smoke": WorkStart(fixed_minutes=Fraction(20), piece_minutes=Fraction(2)),
    "slice": WorkStart(fixed_minutes=Fraction(10), piece_minutes=Fraction(0), pound_minutes=Fraction(4)),
}
