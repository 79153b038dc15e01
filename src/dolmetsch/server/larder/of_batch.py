"""The packs of a batch: followed by the core, kept for lists, written to its document and read from it."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from fractions import Fraction
from typing import Any, Final, cast

from django.db.models import QuerySet
from django.utils import timezone

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.ledger.batch import Batch as CoreBatch
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.numbers.spelling import same_name, spell_weight
from dolmetsch.core.slicing.keeping import State, keep_until, keeps_like
from dolmetsch.core.slicing.packs import Fate, Pack, PackNow, Share, Stowed, Taking, Weighed, follow_packs
from dolmetsch.server.batches.entries.chain import list_current, list_entry_rows
from dolmetsch.server.batches.entries.raw import list_raw_of
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.models.pack_facts import Json
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder import models
from dolmetsch.server.pieces.queries import Facts, gather_facts, product_of, sorts_of
from dolmetsch.server.pieces.table import customers_of, owners_of
from dolmetsch.server.problems import DomainError
from dolmetsch.server.quantities.lengths import (
    MARK_LENGTH,
    NAME_LENGTH,
    REASON_LENGTH,
    TYPED_LENGTH,
    WORD_LENGTH,
)
from dolmetsch.server.quantities.reader import round_decimal
from dolmetsch.server.writing.once import Write

#: Weights and money that are derived are kept to so many places.
DERIVED_PLACES: Final = 12
DEFAULT_FORM: Final = "whole"


@dataclass(frozen=True, slots=True, kw_only=True)
class Life:
    """Where a pack is and how: the store, its state, and since when it is frozen or chilled."""

    store: str
    state: State
    frozen: date | None
    chilled: date | None


def core_pack(row: models.Pack) -> Pack:
    """A pack as the core reads it."""
    return Pack(id=row.mark, piece=row.piece, grams=Fraction(row.grams), slices=row.slices)


def core_taking(row: models.Taken) -> Taking:
    """A taking as the core reads it."""
    return Taking(
        pack=row.pack.mark,
        fate=cast(Fate, row.fate),
        grams=None if row.grams is None else Fraction(row.grams),
        slices=row.slices,
        income=None if row.income is None else Fraction(row.income),
    )


def core_weighed(row: models.PackWeighing) -> Weighed:
    """A weighing as the core reads it."""
    return Weighed(pack=row.pack.mark, grams=Fraction(row.grams))


def core_now(row: models.PackNow) -> PackNow:
    """A pack as it is now, as the core reads it."""
    left = Fraction(row.book_grams)
    return PackNow(
        pack=core_pack(row.pack),
        cost=Fraction(row.cost),
        left_grams=left,
        left_slices=row.left_slices,
        weighs=Fraction(row.left_grams) / left if left else Fraction(1),
    )


def set_now(row: models.PackNow, now: PackNow) -> None:
    """Note on ``row`` what is left of its pack."""
    row.book_grams, row.left_grams = derived(now.left_grams), derived(now.here_grams)
    row.left_slices, row.left_cost = now.left_slices, derived(now.left_cost)
    row.is_gone = not now.left_grams


#: What of a pack's row changes with what is left of it.
LEFT_FIELDS: Final = ("book_grams", "left_grams", "left_slices", "left_cost", "is_gone")


def find_packs(batch: Batch) -> QuerySet[models.Pack]:
    """The packs of ``batch`` that count, in order."""
    return models.Pack.objects.filter(batch=batch, canceled__isnull=True).order_by("number")


def list_takings(batch: Batch) -> list[models.Taken]:
    """What left the packs of ``batch`` and counts, in order."""
    mine = models.Taken.objects.filter(pack__batch=batch, canceled__isnull=True, pack__canceled__isnull=True)
    return list(mine.select_related("pack").order_by("id"))


def follow_rows(
    mains: Sequence[Piece], packs: Iterable[models.Pack], takings: Iterable[models.Taken]
) -> Stowed:
    """What became of ``mains``, by rows of packs and takings, and what the packs weighed meanwhile.

    Raises:
        LedgerError: they cannot have been made of ``mains``, or what left cannot have.
    """
    made = list(packs)
    rows = models.PackWeighing.objects.filter(pack__in=[row.pk for row in made if row.pk is not None])
    weighings: dict[int, list[models.PackWeighing]] = defaultdict(list)
    for weighed in rows.select_related("pack").order_by("id"):
        weighings[weighed.pack_id].append(weighed)
    happened: list[Taking | Weighed] = []
    # packs do not touch one another: each taking comes after what its own pack weighed before
    for row in takings:
        mine = weighings[row.pack_id]
        while mine and mine[0].recorded_at < row.recorded_at:
            happened.append(core_weighed(mine.pop(0)))
        happened.append(core_taking(row))
    happened += [core_weighed(one) for mine in weighings.values() for one in mine]
    return follow_packs(mains, [core_pack(row) for row in made], happened)


class KnownPacks:
    """What the larder knows of a batch (``PackFacts``)."""

    def renew(self, batch: Batch, mains: Sequence[Piece]) -> None:
        """Follow the packs anew and keep what they come to."""
        renew_packs(batch, mains)

    def follow(self, batch: Batch, mains: Sequence[Piece]) -> Stowed:
        """What became of ``mains``."""
        return follow_rows(mains, find_packs(batch), list_takings(batch))

    def packed(self, batch: Batch, mark: str) -> Fraction:
        """How many grams of the piece ``mark`` are in packs."""
        return sum((Fraction(row.grams) for row in find_packs(batch) if row.piece == mark), Fraction(0))

    def customers(self, batch: Batch, record: CoreBatch, sheet: Sheet) -> frozenset[str]:
        """The final pieces that are customers'."""
        return frozenset(customers_of(batch, record, sheet))

    def write(self, batch: Batch) -> Json:
        """The packs and where they went, as the document has them."""
        unit = batch.kitchen.weight_unit
        packs = [_write_pack(row, unit) for row in find_packs(batch)]
        weighed = models.PackWeighing.objects.filter(pack__batch=batch).values_list("pack", "recorded_at")
        # the earliest of each pack comes last, and stays
        first = dict(weighed.order_by("-recorded_at"))
        gone = [_write_taking(row, unit, weighed=first.get(row.pack_id)) for row in list_takings(batch)]
        return ({"packs": packs} if packs else {}) | ({"gone": gone} if gone else {})

    def read(
        self, write: Write, batch: Batch, document: Json, packs: Sequence[Pack], gone: Sequence[Taking]
    ) -> None:
        """Record the packs of a document and what left them."""
        _refuse_long(document)
        rows = [
            _pack_row(write, batch, one, text, number)
            for number, (one, text) in enumerate(
                zip(packs, document.get("packs") or [], strict=True), start=1
            )
        ]
        keep_packs(write, batch, rows)
        by_mark = {row.mark: row for row in rows}
        models.Taken.objects.bulk_create(
            _taken_row(write, by_mark[one.pack], one, text, position)
            for position, (one, text) in enumerate(zip(gone, document.get("gone") or [], strict=True))
        )


def keep_packs(write: Write, batch: Batch, rows: Iterable[models.Pack]) -> models.Packing:
    """Write packs closed in one go; the batch counts them from now on."""
    packing = models.Packing.objects.create(batch=batch, **write.stamp)
    made = list(rows)
    for row in made:
        row.packing = packing
    models.Pack.objects.bulk_create(made)
    batch.packs_made += len(made)
    Batch.objects.filter(pk=batch.pk).update(packs_made=batch.packs_made)
    return packing


def renew_packs(batch: Batch, mains: Sequence[Piece]) -> None:
    """Keep what the packs of ``batch`` and what left them come to.

    Raises:
        LedgerError: they cannot have been made of ``mains``, or what left cannot have.
    """
    packs, takings = list(find_packs(batch)), list_takings(batch)
    stowed = follow_rows(mains, packs, takings)
    pieces = {piece.id: piece for piece in mains}
    facts = gather_facts([batch])
    owners = {}
    # whose a piece is goes down to what it became
    if any(one.owner for one in facts.values()):
        costed = cost_batch(batch)
        owners = owners_of(batch, costed.chain.batch, costed.sheet)
    raw = list_raw_of(batch, mains, list_current(list_entry_rows(batch)))
    lives = follow_lives(packs, sorts_of(batch.kitchen))
    models.PackNow.objects.filter(pack__batch=batch).delete()
    models.TakenNow.objects.filter(taken__pack__batch=batch).delete()
    rows = []
    for pack in packs:
        now, piece, life = stowed.packs[pack.mark], pieces[pack.piece], lives[pack.pk]
        product = product_of(piece, facts.get((batch.pk, piece.id), Facts()), cut=batch.cut)
        is_raw = piece.id in raw
        row = models.PackNow(
            pack=pack,
            kitchen=batch.kitchen,
            cost=derived(now.cost),
            keeps=keeps_like(piece.kinds, product=product, is_raw=is_raw) or "",
            is_raw=is_raw,
            owner=owners.get(piece.id, ""),
        )
        set_now(row, now)
        set_life(row, life)
        rows.append(row)
    models.PackNow.objects.bulk_create(rows)
    models.TakenNow.objects.bulk_create(
        taken_now(row, share, batch.kitchen) for row, share in zip(takings, stowed.takings, strict=True)
    )


def set_life(row: models.PackNow, life: Life) -> None:
    """Note on ``row`` where its pack is, how, and how long it keeps so."""
    row.store, row.state = life.store, life.state
    packed = timezone.localdate(row.pack.packed_at)
    keeps = cast(Any, row.keeps or None)
    until = keep_until(keeps, life.state, packed=packed, frozen=life.frozen, chilled=life.chilled)
    row.keep_until = None if until is None else until.day


def taken_now(row: models.Taken, share: Share, kitchen: Kitchen) -> models.TakenNow:
    """What a taking came to, to be kept."""
    return models.TakenNow(
        taken=row,
        kitchen=kitchen,
        fate=row.fate,
        product=row.pack.product,
        day=timezone.localdate(row.at),
        grams=derived(share.grams),
        cost=derived(share.cost),
        income=round_decimal(share.income, 4),
    )


def follow_lives(packs: Sequence[models.Pack], sorts: dict[str, str]) -> dict[int, Life]:
    """Where each of ``packs`` is, by its moves; ``sorts``: the sort of each store by its name."""
    moves: dict[int, list[models.PackMove]] = defaultdict(list)
    for move in models.PackMove.objects.filter(pack__in=packs).order_by("at", "id"):
        moves[move.pack_id].append(move)
    return {pack.pk: _follow_life(pack, moves[pack.pk], sorts) for pack in packs}


def _follow_life(pack: models.Pack, moves: Iterable[models.PackMove], sorts: dict[str, str]) -> Life:
    store = pack.store
    frozen = timezone.localdate(pack.packed_at) if is_freezer(store, sorts) else None
    chilled: date | None = None
    is_open = False
    for move in moves:
        day = timezone.localdate(move.at)
        if move.sort == "opened":
            is_open, chilled = True, chilled or day
            continue
        if is_freezer(move.store, sorts):
            frozen, chilled = frozen if is_freezer(store, sorts) else day, None
        elif is_freezer(store, sorts):
            frozen, chilled = None, day
        store = move.store
    was_frozen = chilled is not None and not is_open
    state: State = "frozen" if frozen else "open" if is_open else "thawed" if was_frozen else "chilled"
    return Life(store=store, state=state, frozen=frozen, chilled=chilled)


def is_freezer(store: str, sorts: dict[str, str]) -> bool:
    """Whether what lies in ``store`` is frozen."""
    return sorts.get(same_name(store)) == "freezer"


def derived(value: Fraction) -> Decimal:
    """A derived figure as it is kept."""
    return round_decimal(value, DERIVED_PLACES)


def _write_pack(row: models.Pack, unit: str) -> Json:
    document: Json = {
        "id": row.mark,
        "piece": row.piece,
        "weight": spell_weight(row.typed, unit),
        "slices": row.slices,
        "product": row.product,
        "form": row.form,
        "place": row.store or None,
        "packed_at": row.packed_at.isoformat(),
    }
    return {key: value for key, value in document.items() if value is not None}


def _write_taking(row: models.Taken, unit: str, *, weighed: datetime | None) -> Json:
    """``weighed``: when its pack was weighed again first; None: never."""
    document: Json = {"pack": row.pack.mark, "as": row.fate}
    if row.slices is not None:
        document["slices"] = row.slices
    elif row.grams is not None:
        # of a pack weighed again, by what it weighed as it was made: the document knows no other
        is_after = weighed is not None and weighed < row.recorded_at
        typed = f"{row.now.grams.normalize():f} g" if is_after else row.typed
        document["weight"] = spell_weight(typed, unit)
    else:
        document["all"] = True
    if row.income is not None:
        document["income"] = f"{row.income:.4f}".rstrip("0").rstrip(".")
    for name, text in (("why", row.why), ("dish", row.dish)):
        if text:
            document[name] = text
    return document | {"at": row.at.isoformat()}


def _refuse_long(document: Json) -> None:
    """A name or a weight that is longer than it is kept.

    Raises:
        DomainError: bad_document.
    """
    texts = [
        (f"packs[{number}].{name}", pack[name], most)
        for number, pack in enumerate(document.get("packs") or [])
        for name, most in (("id", MARK_LENGTH), ("weight", TYPED_LENGTH))
    ]
    texts += [
        (f"gone[{number}].weight", one.get("weight") or "", TYPED_LENGTH)
        for number, one in enumerate(document.get("gone") or [])
    ]
    for place, text, most in texts:
        if len(text) > most:
            said = f"{place} is longer than {most} letters. This kitchen's records cannot hold that."
            raise DomainError("bad_document", 422, "Not imported", said)


def _pack_row(write: Write, batch: Batch, pack: Pack, text: Json, number: int) -> models.Pack:
    form = text.get("form")
    product = text.get("product")
    place = text.get("place")
    return models.Pack(
        kitchen=write.kitchen,
        batch=batch,
        number=number,
        mark=pack.id,
        piece=pack.piece,
        product=product[:NAME_LENGTH].strip() if isinstance(product, str) and product.strip() else batch.name,
        form=form if form in models.FORMS else ("slices" if pack.slices else DEFAULT_FORM),
        grams=round_decimal(pack.grams, DERIVED_PLACES),
        typed=text["weight"].strip(),
        slices=pack.slices,
        store=place[:WORD_LENGTH].strip() if isinstance(place, str) else "",
        packed_at=_read_time(text.get("packed_at")) or batch.last_entry_at,
    )


def _taken_row(write: Write, pack: models.Pack, taking: Taking, text: Json, position: int) -> models.Taken:
    why, dish = text.get("why"), text.get("dish")
    return models.Taken(
        kitchen=write.kitchen,
        pack=pack,
        fate=taking.fate,
        grams=None if taking.grams is None else round_decimal(taking.grams, DERIVED_PLACES),
        typed=(text.get("weight") or "").strip(),
        slices=taking.slices,
        income=None if taking.income is None else round_decimal(taking.income, 4),
        why=why[:REASON_LENGTH].strip() if isinstance(why, str) else "",
        dish=dish[:NAME_LENGTH].strip() if isinstance(dish, str) else "",
        at=_read_time(text.get("at")) or pack.packed_at,
        recorded_at=write.now,
        recorded_by=write.user,
        key=pack.packing.key,
        fingerprint=write.fingerprint,
        position=position,
    )


def _read_time(text: object) -> datetime | None:
    """A time of a document that was written by an export; None where it is none."""
    if not isinstance(text, str):
        return None
    try:
        moment = datetime.fromisoformat(text)
    except ValueError:
        return None
    return moment if timezone.is_aware(moment) else None
