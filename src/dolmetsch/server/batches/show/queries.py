"""Reads: one batch whole, and what is under way today."""

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from django.core.paginator import Page, Paginator
from django.db.models import Count, Q, QuerySet, Sum

from dolmetsch.core.costing.strip_of_piece import lay_out_piece
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.server.batches.entries.chain import CostedBatch, build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.schemas import BatchesOut, BatchOut, StripOut, SummaryOut, TodayOut
from dolmetsch.server.batches.show.showing import show_batch, show_strip
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import not_found
from dolmetsch.server.quantities.days import midnight_of

#: How many batches Today lists of each sort; more are counted, not listed.
UNDER_WAY_SHOWN = 40
FINISHED_SHOWN = 8
#: So many batches a page of those found.
PAGE: Final = 20


@dataclass(frozen=True, slots=True, kw_only=True)
class Wanted:
    """Which batches are looked for: words, under way or finished (None: either), days of the start."""

    words: str = ""
    is_finished: bool | None = None
    since: date | None = None
    until: date | None = None


def get_batch(kitchen: Kitchen, code: str) -> Batch:
    """The batch ``code`` of ``kitchen``.

    Raises:
        DomainError: not_found.
    """
    batch = Batch.objects.filter(kitchen=kitchen, code=code).first()
    if batch is None:
        raise not_found(f"batch “{code}”")
    batch.kitchen = kitchen
    return batch


def read_batch(batch: Batch) -> BatchOut:
    """The batch as it stands, computed from its entries."""
    rows = list_entry_rows(batch)
    return show_batch(batch, rows, cost_chain(build_chain(batch, rows)))


def cost_batch(batch: Batch) -> CostedBatch:
    """The batch as the core costs it now."""
    return cost_chain(build_chain(batch, list_entry_rows(batch)))


def get_piece(costed: CostedBatch, mark: str) -> Piece:
    """The living main piece ``mark``.

    Raises:
        DomainError: not_found.
    """
    piece = next((piece for piece in costed.sheet.ledger.mains if piece.id == mark), None)
    if piece is None:
        raise not_found(f"piece “{mark}”, or it is no longer in use,")
    return piece


def read_strip_of_piece(batch: Batch, mark: str) -> StripOut:
    """The strip of the living piece ``mark`` alone.

    Raises:
        DomainError: not_found.
    """
    costed = cost_batch(batch)
    strip = lay_out_piece(costed.chain.batch, costed.sheet, mark)
    if strip is None:
        raise not_found(f"piece “{mark}” in {batch.code}")
    return show_strip(strip, costed)


def read_today(kitchen: Kitchen) -> TodayOut:
    """Batches under way and lately finished, latest entry first, and how many pieces hang where."""
    mine = Batch.objects.filter(kitchen=kitchen).order_by("-last_entry_at", "-id")
    under_way = mine.filter(is_finished=False)
    places = (
        Batch.objects.filter(kitchen=kitchen, is_finished=False)
        .values("place")
        .annotate(pieces=Sum("pieces_count"), batches=Count("id"))
    )
    hanging = {row["place"]: row["pieces"] for row in places}
    batches = sum(row["batches"] for row in places)
    return TodayOut(
        under_way=[show_summary(batch) for batch in under_way[:UNDER_WAY_SHOWN]],
        finished=[show_summary(batch) for batch in mine.filter(is_finished=True)[:FINISHED_SHOWN]],
        more_under_way=max(0, batches - UNDER_WAY_SHOWN),
        hanging={**hanging, "today": batches},
    )


def find_batches(kitchen: Kitchen, wanted: Wanted, *, page: int) -> BatchesOut:
    """A page (from 1) of the batches that are ``wanted``, latest entry first; past the last page, the last.

    Each word is looked for in name, cut and code; days are those of the start, both included.
    """
    found = Batch.objects.filter(kitchen=kitchen)
    for word in wanted.words.split():
        found = found.filter(
            Q(name__icontains=word) | Q(cut__icontains=word) | Q(code__startswith=word.upper())
        )
    if wanted.is_finished is not None:
        found = found.filter(is_finished=wanted.is_finished)
    if wanted.since is not None:
        found = found.filter(started_at__gte=midnight_of(wanted.since))
    if wanted.until is not None:
        found = found.filter(started_at__lt=midnight_of(wanted.until) + timedelta(days=1))
    shown = page_of(found, page)
    return BatchesOut(
        batches=[show_summary(batch) for batch in shown],
        total=shown.paginator.count,
        page=shown.number,
        pages=shown.paginator.num_pages,
    )


def page_of(batches: QuerySet[Batch], page: int) -> Page[Batch]:
    """A page (from 1) of ``batches``, latest entry first; at most the last."""
    ordered = batches.order_by("-last_entry_at", "-id")
    return Paginator(ordered, PAGE).get_page(page)


def show_summary(batch: Batch) -> SummaryOut:
    """A batch in a list, as its last write left it."""
    return SummaryOut(
        code=batch.code,
        name=batch.name,
        place=batch.place,
        is_finished=batch.is_finished,
        last_at=batch.last_entry_at,
        started_at=batch.started_at,
        **{key: value for key, value in batch.summary.items() if key in SummaryOut.model_fields},
    )
