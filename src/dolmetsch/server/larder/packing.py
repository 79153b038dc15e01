"""A slicing and the packs closed with it: as they would be, and recorded in one go."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from fractions import Fraction
from typing import Final

from django.utils import timezone

from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.ledger.refusals import OVERWEIGHT_PERCENT
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.quantity import GRAM_PLACES
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.slicing.packs import Share, Stowed
from dolmetsch.server.batches.entries.chain import (
    CostedBatch,
    EntryRows,
    build_chain,
    cost_chain,
    list_entry_rows,
)
from dolmetsch.server.batches.entries.describing import plain
from dolmetsch.server.batches.entries.typed import EntryIn, SplitIn
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.record.actions import Draft, draft_entry, refuse_moved_on, save_entry
from dolmetsch.server.batches.record.links import share_taken
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder import schemas
from dolmetsch.server.larder.board import free_numbers, show_unpacked
from dolmetsch.server.larder.models import Pack, Packing
from dolmetsch.server.larder.of_batch import (
    find_packs,
    follow_rows,
    keep_packs,
    list_takings,
    renew_packs,
)
from dolmetsch.server.larder.queries import list_choices
from dolmetsch.server.problems import FieldProblem, refuse_fields
from dolmetsch.server.quantities.printing import (
    as_sentence,
    print_money,
    print_money_or_none,
    print_unit_cost,
    print_weight,
)
from dolmetsch.server.quantities.reader import Reader, round_decimal
from dolmetsch.server.quantities.schemas import Weight
from dolmetsch.server.writing.once import Write, keep_once

#: So little of what is cut sticks to knife and board.
NEXT_TO_NOTHING: Final = Fraction(1, 100)


@dataclass(slots=True, kw_only=True)
class Drafted:
    """A slicing and its packs, read and costed, nothing written; ``faults`` where something cannot be."""

    rows: list[EntryRows]
    slicing: Draft | None
    costed: CostedBatch | None
    packs: list[Pack | None]
    stowed: Stowed | None
    reader: Reader
    cut: "Cut | None"
    taken: dict[str, Share] = field(default_factory=dict)

    @property
    def faults(self) -> list[FieldProblem]:
        """What is at fault, the slicing's below ``split``."""
        slicing = [] if self.slicing is None else self.slicing.reader.problems
        return [*(_below_split(one) for one in slicing), *self.reader.problems]


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """How far a slicing has come: weight and slices of each product's packs by its mark, and what is left of
    the piece that is cut.
    """

    grams: dict[str, Fraction]
    slices: dict[str, int | None]
    left: Fraction
    whole: Fraction

    def slice_grams(self, mark: str) -> Fraction | None:
        """What a slice of the packs of ``mark`` weighs; None where they were not counted."""
        count = self.slices.get(mark)
        return self.grams[mark] / count if count else None


def _measure_cut(batch: Batch, data: schemas.PackingIn, rows: list[EntryRows]) -> Cut:
    """How far the slicing has come; what cannot be read is left out, it is refused at its place."""
    assert data.split is not None
    reader = Reader.of(batch.kitchen)
    grams: dict[str, Fraction] = {}
    slices: dict[str, int | None] = {}
    for one in data.packs:
        weight, count = reader.weight("", one.weight), reader.slices("", one.slices)
        before = slices.get(one.piece, 0)
        grams[one.piece] = grams.get(one.piece, Fraction(0)) + Fraction(weight or 0)
        slices[one.piece] = None if before is None or count is None else before + count
    given = [piece.weight for piece in data.split.pieces] + [one.weight for one in data.split.cut_off]
    others = sum((Fraction(reader.weight("", text) or 0) for text in given if text), Fraction(0))
    packed = sum(
        (grams.get(piece.mark, Fraction(0)) for piece in data.split.pieces if not piece.weight), Fraction(0)
    )
    mains = cost_chain(build_chain(batch, rows)).sheet.ledger.mains
    whole = next((piece.grams for piece in mains if piece.id == data.split.piece), Fraction(0))
    return Cut(grams=grams, slices=slices, whole=whole, left=max(Fraction(0), whole - others - packed))


def _fill_split(split: SplitIn, data: schemas.PackingIn, cut: Cut, kitchen: Kitchen) -> SplitIn:
    """The slicing with weight and slices of its products as their packs have them."""
    pieces = []
    for index, piece in enumerate(split.pieces):
        packed = cut.grams.get(piece.mark, Fraction(0))
        grams = packed if data.is_done or index else packed + cut.left
        filled = piece
        if not piece.weight and grams:
            filled = filled.model_copy(update={"weight": f"{plain(round_decimal(grams, GRAM_PLACES))} g"})
        each = cut.slice_grams(piece.mark)
        if not piece.slices and each:
            # of all of it so many as its packs have by weight
            whole = Fraction(Reader.of(kitchen).weight("", piece.weight) or 0) if piece.weight else grams
            filled = filled.model_copy(update={"slices": str(max(1, int(whole / each)))})
        pieces.append(filled)
    return split.model_copy(update={"pieces": pieces})


def _show_left(cut: Cut | None) -> Weight | None:
    """What of the piece is on no scale yet; None where that is next to nothing."""
    if cut is None or not cut.left:
        return None
    return print_weight(cut.left) if cut.left > cut.whole * NEXT_TO_NOTHING else None


def _below_split(problem: FieldProblem) -> FieldProblem:
    path = problem.path if problem.path == "happened_at" else f"split.{problem.path}"
    return problem.model_copy(update={"path": path})


def draft_packing(batch: Batch, data: schemas.PackingIn, rows: list[EntryRows]) -> Drafted:
    """A slicing and its packs as they would be.

    Raises:
        DomainError: breaks_later.
    """
    now = timezone.now()
    reader = Reader.of(batch.kitchen)
    slicing, costed, cut = None, None, None
    if data.split is not None:
        cut = _measure_cut(batch, data, rows)
        split = _fill_split(data.split, data, cut, batch.kitchen)
        entry = EntryIn(content=split, seen=data.seen, happened_at=data.happened_at)
        slicing = draft_entry(batch, rows, entry, now=now)
        costed = slicing.costed
    else:
        costed = cost_chain(build_chain(batch, rows))
        if data.happened_at is not None:
            reader.happened("happened_at", data.happened_at, now=now)
        if not data.packs:
            reader.refuse("packs", "empty", "Close a pack first.")
    before = list(find_packs(batch))
    stores = {same_name(store.name): store.name for store in list_choices(batch.kitchen)}
    at = data.happened_at or now
    packs = [
        _read_pack(reader, batch, one, f"packs[{index}]", number=number, stores=stores, at=at)
        for index, (one, number) in enumerate(zip(data.packs, free_numbers(batch), strict=False))
    ]
    drafted = Drafted(
        rows=rows, slicing=slicing, costed=costed, packs=packs, stowed=None, reader=reader, cut=cut
    )
    readable = [pack for pack in packs if pack is not None]
    if costed is not None and len(readable) == len(packs):
        try:
            mains = costed.sheet.ledger.mains
            drafted.stowed = follow_rows(mains, [*before, *readable], list_takings(batch))
        except LedgerError as error:
            reader.refuse(_path_of(error.field, len(before)), error.reason, as_sentence(error.text))
    if drafted.stowed is not None and costed is not None:
        drafted.taken = share_taken(batch, costed.sheet)
        _refuse_taken(drafted, costed, drafted.stowed, [one.piece for one in data.packs])
    return drafted


def _refuse_taken(drafted: Drafted, costed: CostedBatch, stowed: Stowed, packed: Sequence[str]) -> None:
    """Packs of meat that other batches have taken already."""
    for mark in find_overtaken(costed.sheet.ledger.mains, stowed, drafted.taken):
        if mark in packed:
            index = len(packed) - 1 - list(reversed(packed)).index(mark)
            said = f"Other batches took part of “{mark}”: so much of it is not left to pack."
            drafted.reader.refuse(f"packs[{index}].weight", "taken", said)


def find_overtaken(mains: Sequence[Piece], stowed: Stowed, taken: Mapping[str, Share]) -> list[str]:
    """Pieces of ``mains`` of which packs and what other batches took (``taken``) weigh more than they do."""
    found = []
    for mark, share in taken.items():
        piece = next(one for one in mains if one.id == mark)
        together = sum(
            (now.pack.grams for now in stowed.packs.values() if now.pack.piece == mark), Fraction(0)
        )
        if together and (together + share.grams) * 100 > piece.grams * OVERWEIGHT_PERCENT:
            found.append(mark)
    return found


def _path_of(field: str, before: int) -> str:
    """The core's field as a path of the body: packs of before come first there."""
    head, _, tail = field.partition("].")
    index = head.removeprefix("packs[")
    if not index.isdigit() or int(index) < before:
        return "packs"
    return f"packs[{int(index) - before}].{tail}"


def _read_pack(
    reader: Reader,
    batch: Batch,
    data: schemas.PackIn,
    path: str,
    *,
    number: int,
    stores: dict[str, str],
    at: datetime,
) -> Pack | None:
    grams = reader.weight(f"{path}.weight", data.weight)
    slices = reader.slices(f"{path}.slices", data.slices)
    reader.need(f"{path}.product", data.product, "Give the product a name.")
    if data.store and same_name(data.store) not in stores:
        said = f"There is no “{data.store}” here; add it on the map first."
        reader.refuse(f"{path}.store", "unknown", said)
    if any(one.path.startswith(f"{path}.") for one in reader.problems) or grams is None:
        return None
    return Pack(
        kitchen=batch.kitchen,
        batch=batch,
        number=number,
        mark=f"P{number}",
        piece=data.piece,
        product=data.product,
        form=data.form,
        grams=grams,
        typed=data.weight,
        slices=slices,
        store=stores.get(same_name(data.store), ""),
        packed_at=at,
    )


def preview_packing(batch: Batch, data: schemas.PackingIn) -> schemas.PackingPreview:
    """What this slicing and packing would make; nothing is written."""
    drafted = draft_packing(batch, data, list_entry_rows(batch))
    costed, stowed = drafted.costed, drafted.stowed
    final = None if costed is None else costed.sheet.final
    sliced = None if final is None else final.sliced
    readings = [] if drafted.slicing is None else drafted.slicing.reader.readings
    first = data.split.pieces[0].mark if data.split is not None and data.split.pieces else ""
    each = None if drafted.cut is None else drafted.cut.slice_grams(first)
    return schemas.PackingPreview(
        slice_weight=None if not each else print_weight(each),
        to_go=None if not each or drafted.cut is None else int(drafted.cut.left / each),
        left=_show_left(drafted.cut),
        packs=[_preview_pack(pack, stowed) for pack in drafted.packs],
        pieces=[]
        if costed is None or stowed is None
        else list(show_unpacked(costed.sheet, stowed, drafted.taken)),
        portion=None if final is None else print_money_or_none(final.portion_served),
        unit_cost=None
        if final is None
        else print_unit_cost(final.cost_per_lb if sliced is None else sliced.cost_per_lb),
        slice_cost=None if sliced is None else fixed(sliced.cost_per_slice, 4),
        readings=[*readings, *drafted.reader.readings],
        problems=drafted.faults,
    )


def _preview_pack(pack: Pack | None, stowed: Stowed | None) -> schemas.PackCostOut:
    if pack is None:
        return schemas.PackCostOut(weight=None, cost=None)
    cost = None if stowed is None else print_money(stowed.packs[pack.mark].cost)
    return schemas.PackCostOut(weight=print_weight(Fraction(pack.grams)), cost=cost)


def pack_batch(write: Write, code: str, data: schemas.PackingIn) -> Packing:
    """Record a slicing and the packs closed with it, in one go.

    Raises:
        DomainError: not_found, bad_fields, moved_on, breaks_later, key_reused.
    """

    def make() -> Packing:
        batch = get_batch(write.kitchen, code)
        rows = list_entry_rows(batch)
        refuse_moved_on(rows, seen=data.seen, kitchen=write.kitchen)
        drafted = draft_packing(batch, data, rows)
        if drafted.faults or drafted.costed is None:
            raise refuse_fields(drafted.faults)
        if drafted.slicing is not None:
            save_entry(write, [*rows, drafted.slicing.rows], drafted.costed)
            batch = drafted.slicing.rows.entry.batch
        packing = keep_packs(write, batch, [pack for pack in drafted.packs if pack is not None])
        renew_packs(batch, drafted.costed.sheet.ledger.mains)
        return packing

    return keep_once(write, Packing, make)
