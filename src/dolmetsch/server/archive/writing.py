"""A kitchen as a ZIP: its records, each batch as document and page, every list, the photos, the schemas."""

import hashlib
import io
import json
import tempfile
import zipfile
from collections.abc import Iterator
from datetime import datetime
from typing import IO, Any, Final

from django.db import models, transaction
from django.utils import timezone

from dolmetsch.core.documents.answers import SCHEMAS
from dolmetsch.server.archive.lists import LISTS, write_list
from dolmetsch.server.archive.tables import Row, columns_of, list_tables, rows_of, write_value
from dolmetsch.server.batches.entries.chain import build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.exchange.exporting import export_batch
from dolmetsch.server.batches.exchange.papers.page import write_page
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.showing import show_batch
from dolmetsch.server.batches.verdict.show_verdict import show_verdict
from dolmetsch.server.diary.models import Photo
from dolmetsch.server.diary.pictures import SIZES, read_file
from dolmetsch.server.kitchens.models import Kitchen, User

FORMAT: Final = "dolmetsch-kitchen/1"
#: What a kitchen is set to; its name and address stay those of the kitchen it is brought into.
SETTINGS: Final = (
    *("weight_unit", "currency", "labour_rate", "credit_by_products", "count_fuel", "count_packaging"),
    *("count_overhead", "scale_grams", "fridge_slabs", "smoker_slabs", "temperature_unit", "time_zone"),
    *("decimal_sign", "helpers_see_money", "country"),
)
#: Archives up to this size are put together in memory.
IN_MEMORY: Final = 20_000_000
#: One time for all files: the same kitchen gives the same bytes.
_STAMP: Final = (2000, 1, 1, 0, 0, 0)
README: Final = """\
{name}: everything, as of {day}

records/    every record of the kitchen, a table a file, a row a line (JSON Lines). Rows are numbered from 1
            within their table; a column that refers to another table holds the number of a row there.
            Weights are grams, money is in {currency}, both as decimal strings; times are ISO 8601.
people.json who recorded them, by first name. kitchen.json what the kitchen is set to.
batches/    each batch as an open document (dolmetsch-batch/1) and as a page to read in a browser.
lists/      every list as CSV and as XLSX.
photos/     the photos of the diary, by their digest.
schemas/    JSON Schemas of the documents.
manifest.json names every file with its SHA-256.

An empty kitchen is filled from this file under Books, In and out; all figures then come out the same.
Links of tastings and passwords are not in it.
"""


class _Zip:
    """A ZIP being written, with the digest of every file for its manifest."""

    def __init__(self, into: IO[bytes]) -> None:
        self._zip = zipfile.ZipFile(into, "w", zipfile.ZIP_DEFLATED)
        self.digests: dict[str, str] = {}

    def add(self, path: str, content: bytes) -> None:
        """Add a file."""
        self.digests[path] = hashlib.sha256(content).hexdigest()
        self._zip.writestr(zipfile.ZipInfo(path, _STAMP), content, zipfile.ZIP_DEFLATED)

    def close(self, manifest: Row) -> None:
        """End with the manifest."""
        content = _json({**manifest, "files": self.digests})
        self._zip.writestr(zipfile.ZipInfo("manifest.json", _STAMP), content, zipfile.ZIP_DEFLATED)
        self._zip.close()


def write_archive(kitchen: Kitchen, now: datetime) -> IO[bytes]:
    """The whole kitchen, at its beginning to be read; one look at the records, nothing written meanwhile."""
    into = tempfile.SpooledTemporaryFile(max_size=IN_MEMORY)  # noqa: SIM115 (whoever reads it closes it)
    archive = _Zip(into)
    day = timezone.localdate(now).isoformat()
    readme = README.format(name=kitchen.name, day=day, currency=kitchen.currency)
    archive.add("README.txt", readme.encode())
    archive.add("kitchen.json", _json({name: write_value(getattr(kitchen, name)) for name in SETTINGS}))
    with transaction.atomic():
        # held, so that all tables are of one moment
        Kitchen.objects.select_for_update().get(pk=kitchen.pk)
        _add_records(archive, kitchen)
    for name in LISTS:
        for form in ("csv", "xlsx"):
            archive.add(f"lists/{name}.{form}", write_list(kitchen, name, form))
    for batch in Batch.objects.filter(kitchen=kitchen).order_by("pk").iterator(chunk_size=100):
        _add_batch(archive, batch, kitchen, now)
    for digest in sorted(set(Photo.objects.filter(kitchen=kitchen).values_list("digest", flat=True))):
        for size in SIZES:
            picture = read_file(digest, size)
            if picture is not None:
                archive.add(f"photos/{digest}.{size}.jpg", picture)
    for path in sorted(SCHEMAS.glob("*.json")):
        archive.add(f"schemas/{path.name}", path.read_bytes())
    archive.close({"format": FORMAT, "made_at": now.isoformat(), "kitchen": kitchen.name})
    into.seek(0)
    return into


def _json(value: Any) -> bytes:
    return (json.dumps(value, ensure_ascii=False, indent=1) + "\n").encode()


def _add_records(archive: _Zip, kitchen: Kitchen) -> None:
    people: dict[int, int] = {}
    numbers: dict[type[models.Model], dict[Any, int]] = {}
    for model in list_tables():
        numbers[model] = {}
        out = io.BytesIO()
        for row in rows_of(model, kitchen).iterator(chunk_size=2_000):
            numbers[model][row.pk] = len(numbers[model]) + 1
            content = {"row": numbers[model][row.pk], **dict(_write_row(row, numbers, people))}
            out.write(json.dumps(content, ensure_ascii=False, separators=(",", ":")).encode() + b"\n")
        archive.add(f"records/{model._meta.db_table}.jsonl", out.getvalue())
    names = User.objects.in_bulk(list(people))
    archive.add("people.json", _json([names[pk].called for pk in sorted(people, key=lambda pk: people[pk])]))


def _write_row(
    row: models.Model, numbers: dict[type[models.Model], dict[Any, int]], people: dict[int, int]
) -> Iterator[tuple[str, Any]]:
    for field in columns_of(type(row)):
        value = field.value_from_object(row)
        if value is not None and isinstance(field, models.ForeignKey):
            if field.related_model is User:
                value = people.setdefault(value, len(people) + 1)
            else:
                value = numbers[field.related_model][value]
        yield field.name, write_value(value)


def _add_batch(archive: _Zip, batch: Batch, kitchen: Kitchen, now: datetime) -> None:
    batch.kitchen = kitchen
    rows = list_entry_rows(batch)
    costed = cost_chain(build_chain(batch, rows))
    shown, verdict = show_batch(batch, rows, costed), show_verdict(batch, rows, costed, now=now)
    archive.add(f"batches/{batch.code}.json", export_batch(batch))
    archive.add(f"batches/{batch.code}.html", write_page(shown, verdict, kitchen=kitchen, now=now).encode())
