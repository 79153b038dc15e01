"""Amounts of a recipe as a cook tells them: in per cent of the meat, by weight, or by the spoon."""

import re
from dataclasses import dataclass
from fractions import Fraction
from math import floor
from typing import Final

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.numerals import tidy
from dolmetsch.core.numbers.quantity import read_number, read_weight
from dolmetsch.core.reference.spoons import TEASPOONS, Spoonful

#: More than twice the meat is no amount of anything but water.
MAX_SHARE: Final = Fraction(3)
AMOUNT_HINT: Final = "write it like 2.5 %, 11 g/lb, 25 g for 1 kg or 1 tbsp/lb"

_SPOON_WORDS: Final = {
    **dict.fromkeys(("tsp", "teaspoon", "teaspoons"), "tsp"),
    **dict.fromkeys(("tbsp", "tablespoon", "tablespoons"), "tbsp"),
    **dict.fromkeys(("cup", "cups"), "cup"),
}
_NUMBER = r"[0-9]+(?:\.[0-9]+)?|\.[0-9]+"
_SPOONS = re.compile(rf"({_NUMBER}|[0-9]+\s*/\s*[0-9]+|[0-9]+\s+[0-9]+/[0-9]+)\s*([a-z]+)\.?")
_FOR = re.compile(r"\s*(?:/|\bper\b|\bfor\b|\ba\b)\s*")


@dataclass(frozen=True, slots=True, kw_only=True)
class Amount:
    """How much of something goes with a gram of meat: a ``share`` in grams, or ``teaspoons``. Just one."""

    share: Fraction | None = None
    teaspoons: Fraction | None = None

    def share_by(self, spoon: Spoonful | None) -> Fraction:
        """Grams for a gram of meat, spoons turned into weight by what ``spoon`` weighs.

        Raises:
            QuantityError: measured by the spoon, and what a spoon of it weighs is not known.
        """
        if self.share is not None:
            return self.share
        assert self.teaspoons is not None
        if spoon is None:
            said = "what a spoon of it weighs is not known; say which kind it is, or give it by weight"
            raise QuantityError("no_spoon", "", said)
        return self.teaspoons * spoon.grams


def read_amount(text: str) -> Amount:
    """An amount from ``2.5``, ``2.5 %``, ``11 g/lb``, ``25 g for 1 kg``, ``1 cup for 10 lb``.

    A number alone is in per cent of the meat.

    Raises:
        QuantityError: unreadable, or a weight or spoons without saying for how much meat.
    """
    found = text.strip()
    bare = tidy(found)
    if bare.startswith("-"):
        raise QuantityError("negative", found, f"“{found}” is below zero; an amount cannot be")
    if re.fullmatch(rf"({_NUMBER})\s*%?", bare):
        percent = read_number(bare.removesuffix("%").strip(), what="share", limit=MAX_SHARE * 100, places=6)
        return Amount(share=percent / 100)
    return _read_for(found, bare)


def _read_for(found: str, bare: str) -> Amount:
    """Parted at the last sign that can part it, so that "1/2 tsp/lb" is read."""
    for parting in reversed(list(_FOR.finditer(bare))):
        grams = _weight(bare[parting.end() :]) or _weight(f"1 {bare[parting.end() :]}")
        if grams is not None:
            return _read_what(found, bare[: parting.start()], grams)
    if _SPOONS.fullmatch(bare) or _weight(bare):
        raise QuantityError("for_how_much", found, f"“{found}” for how much meat? {AMOUNT_HINT}")
    raise QuantityError("unreadable", found, f"“{found}” is not an amount: {AMOUNT_HINT}")


def _read_what(found: str, what: str, grams: Fraction) -> Amount:
    spoons = _SPOONS.fullmatch(what)
    if spoons is not None and spoons[2] in _SPOON_WORDS:
        teaspoons = _number(spoons[1], found) * TEASPOONS[_SPOON_WORDS[spoons[2]]]
        return Amount(teaspoons=teaspoons / grams)
    weight = _weight(what)
    if weight is None:
        raise QuantityError("unreadable", found, f"“{found}” is not an amount: {AMOUNT_HINT}")
    if weight > grams * MAX_SHARE:
        raise QuantityError("too_large", found, f"“{found}” is more than three times the meat")
    return Amount(share=weight / grams)


def _weight(text: str) -> Fraction | None:
    try:
        return read_weight(text)
    except QuantityError:
        return None


def _number(text: str, found: str) -> Fraction:
    whole, _, part = text.rpartition(" ")
    try:
        value = Fraction(part.replace(" ", "")) + (Fraction(whole) if whole.strip() else 0)
    except (ValueError, ZeroDivisionError):
        raise QuantityError("unreadable", found, f"“{found}” is not an amount: {AMOUNT_HINT}") from None
    if value > 1000:
        raise QuantityError("too_large", found, f"“{found}” is more spoons than anybody counts")
    return value


#: The smallest measuring spoon, in teaspoons.
SMALLEST_SPOON: Final = Fraction(1, 4)


def count_spoons(grams: Fraction, spoon: Spoonful) -> Fraction:
    """Level teaspoons of ``grams``, to the nearest quarter."""
    return round(grams / spoon.grams / SMALLEST_SPOON) * SMALLEST_SPOON


def count_full_spoons(grams: Fraction, spoon: Spoonful) -> Fraction:
    """Level teaspoons of curing salt in ``grams``, rounded down to the quarter so that none is added; 0: less
    than the smallest spoon holds.
    """
    return floor(grams / spoon.grams / SMALLEST_SPOON) * SMALLEST_SPOON


def say_spoons(teaspoons: Fraction) -> str:
    """Teaspoons as one measures them: "1 cup 2 tbsp 1¼ tsp", or "less than ¼ tsp"."""
    if teaspoons < SMALLEST_SPOON:
        return "less than ¼ tsp"
    cups, rest = divmod(teaspoons, TEASPOONS["cup"])
    table, tea = divmod(rest, TEASPOONS["tbsp"])
    whole, part = divmod(tea, 1)
    quarters = {0: "", 1: "¼", 2: "½", 3: "¾"}[int(part * 4)]
    said = [f"{cups} cup{'s' if cups > 1 else ''}"] if cups else []
    said += [f"{table} tbsp"] if table else []
    said += [f"{whole or ''}{quarters} tsp"] if tea else []
    return " ".join(said)
