"""What other batches took of a batch, and so which of its pieces are still here."""

from collections.abc import Iterable
from fractions import Fraction
from typing import Final

from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.numbers.natural import natural_key
from dolmetsch.server.batches.entries.chain import CostedBatch, EntryRows, list_current, list_entry_rows
from dolmetsch.server.batches.models import Batch, LotLine

#: Where less than this part of a piece was not taken, it went wholly: another scale, a bit on the knife.
LEFT_RATIO: Final = Fraction(1, 100)


def list_taken(source: Batch) -> list[tuple[Batch, LotLine]]:
    """Lots that count, of whichever batches, that are pieces of ``source``."""
    lots = LotLine.objects.filter(from_batch=source).values_list("entry__batch", flat=True)
    # few batches are taken from: most often this is the only query
    keys = set(lots)
    found = []
    for taker in Batch.objects.filter(pk__in=keys).order_by("id") if keys else ():
        taker.kitchen = source.kitchen
        found += [(taker, lot) for lot in taken_by(list_entry_rows(taker), source)]
    return found


def taken_by(rows: Iterable[EntryRows], source: Batch) -> list[LotLine]:
    """Lots among ``rows`` that count and are pieces of ``source``."""
    lots = [row.lot for row in list_current(rows) if row.lot is not None]
    return [lot for lot in lots if lot.from_batch_id == source.pk]


def list_pieces_here(batch: Batch, costed: CostedBatch) -> list[Piece]:
    """The living mains of ``batch`` that did not go wholly into other batches, in the order of their marks.

    What went out of packs is the larder's to say.
    """
    mains = sorted(costed.sheet.ledger.mains, key=lambda piece: natural_key(piece.id))
    if batch._state.adding:
        return mains
    left = {piece.id: piece.grams for piece in mains}
    for _, lot in list_taken(batch):
        if lot.from_mark in left and not lot.from_pack:
            left[lot.from_mark] -= left[lot.from_mark] if lot.from_grams is None else Fraction(lot.from_grams)
    return [piece for piece in mains if left[piece.id] > piece.grams * LEFT_RATIO]
