"""What the steps of batches used: kept by each batch in its summary, read of a whole kitchen at once.

Without that a kitchen's every entry would have to be asked for the few that used something.
"""

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from decimal import Decimal
from fractions import Fraction
from operator import itemgetter
from typing import Any, Final

from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.entries.chain import EntryRows
from dolmetsch.server.batches.models import Batch, Entry, UsedLine
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.columns import exact_or_none

#: Times are kept in ticks since the start, the finest that the record store keeps.
_TICK: Final = timedelta(microseconds=1)


@dataclass(frozen=True, slots=True, kw_only=True)
class Use:
    """So much of ``what``, used in ``batch`` at a time: ``grams`` where it was weighed, else a ``count``."""

    what: str
    at: datetime
    batch: int
    grams: Fraction | None
    count: Fraction | None


def keep_uses(batch: Batch, current: Iterable[EntryRows]) -> list[list[Any]]:
    """What ``current``, the entries of ``batch`` that count, used, for its summary: of each line what, when
    (microseconds after the batch began), grams and count.
    """
    return [
        [
            line.what,
            (row.entry.happened_at - batch.started_at) // _TICK,
            _text(line.amount_grams),
            _text(line.amount_count),
        ]
        for row in current
        for line in row.used
    ]


def list_uses(kitchen: Kitchen, names: Collection[str] | None = None) -> list[Use]:
    """All that counts of ``kitchen``, oldest first; of ``names`` alone (in small letters), where given.

    A busy kitchen has salted ten thousand times: what is not asked for is not read as numbers.
    """
    rows: list[tuple[Any, ...]] = []
    unknown: list[int] = []
    batches = Batch.objects.filter(kitchen=kitchen).order_by("pk")
    for batch, started_at, kept in batches.values_list("pk", "started_at", "summary__used"):
        if kept is None:
            unknown.append(batch)
        else:
            rows += [(what, started_at + after * _TICK, batch, *amount) for what, after, *amount in kept]
    # their summary was written by an older program, which runs beside this one while it is replaced
    lines = UsedLine.objects.filter(entry__in=Entry.current.filter(batch__in=unknown)).order_by("id")
    rows += lines.values_list("what", "entry__happened_at", "entry__batch", "amount_grams", "amount_count")
    return [
        Use(what=what, at=at, batch=batch, grams=exact_or_none(grams), count=exact_or_none(count))
        for what, at, batch, grams, count in sorted(rows, key=itemgetter(1))
        if names is None or same_name(what) in names
    ]


def _text(value: Decimal | None) -> str | None:
    return None if value is None else str(Fraction(value))
