"""Reading weights, prices and numbers as a cook types them.

Every reader takes the text as it came and gives exact rationals (grams, money of the kitchen's
currency) or raises ``QuantityError`` with a sentence that says what to write instead.
"""

import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.exact import GRAMS_PER
from dolmetsch.core.numbers.numerals import strip_sign, tidy

#: Five tonnes: heavier than any piece or lot that hangs in a kitchen, so a slip of the finger.
MAX_GRAMS: Final = Fraction(5_000_000)
#: More money than a batch of meat costs; keeps sums inside what the record store holds.
MAX_MONEY: Final = Fraction(1_000_000)
#: Weights are kept in grams to this many places, prices to MONEY_PLACES; finer is refused, not rounded.
GRAM_PLACES: Final = 12
MONEY_PLACES: Final = 4

_NUMBER = r"[0-9]+(?:\.[0-9]+)?|\.[0-9]+"
_UNIT_WORDS: Final = {
    "lb": ("lb", "lbs", "pound", "pounds", "#"),
    "oz": ("oz", "ounce", "ounces"),
    "kg": ("kg", "kgs", "kilo", "kilos", "kilogram", "kilograms"),
    "g": ("g", "gr", "gram", "grams", "gramme", "grammes"),
}
_UNIT_OF: Final = {word: unit for unit, words in _UNIT_WORDS.items() for word in words}
_ONE = re.compile(rf"({_NUMBER})\s*(?:([a-z#]+)\.?)?")
_TWO = re.compile(r"([0-9]+)\s*([a-z#]+)\.?[\s,]*([0-9]+(?:\.[0-9]+)?)\s*(?:([a-z]+)\.?)?")
#: Ounces behind pounds need no word; sixteen of them would be another pound.
_OUNCES_UNNAMED: Final = 16
_VOLUMES: Final = re.compile(
    rf"(?:{_NUMBER}|[0-9]+/[0-9]+)\s*(?:tsp|tbsp|teaspoons?|tablespoons?|cups?|pints?|pt|quarts?|qt|gal|gallons?"
    r"|ml|cl|dl|l|liters?|litres?)\.?"
)
_PER = re.compile(rf"({_NUMBER})\s*(?:/|\ba\b|\ban\b|\bper\b)?\s*([a-z#]+)?")
_FOR = re.compile(rf"({_NUMBER})\s*(?:/|\bfor\b)\s*(.+)")
_COUNTED = re.compile(rf"({_NUMBER})\s*(?:each|pieces|pcs|bags|x)?")
_EACH: Final = frozenset({"each", "piece", "bag"})

WEIGHT_HINT: Final = "write it like 4.38 lb, 4 lb 6 oz, 70 oz, 1.98 kg or 850 g"
PRICE_HINT: Final = "write it like 3.49/lb, 7.70/kg, 0.35 each or 5.00 for 8 oz"


@dataclass(frozen=True, slots=True, kw_only=True)
class Price:
    """What was ``paid`` (money, not negative) for so many ``grams``, or for so many ``count``.

    Just one of ``grams`` and ``count`` is given and is above zero. "3.49/lb" is 3.49 for 453.59237 g.
    ``is_pack``: bought as a whole pack of that size, so that the outlay is in whole packs.
    """

    paid: Fraction
    grams: Fraction | None = None
    count: Fraction | None = None
    is_pack: bool = False

    def __post_init__(self) -> None:
        if (self.grams is None) == (self.count is None):
            raise ValueError("a price is either by weight or by count")

    @property
    def size(self) -> Fraction:
        """What was paid for: grams where the price is by weight, else a count."""
        size = self.grams if self.grams is not None else self.count
        assert size is not None
        return size

    def cost_of(self, amount: Fraction) -> Fraction:
        """Money for ``amount``: grams where the price is by weight, else a count."""
        return amount * self.paid / self.size


def read_number(
    text: str, *, what: str = "number", limit: Fraction = MAX_MONEY, places: int = MONEY_PLACES
) -> Fraction:
    """A plain decimal number, not negative, at most ``limit``, with at most ``places`` decimals.

    Raises:
        QuantityError: unreadable, below zero, too large or too fine; the text names ``what``.
    """
    found = text.strip()
    bare = tidy(found)
    if bare.startswith("-"):
        raise QuantityError("negative", found, f"“{found}” is below zero; a {what} cannot be")
    if not re.fullmatch(_NUMBER, bare):
        raise QuantityError("unreadable", found, f"“{found}” is not a {what}: write plain digits like 3.49")
    value = Fraction(bare)
    _refuse_finer(value, places, found=found, what=what)
    if value > limit:
        raise QuantityError("too_large", found, f"“{found}” is more than a {what} can be here")
    return value


def read_money(text: str, *, sign: str = "") -> Fraction:
    """A sum of money like ``68.40``, ``$68.40`` or ``8,90 €``: not negative, at most 4 decimals.

    Raises:
        QuantityError: as ``read_number``, or a money sign other than ``sign``, where that is given.
    """
    found = text.strip()
    bare = strip_sign(tidy(found, fractions=False), typed=found, sign=sign)
    return read_number(bare if re.fullmatch(_NUMBER, bare) else found, what="price")


def read_weight(text: str, *, default_unit: str | None = None) -> Fraction:
    """A weight in grams from ``4.25 lb``, ``4 lb 6 oz``, ``68 oz``, ``1.93 kg``, ``850 g``.

    Unit words may be spelt out; a bare number is taken in ``default_unit`` (the kitchen's), if given.

    Raises:
        QuantityError: unreadable, nothing, below zero, over 5 t, or finer than 12 places of a gram.
    """
    found = text.strip()
    bare = tidy(found)
    if bare.startswith("-"):
        raise QuantityError("negative", found, f"“{found}” is below zero; weigh again")
    grams = _match_weight(bare, default_unit)
    if grams is None and _VOLUMES.fullmatch(bare):
        raise QuantityError("volume", found, f"“{found}” is a volume; weigh it: {WEIGHT_HINT}")
    if grams is None:
        raise QuantityError("unreadable", found, f"“{found}” is not a weight: {WEIGHT_HINT}")
    if grams == 0:
        raise QuantityError("zero", found, f"“{found}” is a weight of nothing; leave the piece out instead")
    if grams > MAX_GRAMS:
        raise QuantityError("too_heavy", found, f"“{found}” is over 5 t; check the unit")
    _refuse_finer(grams, GRAM_PLACES, found=found, what="weight")
    return grams


def _match_weight(bare: str, default_unit: str | None) -> Fraction | None:
    if (two := match_two(bare)) is not None:
        return Fraction(two[0]) * GRAMS_PER["lb"] + Fraction(two[1]) * GRAMS_PER["oz"]
    if (one := match_one(bare, default_unit)) is not None:
        return Fraction(one[0]) * GRAMS_PER[one[1]]
    return None


def match_two(bare: str) -> tuple[str, str] | None:
    """Pounds and ounces of "4 lb 6 oz" or "4 lb 6", tidied; None where it is not that."""
    two = _TWO.fullmatch(bare)
    if two is None or _UNIT_OF.get(two[2]) != "lb":
        return None
    is_named = two[4] is not None
    if _UNIT_OF.get(two[4]) != "oz" if is_named else Fraction(two[3]) >= _OUNCES_UNNAMED:
        return None
    return two[1], two[3]


def match_one(bare: str, default_unit: str | None) -> tuple[str, str] | None:
    """Number and unit of "1.98 kg" tidied; None where it is not that."""
    one = _ONE.fullmatch(bare)
    unit = None if one is None else default_unit if one[2] is None else _UNIT_OF.get(one[2])
    return None if one is None or unit is None else (one[1], unit)


def match_count(bare: str) -> str | None:
    """The number of "15 bags" tidied; None where it is no count."""
    counted = _COUNTED.fullmatch(bare)
    return None if counted is None else counted[1]


def match_pack(bare: str) -> tuple[str, str] | None:
    """Price and size of "5.00 for 8 oz" tidied; None where it is not that, or a price of one unit."""
    pack = _FOR.fullmatch(bare)
    return None if pack is None or _PER.fullmatch(bare) else (pack[1], pack[2])


def match_unit_price(bare: str) -> tuple[str, str] | None:
    """Price and unit of "3.49/lb" or "0.35 each" tidied, the unit empty where none is given."""
    per = _PER.fullmatch(bare)
    if per is None:
        return None
    word = per[2]
    unit = "" if word is None else "each" if word in _EACH else _UNIT_OF.get(word)
    return None if unit is None else (per[1], unit)


def read_count(text: str, *, zero: bool = False) -> Fraction:
    """A count of things used, like ``15`` or ``15 bags``; above zero unless ``zero`` will do.

    Raises:
        QuantityError: it is no count, or a count of nothing.
    """
    found = text.strip()
    match = _COUNTED.fullmatch(tidy(found))
    if match is None:
        raise QuantityError("unreadable", found, f"“{found}” is not a count: write it like 15")
    value = read_number(match[1], what="count")
    if value == 0 and not zero:
        raise QuantityError("zero", found, f"“{found}” is a count of nothing; leave the line out instead")
    return value


def read_price(text: str, *, default_unit: str | None = None, sign: str = "") -> Price:
    """A unit price (``3.49/lb``, ``1.20 a kg``, ``0.35 each``) or a bought pack (``5.00 for 8 oz``).

    A bare number is a price for one ``default_unit``, if given.

    Raises:
        QuantityError: unreadable, below zero, for a weight of nothing, or in money other than ``sign``.
    """
    found = text.strip()
    bare = tidy_price(found, sign=sign)
    if bare.startswith("-"):
        raise QuantityError("negative", found, f"“{found}” is below zero; a price cannot be")
    if (per := match_unit_price(bare)) is not None:
        money, unit = per[0], per[1] or default_unit
        if unit == "each":
            return Price(paid=read_money(money), count=Fraction(1))
        if unit is not None:
            return Price(paid=read_money(money), grams=GRAMS_PER[unit])
    elif (pack := match_pack(bare)) is not None:
        return _read_pack(found, paid=read_money(pack[0]), size=pack[1])
    raise QuantityError("unreadable", found, f"“{found}” is not a price: {PRICE_HINT}")


def tidy_price(text: str, *, sign: str = "") -> str:
    """A typed price tidied, its money sign taken away: "€8,90/kg" as "8.90/kg".

    Raises:
        QuantityError: a sign other than ``sign``, where that is given, or an unclear comma.
    """
    return strip_sign(tidy(text, fractions=False), typed=text, sign=sign)


def _read_pack(found: str, *, paid: Fraction, size: str) -> Price:
    if (grams := _match_weight(tidy(size), None)) is not None:
        return Price(paid=paid, grams=read_weight(size), is_pack=True)
    if _COUNTED.fullmatch(size) and grams is None:
        return Price(paid=paid, count=read_count(size), is_pack=True)
    raise QuantityError("unreadable", found, f"“{found}” is not a price: {PRICE_HINT}")


def _refuse_finer(value: Fraction, places: int, *, found: str, what: str) -> None:
    if (value * 10**places).denominator != 1:
        raise QuantityError("too_fine", found, f"“{found}” has more decimals than a {what} here can hold")
