"""The store cupboard: what was bought and counted, less what batches used since."""

from collections import defaultdict
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from decimal import Decimal
from fractions import Fraction
from functools import reduce
from operator import or_
from typing import Final

from django.db.models import Q, Sum
from django.utils import timezone

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.batches.models import UsedLine
from dolmetsch.server.dishes import schemas
from dolmetsch.server.dishes.models import StockNote
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.quantities.printing import print_weight

#: What a batch takes is the mean of the latest that used it.
BATCHES_READ: Final = 5
#: Less than this is said in grams, as curing salt is weighed.
SMALL_GRAMS: Final = 500
#: Enough for fewer batches is low.
LOW_BATCHES: Final = 1
_STOCKED: Final = ("ingredient", "packaging", "fuel")


@dataclass(slots=True)
class Used:
    """What batches used of a thing: when, in which batch, and how much (grams, or a count)."""

    lines: list[tuple[datetime, int, Fraction | None, Fraction | None]] = field(default_factory=list)


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
        notes[note.what.casefold()].append(note)
    used = _find_used(kitchen)
    names: dict[str, str] = {}
    listed = PriceItem.objects.filter(kitchen=kitchen, sort__in=_STOCKED).values_list("name", flat=True)
    for name in (*listed, *(row.what for rows in notes.values() for row in rows)):
        names.setdefault(name.casefold(), name)
    rows = [_show(name, notes.get(key, []), used.get(key, Used()), kitchen) for key, name in names.items()]
    return schemas.CupboardOut(
        stock=sorted(rows, key=lambda one: (not one.is_low, one.left is None, one.what.casefold()))
    )


def _find_used(kitchen: Kitchen) -> dict[str, Used]:
    """What every entry that counts used, by name in small letters."""
    lines = UsedLine.objects.filter(entry__kitchen=kitchen, entry__corrections__isnull=True)
    found: dict[str, Used] = defaultdict(Used)
    rows = lines.order_by("entry__happened_at", "id").values_list(
        "what", "entry__happened_at", "entry__batch_id", "amount_grams", "amount_count"
    )
    for what, at, batch, grams, count in rows:
        found[what.casefold()].lines.append((at, batch, _exact(grams), _exact(count)))
    return found


def _exact(value: Decimal | None) -> Fraction | None:
    return None if value is None else Fraction(value)


def _show(name: str, notes: Sequence[StockNote], used: Used, kitchen: Kitchen) -> schemas.StockOut:
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
    return "" if counted is None else f"counted {timezone.localtime(counted.at):%-d %b}"


def _is_by_weight(notes: Sequence[StockNote], used: Used) -> bool:
    if notes:
        return notes[-1].grams is not None
    return not used.lines or used.lines[-1][2] is not None


def _amount(size: Fraction, *, by_weight: bool) -> Amount:
    return Amount(grams=size) if by_weight else Amount(count=size)


def _sum(used: Used, *, since: datetime | None, by_weight: bool) -> Fraction:
    parts = [
        (grams if by_weight else count) for at, _, grams, count in used.lines if since is None or at > since
    ]
    return sum((part for part in parts if part is not None), Fraction(0))


@dataclass(frozen=True, slots=True, kw_only=True)
class _Stock:
    """What was counted last, and bought since: so much of it, less what was used ``since``."""

    size: Fraction
    since: datetime
    by_weight: bool


def _find_stock(notes: Iterable[StockNote], *, by_weight: bool) -> _Stock | None:
    """The stock that notes, oldest first, come to; None where none of them is by weight, or by count."""
    start, size = None, Fraction(0)
    for note in notes:
        value = _exact(note.grams if by_weight else note.count)
        if value is None:
            continue
        if note.sort == "counted":
            start, size = note.at, value
        else:
            start = start or note.at
            size += value
    return None if start is None else _Stock(size=size, since=start, by_weight=by_weight)


def _count_left(notes: Iterable[StockNote], used: Used, *, by_weight: bool) -> Amount | None:
    """Counted last, and bought since, less what was used since; None where it was never noted."""
    stock = _find_stock(notes, by_weight=by_weight)
    if stock is None:
        return None
    return _amount(stock.size - _sum(used, since=stock.since, by_weight=by_weight), by_weight=by_weight)


def _mean_batch(used: Used, *, by_weight: bool) -> Amount | None:
    """What one of the latest batches that used it took, in the mean."""
    by_batch: dict[int, Fraction] = {}
    for _, batch, grams, count in used.lines:
        value = grams if by_weight else count
        if value is not None:
            by_batch[batch] = by_batch.pop(batch, Fraction(0)) + value
    latest = list(by_batch.values())[-BATCHES_READ:]
    return _amount(sum(latest, Fraction(0)) / len(latest), by_weight=by_weight) if latest else None


def list_left(kitchen: Kitchen, names: Collection[str]) -> dict[str, Amount]:
    """What is left of those of ``names`` that were ever noted, by the name in small letters."""
    notes: dict[str, list[StockNote]] = defaultdict(list)
    for note in StockNote.objects.filter(kitchen=kitchen, what__in=names).order_by("at", "id"):
        notes[note.what.casefold()].append(note)
    stocks = {
        name: stock
        for name, rows in notes.items()
        if (stock := _find_stock(rows, by_weight=_is_by_weight(rows, Used()))) is not None
    }
    if not stocks:
        return {}
    since = reduce(or_, (Q(what=name, entry__happened_at__gt=one.since) for name, one in stocks.items()))
    lines = UsedLine.objects.filter(since, entry__kitchen=kitchen, entry__corrections__isnull=True)
    used: dict[str, dict[bool, Fraction]] = defaultdict(lambda: {True: Fraction(0), False: Fraction(0)})
    # summed by the database: a busy kitchen has salted ten thousand times
    sums = lines.values("what").annotate(grams=Sum("amount_grams"), count=Sum("amount_count"))
    for what, grams, count in sums.values_list("what", "grams", "count"):
        used[what.casefold()][True] += _exact(grams) or Fraction(0)
        used[what.casefold()][False] += _exact(count) or Fraction(0)
    return {
        name: _amount(one.size - used[name][one.by_weight], by_weight=one.by_weight)
        for name, one in stocks.items()
    }
