"""The strip: a batch's chain laid out in columns, as it is read from left to right.

A column is a step; steps of one kind that follow one another on different pieces (slicing A, then
B) stand in one column, since the cook thinks of them as one. Geometry is the drawing's affair.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Final as Const

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.ledger.batch import Batch
from dolmetsch.core.ledger.course import COURSE_FACTS, USUAL_STEPS, Course
from dolmetsch.core.ledger.kinds import FINISHING, method_kind, method_kinds
from dolmetsch.core.ledger.pieces import ZERO, Piece, Stage, cost_of, grams_of

#: The usual order of the work; what of it is not done yet keeps an empty column.
USUAL_KINDS: Const = USUAL_STEPS
#: How a finished step is spoken of.
LABELS: Const = {
    "bought": "Bought",
    "trim": "Trimmed",
    "cure": "Cured",
    "rest": "Rested",
    "smoke": "Smoked",
    "chill": "Chilled",
    "slice": "Sliced",
    "mix": "Mixed",
    "stuff": "Stuffed",
    "ferment": "Fermented",
    "hang": "Hung",
    "dry": "Dried",
    "age": "Aged",
    "rinse": "Rinsed",
    "soak": "Soaked",
    "press": "Pressed",
    "cook": "Cooked",
    "discard": "Thrown away",
    "pump": "Pumped",
    "wash": "Washed",
    "steam": "Steamed",
    "pull": "Pulled",
    "dice": "Diced",
    "dry-age": "Dry-aged",
    "pack": "Packed",
}
#: What leaves unweighed, by the step it leaves in: from a knife a loss, from the bag or the fire water.
CUT_KINDS: Const = frozenset({"trim", "slice"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Peel:
    """What left the ribbon in a column. ``grams`` below zero: what came on (brine, juice).

    ``carried`` is the money it took along; None for loss.
    """

    material: str
    name: str
    grams: Fraction
    carried: Fraction | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Column:
    """One column: weights and price over all living mains after it.

    ``steps`` counted from 1, empty for the first column (as purchased). ``kept_of_step_ratio`` is of
    the step's own pieces; None in the first column and where all that was done is throwing away.
    ``came_together`` says so where pieces were merged.
    """

    kind: str
    steps: tuple[int, ...]
    grams_in: Fraction
    grams_out: Fraction
    kept_of_step_ratio: Fraction | None
    kept_of_bought_ratio: Fraction
    spent: Fraction
    worth_back: Fraction
    cost_per_lb: Fraction | None
    peels: tuple[Peel, ...]
    pieces: tuple[str, ...]
    came_together: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Strip:
    """The columns so far, and the usual kinds of step that may still come."""

    columns: tuple[Column, ...]
    to_come: tuple[str, ...]

    @property
    def came_together(self) -> bool:
        """Whether pieces were merged in any of the columns."""
        return any(column.came_together for column in self.columns)


def lay_out(batch: Batch, sheet: Sheet, course: Course | None = None) -> Strip:
    """The strip of a batch from its computed sheet; ``course``: what all of it is to become."""
    first = Column(
        kind="bought",
        steps=(),
        grams_in=sheet.bought.grams,
        grams_out=sheet.bought.grams,
        kept_of_step_ratio=None,
        kept_of_bought_ratio=Fraction(1),
        spent=sheet.bought.cost,
        worth_back=ZERO,
        cost_per_lb=sheet.bought.cost_per_lb,
        peels=(),
        pieces=tuple(lot.id for lot in batch.lots),
    )
    columns = [first]
    columns += [_column(run) for run in _runs(sheet.ledger.stages)]
    return Strip(columns=tuple(columns), to_come=kinds_to_come(columns, course))


def lay_out_step(sheet: Sheet, step: int) -> Column:
    """The column of one step alone (counted from 1), even where the strip joins it with others."""
    return _column([sheet.ledger.stages[step - 1]])


def kinds_to_come(columns: Sequence[Column], course: Course | None = None) -> tuple[str, ...]:
    """The kinds usual on the way to ``course`` after the furthest one done.

    Of meats brought together only what ends it is usual.
    """
    done = [column.kind for column in columns]
    if FINISHING & method_kinds(done):
        # whatever it became, nothing is usual after that
        return ()
    is_mixed = any(column.came_together for column in columns)
    if is_mixed and (course is None or not COURSE_FACTS[course].is_dried):
        return ("slice",)
    usual = USUAL_STEPS if course is None else COURSE_FACTS[course].steps
    if is_mixed:
        usual = usual[usual.index("hang") :]
    # a kind spelled otherwise on the bench is the same kind: hang is dry
    kinds = [method_kind(kind) for kind in usual]
    furthest = max((kinds.index(kind) for kind in map(method_kind, done) if kind in kinds), default=-1)
    return usual[furthest + 1 :]


def label_piece(piece: Piece) -> str:
    """What a piece has last been through, as its column is called."""
    return label_kind(piece.kinds[-1] if piece.kinds else "bought")


def label_kind(kind: str) -> str:
    """The word over a column: "Smoked" for smoke, a cook's own word as it is, with a capital."""
    return LABELS.get(kind, kind[:1].upper() + kind[1:])


def _runs(stages: Sequence[Stage]) -> Iterator[list[Stage]]:
    """Stages that share a column: of one kind, in a row, on pieces none of which came out of the others."""
    run: list[Stage] = []
    touched: set[str] = set()
    for stage in stages:
        if run and (run[0].kind != stage.kind or touched & set(stage.pieces_in)):
            yield run
            run, touched = [], set()
        run.append(stage)
        touched |= {*stage.pieces_in, *stage.pieces_out}
    if run:
        yield run


def _column(run: list[Stage]) -> Column:
    last = run[-1]
    weighed = [stage for stage in run if stage.act != "discard"]
    own_in = sum((stage.own_grams_in for stage in weighed), ZERO)
    own_out = sum((stage.own_main_grams_out for stage in weighed), ZERO)
    return Column(
        kind=last.kind,
        steps=tuple(stage.step for stage in run),
        grams_in=run[0].grams_in,
        grams_out=last.grams_out,
        kept_of_step_ratio=own_out / own_in if own_in else None,
        kept_of_bought_ratio=last.kept_of_bought_ratio,
        spent=sum((stage.cost_added for stage in run), ZERO),
        worth_back=sum((stage.credits for stage in run), ZERO),
        cost_per_lb=last.cost_per_lb,
        peels=tuple(_peels(run)),
        pieces=tuple(mark for stage in run for mark in stage.pieces_out),
        came_together=any(stage.act == "merge" for stage in run),
    )


def _peels(run: list[Stage]) -> Iterator[Peel]:
    """By-products, those of one name together, what was thrown away, then what was not weighed."""
    yield from peels_cut_off(run)
    for stage in run:
        if stage.act == "discard":
            for piece in stage.entered:
                yield Peel(material="discard", name=piece.id, grams=piece.grams)
    lost = sum((stage.lost_grams for stage in run), ZERO)
    if lost:
        yield peel_of_loss(run[0].kind, lost)


def peels_cut_off(run: list[Stage]) -> Iterator[Peel]:
    """By-products, those of one name together."""
    by_name: dict[str, list[Piece]] = {}
    for stage in run:
        for piece in stage.cut_off:
            by_name.setdefault(piece.name, []).append(piece)
    for name, pieces in by_name.items():
        yield Peel(
            material=pieces[0].material,
            name=name,
            grams=grams_of(pieces),
            carried=cost_of(pieces),
        )


def peel_of_loss(kind: str, grams: Fraction) -> Peel:
    """What left unweighed in a kind of step; below zero for what came on."""
    material, name = ("loss", "lost, not weighed") if kind in CUT_KINDS else ("water", "water")
    return Peel(material=material, name=name, grams=grams)
