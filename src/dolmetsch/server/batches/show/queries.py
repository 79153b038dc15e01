"""Reads: one batch whole, and what is under way today."""

from django.db.models import Count, Sum

from dolmetsch.core.costing.strip_of_piece import lay_out_piece
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.server.batches.entries.chain import Reckoning, build_chain, list_entry_rows, reckon
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.schemas import BatchOut, StandingOut, StripOut, TodayOut
from dolmetsch.server.batches.show.showing import EDITION, print_page, show_batch, show_strip
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import not_found

#: How many batches Today lists of each sort; more are counted, not listed.
UNDER_WAY_SHOWN = 40
FINISHED_SHOWN = 8


def get_batch(kitchen: Kitchen, code: str) -> Batch:
    """The batch ``code`` of ``kitchen``.

    Raises:
        DomainError: not_found.
    """
    batch = Batch.objects.filter(kitchen=kitchen, code=code).select_related("kitchen").first()
    if batch is None:
        raise not_found(f"batch “{code}”")
    return batch


def read_batch(batch: Batch) -> BatchOut:
    """The batch as it stands, computed from its entries."""
    rows = list_entry_rows(batch)
    return show_batch(batch, rows, reckon(build_chain(batch, rows)))


def reckon_batch(batch: Batch) -> Reckoning:
    """The batch as the core reckons it now."""
    return reckon(build_chain(batch, list_entry_rows(batch)))


def get_piece(reckoning: Reckoning, mark: str) -> Piece:
    """The living main piece ``mark``.

    Raises:
        DomainError: not_found.
    """
    piece = next((piece for piece in reckoning.sheet.ledger.mains if piece.id == mark), None)
    if piece is None:
        raise not_found(f"piece “{mark}”, or it is no longer in use,")
    return piece


def read_page(batch: Batch) -> str:
    """``read_batch`` as JSON: the page its last write printed, or printed anew by a newer program."""
    if batch.page_edition != EDITION:
        print_page(batch, read_batch(batch))
        same = Batch.objects.filter(pk=batch.pk, last_sequence=batch.last_sequence)
        same.update(page=batch.page, page_edition=batch.page_edition)
    return batch.page


def read_strip_of_piece(batch: Batch, mark: str) -> StripOut:
    """The strip of the living piece ``mark`` alone.

    Raises:
        DomainError: not_found.
    """
    reckoning = reckon_batch(batch)
    strip = lay_out_piece(reckoning.chain.batch, reckoning.sheet, mark)
    if strip is None:
        raise not_found(f"piece “{mark}” in {batch.code}")
    return show_strip(strip, reckoning)


def read_today(kitchen: Kitchen) -> TodayOut:
    """Batches under way and lately finished, latest entry first, and how many pieces hang where."""
    mine = Batch.objects.filter(kitchen=kitchen).defer("page").order_by("-last_entry_at", "-id")
    under_way = mine.filter(is_finished=False)
    places = (
        Batch.objects.filter(kitchen=kitchen, is_finished=False)
        .values("place")
        .annotate(pieces=Sum("pieces_count"), batches=Count("id"))
    )
    hanging = {row["place"]: row["pieces"] for row in places}
    batches = sum(row["batches"] for row in places)
    return TodayOut(
        under_way=[show_standing(batch) for batch in under_way[:UNDER_WAY_SHOWN]],
        finished=[show_standing(batch) for batch in mine.filter(is_finished=True)[:FINISHED_SHOWN]],
        more_under_way=max(0, batches - UNDER_WAY_SHOWN),
        hanging={**hanging, "today": batches},
    )


def show_standing(batch: Batch) -> StandingOut:
    """A batch in a list, as its last write left it."""
    return StandingOut(
        code=batch.code,
        name=batch.name,
        place=batch.place,
        is_finished=batch.is_finished,
        last_at=batch.last_entry_at,
        started_at=batch.started_at,
        **{key: value for key, value in batch.standing.items() if key in StandingOut.model_fields},
    )
