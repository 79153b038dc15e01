"""Fewer points without losing a high or a low, and what a cook keeps at an inside temperature."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.heat.cook_shrink import kept_at
from dolmetsch.core.heat.thinning import thin

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
