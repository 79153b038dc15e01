"""The store cupboard: what was bought and counted, less what batches used since."""

from collections import defaultdict
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from fractions import Fraction
from typing import Final

from django.utils import timezone

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.show.uses import Use, list_uses
from dolmetsch.server.dishes import schemas
from dolmetsch.server.dishes.models import StockNote
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.quantities.calendar import print_day
from dolmetsch.server.quantities.columns import exact_or_none
from dolmetsch.server.quantities.printing import print_weight
from dolmetsch.server.writing.kept import called_so

#: What a batch takes is the mean of the latest that used it.
BATCHES_READ: Final = 5
#: Less than this is said in grams, as curing salt is weighed.
SMALL_GRAMS: Final = 500
#: Enough for fewer batches is low.
LOW_BATCHES: Final = 1
_STOCKED: Final = ("ingredient", "packaging", "fuel")


@dataclass(frozen=True, slots=True, kw_only=True)
class Amount:
    """So much by weight, or so many."""

    grams: Fraction | None = None
    count: Fraction | None = None

    @property
    def size(self) -> Fraction:
        """Grams or count, whichever it is."""
        return self.grams if self.grams is not None else self.count or Fraction(0)

    def say(self, unit: str) -> str:
        """In words."""
        if self.grams is not None and self.grams < SMALL_GRAMS:
            return f"{fixed(self.grams, 0)} g"
        if self.grams is not None:
            return print_weight(self.grams).say(unit)
        return fixed(self.count or Fraction(0), 1).removesuffix(".0")


def read_cupboard(kitchen: Kitchen) -> schemas.CupboardOut:
    """Everything that was noted, used, or has a price."""
    notes: dict[str, list[StockNote]] = defaultdict(list)
    for note in StockNote.objects.filter(kitchen=kitchen).order_by("at", "id"):
        notes[same_name(note.what)].append(note)
    used = _find_used(kitchen)
    names: dict[str, str] = {}
    listed = PriceItem.objects.filter(kitchen=kitchen, sort__in=_STOCKED).values_list("name", flat=True)
    for name in (*listed, *(row.what for rows in notes.values() for row in rows)):
        names.setdefault(same_name(name), name)
    rows = [_show(name, notes.get(key, []), used.get(key, []), kitchen) for key, name in names.items()]
    return schemas.CupboardOut(
        stock=sorted(rows, key=lambda one: (not one.is_low, one.left is None, one.what.casefold()))
    )


def _find_used(kitchen: Kitchen, names: Collection[str] | None = None) -> dict[str, list[Use]]:
    """What was used of each thing, or of ``names`` alone, by its name in small letters, oldest first."""
    found: dict[str, list[Use]] = defaultdict(list)
    for use in list_uses(kitchen, names):
        found[same_name(use.what)].append(use)
    return found


def _show(name: str, notes: Sequence[StockNote], used: Sequence[Use], kitchen: Kitchen) -> schemas.StockOut:
    unit = kitchen.weight_unit
    by_weight = _is_by_weight(notes, used)
    left = _count_left(notes, used, by_weight=by_weight)
    a_batch = _mean_batch(used, by_weight=by_weight)
    batches = None
    if left is not None and a_batch is not None and a_batch.size:
        batches = max(0, int(left.size / a_batch.size))
    since = notes[-1].at if notes else None
    spent = _sum(used, since=since, by_weight=by_weight)
    counted = next((one for one in reversed(notes) if one.sort == "counted"), None)
    is_below = left is not None and left.size < 0
    return schemas.StockOut(
        what=name[:40],
        left=None if left is None else _amount(max(left.size, Fraction(0)), by_weight=by_weight).say(unit),
        used=_amount(spent, by_weight=by_weight).say(unit),
        a_batch=None if a_batch is None else a_batch.say(unit),
        batches=batches,
        is_low=left is not None and (is_below or (batches is not None and batches < LOW_BATCHES)),
        noted_on=None if since is None else timezone.localdate(since),
        note=_note(counted, is_below=is_below),
    )


def _note(counted: StockNote | None, *, is_below: bool) -> str:
    if is_below:
        return "More was used than was bought: count it."
    return "" if counted is None else f"counted {print_day(counted.at)}"


def _is_by_weight(notes: Sequence[StockNote], used: Sequence[Use]) -> bool:
    if notes:
        return notes[-1].grams is not None
    return not used or used[-1].grams is not None


def _amount(size: Fraction, *, by_weight: bool) -> Amount:
    return Amount(grams=size) if by_weight else Amount(count=size)


def _sum(used: Sequence[Use], *, since: datetime | None, by_weight: bool) -> Fraction:
    parts = [(use.grams if by_weight else use.count) for use in used if since is None or use.at > since]
    return sum((part for part in parts if part is not None), Fraction(0))


@dataclass(frozen=True, slots=True, kw_only=True)
class _Stock:
    """What was counted last, and bought since: so much of it, less what was used ``since``."""

    size: Fraction
    since: datetime


def _find_stock(notes: Iterable[StockNote], *, by_weight: bool) -> _Stock | None:
    """The stock that notes, oldest first, come to; None where none of them is by weight, or by count."""
    start, size = None, Fraction(0)
    for note in notes:
        value = exact_or_none(note.grams if by_weight else note.count)
        if value is None:
            continue
        if note.sort == "counted":
            start, size = note.at, value
        else:
            start = start or note.at
            size += value
    return None if start is None else _Stock(size=size, since=start)


def _count_left(notes: Iterable[StockNote], used: Sequence[Use], *, by_weight: bool) -> Amount | None:
    """Counted last, and bought since, less what was used since; None where it was never noted."""
    stock = _find_stock(notes, by_weight=by_weight)
    if stock is None:
        return None
    return _amount(stock.size - _sum(used, since=stock.since, by_weight=by_weight), by_weight=by_weight)


def _mean_batch(used: Sequence[Use], *, by_weight: bool) -> Amount | None:
    """What one of the latest batches that used it took, in the mean."""
    by_batch: dict[int, Fraction] = {}
    for use in used:
        value = use.grams if by_weight else use.count
        if value is not None:
            by_batch[use.batch] = by_batch.pop(use.batch, Fraction(0)) + value
    latest = list(by_batch.values())[-BATCHES_READ:]
    return _amount(sum(latest, Fraction(0)) / len(latest), by_weight=by_weight) if latest else None


def list_left(kitchen: Kitchen, names: Collection[str]) -> dict[str, Amount]:
    """What is left of those of ``names`` that were ever noted, by the name in small letters."""
    notes: dict[str, list[StockNote]] = defaultdict(list)
    for note in called_so(StockNote.objects.filter(kitchen=kitchen), names, column="what").order_by(
        "at", "id"
    ):
        notes[same_name(note.what)].append(note)
    used = _find_used(kitchen, notes) if notes else {}
    left = {
        name: _count_left(rows, used.get(name, []), by_weight=_is_by_weight(rows, []))
        for name, rows in notes.items()
    }
    return {name: amount for name, amount in left.items() if amount is not None}
