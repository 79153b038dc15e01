"""The butcher's test, by property: nothing is lost, and the factor carries any price over."""

from fractions import Fraction as F

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from dolmetsch.core.meat.butchers_test import judge_cutting

grams = st.integers(1, 20_000).map(F)
money = st.integers(0, 50_000).map(lambda cents: F(cents, 100))
cut_off = st.lists(st.tuples(st.sampled_from(["skin", "bone", "lean trim"]), grams, money), max_size=5)


@st.composite
def cuttings(draw):
    """What was bought, what it cost, what stays, what came off, and what nobody weighed."""
    stays = draw(st.lists(st.tuples(st.sampled_from("ABCD"), grams), min_size=1, max_size=4))
    off = draw(cut_off)
    lost = draw(st.integers(0, 500).map(F))
    cost = sum((worth for _, _, worth in off), F(0)) + draw(money)
    bought = sum((weight for _, weight in stays), F(0)) + sum((weight for _, weight, _ in off), F(0)) + lost
    return {"bought": bought, "cost": cost, "usable": stays, "cut_off": off}, lost


@given(cuttings())
def test_parts_and_what_nobody_weighed_are_all_that_was_bought(cutting):
    answer, lost = cutting
    test = judge_cutting(**answer)
    assert test.lost == lost
    assert sum(part.grams for part in test.parts) + lost == test.bought
    assert sum(part.share for part in test.parts) == 1 - lost / test.bought
    assert test.usable == sum(part.grams for part in test.parts if part.is_usable)


@given(cuttings())
def test_what_is_usable_bears_all_the_cost_but_what_came_off_is_worth(cutting):
    answer, _lost = cutting
    test = judge_cutting(**answer)
    assert test.usable_cost + sum(part.worth for part in test.parts) == test.cost
    assert test.usable_price * test.usable == test.usable_cost


@given(cuttings(), st.integers(1, 10_000).map(lambda cents: F(cents, 453_59)))
def test_the_factor_carries_any_price_over_in_proportion(cutting, price):
    answer, _lost = cutting
    test = judge_cutting(**answer)
    assume(test.cost)
    assert test.price_usable(test.price) == test.usable_price
    assert test.price_usable(2 * price) == 2 * test.price_usable(price)
    # with the trim worth what it is worth now, today's price gives today's, and each cent more costs the same
    assert test.price_usable_with_same_worth(test.price) == test.usable_price
    more = test.price_usable_with_same_worth(price + 1) - test.price_usable_with_same_worth(price)
    assert more == test.bought / test.usable


def test_meat_that_cost_nothing_has_no_factor():
    test = judge_cutting(bought=F(1000), cost=F(0), usable=[("A", F(800))], cut_off=[])
    assert (test.factor, test.price_usable(F(1))) == (None, None)


@pytest.mark.parametrize(("bought", "usable"), [(F(0), [("A", F(1))]), (F(10), []), (F(10), [("A", F(0))])])
def test_nothing_bought_or_nothing_left_is_no_test(bought, usable):
    with pytest.raises(ValueError, match="something bought and something that can be used"):
        judge_cutting(bought=bought, cost=F(1), usable=usable, cut_off=[])
