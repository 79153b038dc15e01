"""Which pieces of a batch have to be cooked before they are eaten."""

from collections.abc import Iterable

from dolmetsch.core.heat.raw import is_raw
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.entries.chosen_way import methods_of
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.models.fire_facts import fire_facts


def list_raw(batch: Batch, costed: CostedBatch) -> set[str]:
    """The marks of living pieces that are raw, by their steps and the fires they were in."""
    return list_raw_of(batch, costed.sheet.ledger.mains)


def list_raw_of(batch: Batch, pieces: Iterable[Piece]) -> set[str]:
    """Which of ``pieces`` of ``batch`` are raw."""
    methods, cooked = methods_of(batch), fire_facts().cooked(batch)
    return {piece.id for piece in pieces if is_raw(piece.kinds, methods=methods, cooked=cooked)}
