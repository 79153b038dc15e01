"""All records looked over: sheets and kept sums computed anew, photos, references, the clock."""

import hashlib
from collections.abc import Iterator
from copy import copy
from datetime import timedelta
from typing import Any, Final

from django.apps import apps
from django.db import connection, models
from django.utils import timezone

from dolmetsch.core.errors import DolmetschError
from dolmetsch.server.batches.entries.chain import build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.show.showing import summarize
from dolmetsch.server.books.recount import recount
from dolmetsch.server.diary.models import Photo
from dolmetsch.server.diary.pictures import SIZES, read_file
from dolmetsch.server.kitchens.models import Kitchen

#: The record store's clock and this program's may differ by so much.
CLOCKS: Final = timedelta(seconds=5)
#: A record may be of so long after now: clocks of two devices differ.
AHEAD: Final = timedelta(minutes=10)


def check_records() -> Iterator[str]:
    """What is wrong, a sentence each; nothing where all is well."""
    yield from check_clock()
    yield from check_references()
    for kitchen in Kitchen.objects.order_by("slug"):
        yield from check_sheets(kitchen)
        yield from check_sums(kitchen)
        yield from check_photos(kitchen)


def check_clock() -> Iterator[str]:
    """The record store's clock beside this program's, and records of a time to come."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT UTC_TIMESTAMP(6)")
        there = cursor.fetchone()[0].replace(tzinfo=timezone.now().tzinfo)
    now = timezone.now()
    if abs(there - now) > CLOCKS:
        yield (
            f"The record store's clock says {there:%Y-%m-%d %H:%M:%S}, "
            f"this program's {now:%Y-%m-%d %H:%M:%S}."
        )
    ahead = Entry.objects.filter(recorded_at__gt=now + AHEAD)
    if count := ahead.count():
        last = ahead.order_by("-recorded_at").values_list("recorded_at", flat=True)[0]
        yield (
            f"{count} entries are of a time to come, up to {last:%Y-%m-%d %H:%M}: "
            "the clock was ahead then, or is behind now."
        )


def check_references() -> Iterator[str]:
    """Rows that refer to what is not there."""
    with connection.cursor() as cursor:
        for model in apps.get_models():
            for field in model._meta.concrete_fields:
                if isinstance(field, models.ForeignKey) and field.related_model._meta.managed:
                    yield from _orphans(cursor, model, field)


def _orphans(cursor: Any, model: type[models.Model], field: "models.ForeignKey[Any, Any]") -> Iterator[str]:
    quote = connection.ops.quote_name
    mine, theirs = quote(model._meta.db_table), quote(field.related_model._meta.db_table)
    column, key = quote(str(field.column)), quote(str(field.target_field.column))
    query = (
        f"SELECT COUNT(*) FROM {mine} m LEFT JOIN {theirs} t ON m.{column} = t.{key} "  # noqa: S608
        f"WHERE m.{column} IS NOT NULL AND t.{key} IS NULL"
    )
    cursor.execute(query)
    count = cursor.fetchone()[0]
    if count:
        yield f"{count} rows of {model._meta.db_table} refer by {field.name} to what is not there."


def check_sheets(kitchen: Kitchen) -> Iterator[str]:
    """Every batch recomputed from its entries, beside what it keeps of itself."""
    for batch in Batch.objects.filter(kitchen=kitchen).order_by("pk").iterator(chunk_size=100):
        batch.kitchen = kitchen
        try:
            rows = list_entry_rows(batch)
            costed = cost_chain(build_chain(batch, rows))
        except (DolmetschError, ValueError, LookupError) as error:
            yield f"{kitchen.slug} {batch.code}: its entries cannot be computed: {error}"
            continue
        if batch.last_sequence != max((row.entry.sequence for row in rows), default=0):
            yield f"{kitchen.slug} {batch.code}: it counts {batch.last_sequence} entries and has others."
        anew = copy(batch)
        summarize(anew, costed)
        if (batch.summary, batch.is_finished) != (anew.summary, anew.is_finished):
            yield f"{kitchen.slug} {batch.code}: it keeps another summary than its entries come to."


def check_sums(kitchen: Kitchen) -> Iterator[str]:
    """What the books keep, counted anew."""
    for code in recount(kitchen, is_mending=False).wrong:
        yield f"{kitchen.slug} {code}: the books keep other figures; ./dolmetsch recount --mend renews them."


def check_photos(kitchen: Kitchen) -> Iterator[str]:
    """Every photo's files, by their sum."""
    for digest in sorted(set(Photo.objects.filter(kitchen=kitchen).values_list("digest", flat=True))):
        for size in SIZES:
            content = read_file(digest, size)
            if content is None:
                yield f"{kitchen.slug}: photo {digest[:12]} is missing ({size})."
            elif size == "large" and hashlib.sha256(content).hexdigest() != digest:
                yield f"{kitchen.slug}: photo {digest[:12]} was changed."
