"""Jobs counted back from a meal: worked by hand, and what must always hold."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.planning.count_back import (
    Job,
    WorkDay,
    count_back,
    count_forward,
    earliest_start,
    latest_start,
    ready_at,
)

DAY = WorkDay(begins=7, ends=20)


def local(*parts):
    return datetime(*parts, tzinfo=UTC)


SATURDAY = local(2026, 12, 5, 19)


def hours(count):
    return timedelta(hours=count)


BELLY = [
    Job(kind="trim", hands=timedelta(minutes=30)),
    Job(kind="cure", hands=timedelta(minutes=30), least=hours(7 * 24 - 12), most=hours(14 * 24)),
    Job(kind="rest", hands=timedelta(minutes=15), least=hours(12)),
    Job(kind="smoke", hands=timedelta(minutes=30), least=hours(6)),
    Job(kind="chill", hands=timedelta(minutes=15), least=hours(12)),
    Job(kind="slice", hands=hours(1)),
]


def test_a_belly_for_saturday_at_seven():
    """Slice at six. Chilled twelve hours, so out of the smoke on Saturday by 5:45, which is at night: on
    Friday, when hands are off by eight. Six hours of smoke before 19:45; dried overnight; a week of cure.
    """
    placed = {one.job.kind: one for one in count_back(BELLY, SATURDAY, DAY)}
    assert placed["slice"].start == local(2026, 12, 5, 18)
    assert placed["chill"].start == local(2026, 12, 4, 19, 45)
    assert placed["smoke"].start == local(2026, 12, 4, 13, 15)
    assert placed["rest"].start == local(2026, 12, 3, 19, 45)
    assert placed["cure"].start == local(2026, 11, 27, 7, 15)
    assert placed["trim"].start == local(2026, 11, 26, 19, 30)
    assert placed["chill"].spare == hours(10)
    assert not any(one.is_too_long for one in placed.values())


def test_a_shoulder_for_seven_o_clock_with_four_hours_held():
    """Pulled for twenty minutes before seven; held four hours; eleven hours in the smoke: 3:30, at night, so
    put in the evening before and held for longer.
    """
    jobs = [
        Job(kind="smoke", hands=timedelta(minutes=30), least=hours(11), reserve=hours(4)),
        Job(kind="pull", hands=timedelta(minutes=20)),
    ]
    smoke, pull = count_back(jobs, SATURDAY, DAY)
    assert (pull.start, smoke.start) == (local(2026, 12, 5, 18, 40), local(2026, 12, 4, 19, 30))
    early = count_back([jobs[0], jobs[1]], SATURDAY, WorkDay(begins=0, ends=24))[0]
    assert early.start == local(2026, 12, 5, 3, 10)


def test_a_smoke_that_is_watched_falls_into_the_day():
    """Six hours and half an hour of hands before eight: from half past one on; at night never."""
    smoke = Job(kind="smoke", hands=timedelta(minutes=30), least=hours(6), is_watched=True)
    (evening,) = count_back([smoke], local(2026, 12, 5, 23), DAY)
    assert (evening.start, evening.spare) == (local(2026, 12, 5, 13, 30), hours(3))
    (night,) = count_back([smoke], local(2026, 12, 5, 12), DAY)
    assert night.start == local(2026, 12, 4, 13, 30)
    (long,) = count_back([Job(kind="smoke", least=hours(20), is_watched=True)], local(2026, 12, 5, 12), DAY)
    assert long.start == local(2026, 12, 4, 7)
    assert count_forward([smoke], local(2026, 12, 5, 14), DAY)[0].start == local(2026, 12, 6, 7)


def test_what_comes_out_of_the_smoke_is_chilled_at_once():
    """Out at eight in the evening, not left in the smoker until the chill has to begin the next morning."""
    smoke = Job(kind="smoke", hands=timedelta(minutes=30), least=hours(6), is_followed_at_once=True)
    chill = Job(kind="chill", hands=timedelta(minutes=10), least=hours(12))
    placed = count_back([smoke, chill], local(2026, 12, 5, 20), DAY)
    assert [one.start for one in placed] == [local(2026, 12, 4, 19, 30), local(2026, 12, 5, 7, 50)]
    watched = replace(smoke, is_watched=True)
    placed = count_back([watched, chill], local(2026, 12, 5, 20), DAY)
    assert [(one.start, one.end) for one in placed] == [
        (local(2026, 12, 4, 13, 30), local(2026, 12, 4, 20)),
        (local(2026, 12, 4, 20), local(2026, 12, 5, 20)),
    ]
    assert placed[1].hands_end == local(2026, 12, 4, 20, 10)


def test_a_day_later_is_a_day_too_late():
    start = count_back(BELLY, SATURDAY, DAY)[0].start
    assert ready_at(BELLY, start, DAY) <= SATURDAY
    assert ready_at(BELLY, start + timedelta(days=1), DAY) > SATURDAY
    assert ready_at([], SATURDAY, DAY) == SATURDAY


def test_what_lies_longer_than_it_may_says_so():
    jobs = [
        Job(kind="brine", hands=hours(1), least=hours(2), most=hours(3)),
        Job(kind="slice", hands=hours(1)),
    ]
    brine, _ = count_back(jobs, local(2026, 12, 5, 9), DAY)
    assert (brine.start, brine.is_too_long) == (local(2026, 12, 4, 19), True)
    # from eight in the evening to eight in the morning: just as long as it may
    (brine, _) = count_back([replace(jobs[0], most=hours(12)), jobs[1]], local(2026, 12, 5, 9), DAY)
    assert not brine.is_too_long


@pytest.mark.parametrize(
    ("before", "hands", "start"),
    [
        (local(2026, 12, 5, 19), hours(1), local(2026, 12, 5, 18)),
        (local(2026, 12, 5, 23), hours(1), local(2026, 12, 5, 19)),
        (local(2026, 12, 5, 7, 30), hours(1), local(2026, 12, 4, 19)),
        (local(2026, 12, 5, 8), hours(1), local(2026, 12, 5, 7)),
        (local(2026, 12, 5, 21), hours(14), local(2026, 12, 5, 7)),
    ],
)
def test_hands_are_put_on_inside_the_kitchens_day(before, hands, start):
    assert latest_start(before, hands, DAY) == start


@pytest.mark.parametrize(
    ("after", "start"),
    [
        (local(2026, 12, 5, 3), local(2026, 12, 5, 7)),
        (local(2026, 12, 5, 7), local(2026, 12, 5, 7)),
        (local(2026, 12, 5, 19), local(2026, 12, 5, 19)),
        (local(2026, 12, 5, 19, 1), local(2026, 12, 6, 7)),
    ],
)
def test_the_earliest_is_this_day_or_the_next_morning(after, start):
    assert earliest_start(after, hours(1), DAY) == start


moments = st.integers(0, 365 * 1440).map(lambda count: local(2026, 1, 1) + timedelta(minutes=count))
minutes = st.integers(0, 600).map(lambda count: timedelta(minutes=count))
jobs = st.lists(
    st.builds(
        Job,
        kind=st.just("x"),
        hands=minutes,
        least=st.integers(0, 200).map(hours),
        reserve=st.integers(0, 24).map(hours),
        is_watched=st.booleans(),
        is_followed_at_once=st.booleans(),
    ),
    min_size=1,
    max_size=6,
)


@given(jobs, moments)
def test_counted_back_it_is_ready_in_time_and_counted_forward_too(several, ready_by):
    placed = count_back(several, ready_by, DAY)
    assert placed[-1].end == ready_by
    for one in placed:
        assert one.spare >= (timedelta() if one.job.is_followed_at_once else one.job.reserve)
        assert DAY.begins <= one.start.hour <= DAY.ends
    assert count_forward(several, placed[0].start, DAY)[-1].end <= ready_by


@given(jobs, moments, st.integers(1, 40))
def test_more_reserve_never_starts_later(several, ready_by, more):
    first = several[0]
    reserved = replace(first, reserve=first.reserve + hours(more))
    before, after = (count_back([one, *several[1:]], ready_by, DAY)[0].start for one in (first, reserved))
    assert after <= before


def test_what_is_not_to_begin_before_a_time_waits_for_it_and_no_longer():
    start = local(2026, 11, 26, 9)
    smoke = local(2026, 12, 6, 10)
    placed = count_forward(BELLY, start, DAY, not_before={3: smoke, 0: start - hours(99)})
    assert [one.start for one in placed[:3]] == [one.start for one in count_forward(BELLY, start, DAY)[:3]]
    # it lies until then, and what comes after follows from there
    assert (placed[2].end, placed[3].start) == (smoke, smoke)
    assert placed[4].start == smoke + timedelta(minutes=30) + hours(6)
    night = count_forward(BELLY, start, DAY, not_before={3: local(2026, 12, 6, 23)})
    assert night[3].start == local(2026, 12, 7, 7)
    assert ready_at(BELLY, start, DAY, not_before={3: smoke}) == placed[-1].end
    assert ready_at([], start, DAY) == start


@pytest.mark.parametrize(
    ("night", "shown"),
    [
        # the clocks go back at two: ten hours before seven is 22:00, and forward: 20:00
        ((2026, 11, 1, 7), 22),
        ((2026, 3, 8, 7), 20),
    ],
)
def test_a_night_in_which_the_clocks_are_changed_lasts_as_long_as_it_does(night, shown):
    zone = ZoneInfo("America/New_York")
    ready = datetime(*night, tzinfo=zone)
    all_day = WorkDay(begins=0, ends=24)
    cook = Job(kind="smoke", hands=hours(1), least=hours(9), most=hours(9))
    (back,) = count_back([cook], ready, all_day)
    assert (back.start.hour, back.start.tzinfo, back.spare) == (shown, zone, hours(0))
    assert not back.is_too_long
    (ahead,) = count_forward([cook], back.start, all_day)
    assert ahead.end == ready
    assert ahead.hands_end.hour == shown + 1
    longer = replace(back, end=ready + hours(1))
    assert (longer.spare, longer.is_too_long) == (hours(1), True)
