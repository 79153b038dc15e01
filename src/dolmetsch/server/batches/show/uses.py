"""What the steps of batches used: kept by each batch in its summary, read of a whole kitchen at once.

Without that a kitchen's every entry would have to be asked for the few that used something.
"""

from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Any, Final

from dolmetsch.server.batches.entries.chain import EntryRows
from dolmetsch.server.batches.models import Batch, UsedLine
from dolmetsch.server.kitchens.models import Kitchen

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
    kept = Batch.objects.filter(kitchen=kitchen).order_by("pk")
    found: list[Use] = []
    unknown: list[int] = []
    for batch, started_at, rows in kept.values_list("pk", "started_at", "summary__used"):
        if rows is None:
            unknown.append(batch)
            continue
        for what, after, grams, count in rows:
            if names is None or what.casefold() in names:
                at = started_at + after * _TICK
                found.append(Use(what=what, at=at, batch=batch, grams=_exact(grams), count=_exact(count)))
    found += [one for one in _read_lines(unknown) if names is None or one.what.casefold() in names]
    return sorted(found, key=lambda one: one.at)


def _read_lines(batches: Sequence[int]) -> Iterator[Use]:
    """Of batches whose summary an older program wrote, which runs beside this one while it is replaced."""
    if not batches:
        return
    lines = UsedLine.objects.filter(entry__batch__in=batches, entry__corrections__isnull=True).order_by("id")
    columns = ("what", "entry__happened_at", "entry__batch_id", "amount_grams", "amount_count")
    for what, at, batch, grams, count in lines.values_list(*columns):
        yield Use(what=what, at=at, batch=batch, grams=_exact(grams), count=_exact(count))


def _text(value: Decimal | None) -> str | None:
    return None if value is None else str(Fraction(value))


def _exact(value: Decimal | str | None) -> Fraction | None:
    return None if value is None else Fraction(value)
