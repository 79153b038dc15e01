"""Brine of hot and cold water, by property: heat is kept, and ice brings it to where meat may go in."""

from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.curing.brine_mixing import MELTING, WARMING, mix_water
from dolmetsch.core.errors import CureError

degrees = st.integers(32, 212).map(F)
ratios = st.integers(0, 100).map(lambda percent: F(percent, 100))
grams = st.integers(1, 50_000).map(F)


@given(grams, ratios, degrees, degrees)
def test_it_comes_out_between_its_parts_and_keeps_their_heat(water, hot_ratio, hot, cold):
    mixed = mix_water(water, hot_ratio=hot_ratio, hot_fahrenheit=hot, cold_fahrenheit=cold)
    assert mixed.hot + mixed.cold == water
    assert min(hot, cold) <= mixed.mixed <= max(hot, cold)
    assert mixed.hot * hot + mixed.cold * cold == water * mixed.mixed


@given(grams, ratios, degrees, degrees)
def test_meat_may_go_in_at_forty_and_under_alone(water, hot_ratio, hot, cold):
    mixed = mix_water(water, hot_ratio=hot_ratio, hot_fahrenheit=hot, cold_fahrenheit=cold)
    assert mixed.may_go_in == (mixed.mixed <= 40)
    assert (mixed.ice == 0) == mixed.may_go_in


@given(grams, ratios, degrees, degrees)
def test_the_ice_named_takes_up_just_the_warmth_that_is_too_much(water, hot_ratio, hot, cold):
    mixed = mix_water(water, hot_ratio=hot_ratio, hot_fahrenheit=hot, cold_fahrenheit=cold)
    if not mixed.ice:
        return
    assert mixed.ice <= mixed.cold
    # what is left as water cools to 40 °F; the ice melts and warms from 32 to 40
    given_up = WARMING * 5 / 9 * (mixed.hot * (hot - 40) + (mixed.cold - mixed.ice) * (cold - 40))
    taken_up = mixed.ice * (MELTING + WARMING * 5 / 9 * (40 - 32))
    assert given_up == taken_up


def test_by_hand_a_quarter_boiling_in_fridge_water():
    """¼ · 212 + ¾ · 40 = 83 °F; 43 °F or 23.9 K too much: 100.0 J/g, ÷ 352.6 J/g of ice: 284 g a kilogram."""
    mixed = mix_water(F(1000), hot_ratio=F(1, 4), hot_fahrenheit=F(212), cold_fahrenheit=F(40))
    assert (mixed.mixed, mixed.may_go_in) == (83, False)
    assert round(mixed.ice) == round(F(1000) * F("4.186") * F(215, 9) / (334 + F("4.186") * F(40, 9)))
    assert round(mixed.ice) == 284


@pytest.mark.parametrize(
    ("field", "more"),
    [
        ("hot", {"hot_fahrenheit": F(213)}),
        ("hot", {"hot_fahrenheit": F(31)}),
        ("cold", {"cold_fahrenheit": F(20)}),
        ("hot_part", {"hot_ratio": F(101, 100)}),
        ("hot_part", {"hot_ratio": F(-1, 100)}),
    ],
)
def test_water_that_cannot_be_is_refused_at_its_field(field, more):
    usual = {"hot_ratio": F(1, 4), "hot_fahrenheit": F(212), "cold_fahrenheit": F(40)}
    with pytest.raises(CureError) as refused:
        mix_water(F(1000), **{**usual, **more})
    assert refused.value.field == field
