"""Bringing in past batches: one that was brought in before, from this file or another, is left alone."""

import hashlib
import json
import uuid
from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from fractions import Fraction
from typing import Final

from dolmetsch.core.numbers.exact import GRAMS_PER_LB, fixed
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.exchange.importing import draft_document, write_drafted
from dolmetsch.server.batches.forecast.outlooks import put_way
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.history import schemas
from dolmetsch.server.history.models import HistoryFile, HistoryMatch
from dolmetsch.server.history.reading import (
    FaultyBatch,
    PastBatch,
    asks_unit,
    document_of,
    find_day_order,
    find_decimal,
    guess_match,
    noon_of,
    read_batches,
)
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError, FieldProblem
from dolmetsch.server.quantities.printing import print_percent, print_unit_cost, print_weight
from dolmetsch.server.tables.reading import Cell, read_table
from dolmetsch.server.tables.schemas import FaultyRowOut
from dolmetsch.server.tables.uploaded import SAMPLE
from dolmetsch.server.tables.uploading import Counts, TableKind, keep_upload
from dolmetsch.server.ways.queries import list_latest
from dolmetsch.server.writing.once import Write, lock_for

#: More batches than this come in parts.
MOST_ROWS: Final = 5_000
FAULTS_SHOWN: Final = 200
#: Keys of batches brought in follow from what they are.
KEYS: Final = uuid.UUID("0b1d1e5c-0000-4000-8000-000000000000")


def upload(write: Write, *, name: str, content: bytes) -> schemas.HistoryFileOut:
    """Keep an uploaded spreadsheet, ready to be matched; no batch is made.

    Raises:
        DomainError: too_large, bad_file, too_many (rows), key_reused.
    """
    table = read_table(name, content)
    if len(table.rows) > MOST_ROWS:
        said = (
            f"“{name}” holds {len(table.rows)} rows; at most {MOST_ROWS} batches are brought in at once. "
            "Nothing was written. Bring it in in parts."
        )
        raise DomainError("too_many", 413, "Too many rows", said)

    return show_file(keep_upload(write, PAST_BATCHES, table, name=name))


def show_file(kept: HistoryFile) -> schemas.HistoryFileOut:
    """A spreadsheet with the match confirmed, remembered, or guessed."""
    remembered = HistoryMatch.objects.filter(kitchen_id=kept.kitchen_id, digest=_digest(kept.heads)).first()
    match = guess_match(kept.heads)
    if kept.match or remembered is not None:
        match = schemas.HistoryMatchIn.model_validate(kept.match or (remembered and remembered.match))
    return schemas.HistoryFileOut(
        match=match,
        is_remembered=remembered is not None and not kept.match,
        **kept.show_progress(),
    )


def _digest(heads: Sequence[str]) -> str:
    return hashlib.sha256(json.dumps(list(heads)).encode()).hexdigest()


def preview(kept: HistoryFile, match: schemas.HistoryMatchIn, *, today: date) -> schemas.HistoryPreviewOut:
    """What writing the spreadsheet by ``match`` would do; nothing is written."""
    is_unit_asked = asks_unit(match, kept.table)
    is_order_asked = find_day_order(match, kept.table) is None
    answer = schemas.HistoryPreviewOut(
        problems=_find_problems(kept, match),
        sample=[],
        asks_unit=is_unit_asked,
        asks_days=is_order_asked,
    )
    if answer.problems:
        return answer
    reads = _read(kept, match, kept.table, today=today)
    batches = [read for read in reads if isinstance(read, PastBatch)]
    faults = [read for read in reads if isinstance(read, FaultyBatch)]
    answer.faulty = len(faults)
    answer.faults = [
        FaultyRowOut(row=one.row, cells=one.cells, message=one.message) for one in faults[:FAULTS_SHOWN]
    ]
    known = _list_known(kept.kitchen, batches)
    seen: dict[uuid.UUID, int] = {}
    for past in batches:
        key = key_of(kept.kitchen, past)
        is_known = key in known or key in seen
        if key in seen:
            answer.notes.append(f"Row {past.row} is row {seen[key]} again, and is left out.")
        seen.setdefault(key, past.row)
        answer.known += is_known
        answer.new += not is_known
        if len(answer.sample) < SAMPLE:
            answer.sample.append(_show(past, is_known=is_known))
    answer.notes = [*_say_units(kept, match), *answer.notes[:SAMPLE], *_say_ways(kept.kitchen, batches)]
    return answer


def _find_problems(kept: HistoryFile, match: schemas.HistoryMatchIn) -> list[FieldProblem]:
    problems = []
    wanted = (
        ("day", "the day it was begun"),
        ("bought", "the weight as bought"),
        ("slice", "the finished weight"),
    )
    for target, what in wanted:
        if target not in match.columns:
            said = f"Choose the column for {what}."
            problems.append(FieldProblem(path=f"columns.{target}", code="missing", message=said))
    if not {"paid", "price"} & set(match.columns):
        said = "Choose the column for what was paid, or for the price by weight."
        problems.append(FieldProblem(path="columns.paid", code="missing", message=said))
    if "cut" not in match.columns and not match.cut:
        said = "Choose the column for the cut, or type the cut that all of them are."
        problems.append(FieldProblem(path="cut", code="missing", message=said))
    for target, at in match.columns.items():
        if at >= len(kept.heads):
            said = "That column is not in the file."
            problems.append(FieldProblem(path=f"columns.{target}", code="not_found", message=said))
    if problems:
        return problems
    if asks_unit(match, kept.table):
        said = "Say in which unit weights without one are."
        problems.append(FieldProblem(path="unit", code="missing", message=said))
    if find_day_order(match, kept.table) is None:
        said = "Say what 03/04/2026 means here: nothing in the file shows it."
        problems.append(FieldProblem(path="day_first", code="missing", message=said))
    return problems


def _read(
    kept: HistoryFile, match: schemas.HistoryMatchIn, rows: list[list[Cell]], *, today: date
) -> list[PastBatch | FaultyBatch]:
    return list(
        read_batches(
            rows,
            match,
            decimal=find_decimal(match, kept.table),
            day_first=find_day_order(match, kept.table) is not False,
            today=today,
        )
    )


def key_of(kitchen: Kitchen, past: PastBatch) -> uuid.UUID:
    """The key a past batch is written under: the same for the same batch."""
    return uuid.uuid5(KEYS, f"{kitchen.pk}\n{past.identity}")


def _list_known(kitchen: Kitchen, batches: Sequence[PastBatch]) -> set[uuid.UUID]:
    keys = [key_of(kitchen, past) for past in batches]
    return set(Entry.objects.filter(kitchen=kitchen, key__in=keys).values_list("key", flat=True))


def _show(past: PastBatch, *, is_known: bool) -> schemas.PastBatchOut:
    return schemas.PastBatchOut(
        row=past.row,
        name=past.name,
        cut=past.cut,
        day=past.day,
        bought=print_weight(past.bought),
        finished=print_weight(past.finished),
        kept=print_percent(past.finished / past.bought),
        price=print_unit_cost(past.paid * GRAMS_PER_LB / past.finished),
        is_known=is_known,
    )


def _say_units(kept: HistoryFile, match: schemas.HistoryMatchIn) -> list[str]:
    """Where weights of several units stand beside each other."""
    at = match.columns["bought"]
    words: dict[str, int] = {}
    for row in kept.table:
        text = str(row[at + 1]).lower() if at + 1 < len(row) else ""
        unit = next((unit for unit in ("kg", "lb", "oz") if unit in text), match.unit if text.strip() else "")
        if unit:
            words[unit] = words.get(unit, 0) + 1
    if len(words) < 2:
        return []
    listed = ", ".join(f"{count} in {unit}" for unit, count in words.items())
    return [f"Several units in one column: {listed}. Each row is read in its own."]


def _say_ways(kitchen: Kitchen, batches: Sequence[PastBatch]) -> list[str]:
    known = {same_name(way.name) for way in list_latest(kitchen)}
    unknown = sorted({past.way for past in batches if past.way and same_name(past.way) not in known})
    notes = []
    if unknown:
        listed = ", ".join(f"“{way}”" for way in unknown[:4])
        notes.append(f"No method is called {listed}: those batches come in without one.")
    if any(past.minutes for past in batches) and kitchen.labour_rate is not None:
        notes.append("Work is counted at the kitchen’s wage of today.")
    return notes


def _remember(kept: HistoryFile, match: schemas.HistoryMatchIn) -> None:
    HistoryMatch.objects.update_or_create(
        kitchen=kept.kitchen,
        digest=_digest(kept.heads),
        defaults={"match": match.model_dump(mode="json")},
    )


def _write_rows(
    write: Write, kept: HistoryFile, match: schemas.HistoryMatchIn, piece: list[list[Cell]]
) -> Counts:
    # against another cook who brings the same batches in: what is known is looked up under the lock
    lock_for(write.kitchen, write.user, write.origin)
    reads = _read(kept, match, piece, today=write.today)
    batches = [read for read in reads if isinstance(read, PastBatch)]
    known = _list_known(write.kitchen, batches)
    ways = {same_name(way.name): way.name for way in list_latest(write.kitchen)}
    added = 0
    for past in batches:
        key = key_of(write.kitchen, past)
        if key not in known:
            known.add(key)
            _make(replace(write, key=key), past, ways.get(same_name(past.way)))
            added += 1
    return Counts(added=added, known=len(batches) - added, faulty=len(reads) - len(batches))


def _make(write: Write, past: PastBatch, way: str | None) -> None:
    kitchen = write.kitchen
    policy: dict[str, object] = {
        "labour_rate": None if kitchen.labour_rate is None else fixed(Fraction(kitchen.labour_rate), 2),
        "by_products": "credit" if kitchen.credit_by_products else "none",
        "fuel": kitchen.count_fuel,
        "packaging": kitchen.count_packaging,
        "overhead": kitchen.count_overhead,
    }
    drafted = draft_document(write, document_of(past, kitchen.currency, policy, now=write.now))
    # it was over then, whenever it is written down
    drafted.batch.last_entry_at = noon_of(past.ended, now=write.now)
    write_drafted(write, [drafted])
    if way is not None:
        put_way(write, drafted.batch, way)


PAST_BATCHES: Final = TableKind(
    model=HistoryFile,
    noun="spreadsheet",
    piece_rows=50,
    find_problems=_find_problems,
    remember=_remember,
    write_rows=_write_rows,
)
