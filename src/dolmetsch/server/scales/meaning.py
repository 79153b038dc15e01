"""What a weight means at once: kept of the step, the price of a pound now, and whether it is usual."""

from datetime import datetime
from fractions import Fraction
from math import exp, log
from typing import Final

from dolmetsch.core.costing.strip import label_piece
from dolmetsch.core.forecast.way import find_method
from dolmetsch.core.forecast.yields import Belief, believe
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.ledger.strands import Heated, is_heated_kind
from dolmetsch.core.meat.cuts import read_cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.reference.yields import METHODS
from dolmetsch.server.batches.entries.chain import CostedBatch, build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.entries.chosen_way import as_measured, methods_of
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.entries.typed import EntryIn, WeighIn, WeightIn
from dolmetsch.server.batches.forecast.history import read_history
from dolmetsch.server.batches.models import Batch, StepYield
from dolmetsch.server.batches.record.actions import draft_entry
from dolmetsch.server.batches.record.order import MOST_KEPT, say_gain
from dolmetsch.server.batches.show.queries import get_piece
from dolmetsch.server.quantities.printing import print_percent, print_unit_cost, print_weight
from dolmetsch.server.scales import schemas

#: So many past batches are drawn.
PAST_SHOWN: Final = 8
#: Further out than so many deviations it is asked about: some three batches in a thousand.
ODD_DEVIATIONS: Final = 3.0


def read_meaning(batch: Batch, data: schemas.OnScaleIn, *, now: datetime) -> schemas.MeaningOut:
    """What ``data`` means for its piece; nothing is written.

    Raises:
        DomainError: not_found (the piece is no more).
    """
    rows = list_entry_rows(batch)
    before = cost_chain(build_chain(batch, rows))
    piece = get_piece(before, data.mark)
    weights = [WeightIn(mark=data.mark, weight=data.weight)]
    content = WeighIn(kind=data.kind or "weigh", weights=weights, heat=data.heat)
    draft = draft_entry(batch, rows, EntryIn(content=content, seen=rows[-1].entry.sequence), now=now)
    meaning = schemas.MeaningOut(
        before=print_weight(piece.grams),
        before_label=f"since {label_piece(piece).lower()}",
        problems=draft.reader.problems,
    )
    after = None
    if draft.costed is not None:
        mains = draft.costed.sheet.ledger.mains
        after = next((one for one in mains if one.id == data.mark), None)
    if after is None:
        return meaning
    ratio = after.grams / piece.grams
    meaning.weight = print_weight(after.grams)
    meaning.apart = print_weight(abs(after.grams - piece.grams))
    meaning.gain = after.grams > piece.grams
    meaning.kept = print_percent(ratio)
    meaning.cost = print_unit_cost(after.cost / after.grams * GRAMS_PER_LB)
    heats = after.strands[0].heats if is_heated_kind(data.kind) else ()
    belief = find_belief(
        batch,
        before,
        kind=data.kind,
        piece=piece,
        heated=heats[-1] if heats else None,
        has_gained=meaning.gain,
    )
    if belief is not None:
        meaning.usual = _show_usual(batch, belief)
        meaning.asks = _ask(belief, ratio, meaning.usual)
    if not meaning.asks and ratio > MOST_KEPT:
        meaning.asks = say_gain(meaning.kept)
    return meaning


def find_belief(
    batch: Batch,
    costed: CostedBatch,
    *,
    kind: str,
    piece: Piece,
    heated: Heated | None = None,
    has_gained: bool = False,
) -> Belief | None:
    """What is believed of a step of ``kind`` for this batch; None where it is no known step, or a repeat."""
    if kind in piece.kinds:
        return None
    method = find_method(
        kind,
        methods=methods_of(batch),
        kinds=piece.kinds,
        course=courses_of(batch, [piece], costed.chain.current)[piece.id],
        heated=as_measured(batch, heated),
        has_gained=has_gained,
    )
    if method is None:
        return None
    cut = read_cut(costed.chain.batch.lots[0].cut)
    return believe(method, cut, read_history(batch.kitchen))


def _show_usual(batch: Batch, belief: Belief) -> schemas.UsualOut:
    past = StepYield.objects.filter(kitchen=batch.kitchen, method=belief.method).exclude(batch=batch)
    logs = list(past.order_by("-batch__last_entry_at").values_list("log_ratio", flat=True)[:PAST_SHOWN])
    label = METHODS[belief.method].label
    return schemas.UsualOut(
        label=f"your last {len(logs)} {label}" if logs else f"usual for {label}",
        kept=[f"{exp(one) * 100:.1f}" for one in reversed(logs)],
        low=f"{belief.low * 100:.1f}",
        high=f"{belief.high * 100:.1f}",
        learned=belief.explain(),
    )


def _ask(belief: Belief, ratio: Fraction, usual: schemas.UsualOut) -> str:
    apart = (log(float(ratio)) - belief.log_mean) / belief.log_deviation
    if abs(apart) <= ODD_DEVIATIONS:
        return ""
    kept = f"{print_percent(ratio)} % kept, usual is {usual.low} to {usual.high} %."
    if apart > 0:
        return f"{kept} Weighed with the tray?"
    return f"{kept} Is it the right piece, all of it on the scale?"
