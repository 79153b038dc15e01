"""The middle, the band and what is out of the usual: by hand and against scipy."""

from math import exp, log, sqrt
from statistics import stdev

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from dolmetsch.core.statistics.difference import compute_difference, compute_slope
from dolmetsch.core.statistics.spread import Yielded, compute_spread, find_unusual, variance_of
from dolmetsch.core.statistics.student import t_below, t_quantile, two_sided

ratios = st.lists(st.floats(0.3, 1.2), min_size=3, max_size=40)


@given(value=st.floats(-60, 60), freedom=st.floats(0.6, 400))
def test_students_t_is_scipys(value, freedom):
    assert t_below(value, freedom) == pytest.approx(stats.t.cdf(value, freedom), abs=1e-7)
    assert two_sided(value, freedom) == pytest.approx(2 * stats.t.sf(abs(value), freedom), abs=1e-7)


@given(part=st.floats(0.001, 0.999), freedom=st.floats(1, 400))
def test_its_quantile_is_scipys(part, freedom):
    assert t_quantile(part, freedom) == pytest.approx(stats.t.ppf(part, freedom), rel=1e-6, abs=1e-9)


def test_what_no_t_has_is_refused():
    for wrong in (0, 1, -0.2, 1.5):
        with pytest.raises(ValueError, match="between 0 and 1"):
            t_quantile(wrong, 5)
    with pytest.raises(ValueError, match="above 0"):
        t_below(1, 0)
    with pytest.raises(ValueError, match="no spread"):
        compute_spread([])


def test_a_band_by_hand():
    # ln of e^-0.5, e^-0.4, e^-0.3: mean -0.4, s² 0.01; t(0.9, 2) = 1.8856 (any table)
    spread = compute_spread([Yielded(ratio=exp(value)) for value in (-0.5, -0.4, -0.3)])
    reach = 1.8856 * 0.1 * sqrt(4 / 3)
    assert spread.middle == pytest.approx(exp(-0.4))
    assert log(spread.low) == pytest.approx(-0.4 - reach, abs=1e-5)
    assert log(spread.high) == pytest.approx(-0.4 + reach, abs=1e-5)
    assert spread.deviation == pytest.approx(exp(-0.4) * 0.1)


def test_few_batches_have_no_band():
    one = compute_spread([Yielded(ratio=0.6)])
    assert (one.count, one.low, one.deviation, one.own_deviation) == (1, None, None, None)
    two = compute_spread([Yielded(ratio=0.6), Yielded(ratio=0.66)])
    assert two.low is two.high is None
    assert two.deviation == pytest.approx(two.middle * log(1.1) / sqrt(2))


def test_the_scales_part_is_told_from_the_batches():
    # s² of ln is 0.01; a scale of variance 0.0036 leaves 0.0064, a deviation of 0.08
    mine = [Yielded(ratio=exp(value), scale_variance=0.0036) for value in (-0.5, -0.4, -0.3)]
    spread = compute_spread(mine)
    assert spread.scale_deviation == pytest.approx(spread.middle * 0.06)
    assert spread.own_deviation == pytest.approx(spread.middle * 0.08)
    coarse = compute_spread([Yielded(ratio=one.ratio, scale_variance=0.04) for one in mine])
    assert coarse.own_deviation == 0


@given(kept=ratios)
def test_the_band_holds_the_middle_and_is_scipys(kept):
    spread = compute_spread([Yielded(ratio=one) for one in kept])
    assert spread.low <= spread.middle * (1 + 1e-12)
    assert spread.middle <= spread.high * (1 + 1e-12)
    logs = [log(one) for one in kept]
    error = stdev(logs) * sqrt(1 + 1 / len(logs))
    low, high = stats.t.interval(0.8, len(logs) - 1, loc=sum(logs) / len(logs), scale=error or 1e-12)
    assert log(spread.low) == pytest.approx(low, abs=1e-6)
    assert log(spread.high) == pytest.approx(high, abs=1e-6)


@given(kept=ratios, factor=st.floats(0.5, 1.5))
def test_a_band_scales_with_its_yields(kept, factor):
    one = compute_spread([Yielded(ratio=ratio) for ratio in kept])
    other = compute_spread([Yielded(ratio=ratio * factor) for ratio in kept])
    assert other.low == pytest.approx(one.low * factor, rel=1e-6)
    assert other.high == pytest.approx(one.high * factor, rel=1e-6)


def test_a_batch_far_off_is_unusual_and_only_that():
    kept = [0.870, 0.876, 0.868, 0.881, 0.873, 0.829, 0.878]
    (at,) = found = find_unusual([Yielded(ratio=one) for one in kept])
    assert at == 5
    assert found[5].others == 6
    others = [log(one) for one in kept if one != 0.829]
    mean, spread = sum(others) / 6, stats.tstd(others) * sqrt(7 / 6)
    assert found[5].chance == pytest.approx(2 * stats.t.sf((mean - log(0.829)) / spread, 5), rel=1e-6)
    assert found[5].off == pytest.approx(0.829 - exp(mean))


def test_too_few_others_make_nothing_unusual():
    assert find_unusual([Yielded(ratio=one) for one in (0.87, 0.871, 0.869, 0.87, 0.2)]) == {}
    assert list(find_unusual([Yielded(ratio=one) for one in (0.87, 0.871, 0.869, 0.87, 0.872, 0.2)])) == [5]


def test_what_the_scale_may_have_made_is_not_unusual():
    kept = [0.8700, 0.8701, 0.8699, 0.8700, 0.8702, 0.8701, 0.8400]
    assert list(find_unusual([Yielded(ratio=one) for one in kept])) == [6]
    assert find_unusual([Yielded(ratio=one, scale_variance=0.03**2) for one in kept]) == {}


def test_equal_yields_are_usual():
    assert find_unusual([Yielded(ratio=0.9)] * 9) == {}


def test_two_kinds_of_batches_as_scipy_has_them():
    ones, others = [0.86, 0.88, 0.87, 0.89], [0.83, 0.82, 0.86, 0.84, 0.83]
    found = compute_difference(ones, others)
    theirs = stats.ttest_ind(ones, others, equal_var=False)
    assert found.middle == pytest.approx(0.875 - 0.836)
    assert found.chance == pytest.approx(theirs.pvalue)
    interval = theirs.confidence_interval(0.8)
    assert (found.low, found.high) == pytest.approx((interval.low, interval.high))
    assert found.is_more_than_chance
    assert compute_difference(ones, others[:2]) is compute_difference(ones[:2], others) is None
    assert compute_difference([1, 1, 1], [1, 1, 1]) is None


def test_a_slope_as_scipy_has_it():
    points = [(138, 0.91), (145, 0.89), (150, 0.875), (152, 0.87), (160, 0.83), (161, 0.84)]
    found = compute_slope(points)
    theirs = stats.linregress(*zip(*points, strict=True))
    assert found.middle == pytest.approx(theirs.slope)
    assert found.chance == pytest.approx(theirs.pvalue)
    assert found.high - found.middle == pytest.approx(stats.t.ppf(0.9, 4) * theirs.stderr)
    assert compute_slope(points[:4]) is None
    assert compute_slope([(150, one) for one in (0.8, 0.81, 0.82, 0.83, 0.84)]) is None


def test_chance_alone_is_no_difference():
    found = compute_difference([0.86, 0.90, 0.84, 0.88], [0.87, 0.85, 0.89, 0.86])
    assert not found.is_more_than_chance


def test_the_variance_of_one_is_none():
    assert variance_of([1.0]) is variance_of([]) is None
    assert variance_of([1.0, 3.0]) == 2
