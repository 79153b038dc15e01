"""Writes: starting a batch, and recording an entry in it. One transaction each, append-only."""

import uuid
from dataclasses import dataclass, replace
from datetime import datetime
from decimal import Decimal
from fractions import Fraction

from dolmetsch.core.costing.strip import label_kind
from dolmetsch.core.errors import LedgerError
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.quantity import MONEY_PLACES
from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.entries.chain import (
    Act,
    CostedBatch,
    EntryRows,
    build_chain,
    cost_chain,
    fetch_cooks,
    list_current,
    list_entry_rows,
)
from dolmetsch.server.batches.entries.describing import describe, label_entry
from dolmetsch.server.batches.entries.reading import read_content
from dolmetsch.server.batches.forecast.derived import renew
from dolmetsch.server.batches.forecast.forecasting import keep_forecast
from dolmetsch.server.batches.models import Batch, Entry, ExtraLine, UsedLine, Weighing
from dolmetsch.server.batches.record.links import refuse_taken_twice, renew_downstream, renew_upstream
from dolmetsch.server.batches.record.order import refuse_before_purchase
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError, not_found, refuse_fields
from dolmetsch.server.quantities.printing import as_sentence
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, once

#: What only tells how a batch is judged changes no forecast.
_TERMS = (Entry.Act.PORTION, Entry.Act.SHOP_PACK, Entry.Act.FRY)


@dataclass(frozen=True, slots=True, kw_only=True)
class Recorded:
    """The entry that was made, or had been by the same key (``was_there``); its batch is as it is now."""

    entry: Entry
    was_there: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Draft:
    """An entry read and costed in its place, nothing written.

    ``reader`` holds the faults. ``costed`` is None where they leave nothing to cost; it is there
    where only the reason or the time is wrong.
    """

    rows: EntryRows
    reader: Reader
    costed: CostedBatch | None


def start_batch(write: Write, draft: typed.StartIn) -> Recorded:
    """Start a batch with what was bought.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def start() -> Recorded:
        drafted = draft_start(write.kitchen, draft, now=write.now)
        if drafted.reader.problems or drafted.costed is None:
            raise refuse_fields(drafted.reader.problems)
        drafted.rows.entry.batch.code = next_code(write.kitchen, draft.bought.cut)
        recorded = save_entry(write, [drafted.rows], drafted.costed)
        renew_upstream([drafted.rows])
        if not draft.course:
            return recorded
        said = typed.EntryIn(
            content=typed.CourseIn(course=draft.course), seen=1, happened_at=draft.happened_at
        )
        # what was bought is what the key made; what it is to become has one of its own
        own = replace(write, key=uuid.uuid5(write.key, "course"))
        return replace(recorded, entry=record_within(own, recorded.entry.batch.code, said).entry)

    return once(write, lambda: find_done(write), start)


def record_entry(write: Write, code: str, draft: typed.EntryIn) -> Recorded:
    """Record an entry, or the correction of one, in batch ``code``.

    Raises:
        DomainError: not_found, bad_fields, moved_on (others recorded since ``draft.seen``),
            breaks_later (a correction that later entries contradict), key_reused.
    """

    return once(write, lambda: find_done(write), lambda: record_within(write, code, draft))


def record_within(write: Write, code: str, draft: typed.EntryIn, *, pack: str = "") -> Recorded:
    """``record_entry`` within the caller's ``once``; ``pack``: the pack of the larder it is about, whose own
    record the caller makes.

    Raises:
        DomainError: not_found, bad_fields, moved_on, breaks_later, bad_correction.
    """
    batch = get_batch(write.kitchen, code)
    rows = list_entry_rows(batch)
    for row in rows:
        if row.entry.recorded_by_id == write.user.pk:
            # most entries are of who writes now: the others' names alone are read
            row.entry.recorded_by = write.user
    refuse_moved_on(rows, seen=draft.seen, kitchen=write.kitchen)
    drafted = draft_entry(batch, rows, draft, now=write.now, pack=pack)
    if drafted.reader.problems or drafted.costed is None:
        raise refuse_fields(drafted.reader.problems)
    recorded = save_entry(write, [*rows, drafted.rows], drafted.costed)
    renew_downstream(batch)
    renew_upstream([*rows, drafted.rows])
    return recorded


def new_batch(kitchen: Kitchen, draft: typed.StartIn, *, now: datetime) -> Batch:
    """An unsaved batch that counts what the kitchen counts now."""
    return Batch(
        kitchen=kitchen,
        name=draft.name,
        started_at=draft.happened_at or now,
        labour_rate=kitchen.labour_rate,
        credit_by_products=kitchen.credit_by_products,
        count_fuel=kitchen.count_fuel,
        count_packaging=kitchen.count_packaging,
        count_overhead=kitchen.count_overhead,
    )


def draft_start(kitchen: Kitchen, draft: typed.StartIn, *, now: datetime) -> Draft:
    """The first entry of a batch to be, read and costed."""
    batch = new_batch(kitchen, draft, now=now)
    reader = Reader.of(kitchen, scale_grams=kitchen.scale_grams)
    entry = Entry(batch=batch, sequence=1, happened_at=batch.started_at)
    rows = read_content(reader, entry, draft.bought, taken=set())
    reader.need("name", draft.name, "Give the batch a name.")
    reader.happened("happened_at", entry.happened_at, now=now)
    costed = None
    if rows.lot is not None:
        try:
            refuse_taken_twice(rows.lot, own=batch, beside=())
            costed = cost_chain(build_chain(batch, [rows]))
        except LedgerError as error:
            reader.refuse(_path_in(draft.bought, error.field), error.reason, as_sentence(error.text))
    return Draft(rows=rows, reader=_below(reader, "bought", own=("name", "happened_at")), costed=costed)


def _below(reader: Reader, stem: str, *, own: tuple[str, ...]) -> Reader:
    """The reader with its paths put below ``stem``, those of ``own`` apart."""
    for reading in reader.readings:
        reading.path = f"{stem}.{reading.path}"
    for problem in reader.problems:
        if problem.path not in own:
            problem.path = f"{stem}.{problem.path}"
    return reader


def draft_entry(
    batch: Batch, rows: list[EntryRows], draft: typed.EntryIn, *, now: datetime, pack: str = ""
) -> Draft:
    """An entry in its place among ``rows``, read and costed; ``pack``: the pack of the larder it is about.

    Raises:
        DomainError: not_found (the entry to correct), breaks_later, bad_correction.
    """
    root = _find_root(rows, draft, pack=pack)
    others = [row for row in rows if root is None or row.root_sequence != root.sequence]
    entry = Entry(
        batch=batch,
        sequence=rows[-1].entry.sequence + 1,
        corrects=root,
        reason=draft.reason,
        happened_at=draft.happened_at or (now if root is None else root.happened_at),
    )
    reader = Reader.of(batch.kitchen, scale_grams=batch.kitchen.scale_grams)
    candidate = read_content(reader, entry, draft.content, taken=_marks_of(others))
    if candidate.lot is not None:
        candidate.lot.from_pack = pack
    is_readable = not reader.problems
    if root is not None:
        reader.need("reason", draft.reason, "Give a reason: the wrong entry stays in the log.")
    elif draft.reason:
        reader.refuse("reason", "no_correction", "Only a correction carries a reason.")
    reader.happened("happened_at", entry.happened_at, now=now)
    if not any(one.path == "happened_at" for one in reader.problems):
        refuse_before_purchase(reader, entry, others)
    if not is_readable:
        return Draft(rows=candidate, reader=reader, costed=None)
    try:
        if candidate.lot is not None:
            refuse_taken_twice(candidate.lot, own=batch, beside=others)
        chain = build_chain(batch, [*rows, candidate])
    except LedgerError as error:
        reader.refuse(_path_in(draft.content, error.field), error.reason, as_sentence(error.text))
        return Draft(rows=candidate, reader=reader, costed=None)
    try:
        costed = cost_chain(chain)
    except LedgerError as error:
        blamed = chain.step_entries[error.step - 1] if error.step else candidate
        if blamed is not candidate:
            raise _breaks_later(blamed, error) from error
        reader.refuse(_path_in(draft.content, error.field), error.reason, as_sentence(error.text))
        return Draft(rows=candidate, reader=reader, costed=None)
    return Draft(rows=candidate, reader=reader, costed=costed)


def _find_root(rows: list[EntryRows], draft: typed.EntryIn, *, pack: str) -> Entry | None:
    if draft.corrects is None:
        if draft.content.act == "withdraw":
            said = "Choose the entry to cancel."
            raise DomainError("bad_correction", 422, "Not recorded", said)
        return None
    row = next((row for row in rows if row.entry.id == draft.corrects), None)
    if row is None:
        raise not_found("such entry of this batch")
    if row.lot is not None and row.lot.from_pack != pack:
        said = f"This came out of pack {row.lot.from_pack}: cancel it there, in the larder."
        raise DomainError("bad_correction", 422, "Not recorded", said)
    root = row.entry.corrects or row.entry
    if draft.content.act == "withdraw":
        if root.act == Act.BOUGHT and root.sequence == 1:
            said = "The purchase starts the batch and cannot be canceled; correct it instead."
            raise DomainError("bad_correction", 422, "Not recorded", said)
    elif draft.content.act != str(root.act):
        said = f"A correction has to be the same kind of entry: this one is “{root.act}”."
        raise DomainError("bad_correction", 422, "Not recorded", said)
    return root


def _marks_of(others: list[EntryRows]) -> set[str]:
    """Marks made by those of ``others``, the entries beside the one being drafted, that count."""
    made: set[str] = set()
    return made.union(*(marks_made(row) for row in list_current(others)))


def marks_made(row: EntryRows) -> set[str]:
    """Marks that an entry makes: of a lot, of what was cut, of what came together."""
    lot: set[str] = set() if row.lot is None else {row.lot.mark}
    is_made = row.entry.act in (Act.SPLIT, Act.MERGE)
    return lot | ({line.mark for line in row.weighings} if is_made else set())


def _breaks_later(blamed: EntryRows, error: LedgerError) -> DomainError:
    place = f"“{label_kind(blamed.entry.kind)}” (entry {blamed.entry.sequence})"
    said = f"This would make {place} impossible: {error.text}. Correct or cancel that one first."
    return DomainError("breaks_later", 422, "Not recorded", said)


def _path_in(content: typed.Content, text: str) -> str:
    """The core's field as a path of the body: ``into[3].weight`` as ``cut_off[1].weight``."""
    head, _, tail = text.partition(".")
    if isinstance(content, typed.WeighIn) and head == "weigh":
        marks = [line.mark for line in content.weights]
        return f"weights[{marks.index(tail)}].weight" if tail in marks else "weights"
    if isinstance(content, typed.BoughtIn):
        tail = text.partition("].")[2] or text
        return {"id": "mark"}.get(tail, tail)
    if isinstance(content, typed.MergeIn):
        return {"merge": "pieces", "into.id": "into.mark"}.get(text, text)
    if not isinstance(content, typed.SplitIn):
        return text
    if head in ("split", "into"):
        return {"split": "piece", "into": "pieces"}[head]
    if head.startswith("into["):
        index = int(head[5:-1])
        staying = len(content.pieces)
        name = {"id": "mark", "worth": "price"}.get(tail, tail)
        return f"pieces[{index}].{name}" if index < staying else f"cut_off[{index - staying}].{name}"
    return text


def refuse_moved_on(rows: list[EntryRows], *, seen: int, kitchen: Kitchen) -> None:
    """Refuse where others recorded after ``seen``, and say what.

    Raises:
        DomainError: moved_on.
    """
    news = [row for row in rows if row.entry.sequence > seen]
    if not news:
        return
    fetch_cooks(news)
    changes = [
        f"{row.entry.recorded_by.called} recorded “{label_entry(row)}”: {'; '.join(describe(row, kitchen))}"
        for row in news
    ]
    said = "Someone else recorded in this batch meanwhile. Look at it, then record yours if it still holds."
    raise DomainError("moved_on", 409, "The batch has moved on", said, changes=changes)


def next_code(kitchen: Kitchen, cut: str) -> str:
    """The kitchen's next code for a cut: its initial and a number, like J-07."""
    letter = next((sign for sign in cut.upper() if "A" <= sign <= "Z"), "X")
    codes = Batch.objects.filter(kitchen=kitchen, code__startswith=f"{letter}-").values_list(
        "code", flat=True
    )
    highest = max((int(code[2:]) for code in codes if code[2:].isdigit()), default=0)
    return f"{letter}-{highest + 1:02d}"


def find_done(write: Write) -> Recorded | None:
    """What this key has made already; None where nothing.

    Raises:
        DomainError: key_reused.
    """
    made = Entry.objects.filter(kitchen=write.kitchen, key=write.key)
    # nearly every write is new: the columns of an entry and its batch are asked for only where there is one
    if (fingerprint := made.values_list("fingerprint", flat=True).first()) is None:
        return None
    write.refuse_reused(fingerprint)
    entry = made.select_related("batch").get()
    entry.batch.kitchen = write.kitchen
    return Recorded(entry=entry, was_there=True)


def save_entry(write: Write, rows: list[EntryRows], costed: CostedBatch) -> Recorded:
    """Write the last of ``rows`` and what the batch keeps of itself, within the caller's ``once``."""
    fresh = rows[-1]
    entry, batch = fresh.entry, fresh.entry.batch
    batch.last_entry_at, batch.last_sequence = write.now, entry.sequence
    if fresh.root_sequence == 1:
        batch.started_at = entry.happened_at
    if batch._state.adding:
        # the entry refers to it; what it comes to follows
        batch.save(force_insert=True)
    _write_entry(write, fresh, costed, key=write.key)
    renew(batch, costed)
    if entry.act not in _TERMS:
        keep_forecast(entry, costed, now=write.now)
    return Recorded(entry=entry, was_there=False)


def save_drafted(
    write: Write, batch: Batch, rows: list[EntryRows], keys: list[uuid.UUID], costed: CostedBatch
) -> None:
    """Write a batch that was drafted whole, within a transaction of the caller's.

    It is recorded when all is over (a document), so no forecast is kept: it would be none.
    """
    batch.save(force_insert=True)
    for row, key in zip(rows, keys, strict=True):
        _write_entry(write, row, costed, key=key)
    renew(batch, costed)


def _write_entry(write: Write, row: EntryRows, costed: CostedBatch, *, key: uuid.UUID) -> None:
    """Write an entry and its lines."""
    entry = row.entry
    entry.batch, entry.kitchen = entry.batch, write.kitchen
    entry.recorded_at, entry.recorded_by = write.now, write.user
    entry.key, entry.fingerprint = key, write.fingerprint
    entry.save(force_insert=True)
    if row.lot is not None and row.lot.from_batch is not None:
        # of a batch that was drafted, the key is known only now
        row.lot.from_batch = row.lot.from_batch
        mine = next(lot for lot in costed.chain.batch.lots if lot.id == row.lot.mark)
        carried = sum([money for _, money in mine.carried], Fraction(0))
        row.lot.carried_then = Decimal(fixed(carried, MONEY_PLACES))
    kept = (row.lot, row.portion, row.shop_pack, row.fry, row.policy)
    singles = [line for line in kept if line is not None]
    for line in (*singles, *row.weighings, *row.used, *row.extras):
        line.entry = entry
    for line in singles:
        line.save(force_insert=True)
    if row.weighings:
        Weighing.objects.bulk_create(row.weighings)
    if row.used:
        UsedLine.objects.bulk_create(row.used)
    if row.extras:
        ExtraLine.objects.bulk_create(row.extras)
