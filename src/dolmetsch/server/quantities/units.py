"""The unit a kitchen weighs and prices in: a pound or a kilogram, and less of it for cooked meat."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from dolmetsch.core.numbers.exact import GRAMS_PER_LB


@dataclass(frozen=True, slots=True, kw_only=True)
class WeightUnit:
    """A unit of weight: its word and its grams; ``cooked_word`` and ``cooked_grams``: what cooked meat is
    priced by, an ounce or 100 g.
    """

    word: str
    grams: Fraction
    cooked_word: str
    cooked_grams: Fraction

    def price(self, per_lb: Fraction) -> Fraction:
        """The price of one of it, from that of a pound."""
        return per_lb * self.grams / GRAMS_PER_LB

    def price_cooked(self, per_lb: Fraction) -> Fraction:
        """The price of an ounce or of 100 g, from that of a pound."""
        return per_lb * self.cooked_grams / GRAMS_PER_LB


#: By `Kitchen.weight_unit`.
UNITS: Final = {
    "lb": WeightUnit(
        word="pound", grams=GRAMS_PER_LB, cooked_word="an ounce", cooked_grams=GRAMS_PER_LB / 16
    ),
    "kg": WeightUnit(word="kilogram", grams=Fraction(1000), cooked_word="100 g", cooked_grams=Fraction(100)),
}
