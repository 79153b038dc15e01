"""Slicing and packing: what lies on the board, what a slicing would make, how thick, and the writes."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from fractions import Fraction
from itertools import count, islice
from typing import Final

from django.utils import timezone

from dolmetsch.core.costing.sheet import Sheet, cost_per_lb
from dolmetsch.core.costing.strip import label_piece
from dolmetsch.core.errors import LedgerError
from dolmetsch.core.findings import Finding, care
from dolmetsch.core.heat.raw import raw_finding
from dolmetsch.core.ledger.kinds import FINISHING, method_kinds
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.ledger.refusals import OVERWEIGHT_PERCENT
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.quantity import GRAM_PLACES
from dolmetsch.core.slicing.packs import Share, Stowed
from dolmetsch.core.slicing.thickness import compare_thicknesses, grams_per_mm
from dolmetsch.server.batches.entries.chain import (
    CostedBatch,
    EntryRows,
    build_chain,
    cost_chain,
    find_portion,
    list_entry_rows,
)
from dolmetsch.server.batches.entries.describing import plain
from dolmetsch.server.batches.entries.raw import list_raw
from dolmetsch.server.batches.entries.reading import free_marks
from dolmetsch.server.batches.entries.typed import EntryIn, SplitIn
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.record.actions import Draft, draft_entry, refuse_moved_on, save_entry
from dolmetsch.server.batches.record.links import share_taken
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.batches.show.showing import FREE_MARKS_SHOWN, sorted_mains
from dolmetsch.server.findings import show_findings
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder import schemas
from dolmetsch.server.larder.models import Pack, Packing
from dolmetsch.server.larder.of_batch import (
    follow_rows,
    keep_packs,
    list_packs,
    list_takings,
    renew_packs,
)
from dolmetsch.server.larder.queries import list_choices, show_now
from dolmetsch.server.pieces.queries import Facts, gather_facts
from dolmetsch.server.plans.models import TaskNews
from dolmetsch.server.problems import DomainError, FieldProblem, refuse_fields
from dolmetsch.server.quantities.printing import (
    as_sentence,
    print_money,
    print_money_or_none,
    print_unit_cost,
    print_weight,
)
from dolmetsch.server.quantities.reader import MAX_SLICES, Reader, round_decimal
from dolmetsch.server.writing.once import Write, keep_once

#: So many names of products are offered.
PRODUCTS_OFFERED: Final = 60
#: Slices thinner than a millimetre and thicker than a hand are slips.
MOST_MM: Final = Fraction(100)


def read_board(batch: Batch) -> schemas.BoardOut:
    """What lies on the board."""
    rows = list_entry_rows(batch)
    costed = cost_chain(build_chain(batch, rows))
    packs = list_packs(batch)
    stowed = follow_rows(costed.sheet.ledger.mains, packs, list_takings(batch))
    known = gather_facts([batch])
    portion = find_portion(costed.chain.current)
    today = timezone.localdate()
    shown = []
    for pack in (
        Pack.objects.filter(pk__in=[one.pk for one in packs]).select_related("now").order_by("number")
    ):
        pack.batch = batch
        pack.now.pack = pack
        shown.append(show_now(pack.now, today))
    return schemas.BoardOut(
        code=batch.code,
        name=batch.name,
        cut=costed.chain.batch.lots[0].cut,
        seen=rows[-1].entry.sequence,
        pieces=[
            _show_piece(piece, costed, known.get((batch.pk, piece.id), Facts()))
            for piece in sorted_mains(costed)
        ],
        packs=shown,
        unpacked=list(_show_unpacked(costed.sheet, stowed, share_taken(batch, costed.sheet))),
        product=packs[0].product if packs else batch.name,
        products=_list_products(batch),
        stores=list_choices(batch.kitchen),
        portion_slices="" if portion is None or portion.slices is None else plain(portion.slices),
        next_mark=f"P{next(free_numbers(batch))}",
        cautions=show_findings([*([raw_finding()] if list_raw(batch, costed) else []), *_taste(batch)]),
    )


def _taste(batch: Batch) -> list[Finding]:
    """What was tasted last, where it was not just right: a soak after slicing is too late."""
    news = TaskNews.objects.filter(task__batch=batch).exclude(taste="").order_by("-id").first()
    if news is None or news.taste == "right":
        return []
    words = {"salty": "too salty", "flat": "flat"}[news.taste]
    day = timezone.localtime(news.happened_at)
    said = (
        f"It tasted {words} on {day:%-d %b}. Fry a slice before you cut the rest:"
        " a soak after slicing is too late."
    )
    return [care("fry_first", said, source="common practice")]


def _show_piece(piece: Piece, costed: CostedBatch, facts: Facts) -> schemas.CuttableOut:
    marks = {line.mark for row in costed.chain.current for line in row.weighings}
    is_lot = any(lot.id == piece.id for lot in costed.chain.batch.lots)
    free = free_marks(piece.id, is_lot=is_lot, taken=marks)
    length = facts.length_mm
    return schemas.CuttableOut(
        mark=piece.id,
        label=label_piece(piece),
        weight=print_weight(piece.grams),
        grams=fixed(piece.grams, 2),
        unit_cost=print_unit_cost(cost_per_lb(piece.cost, piece.grams)),
        cost=print_money(piece.cost),
        length_mm=None if length is None else fixed(Fraction(length), 1),
        free_marks=list(islice(free, FREE_MARKS_SHOWN)),
        is_finished=bool(FINISHING & method_kinds(piece.kinds)),
        slices=None if piece.slices is None else int(piece.slices),
    )


def _show_unpacked(sheet: Sheet, stowed: Stowed, taken: Mapping[str, Share]) -> Iterator[schemas.UnpackedOut]:
    """What is in no pack, and was not ``taken`` by another batch either."""
    packed: dict[str, int] = {}
    for now in stowed.packs.values():
        packed[now.pack.piece] = packed.get(now.pack.piece, 0) + (now.pack.slices or 0)
    for piece in sheet.ledger.mains:
        away = taken.get(piece.id, Share())
        left = stowed.unpacked[piece.id]
        slices = None if piece.slices is None else int(piece.slices)
        yield schemas.UnpackedOut(
            mark=piece.id,
            weight=print_weight(max(Fraction(0), left.grams - away.grams)),
            cost=print_money(max(Fraction(0), left.cost - away.cost)),
            slices=None if slices is None else slices - packed.get(piece.id, 0),
            unit_cost=print_unit_cost(cost_per_lb(piece.cost, piece.grams)),
            slice_cost=None if not slices else fixed(piece.cost / slices, 4),
        )


def _list_products(batch: Batch) -> list[str]:
    """Names of products to choose from: those made of this batch first, then the kitchen's latest."""
    mine = list(Pack.objects.filter(batch=batch).order_by("number").values_list("product", flat=True))
    latest = Pack.objects.filter(kitchen=batch.kitchen).order_by("-id").values_list("product", flat=True)
    return list(dict.fromkeys([*mine, *latest[: PRODUCTS_OFFERED * 4]]))[:PRODUCTS_OFFERED]


def free_numbers(batch: Batch) -> Iterator[int]:
    """Numbers for packs to come; those of canceled packs are not used again, nor those a document used."""
    marks = set(Pack.objects.filter(batch=batch).values_list("mark", flat=True)) if batch.packs_made else ()
    return (number for number in count(batch.packs_made + 1) if f"P{number}" not in marks)


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
    return Cut(grams=grams, slices=slices, left=max(Fraction(0), whole - others - packed))


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
    before = list_packs(batch)
    stores = {store.name.casefold(): store.name for store in list_choices(batch.kitchen)}
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
    mains = costed.sheet.ledger.mains
    for mark, share in drafted.taken.items():
        piece = next(one for one in mains if one.id == mark)
        together = sum(
            (now.pack.grams for now in stowed.packs.values() if now.pack.piece == mark), Fraction(0)
        )
        if mark in packed and (together + share.grams) * 100 > piece.grams * OVERWEIGHT_PERCENT:
            index = len(packed) - 1 - list(reversed(packed)).index(mark)
            said = f"Other batches took part of “{mark}”: so much of it is not left to pack."
            drafted.reader.refuse(f"packs[{index}].weight", "taken", said)


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
    if data.store and data.store.casefold() not in stores:
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
        store=stores.get(data.store.casefold(), ""),
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
        packs=[_preview_pack(pack, stowed) for pack in drafted.packs],
        pieces=[]
        if costed is None or stowed is None
        else list(_show_unpacked(costed.sheet, stowed, drafted.taken)),
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


def read_thickness(batch: Batch, data: schemas.ThicknessIn) -> schemas.ThicknessOut:
    """What a millimetre does to slices, their price and packs; nothing is written.

    Raises:
        DomainError: not_found.
    """
    costed = cost_chain(build_chain(batch, list_entry_rows(batch)))
    piece = next((one for one in costed.sheet.ledger.mains if one.id == data.mark), None)
    if piece is None:
        raise DomainError("not_found", 404, "Not here", f"There is no piece “{data.mark}” to slice.")
    reader = Reader.of(batch.kitchen)
    millimetres = reader.number(
        "millimetres", data.millimetres, what="thickness in mm", limit=MOST_MM, places=2
    )
    counted = reader.slices("count", data.count)
    of_slices = reader.weight("of_slices", data.of_slices) if data.of_slices else None
    in_pack = reader.slices("in_pack", data.in_pack)
    portion = reader.number(
        "in_portion", data.in_portion, what="slices in a portion", limit=MAX_SLICES, places=2
    )
    length = gather_facts([batch]).get((batch.pk, piece.id), Facts()).length_mm
    weighed = None
    if of_slices and counted and millimetres:
        weighed = (Fraction(of_slices), counted, Fraction(millimetres))
    per_mm = grams_per_mm(
        weighed=weighed, grams=piece.grams, length_mm=None if length is None else Fraction(length)
    )
    if per_mm is None or reader.problems:
        missing = None
        if per_mm is None:
            missing = "Cut ten slices and weigh them, or measure the piece's length on the bench."
        return schemas.ThicknessOut(points=[], missing=missing, problems=reader.problems)
    points = compare_thicknesses(
        per_mm,
        grams=piece.grams,
        cost=piece.cost,
        in_portion=Fraction(portion) if portion else None,
        in_pack=in_pack or 10,
    )
    return schemas.ThicknessOut(
        points=[
            schemas.ThicknessPoint(
                millimetres=fixed(one.millimetres, 1),
                slices=one.slices,
                slice_weight=print_weight(one.slice_grams),
                slice_cost=fixed(one.slice_cost, 4),
                portion_cost=print_money_or_none(one.portion_cost),
                packs=one.packs,
                over=one.over,
            )
            for one in points
        ],
        missing=None,
        problems=[],
    )
