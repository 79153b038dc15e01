"""The days in between, by property: whatever is wished, the acts stand in their order and none is lost."""

from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.curing_time import Window
from dolmetsch.core.plan import ACT_WORDS, GRACE, Wishes, act_at, follow_taste, plan_days

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
    turns = [act.due - put_in for act in plan_days(put_in, window, told) if act.kind == "turn"]
    every = told.turn_days
    wanted = [timedelta(days=day) for day in range(1, told.out_day) if every and day % every == 0]
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
    assert by_kind["smoke"].due - by_kind["dry"].due == timedelta(hours=told.dry_hours)
    assert by_kind["dry"].minutes == told.dry_hours * 60
    tastings = [act.due for act in after if act.kind == "taste"]
    if told.soak_minutes is None:
        assert len(tastings) == 1
        return
    soak = by_kind["soak"]
    assert (soak.minutes, len(tastings)) == (told.soak_minutes, 2)
    assert tastings[1] - soak.due == timedelta(minutes=told.soak_minutes)


@given(moments, st.timedeltas(timedelta(days=-400), timedelta(days=400)), windows, wishes)
def test_put_in_later_all_of_it_is_as_much_later(put_in, later, window, told):
    now, then = (plan_days(moment, window, told) for moment in (put_in, put_in + later))
    assert [(act.kind, act.due + later, act.until + later) for act in now] == [
        (act.kind, act.due, act.until) for act in then
    ]


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
