"""Fewer points without losing a high or a low, and what a cook keeps at an inside temperature."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.heat.cook_shrink import kept_at
from dolmetsch.core.heat.thinning import choose_kept, thin

values = st.lists(st.integers(0, 300), min_size=1, max_size=400)


@given(values, st.integers(2, 60))
def test_no_high_no_low_no_end_and_no_crossing_is_lost(found, most):
    curve = [(float(10 * index), float(value)) for index, value in enumerate(found)]
    thinned = thin(curve, most=most)
    assert len(thinned) <= most + 2
    assert thinned == sorted(set(thinned) & set(curve))
    assert (thinned[0], thinned[-1]) == (curve[0], curve[-1])
    for pick in (max, min):
        assert pick(value for _, value in thinned) == pick(value for _, value in curve)
    if len(curve) <= most:
        assert thinned == curve


def test_of_each_stretch_the_lowest_and_the_highest_stay():
    """Two stretches of 0 to 50 and 50 to 100: of each its dip and its peak, beside both ends."""
    curve = [(float(at), 100.0) for at in range(0, 101, 5)]
    for at, value in ((15, 90.0), (30, 110.0), (65, 80.0), (80, 120.0)):
        curve[at // 5] = (float(at), value)
    assert [at for at, _ in thin(curve, most=4)] == [0, 15, 30, 65, 80, 100]


def test_a_gap_stays_a_gap():
    curve = [(float(at), float(at)) for at in (*range(50), *range(950, 1000))]
    assert not [at for at, _ in thin(curve, most=40) if 50 <= at < 950]


@pytest.mark.parametrize(
    ("fahrenheit", "hours", "kept", "deviation"),
    [
        (120, 2, 0.91, 0.02),
        (139, 4, 0.91, 0.02),
        (150, 2, 0.87, 0.03),
        (155, 2, 0.85, 0.03),
        (190, 4, 0.66, 0.05),
        (205, 4, 0.60, 0.06),
        # two hours beyond four lose another .014
        (150, 6, 0.856, 0.03),
    ],
)
def test_kept_at_an_inside_temperature_by_straight_lines(fahrenheit, hours, kept, deviation):
    assert kept_at(fahrenheit, hours=hours) == pytest.approx((kept, deviation))


def test_something_is_always_kept():
    assert kept_at(200, hours=500)[0] == 0.05


@given(
    st.lists(
        st.dictionaries(st.sampled_from(["1", "2", "air"]), st.integers(30, 230), min_size=1),
        min_size=1,
        max_size=200,
    )
)
def test_of_old_readings_no_low_high_or_crossing_is_lost(values):
    readings = [(10.0 * index, one) for index, one in enumerate(values)]
    marks = (70, 135)
    kept = choose_kept(readings, marks=marks)
    for probe in ("1", "2", "air"):
        whole = [(at, one[probe]) for at, one in readings if probe in one]
        kept_readings = [readings[index] for index in sorted(kept)]
        left = [(at, one[probe]) for at, one in kept_readings if probe in one]
        if not whole:
            continue
        assert min(value for _, value in whole) == min(value for _, value in left)
        assert max(value for _, value in whole) == max(value for _, value in left)
        for mark in marks:
            assert crossings(left, mark) == crossings(whole, mark)
    assert all(other - one <= 30 for one, other in pairwise(sorted(kept)))
    # thinned again, nothing more goes
    again = [readings[index] for index in sorted(kept)]
    assert len(choose_kept(again, marks=marks)) == len(again)


def crossings(curve, mark):
    return [(one[0], other[0]) for one, other in pairwise(curve) if (one[1] - mark) * (other[1] - mark) < 0]


def test_a_calm_hour_is_a_few_readings():
    readings = [(10.0 * index, {"1": 100.0, "air": 225.0}) for index in range(360)]
    assert len(choose_kept(readings, marks=(70,))) == 24


def test_what_changes_without_crossing_a_mark_is_thinned_too():
    readings = [(10.0 * index, {"1": 100.0 + index % 3}) for index in range(30)]
    assert choose_kept(readings, marks=(70,)) == {0, 2, 29}
