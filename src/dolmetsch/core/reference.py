"""Reference figures, each with its source. A kitchen may put its own, stricter or local, in their place.

Figures marked *practice* are common practice, not a rule; a *start value* is a first guess that the
kitchen's own records replace.
"""

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


@dataclass(frozen=True, slots=True, kw_only=True)
class Spoonful:
    """What a level US teaspoon of something weighs, in grams."""

    key: str
    label: str
    grams: Fraction
    source: str = "common practice, ±10 %, until you weigh a spoon of your own"


#: Level spoons differ by so much of what they hold.
SPOON_ERROR: Final = Fraction(1, 10)
#: Teaspoons in each measure that may be typed.
TEASPOONS: Final[dict[str, int]] = {"tsp": 1, "tbsp": 3, "cup": 48}
SPOONS: Final[dict[str, Spoonful]] = {
    key: Spoonful(key=key, label=label, grams=Fraction(grams))
    for key, label, grams in (
        ("fine_salt", "table or fine salt", "6.0"),
        ("sea_salt", "fine sea salt", "5.6"),
        ("dense_flake", "dense flake (coarse) salt", "4.9"),
        ("light_flake", "light hollow-flake salt", "2.8"),
        ("curing_salt", "curing salt", "6.0"),
        ("ready_mixed", "complete ready-mixed cure", "5.3"),
        ("white_sugar", "white sugar", "4.2"),
        ("brown_sugar", "packed brown sugar", "4.6"),
        ("syrup", "maple or other syrup", "6.7"),
        ("honey", "honey", "7.0"),
        ("black_pepper", "ground black pepper", "2.3"),
        ("water", "water", "4.93"),
    )
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Agent:
    """A kind of curing agent: its shares of nitrite and nitrate (None: by its label, else unknown).

    ``spoon`` is the kind of spoonful it weighs like; ``purpose`` what it is for.
    """

    key: str
    label: str
    nitrite: Fraction | None
    nitrate: Fraction = Fraction(0)
    spoon: str = "curing_salt"
    purpose: str
    is_ready_mixed: bool = False


AGENTS: Final[dict[str, Agent]] = {
    agent.key: agent
    for agent in (
        Agent(
            key="no_1",
            label="curing salt no. 1",
            nitrite=Fraction("0.0625"),
            purpose="everything cooked or smoked within weeks",
        ),
        Agent(
            key="no_2",
            label="curing salt no. 2",
            nitrite=Fraction("0.0625"),
            nitrate=Fraction("0.04"),
            purpose="only dried or fermented pieces aged over about 30 days",
        ),
        Agent(
            key="weak",
            label="nitrited salt, weak",
            nitrite=None,
            spoon="fine_salt",
            purpose="used as the salt, nitrite by its label",
        ),
        Agent(
            key="complete",
            label="complete home cure",
            nitrite=Fraction("0.005"),
            nitrate=Fraction("0.005"),
            spoon="ready_mixed",
            purpose="at its packet's rate",
            is_ready_mixed=True,
        ),
        Agent(
            key="packet",
            label="packet cure",
            nitrite=None,
            spoon="ready_mixed",
            purpose="at its packet's rate only, nitrite by its label",
            is_ready_mixed=True,
        ),
    )
}


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


@dataclass(frozen=True, slots=True, kw_only=True)
class StartYield:
    """A first guess of what is left after a step, of the weight entering it: mean, one standard deviation."""

    mean: float
    deviation: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Method:
    """A method of doing a kind of step. ``label`` goes after "your last 8"; ``can_gain``: brine goes in."""

    key: str
    kind: str
    label: str
    can_gain: bool = False


START_SOURCE: Final = "common practice, used until your own batches say better"
#: The cuts the start values are known for, in the order of the table.
START_COLUMNS: Final = (
    *("belly_skin_on", "belly_skinless", "jowl", "loin", "shoulder", "brisket", "poultry", "leg"),
)
METHODS: Final[dict[str, Method]] = {
    method.key: method
    for method in (
        Method(key="trim", kind="trim", label="trims"),
        Method(key="dry_cure", kind="cure", label="dry cures"),
        Method(key="salt_box", kind="cure", label="salt boxes"),
        Method(key="immersion", kind="cure", label="brines", can_gain=True),
        Method(key="pumped", kind="cure", label="pumped cures", can_gain=True),
        Method(key="rest", kind="rest", label="rests"),
        Method(key="cold_smoke", kind="smoke", label="cold smokes"),
        Method(key="hot_smoke", kind="smoke", label="hot smokes"),
        Method(key="stepped_smoke", kind="smoke", label="stepped smokes"),
        Method(key="pulled", kind="cook", label="long cooks"),
        Method(key="chill", kind="chill", label="chills"),
        Method(key="slice", kind="slice", label="slicings"),
        Method(key="air_dry", kind="dry", label="dryings"),
        Method(key="dry_age", kind="age", label="dry ages"),
    )
}


def _row(*cells: tuple[str, str] | None) -> dict[str, StartYield]:
    """A row of the table; one cell stands for every column."""
    filled = cells * len(START_COLUMNS) if len(cells) == 1 else cells
    return {
        column: StartYield(mean=float(cell[0]), deviation=float(cell[1]))
        for column, cell in zip(START_COLUMNS, filled, strict=True)
        if cell is not None
    }


#: By method and column. A cut that a method is not for has no cell.
START_YIELDS: Final[dict[str, dict[str, StartYield]]] = {
    "trim": _row(
        *((".84", ".05"), (".92", ".04"), (".88", ".05"), (".93", ".03")),
        *((".82", ".05"), (".75", ".07"), (".95", ".03"), (".88", ".05")),
    ),
    "dry_cure": _row((".95", ".02")),
    "salt_box": _row(
        *((".88", ".03"), (".86", ".03"), (".87", ".03"), (".86", ".03")),
        *((".87", ".03"), (".87", ".03"), (".85", ".04"), (".87", ".03")),
    ),
    "immersion": _row(("1.02", ".02")),
    "pumped": _row(("1.07", ".02")),
    "rest": _row((".99", ".005")),
    "cold_smoke": _row((".96", ".015")),
    "hot_smoke": _row(
        *((".87", ".03"), (".87", ".03"), (".86", ".03"), (".88", ".03")),
        *((".85", ".04"), (".85", ".04"), (".86", ".04"), (".86", ".04")),
    ),
    "stepped_smoke": _row((".91", ".02")),
    "pulled": _row(None, None, None, None, (".60", ".06"), (".60", ".06"), None, (".62", ".06")),
    "chill": _row((".985", ".007")),
    "slice": _row(
        *((".90", ".04"), (".90", ".04"), (".87", ".05"), (".94", ".03")),
        *((".90", ".04"), (".88", ".05"), (".93", ".03"), (".92", ".04")),
    ),
    "air_dry": _row(
        *((".68", ".04"), (".68", ".04"), (".68", ".04"), (".65", ".04")),
        *((".64", ".04"), (".65", ".05"), (".65", ".05"), (".64", ".04")),
    ),
    "dry_age": _row(None, None, None, (".72", ".06"), (".72", ".06"), (".60", ".08"), None, (".72", ".06")),
}
#: Cooked ÷ raw weight: the house's dry-cured bacon, and the shop's pumped bacon.
START_FRY: Final[dict[str, StartYield]] = {
    "house": StartYield(mean=0.42, deviation=0.06),
    "shop": StartYield(mean=0.33, deviation=0.05),
}
#: A start value is worth about so many batches of the kitchen's own.
PRIOR_BATCHES: Final = 3
