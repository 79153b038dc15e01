"""What steps keep of the weight entering them: start values."""

from dataclasses import dataclass
from typing import Final


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
#: Taken to this inside (°F) or more it is a long cook: by the shrink at each temperature (``COOK_SHRINK``) it
#: keeps what is nearer to a long cook's than to a hot smoke's.
LONG_COOK_FROM: Final = 180
#: A start value is worth about so many batches of the kitchen's own.
PRIOR_BATCHES: Final = 3
