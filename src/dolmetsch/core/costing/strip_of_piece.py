"""The strip of one piece alone: its own way back to the meat as purchased.

What went on as other pieces leaves its ribbon like trim does, by name; weights and price are the piece's.
"""

from collections.abc import Iterator, Sequence
from fractions import Fraction
from typing import Final

from dolmetsch.core.costing.sheet import Sheet, cost_per_lb
from dolmetsch.core.costing.strip import Column, Peel, Strip, kinds_to_come, peel_of_loss, peels_cut_off
from dolmetsch.core.ledger.batch import Batch
from dolmetsch.core.ledger.pieces import ZERO, Piece, Stage, cost_of, grams_of

#: More pieces than this that went on beside it are counted, not named.
MOST_NAMED: Final = 6


def lay_out_piece(batch: Batch, sheet: Sheet, mark: str) -> Strip | None:
    """The strip of the living main ``mark``; None where there is none of that name."""
    piece = next((main for main in sheet.ledger.mains if main.id == mark), None)
    if piece is None:
        return None
    way, lots = _way_back(sheet, mark)
    columns = [_bought(lots)]
    kept = Fraction(1)
    for stage, ids in reversed(way):
        column = _column(stage, ids, kept)
        kept = column.kept_of_bought_ratio
        columns.append(column)
    return Strip(columns=tuple(columns), to_come=kinds_to_come(columns))


def _way_back(sheet: Sheet, mark: str) -> tuple[list[tuple[Stage, set[str]]], list[Piece]]:
    """The stages it came through, last first, each with its ids after the stage; and its lots."""
    ids = {mark}
    way = []
    stages = sheet.ledger.stages
    for stage in reversed(stages):
        if stage.act == "discard" and cost_of(_those(stage.before, ids)) != cost_of(_those(stage.after, ids)):
            way.append((stage, set(ids)))
        made = {piece.id for piece in stage.made} & ids
        if made:
            way.append((stage, set(made)))
            came_from = stage.pieces_in if stage.act != "weigh" else tuple(made)
            ids = (ids - made) | set(came_from)
    first = stages[0].before if stages else sheet.ledger.mains
    return way, [piece for piece in first if piece.id in ids]


def _those(pieces: Sequence[Piece], ids: set[str]) -> list[Piece]:
    return [piece for piece in pieces if piece.id in ids]


def _bought(lots: list[Piece]) -> Column:
    grams, cost = grams_of(lots), cost_of(lots)
    return Column(
        kind="bought",
        steps=(),
        grams_in=grams,
        grams_out=grams,
        kept_of_step_ratio=None,
        kept_of_bought_ratio=Fraction(1),
        spent=cost,
        worth_back=ZERO,
        cost_per_lb=cost_per_lb(cost, grams),
        peels=(),
        pieces=tuple(lot.id for lot in lots),
    )


def _column(stage: Stage, ids: set[str], kept: Fraction) -> Column:
    if stage.act == "discard":
        return _borne(stage, ids, kept)
    mine = [piece for piece in stage.made if piece.id in ids]
    entered = [piece for piece in stage.entered if stage.act != "weigh" or piece.id in ids]
    own_in, own_out = grams_of(entered), grams_of(mine)
    others = [piece for piece in stage.made if piece.id not in ids and piece.is_main and stage.act == "split"]
    # what the step keeps of this piece's kind: its mains together, for the others are kept too
    ratio = (own_out + grams_of(others)) / own_in
    spent = stage.cost_added if stage.act != "weigh" else cost_of(mine) - cost_of(entered)
    return Column(
        kind=stage.kind,
        steps=(stage.step,),
        grams_in=own_in,
        grams_out=own_out,
        kept_of_step_ratio=ratio,
        kept_of_bought_ratio=kept * ratio,
        spent=spent,
        worth_back=stage.credits,
        cost_per_lb=cost_per_lb(cost_of(mine), own_out),
        peels=tuple(_peels(stage, others, own_in - own_out)),
        pieces=tuple(piece.id for piece in mine),
        came_together=stage.act == "merge",
    )


def _borne(stage: Stage, ids: set[str], kept: Fraction) -> Column:
    """What the piece bears of others that were thrown away: its price climbs, its weight stays."""
    before, after = _those(stage.before, ids), _those(stage.after, ids)
    grams = grams_of(after)
    return Column(
        kind=stage.kind,
        steps=(stage.step,),
        grams_in=grams,
        grams_out=grams,
        kept_of_step_ratio=None,
        kept_of_bought_ratio=kept,
        spent=cost_of(after) - cost_of(before),
        worth_back=ZERO,
        cost_per_lb=cost_per_lb(cost_of(after), grams),
        peels=(),
        pieces=tuple(piece.id for piece in after),
    )


def _peels(stage: Stage, others: list[Piece], left: Fraction) -> Iterator[Peel]:
    if others:
        many = len(others) > MOST_NAMED
        names = f"{len(others)} other pieces" if many else ", ".join(piece.id for piece in others)
        yield Peel(material="pieces", name=f"on as {names}", grams=grams_of(others), carried=cost_of(others))
    cut_off = tuple(peels_cut_off([stage]))
    yield from cut_off
    lost = left - grams_of(others) - sum([peel.grams for peel in cut_off], ZERO)
    if lost:
        yield peel_of_loss(stage.kind, lost)
