"""A fire as it is followed: its alarms, what is kept of following it, and how often it is done anew."""

import json
import threading
import time
from dataclasses import replace
from datetime import datetime, timedelta

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from dolmetsch.core.documents.answers import answer_cook
from dolmetsch.server.fires import followed
from dolmetsch.server.fires.models import Fire, FireEvent
from tests.server.conftest import make_kitchen
from tests.server.test_fires import begun, climb, cooks, happens, heard, live  # noqa: F401 (fixtures)
from tests.waiting import wait_for


def alarms(api):
    return {one["key"].split()[0]: one for one in api.get("/alarms")[1]["alarms"]}


def test_an_alarm_stays_until_it_is_over_quieted_or_not(cooks):
    meal = (timezone.now() + timedelta(minutes=5)).isoformat()
    fire_id = begun(cooks, ago=121, meal_at=meal)
    climb(cooks, fire_id, 120)
    found = alarms(cooks)
    assert set(found) == {"stage", "late"}
    assert found["stage"]["text"] == "Next stage is due: Smoke 180 now: 61 min over."
    answer = happens(cooks, fire_id, "quiet", text=found["late"]["key"])[1]
    assert {one["key"]: one["is_quiet"] for one in answer["alarms"]} == {"stage 1": False, "late": True}
    assert answer["events"][0]["text"] == "an alarm quieted"
    happens(cooks, fire_id, "stage", stage=2)
    assert set(alarms(cooks)) == {"late"}
    assert cooks.get("/alarms")[1]["pieces"] == 1
    assert happens(cooks, fire_id, "quiet")[1]["fields"][0]["path"] == "text"
    happens(cooks, fire_id, "done")
    assert cooks.get("/alarms")[1] == {"alarms": [], "pieces": 0}
    assert make_kitchen("quiet-kitchen").get("/alarms")[1]["alarms"] == []


def test_air_long_under_the_program_is_an_alarm_also_after_a_change_of_stage(cooks):
    """Out just after a change of stage, the fire is not low by that stage's own air."""
    fire_id = begun(cooks, ago=120, pull_at="", stages=[{"kind": "cook", "air": "225"}])
    start = Fire.objects.get(pk=fire_id).begun_at
    for minute in range(0, 41, 2):
        heard(cooks, start + timedelta(minutes=minute), p1=60, air=150)
        assert ("cold" in alarms(cooks)) is (minute == 40)
    assert alarms(cooks)["cold"]["text"] == "The air is at 150 °F, the program wants 225: look at the fire."
    heard(cooks, start + timedelta(minutes=42), p1=60, air=186)
    assert "cold" not in alarms(cooks)


def test_air_far_over_what_the_stage_asks_for_is_an_alarm(cooks):
    """230 °F in a stage of 130: said after ten minutes, until it is under 170 again."""
    fire_id = begun(cooks, ago=120, pull_at="", stages=[{"kind": "dry", "air": "130"}])
    start = Fire.objects.get(pk=fire_id).begun_at
    for minute, air, is_said in ((0, 171, False), (8, 230, False), (10, 230, True), (12, 170, False)):
        heard(cooks, start + timedelta(minutes=minute), p1=60, air=air)
        assert ("hot" in alarms(cooks)) is is_said, minute
    heard(cooks, start + timedelta(minutes=14), p1=60, air=230)
    heard(cooks, start + timedelta(minutes=24), p1=60, air=231)
    assert alarms(cooks)["hot"]["text"].startswith(
        "The air is at 231 °F, the stage asks for 130: bank the fire"
    )
    # a cold smoke that is too warm has a trouble of its own
    happens(cooks, fire_id, "done")
    begun(cooks, ago=120, pull_at="", stages=[{"kind": "cold_smoke", "air": "80"}])
    assert "hot" not in alarms(cooks)


def test_a_fire_that_died_is_not_said_to_get_there(cooks):
    """At 120 °F inside the air falls to 53: it will not reach 150 so, and would by eight if it were back."""
    fire_id = begun(cooks, ago=300, stages=[{"kind": "cook", "air": "225"}], pull_at="150")
    climb(cooks, fire_id, 160, rate=0.5, air=225)
    alive = live(cooks, fire_id)
    assert alive["ready"]["low"] is not None
    assert (alive["ready"]["back_low"], bool(alive["pulls"])) == (None, True)
    start = Fire.objects.get(pk=fire_id).begun_at
    for minute in range(162, 202, 2):
        heard(cooks, start + timedelta(minutes=minute), p1=120, air=53)
    followed.forget()
    dead = live(cooks, fire_id)
    assert (dead["ready"]["low"], dead["ready"]["likely"], dead["pulls"]) == (None, None, [])
    assert dead["ready"]["why"] == (
        "it will not get there at this fire: the air is at 53 °F, the stage asks for 225"
    )
    assert dead["ready"]["back_low"] < dead["ready"]["back_high"]
    # cooler than asked for, but warm enough: it is forecast by the air it has
    for minute in range(202, 242, 2):
        heard(cooks, start + timedelta(minutes=minute), p1=120 + (minute - 200) / 4, air=180)
    followed.forget()
    slow = live(cooks, fire_id)["ready"]
    assert slow["low"] is not None
    assert slow["back_low"] < slow["low"]


def test_a_fire_read_by_hand_tells_the_coldest_and_what_was_not_read(cooks):
    two = [{"code": cooks.code, "mark": "A"}, {"code": cooks.code, "mark": "B"}]
    fire_id = begun(cooks, ago=60, cooker="", pieces=two, pull_at="145")
    start = Fire.objects.get(pk=fire_id).begun_at
    one, other = (f"{cooks.code} {mark}" for mark in "AB")

    def by_hand(minute, piece, temp, where=""):
        at = (start + timedelta(minutes=minute)).isoformat()
        return happens(cooks, fire_id, "instant", piece=piece, temp=str(temp), where=where, at=at)[1]

    now = by_hand(30, one, 150, "thick end")
    assert (now["coldest"], now["coldest_probe"], now["unread"]) == ("150", "instant", [other])
    assert (now["ready"]["low"], now["ready"]["why"]) == (None, f"not read, so not known to be done: {other}")
    assert now["events"][0]["text"] == f"{one}, thick end by hand: 150 °F"
    assert now["by_hand"] == [{"piece": one, "where": "thick end", "seconds": 1800, "degrees": 150.0}]
    assert now["rate_per_hour"] is None
    # colder than the mark: nothing is pulled
    assert "pull" not in {alarm["key"] for alarm in by_hand(31, other, 133, "thin end")["alarms"]}
    now = by_hand(32, other, 146, "thin end")
    assert (now["ready"]["why"], now["unread"], now["coldest"]) == ("reached", [], "146")
    assert "pull" in {alarm["key"] for alarm in now["alarms"]}
    # read colder again, it is taken back, and so is the alarm
    now = by_hand(35, one, 139, "bone")
    assert (now["ready"]["why"] == "reached", now["coldest"]) == (False, "139")
    assert "pull" not in {alarm["key"] for alarm in now["alarms"]}
    hanging = {row["label"]: row for row in now["hanging"]}
    assert [hanging[label]["now"] for label in (one, other)] == ["139", "146"]
    assert [hanging[label]["where"] for label in (one, other)] == ["bone", "thin end"]
    assert all(row["is_by_hand"] for row in hanging.values())
    # half an hour ago: still shown, and no longer what it reads
    assert [row["is_unread"] for row in now["hanging"]] == [True, True]
    # time between readings by hand is no trouble
    late = by_hand(55, one, 150)
    assert [row["code"] for row in late["troubles"]] == []
    happens(cooks, fire_id, "note", text="later")
    document = cooks.client.get(f"/api/kitchens/{cooks.slug}/fires/{fire_id}/files/json").json()
    document["instant"].pop()
    assert document["pieces"] == [one, other]
    assert [row["where"] for row in document["instant"]] == ["thick end", "thin end", "thin end", "bone"]
    assert answer_cook(json.dumps(document))["inside"]["now"] == "139.0"


def test_what_was_expected_by_now_and_not_read_since_is_not_promised_for_a_time_that_is_over(cooks):
    fire_id = begun(cooks, ago=150, cooker="", pull_at="145", stages=[{"kind": "cook", "air": "225"}])
    start = Fire.objects.get(pk=fire_id).begun_at
    for minute, temp in ((30, 90), (50, 120), (70, 138)):
        at = (start + timedelta(minutes=minute)).isoformat()
        happens(cooks, fire_id, "instant", piece=f"{cooks.code} A", temp=str(temp), at=at)
    ready = live(cooks, fire_id)["ready"]
    said = "it was expected there by now, and was not read since: read it again"
    assert (ready["low"], ready["high"], ready["why"]) == (None, None, said)


def test_each_temperature_has_its_price_also_where_the_program_only_cooks(cooks):
    fire_id = begun(cooks, ago=60, stages=[{"kind": "cook", "air": "225"}])
    prices = [pull["price"]["per_lb"] for pull in live(cooks, fire_id)["pulls"]]
    assert len(set(prices)) == len(prices)
    assert sorted(prices, key=float) == prices


def test_what_decided_is_named_not_what_is_coldest_now(cooks):
    two = [{"code": cooks.code, "mark": "A"}, {"code": cooks.code, "mark": "B"}]
    fire_id = begun(cooks, ago=100, pieces=two)
    start = Fire.objects.get(pk=fire_id).begun_at
    for number, mark in ((1, "A"), (2, "B")):
        at = start.isoformat()
        happens(cooks, fire_id, "probe", probe=str(number), piece=f"{cooks.code} {mark}", at=at)
    for minute in range(0, 21, 2):
        # B is the colder one until it is cooked, then A
        heard(cooks, start + timedelta(minutes=minute), p1=160, p2=150 if minute < 16 else 165, air=225)
    now = live(cooks, fire_id)
    assert (now["coldest_probe"], now["cooked_by"]) == ("1", f"probe 2 in {cooks.code} B")


def test_what_is_reached_wrong_or_silent_is_an_alarm(cooks):
    stages = [{"kind": "cook", "air": "200"}]
    fire_id = begun(cooks, ago=300, stages=stages, pull_at="120")
    climb(cooks, fire_id, 200)
    assert set(alarms(cooks)) == {"pull", "silent"}
    assert alarms(cooks)["pull"]["text"] == "120 °F is reached: pull it."
    start = Fire.objects.get(pk=fire_id).begun_at
    for minute in range(202, 300, 2):
        heard(cooks, start + timedelta(minutes=minute), p1=140, air=80)
    assert set(alarms(cooks)) == {"pull", "fire_low", "danger"}


@pytest.mark.parametrize(
    ("rate", "until", "texts"),
    [
        (0.75, 291, []),
        (0.5, 251, []),
        (0.5, 271, ["12 min left to 70 °F: more ice, thinner pieces, more air."]),
        (0.3, 291, ["Too slow to 70 °F: see what the rule says."]),
    ],
)
def test_a_cooling_that_is_too_slow_is_an_alarm_before_it_fails(cooks, rate, until, texts):
    """From 135 to 70 °F within two hours."""
    fire_id = begun(cooks, ago=300, stages=[{"kind": "cook"}])
    climb(cooks, fire_id, 160, start=56)
    start = Fire.objects.get(pk=fire_id).begun_at
    happens(cooks, fire_id, "cool", at=(start + timedelta(minutes=160)).isoformat())
    for minute in range(162, until, 2):
        heard(cooks, start + timedelta(minutes=minute), p1=136 - rate * (minute - 160), air=40)
    assert [one["text"] for key, one in alarms(cooks).items() if key == "cooling"] == texts


def test_tender_is_planned_back_from_the_kitchens_own_cooks(cooks):
    steam = {"stages": [{"kind": "smoke", "air": "225"}, {"kind": "steam", "air": "212"}], "pull_at": "200"}
    meal = timezone.now() + timedelta(minutes=30)
    fire_id = begun(cooks, ago=121, meal_at=meal.isoformat(), **steam)
    climb(cooks, fire_id, 120, start=80, air=225)
    answer = live(cooks, fire_id)
    assert (answer["tender"]["inside"], answer["tender"]["cooks"]) == ("200", 0)
    assert answer["tender"]["likely"] == answer["ready"]["likely"]
    late = datetime.fromisoformat(answer["tender"]["likely"]) - meal
    assert answer["tender"]["over_seconds"] == int(late.total_seconds()) > 0
    assert happens(cooks, fire_id, "tender", text="nearly")[1]["tender"] is not None
    assert happens(cooks, fire_id, "tender", text="yes")[1]["tender"] is None
    assert FireEvent.objects.filter(kind="tender").last().data["inside"] == "140.0"
    happens(cooks, fire_id, "done")
    later = begun(cooks, ago=121, **steam)
    climb(cooks, later, 120, start=80, air=225)
    # three start values of 200 and one own cook of 140
    tender = live(cooks, later)["tender"]
    assert (tender["inside"], tender["cooks"], tender["over_seconds"]) == ("185", 1, None)
    happens(cooks, later, "done")
    plain = begun(cooks, ago=121, stages=[{"kind": "smoke", "air": "225"}], course="as_said")
    climb(cooks, plain, 120, start=80, air=225)
    assert live(cooks, plain)["tender"] is None


def test_a_fire_followed_once_is_followed_anew_when_anything_changed(cooks, monkeypatch):
    fire_id = begun(cooks, ago=25)
    climb(cooks, fire_id, 20)
    times = []
    follow = followed.follow_cook
    monkeypatch.setattr(followed, "follow_cook", lambda *a, **k: times.append(1) or follow(*a, **k))
    now = timezone.now()
    monkeypatch.setattr(followed, "clock_by", lambda last: now)
    first = live(cooks, fire_id)
    assert (live(cooks, fire_id), len(times)) == (first, 1)
    heard(cooks, Fire.objects.get(pk=fire_id).begun_at + timedelta(minutes=21), p1=60, air=200)
    assert (live(cooks, fire_id)["coldest"], len(times)) == ("60", 2)
    happens(cooks, fire_id, "spritz")
    assert len(times) == 3
    monkeypatch.setattr(followed, "clock_by", lambda last: now + timedelta(minutes=1))
    live(cooks, fire_id)
    assert len(times) == 4


@pytest.mark.followed_beside
@pytest.mark.django_db(transaction=True)
def test_who_looks_does_not_wait_for_a_reading_to_be_followed(cooks, monkeypatch):
    fire_id = begun(cooks, ago=30)
    climb(cooks, fire_id, 20)
    assert live(cooks, fire_id)["coldest"] == "50"
    may_go_on = threading.Event()
    follow = followed.follow_cook
    monkeypatch.setattr(followed, "follow_cook", lambda *a, **k: may_go_on.wait(20) and follow(*a, **k))
    heard(cooks, Fire.objects.get(pk=fire_id).begun_at + timedelta(minutes=21), p1=60, air=200)
    # one that took its share of the worker's time is not followed again just now
    monkeypatch.setattr(followed, "_SHARE", 1_000_000)
    assert (live(cooks, fire_id)["coldest"], followed._renewing) == ("50", set())
    monkeypatch.setattr(followed, "_SHARE", 0)
    # twice, while one thread follows it
    assert [live(cooks, fire_id)["coldest"] for _ in range(2)] == ["50", "50"]
    assert len(followed._renewing) == 1
    may_go_on.set()
    wait_for(lambda: not followed._renewing, "the fire to be followed")
    assert live(cooks, fire_id)["coldest"] == "60"
    # further behind than that nobody is shown it
    heard(cooks, Fire.objects.get(pk=fire_id).begun_at + timedelta(minutes=22), p1=70, air=200)
    later = timezone.now() + followed.BEHIND + timedelta(seconds=1)
    monkeypatch.setattr(followed, "clock_by", lambda last: later)
    assert live(cooks, fire_id)["coldest"] == "70"


@pytest.mark.followed_beside
def test_following_a_fire_takes_at_most_a_twentieth_of_the_time_and_one_at_a_time(cooks, monkeypatch):
    fire_id = begun(cooks, ago=30)
    climb(cooks, fire_id, 20)
    live(cooks, fire_id)
    kept = followed._kept[fire_id]
    # of this fire alone, not of all that its thread did before
    assert 0 < kept.took < time.thread_time() / 2
    sent = []
    monkeypatch.setattr(followed, "_renew_beside", sent.append)
    heard(cooks, Fire.objects.get(pk=fire_id).begun_at + timedelta(minutes=21), p1=60, air=200)
    for passed, count in ((19.0, 0), (20.5, 1)):
        followed._kept[fire_id] = replace(kept, took=1.0, made=time.monotonic() - passed)
        live(cooks, fire_id)
        assert len(sent) == count, passed
    monkeypatch.undo()
    monkeypatch.setattr(followed._renewer, "submit", lambda *what: sent.append(what))
    for _ in range(3):
        followed._renew_beside(sent[0])
    assert (len(sent), followed._renewing) == (2, {fire_id})
    followed._renewing.clear()


def test_a_worker_keeps_so_many_readings_the_latest_fire_always(cooks, monkeypatch):
    fires = []
    for _ in range(3):
        fires.append(begun(cooks, cooker="", pieces=[{"code": cooks.code, "mark": "A"}]))
        happens(cooks, fires[-1], "done")
    first, second, third = fires
    followed.forget()
    for fire_id in (first, second):
        live(cooks, fire_id)
    assert list(followed._kept) == [first, second]
    followed.forget()
    count = iter((7, 8, 8, 8))
    monkeypatch.setattr(followed, "_MOST_READINGS", 7)
    monkeypatch.setattr(followed, "_count_readings", lambda: next(count))
    # of one alone nothing is counted; seven are few enough, eight are not
    live(cooks, first)
    live(cooks, second)
    assert list(followed._kept) == [first, second]
    live(cooks, third)
    assert list(followed._kept) == [third]


def test_many_fires_are_listed_in_as_many_questions_as_one(cooks):
    def listed():
        with CaptureQueriesContext(connection) as asked:
            answer = cooks.get("/fires")[1]
        return [one["pieces"] for one in answer["done"]], len(answer["burning"]), len(asked)

    def done():
        pieces = [{"code": cooks.code, "mark": "A"}]
        happens(cooks, begun(cooks, cooker="", pieces=pieces), "done")

    done()
    pieces, burning, asked = listed()
    assert (pieces, burning) == ([[f"{cooks.code} A"]], 0)
    for _ in range(3):
        done()
    assert listed() == ([[f"{cooks.code} A"]] * 4, 0, asked)


def test_a_fire_that_is_heard_no_more_is_worked_out_anew_every_five_minutes_alone(cooks, monkeypatch):
    fire_id = begun(cooks, ago=60)
    climb(cooks, fire_id, 20)
    times, follow = [], followed.follow_cook
    monkeypatch.setattr(followed, "follow_cook", lambda *a, **k: times.append(1) or follow(*a, **k))
    hour = timezone.now().replace(minute=0, second=0, microsecond=0)
    for minute, count in ((5, 1), (6, 1), (9, 1), (10, 2)):
        monkeypatch.setattr(followed, "clock_by", lambda last, at=minute: hour + timedelta(minutes=at))
        monkeypatch.setattr(followed, "STALE_SECONDS", -3600)
        live(cooks, fire_id)
        assert len(times) == count, minute
