"""Pieces that go over from one batch to another."""

from fractions import Fraction as F

import pytest

from dolmetsch.core.costing.lineage import take_piece
from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.ledger.batch import Batch, ByProduct, Lot, Main, Origin, ShopPack, Split, Step, Weigh
from dolmetsch.core.numbers.quantity import Price

LEAN = ByProduct(id="lean", grams=F(200), worth=Price(paid=F(4), grams=F(1000)))
TRIM = Step(kind="trim", action=Split(piece="L", into=(Main(id="A", grams=F(800)), LEAN)), overhead=F(2))
UP = compute_sheet(Batch(lots=(Lot(id="L", grams=F(1000), paid=F(10)),), steps=(TRIM,)))


@pytest.mark.parametrize(
    ("grams", "carried"),
    [(None, F("11.2")), (F(800), F("11.2")), (F(400), F("5.6")), (F(804), F("11.2"))],
)
def test_a_piece_brings_its_part_of_the_bill(grams, carried):
    """A carries 10 + 2 − 0.80; up to 1 % more than it weighed is all of it, on another scale."""
    taken = take_piece(UP, "A", grams)
    assert (sum(money for _, money in taken.carried), taken.too_much) == (carried, False)
    assert taken.grams == (grams or 800)


def test_a_by_product_can_be_taken_and_a_stranger_cannot():
    assert take_piece(UP, "lean", None).carried == (("credit", F("0.8")),)
    assert take_piece(UP, "L", None) is None
    assert take_piece(UP, "A", F(809)).too_much


def linked(**more):
    taken = take_piece(UP, "A", None)
    return Lot(
        id="a",
        grams=taken.grams,
        paid=F(0),
        origin=Origin(batch="up", piece="A"),
        carried=taken.carried,
        **more,
    )


def test_groups_go_on_and_break_even_scales_what_is_paid_here_alone():
    """The shop asks 18.00 for the 500 g left; 11.20 came over, so 6.80 may be paid here, for 200 g."""
    own = Lot(id="b", grams=F(200), paid=F(3))
    smoke = Step(kind="smoke", action=Weigh(grams={"a": F(400), "b": F(100)}))
    shop = (ShopPack(name="x", paid=F(36), grams=F(1000)),)
    sheet = compute_sheet(Batch(lots=(linked(), own), steps=(smoke,), shop=shop))
    assert sheet.final.groups == {"meat": 13, "overhead": 2, "credit": F("-0.8")}
    assert (sheet.bought.cost, sheet.bought.paid) == (F("14.2"), 3)
    assert sheet.shop[0].break_even_paid_per_lb * 1000 / F("453.59237") == 34


def test_nothing_paid_here_has_no_break_even():
    shop = (ShopPack(name="x", paid=F(36), grams=F(1000)),)
    assert compute_sheet(Batch(lots=(linked(),), shop=shop)).shop[0].break_even_paid_per_lb is None
