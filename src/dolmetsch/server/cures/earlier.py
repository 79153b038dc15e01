"""What pieces were cured with before: here, as the pieces they were cut from, or in another batch."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from fractions import Fraction
from typing import Any, Final

from dolmetsch.core.curing.nitrite_carried import carry_nitrite
from dolmetsch.core.findings import Finding, question
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.quantities.calendar import print_day


@dataclass(frozen=True, slots=True, kw_only=True)
class Earlier:
    """Grams of nitrite a piece carries (None: not known), and since when it lies in a cure of its own."""

    nitrite: Fraction | None = Fraction(0)
    since: datetime | None = None

    def ppm(self, grams: Fraction) -> Fraction | None:
        """The same in parts per million of what the piece weighs now."""
        return None if self.nitrite is None else self.nitrite * 10**6 / grams

    def ask(self, piece: Piece) -> Finding | None:
        """Whether it is to be cured again; None for a piece that never was."""
        is_in = self.since is not None and "cure" not in piece.kinds
        if self.nitrite == 0 and not is_in and "cure" not in piece.kinds:
            return None
        ppm = self.ppm(piece.grams)
        brought = "nitrite not known" if ppm is None else f"{fixed(ppm, 0)} ppm of nitrite"
        if is_in and self.since is not None:
            text = f"{piece.id} has been in a cure since {print_day(self.since)} ({brought})."
        else:
            text = f"{piece.id} has been cured before ({brought})."
        message = f"{text} Cure it again? The gauge counts both."
        return question("again", message)


NOT_CURED: Final = Earlier()


def find_earlier(batch: Batch, costed: CostedBatch) -> Mapping[str, Earlier]:
    """Earlier cures of the pieces of ``batch``, by mark; those taken back left out."""
    cures = list(PieceCure.objects.filter(batch=batch, taken_back=None).order_by("id"))
    put_in: dict[str, Fraction | None] = {}
    for cure in cures:
        brought = _nitrite_of(cure)
        before = put_in.get(cure.mark, Fraction(0))
        put_in[cure.mark] = None if brought is None or before is None else before + brought
    put_in |= _brought_by_lots(costed)
    held = carry_nitrite(costed.sheet.ledger.stages, put_in)
    since = {cure.mark: cure.in_at for cure in cures}
    return {
        mark: Earlier(nitrite=held.get(mark, Fraction(0)), since=since.get(mark)) for mark in {*held, *since}
    }


def _nitrite_of(cure: PieceCure) -> Fraction | None:
    """Grams of nitrite that went in, by what the desk showed then; None where that was not known."""
    gauge: dict[str, Any] | None = cure.answer.get("gauge")
    if gauge is None:
        return Fraction(0)
    own = gauge.get("own", gauge["ppm"])
    return None if own is None else Fraction(own) * Fraction(cure.green_grams) / 10**6


def _brought_by_lots(costed: CostedBatch) -> dict[str, Fraction | None]:
    """What lots that are cured pieces of other batches bring along, by weight."""
    brought: dict[str, Fraction | None] = {}
    for lot, row in zip(costed.chain.batch.lots, costed.chain.lot_entries, strict=True):
        source = None if row.lot is None else row.lot.from_batch
        if source is None or lot.origin is None:
            continue
        upstream = cost_batch(source)
        held = find_earlier(source, upstream).get(lot.origin.piece, NOT_CURED)
        pieces = (*upstream.sheet.ledger.mains, *upstream.sheet.ledger.by_products)
        whole = next((piece.grams for piece in pieces if piece.id == lot.origin.piece), lot.grams)
        brought[lot.id] = None if held.nitrite is None else held.nitrite * min(lot.grams / whole, Fraction(1))
    return brought
