from fractions import Fraction as F

import pytest

from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.costing.strip import lay_out
from dolmetsch.core.ledger.batch import (
    Batch,
    ByProduct,
    Lot,
    Main,
    Merge,
    Portion,
    ShopPack,
    Split,
    Step,
    Weigh,
)
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.quantity import read_price, read_weight
from tests.core.jowl import JOWL, weigh

LB = F("453.59237")


@pytest.mark.parametrize(
    ("portion", "house"),
    [(Portion(slices=F(4)), "1.6000"), (Portion(grams=read_weight("2 oz")), "0.5000"), (None, None)],
)
def test_a_portion_is_slices_or_a_weight(portion, house):
    """5 lb for 20, sliced into 50: 4.00 a pound, 0.40 a slice."""
    sliced = Step(kind="slice", action=Split(piece="L", into=(Main(id="S", grams=5 * LB, slices=50),)))
    batch = Batch(lots=(Lot(id="L", grams=5 * LB, paid=F(20)),), steps=(sliced,), portion=portion)
    found = compute_sheet(batch).final.portion
    assert (None if found is None else fixed(found, 4)) == house


def test_before_slicing_there_is_no_price_of_a_slice():
    batch = Batch(
        lots=(Lot(id="L", grams=5 * LB, paid=F(20)),),
        portion=Portion(slices=F(3)),
        shop=(ShopPack(name="good", paid=F(6), grams=LB, slices=12),),
    )
    sheet = compute_sheet(batch)
    assert (sheet.final.cost_per_slice, sheet.final.portion, sheet.final.slices) == (None, None, None)
    assert sheet.shop[0].saved_per_portion is None
    assert sheet.shop[0].saved_on_batch == 10


def test_slices_need_every_piece_sliced():
    into = (Main(id="A", grams=2 * LB, slices=20), Main(id="B", grams=2 * LB))
    batch = Batch(
        lots=(Lot(id="L", grams=5 * LB, paid=F(20)),),
        steps=(Step(kind="slice", action=Split(piece="L", into=into)),),
    )
    assert compute_sheet(batch).final.slices is None


def test_the_strip_puts_slicing_of_three_pieces_in_one_column():
    strip = lay_out(JOWL, compute_sheet(JOWL))
    assert [column.kind for column in strip.columns] == [
        "bought",
        "trim",
        "cure",
        "smoke",
        "chill",
        "slice",
        "pack",
    ]
    sliced = strip.columns[5]
    assert sliced.steps == (5, 6, 7)
    assert fixed(sliced.kept_of_step_ratio, 6) == fixed(F("14.9") / F("16.97"), 6)
    assert (fixed(sliced.worth_back, 2), fixed(sliced.spent, 2)) == ("5.67", "12.00")
    assert fixed(sliced.cost_per_lb, 4) == "7.0741"
    assert sliced.pieces == ("A1", "B1", "C1")


def test_the_strip_accounts_for_every_gram():
    strip = lay_out(JOWL, compute_sheet(JOWL))
    for column in strip.columns:
        assert column.grams_in == column.grams_out + sum(peel.grams for peel in column.peels)


def test_by_products_of_one_name_peel_off_together_and_loss_is_named():
    def sliced(mark, out, ends):
        into = (
            Main(id=out, grams=2 * LB),
            ByProduct(id=ends, name="ends", material="ends", grams=LB, worth=read_price("3/lb")),
        )
        return Step(kind="slice", action=Split(piece=mark, into=into))

    trim = Step(
        kind="trim", action=Split(piece="L", into=(Main(id="A", grams=4 * LB), Main(id="B", grams=4 * LB)))
    )
    batch = Batch(
        lots=(Lot(id="L", grams=9 * LB, paid=F(50)),),
        steps=(
            trim,
            weigh("cure", A="3.5 lb", B="3.5 lb"),
            sliced("A", "A1", "ends"),
            sliced("B", "B1", "ends 2"),
        ),
    )
    _, trimmed, cured, cut = lay_out(batch, compute_sheet(batch)).columns
    assert [(peel.name, peel.grams / LB) for peel in trimmed.peels] == [("lost, not weighed", 1)]
    assert [(peel.name, peel.grams / LB) for peel in cured.peels] == [("water", 1)]
    assert [(peel.name, peel.grams / LB, peel.carried) for peel in cut.peels] == [
        ("ends", 2, 6),
        ("lost, not weighed", 1, None),
    ]


def test_weighing_one_piece_twice_makes_two_columns():
    batch = Batch(
        lots=(Lot(id="L", grams=9 * LB, paid=F(50)),),
        steps=(weigh("smoke", L="8 lb"), weigh("smoke", L="7 lb")),
    )
    strip = lay_out(batch, compute_sheet(batch))
    assert [column.steps for column in strip.columns] == [(), (1,), (2,)]


def test_what_may_still_come_follows_the_furthest_usual_step():
    def to_come(*kinds):
        steps = tuple(Step(kind=kind, action=Weigh(grams={"L": LB})) for kind in kinds)
        batch = Batch(lots=(Lot(id="L", grams=LB, paid=F(2)),), steps=steps)
        return lay_out(batch, compute_sheet(batch)).to_come

    assert to_come() == ("trim", "cure", "rest", "smoke", "chill", "slice")
    assert to_come("smoke", "cure", "hang") == ("chill", "slice")
    assert to_come("slice") == ()
    # pulled, it will never be sliced
    assert to_come("smoke", "pull") == to_come("dice") == ()


def test_of_meats_brought_together_only_the_slicing_is_usual():
    lots = (Lot(id="L", grams=LB, paid=F(2)), Lot(id="K", grams=LB, paid=F(3)))
    mix = Step(kind="mix", action=Merge(pieces=("L", "K"), into=Main(id="M", grams=2 * LB)))
    batch = Batch(lots=lots, steps=(mix,))
    strip = lay_out(batch, compute_sheet(batch))
    assert (strip.to_come, strip.columns[-1].came_together) == (("slice",), True)


def test_an_unweighed_gain_shows_as_less_than_nothing_lost():
    batch = Batch(
        lots=(Lot(id="L", grams=10 * LB, paid=F(50)),),
        steps=(Step(kind="cure", action=Weigh(grams={"L": 11 * LB})),),
    )
    (water,) = lay_out(batch, compute_sheet(batch)).columns[1].peels
    assert (water.name, water.grams / LB) == ("water", -1)
