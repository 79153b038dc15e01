"""What lies on the board of a batch: pieces to slice and to pack, packs made, what is in none."""

from collections.abc import Iterator, Mapping
from fractions import Fraction
from itertools import count, islice
from typing import Final

from django.utils import timezone

from dolmetsch.core.costing.sheet import Sheet, cost_per_lb
from dolmetsch.core.costing.strip import label_piece
from dolmetsch.core.findings import Finding, care
from dolmetsch.core.heat.raw import raw_finding
from dolmetsch.core.ledger.kinds import FINISHING, method_kinds
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.slicing.packs import Share, Stowed
from dolmetsch.server.batches.entries.chain import (
    CostedBatch,
    build_chain,
    cost_chain,
    find_portion,
    list_entry_rows,
)
from dolmetsch.server.batches.entries.describing import plain
from dolmetsch.server.batches.entries.raw import list_raw
from dolmetsch.server.batches.entries.reading import free_marks
from dolmetsch.server.batches.entries.taken import list_pieces_here
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.record.links import share_taken
from dolmetsch.server.batches.show.showing import FREE_MARKS_SHOWN
from dolmetsch.server.findings import show_findings
from dolmetsch.server.larder import schemas
from dolmetsch.server.larder.models import Pack
from dolmetsch.server.larder.of_batch import (
    find_packs,
    follow_rows,
    list_takings,
)
from dolmetsch.server.larder.queries import list_choices, show_now
from dolmetsch.server.pieces.queries import Facts, gather_facts
from dolmetsch.server.plans.models import TaskNews
from dolmetsch.server.quantities.calendar import print_day
from dolmetsch.server.quantities.printing import (
    print_money,
    print_unit_cost,
    print_weight,
)

#: So many names of products are offered.
PRODUCTS_OFFERED: Final = 60


def read_board(batch: Batch) -> schemas.BoardOut:
    """What lies on the board."""
    rows = list_entry_rows(batch)
    costed = cost_chain(build_chain(batch, rows))
    packs = list(find_packs(batch).select_related("now"))
    stowed = follow_rows(costed.sheet.ledger.mains, packs, list_takings(batch))
    known = gather_facts([batch])
    portion = find_portion(costed.chain.current)
    today = timezone.localdate()
    for pack in packs:
        pack.batch, pack.now.pack = batch, pack
    return schemas.BoardOut(
        code=batch.code,
        name=batch.name,
        cut=costed.chain.batch.lots[0].cut,
        seen=rows[-1].entry.sequence,
        pieces=[
            _show_piece(piece, costed, known.get((batch.pk, piece.id), Facts()))
            for piece in list_pieces_here(batch, costed)
        ],
        packs=[show_now(pack.now, today) for pack in packs],
        unpacked=list(show_unpacked(costed.sheet, stowed, share_taken(batch, costed.sheet))),
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
    said = (
        f"It tasted {words} on {print_day(news.happened_at)}. Fry a slice before you cut the rest:"
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


def show_unpacked(sheet: Sheet, stowed: Stowed, taken: Mapping[str, Share]) -> Iterator[schemas.UnpackedOut]:
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
