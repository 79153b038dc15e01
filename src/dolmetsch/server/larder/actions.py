"""Writes of the larder: a pack is taken from, placed, opened, canceled; the shelves are counted."""

import uuid
from collections.abc import Callable, Iterable
from dataclasses import replace
from datetime import datetime
from decimal import Decimal
from fractions import Fraction

from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.refusals import OVERWEIGHT_PERCENT
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.slicing.packs import SLACK_GRAMS, Share, take, weigh_again
from dolmetsch.server.batches.entries.typed import BoughtIn, EntryIn, SourceIn, WithdrawIn
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.record.actions import record_within
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder import models, schemas
from dolmetsch.server.larder.of_batch import (
    LEFT_FIELDS,
    core_now,
    core_taking,
    derived,
    follow_lives,
    renew_packs,
    set_life,
    set_now,
    taken_now,
)
from dolmetsch.server.larder.one_pack import get_pack
from dolmetsch.server.larder.queries import list_choices
from dolmetsch.server.pieces.queries import sorts_of
from dolmetsch.server.problems import DomainError, FieldProblem, not_found, refuse_fields
from dolmetsch.server.quantities.printing import as_sentence, print_weight
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once, once

MISSING = "not found when the shelves were counted"
FOUND_AGAIN = "found when the shelves were counted"


def take_from(write: Write, code: str, mark: str, data: schemas.TakingIn) -> models.Taken:
    """Take something out of a pack.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """

    def make() -> models.Taken:
        pack = get_pack(write.kitchen, code, mark)
        reader = Reader.of(write.kitchen)
        row = models.Taken(
            pack=pack,
            fate=data.fate,
            typed=data.weight,
            why=data.why,
            dish=data.dish,
            at=data.at or write.now,
            **write.stamp,
        )
        _read_amount(reader, row, data)
        if data.income:
            row.income = reader.money("income", data.income)
        reader.happened("at", row.at, now=write.now)
        if row.at < pack.packed_at and not reader.problems:
            reader.refuse("at", "odd_time", f"{pack.label} was packed later.")
        _read_into(reader, row, data, write.kitchen)
        if reader.problems:
            raise refuse_fields(reader.problems)
        share = _keep_taken(row)
        if row.into is not None:
            _bring_into(write, row, share)
        pack.now.pack = pack
        return row

    return once(write, lambda: find_taken(write), make)


def _lot_key(taken: models.Taken) -> uuid.UUID:
    """The key of the entry that made a lot of what was taken."""
    return uuid.uuid5(taken.key, f"lot {taken.position}")


def _bring_into(write: Write, row: models.Taken, share: Share) -> None:
    """What was taken becomes a lot of the batch it is used in, and brings its cost along.

    Raises:
        DomainError: bad_fields.
    """
    pack, into = row.pack, row.into
    assert into is not None
    weight = row.typed or f"{fixed(share.grams, 2)} g"
    source = SourceIn(batch=pack.batch.code, piece=pack.piece, weight=weight)
    draft = EntryIn(
        content=BoughtIn(cut=pack.product, source=source), seen=into.last_sequence, happened_at=row.at
    )
    try:
        record_within(replace(write, key=_lot_key(row)), into.code, draft, pack=pack.mark)
    except DomainError as error:
        # what is wrong is wrong of the batch or of the time, whatever field of a purchase it is
        path = "at" if any(one.path == "happened_at" for one in error.fields) else "into"
        said = error.fields[0].message if error.fields else error.detail
        raise refuse_fields([FieldProblem(path=path, code=error.code, message=said)]) from error


def find_taken(write: Write) -> models.Taken | None:
    """What this key took already; None where nothing.

    Raises:
        DomainError: key_reused.
    """
    mine = models.Taken.objects.filter(kitchen=write.kitchen, key=write.key, position=0)
    # nearly every taking is new: what it was of is asked for only where there was one
    if (fingerprint := mine.values_list("fingerprint", flat=True).first()) is None:
        return None
    write.refuse_reused(fingerprint)
    done = mine.select_related("pack__now", "pack__batch").get()
    done.pack.now.pack = done.pack
    return done


def _read_amount(reader: Reader, row: models.Taken, data: schemas.TakingIn) -> None:
    if data.weight and data.slices:
        reader.refuse("slices", "one_amount", "Either slices or a weight, not both.")
    if data.weight:
        row.grams = reader.weight("weight", data.weight)
    row.slices = reader.slices("slices", data.slices)


def _read_into(reader: Reader, row: models.Taken, data: schemas.TakingIn, kitchen: Kitchen) -> None:
    if not data.into:
        return
    if data.fate != "used":
        reader.refuse("into", "one_amount", "Only what is used in a batch names one.")
        return
    row.into = Batch.objects.filter(kitchen=kitchen, code=data.into).first()
    if row.into is None:
        reader.refuse("into", "unknown", f"There is no batch “{data.into}”.")
    elif row.into.pk == row.pack.batch_id:
        reader.refuse("into", "unknown", "A pack is not used in the batch it comes from.")


def _keep_taken(row: models.Taken) -> Share:
    """Write a taking, and what its pack is after it; what was taken.

    Raises:
        DomainError: bad_fields.
    """
    pack = row.pack
    now = pack.now
    now.pack = pack
    before = core_now(now)
    taking = core_taking(row)
    try:
        after = take(before, taking, path="take")
    except LedgerError as error:
        reader = Reader.of(pack.batch.kitchen)
        path = error.field.removeprefix("take.").replace("all", "weight")
        reader.refuse(path, error.reason, as_sentence(error.text))
        raise refuse_fields(reader.problems) from error
    row.save(force_insert=True)
    share = Share(
        grams=before.left_grams - after.left_grams,
        cost=before.left_cost - after.left_cost,
        income=taking.income or Fraction(0),
    )
    taken_now(row, share, row.kitchen).save(force_insert=True)
    set_now(now, after)
    now.save(update_fields=LEFT_FIELDS)
    return share


def take_oldest(
    packs: Iterable[models.PackNow],
    *,
    slices: int | None,
    grams: Fraction,
    row: Callable[[models.Pack], models.Taken],
    first: int,
    income: Decimal | None,
    product: str,
) -> list[models.Taken]:
    """Take ``slices``, or so many ``grams``, out of ``packs``, in their order; within the caller's ``once``.

    ``row`` makes the taking of a pack, its amount apart; they count from ``first`` on. What came in is the
    first one's ``income``.

    Raises:
        DomainError: not_enough.
    """
    taken: list[models.Taken] = []
    left = Fraction(slices) if slices is not None else grams
    for now in packs:
        if left <= 0:
            break
        if slices is not None and not now.left_slices:
            continue
        one = row(now.pack)
        one.position = first + len(taken)
        one.income = income if not taken else None
        left -= _take_part(one, now, left, by_slices=slices is not None)
        _keep_taken(one)
        taken.append(one)
    if left > (0 if slices is not None else SLACK_GRAMS):
        what = f"{int(left)} slices" if slices is not None else f"{fixed(left, 0)} g"
        said = f"The larder has {what} of {product} too little for that; nothing was taken."
        raise DomainError("not_enough", 422, "Not recorded", said)
    return taken


def _take_part(one: models.Taken, now: models.PackNow, wanted: Fraction, *, by_slices: bool) -> Fraction:
    """Set how much ``one`` takes of a pack of what is ``wanted``; how much that is."""
    now.pack.now = now
    one.pack = now.pack
    have = Fraction(now.left_slices or 0) if by_slices else Fraction(now.left_grams)
    part = min(have, wanted)
    if by_slices:
        one.slices = int(part)
    elif part < have:
        one.grams, one.typed = derived(part), f"{fixed(part, 2)} g"
    return part


def cancel_all(write: Write, key: uuid.UUID, reason: str) -> None:
    """Take back all that the write with ``key`` took; within the caller's ``once``."""
    rows = models.Taken.objects.filter(kitchen=write.kitchen, key=key, canceled__isnull=True)
    for row in rows.select_related("pack__batch").order_by("id"):
        stamp = {**write.stamp, "key": uuid.uuid5(write.key, f"taking {row.pk}")}
        _cancel(write, row, reason, stamp)


def move_pack(write: Write, code: str, mark: str, data: schemas.MoveIn) -> models.PackMove:
    """Place a pack elsewhere, or open it.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """

    def make() -> models.PackMove:
        pack = get_pack(write.kitchen, code, mark)
        reader = Reader.of(write.kitchen)
        at = data.at or write.now
        store = _read_store(reader, data, write.kitchen)
        reader.happened("at", at, now=write.now)
        if at < pack.packed_at and not reader.problems:
            reader.refuse("at", "odd_time", f"{pack.label} was packed later.")
        if pack.now.is_gone:
            reader.refuse("sort", "pack_empty", f"Nothing is left of {pack.label}.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        row = models.PackMove.objects.create(pack=pack, sort=data.sort, store=store, at=at, **write.stamp)
        now = pack.now
        now.pack = pack
        set_life(now, follow_lives([pack], sorts_of(write.kitchen))[pack.pk])
        now.save(update_fields=["store", "state", "keep_until"])
        return row

    return keep_once(write, models.PackMove, make)


def weigh_pack(write: Write, code: str, mark: str, data: schemas.WeighedIn) -> models.PackWeighing:
    """Record what a pack weighs now.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """

    def make() -> models.PackWeighing:
        pack = get_pack(write.kitchen, code, mark)
        reader = Reader.of(write.kitchen)
        at = data.at or write.now
        grams = reader.weight("weight", data.weight)
        reader.happened("at", at, now=write.now)
        if at < pack.packed_at and not reader.problems:
            reader.refuse("at", "odd_time", f"{pack.label} was packed later.")
        if pack.now.is_gone:
            reader.refuse("weight", "pack_empty", f"Nothing is left of {pack.label}.")
        left = Fraction(pack.now.book_grams)
        if grams is not None and Fraction(grams) * 100 > left * OVERWEIGHT_PERCENT:
            book = print_weight(left).say(write.kitchen.weight_unit)
            reader.refuse("weight", "overweight", f"By the book {book} is left of it: look at the scale.")
        if reader.problems or grams is None:
            raise refuse_fields(reader.problems)
        row = models.PackWeighing.objects.create(
            pack=pack, grams=grams, typed=data.weight, book_grams=pack.now.book_grams, at=at, **write.stamp
        )
        pack.now.pack = pack
        set_now(pack.now, weigh_again(core_now(pack.now), Fraction(grams)))
        pack.now.save(update_fields=LEFT_FIELDS)
        return row

    return keep_once(write, models.PackWeighing, make)


def _read_store(reader: Reader, data: schemas.MoveIn, kitchen: Kitchen) -> str:
    if data.sort == "opened":
        return ""
    stores = {same_name(store.name): store.name for store in list_choices(kitchen)}
    if same_name(data.store) not in stores:
        reader.refuse("store", "unknown", "Choose a fridge or freezer of the map.")
    return stores.get(same_name(data.store), "")


def cancel_taken(write: Write, taken_id: int, data: schemas.CancelIn) -> models.TakenCanceled:
    """Take a taking back: it did not happen.

    Raises:
        DomainError: not_found, bad_fields, done_already, key_reused.
    """

    def make() -> models.TakenCanceled:
        row = (
            models.Taken.objects.filter(kitchen=write.kitchen, pk=taken_id)
            .select_related("pack__batch")
            .first()
        )
        if row is None:
            raise not_found("such taking")
        return _cancel(write, row, data.reason, write.stamp)

    return keep_once(write, models.TakenCanceled, make)


def _cancel(write: Write, row: models.Taken, reason: str, stamp: dict[str, object]) -> models.TakenCanceled:
    reader = Reader.of(write.kitchen)
    if not reader.need("reason", reason, "Say why: what was recorded stays in the pack's history."):
        raise refuse_fields(reader.problems)
    if models.TakenCanceled.objects.filter(taken=row).exists():
        raise DomainError("done_already", 409, "Not recorded", "That was canceled already.")
    made = models.TakenCanceled.objects.create(taken=row, reason=reason, **stamp)
    lot = Entry.objects.filter(kitchen=write.kitchen, key=_lot_key(row)).select_related("batch").first()
    if lot is not None:
        draft = EntryIn(content=WithdrawIn(), seen=lot.batch.last_sequence, corrects=lot.pk, reason=reason)
        own = replace(write, key=uuid.uuid5(write.key, f"lot {row.pk}"))
        record_within(own, lot.batch.code, draft, pack=row.pack.mark)
    _renew(row.pack.batch, write.kitchen)
    return made


def _renew(batch: Batch, kitchen: Kitchen) -> None:
    batch.kitchen = kitchen
    renew_packs(batch, cost_batch(batch).sheet.ledger.mains)


def cancel_pack(write: Write, code: str, mark: str, data: schemas.CancelIn) -> models.PackCanceled:
    """Take a pack back that was recorded by mistake; nothing may have left it.

    Raises:
        DomainError: not_found, bad_fields, pack_used, key_reused.
    """

    def make() -> models.PackCanceled:
        pack = get_pack(write.kitchen, code, mark)
        reader = Reader.of(write.kitchen)
        if not reader.need("reason", data.reason, "Say why: what was recorded stays in the book."):
            raise refuse_fields(reader.problems)
        if models.Taken.objects.filter(pack=pack, canceled__isnull=True).exists():
            said = f"Something was taken out of {pack.label}. Cancel that first."
            raise DomainError("pack_used", 409, "Not recorded", said)
        made = models.PackCanceled.objects.create(pack=pack, reason=data.reason, **write.stamp)
        _renew(pack.batch, write.kitchen)
        return made

    return keep_once(write, models.PackCanceled, make)


def count_shelves(write: Write, data: schemas.CountIn) -> models.ShelfCount:
    """Record a count of the shelves: what was not there is thrown away by the book, what was is back in it.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """

    def make() -> models.ShelfCount:
        reader = Reader.of(write.kitchen)
        for position, name in enumerate(data.missing):
            pack = get_pack(write.kitchen, name.code, name.mark)
            if pack.now.is_gone:
                said = f"{pack.label} is gone already by the book."
                reader.refuse(f"missing[{position}]", "pack_empty", said)
                continue
            _keep_taken(_lost(write, pack, position, write.now))
        for position, name in enumerate(data.found_again):
            _find_again(write, reader, name, position)
        if reader.problems:
            raise refuse_fields(reader.problems)
        return models.ShelfCount.objects.create(
            expected=data.expected,
            missing=len(data.missing),
            found_again=len(data.found_again),
            **write.stamp,
        )

    return keep_once(write, models.ShelfCount, make)


def _lost(write: Write, pack: models.Pack, position: int, at: datetime) -> models.Taken:
    return models.Taken(
        kitchen=write.kitchen,
        pack=pack,
        fate="discarded",
        why=MISSING,
        at=at,
        recorded_at=write.now,
        recorded_by=write.user,
        key=write.key,
        fingerprint=write.fingerprint,
        position=position,
    )


def _find_again(write: Write, reader: Reader, name: schemas.PackName, position: int) -> None:
    """The last thing taken out of a pack that is gone by the book did not happen."""
    pack = get_pack(write.kitchen, name.code, name.mark)
    last = models.Taken.objects.filter(pack=pack, canceled__isnull=True).order_by("-id").first()
    if not pack.now.is_gone or last is None:
        reader.refuse(f"found_again[{position}]", "here", f"{pack.label} is in the larder already.")
        return
    last.pack = pack
    # a key of its own for each of the rows that this write makes
    key = uuid.uuid5(write.key, f"found {position}")
    _cancel(write, last, FOUND_AGAIN, {**write.stamp, "key": key})
