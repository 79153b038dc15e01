"""Heat: how long at which temperature makes meat safe, how fast it has to cool, and what a fire should do.

Temperatures are in °F, times in seconds.
"""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final, Literal

Meat = Literal["pork", "beef", "poultry", "other"]

LETHALITY_SOURCE: Final = (
    "FSIS lethality guideline, Appendix A, for meat; needs humidity during the cook."
    " Your food authority decides."
)
#: Seconds at a temperature for a 6.5-log and a 7-log reduction of salmonella, by whole °F from 130 to 157.
LETHALITY_SECONDS: Final[dict[int, tuple[int, int]]] = {
    130: (112 * 60, 121 * 60),
    131: (89 * 60, 97 * 60),
    132: (71 * 60, 77 * 60),
    133: (56 * 60, 62 * 60),
    134: (45 * 60, 47 * 60),
    135: (36 * 60, 37 * 60),
    136: (28 * 60, 32 * 60),
    137: (23 * 60, 24 * 60),
    138: (18 * 60, 19 * 60),
    139: (15 * 60, 15 * 60),
    140: (12 * 60, 12 * 60),
    141: (9 * 60, 10 * 60),
    142: (8 * 60, 8 * 60),
    143: (6 * 60, 6 * 60),
    144: (5 * 60, 5 * 60),
    145: (4 * 60, 4 * 60),
    146: (169, 182),
    147: (134, 144),
    148: (107, 115),
    149: (85, 91),
    150: (67, 72),
    151: (54, 58),
    152: (43, 46),
    153: (34, 37),
    154: (27, 29),
    155: (22, 23),
    156: (17, 19),
    157: (14, 15),
}
#: From here on the whole reduction is met at once.
LETHAL_AT_ONCE: Final = 158
#: Below, nothing counts.
LETHAL_FROM: Final = 130


@dataclass(frozen=True, slots=True, kw_only=True)
class HomeRule:
    """An inside temperature to be reached, and the rest at or above it that belongs to it."""

    fahrenheit: Fraction
    rest_seconds: int
    needs: str


HOME_RULE_SOURCE: Final = "USDA safe minimum inside temperatures"
_WHOLE: Final = HomeRule(
    fahrenheit=Fraction(145), rest_seconds=180, needs="145 °F inside and 3 minutes' rest"
)
_GROUND: Final = HomeRule(fahrenheit=Fraction(160), rest_seconds=0, needs="160 °F inside")
_POULTRY: Final = HomeRule(fahrenheit=Fraction(165), rest_seconds=0, needs="165 °F inside")


def home_rule_for(meat: Meat, *, ground: bool) -> HomeRule | None:
    """The rule for a kind of meat; None where there is none."""
    if meat == "poultry":
        return _POULTRY
    if meat == "other":
        return None
    return _GROUND if ground else _WHOLE


@dataclass(frozen=True, slots=True, kw_only=True)
class CoolingLeg:
    """From one temperature down to another within so long; ``name`` as in the answer."""

    name: str
    start: Fraction
    end: Fraction
    seconds: int


_HOUR: Final = 3600
PLAIN_COOLING_SOURCE: Final = "cooked food: FDA Food Code 3-501.14"
PLAIN_COOLING: Final = (
    CoolingLeg(name="to_70", start=Fraction(135), end=Fraction(70), seconds=2 * _HOUR),
    CoolingLeg(name="to_41", start=Fraction(135), end=Fraction(41), seconds=6 * _HOUR),
)
CURED_COOLING_SOURCE: Final = "cured, at least 100 ppm nitrite: FSIS stabilization guideline, Appendix B"
CURED_COOLING: Final = (
    CoolingLeg(name="to_80", start=Fraction(130), end=Fraction(80), seconds=5 * _HOUR),
    CoolingLeg(name="to_45", start=Fraction(80), end=Fraction(45), seconds=10 * _HOUR),
)

DANGER_SOURCE: Final = "danger zone 40 to 140 °F (USDA)"
DANGER_FROM, DANGER_TO = Fraction(40), Fraction(140)
#: So long in the danger zone at a stretch is too long, plain and cured.
DANGER_SECONDS, DANGER_CURED_SECONDS = 4 * _HOUR, 8 * _HOUR

COLD_SMOKE_SOURCE: Final = "common practice: air under 90 °F when cold smoking, some up to 110 °F"
COLD_SMOKE_AIR, COLD_SMOKE_MOST = Fraction(90), Fraction(110)
COLD_SMOKE_SECONDS: Final = 600

#: Temperatures (°F) whose crossing is never lost when old readings are thinned: those of every rule here.
KEPT_MARKS: Final = (40, 41, 45, 60, 70, 80, 90, 110, 130, 135, 140, 145, 158, 160, 165)
