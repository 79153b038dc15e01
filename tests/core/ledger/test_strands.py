"""Where pieces come from, and how each lot in them was heated."""

from fractions import Fraction as F

from dolmetsch.core.ledger import strands
from dolmetsch.core.ledger.batch import Batch, Lot, Main, Merge, Split, Step, Weigh
from dolmetsch.core.ledger.run_ledger import run
from dolmetsch.core.ledger.strands import Heated, Strand, strands_together

COLD, HOT = Heated(kind="smoke", heat="cold"), Heated(kind="smoke", heat="hot", inside_fahrenheit=F(152))


def strand(lot, marks, *heats):
    return Strand(lot=lot, marks=frozenset(marks.split()), heats=heats)


def test_a_piece_has_a_strand_of_each_lot_in_it():
    lots = (Lot(id="L", grams=F(1000), paid=F(10)), Lot(id="R", grams=F(500), paid=F(5)))
    steps = (
        Step(
            kind="trim",
            action=Split(piece="L", into=(Main(id="A", grams=F(450)), Main(id="B", grams=F(450)))),
        ),
        Step(kind="smoke", action=Weigh(grams={"A": F(400)}), heated=HOT),
        Step(kind="smoke", action=Weigh(grams={"B": F(420)}), heated=COLD),
        Step(kind="mix", action=Merge(pieces=("A", "R"), into=Main(id="M", grams=F(900)))),
    )
    mains = {piece.id: piece for piece in run(Batch(lots=lots, steps=steps)).mains}
    assert set(mains["M"].strands) == {strand("L", "L A M", HOT), strand("R", "R M")}
    assert mains["B"].strands == (strand("L", "L B", COLD),)


def test_what_is_alike_comes_together_as_one():
    found = strands_together([strand("L", "L A", HOT), strand("L", "L B", HOT), strand("L", "L C")])
    assert set(found) == {strand("L", "L A B", HOT), strand("L", "L C")}


def test_of_too_many_only_what_all_have_in_common_is_kept(monkeypatch):
    monkeypatch.setattr(strands, "MOST_STRANDS", 2)
    found = strands_together(
        [
            strand("L", "L A", HOT, COLD),
            strand("L", "L B", HOT),
            strand("L", "L C", COLD, HOT),
            strand("R", "R", COLD),
        ]
    )
    assert set(found) == {strand("L", "L A B C", HOT), strand("R", "R", COLD)}
