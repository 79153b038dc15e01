"""A batch shared with customers: its parts add up to the whole, and the own part has its own price."""

from fractions import Fraction as F

from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.costing.customers import share_with_customers
from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.ledger.batch import Batch, Lot, ShopPack
from tests.core.jowl import JOWL, weigh

LB = F("453.59237")
SHEET = compute_sheet(JOWL)
MARKS = sorted(piece.id for piece in SHEET.ledger.mains)


def test_a_customers_lot_takes_its_own_price_and_work_along():
    """Ours: 5 lb for 20, theirs: 10 lb for 30; an hour at 15 a pound of weight; at 6 a pound in the shop."""
    batch = Batch(
        lots=(Lot(id="A", grams=5 * LB, paid=F(20)), Lot(id="B", grams=10 * LB, paid=F(30))),
        steps=(weigh("smoke", minutes=60, A="4 lb", B="8 lb"),),
        shop=(ShopPack(name="good", paid=F(6), grams=LB),),
    )
    sheet = compute_sheet(batch)
    share = share_with_customers(sheet, {"B"})
    assert (share.pieces, share.grams, share.cost, share.cost_per_lb) == (1, 4 * LB, 20, 5)
    assert (share.customers_pieces, share.customers_grams) == (1, 8 * LB)
    assert share.saved == (4,)
    assert share_with_customers(sheet, {"A"}).saved == (18,)
    nothing = share_with_customers(sheet, {"A", "B"})
    assert (nothing.pieces, nothing.cost_per_lb, nothing.saved) == (0, None, (None,))


@given(st.sets(st.sampled_from(MARKS)))
def test_both_parts_are_the_whole(customers):
    ours = share_with_customers(SHEET, customers)
    theirs = share_with_customers(SHEET, set(MARKS) - customers)
    final = SHEET.final
    assert (ours.grams + theirs.grams, ours.cost + theirs.cost) == (final.grams, final.cost)
    assert (ours.customers_grams, ours.customers_pieces) == (theirs.grams, theirs.pieces)
    assert ours.customers_labour + theirs.customers_labour == final.groups["labour"]
    for shop, one, other in zip(SHEET.shop, ours.saved, theirs.saved, strict=True):
        assert (one or 0) + (other or 0) == shop.saved_on_batch


def test_without_customers_all_of_it_is_the_kitchens():
    share = share_with_customers(SHEET, ())
    assert share.saved == tuple(shop.saved_on_batch for shop in SHEET.shop)
    assert share.customers_labour == 0
