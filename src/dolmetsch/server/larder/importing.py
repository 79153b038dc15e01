"""Packs brought in from a file: the larder's own document, or a table of any spreadsheet with its heads."""

import json
import uuid
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime, time
from fractions import Fraction
from typing import Any, Final

from django.utils import timezone

from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.record.links import share_taken
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder import models, schemas
from dolmetsch.server.larder.board import free_numbers
from dolmetsch.server.larder.files import FORMAT
from dolmetsch.server.larder.of_batch import find_packs, follow_rows, keep_packs, list_takings, renew_packs
from dolmetsch.server.larder.packing import find_overtaken
from dolmetsch.server.larder.queries import list_choices
from dolmetsch.server.problems import DomainError, FieldProblem
from dolmetsch.server.quantities.lengths import MARK_LENGTH, NAME_LENGTH, TYPED_LENGTH
from dolmetsch.server.quantities.printing import as_sentence, print_weight
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.tables.reading import read_records
from dolmetsch.server.writing.kept import Kept
from dolmetsch.server.writing.once import Write, find_kept, once

#: A file has at most so many packs.
MOST_PACKS: Final = 5_000
#: Of packs that are new so many are shown before they are brought in.
SHOWN: Final = 60
_NOON: Final = time(12)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Line:
    """A pack of the file as texts, and where it is there: "row 5", "packs[4]"."""

    path: str
    texts: dict[str, str]

    def text(self, head: str) -> str:
        """What is below a head, without blanks around it."""
        return self.texts.get(head, "").strip()


@dataclass(slots=True, kw_only=True)
class _Found:
    """What a file would bring: packs by their batch, packs that are here already, and what is at fault."""

    rows: dict[Batch, list[models.Pack]] = field(default_factory=dict)
    same: int = 0
    faults: list[FieldProblem] = field(default_factory=list)

    def refuse(self, path: str, code: str, said: str) -> None:
        """Note a fault."""
        self.faults.append(FieldProblem(path=path, code=code, message=said))


def preview_file(kitchen: Kitchen, name: str, content: bytes) -> schemas.PacksFoundOut:
    """What bringing in a file would do; nothing is written.

    Raises:
        DomainError: bad_file, bad_document, too_large.
    """
    found = _read(kitchen, _read_lines(kitchen, name, content))
    rows = [row for packs in found.rows.values() for row in packs]
    return schemas.PacksFoundOut(
        new=len(rows),
        same=found.same,
        packs=[
            schemas.PackFoundOut(
                code=row.batch.code,
                mark=row.mark,
                product=row.product,
                weight=print_weight(Fraction(row.grams)),
                slices=row.slices,
                store=row.store,
            )
            for row in rows[:SHOWN]
        ],
        problems=found.faults,
    )


def import_packs(write: Write, name: str, content: bytes) -> list[Kept]:
    """Record the packs of a file that are not here yet; all of them or none.

    Raises:
        DomainError: bad_file, bad_document, too_large, key_reused.
    """

    def find() -> list[Kept] | None:
        done = find_kept(write, models.Packing)
        return None if done is None else [done]

    def make() -> list[Kept]:
        found = _read(write.kitchen, _read_lines(write.kitchen, name, content))
        if found.faults:
            first = found.faults[0]
            said = f"{first.path}: {first.message}"
            raise DomainError("bad_document", 422, "Not imported", said, found.faults)
        made: list[Kept] = []
        for index, (batch, rows) in enumerate(found.rows.items()):
            key = write.key if index == 0 else uuid.uuid5(write.key, f"batch {index}")
            made.append(keep_packs(replace(write, key=key), batch, rows))
            renew_packs(batch, cost_batch(batch).sheet.ledger.mains)
        return made

    return once(write, find, make)


def _read_lines(kitchen: Kitchen, name: str, content: bytes) -> list[_Line]:
    lines = (
        list(_lines_of_document(kitchen, content))
        if content.lstrip().startswith(b"{")
        else [_Line(path=f"row {number}", texts=texts) for number, texts in read_records(name, content)]
    )
    if not lines:
        raise DomainError("bad_file", 422, "Not imported", f"“{name}” has no packs in it.")
    if len(lines) > MOST_PACKS:
        said = f"“{name}” has more than {MOST_PACKS} packs; bring it in in parts."
        raise DomainError("bad_file", 422, "Not imported", said)
    missing = [head for head in ("batch", "product", "weight") if head not in lines[0].texts]
    if missing:
        said = (
            f"“{name}” has no column “{missing[0]}”. Heads: batch, pack, piece, product, form, packed, weight"
        )
        raise DomainError("bad_file", 422, "Not imported", f"{said}, slices, place.")
    return lines


def _lines_of_document(kitchen: Kitchen, content: bytes) -> Iterator[_Line]:
    try:
        document: Any = json.loads(content)
    except ValueError as error:
        raise DomainError("bad_document", 422, "Not imported", f"This is no JSON: {error}.") from error
    packs = document.get("packs") if isinstance(document, dict) else None
    if not isinstance(packs, list) or document.get("format") != FORMAT:
        said = f"This is no document of a larder: its format is not “{FORMAT}”."
        raise DomainError("bad_document", 422, "Not imported", said)
    unit = document.get("unit")
    for number, pack in enumerate(packs):
        if not isinstance(pack, dict):
            said = f"packs[{number}] is no pack."
            raise DomainError("bad_document", 422, "Not imported", said)
        texts = {key: "" if value is None else str(value) for key, value in pack.items()}
        if unit in ("lb", "kg") and unit != kitchen.weight_unit and texts.get("weight"):
            texts["weight"] += f" {unit}"
        yield _Line(path=f"packs[{number}]", texts=texts)


def _read(kitchen: Kitchen, lines: Iterable[_Line]) -> _Found:
    """The packs of a file as they would be recorded."""
    found = _Found()
    by_code: dict[str, list[_Line]] = defaultdict(list)
    for line in lines:
        by_code[line.text("batch")].append(line)
    batches = {
        batch.code: batch for batch in Batch.objects.filter(kitchen=kitchen, code__in=by_code).order_by("id")
    }
    stores = {same_name(store.name): store.name for store in list_choices(kitchen)}
    for code, mine in by_code.items():
        batch = batches.get(code)
        if batch is None:
            found.refuse(mine[0].path, "unknown", f"There is no batch “{code}” in this kitchen.")
            continue
        batch.kitchen = kitchen
        _read_batch(found, batch, mine, stores)
    return found


def _read_batch(found: _Found, batch: Batch, lines: Sequence[_Line], stores: dict[str, str]) -> None:
    sheet = cost_batch(batch).sheet
    mains = sheet.ledger.mains
    here = {row.mark: row for row in models.Pack.objects.filter(batch=batch)}
    free = free_numbers(batch)
    rows: list[models.Pack] = []
    for line in lines:
        row = _read_pack(found, batch, line, mains, stores)
        if row is None:
            continue
        there = here.get(row.mark)
        if there is not None:
            _compare(found, line, row, there)
            continue
        row.number = next(free)
        row.mark = row.mark or f"P{row.number}"
        if any(other.mark == row.mark for other in rows):
            found.refuse(line.path, "twice", f"{batch.code} {row.mark} is in the file twice.")
            continue
        rows.append(row)
    if not rows:
        return
    found.rows[batch] = rows
    try:
        stowed = follow_rows(mains, [*find_packs(batch), *rows], list_takings(batch))
    except LedgerError as error:
        found.refuse(lines[0].path, error.reason, f"{batch.code}: {as_sentence(error.text)}")
        return
    for mark in find_overtaken(mains, stowed, share_taken(batch, sheet)):
        said = f"{batch.code}: other batches took part of “{mark}”; so much of it is not left to pack."
        found.refuse(lines[0].path, "taken", said)


def _compare(found: _Found, line: _Line, row: models.Pack, there: models.Pack) -> None:
    """A pack whose mark is in the book: the same, or a fault."""
    weights = [print_weight(Fraction(one.grams)) for one in (row, there)]
    if weights[0] == weights[1] and (row.product, row.slices) == (there.product, there.slices):
        found.same += 1
        return
    said = f"{there.label} is in the book already, with other weight, slices or product."
    found.refuse(line.path, "here", said)


def _read_pack(
    found: _Found, batch: Batch, line: _Line, mains: Sequence[Piece], stores: dict[str, str]
) -> models.Pack | None:
    reader = Reader.of(batch.kitchen)
    product, mark, typed = line.text("product"), line.text("pack"), line.text("weight")
    if reader.need("product", product, "The product is missing."):
        for what, text, most in (
            ("product", product, NAME_LENGTH),
            ("pack", mark, MARK_LENGTH),
            ("weight", typed, TYPED_LENGTH),
        ):
            if len(text) > most:
                reader.refuse(what, "too_long", f"The {what} is longer than {most} letters.")
    pieces = {piece.id for piece in mains}
    piece = line.text("piece") or (next(iter(pieces)) if len(pieces) == 1 else "")
    if piece not in pieces:
        reader.refuse("piece", "unknown", f"{batch.code} has no finished piece “{piece}”.")
    grams = reader.weight("weight", typed)
    slices = reader.slices("slices", line.text("slices"))
    form = line.text("form") or ("slices" if slices else "whole")
    if form not in models.FORMS:
        reader.refuse("form", "unknown", f"“{form}” is none of: {', '.join(models.FORMS)}.")
    store = line.text("place")
    if store and same_name(store) not in stores:
        reader.refuse("place", "unknown", f"There is no “{store}” here; add it on the map first.")
    packed_at = _read_day(reader, line.text("packed"))
    for problem in reader.problems:
        found.refuse(line.path, problem.code, problem.message)
    if reader.problems or grams is None:
        return None
    return models.Pack(
        kitchen=batch.kitchen,
        batch=batch,
        mark=mark,
        piece=piece,
        product=product,
        form=form,
        grams=grams,
        typed=typed,
        slices=slices,
        store=stores.get(same_name(store), ""),
        packed_at=packed_at,
    )


def _read_day(reader: Reader, text: str) -> datetime:
    """Noon of a day; now where none is given."""
    now = timezone.now()
    if not text:
        return now
    try:
        day = date.fromisoformat(text[:10])
    except ValueError:
        reader.refuse("packed", "unreadable", f"“{text}” is no day; write it as 2026-11-27.")
        return now
    at = min(timezone.make_aware(datetime.combine(day, _NOON)), now) if day <= timezone.localdate() else None
    if at is None:
        reader.refuse("packed", "odd_time", f"{text} has not come yet.")
        return now
    reader.happened("packed", at, now=now)
    return at
