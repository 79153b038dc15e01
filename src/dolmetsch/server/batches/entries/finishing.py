"""When a batch is finished: all of it sliced, pulled, packed or used elsewhere, at its end, or said to be."""

from collections.abc import Sequence

from dolmetsch.core.ledger.kinds import FINISHING, ONGOING, method_kinds
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.server.batches.entries.chain import Act, CostedBatch
from dolmetsch.server.batches.entries.chosen_way import kinds_of
from dolmetsch.server.batches.entries.taken import list_pieces_here
from dolmetsch.server.batches.models import Batch


def is_finished(batch: Batch, costed: CostedBatch, here: Sequence[Piece] | None = None) -> bool:
    """Whether nothing more is to come of ``batch``; ``here``: its pieces that are here, where known."""
    mains = costed.sheet.ledger.mains
    if not mains:
        return False
    if here is None:
        here = list_pieces_here(batch, costed)
    if not here or _is_said(costed):
        # all of it went into other batches, or the cook said so
        return True
    kinds = FINISHING
    if batch.chosen_way is not None:
        last = kinds_of(batch.chosen_way)[-1]
        kinds = FINISHING if last in ONGOING else FINISHING | {last}
    return all(kinds & method_kinds(piece.kinds) for piece in here)


def _is_said(costed: CostedBatch) -> bool:
    """Whether the cook said that it is finished as it is, and no meat was bought into it since."""
    said = [row.root_sequence for row in costed.chain.current if row.entry.act == Act.FINISH]
    bought = [row.root_sequence for row in costed.chain.lot_entries]
    return bool(said) and max(said) > max(bought, default=0)
