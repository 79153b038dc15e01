"""How long things keep, chilled and frozen, with the source of each figure.

Frozen times are of quality: at 0 °F and below meat stays safe. A month is 30 days.
"""

from dataclasses import dataclass
from typing import Final, Literal

Keeps = Literal["bacon", "ham", "raw_sausage", "sausage", "fresh", "cooked"]
CHART: Final = "USDA cold-storage chart; frozen for quality"
BACON_SOURCE: Final = "common practice and the USDA cold-storage chart; frozen for quality"
#: Vacuum is for quality, not for safety.
VACUUM: Final = (
    "A vacuum pack keeps its quality longer, not its safety: keep it at 38 °F (3 °C) or colder, and ask your"
    " food authority."
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Keeping:
    """Days something keeps ``chilled`` and ``frozen``, each from the shortest to the longest."""

    label: str
    chilled: tuple[int, int]
    frozen: tuple[int, int]
    source: str = CHART


KEEPING: Final[dict[Keeps, Keeping]] = {
    "bacon": Keeping(label="bacon", chilled=(7, 7), frozen=(30, 30), source=BACON_SOURCE),
    "ham": Keeping(label="cooked ham, sliced", chilled=(3, 4), frozen=(30, 60), source=BACON_SOURCE),
    "raw_sausage": Keeping(label="raw sausage", chilled=(1, 2), frozen=(30, 60)),
    "sausage": Keeping(label="cooked sausage", chilled=(7, 7), frozen=(30, 60)),
    "fresh": Keeping(label="fresh meat", chilled=(3, 5), frozen=(120, 360)),
    "cooked": Keeping(label="cooked meat", chilled=(3, 4), frozen=(60, 180)),
}
#: Thawed in the fridge: about a day for each 4 to 5 lb, a pack of a pound overnight.
THAW_SOURCE: Final = "USDA; a pack of a pound overnight is common practice"
