"""How long packs keep, how thick slices are, and when a larder runs out: worked by hand."""

from datetime import date, timedelta
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.reference.keeping import KEEPING
from dolmetsch.core.slicing.keeping import keep_until, keeps_like
from dolmetsch.core.slicing.pace import find_pace
from dolmetsch.core.slicing.thickness import compare_thicknesses, grams_per_mm

DAY = date(2026, 3, 2)


@pytest.mark.parametrize(
    ("kinds", "product", "is_raw", "row"),
    [
        (["trim", "cure", "smoke", "slice"], "bacon", True, "bacon"),
        (["cure", "cook"], "bacon", False, "bacon"),
        (["pump", "cook", "slice"], "whole_muscle", False, "ham"),
        (["cure", "smoke"], "whole_muscle", True, "fresh"),
        (["smoke", "pull"], "whole_muscle", False, "cooked"),
        (["trim"], "whole_muscle", True, "fresh"),
        (["grind", "cure"], "comminuted", True, "raw_sausage"),
        (["grind", "cook"], "comminuted", False, "sausage"),
        (["cure", "hang"], "whole_muscle", True, None),
        (["cure", "ferment"], "comminuted", True, None),
    ],
)
def test_a_pack_keeps_by_its_row_of_the_chart(kinds, product, is_raw, row):
    assert keeps_like(kinds, product=product, is_raw=is_raw) == row


def test_the_shortest_time_counts_from_when_it_was_chilled_frozen_or_thawed():
    def last(state, **more):
        found = keep_until("ham", state, **{"packed": DAY, "frozen": None, "chilled": None, **more})
        return (found.day - DAY).days, found.is_quality

    assert last("chilled") == (3, False)
    assert last("frozen", frozen=DAY + timedelta(1)) == (31, True)
    assert last("thawed", chilled=DAY + timedelta(20)) == (23, False)
    assert last("open", chilled=DAY + timedelta(5)) == (8, False)
    assert keep_until(None, "chilled", packed=DAY, frozen=None, chilled=None) is None


def test_every_row_of_the_chart_has_its_source():
    for row in KEEPING.values():
        assert row.source
        assert row.chilled[0] <= row.chilled[1] <= row.frozen[0] <= row.frozen[1]


def test_a_slab_of_thirty_centimetres():
    """1200 g of 300 mm: 4 g a mm; at 4.5 mm 66 slices of 18 g, 6 packs of 10 and 6 over."""
    per_mm = grams_per_mm(weighed=None, grams=Fraction(1200), length_mm=Fraction(300))
    (one,) = compare_thicknesses(
        per_mm,
        grams=Fraction(1200),
        cost=Fraction(33),
        in_portion=Fraction(3),
        in_pack=10,
        thicknesses=[Fraction("4.5")],
    )
    assert (one.slices, one.slice_grams, one.slice_cost, one.portion_cost) == (
        66,
        18,
        Fraction("0.5"),
        Fraction("1.5"),
    )
    assert (one.packs, one.over) == (6, 6)


def test_ten_slices_on_the_scale_tell_better_than_the_length():
    weighed = (Fraction(200), 10, Fraction(5))
    assert grams_per_mm(weighed=weighed, grams=Fraction(1200), length_mm=Fraction(300)) == 4
    assert grams_per_mm(weighed=None, grams=Fraction(1200), length_mm=None) is None


@given(st.fractions(1, 50), st.fractions(1, 5000), st.integers(1, 40))
def test_thicker_slices_are_never_more_and_never_cheaper(per_mm, grams, in_pack):
    found = compare_thicknesses(per_mm, grams=grams, cost=Fraction(9), in_portion=None, in_pack=in_pack)
    slices = [one.slices for one in found]
    assert slices == sorted(slices, reverse=True)
    for one in found:
        assert one.slices * one.slice_grams <= grams
        assert one.slices * one.slice_cost == 9
        assert one.packs * in_pack + one.over == one.slices


def test_the_pace_of_two_weeks_and_when_it_runs_out():
    """140 g in 14 days are 10 g a day: 55 g last five days."""
    today = DAY + timedelta(20)
    takings = [(today, Fraction(40)), (today - timedelta(13), Fraction(100)), (DAY, Fraction(999))]
    pace = find_pace(takings, since=DAY, today=today)
    assert pace.grams_a_day == 10
    assert pace.runs_out(Fraction(55), today) == today + timedelta(5)
    # of a week only, by that week
    assert find_pace(
        takings[:1] * 2 + [(today - timedelta(6), Fraction(30))], since=today - timedelta(6), today=today
    ).grams_a_day == Fraction(110, 7)


@pytest.mark.parametrize(
    ("takings", "since"),
    [([], 20), ([(0, 40)], 20), ([(0, 40), (0, 10)], 20), ([(0, 40), (1, 10)], 1), ([(0, 40), (14, 10)], 20)],
)
def test_too_little_says_nothing_of_a_pace(takings, since):
    today = DAY + timedelta(20)
    taken = [(today - timedelta(ago), Fraction(grams)) for ago, grams in takings]
    assert find_pace(taken, since=today - timedelta(since), today=today) is None
