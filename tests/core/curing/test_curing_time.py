"""How long in the cure, the plan of the days, brine water, and the butcher's test, by hand."""

from datetime import UTC, datetime, timedelta
from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.curing.brine_mixing import mix_water
from dolmetsch.core.curing.curing_time import (
    Window,
    centre_on,
    centre_ratio,
    days_to_centre,
    judge_day,
    plan_time,
    say_rules,
)
from dolmetsch.core.curing.schools import SCHOOLS
from dolmetsch.core.errors import CureError
from dolmetsch.core.meat.butchers_test import judge_cutting
from dolmetsch.core.planning.plan import Wishes, follow_taste, plan_days

THICK = 40.64  # 1.6 in


def time_of(school, *, pounds=4.62, thickness=THICK, skin_on=False, belly=False):
    return plan_time(school, pounds=pounds, thickness_mm=thickness, skin_on=skin_on, is_belly=belly)


@pytest.mark.parametrize(
    ("school", "window"),
    [
        # 7 days an inch: 11.2 to 22.4
        ("measured", Window(first=12, last=22)),
        # 2 days a pound 9.2, a week an inch 11.2
        ("spoon", Window(first=10, last=11)),
        # a day a pound and one 5.6, a week an inch 11.2
        ("salt_box", Window(first=6, last=11)),
        # 3.5 to 4 days a pound: 16.2, at most 14 at first, 18.5
        ("brine", Window(first=14, last=18)),
        ("injection", Window(first=2, last=3)),
        ("inject_cover", Window(first=4, last=7)),
    ],
)
def test_the_window_of_each_school(school, window):
    assert time_of(school).window == window


def test_a_thin_belly_stays_a_week_and_a_large_ham_a_week_longer():
    assert time_of("measured", thickness=15, belly=True).window.first == 7
    belly = [rule for rule in time_of("measured", thickness=None, belly=True).rules if rule.key == "belly"]
    assert [(rule.first, rule.last) for rule in belly] == [(7, 14)]
    assert say_rules(time_of("measured", pounds=12, thickness=None).rules) == [
        "Two days per pound and a week: 31 days"
    ]
    assert time_of("brine", pounds=0.5).window == Window(first=5, last=6)


def test_the_rules_stand_side_by_side():
    assert say_rules(time_of("measured").rules) == [
        "A week per inch: 11 to 22.5 days",
        "Two days per pound: 9 days",
        "By diffusion: 14.5 days",
    ]


def test_the_centre_by_hand():
    """L = 20.32 mm: t = 4L² ÷ (π²·2.5e-10) · ln(4 ÷ (π·0.2)) = 14.3 days; with skin 4 times that."""
    assert days_to_centre(THICK, skin_on=False) == pytest.approx(14.34, abs=0.01)
    assert days_to_centre(THICK, skin_on=True) == pytest.approx(4 * days_to_centre(THICK, skin_on=False))
    there = centre_ratio(days_to_centre(THICK, skin_on=False), half_metres=THICK / 2000)
    assert there == pytest.approx(0.8, abs=1e-6)


@given(st.floats(0, 60), st.floats(0.01, 10), st.floats(5, 120))
def test_the_centre_only_ever_gains(day, more, thickness):
    half = thickness / 2000
    now, later = (centre_ratio(each, half_metres=half) for each in (day, day + more))
    assert 0 <= now <= later + 1e-9 <= 1 + 1e-9


@given(st.sampled_from(sorted(SCHOOLS)), st.floats(0.1, 40), st.none() | st.floats(1, 200), st.booleans())
def test_every_window_is_at_least_a_day_wide_and_its_curve_in_order(school, pounds, thickness, skin_on):
    time = plan_time(school, pounds=pounds, thickness_mm=thickness, skin_on=skin_on, is_belly=True)
    assert 1 <= time.window.first < time.window.last
    # the needle brings the cure inside, as the mixer does, so no curve is drawn from the surface
    has_no_way_in = "pump" in SCHOOLS[school].method or school == "sausage"
    assert (thickness is None or has_no_way_in) == (not time.curve)
    assert time.asks_thickness == (thickness is None and not has_no_way_in)
    assert time.window.first <= time.planned <= time.window.last
    for point in time.curve:
        assert point.low <= point.middle + 1e-9 <= point.high + 2e-9


@pytest.mark.parametrize(
    ("school", "size", "planned"),
    [
        # a 3-inch roast of 2 lb: a pound's rule says day 4, a week an inch 21; diffusion's 50 lie past the
        # window, and its caution says so beside the day
        ("spoon", {"pounds": 2, "thickness": 76.2}, 21),
        ("salt_box", {"pounds": 2, "thickness": 76.2}, 21),
        ("measured", {"pounds": 2, "thickness": 76.2}, 21),
        # 1.6 inches: diffusion's 14.3 days are inside 12 to 22
        ("measured", {}, 15),
        ("brine", {"pounds": 2}, 7),
        # belly of unknown thickness stays a week whatever it weighs
        ("measured", {"pounds": 1, "thickness": None, "belly": True}, 7),
        ("spoon", {"pounds": 1, "thickness": None, "belly": True}, 7),
        ("salt_box", {"pounds": 1, "thickness": None, "belly": True}, 7),
        ("measured", {"pounds": 1, "thickness": None}, 2),
        ("spoon", {"pounds": 1, "thickness": 12, "belly": True}, 7),
        ("injection", {"thickness": 76.2}, 2),
    ],
)
def test_it_is_planned_for_the_first_day_that_all_rules_that_can_be_met_call_done(school, size, planned):
    time = time_of(school, **size)
    assert time.planned == planned
    if size.get("belly"):
        assert time.window.first >= 7


def test_a_day_is_early_inside_or_over():
    window = Window(first=12, last=22)
    days = {day: judge_day(window, day) for day in (1, 11, 12, 22, 23, 60)}
    assert list(days.values()) == ["early", "early", "inside", "inside", "over", "over"]


def test_the_center_on_a_day_lies_on_the_curve():
    time = time_of("measured")
    for day in (0.3, 7, 14.34, 22):
        there = centre_ratio(day, half_metres=THICK / 2000)
        assert centre_on(time, day) == pytest.approx(there)
    assert centre_on(time, 400) == pytest.approx(1)
    assert centre_on(time_of("measured", thickness=None), 7) is None


@pytest.mark.parametrize("thickness", [0, -3, 401])
def test_a_thickness_of_no_meat_is_refused(thickness):
    with pytest.raises(CureError, match="thickest"):
        time_of("measured", thickness=thickness)


PUT_IN = datetime(2026, 3, 2, 9, 0, tzinfo=UTC)


def days_of(wishes, kind):
    tasks = plan_days(PUT_IN, Window(first=5, last=9), wishes)
    return [(task.due - PUT_IN).days for task in tasks if task.kind == kind]


def test_the_days_in_between():
    wishes = Wishes(turn_days=2, out_day=7, dry_hours=12, soak_minutes=30, reseason=True, spice_day=4)
    assert days_of(wishes, "turn") == [2, 4, 6]
    assert (days_of(wishes, "check"), days_of(wishes, "out"), days_of(wishes, "spice")) == ([5], [7], [4])
    tasks = plan_days(PUT_IN, Window(first=5, last=9), wishes)
    after = [task.kind for task in tasks if task.due >= PUT_IN + timedelta(days=7)]
    assert after == ["out", "rinse", "taste", "soak", "taste", "reseason", "dry", "smoke"]
    out = next(task for task in tasks if task.kind == "out")
    assert out.until == PUT_IN + timedelta(days=9)
    smoke, dry = tasks[-1], tasks[-2]
    # dried from 10:15 for at least 12 hours, and smoked the next morning
    assert (dry.due.hour, smoke.due - dry.due) == (10, timedelta(hours=22, minutes=45))


def test_never_turned_and_out_at_once():
    wishes = Wishes(turn_days=0, out_day=5, dry_hours=0)
    assert (days_of(wishes, "turn"), days_of(wishes, "check")) == ([], [])


def test_too_salty_asks_for_a_soak_and_another_tasting():
    soak, taste = follow_taste("salty", tasted=PUT_IN, soak_minutes=40)
    assert (soak.kind, soak.minutes, taste.kind, taste.due - PUT_IN) == (
        "soak",
        40,
        "taste",
        timedelta(minutes=40),
    )
    assert follow_taste("right", tasted=PUT_IN, soak_minutes=40) == []
    assert follow_taste("flat", tasted=PUT_IN, soak_minutes=40) == []


def test_hot_and_cold_water():
    """A quarter at 200 °F and the rest at 40 make 80 °F; 22.2 K off 3 kg by ice at 352.6 J/g: 791 g."""
    water = mix_water(F(3000), hot_ratio=F(1, 4), hot_fahrenheit=F(200), cold_fahrenheit=F(40))
    assert (water.hot, water.cold, water.mixed, water.may_go_in) == (750, 2250, 80, False)
    assert round(float(water.ice)) == 791
    cold = mix_water(F(3000), hot_ratio=F(0), hot_fahrenheit=F(200), cold_fahrenheit=F(38))
    assert (cold.may_go_in, cold.ice) == (True, 0)
    assert mix_water(F(1000), hot_ratio=F(1), hot_fahrenheit=F(200), cold_fahrenheit=F(40)).ice is None


@pytest.mark.parametrize(
    ("field", "value"), [("hot_fahrenheit", 300), ("cold_fahrenheit", 20), ("hot_ratio", 2)]
)
def test_water_no_kitchen_has_is_refused(field, value):
    answer = {"hot_ratio": F(1, 4), "hot_fahrenheit": F(200), "cold_fahrenheit": F(40), field: F(value)}
    with pytest.raises(CureError):
        mix_water(F(1000), **answer)


def test_the_butchers_test_by_hand():
    """10 kg for 50.00; 8 kg usable; trim worth 5.00: 45 ÷ 8 = 5.625 a usable kg, of 5.00: factor 1.125."""
    test = judge_cutting(
        bought=F(10_000),
        cost=F(50),
        usable=[("A", F(5000)), ("B", F(3000))],
        cut_off=[("fat", F(1500), F(5)), ("bone", F(300), F(0))],
    )
    assert (test.usable_price * 1000, test.factor, test.lost) == (F("5.625"), F("1.125"), 200)
    # next week at 6.00: 6.75 by the factor; (60 − 5) ÷ 8 = 6.875 where the fat stays worth 5.00
    assert test.price_usable(F(6, 1000)) * 1000 == F("6.75")
    assert test.price_usable_with_same_worth(F(6, 1000)) * 1000 == F("6.875")


@given(st.integers(1, 10_000), st.integers(1, 10_000), st.integers(0, 99))
def test_at_the_price_paid_both_ways_agree(kept, off, worth):
    test = judge_cutting(
        bought=F(kept + off), cost=F(100), usable=[("A", F(kept))], cut_off=[("fat", F(off), F(worth))]
    )
    assert test.price_usable(test.price) == test.price_usable_with_same_worth(test.price) == test.usable_price


def test_a_gift_has_no_factor_and_nothing_no_test():
    gift = judge_cutting(bought=F(10), cost=F(0), usable=[("A", F(8))], cut_off=[])
    assert (gift.factor, gift.price_usable(F(1))) == (None, None)
    with pytest.raises(ValueError, match="something bought"):
        judge_cutting(bought=F(10), cost=F(1), usable=[], cut_off=[])
