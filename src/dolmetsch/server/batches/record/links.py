"""Linked batches: a finished piece of one is a lot of another, so a correction there flows down here."""

from collections.abc import Iterable
from fractions import Fraction

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.refusals import OVERWEIGHT_PERCENT
from dolmetsch.core.slicing.packs import Share
from dolmetsch.server.batches.entries.chain import (
    EntryRows,
    build_chain,
    cost_chain,
    list_entry_rows,
    take_upstream,
)
from dolmetsch.server.batches.entries.taken import list_taken, taken_by
from dolmetsch.server.batches.forecast.derived import renew
from dolmetsch.server.batches.models import Batch, LotLine
from dolmetsch.server.batches.models.pack_facts import pack_facts
from dolmetsch.server.problems import DomainError


def refuse_taken_twice(lot: LotLine, *, own: Batch, beside: Iterable[EntryRows]) -> None:
    """A piece of which more would be taken, by all lots together, than it weighs.

    ``beside``: what else is recorded in the lot's ``own`` batch.

    Raises:
        LedgerError: ``overweight``, at the lot's source.
    """
    source = lot.from_batch
    if source is None or lot.from_pack:
        # what is in a pack is the larder's to give out
        return
    others = [other for taker, other in list_taken(source) if taker.pk != own.pk]
    others += taken_by(beside, source)
    if _is_overtaken(source, lot.from_mark, [lot, *others]):
        text = f"“{lot.from_mark}” of {source.code} has been taken already"
        raise LedgerError("overweight", field="source.weight", text=text)


def _is_overtaken(source: Batch, mark: str, lots: Iterable[LotLine]) -> bool:
    loose = [lot for lot in lots if lot.from_mark == mark and not lot.from_pack]
    grams = [take_upstream(lot, field="source").grams for lot in loose]
    packed = pack_facts().packed(source, mark) if source.packs_made else Fraction(0)
    if len(grams) < 2 and not packed:
        return False
    weighs = take_upstream(LotLine(from_batch=source, from_mark=mark), field="source").grams
    return (sum(grams, Fraction(0)) + packed) * 100 > weighs * OVERWEIGHT_PERCENT


def share_taken(source: Batch, sheet: Sheet) -> dict[str, Share]:
    """What other batches took of the final pieces of ``source``, which comes to ``sheet``; by piece.

    What came out of its packs is the larder's to say.
    """
    pieces = {piece.id: piece for piece in sheet.ledger.mains}
    found: dict[str, Share] = {}
    for _taker, lot in list_taken(source):
        piece = pieces.get(lot.from_mark)
        if piece is None or lot.from_pack:
            continue
        grams = take_upstream(lot, field="source", sheet=sheet).grams
        share = Share(grams=grams, cost=piece.cost * grams / piece.grams)
        found[piece.id] = found.get(piece.id, Share()).plus(share)
    return found


def renew_downstream(batch: Batch) -> None:
    """Compute again every batch that takes from ``batch``, and those that take from them.

    Raises:
        DomainError: breaks_later, where one of them would become impossible.
    """
    taken = list_taken(batch)
    for taker in {taker.pk: taker for taker, _ in taken}.values():
        try:
            costed = cost_chain(build_chain(taker, list_entry_rows(taker)))
        except LedgerError as error:
            said = f"This would make batch {taker.code}, which takes from this one, impossible: {error.text}."
            raise DomainError("breaks_later", 422, "Not recorded", said) from error
        renew(taker, costed)
        renew_downstream(taker)
    lots = [lot for _, lot in taken]
    for mark in sorted({lot.from_mark for lot in lots}):
        if _is_overtaken(batch, mark, lots):
            said = f"This would leave less of “{mark}” than other batches have taken of it."
            raise DomainError("breaks_later", 422, "Not recorded", said)


def renew_upstream(rows: Iterable[EntryRows]) -> None:
    """Renew what those batches keep of themselves that ``rows`` take from, or took: a piece of them may have
    gone wholly.
    """
    sources = {row.lot.from_batch_id: row.lot.from_batch for row in rows if row.lot is not None}
    for source in sources.values():
        if source is not None:
            fresh = Batch.objects.select_related("kitchen").get(pk=source.pk)
            renew(fresh, cost_chain(build_chain(fresh, list_entry_rows(fresh))))
