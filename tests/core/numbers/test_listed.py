"""Cells of a supplier's list, a history of prices, and the score of forecasts."""

from datetime import date, timedelta
from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.buying.price_history import Seen, is_odd, mean_and_spread, summarise
from dolmetsch.core.errors import QuantityError
from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.forecast.scoring import compute_quantile, judge_forecast, score
from dolmetsch.core.numbers.listed import guess_decimal, read_listed_day, read_listed_number, refuse_formula

near = pytest.approx
TODAY = date(2026, 11, 25)


@pytest.mark.parametrize(
    ("cell", "decimal", "value"),
    [
        ("3.49", ".", "3.49"),
        ("$3.49", ".", "3.49"),
        ("US$ 1,234.50", ".", "1234.5"),
        ("1.234,50 €", ",", "1234.5"),
        ("EUR 3,49", ",", "3.49"),
        ("1 234,5", ",", "1234.5"),
        ("1\u00a0234.50", ".", "1234.5"),
        ("12'345.00", ".", "12345"),
        ("1,234", ".", "1234"),
        ("1,234", ",", "1.234"),
        ("7", ".", "7"),
    ],
)
def test_a_number_in_a_cell(cell, decimal, value):
    assert read_listed_number(cell, decimal=decimal) == F(value)


@pytest.mark.parametrize(
    ("cell", "reason"),
    [
        ("", "missing"),
        ("=A1*2", "formula"),
        ("+SUM(A1)", "formula"),
        ("@x", "formula"),
        ("-3.00", "negative"),
        ("1,2.3", "unreadable"),
        ("12,34", "unreadable"),
        ("3.4.9", "unreadable"),
        ("cheap", "unreadable"),
        ("9999999", "too_large"),
        ("3.123456", "too_fine"),
    ],
)
def test_a_cell_that_is_no_number_says_why(cell, reason):
    with pytest.raises(QuantityError) as refused:
        read_listed_number(cell, decimal=".")
    assert refused.value.reason == reason
    assert not cell or cell[:3] in str(refused.value)


def test_a_formula_is_told_from_a_word():
    for cell in ("=1+1", "@SUM(A1)", "+A1", "-cmd"):
        with pytest.raises(QuantityError, match="formula"):
            refuse_formula(cell)
    for cell in ("jowl - skin on", "-3.00", "+3", "A = B"):
        refuse_formula(cell)


@pytest.mark.parametrize(
    ("cells", "decimal"),
    [
        (["3.49", "1,234"], "."),
        (["3,49", "12,5"], ","),
        (["1.234,50", "7"], ","),
        (["1,234", "2,345"], None),
        ([], None),
    ],
)
def test_the_decimal_sign_is_guessed_from_cells_that_read_one_way(cells, decimal):
    assert guess_decimal(cells) == decimal


@given(st.decimals("0.01", "999999", places=2))
def test_a_price_reads_the_same_in_both_ways_of_writing(value):
    plain = f"{value:,.2f}"
    turned = plain.translate(str.maketrans(",.", ".,"))
    assert read_listed_number(plain, decimal=".") == read_listed_number(turned, decimal=",") == F(value)


@pytest.mark.parametrize(
    ("cell", "day_first", "day"),
    [
        ("2026-11-25", True, date(2026, 11, 25)),
        ("25.11.2026", True, date(2026, 11, 25)),
        ("03/04/2026", True, date(2026, 4, 3)),
        ("03/04/2026", False, date(2026, 3, 4)),
        ("25 Nov 2026", True, date(2026, 11, 25)),
        ("November 25, 2026", True, date(2026, 11, 25)),
        ("2026-11-25 00:00:00", True, date(2026, 11, 25)),
    ],
)
def test_a_day_in_a_cell(cell, day_first, day):
    assert read_listed_day(cell, day_first=day_first) == day


@pytest.mark.parametrize("cell", ["", "2026-02-30", "31/31/2026", "yesterday", "20261125"])
def test_no_day(cell):
    with pytest.raises(QuantityError):
        read_listed_day(cell)


def seen(days_ago, each, order=0):
    return Seen(on=TODAY - timedelta(days=days_ago), order=order, each=F(each))


def test_latest_lowest_and_usual():
    history = [seen(500, 1, 1), seen(300, 5, 2), seen(10, 3, 3), seen(0, 4, 4), seen(0, 6, 5)]
    answer = summarise(history)
    assert answer.latest.order == 5
    assert answer.lowest.order == 1
    # of the last year: 3, 4, 5, 6
    assert answer.usual == F(9, 2)
    assert summarise([]) is None
    assert summarise([seen(9, 2, 1), seen(3, 2, 2)]).lowest.order == 2


def test_three_times_the_usual_is_odd():
    assert not is_odd(F(3), F(1))
    assert is_odd(F(301, 100), F(1))
    assert not is_odd(F(1, 3), F(1))
    assert is_odd(F(33, 100), F(1))
    assert not is_odd(F(5), F(0))


def test_mean_and_spread_of_fryings():
    assert mean_and_spread([]) == (None, None)
    assert mean_and_spread([F(1, 3)]) == (F(1, 3), None)
    assert mean_and_spread([F(2, 10), F(4, 10)]) == (F(3, 10), F(2, 100))


def test_a_score_counts_and_tells_its_interval():
    answer = Estimate(middle=10.0, log_deviation=0.1)
    found = score([judge_forecast(answer, true) for true in (*[10.0] * 8, 12.0, 8.0)])
    assert (found.count, found.held, found.above, found.below) == (10, 8, 1, 1)
    # Wilson's interval of 8 of 10
    assert found.low == near(0.4902, abs=1e-4)
    assert found.high == near(0.9433, abs=1e-4)
    assert not found.is_enough
    assert found.off_ratio == 0
    nothing = score([])
    assert (nothing.low, nothing.off_ratio, nothing.is_enough) == (None, None, False)
    assert score([judge_forecast(answer, 10.1)] * 60).is_enough


def test_the_place_of_the_truth():
    answer = Estimate(middle=10.0, log_deviation=0.1)
    assert compute_quantile(answer, 10.0) == near(0.5)
    assert compute_quantile(answer, answer.high) == near(0.9)
    assert compute_quantile(answer, answer.low) == near(0.1)
    assert compute_quantile(Estimate(middle=10.0, log_deviation=0.0), 11.0) == 1
