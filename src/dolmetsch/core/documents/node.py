"""A value of a document together with its path, so that every refusal can name it."""

import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Final, NoReturn

from dolmetsch.core.documents.strict import Written, printable
from dolmetsch.core.errors import DocumentError
from dolmetsch.core.numbers.exact import GRAMS_PER
from dolmetsch.core.numbers.moment import read_moment
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.core.numbers.temperature import COLDEST_READ, HOTTEST_READ, TemperatureUnit, to_fahrenheit

#: More letters than any quantity needs.
MAX_QUANTITY: Final = 100
_NUMBER: Final = r"[0-9]+(?:\.[0-9]+)?|\.[0-9]+"
_PLAIN: Final = re.compile(rf" *({_NUMBER}) *")
_FIGURE: Final = re.compile(r" *(-?)([0-9]+(?:\.[0-9]+)?) *")
_WEIGHT: Final = re.compile(rf"\s*({_NUMBER})\s*(lb|oz|kg|g)\s*")
_TWO: Final = re.compile(rf"\s*([0-9]+)\s*lb\s*({_NUMBER})\s*oz\s*")
_UNIT_PRICE: Final = re.compile(rf"\s*({_NUMBER})\s*/\s*(lb|oz|kg|g|each)\s*")
_COUNTED: Final = re.compile(rf"\s*({_NUMBER})\s*each\s*")

WEIGHT_FORM: Final = "a weight is text like “4.25 lb”, “4 lb 4 oz”, “68 oz”, “1.93 kg” or “850 g”"
PRICE_FORM: Final = "a unit price is text like “3.49/lb” or “0.15/each”"
MONEY_FORM: Final = "money is text with a plain number, like “31.90”"


@dataclass(frozen=True, slots=True)
class Node:
    """``value`` as found at ``path`` of the document, or of its ``step`` (counted from 1)."""

    value: object
    path: str = ""
    step: int | None = None

    def refuse(self, text: str, *, reason: str = "unreadable") -> NoReturn:
        """Refuse the document because of this value.

        Raises:
            DocumentError: always.
        """
        raise DocumentError(reason, step=self.step, field=self.path, text=text)

    def _at(self, key: str, value: object) -> "Node":
        return Node(value, f"{self.path}.{key}" if self.path else key, self.step)

    def members(self) -> dict[str, object]:
        """The object's members by key, those that are null left out."""
        if not isinstance(self.value, dict):
            self.refuse(f"{self.found} is not an object")
        return {key: value for key, value in self.value.items() if value is not None}

    def find(self, key: str) -> "Node | None":
        """The member ``key``; None where it is absent or null."""
        value = self.members().get(key)
        return None if value is None else self._at(key, value)

    def get(self, key: str) -> "Node":
        """The member ``key``, which has to be there."""
        node = self.find(key)
        if node is None:
            self._at(key, None).refuse("is missing", reason="missing")
        return node

    def children(self) -> list[tuple[str, "Node"]]:
        """The object's members in order."""
        return [(key, self._at(key, value)) for key, value in self.members().items()]

    def items(self, *, empty: bool) -> list["Node"]:
        """The members of a list; an empty one only where ``empty`` says so."""
        if not isinstance(self.value, list):
            self.refuse(f"{self.found} is not a list")
        if not self.value and not empty:
            self.refuse("is an empty list", reason="empty")
        return [Node(value, f"{self.path}[{index}]", self.step) for index, value in enumerate(self.value)]

    @property
    def found(self) -> str:
        """What stands here, short enough for a message."""
        match self.value:
            case str() as text:
                return f"“{printable(text)}”"
            case Written(text=text):
                return f"the number {printable(text)}"
            case bool() as yes:
                return "true" if yes else "false"
            case None:
                return "null"
            case list():
                return "a list"
        return "an object"

    def text(self, *, most: int = 200) -> str:
        """A text that says something."""
        if not isinstance(self.value, str):
            self.refuse(f"{self.found} is not text")
        if len(self.value) > most:
            self.refuse(f"is longer than {most} letters")
        return self.value

    def mark(self) -> str:
        """A piece's id: a text of at least a letter."""
        text = self.text(most=MAX_QUANTITY)
        if not text.strip():
            self.refuse("an id has at least one letter")
        return text

    def one_of(self, *words: str) -> str:
        """One of some fixed words."""
        if self.value not in words:
            self.refuse(f"{self.found} is none of {', '.join(words)}")
        assert isinstance(self.value, str)
        return self.value

    def truth(self) -> bool:
        """true or false."""
        if not isinstance(self.value, bool):
            self.refuse(f"{self.found} is neither true nor false")
        return self.value

    def _quantity(self, form: str) -> str:
        if not isinstance(self.value, str):
            self.refuse(f"{self.found} is not text: {form}")
        if len(self.value) > MAX_QUANTITY:
            self.refuse(f"{self.found} is too long: {form}")
        return self.value

    def weight(self) -> Fraction:
        """A weight above zero, in grams."""
        text = self._quantity(WEIGHT_FORM)
        if two := _TWO.fullmatch(text):
            grams = Fraction(two[1]) * GRAMS_PER["lb"] + Fraction(two[2]) * GRAMS_PER["oz"]
        elif one := _WEIGHT.fullmatch(text):
            grams = Fraction(one[1]) * GRAMS_PER[one[2]]
        else:
            self.refuse(f"{self.found} is not a weight: {WEIGHT_FORM}")
        if not grams:
            self.refuse(f"{self.found} weighs nothing; a weight is above zero", reason="zero")
        return grams

    def money(self) -> Fraction:
        """A sum of money, zero or more."""
        return self.plain(MONEY_FORM)

    def ratio(self, *, zero: bool = True) -> Fraction:
        """A fraction 0–1, above zero where ``zero`` is false."""
        form = "a fraction is text between 0 and 1, like “0.12”"
        value = self.plain(form)
        if value > 1:
            self.refuse(f"{self.found} is more than 1: {form}")
        if not value and not zero:
            self.refuse(f"{self.found} must be above zero", reason="zero")
        return value

    def plain(self, form: str) -> Fraction:
        """A plain decimal text, zero or more; ``form`` says what is wanted."""
        text = self._quantity(form)
        match = _PLAIN.fullmatch(text)
        if match is None:
            self.refuse(f"{self.found} is not a plain number: {form}")
        return Fraction(match[1])

    def number(self, what: str) -> Fraction:
        """A JSON number or decimal text, zero or more, without exponent or sign."""
        form = f"{what} is a number like 12 or “12.5”"
        text = self.value.text if isinstance(self.value, Written) else self._quantity(form)
        match = _PLAIN.fullmatch(text) if len(text) <= MAX_QUANTITY else None
        if match is None:
            self.refuse(f"{self.found} is not a plain number: {form}")
        return Fraction(match[1])

    def figure(self, what: str) -> Fraction:
        """``number`` with a digit before and behind its point, as a cook log has them."""
        value = self.number(what)
        text = self.value.text if isinstance(self.value, Written) else self.value
        if _FIGURE.fullmatch(str(text)) is None:
            self.refuse(f"{self.found} is not a plain number: {what} is a number like 12 or “12.5”")
        return value

    def share(self, what: str) -> Fraction:
        """A JSON number or decimal text from 0 to 1."""
        value = self.number(what)
        if value > 1:
            self.refuse(f"{self.found} is more than 1: {what} is a fraction between 0 and 1")
        return value

    def temperature(self, unit: TemperatureUnit) -> Fraction:
        """A temperature in ``unit``, a JSON number or decimal text; in °F."""
        form = "a temperature is a number like 41.5 or “-2”"
        text = self.value.text if isinstance(self.value, Written) else self._quantity(form)
        match = _FIGURE.fullmatch(text) if len(text) <= MAX_QUANTITY else None
        if match is None:
            self.refuse(f"{self.found} is not a plain number: {form}")
        fahrenheit = to_fahrenheit(Fraction(f"{match[1]}{match[2]}"), unit)
        if not COLDEST_READ <= fahrenheit <= HOTTEST_READ:
            self.refuse(
                f"{self.found} °{unit} is not between −40 and 1000 °F; look at the unit",
                reason="out_of_range",
            )
        return fahrenheit

    def moment(self) -> Fraction:
        """A time with its offset, in seconds since 1970 (UTC)."""
        form = "a time is text like “2026-11-26T09:00:00Z”, with Z or an offset"
        at = read_moment(self._quantity(form))
        if at is None:
            self.refuse(f"{self.found} is not a time: {form}")
        return at

    def whole(self, what: str) -> int:
        """A whole number of at least 1."""
        value = self.number(what)
        if value.denominator != 1 or value < 1:
            self.refuse(f"{self.found}: {what} is a whole number of at least 1", reason="zero")
        return value.numerator

    def unit_price(self) -> Price:
        """A price by weight or each, zero or more."""
        text = self._quantity(PRICE_FORM)
        match = _UNIT_PRICE.fullmatch(text)
        if match is None:
            self.refuse(f"{self.found} is not a price: {PRICE_FORM}")
        paid, unit = Fraction(match[1]), match[2]
        if unit == "each":
            return Price(paid=paid, count=Fraction(1))
        return Price(paid=paid, grams=GRAMS_PER[unit])

    def price(self) -> Price:
        """A unit price, or a bought pack ``{"paid": …, "for": …}``."""
        if not isinstance(self.value, dict):
            return self.unit_price()
        paid, size = self.get("paid").money(), self.get("for")
        counted = _COUNTED.fullmatch(size._quantity(WEIGHT_FORM))
        if counted is None:
            return Price(paid=paid, grams=size.weight(), is_pack=True)
        if not Fraction(counted[1]):
            size.refuse(f"{size.found} is a pack of nothing", reason="zero")
        return Price(paid=paid, count=Fraction(counted[1]), is_pack=True)
