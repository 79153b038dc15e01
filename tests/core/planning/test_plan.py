"""The days in between, by property: whatever is wished, the acts stand in their order and none is lost."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.curing.curing_time import Window
from dolmetsch.core.planning.plan import (
    ACT_WORDS,
    DAY_BEGINS,
    DAY_ENDS,
    GRACE,
    Wishes,
    act_at,
    at_work,
    follow_taste,
    is_behind,
    plan_days,
)

PUT_IN = datetime(2026, 3, 2, 8, tzinfo=UTC)
moments = st.integers(0, 5000).map(lambda hours: PUT_IN + timedelta(hours=hours))
windows = st.tuples(st.integers(1, 40), st.integers(0, 30)).map(
    lambda told: Window(first=told[0], last=told[0] + told[1])
)
wishes = st.builds(
    Wishes,
    turn_days=st.integers(0, 14),
    out_day=st.integers(1, 60),
    dry_hours=st.integers(0, 72),
    soak_minutes=st.none() | st.integers(5, 600),
    reseason=st.booleans(),
    spice_day=st.none(),
)


def kinds(acts):
    return [act.kind for act in acts]


@given(moments, windows, wishes)
def test_acts_stand_in_order_from_the_cure_to_the_smoke(put_in, window, told):
    acts = plan_days(put_in, window, told)
    assert [act.due for act in acts] == sorted(act.due for act in acts)
    assert all(put_in < act.due <= act.until for act in acts)
    assert kinds(acts)[-1] == "smoke"
    assert set(kinds(acts)) <= set(ACT_WORDS)
    for once in ("out", "rinse", "dry", "smoke"):
        assert kinds(acts).count(once) == 1


@given(moments, windows, wishes)
def test_it_is_turned_every_so_many_days_and_never_on_the_day_it_comes_out(put_in, window, told):
    turns = [act.due.date() for act in plan_days(put_in, window, told) if act.kind == "turn"]
    every = told.turn_days
    wanted = [
        (put_in + timedelta(days=day)).date() for day in range(1, told.out_day) if every and day % every == 0
    ]
    assert turns == wanted


@given(windows, wishes)
def test_it_comes_out_on_the_day_picked_and_is_late_only_past_the_window(window, told):
    acts = plan_days(PUT_IN, window, told)
    (out,) = [act for act in acts if act.kind == "out"]
    assert out.due == PUT_IN + timedelta(days=told.out_day)
    assert out.until >= max(PUT_IN + timedelta(days=window.last), out.due + GRACE)
    # what is taken later than the first day it may is felt on that day
    felt = [act.due for act in acts if act.kind == "check"]
    assert felt == ([PUT_IN + timedelta(days=window.first)] if window.first < told.out_day else [])


@given(windows, wishes)
def test_it_dries_as_long_as_wished_before_the_smoke_and_a_soak_is_tasted_after(window, told):
    acts = plan_days(PUT_IN, window, told)
    after = [act for act in acts if act.kind in ("dry", "smoke", "soak", "taste")]
    by_kind = {act.kind: act for act in after}
    # at least as long as wished, and into the working day
    dried = by_kind["smoke"].due - by_kind["dry"].due
    assert timedelta(hours=told.dry_hours) <= dried < timedelta(hours=told.dry_hours + 14)
    assert by_kind["dry"].minutes == told.dry_hours * 60
    tastings = [act.due for act in after if act.kind == "taste"]
    if told.soak_minutes is None:
        assert len(tastings) == 1
        return
    soak = by_kind["soak"]
    assert (soak.minutes, len(tastings)) == (told.soak_minutes, 2)
    assert tastings[1] - soak.due >= timedelta(minutes=told.soak_minutes - 7)


@given(moments, st.integers(-400, 400), windows, wishes)
def test_put_in_days_later_all_of_it_is_as_many_days_later(put_in, days, window, told):
    later = timedelta(days=days)
    now, then = (plan_days(moment, window, told) for moment in (put_in, put_in + later))
    assert [(act.kind, act.due + later, act.until + later) for act in now] == [
        (act.kind, act.due, act.until) for act in then
    ]


@given(st.datetimes(datetime(2026, 1, 1), datetime(2026, 12, 31), timezones=st.just(UTC)), windows, wishes)  # noqa: DTZ001
def test_acts_fall_into_the_working_day(put_in, window, told):
    for act in plan_days(put_in, window, told):
        if act.kind in ("turn", "out", "check", "smoke"):
            assert DAY_BEGINS <= act.due.hour < DAY_ENDS
            assert act.due.minute % 15 == 0


@pytest.mark.parametrize(
    ("moment", "is_after", "expected"),
    [
        ("01:03", False, "2026-03-02 09:00"),
        ("22:10", False, "2026-03-02 18:00"),
        ("22:10", True, "2026-03-03 09:00"),
        ("06:50", True, "2026-03-02 09:00"),
        ("06:53", False, "2026-03-02 07:00"),
        ("08:52", False, "2026-03-02 08:45"),
        ("08:53", False, "2026-03-02 09:00"),
        ("19:52", False, "2026-03-02 19:45"),
        ("19:53", False, "2026-03-02 18:00"),
    ],
)
def test_a_moment_is_put_into_the_working_day(moment, is_after, expected):
    put = at_work(datetime.fromisoformat(f"2026-03-02 {moment}"), is_after=is_after)
    assert f"{put:%Y-%m-%d %H:%M}" == expected


def test_what_is_air_dried_is_hung_without_a_rinse_and_never_sent_into_the_smoke():
    plan = Wishes(turn_days=2, out_day=8, dry_hours=12, soak_minutes=30, finish="air_dried")
    assert kinds(plan_days(PUT_IN, Window(first=7, last=14), plan))[-3:] == ["out", "dry", "hang"]


@pytest.mark.parametrize(
    ("act", "behind", "ahead"),
    [
        ("turn", ["cure", "rest", "smoke", "hang", "slice"], ["trim", "mix", ""]),
        ("out", ["cure", "slice"], ["trim"]),
        ("rinse", ["rinse", "soak", "rest"], ["cure"]),
        ("dry", ["rest", "smoke"], ["cure", "rinse", "soak"]),
        ("smoke", ["smoke", "cook", "hang", "chill"], ["cure", "rest"]),
        ("other", ["slice", "pack"], ["smoke", "chill"]),
    ],
)
def test_a_weighing_shows_which_acts_are_over(act, behind, ahead):
    assert all(is_behind(act, step) for step in behind)
    assert not any(is_behind(act, step) for step in ahead)


@given(windows, wishes, st.integers(1, 59))
def test_the_second_stage_goes_on_on_its_day(window, told, day):
    two = Wishes(turn_days=told.turn_days, out_day=60, dry_hours=told.dry_hours, spice_day=day)
    (spice,) = [act for act in plan_days(PUT_IN, window, two) if act.kind == "spice"]
    assert spice.due == PUT_IN + timedelta(days=day)


@given(moments, st.integers(5, 600))
def test_only_what_is_too_salty_is_soaked_and_tasted_again(tasted, minutes):
    assert follow_taste("right", tasted=tasted, soak_minutes=minutes) == []
    assert follow_taste("flat", tasted=tasted, soak_minutes=minutes) == []
    soak, again = follow_taste("salty", tasted=tasted, soak_minutes=minutes)
    assert (soak.kind, soak.due, soak.minutes) == ("soak", tasted, minutes)
    assert again == act_at("taste", tasted + timedelta(minutes=minutes))
