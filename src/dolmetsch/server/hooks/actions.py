"""Writes: a piece is hung, something is noted of it."""

import uuid
from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime
from decimal import Decimal
from fractions import Fraction
from typing import Any

from dolmetsch.core.ledger.course import COURSE_FACTS
from dolmetsch.core.ledger.kinds import method_kinds
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.numbers.quantity import GRAM_PLACES
from dolmetsch.devices.cooker.lines import MOST_PROBES
from dolmetsch.server.batches.entries.chain import STEP_ACTS, list_current, list_entry_rows
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.entries.typed import CutOffIn, EntryIn, PieceIn, SplitIn, WeighIn, WeightIn
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.record.actions import record_within
from dolmetsch.server.batches.record.courses import state_course
from dolmetsch.server.batches.show.queries import cost_batch, get_batch, get_piece
from dolmetsch.server.fires.story import unit_of
from dolmetsch.server.hooks import schemas
from dolmetsch.server.hooks.chambers import chamber_names
from dolmetsch.server.hooks.drying import IN_LOG, find_down, follow_hook, weight_at
from dolmetsch.server.hooks.models import Hook, HookNote
from dolmetsch.server.hooks.queries import find_targets, get_hook, list_hanging
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError, refuse_fields
from dolmetsch.server.quantities.reader import Reader, as_decimal
from dolmetsch.server.quantities.temperatures import read_temperature
from dolmetsch.server.writing.once import Write, keep_once

HIGHEST_PH = Fraction(14)
CELLS = tuple(str(number) for number in range(1, MOST_PROBES + 1))


def hang(write: Write, data: schemas.HangIn) -> Hook:
    """Hang a living piece: the log says so too, and that it is to be dried.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """

    def make() -> Hook:
        batch = get_batch(write.kitchen, data.code)
        piece = get_piece(cost_batch(batch), data.mark)
        reader = Reader.of(write.kitchen)
        hung_at = data.hung_at or write.now
        # as it weighed then is as it was weighed, to the last gram
        then, as_typed = weight_at(batch, data.mark, hung_at)
        typed = data.green or as_typed
        green = reader.weight("green", typed) if data.green else as_decimal(then, GRAM_PLACES)
        target = reader.percent("target", data.target or _usual_target(batch, piece), what="target loss")
        if target is not None and not 0 < target < 1:
            reader.refuse("target", "out_of_range", "A piece loses more than nothing and less than all.")
        reader.happened("hung_at", hung_at, now=write.now)
        hanging = [(one.batch_id, follow_hook(one).mark) for one in list_hanging(write.kitchen)]
        if (batch.pk, data.mark) in hanging:
            reader.refuse("mark", "twice", f"{data.code} {data.mark} hangs already.")
        _refuse_cell(write.kitchen, data, reader)
        if reader.problems or green is None or target is None:
            raise refuse_fields(reader.problems)
        _tell_log(write, batch, piece, typed, hung_at)
        return Hook.objects.create(
            batch=batch,
            mark=data.mark,
            green_grams=green,
            green_typed=typed,
            target_loss=target,
            hung_at=hung_at,
            chamber=data.chamber,
            cell=data.cell,
            **write.stamp,
        )

    return keep_once(write, Hook, make)


def _usual_target(batch: Batch, piece: Piece) -> str:
    course = courses_of(batch, [piece], list_current(list_entry_rows(batch)))[piece.id]
    targets = find_targets(batch.kitchen)
    return targets.get(course or "air_dried", targets["air_dried"])


def _tell_log(write: Write, batch: Batch, piece: Piece, typed: str, hung_at: datetime) -> None:
    """What hangs in the chamber hangs by the log: it is to be dried, and was weighed as it was hung, unless
    the log goes further already.
    """
    current = list_current(list_entry_rows(batch))
    course = courses_of(batch, [piece], current)[piece.id]
    if course is None or not COURSE_FACTS[course].is_dried:
        state_course(write, batch, "air_dried", marks=[piece.id])
    is_hung = "dry" in method_kinds(piece.kinds)
    if is_hung or any(row.entry.happened_at > hung_at for row in current if row.entry.act in STEP_ACTS):
        return
    content = WeighIn(kind="hang", weights=[WeightIn(mark=piece.id, weight=typed)])
    draft = EntryIn(content=content, seen=batch.last_sequence, happened_at=hung_at)
    record_within(replace(write, key=uuid.uuid5(write.key, "hang")), batch.code, draft)


def _refuse_cell(kitchen: Kitchen, data: schemas.HangIn, reader: Reader) -> None:
    """A load cell is one of a chamber that is heard, and holds one piece."""
    if not data.cell:
        return
    if data.cell not in CELLS or data.chamber not in chamber_names(kitchen):
        reader.refuse("cell", "unknown", f"Load cells are 1 to {len(CELLS)}, of a chamber that is heard.")
    elif any((one.chamber, one.cell) == (data.chamber, data.cell) for one in list_hanging(kitchen)):
        reader.refuse("cell", "twice", f"Something hangs on load cell {data.cell} already.")


def write_note(write: Write, hook_id: int, data: schemas.HookNoteIn) -> HookNote:
    """Note something of a hanging piece.

    Raises:
        DomainError: not_found, bad_fields, hook_down, key_reused.
    """

    def make() -> HookNote:
        hook = get_hook(write.kitchen, hook_id)
        if find_down(hook, hook.notes.all()) is not None:
            raise DomainError("hook_down", 409, "Not recorded", f"{hook.label} was taken down already.")
        reader = Reader.of(write.kitchen)
        at = data.at or write.now
        if not hook.hung_at <= at:
            reader.refuse("at", "odd_time", f"{hook.label} was hung later.")
        reader.happened("at", at, now=write.now)
        content = _read(reader, hook, data)
        if reader.problems:
            raise refuse_fields(reader.problems)
        if data.kind == "cut":
            content[IN_LOG] = _cut_in_log(write, hook, content, data.after, at)
        return HookNote.objects.create(hook=hook, at=at, kind=data.kind, data=content, **write.stamp)

    return keep_once(write, HookNote, make)


def _cut_in_log(write: Write, hook: Hook, cut: Mapping[str, Any], after: str, at: datetime) -> int:
    """A cut of what hangs is one of its piece: what came off, and what was hung back; the entry."""
    came_off = Decimal(cut["before"]) - Decimal(cut["after"])
    off = CutOffIn(name="cut while hanging", material="lean", weight=f"{came_off.normalize():f} g")
    content = SplitIn(
        kind="trim",
        piece=follow_hook(hook).mark,
        pieces=[PieceIn(weight=after)],
        cut_off=[off] if came_off else [],
    )
    batch = hook.batch
    draft = EntryIn(content=content, seen=batch.last_sequence, happened_at=at)
    recorded = record_within(replace(write, key=uuid.uuid5(write.key, "cut")), batch.code, draft)
    return recorded.entry.pk


def _read(reader: Reader, hook: Hook, data: schemas.HookNoteIn) -> dict[str, Any]:
    unit = unit_of(hook.batch.kitchen)
    match data.kind:
        case "air":
            temp = read_temperature(reader, "temp", data.temp, unit)
            humidity = reader.percent("humidity", data.humidity, what="humidity")
            if not data.temp and not data.humidity:
                reader.refuse("humidity", "missing", "Humidity, temperature, or both.")
            return {"fahrenheit": _text(temp), "humidity": _text(humidity)}
        case "ph":
            ph = reader.number("ph", data.ph, what="pH", limit=HIGHEST_PH, places=2)
            reader.need("ph", data.ph, "What was the pH?")
            return {"ph": _text(ph)}
        case "ferment":
            reader.need("temp", data.temp, "At what temperature?")
            return {"fahrenheit": _text(read_temperature(reader, "temp", data.temp, unit))}
        case "cut":
            before, after = reader.weight("before", data.before), reader.weight("after", data.after)
            if before is not None and after is not None and after > before:
                reader.refuse("after", "overweight", "It weighs more than before the cut.")
            return {"before": _text(before), "after": _text(after)}
    return {}


def _text(value: Any) -> str | None:
    return None if value is None else f"{value:f}"
