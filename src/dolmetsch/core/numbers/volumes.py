"""What goes into a tub, as cooks measure it: by weight, by the cup and quart, or by the packet."""

import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.numerals import tidy
from dolmetsch.core.numbers.quantity import MAX_GRAMS, read_weight
from dolmetsch.core.reference.spoons import TEASPOONS, Spoonful

#: Milliliters in a US teaspoon: a gallon of 3785.411784 ml has 768.
ML_PER_TEASPOON: Final = Fraction("3785.411784") / 768
#: Water weighs a gram per milliliter, near enough for a brine.
WATER: Final = Spoonful(key="water", label="water", grams=ML_PER_TEASPOON, source="1 g per ml")
MEASURE_HINT: Final = "write it like 3 kg, 8 qt, 1 1/2 cups, 2 tbsp or 2 packets of 4 oz"

_TEASPOONS_PER: Final = {
    **dict.fromkeys(("tsp", "teaspoon", "teaspoons"), Fraction(TEASPOONS["tsp"])),
    **dict.fromkeys(("tbsp", "tablespoon", "tablespoons"), Fraction(TEASPOONS["tbsp"])),
    **dict.fromkeys(("cup", "cups"), Fraction(TEASPOONS["cup"])),
    **dict.fromkeys(("pt", "pint", "pints"), Fraction(2 * TEASPOONS["cup"])),
    **dict.fromkeys(("qt", "quart", "quarts"), Fraction(4 * TEASPOONS["cup"])),
    **dict.fromkeys(("gal", "gallon", "gallons"), Fraction(16 * TEASPOONS["cup"])),
    **dict.fromkeys(("ml", "milliliter", "milliliters"), 1 / ML_PER_TEASPOON),
    **dict.fromkeys(("l", "liter", "liters", "litre", "litres"), 1000 / ML_PER_TEASPOON),
}
_MEASURED: Final = re.compile(r"([0-9]+(?:\.[0-9]+)?|\.[0-9]+|[0-9]+/[0-9]+)\s*([a-z]+)\.?")
_PACKETS: Final = re.compile(r"([0-9]+)\s*(?:x|×|packets?|packs?|bags?|boxes|box)\s*(?:of|at)?\s*(.+)")


@dataclass(frozen=True, slots=True, kw_only=True)
class Measure:
    """Grams of something, and whether they were measured by volume, so that they are uncertain."""

    grams: Fraction
    by_volume: bool


def read_measure(text: str, spoon: Spoonful | None, *, default_unit: str | None = None) -> Measure:
    """Grams from ``3 kg``, ``8 qt``, ``1 1/2 cups``, ``2 packets of 4 oz``.

    Args:
        text: as typed.
        spoon: what a teaspoon of it weighs; None: not known, so that volumes are refused.
        default_unit: of a number alone, if given.

    Raises:
        QuantityError: unreadable, nothing, too much, or a volume of something of unknown weight.
    """
    found = text.strip()
    bare = tidy(found)
    if (packets := _PACKETS.fullmatch(bare)) is not None:
        each = read_measure(packets[2], spoon, default_unit=default_unit)
        return Measure(grams=int(packets[1]) * each.grams, by_volume=each.by_volume)
    measured = _MEASURED.fullmatch(bare)
    per = None if measured is None else _TEASPOONS_PER.get(measured[2])
    if measured is None or per is None:
        return Measure(grams=_weigh(found, default_unit), by_volume=False)
    if spoon is None:
        said = f"“{found}”: what a spoon of it weighs is not known; say which kind it is, or weigh it"
        raise QuantityError("no_spoon", found, said)
    above, _, below = measured[1].partition("/")
    if below and not int(below):
        raise QuantityError("unreadable", found, f"“{found}” is not an amount: {MEASURE_HINT}")
    grams = Fraction(above) / int(below or 1) * per * spoon.grams
    if not grams:
        raise QuantityError("zero", found, f"“{found}” is nothing; leave it empty instead")
    if grams > MAX_GRAMS:
        raise QuantityError("too_heavy", found, f"“{found}” is over 5 t; check the unit")
    return Measure(grams=grams, by_volume=True)


def _weigh(found: str, default_unit: str | None) -> Fraction:
    try:
        return read_weight(found, default_unit=default_unit)
    except QuantityError as error:
        if error.reason == "unreadable" and "may be" not in str(error):
            said = f"“{found}” is not an amount: {MEASURE_HINT}"
            raise QuantityError("unreadable", found, said) from None
        raise
