"""Plates worked by hand: parts, yields, dishes within dishes, and what to charge."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.dishes.plate import DishError, Menu, Part, Recipe, cost_plates, price_for


def part(amount, unit_cost=None, *, name="part", kept=1, dish=None):
    cost = None if unit_cost is None else Fraction(unit_cost)
    return Part(name=name, amount=Fraction(amount), unit_cost=cost, yield_ratio=Fraction(kept), dish=dish)


def test_a_roll_part_by_part():
    """Three slices at 0.42, 20 g of dressing at 4.00 a kg, 30 g of leaves at 6.00 of which 3/4 is used."""
    roll = Recipe(parts=[part(3, "0.42"), part(20, "0.004"), part(30, "0.006", kept="0.75")])
    plate = cost_plates({"roll": roll})["roll"]
    assert plate.parts == (Fraction("1.26"), Fraction("0.08"), Fraction("0.24"))
    assert plate.cost == Fraction("1.58")


def test_a_loaf_is_a_dish_within_a_dish():
    """A loaf of 12 slices for 3.00; two slices are 0.50, of which a tenth is crust that nobody plates."""
    loaf = Recipe(parts=[part(500, "0.004"), part(1, 1)], plates=Fraction(12))
    roll = Recipe(parts=[part(2, dish="loaf", kept="0.9"), part(1, "0.20")])
    plates = cost_plates({"roll": roll, "loaf": loaf})
    assert plates["loaf"].cost == Fraction("0.25")
    assert plates["roll"].parts[0] == Fraction("0.5") / Fraction("0.9")


def test_a_part_without_a_price_leaves_the_plate_without_one():
    plates = cost_plates({"a": Recipe(parts=[part(1), part(1, 1)]), "b": Recipe(parts=[part(1, dish="a")])})
    assert (plates["a"].parts, plates["a"].cost, plates["b"].cost) == ((None, 1), None, None)


@pytest.mark.parametrize(
    ("dishes", "path"),
    [
        ({"a": Recipe(parts=[part(1, 1), part(1, dish="a")])}, "parts[1].dish"),
        ({"a": Recipe(parts=[part(1, dish="b")]), "b": Recipe(parts=[part(1, dish="a")])}, "parts[0].dish"),
        ({"a": Recipe(parts=[part(1, dish="c")])}, "parts[0].dish"),
        ({"a": Recipe(parts=[part(1, 1, kept=0)])}, "parts[0].yield"),
        ({"a": Recipe(parts=[part(1, 1, kept="1.01")])}, "parts[0].yield"),
        ({"a": Recipe(parts=[part(1, 1)], plates=Fraction(0))}, "plates"),
    ],
)
def test_a_dish_that_cannot_be_is_refused_at_its_place(dishes, path):
    with pytest.raises(DishError) as refused:
        cost_plates(dishes)
    assert refused.value.path == path


def test_what_a_plate_leaves_and_what_to_charge():
    """2.60 at 9.50: 27.4 % of it, 6.90 left. With a tax of 19 % in it 7.98 are the kitchen's."""
    menu = Menu(price=Fraction("9.50"))
    assert round(menu.food_cost(Fraction("2.60")), 3) == Fraction("0.274")
    assert menu.leaves(Fraction("2.60")) == Fraction("6.90")
    taxed = Menu(price=Fraction("9.50"), tax=Fraction("0.19"))
    assert round(taxed.net, 2) == Fraction("7.98")
    assert Menu(price=Fraction(0)).food_cost(Fraction(1)) is None
    assert price_for(Fraction("2.60"), Fraction("0.30")) == Fraction("8.67")
    assert price_for(Fraction("2.60"), Fraction("0.30"), tax=Fraction("0.19")) == Fraction("10.32")


@given(st.fractions(Fraction(1, 100), 50), st.fractions(Fraction(1, 20), 1), st.fractions(0, 1))
def test_the_price_for_an_aim_meets_it_to_the_cent(cost, aim, tax):
    price = price_for(cost, aim, tax=tax)
    assert Menu(price=price, tax=tax).food_cost(cost) <= aim
    a_cent_less = Menu(price=price - Fraction(1, 100), tax=tax).food_cost(cost)
    assert a_cent_less is None or a_cent_less > aim
