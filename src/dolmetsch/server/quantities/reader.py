"""Reading what was typed: every quantity by the core, all faults gathered and reported at once."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Protocol, TypeVar

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.amounts import Amount, read_amount
from dolmetsch.core.numbers.exact import GRAMS_PER_LB, round_to
from dolmetsch.core.numbers.length import read_length
from dolmetsch.core.numbers.quantity import (
    GRAM_PLACES,
    MAX_GRAMS,
    MONEY_PLACES,
    Price,
    read_money,
    read_number,
    read_price,
    read_weight,
)
from dolmetsch.core.numbers.volumes import Measure, read_measure
from dolmetsch.core.planning.need import LEAST_CHANCE, MOST_CHANCE, USUAL_CHANCE
from dolmetsch.core.reference.spoons import Spoonful
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities import schemas
from dolmetsch.server.quantities.columns import RATIO_PLACES
from dolmetsch.server.quantities.printing import print_weight, sign_of

T = TypeVar("T")
EARLIEST = datetime(2000, 1, 1, tzinfo=UTC)
#: A clock may be wrong by so much; a plan reaches so far.
AHEAD = timedelta(days=1)
FAR_AHEAD = timedelta(days=3652)
MAX_SLICES = Fraction(1_000_000)
#: From so many grams on a number alone is asked about: 100 kg is rather 100 g, and a thousand pounds of one
#: piece is no usual one (ours).
HEAVY_GRAMS = {"kg": Fraction(100_000), "lb": 1_000 * GRAMS_PER_LB, "g": MAX_GRAMS}


class HasUnits(Protocol):
    """Whose unit of weight and currency what is typed is in: a kitchen."""

    weight_unit: str
    currency: str


@dataclass(slots=True)
class Reader:
    """Reads typed quantities, gathering what was understood and what was not.

    ``unit``: the kitchen's; a bare number is in it. ``sign``: that of its money; another one is refused,
    empty: none is. ``scale_grams``: what the kitchen's scale shows steps
    of, unless an entry says otherwise. ``verbatim``: marks stay as they are written and a step needs no
    name (documents).
    """

    unit: str
    sign: str = ""
    scale_grams: Decimal | None = None
    verbatim: bool = False
    readings: list[schemas.ReadQuantity] = field(default_factory=list)
    problems: list[FieldProblem] = field(default_factory=list)

    @classmethod
    def of(cls, kitchen: HasUnits, *, scale_grams: Decimal | None = None, verbatim: bool = False) -> "Reader":
        """A reader of what is typed in ``kitchen``."""
        return cls(
            unit=kitchen.weight_unit,
            sign=sign_of(kitchen.currency),
            scale_grams=scale_grams,
            verbatim=verbatim,
        )

    def refuse(self, path: str, code: str, message: str) -> None:
        """Note a fault at ``path``."""
        self.problems.append(FieldProblem(path=path, code=code, message=message))

    def _try(self, path: str, read: Callable[[], T]) -> T | None:
        try:
            return read()
        except QuantityError as error:
            self.refuse(path, error.reason, str(error))
            return None

    def need(self, path: str, typed: str, message: str) -> bool:
        """Whether something was typed; a fault if not."""
        if not typed:
            self.refuse(path, "missing", message)
        return bool(typed)

    def weight(self, path: str, typed: str, *, bare: bool = True) -> Decimal | None:
        """Grams, or None with a fault noted. ``bare``: a number alone is in the kitchen's unit."""
        if not self.need(path, typed, "A weight is missing."):
            return None
        grams = self._try(path, lambda: read_weight(typed, default_unit=self.unit if bare else None))
        if grams is None or self._asks_unit(path, typed, grams):
            return None
        self.readings.append(schemas.ReadQuantity(path=path, weight=print_weight(grams)))
        return as_decimal(grams, GRAM_PLACES)

    def _asks_unit(self, path: str, typed: str, grams: Fraction) -> bool:
        """Ask for the unit of a number alone that would be a very heavy weight in the kitchen's unit."""
        number = typed.strip()
        is_asked = not self.verbatim and not any(map(str.isalpha, number)) and grams >= HEAVY_GRAMS[self.unit]
        if is_asked:
            small = "g" if self.unit == "kg" else "oz"
            said = f"Is {number} meant in {self.unit}? Write {number} {small}, or {number} {self.unit}."
            self.refuse(path, "which_unit", said)
        return is_asked

    def money(self, path: str, typed: str) -> Decimal | None:
        """Money, or None with a fault noted."""
        if not self.need(path, typed, "A price is missing."):
            return None
        money = self._try(path, lambda: read_money(typed, sign=self.sign))
        return None if money is None else as_decimal(money, MONEY_PLACES)

    def price_by_weight(self, path: str, typed: str) -> Price | None:
        """A price by weight, or None with a fault noted."""
        if not self.need(path, typed, "A price is missing."):
            return None
        price = self._try(path, lambda: read_price(typed, default_unit=self.unit, sign=self.sign))
        if price is not None and price.grams is None:
            self.refuse(path, "unreadable", f"“{typed}” is a price for each; give one by weight")
            return None
        return price

    def number(self, path: str, typed: str, *, what: str, limit: Fraction, places: int) -> Decimal | None:
        """A plain number; None where nothing was typed, or with a fault noted."""
        if not typed:
            return None
        value = self._try(path, lambda: read_number(typed, what=what, limit=limit, places=places))
        return None if value is None else as_decimal(value, places)

    def percent(self, path: str, typed: str, *, what: str, most: int = 100) -> Decimal | None:
        """A ratio from per cent ("12", "12.5 %"), at most ``most``; None where nothing was typed, or with a
        fault noted.
        """
        bare = typed.removesuffix("%").strip()
        value = self.number(path, bare, what=what, limit=Fraction(most), places=RATIO_PLACES - 2)
        return None if value is None else value / 100

    def chance(self, path: str, typed: str) -> float:
        """A chance from per cent, 0.5 to 0.99; nine in ten where nothing was typed, or with a fault noted."""
        ratio = self.percent(path, typed, what="chance in per cent")
        if ratio is None:
            return USUAL_CHANCE
        if not LEAST_CHANCE <= float(ratio) <= MOST_CHANCE:
            self.refuse(path, "too_large", "From 50 to 99 per cent: nobody can be surer.")
            return USUAL_CHANCE
        return float(ratio)

    def length(self, path: str, typed: str) -> Decimal | None:
        """Millimetres, a number alone in inches or centimetres; None where nothing was typed, or with a fault
        noted.
        """
        if not typed:
            return None
        unit = "in" if self.unit == "lb" else "cm"
        millimetres = self._try(path, lambda: read_length(typed, default_unit=unit))
        return None if millimetres is None else round_decimal(millimetres, 2)

    def amount(self, path: str, typed: str) -> Amount | None:
        """An amount of a recipe; None where nothing was typed, or with a fault noted."""
        return self._try(path, lambda: read_amount(typed)) if typed else None

    def measure(self, path: str, typed: str, spoon: Spoonful | None, *, bare: bool = False) -> Measure | None:
        """Grams by weight, volume or packet; None where nothing was typed, or with a fault noted.

        ``bare``: a number alone is in the kitchen's unit.
        """
        if not typed:
            return None
        unit = self.unit if bare else None
        return self._try(path, lambda: read_measure(typed, spoon, default_unit=unit))

    def happened(self, path: str, moment: datetime, *, now: datetime) -> None:
        """A fault where a moment is no time at which something can have happened."""
        if not EARLIEST <= moment <= now + AHEAD:
            self.refuse(path, "odd_time", "That day is in the future, or before the year 2000.")

    def planned(self, path: str, moment: datetime, *, now: datetime) -> None:
        """A fault where a moment is no time for which something can be planned."""
        if not EARLIEST <= moment <= now + FAR_AHEAD:
            self.refuse(path, "odd_time", "That day is over ten years away, or before the year 2000.")

    def frying(self, raw_typed: str, cooked_typed: str) -> tuple[Decimal, Decimal] | None:
        """Grams before and after frying, at ``raw`` and ``cooked``; None with a fault noted."""
        raw, cooked = self.weight("raw", raw_typed), self.weight("cooked", cooked_typed)
        if raw is None or cooked is None:
            return None
        if cooked > raw:
            said = f"“{cooked_typed}” cooked is more than “{raw_typed}” raw; frying only takes away"
            self.refuse("cooked", "overweight", said)
            return None
        return raw, cooked

    def scale(self, path: str, typed: str) -> Decimal | None:
        """The scale's resolution in grams: as typed, else the kitchen's; None where neither is known."""
        if not typed:
            return self.scale_grams
        return self.weight(path, typed, bare=False)

    def slices(self, path: str, typed: str) -> int | None:
        """A count of slices, at least one; None where nothing was typed."""
        value = self.number(path, typed, what="count of slices", limit=MAX_SLICES, places=0)
        if value is not None and value < 1:
            self.refuse(path, "zero", "At least one slice, or leave it empty.")
            return None
        return None if value is None else int(value)


def round_decimal(value: Fraction, places: int) -> Decimal:
    """The decimal nearest to a rational, half to even."""
    return Decimal(round_to(value, places)).scaleb(-places)


def as_decimal(value: Fraction, places: int) -> Decimal:
    """The decimal of a rational that has at most ``places`` decimals, exactly."""
    return Decimal(int(value * 10**places)).scaleb(-places)
