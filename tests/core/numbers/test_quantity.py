from decimal import Decimal
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.amounts import read_amount
from dolmetsch.core.numbers.exact import exact, fixed, text_beside, weigh_in
from dolmetsch.core.numbers.length import read_length
from dolmetsch.core.numbers.quantity import (
    Price,
    read_count,
    read_money,
    read_number,
    read_price,
    read_weight,
)
from dolmetsch.core.numbers.spelling import spell_weight, spell_worth


@pytest.mark.parametrize(
    ("typed", "grams"),
    [
        ("1 lb", "453.59237"),
        ("4 lb 6 oz", "1984.46661875"),
        ("4lb6oz", "1984.46661875"),
        ("4 lb. 6 oz.", "1984.46661875"),
        ("4 pounds, 6 ounces", "1984.46661875"),
        ("70 oz", "1984.46661875"),
        ("1.98 kg", "1980"),
        ("850 g", "850"),
        ("850 Grams", "850"),
        (" .5 KG ", "500"),
        ("2 #", "907.18474"),
    ],
)
def test_weights_are_read_as_they_come(typed, grams):
    assert read_weight(typed) == Fraction(grams)


def test_a_bare_number_takes_the_kitchens_unit_or_is_refused():
    assert read_weight("4.38", default_unit="kg") == 4380
    with pytest.raises(QuantityError, match="is not a weight: write it like"):
        read_weight("4.38")


@pytest.mark.parametrize(
    ("typed", "reason"),
    [
        ("4.3.1 lb", "unreadable"),
        ("twelve", "unreadable"),
        ("", "unreadable"),
        ("4 stone", "unreadable"),
        ("1,200 g", "unreadable"),
        ("1e3 g", "unreadable"),
        ("٤ lb", "unreadable"),
        ("4 kg 6 oz", "unreadable"),
        ("4.5 lb 6 oz", "unreadable"),
        ("4 lb .6 oz", "unreadable"),
        ("NaN kg", "unreadable"),
        ("0 lb", "zero"),
        ("0 lb 0 oz", "zero"),
        ("-2 lb", "negative"),
        ("5000.1 kg", "too_heavy"),
        ("1.00000001 lb", "too_fine"),
    ],
)
def test_weights_that_cannot_be_taken_say_why(typed, reason):
    with pytest.raises(QuantityError) as refused:
        read_weight(typed)
    assert refused.value.reason == reason
    assert typed.strip() in str(refused.value)


def test_five_tonnes_is_still_a_weight():
    assert read_weight("5000 kg") == 5_000_000


@pytest.mark.parametrize(
    ("typed", "price"),
    [
        ("3.49/lb", Price(paid=Fraction("3.49"), grams=Fraction("453.59237"))),
        ("$3.49 a pound", Price(paid=Fraction("3.49"), grams=Fraction("453.59237"))),
        ("1.20 / kg", Price(paid=Fraction("1.2"), grams=Fraction(1000))),
        ("0.35 each", Price(paid=Fraction("0.35"), count=Fraction(1))),
        ("0.35/each", Price(paid=Fraction("0.35"), count=Fraction(1))),
        ("5.00 for 8 oz", Price(paid=Fraction(5), grams=Fraction("226.796185"), is_pack=True)),
        ("18 for 50 each", Price(paid=Fraction(18), count=Fraction(50), is_pack=True)),
        ("18.00 for 50", Price(paid=Fraction(18), count=Fraction(50), is_pack=True)),
        ("2.50", Price(paid=Fraction("2.5"), grams=Fraction(1000))),
    ],
)
def test_prices_are_read_as_they_come(typed, price):
    assert read_price(typed, default_unit="kg") == price


@pytest.mark.parametrize(
    "typed", ["", "free", "-1/lb", "3.49/stone", "5 for 0 oz", "5 for nothing", "1e2/lb"]
)
def test_prices_that_cannot_be_taken_are_refused(typed):
    with pytest.raises(QuantityError):
        read_price(typed)


def test_a_packs_price_charges_only_what_was_used():
    """5.00 for 8 oz; 2 oz of it cost 1.25."""
    jar = read_price("5.00 for 8 oz")
    assert jar.cost_of(read_weight("2 oz")) == Fraction("1.25")


def test_money_and_counts():
    assert read_money("$68.40") == Fraction("68.4")
    assert read_count("15 bags") == 15
    for reader, typed in [(read_money, "-1"), (read_money, "1.23456"), (read_money, "2000000")]:
        with pytest.raises(QuantityError):
            reader(typed)
    for typed in ("0", "many"):
        with pytest.raises(QuantityError):
            read_count(typed)
    with pytest.raises(QuantityError, match="not a share"):
        read_number("half", what="share")


@given(st.decimals(0, 5_000, places=3), st.sampled_from(["lb", "oz", "kg", "g"]))
def test_a_weight_typed_in_any_unit_is_the_same_in_that_unit(number, unit):
    if number:
        assert weigh_in(read_weight(f"{number:f} {unit}"), unit) == Fraction(number)


@pytest.mark.parametrize("wrong", [0.1, True, None, 1j])
def test_only_exact_numbers_enter(wrong):
    with pytest.raises(TypeError, match="exact numbers only"):
        exact(wrong)


@pytest.mark.parametrize(
    ("value", "places", "shown"),
    [
        ("2.5", 0, "2"),
        ("3.5", 0, "4"),
        ("0.125", 2, "0.12"),
        ("0.135", 2, "0.14"),
        ("-0.125", 2, "-0.12"),
        ("-0.001", 2, "0.00"),
        ("0.0000001", 4, "0.0000"),
        ("1234567.891", 2, "1234567.89"),
    ],
)
def test_printing_rounds_half_to_even_in_fixed_notation(value, places, shown):
    assert fixed(exact(Decimal(value)), places) == shown


def test_a_price_is_by_weight_or_by_count():
    with pytest.raises(ValueError, match="either"):
        Price(paid=Fraction(1))


@pytest.mark.parametrize(
    ("typed", "same_as"),
    [
        ("4 1/2 lb", "4.5 lb"),
        ("4½ lb", "4.5 lb"),
        ("½ lb", "8 oz"),
        ("4 lb 6", "4 lb 6 oz"),
        ("4 lb 6½ oz", "4 lb 6.5 oz"),
        ("4 lb, 6 oz", "4 lb 6 oz"),
        ("2,1 kg", "2.1 kg"),
        ("0,125 kg", "125 g"),
        ("12,5 oz", "12.5 oz"),
        ("2\u00a0kg", "2 kg"),
    ],
)
def test_weights_written_as_cooks_write_them_are_read_and_spelled_plainly(typed, same_as):
    assert read_weight(typed) == read_weight(same_as)
    assert read_weight(spell_weight(typed, "kg")) == read_weight(same_as)


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("1,200 g", "may be 1.200 or 1200"),
        ("1.234,5 g", "is not a weight"),
        ("4 lb 16", "is not a weight"),
        ("1/3 lb", "is not a weight"),
        ("1/0 lb", "is not a weight"),
        ("8 qt", "is a volume; weigh it"),
        ("½ tsp", "is a volume"),
        ("1 cup", "is a volume"),
        ("−2 lb", "below zero"),
    ],
)
def test_what_may_be_two_weights_or_a_volume_is_refused_at_once(typed, said):
    with pytest.raises(QuantityError, match=said):
        read_weight(typed)


def test_money_signs_stand_before_or_behind_and_are_the_kitchens_own():
    for typed in ("€8.90", "8,90 €", "8,90"):
        assert read_money(typed, sign="€") == Fraction("8.9")
    assert read_price("8,90 €/kg", sign="€") == read_price("€8.90/kg") == read_price("8.90/kg")
    assert read_price("$5,00 for 8½ oz", sign="$").grams == read_weight("8.5 oz")
    assert read_price("5/8 oz") == read_price("5 for 8 oz")
    for reader in (read_money, read_price):
        with pytest.raises(QuantityError, match=r"in €; prices here are in \$") as refused:
            reader("€8.90", sign="$")
        assert refused.value.reason == "other_currency"
    assert spell_worth("€8,90/kg", "lb") == "8.90/kg"


@pytest.mark.parametrize(
    ("typed", "same_as"),
    [("2,5 %", "2.5 %"), ("½ tsp/lb", "1/2 tsp/lb"), ("1½ tsp for 5 lb", "1.5 tsp for 5 lb")],
)
def test_amounts_are_read_the_same_way(typed, same_as):
    assert read_amount(typed) == read_amount(same_as)
    assert read_number("2,5", what="share") == Fraction("2.5")
    assert read_length("1½ in", default_unit="cm") == read_length("1,5 in", default_unit="cm")


@pytest.mark.parametrize(
    ("value", "other", "places", "shown"),
    [
        ("156.25", "156", 0, "156.25"),
        ("156", "156", 0, "156"),
        ("156.4", "156", 1, "156.4"),
        ("156.04", "156", 0, "156.04"),
        # six decimals at most, though they still read alike
        ("1.0000001", "1", 0, "1.000000"),
    ],
)
def test_two_numbers_are_told_apart_by_as_few_decimals_as_it_takes(value, other, places, shown):
    assert text_beside(Fraction(value), Fraction(other), places=places) == shown
