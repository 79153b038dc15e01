"""Who did what in a kitchen, for its owners: a page at a time, by words, and as a table."""

from collections.abc import Iterable
from typing import Final, Literal

from django.db.models import Q, QuerySet
from django.utils import timezone

from dolmetsch.server.audit.models import AuditRow
from dolmetsch.server.audit.noting import name_record
from dolmetsch.server.batches.entries.chain import list_entry_rows
from dolmetsch.server.batches.entries.describing import describe, label_entry
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.kitchens.models import Kitchen, Membership
from dolmetsch.server.people import schemas
from dolmetsch.server.tables.writing import Row, Tables, write_tables

PAGE: Final = 50
Form = Literal["csv", "xlsx"]
#: So many rows of the latest are exported.
MOST_EXPORTED: Final = 100_000
#: How a row names an entry, before its number.
ENTRY: Final = f"{Entry._meta.verbose_name} "


def read_audit(kitchen: Kitchen, words: str, page: int) -> schemas.AuditPage:
    """The rows of a kitchen that hold every one of ``words``, the latest first."""
    first = (page - 1) * PAGE
    rows = list(_found(kitchen, words)[first : first + PAGE + 1])
    said = _say_entries(kitchen, rows)
    shown = [
        schemas.AuditOut(
            id=row.pk,
            at=row.at,
            who=_who(row),
            outcome=row.outcome,  # type: ignore[arg-type]
            words=row.sentence,
            page=row.page,
            made=said.get(row.made, ""),
            before=said.get(row.before, row.before),
            device=row.device,
            address=row.address,
        )
        for row in rows[:PAGE]
    ]
    return schemas.AuditPage(rows=shown, page=page, has_more=len(rows) > PAGE)


def _say_entries(kitchen: Kitchen, rows: Iterable[AuditRow]) -> dict[str, str]:
    """What the entries say that ``rows`` name: of ``entry 412`` "Trimmed: A 4.19 lb"."""
    named = {name for row in rows for name in (row.made, row.before) if name.startswith(ENTRY)}
    numbers = {int(name.removeprefix(ENTRY)) for name in named}
    batches = Batch.objects.filter(kitchen=kitchen, entries__in=numbers).distinct()
    return {
        name: ": ".join([label_entry(one), *describe(one, kitchen)[:1]])
        for batch in batches
        for one in list_entry_rows(batch)
        if (name := name_record(one.entry)) in named
    }


def write_audit(kitchen: Kitchen, words: str, form: Form) -> bytes:
    """The same rows as CSV or XLSX."""
    heads: Row = ["when", "who", "outcome", "what", "page", "record", "before", "device", "address"]
    tables: Tables = [("Audit", [heads, *_cells(_found(kitchen, words)[:MOST_EXPORTED])])]
    return write_tables(tables, form)


def _cells(rows: Iterable[AuditRow]) -> list[Row]:
    return [
        [
            timezone.localtime(row.at).strftime("%Y-%m-%d %H:%M:%S"),
            _who(row),
            row.outcome,
            row.sentence,
            row.page,
            row.made,
            row.before,
            row.device,
            row.address,
        ]
        for row in rows
    ]


def _found(kitchen: Kitchen, words: str) -> "QuerySet[AuditRow]":
    """Rows of the kitchen, and of signing in and out by who is in it."""
    people = list(Membership.objects.filter(kitchen=kitchen, left_at=None).values_list("user_id", flat=True))
    about = Q(kitchen=kitchen) | Q(kitchen=None, user__in=people)
    rows = AuditRow.objects.select_related("user", "about").filter(about)
    for word in words.split()[:8]:
        rows = rows.filter(
            Q(words__icontains=word)
            | Q(device__icontains=word)
            | Q(made__icontains=word)
            | Q(page__icontains=word)
            | Q(outcome__icontains=word)
            | Q(user__first_name__icontains=word)
            | Q(user__username__icontains=word)
            | Q(about__first_name__icontains=word)
        )
    return rows.order_by("-at", "-id")


def _who(row: AuditRow) -> str:
    if row.user is not None:
        return row.user.called
    return "command line" if row.device == "command line" else "someone not signed in"
