"""All pieces of a batch at once: whose each is, what it weighed after every step, its yield, its place."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.costing.sheet import Sheet, cost_per_lb
from dolmetsch.core.costing.strip import label_kind
from dolmetsch.core.ledger.batch import Batch as CoreBatch
from dolmetsch.core.ledger.kinds import method_kind
from dolmetsch.core.ledger.pieces import Piece, Stage
from dolmetsch.core.numbers.natural import natural_key
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.pieces import schemas
from dolmetsch.server.pieces.models import PieceFact
from dolmetsch.server.pieces.queries import gather_facts, list_stores, show_place
from dolmetsch.server.quantities.printing import print_percent, print_unit_cost, print_weight
from dolmetsch.server.tables.writing import Row, Tables, write_tables

Form = Literal["csv", "xlsx"]
NO_OWNER: Final = ""


@dataclass(slots=True, kw_only=True)
class Traced:
    """A living piece with its own way back: the weights it had alone, oldest first, and its earlier marks.

    ``weights``: kind of step and grams after it; ``bought`` is the first of a lot that was never cut.
    """

    piece: Piece
    weights: list[tuple[str, Fraction]]
    marks: list[str] = field(default_factory=list)

    @property
    def came_in(self) -> Fraction:
        """What it weighed when it first was a piece of its own."""
        return self.weights[0][1]

    @property
    def kept_ratio(self) -> Fraction:
        """What is left of that."""
        return self.piece.grams / self.came_in

    @property
    def pump_gain_ratio(self) -> Fraction | None:
        """What it gained in the cure, of its weight before; None where it gained nothing."""
        for (_, before), (kind, after) in zip(self.weights, self.weights[1:], strict=False):
            if method_kind(kind) == "cure" and after > before:
                return after / before - 1
        return None


def trace_pieces(record: CoreBatch, sheet: Sheet) -> list[Traced]:
    """The living pieces of a batch in natural order, each traced as far as it was alone."""
    ways: dict[str, tuple[list[tuple[str, Fraction]], list[str]]] = {
        lot.id: ([("bought", lot.grams)], [lot.id]) for lot in record.lots
    }
    for stage in sheet.ledger.stages:
        _follow(stage, ways)
    mains = sorted(sheet.ledger.mains, key=lambda piece: natural_key(piece.id))
    return [Traced(piece=piece, weights=ways[piece.id][0], marks=ways[piece.id][1]) for piece in mains]


def _follow(stage: Stage, ways: dict[str, tuple[list[tuple[str, Fraction]], list[str]]]) -> None:
    """Carry each piece's weights over a step; a piece that shares its parent begins anew."""
    made = [piece for piece in stage.made if piece.is_main]
    entered = [piece.id for piece in stage.entered]
    for piece in made:
        before: list[tuple[str, Fraction]] = []
        marks: list[str] = []
        if stage.act == "weigh":
            before, marks = ways[piece.id]
        elif stage.act == "split":
            marks = ways[entered[0]][1] if entered else []
            # one piece out of one is that piece still, under another mark
            before = ways[entered[0]][0] if len(made) == 1 and entered else []
        else:
            marks = [mark for one in entered for mark in ways[one][1]]
        ways[piece.id] = ([*before, (stage.kind, piece.grams)], [*marks, piece.id])


def read_table(batch: Batch) -> schemas.PiecesTableOut:
    """The table of all living pieces of ``batch``."""
    costed = cost_batch(batch)
    traced = trace_pieces(costed.chain.batch, costed.sheet)
    owners = read_owners(batch, traced)
    kinds = _list_kinds(costed, traced)
    facts = gather_facts([batch])
    sorts = {same_name(store.name): store.sort for store in list_stores(batch.kitchen)}
    rows = []
    for one in traced:
        known = facts.get((batch.pk, one.piece.id))
        after = dict(one.weights)
        place = None if known is None else show_place(known, sorts)
        gain = one.pump_gain_ratio
        rows.append(
            schemas.PieceRowOut(
                mark=one.piece.id,
                owner=owners[one.piece.id],
                weights=[print_weight(after[kind]) if kind in after else None for kind in kinds],
                now=print_weight(one.piece.grams),
                gain=None if gain is None else print_percent(gain),
                kept=print_percent(one.kept_ratio),
                place=None if place is None else place.text,
                price=print_unit_cost(cost_per_lb(one.piece.cost, one.piece.grams)),
            )
        )
    return schemas.PiecesTableOut(
        steps=[schemas.StepHeadOut(kind=kind, label=label_kind(kind)) for kind in kinds],
        rows=rows,
        owners=sorted({owner for owner in owners.values() if owner}, key=natural_key),
    )


def _list_kinds(costed: CostedBatch, traced: Sequence[Traced]) -> list[str]:
    """The kinds of step in which any piece was weighed alone, in the order of the strip."""
    weighed = {kind for one in traced for kind, _ in one.weights}
    return [column.kind for column in costed.strip.columns if column.kind in weighed]


def owners_of(batch: Batch, record: CoreBatch, sheet: Sheet) -> dict[str, str]:
    """Whose each living piece of ``batch`` is, P2 before P10; empty: nobody's."""
    return read_owners(batch, trace_pieces(record, sheet))


def customers_of(batch: Batch, record: CoreBatch, sheet: Sheet) -> dict[str, str]:
    """The living pieces of ``batch`` that are customers', each with its owner; nearly no batch has any."""
    # one that is only looked at is not saved yet
    if batch.pk is None or not PieceFact.objects.filter(batch=batch).exclude(owner="").exists():
        return {}
    return {mark: owner for mark, owner in owners_of(batch, record, sheet).items() if owner}


def read_owners(batch: Batch, traced: Sequence[Traced]) -> dict[str, str]:
    """Whose each living piece is: as noted of it, else of the latest piece it came from; empty: nobody's."""
    facts = gather_facts([batch])
    owners = {mark: known.owner for (_, mark), known in facts.items() if known.owner}
    return {
        one.piece.id: next((owners[mark] for mark in reversed(one.marks) if mark in owners), NO_OWNER)
        for one in traced
    }


def write_table(batch: Batch, form: Form) -> bytes:
    """The table as a file, weights in the kitchen's unit."""
    table, unit = read_table(batch), batch.kitchen.weight_unit
    heads: Row = [
        *("piece", "owner", *(f"{step.label.lower()}, {unit}" for step in table.steps)),
        *(f"now, {unit}", "pump gain, %", "kept, %", "place"),
    ]
    rows: list[Row] = [
        [
            *(row.mark, row.owner),
            *("" if weight is None else weight.of(unit) for weight in row.weights),
            *(row.now.of(unit), row.gain or "", row.kept, row.place or ""),
        ]
        for row in table.rows
    ]
    tables: Tables = [("Pieces", [heads, *rows])]
    return write_tables(tables, form)
