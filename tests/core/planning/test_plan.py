"""The days in between, by property: whatever is wished, the tasks stand in their order and none is lost."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.curing.curing_time import Window
from dolmetsch.core.planning.plan import (
    DAY_BEGINS,
    DAY_ENDS,
    GRACE,
    TASK_WORDS,
    Wishes,
    at_work,
    follow_taste,
    is_behind,
    plan_days,
    task_at,
)

PUT_IN = datetime(2026, 3, 2, 8, tzinfo=UTC)
moments = st.integers(0, 5000).map(lambda hours: PUT_IN + timedelta(hours=hours))
windows = st.tuples(st.integers(1, 40), st.integers(0, 30)).map(
    lambda days: Window(first=days[0], last=days[0] + days[1])
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


def kinds(tasks):
    return [task.kind for task in tasks]


@given(moments, windows, wishes)
def test_acts_stand_in_order_from_the_cure_to_the_smoke(put_in, window, data):
    tasks = plan_days(put_in, window, data)
    assert [task.due for task in tasks] == sorted(task.due for task in tasks)
    assert all(put_in < task.due <= task.until for task in tasks)
    assert kinds(tasks)[-1] == "smoke"
    assert set(kinds(tasks)) <= set(TASK_WORDS)
    for once in ("out", "rinse", "dry", "smoke"):
        assert kinds(tasks).count(once) == 1


@given(moments, windows, wishes)
def test_it_is_turned_every_so_many_days_and_never_on_the_day_it_comes_out(put_in, window, data):
    turns = [task.due.date() for task in plan_days(put_in, window, data) if task.kind == "turn"]
    every = data.turn_days
    wanted = [
        (put_in + timedelta(days=day)).date() for day in range(1, data.out_day) if every and day % every == 0
    ]
    assert turns == wanted


@given(windows, wishes)
def test_it_comes_out_on_the_day_picked_and_is_late_only_past_the_window(window, data):
    tasks = plan_days(PUT_IN, window, data)
    (out,) = [task for task in tasks if task.kind == "out"]
    assert out.due == PUT_IN + timedelta(days=data.out_day)
    assert out.until >= max(PUT_IN + timedelta(days=window.last), out.due + GRACE)
    # what is taken later than the first day it may is felt on that day
    felt = [task.due for task in tasks if task.kind == "check"]
    assert felt == ([PUT_IN + timedelta(days=window.first)] if window.first < data.out_day else [])


@given(windows, wishes)
def test_it_dries_as_long_as_wished_before_the_smoke_and_a_soak_is_tasted_after(window, data):
    tasks = plan_days(PUT_IN, window, data)
    after = [task for task in tasks if task.kind in ("dry", "smoke", "soak", "taste")]
    by_kind = {task.kind: task for task in after}
    # at least as long as wished, and into the working day
    dried = by_kind["smoke"].due - by_kind["dry"].due
    assert timedelta(hours=data.dry_hours) <= dried < timedelta(hours=data.dry_hours + 14)
    assert by_kind["dry"].minutes == data.dry_hours * 60
    tastings = [task.due for task in after if task.kind == "taste"]
    if data.soak_minutes is None:
        assert len(tastings) == 1
        return
    soak = by_kind["soak"]
    assert (soak.minutes, len(tastings)) == (data.soak_minutes, 2)
    assert tastings[1] - soak.due >= timedelta(minutes=data.soak_minutes - 7)


@given(moments, st.integers(-400, 400), windows, wishes)
def test_put_in_days_later_all_of_it_is_as_many_days_later(put_in, days, window, data):
    later = timedelta(days=days)
    now, then = (plan_days(moment, window, data) for moment in (put_in, put_in + later))
    assert [(task.kind, task.due + later, task.until + later) for task in now] == [
        (task.kind, task.due, task.until) for task in then
    ]


@given(st.datetimes(datetime(2026, 1, 1), datetime(2026, 12, 31), timezones=st.just(UTC)), windows, wishes)  # noqa: DTZ001
def test_acts_fall_into_the_working_day(put_in, window, data):
    for task in plan_days(put_in, window, data):
        if task.kind in ("turn", "out", "check", "smoke"):
            assert DAY_BEGINS <= task.due.hour < DAY_ENDS
            assert task.due.minute % 15 == 0


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
    plan = Wishes(turn_days=2, out_day=8, dry_hours=12, soak_minutes=30, course="air_dried")
    assert kinds(plan_days(PUT_IN, Window(first=7, last=14), plan))[-3:] == ["out", "dry", "hang"]


@pytest.mark.parametrize(
    ("task", "behind", "ahead"),
    [
        ("turn", ["cure", "rest", "smoke", "hang", "slice"], ["trim", "mix", ""]),
        ("out", ["cure", "slice"], ["trim"]),
        ("rinse", ["rinse", "soak", "rest"], ["cure"]),
        ("dry", ["rest", "smoke"], ["cure", "rinse", "soak"]),
        ("smoke", ["smoke", "cook", "hang", "chill"], ["cure", "rest"]),
        ("other", ["slice", "pack"], ["smoke", "chill"]),
    ],
)
def test_a_weighing_shows_which_acts_are_over(task, behind, ahead):
    assert all(is_behind(task, step) for step in behind)
    assert not any(is_behind(task, step) for step in ahead)


@given(windows, wishes, st.integers(1, 59))
def test_the_second_stage_goes_on_on_its_day(window, data, day):
    two = Wishes(turn_days=data.turn_days, out_day=60, dry_hours=data.dry_hours, spice_day=day)
    (spice,) = [task for task in plan_days(PUT_IN, window, two) if task.kind == "spice"]
    assert spice.due == PUT_IN + timedelta(days=day)


@given(moments, st.integers(5, 600))
def test_only_what_is_too_salty_is_soaked_and_tasted_again(tasted, minutes):
    assert follow_taste("right", tasted=tasted, soak_minutes=minutes) == []
    assert follow_taste("flat", tasted=tasted, soak_minutes=minutes) == []
    soak, again = follow_taste("salty", tasted=tasted, soak_minutes=minutes)
    assert (soak.kind, soak.due, soak.minutes) == ("soak", tasted, minutes)
    assert again == task_at("taste", tasted + timedelta(minutes=minutes))
