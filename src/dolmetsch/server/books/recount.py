"""The recount: what finished batches keep for the books, beside what their entries come to now."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Final

from django.db import transaction

from dolmetsch.server.batches.entries.chain import build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.forecast.derived import KEPT_SUMS, Summed, derive_sums, renew
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.writing.once import lock_kitchen

#: Floats that were kept and read again differ by less than this.
SAME: Final = 1e-12
_ROWS_OWN: Final = frozenset({"id", "batch"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Recounted:
    """How many batches were counted anew, and the codes of those that kept something else."""

    batches: int
    wrong: list[str]


def recount(kitchen: Kitchen, *, is_mending: bool) -> Recounted:
    """Count every batch of ``kitchen`` anew and compare; with ``is_mending``, renew those that differ."""
    wrong, counted = [], 0
    for pk in Batch.objects.filter(kitchen=kitchen).order_by("id").values_list("pk", flat=True):
        # read and compared under the lock: a write in between would look like a difference
        with transaction.atomic():
            lock_kitchen(kitchen)
            batch = Batch.objects.get(pk=pk)
            batch.kitchen = kitchen
            costed = cost_chain(build_chain(batch, list_entry_rows(batch)))
            expected = derive_sums(batch, costed) if batch.is_finished else {kind: [] for kind in KEPT_SUMS}
            counted += 1
            if all(_is_same(kind, batch, expected[kind]) for kind in KEPT_SUMS):
                continue
            wrong.append(batch.code)
            if is_mending:
                renew(batch, costed)
    return Recounted(batches=counted, wrong=wrong)


def _is_same(kind: type[Summed], batch: Batch, expected: list[Any]) -> bool:
    kept: list[Any] = list(kind._default_manager.filter(batch=batch))
    if len(kept) != len(expected):
        return False
    ours, theirs = sorted(map(_values, kept), key=repr), sorted(map(_values, expected), key=repr)
    return all(_agree(mine, other) for mine, other in zip(ours, theirs, strict=True))


def _values(row: Summed) -> tuple[Any, ...]:
    return tuple(_list_values(row))


def _list_values(row: Summed) -> Iterator[Any]:
    for field in row._meta.concrete_fields:
        if field.name not in _ROWS_OWN:
            yield field.value_from_object(row)


def _agree(mine: tuple[Any, ...], other: tuple[Any, ...]) -> bool:
    return all(
        abs(one - two) <= SAME if isinstance(one, float) and isinstance(two, float) else one == two
        for one, two in zip(mine, other, strict=True)
    )
