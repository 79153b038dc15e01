"""Blind tastings: by hand, against scipy, and how often plates that are alike are called different."""

import random
from itertools import permutations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import stats

from dolmetsch.core.statistics.tasting import (
    MOST_MORE,
    _hold_together,
    compute_chance,
    compute_pair_chance,
    compute_tasting,
    count_more,
)

scores = st.integers(1, 9)
differences = st.lists(st.integers(-8, 8), min_size=2, max_size=11)


def test_a_pair_by_hand():
    # signs of 1, 2, 3: eight sums, of which only +6 and −6 are as far off as 6
    assert compute_pair_chance([1, 2, 3]) == 2 / 8
    # of 2, 1, −1 the sum is 2: 4, 2, 2, 0 and their mirrors; six of eight are as far off
    assert compute_pair_chance([2, 1, -1]) == 6 / 8
    assert compute_pair_chance([0, 0, 0]) == 1
    assert compute_pair_chance([5] * 5) == 2 / 32


@given(ahead=differences)
def test_a_pair_is_scipys_exact_test(ahead):
    theirs = stats.permutation_test(
        (ahead, [0] * len(ahead)),
        lambda ones, others: sum(ones) - sum(others),
        permutation_type="samples",
        n_resamples=10**6,
        vectorized=False,
    )
    mine = compute_pair_chance([float(one) for one in ahead])
    # doubled one-sided in scipy, both tails counted here: alike, for the distribution is symmetric
    assert mine == pytest.approx(min(1.0, theirs.pvalue), abs=1e-9)


@given(ahead=differences, ties=st.integers(0, 4))
def test_ties_neither_add_nor_take_away(ahead, ties):
    assert compute_pair_chance([*ahead, *[0] * ties]) == pytest.approx(compute_pair_chance(ahead))


def test_three_plates_by_every_order():
    rows = [[7, 5, 3], [8, 6, 6]]
    found = sum(sum(column) ** 2 for column in zip(*rows, strict=True))
    tried = [
        sum((one + other) ** 2 for one, other in zip(first, second, strict=True))
        for first in permutations(rows[0])
        for second in permutations(rows[1])
    ]
    assert compute_chance(rows) == sum(one >= found for one in tried) / 36


def test_many_orders_are_drawn_close_to_friedmans():
    draw = random.Random(7)
    # ranks: the test on sums of ranks is Friedman's, whose chi-square holds for many tasters
    rows = [draw.sample([1, 2, 3, 4], 4) for _ in range(24)]
    theirs = stats.friedmanchisquare(*zip(*rows, strict=True))
    assert compute_chance(rows) == pytest.approx(theirs.pvalue, abs=0.04)
    assert compute_chance(rows) == compute_chance(rows)


def test_five_percent_is_five_percent():
    """Of tastings of plates that do not differ, no more than one in twenty is called more than chance."""
    draw = random.Random(20261127)
    tastings = 600
    for tasters in (6, 9):
        called = 0
        for _ in range(tastings):
            leanings = [draw.gauss(0, 2) for _ in range(tasters)]
            rows = [(lean + draw.gauss(0, 1), lean + draw.gauss(0, 1)) for lean in leanings]
            called += compute_pair_chance([one - other for one, other in rows]) < 0.05
        # 6 tasters: 2 of 64 sums are below 5 %; 9 tasters: 24 of 512. Three deviations of the count besides.
        level = {6: 2 / 64, 9: 24 / 512}[tasters]
        assert abs(called / tastings - level) < 3 * (level * (1 - level) / tastings) ** 0.5


def test_five_percent_is_five_percent_of_all_pairs_together():
    """Of three plates that do not differ, any pair is called different in no more than one of twenty."""
    draw = random.Random(4)
    tastings, called = 400, 0
    for _ in range(tastings):
        tasters = [[draw.randint(3, 8) for _ in "ABC"] for _ in range(7)]
        raw = [
            compute_pair_chance([one[first] - one[second] for one in tasters])
            for first, second in ((0, 1), (0, 2), (1, 2))
        ]
        called += min(_hold_together(raw)) < 0.05
    assert called / tastings < 0.05 + 2 * (0.05 * 0.95 / tastings) ** 0.5


def test_a_whole_tasting():
    tasters = [
        {"A": 8.0, "B": 6.0},
        {"A": 7.0, "B": 5.0},
        {"A": 9.0, "B": 8.0},
        {"A": 5.0, "B": 5.0},
        {"A": 8.0, "B": 5.0},
        {"A": 7.0, "B": 6.0},
        {"A": 6.0, "B": 4.0},
    ]
    result = compute_tasting(tasters)
    assert [plate.plate for plate in result.plates] == ["A", "B"]
    assert result.plates[0].mean == pytest.approx(50 / 7)
    (pair,) = result.pairs
    assert (pair.wins, pair.ties, pair.losses) == (6, 1, 0)
    # all six that differ say A: only the two ends of 2⁶ sums are as far off
    assert pair.chance == result.chance == 2 / 64
    assert pair.is_more_than_chance
    assert pair.more is None
    # the range is of what is left when each taster's own height is taken out: half the differences
    halves = [one["A"] - sum(one.values()) / 2 for one in tasters]
    reach = stats.t.ppf(0.9, 6) * stats.tstd(halves) / 7**0.5
    assert result.plates[0].high - result.plates[0].mean == pytest.approx(reach)


def test_pairs_are_held_together():
    tasters = [{"A": 8.0, "B": 6.0, "C": 6.0}] * 6
    result = compute_tasting(tasters)
    chances = {(pair.first, pair.second): pair.chance for pair in result.pairs}
    # each alone 2 of 64; the first of three counts threefold, the next no less
    assert chances["A", "B"] == chances["A", "C"] == pytest.approx(3 * 2 / 64)
    assert chances["B", "C"] == 1
    assert not any(pair.is_more_than_chance for pair in result.pairs)


def test_how_many_more_would_settle_it():
    # s = 1, d = 0.5: ((1.96 + 0.84) ÷ 0.5)² = 31.4, and 1.96² ÷ 2 = 1.9: 34 in all
    assert count_more(0.5, 1.0, 10) == 24
    assert count_more(0.5, 1.0, 40) == 1
    assert count_more(0.0, 1.0, 10) is count_more(0.5, None, 1) is None
    assert count_more(0.2, 1.0, 10) == 189
    assert 189 < MOST_MORE < 1000
    assert count_more(0.1, 1.0, 10) is None


def test_as_many_more_do_settle_it_eight_times_in_ten():
    draw = random.Random(5)
    wanted = 12 + count_more(0.9, 1.2**2, 12)
    runs = 200
    seen = sum(
        compute_pair_chance([round(draw.gauss(0.9, 1.2), 1) for _ in range(wanted)]) < 0.05
        for _ in range(runs)
    )
    assert seen / runs == pytest.approx(0.8, abs=0.07)


def test_what_cannot_be_compared_is_refused():
    with pytest.raises(ValueError, match="same plates"):
        compute_tasting([{"A": 5.0, "B": 4.0}, {"A": 5.0}])
    with pytest.raises(ValueError, match="two at least"):
        compute_tasting([{"A": 5.0}])
    empty = compute_tasting([])
    assert (empty.plates, empty.pairs, empty.tasters, empty.chance) == ((), (), 0, None)


def test_few_tasters_have_no_range():
    result = compute_tasting([{"A": 5.0, "B": 4.0}, {"A": 6.0, "B": 4.0}])
    assert result.plates[0].low is result.plates[0].high is None


@settings(max_examples=40)
@given(rows=st.lists(st.tuples(scores, scores, scores), min_size=1, max_size=6), more=st.integers(-3, 3))
def test_how_high_a_taster_scores_makes_no_difference(rows, more):
    tasters = [dict(zip("ABC", map(float, row), strict=True)) for row in rows]
    moved = [
        {plate: score + more * (at + 1) for plate, score in one.items()} for at, one in enumerate(tasters)
    ]
    one, other = compute_tasting(tasters), compute_tasting(moved)
    assert [pair.chance for pair in one.pairs] == pytest.approx([pair.chance for pair in other.pairs])
    assert one.chance == pytest.approx(other.chance)


def test_equal_scores_are_as_far_apart_in_every_order_also_where_orders_are_drawn():
    assert compute_chance([[5.0, 5.0, 5.0]] * 6) == 1
    # one alone tells a plate apart: whichever it were, the plates would lie as far apart
    rows = [[7.0, 5.0, 5.0], *[[6.0, 6.0, 6.0]] * 6]
    assert compute_chance(rows) == 1
