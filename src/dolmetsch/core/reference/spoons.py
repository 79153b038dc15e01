"""What level spoons weigh."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final


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
