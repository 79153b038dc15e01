"""Rows of a spreadsheet as past batches: which column is what, each row read or its fault named."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time
from fractions import Fraction
from typing import Final

from django.utils import timezone

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.exact import GRAMS_PER, fixed
from dolmetsch.core.numbers.listed import (
    DecimalSign,
    guess_decimal,
    read_listed_day,
    read_listed_number,
    refuse_formula,
)
from dolmetsch.core.numbers.quantity import GRAM_PLACES, MONEY_PLACES, read_weight
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.history.schemas import HistoryMatchIn, HistoryTarget
from dolmetsch.server.prices.reading import EARLIEST
from dolmetsch.server.tables.reading import Cell

#: Words in a head that tell what its column is, those asked first that are hardest to mistake.
HEAD_WORDS: Final[dict[HistoryTarget, tuple[str, ...]]] = {
    "slices": ("slices",),
    "minutes": ("minutes", "min"),
    "finished": ("finished", "done", "end", "ready"),
    "day": ("date", "day", "started", "start", "bought on"),
    "source": ("butcher", "source", "supplier", "shop", "from"),
    "trim": ("trimmed", "trim"),
    "cure": ("cured", "cure", "green"),
    "rest": ("rested", "rest"),
    "smoke": ("smoked", "smoke", "cooked"),
    "chill": ("chilled", "chill"),
    "dry": ("dried", "dry", "hung"),
    "slice": ("sliced", "final", "packed", "yield", "out"),
    "price": ("price", "per", "tag"),
    "paid": ("paid", "cost", "total"),
    "bought": ("bought", "purchased", "raw", "weight", "in"),
    "unit": ("unit", "uom"),
    "way": ("method", "recipe", "way"),
    "cut": ("cut", "meat"),
    "name": ("name", "batch", "what", "note"),
}
#: Weights in the order in which they are weighed.
STEPS: Final[tuple[HistoryTarget, ...]] = ("trim", "cure", "rest", "smoke", "chill", "dry", "slice")
#: A step that gains more than this, or a batch that keeps less, has two units mixed up: our own bounds,
#: beyond any brine and below any dried ham.
MOST_GAIN: Final = Fraction(5, 4)
LEAST_KEPT: Final = Fraction(15, 100)
#: A cut is a bit more than what came off the slicer: the ledger's own bound.
MOST_SLICED: Final = Fraction(101, 100)
_UNITS: Final = {
    **dict.fromkeys(("lb", "lbs", "pound", "pounds", "#"), "lb"),
    **dict.fromkeys(("kg", "kgs", "kilo", "kilos", "kilogram", "kilograms"), "kg"),
    **dict.fromkeys(("oz", "ounce", "ounces"), "oz"),
    **dict.fromkeys(("g", "gram", "grams", "gr"), "g"),
}
_LETTERS: Final = re.compile(r"[A-Za-z]")
_SLASHED: Final = re.compile(r"(\d{1,2})/(\d{1,2})/\d{4}")


@dataclass(frozen=True, slots=True, kw_only=True)
class PastBatch:
    """A row that could be read: weights in grams by step in their order, the last one finished."""

    row: int
    name: str
    cut: str
    day: date
    ended: date
    bought: Fraction
    paid: Fraction
    weights: tuple[tuple[HistoryTarget, Fraction], ...]
    slices: int | None
    minutes: Fraction | None
    source: str
    way: str

    @property
    def finished(self) -> Fraction:
        """The last weight."""
        return self.weights[-1][1]

    @property
    def identity(self) -> str:
        """What makes it the same batch: its name, cut, day, weights and price, however they were written."""
        weights = [f"{step} {fixed(grams, 2)}" for step, grams in (("bought", self.bought), *self.weights)]
        words = (
            same_name(self.name),
            same_name(self.cut),
            self.day.isoformat(),
            *weights,
            fixed(self.paid, 2),
        )
        return "\n".join(words)


@dataclass(frozen=True, slots=True, kw_only=True)
class FaultyBatch:
    """A row that could not be read, and why."""

    row: int
    cells: list[str]
    message: str


def guess_match(heads: Sequence[str]) -> HistoryMatchIn:
    """Which column is what and in which unit, by the words in the heads."""
    columns: dict[HistoryTarget, int] = {}
    for target, words in HEAD_WORDS.items():
        for at, head in enumerate(heads):
            if at not in columns.values() and set(re.findall(r"[a-z]+", head.lower())) & set(words):
                columns[target] = at
                break
    units = {
        _UNITS[word]
        for at, head in enumerate(heads)
        if at in columns.values()
        for word in re.findall(r"[a-z]+", head.lower())
        if word in _UNITS
    }
    match = HistoryMatchIn(columns=columns)
    if len(units) == 1:
        match.unit = units.pop()  # type: ignore[assignment]
    return match


def find_decimal(match: HistoryMatchIn, table: Sequence[Sequence[Cell]]) -> DecimalSign:
    """The decimal sign: as chosen, else as guessed from all columns of numbers, else the point."""
    if match.decimal:
        return match.decimal
    numbers = [
        match.columns[target] for target in (*STEPS, "bought", "paid", "price") if target in match.columns
    ]
    cells = (row[at + 1] for row in table for at in numbers if at + 1 < len(row))
    return guess_decimal(cell for cell in cells if isinstance(cell, str)) or "."


def asks_unit(match: HistoryMatchIn, table: Sequence[Sequence[Cell]]) -> bool:
    """Whether weights stand there whose unit nothing says."""
    if match.unit or "unit" in match.columns:
        return False
    weights = [match.columns[target] for target in (*STEPS, "bought") if target in match.columns]
    return any(
        str(row[at + 1]).strip() and not _LETTERS.search(str(row[at + 1]))
        for row in table
        for at in weights
        if at + 1 < len(row)
    )


def find_day_order(match: HistoryMatchIn, table: Sequence[Sequence[Cell]]) -> bool | None:
    """Whether 03/04/2026 is in April: as chosen, else as days over 12 show; None where nothing shows it."""
    if match.day_first is not None:
        return match.day_first
    days = [match.columns[target] for target in ("day", "finished") if target in match.columns]
    firsts, seconds, slashed = False, False, False
    for row in table:
        for at in days:
            found = _SLASHED.fullmatch(str(row[at + 1]).strip()) if at + 1 < len(row) else None
            if found:
                slashed = True
                firsts = firsts or int(found[1]) > 12
                seconds = seconds or int(found[2]) > 12
    if not slashed:
        return True
    return None if firsts == seconds else firsts


def read_batches(
    table: Sequence[Sequence[Cell]],
    match: HistoryMatchIn,
    *,
    decimal: DecimalSign,
    day_first: bool,
    today: date,
) -> Iterator[PastBatch | FaultyBatch]:
    """Each row of ``table`` (its first cell is its number in the file), read or with its fault."""
    for row in table:
        number, cells = int(row[0]), row[1:]
        reader = _RowReader(cells=cells, match=match, decimal=decimal, day_first=day_first, today=today)
        try:
            yield reader.read(number)
        except QuantityError as error:
            yield FaultyBatch(row=number, cells=[str(cell) for cell in cells], message=str(error))


@dataclass(frozen=True, slots=True, kw_only=True)
class _RowReader:
    """One row, read by its match."""

    cells: Sequence[Cell]
    match: HistoryMatchIn
    decimal: DecimalSign
    day_first: bool
    today: date

    def read(self, number: int) -> PastBatch:
        """The batch of the row.

        Raises:
            QuantityError: something in it cannot be read, or does not fit together.
        """
        unit = self._unit()
        bought = self._weight("bought", unit)
        weights = tuple(
            (step, self._weight(step, unit)) for step in STEPS if self._text(step) or step == "slice"
        )
        self._refuse_mixed(bought, weights)
        day = self._day("day")
        ended = self._day("finished") if self._text("finished") else day
        if ended < day:
            raise QuantityError("odd_time", "", f"finished on {ended.isoformat()}, before {day.isoformat()}")
        cut = self._name("cut") or self.match.cut
        if not cut:
            raise QuantityError("missing", "", "the cut is missing")
        return PastBatch(
            row=number,
            name=self._name("name") or cut,
            cut=cut,
            day=day,
            ended=ended,
            bought=bought,
            paid=self._paid(bought, unit),
            weights=weights,
            slices=self._slices(),
            minutes=self._number("minutes", "number of minutes") if self._text("minutes") else None,
            source=self._name("source", longest=60),
            way=self._name("way"),
        )

    def _text(self, target: HistoryTarget) -> str:
        at = self.match.columns.get(target)
        cell = "" if at is None or at >= len(self.cells) else self.cells[at]
        if not isinstance(cell, str):
            return f"{cell:.6f}".rstrip("0").rstrip(".")
        found = cell.strip()
        if found.startswith("'") and found[1:2] in tuple("=+-@"):
            found = found[1:]
        elif found:
            refuse_formula(found)
        return found

    def _name(self, target: HistoryTarget, *, longest: int = 80) -> str:
        text = self._text(target)
        if len(text) > longest or not text.isprintable():
            raise QuantityError(
                "unreadable", text, f"“{text[:30]}…” is not a {target}: at most {longest} plain letters"
            )
        return text

    def _unit(self) -> str:
        text = self._text("unit").lower().rstrip(".")
        if text and text not in _UNITS:
            raise QuantityError("unreadable", text, f"“{text}” is not a unit of weight: lb, oz, kg or g")
        return _UNITS[text] if text else self.match.unit

    def _number(self, target: HistoryTarget, what: str) -> Fraction:
        at = self.match.columns.get(target)
        is_number = at is not None and at < len(self.cells) and not isinstance(self.cells[at], str)
        return read_listed_number(self._text(target), decimal="." if is_number else self.decimal, what=what)

    def _weight(self, target: HistoryTarget, unit: str) -> Fraction:
        text = self._text(target)
        what = {"bought": "weight as bought", "slice": "finished weight"}.get(
            target, f"weight after {target}"
        )
        if not text:
            raise QuantityError("missing", text, f"the {what} is missing")
        if _LETTERS.search(text):
            plain = text.replace(",", ".") if self.decimal == "," else text
            return read_weight(plain)
        if not unit:
            raise QuantityError("missing", text, f"“{text}”, the {what}, has no unit")
        return read_weight(f"{fixed(self._number(target, what), GRAM_PLACES)} {unit}")

    def _paid(self, bought: Fraction, unit: str) -> Fraction:
        if self._text("paid"):
            return self._number("paid", "amount paid")
        if self._text("price"):
            text = self._text("price")
            by = next((_UNITS[word] for word in re.findall(r"[a-z#]+", text.lower()) if word in _UNITS), "")
            number = re.sub(r"(?i)\s*(/|per|a)?\s*[a-z#]+\.?$", "", text) if by else text
            each = read_listed_number(number, decimal=self.decimal, what="price")
            by = by or unit
            if not by:
                raise QuantityError("missing", text, f"“{text}”, the price, is for no unit")
            exact = each * bought / GRAMS_PER[by]
            # a till counts whole cents
            return Fraction(fixed(exact, 2))
        raise QuantityError("missing", "", "what was paid is missing")

    def _day(self, target: HistoryTarget) -> date:
        on = read_listed_day(self._text(target), day_first=self.day_first)
        if not EARLIEST <= on <= self.today:
            raise QuantityError("odd_time", "", f"{on.isoformat()} is in the future, or before the year 2000")
        return on

    def _slices(self) -> int | None:
        text = self._text("slices")
        if not text:
            return None
        if not text.isdigit() or not 0 < int(text) < 1_000_000:
            raise QuantityError("unreadable", text, f"“{text}” is not a number of slices")
        return int(text)

    def _refuse_mixed(self, bought: Fraction, weights: Sequence[tuple[HistoryTarget, Fraction]]) -> None:
        before = bought
        for step, grams in weights:
            most = MOST_SLICED if step == "slice" else MOST_GAIN
            if grams > before * most:
                becomes = f"{fixed(before, 0)} g becomes {fixed(grams, 0)} g after {step}"
                said = f"{becomes}: are pounds and kilograms mixed?"
                raise QuantityError("odd_weight", "", said)
            before = grams
        if before < bought * LEAST_KEPT:
            said = (
                f"of {fixed(bought, 0)} g only {fixed(before, 0)} g are left: are pounds and kilograms mixed?"
            )
            raise QuantityError("odd_weight", "", said)


def noon_of(day: date, *, now: datetime) -> datetime:
    """Noon of a day where they are; of today, no later than ``now``."""
    return min(timezone.make_aware(datetime.combine(day, time(12))), now)


def document_of(
    past: PastBatch, currency: str, policy: dict[str, object], *, now: datetime
) -> dict[str, object]:
    """A past batch as a batch document: bought, a weighing a step, sliced, finished."""
    started, ended = (noon_of(day, now=now).isoformat() for day in (past.day, past.ended))
    steps: list[dict[str, object]] = [
        {"kind": step, "weigh": {"lot": _grams(grams)}, "happened_at": ended}
        for step, grams in past.weights[:-1]
    ]
    sliced: dict[str, object] = {"id": "A", "weight": _grams(past.finished)}
    if past.slices is not None:
        sliced["slices"] = past.slices
    last: dict[str, object] = {"kind": "slice", "split": "lot", "into": [sliced], "happened_at": ended}
    if past.minutes is not None:
        last["minutes"] = fixed(past.minutes, 2)
    lot: dict[str, object] = {
        "id": "lot",
        "cut": past.cut,
        "weight": _grams(past.bought),
        "paid": fixed(past.paid, MONEY_PLACES),
        "bought_at": started,
    }
    if past.source:
        lot["bought_from"] = past.source
    return {
        "format": "dolmetsch-batch/1",
        "name": past.name,
        "currency": currency,
        "policy": policy,
        "lots": [lot],
        "steps": [*steps, last],
        "finished": True,
    }


def _grams(grams: Fraction) -> str:
    return f"{fixed(grams, GRAM_PLACES).rstrip('0').rstrip('.')} g"
