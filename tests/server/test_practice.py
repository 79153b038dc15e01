"""Practice: a cook-through on a simulated fire, judged against the best, apart from every book."""

import re
from datetime import timedelta

import pytest

from dolmetsch.server.batches.models import Batch, StepYield
from dolmetsch.server.fires.models import Fire, ProbeReading
from dolmetsch.server.practice import actions, showing
from dolmetsch.server.practice.lessons import LESSONS, draw_troubles
from dolmetsch.server.practice.models import PracticeAct, PracticeRun
from dolmetsch.server.practice.simulation import Act, find_best, find_length, run_course
from tests.server.conftest import make_kitchen

pytestmark = pytest.mark.django_db
BELLY, SHOULDER = LESSONS["belly"], LESSONS["shoulder"]


class Clock:
    """The run's clock, as the test sets it."""

    seconds = 0


@pytest.fixture
def clock(monkeypatch):
    found = Clock()
    for module in (showing, actions):
        monkeypatch.setattr(module, "seconds_now", lambda row: found.seconds)
    return found


def begin(api, lesson="belly", **more):
    status, body = api.call("POST", "/practice", {"lesson": lesson, "speed": 600, **more})
    assert status == 201, body
    return body["id"]


def act(api, run, kind, **more):
    return api.call("POST", f"/practice/{run}/events", {"kind": kind, **more})


def seed_with(lesson, *kinds):
    """A seed whose run has these troubles alone."""
    return next(
        seed
        for seed in range(60)
        if {one.kind for one in draw_troubles(lesson, seed, length=find_length(lesson))} == set(kinds)
    )


def cook(api, clock, run, lesson, *, attentive):
    """Cook a run: who is ``attentive`` looks every quarter of an hour and does what is asked for."""
    for seconds in range(0, 20 * 3600, 900):
        clock.seconds = seconds
        live = api.get(f"/practice/{run}")[1]["live"]
        keys = {one["key"].split()[0] for one in live["alarms"]}
        if "stage" in keys:
            act(api, run, "stage", stage=live["stage"] + 1)
        if attentive and "fire_low" in keys:
            act(api, run, "fuel", text="pellets")
        if attentive and "probe_out" in keys:
            act(api, run, "probe")
        if "pull" in keys:
            break
    clock.seconds += 0 if attentive else 3 * 3600
    act(api, run, "cool")
    clock.seconds += 3600
    return act(api, run, "done")[1]["verdict"]


def test_who_looks_loses_little_and_who_does_not_pays(api, clock, monkeypatch):
    monkeypatch.setattr(actions.secrets, "randbelow", lambda most: seed_with(BELLY, "fire_out"))
    good = cook(api, clock, begin(api), BELLY, attentive=True)
    poor = cook(api, clock, begin(api), BELLY, attentive=False)
    assert [(one["kind"], one["is_caught"]) for one in good["caught"]] == [("fire_out", True), ("pull", True)]
    assert good["is_cooked"]
    assert float(good["money"]) < 2 < float(poor["money"])
    assert good["late_seconds"] == 0 < poor["late_seconds"]
    missed = {one["kind"]: one for one in poor["caught"] if not one["is_caught"]}
    assert {"fire_out", "late"} <= set(missed)
    assert missed["fire_out"]["after_seconds"] is None
    assert "look at the fire" in missed["fire_out"]["next_time"]
    weights = [float(poor[name]["lb"]) for name in ("weight", "lost", "best_weight")]
    assert weights[0] + weights[1] == pytest.approx(weights[2], abs=0.011)
    # what is lost, at what a pound would have cost
    per_lb = float(poor["best_price"]["per_lb"]) * BELLY.served
    assert float(poor["money"]) == pytest.approx(weights[1] * per_lb, abs=0.11)


def test_nothing_of_it_enters_a_book(api, clock):
    before = Batch.objects.count()
    run = begin(api)
    clock.seconds = 3600
    assert act(api, run, "instant")[0] == 201
    assert api.get(f"/practice/{run}")[1]["live"]["hanging"][0]["label"] == "P-00 A"
    act(api, run, "done")
    counts = [kind.objects.count() for kind in (Fire, ProbeReading, StepYield)]
    assert (Batch.objects.count(), counts) == (before, [0, 0, 0])
    assert api.get("/alarms")[1] == {"alarms": [], "pieces": 0}
    assert api.get("/today")[1]["under_way"] == []


def test_a_run_follows_from_its_seed_and_what_was_done():
    acts = [Act(seconds=5000, kind="fuel"), Act(seconds=2700, kind="stage", stage=1)]
    one, other = (run_course(BELLY, 7, acts, until=9000) for _ in range(2))
    assert (one.readings, one.troubles) == (other.readings, other.troubles)
    assert run_course(BELLY, 8, acts, until=9000).readings != one.readings
    # looked at earlier it is the same run, not gone as far
    assert run_course(BELLY, 7, acts, until=3000).readings == one.readings[:101]


@pytest.mark.parametrize("lesson", LESSONS.values(), ids=LESSONS)
def test_the_best_pulls_at_the_plan_and_mends_in_time(lesson):
    for seed in range(6):
        seconds, peak = find_best(lesson, seed)
        assert lesson.pull_at <= peak < lesson.pull_at + 1
        assert find_length(lesson) < seconds < find_length(lesson) * 1.3
        assert any(one.kind == "fire_out" for one in draw_troubles(lesson, seed, length=seconds))


def test_a_probe_in_fat_reads_too_hot_until_it_is_moved():
    seed = seed_with(BELLY, "fire_out", "fat")
    fat = next(one for one in draw_troubles(BELLY, seed, length=find_length(BELLY)) if one.kind == "fat")
    until = fat.seconds + 1800
    moved = run_course(BELLY, seed, [Act(seconds=fat.seconds + 600, kind="probe")], until=until)
    left = run_course(BELLY, seed, [], until=until)
    assert float(left.readings[-1][1]["1"]) > left.middles[-1][1] + 5
    assert float(moved.readings[-1][1]["1"]) == pytest.approx(moved.middles[-1][1], abs=1)


def test_an_instant_reading_is_of_the_true_middle(api, clock):
    run = begin(api)
    clock.seconds = 3600
    live = act(api, run, "instant")[1]["live"]
    row = PracticeRun.objects.get(pk=run)
    # kept to a tenth of a degree, shown to a whole one
    middle = run_course(BELLY, row.seed, [], until=3600).middle_at(3600)
    # the probe beside it may read colder, and decides then
    (read,) = (one["text"] for one in live["events"] if one["kind"] == "instant")
    assert abs(float(re.search(r"by hand: ([\d.]+) °F", read)[1]) - middle) < 0.56
    assert float(live["coldest"]) - middle < 0.56


def test_the_stall_is_caught_by_wrapping(api, clock, monkeypatch):
    monkeypatch.setattr(actions.secrets, "randbelow", lambda most: seed_with(SHOULDER, "fire_out", "stall"))
    verdict = cook(api, clock, begin(api, "shoulder"), SHOULDER, attentive=True)
    assert {one["kind"]: one["is_caught"] for one in verdict["caught"]}["stall"] is True


def test_a_run_is_the_kitchens_own_and_over_when_it_is_done(api, clock):
    run = begin(api)
    assert make_kitchen("elsewhere").get(f"/practice/{run}")[0] == 404
    assert act(api, run, "done")[0] == 201
    status, body = act(api, run, "fuel")
    assert (status, body["code"]) == (409, "practice_done")
    clock.seconds = 9000
    assert api.get(f"/practice/{run}")[1]["live"]["state"] == "done"
    listed = api.get("/practice")[1]
    assert [one["key"] for one in listed["lessons"]] == ["belly", "shoulder"]
    assert [(one["id"], one["is_done"]) for one in listed["runs"]] == [(run, True)]
    assert make_kitchen("another").get("/practice")[1]["runs"] == []


@pytest.mark.parametrize(
    ("kind", "more", "path"),
    [
        ("stage", {}, "stage"),
        ("stage", {"stage": 3}, "stage"),
        ("tender", {"text": "very"}, "text"),
        ("swap", {}, "kind"),
        ("import", {}, "kind"),
    ],
)
def test_what_cannot_be_done_is_refused_at_its_place(api, clock, kind, more, path):
    run = begin(api)
    status, body = act(api, run, kind, **more)
    assert (status, body["fields"][0]["path"]) == (422, path)
    assert not PracticeAct.objects.exists()


@pytest.mark.parametrize(("change", "path"), [({"lesson": "goat"}, "lesson"), ({"speed": 601}, "speed")])
def test_a_run_that_cannot_be_is_not_begun(api, change, path):
    status, body = api.call("POST", "/practice", {"lesson": "belly", **change})
    assert (status, body["fields"][0]["path"]) == (422, path)
    assert not PracticeRun.objects.exists()


def test_the_clock_runs_as_fast_as_asked_and_not_for_ever(api):
    row = PracticeRun.objects.get(pk=begin(api, speed=60))
    row.recorded_at -= timedelta(minutes=2)
    assert showing.seconds_now(row) == pytest.approx(7200, abs=120)
    row.recorded_at -= timedelta(days=5)
    assert showing.seconds_now(row) == 36 * 3600
