"""Amounts of a recipe as a cook tells them, and spoons."""

from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.amounts import count_spoons, read_amount, say_spoons
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.length import read_length
from dolmetsch.core.reference.spoons import SPOONS


@pytest.mark.parametrize(
    ("typed", "share"),
    [
        ("2.5", F("0.025")),
        ("2.5 %", F("0.025")),
        ("25 g for 1 kg", F("0.025")),
        ("25g/kg", F("0.025")),
        ("11 g per lb", 11 / GRAMS_PER_LB),
        ("8 oz for 10 lb", F("0.05")),
    ],
)
def test_a_share_of_the_meat(typed, share):
    assert read_amount(typed).share == share


@pytest.mark.parametrize(
    ("typed", "teaspoons_a_pound"),
    [
        ("1 tbsp/lb", 3),
        ("1/2 tsp/lb", F(1, 2)),
        ("1 1/2 tbsp a pound", F(9, 2)),
        ("1 cup for 10 lb", F(48, 10)),
        ("1 tsp for 5 lb", F(1, 5)),
    ],
)
def test_spoons_for_so_much_meat(typed, teaspoons_a_pound):
    assert read_amount(typed).teaspoons == teaspoons_a_pound / GRAMS_PER_LB


@pytest.mark.parametrize(
    ("typed", "reason"),
    [
        ("48 g", "for_how_much"),
        ("2 tbsp", "for_how_much"),
        ("a handful", "unreadable"),
        ("-1 %", "negative"),
        ("1/0 tsp/lb", "unreadable"),
        ("4 lb for 1 lb", "too_large"),
        ("301", "too_large"),
        ("2000 tsp/lb", "too_large"),
        ("", "unreadable"),
    ],
)
def test_what_is_no_amount_is_said(typed, reason):
    with pytest.raises(QuantityError) as refused:
        read_amount(typed)
    assert refused.value.reason == reason


def test_a_spoon_of_one_salt_is_almost_twice_one_of_another():
    rub = read_amount("1 tbsp/lb")
    dense, light = (rub.share_by(SPOONS[key]) for key in ("dense_flake", "light_flake"))
    # 14.7 g and 8.4 g on a pound
    assert (dense * GRAMS_PER_LB, light * GRAMS_PER_LB) == (F("14.7"), F("8.4"))
    with pytest.raises(QuantityError, match="which kind it is"):
        rub.share_by(None)


@pytest.mark.parametrize(
    ("teaspoons", "said"),
    [
        ("0.2", "less than ¼ tsp"),
        ("1", "1 tsp"),
        ("3.25", "1 tbsp ¼ tsp"),
        ("49.5", "1 cup 1½ tsp"),
        ("100.75", "2 cups 1 tbsp 1¾ tsp"),
    ],
)
def test_spoons_are_said_as_they_are_measured(teaspoons, said):
    assert say_spoons(F(teaspoons)) == said


@given(st.integers(1, 5000).map(F))
def test_spoons_are_within_half_a_quarter(grams):
    salt = SPOONS["fine_salt"]
    assert abs(count_spoons(grams, salt) - grams / salt.grams) <= F(1, 8)


@pytest.mark.parametrize(
    ("typed", "millimetres"),
    [("1.6", F("40.64")), ("1.6 in", F("40.64")), ("4 cm", 40), ("41mm", 41), ('2"', F("50.8"))],
)
def test_lengths(typed, millimetres):
    assert read_length(typed, default_unit="in") == millimetres


@pytest.mark.parametrize(
    ("typed", "reason"),
    [
        ("0", "zero"),
        ("-1", "negative"),
        ("thick", "unreadable"),
        ("3 ft", "unreadable"),
        ("9 m", "unreadable"),
        ("99 in", "too_large"),
    ],
)
def test_what_is_no_length_is_said(typed, reason):
    with pytest.raises(QuantityError) as refused:
        read_length(typed, default_unit="in")
    assert refused.value.reason == reason
