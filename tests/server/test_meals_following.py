"""Meal plans beside what is under way: several methods, batches that bring something, other plans, facts."""

from datetime import datetime, timedelta

import pytest
from django.utils import timezone

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.fires.models import Fire, FireEvent
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.meals.models import Meal, MealMade
from dolmetsch.server.meals.queries import read_meal_page, read_meals
from dolmetsch.server.meals.ways_out import list_meal_times
from dolmetsch.server.meals.words import say_hours
from tests.server.conftest import TRIM, weigh
from tests.server.test_cures import on_desk, put_in
from tests.server.test_meals import (  # noqa: F401 (the fixture)
    DISH,
    MAKE,
    WAY,
    again,
    in_days,
    kept_as_it_was,
    kitchen,
    listed,
    paths,
    plan,
    saved,
    worked,
)
from tests.server.test_prices import noted

pytestmark = pytest.mark.django_db
NAME = "Saturday's forty"
PULLED = {
    "name": "Pulled",
    "steps": [
        {"method": "trim", "batch_minutes": "10"},
        {"method": "pulled", "batch_minutes": "20"},
    ],
}
BOTH = [
    {"sort": "product", "name": "Cherry jowl", "amount": "5 lb"},
    {"sort": "product", "name": "Pulled shoulder", "amount": "4 lb"},
]


@pytest.fixture
def two(kitchen):
    assert kitchen.call("POST", "/ways", PULLED)[0] == 201
    return kitchen


def both(api, **more):
    makes = [
        {**MAKE, "product": "Cherry jowl"},
        {"product": "", "way": "Pulled", "cut": "pork shoulder, bone in", "price": "2.00/lb"},
    ]
    return again(api, plan(**{"wants": BOTH, "makes": makes, **more}))


def row_of(api):
    return Kitchen.objects.get(slug=api.slug)


def days_on(days):
    return timezone.now() + timedelta(days=days)


def test_each_product_is_made_its_own_way_from_its_own_meat(two):
    body = both(two)
    assert body["problems"] == []
    assert [(buy["products"], buy["meat"]) for buy in body["buys"]] == [
        (["Cherry jowl"], "jowl, skin on"),
        (["Pulled shoulder"], "pork shoulder, bone in"),
    ]
    jobs = [(job["product"], job["kind"]) for job in body["jobs"]]
    assert [kind for product, kind in jobs if product == "Pulled shoulder"] == ["trim", "cook"]
    assert len(jobs) == 8
    assert body["jobs"] == sorted(body["jobs"], key=lambda job: job["starts"])
    alone = [
        worked(two, wants=[BOTH[0]]),
        worked(two, wants=[BOTH[1]], way="Pulled", cut="pork shoulder, bone in", price="2.00/lb", pack=""),
    ]
    assert float(body["cost"]) == pytest.approx(sum(float(one["cost"]) for one in alone), abs=0.011)
    assert body["work_minutes"] == sum(one["work_minutes"] for one in alone)
    # both reserve what they need of the smoker at their own time, under their own name
    smoker = next(lane for lane in body["lanes"] if lane["name"] == "Smoker")
    assert {bar["name"] for bar in smoker["bars"]} == {"Cherry jowl", "Pulled shoulder"}


def test_what_nothing_makes_and_what_is_made_twice_is_said(two):
    assert paths(both(two, makes=[{**MAKE, "product": "Cherry jowl"}])) == {"makes": "no_way"}
    twice = [MAKE, {**MAKE, "product": ""}]
    assert paths(both(two, makes=twice)) == {"makes[1].product": "twice"}
    assert paths(both(two, makes=[])) == {"makes": "no_way"}


def test_several_things_in_one_smoker_clash_with_each_other_by_name(two):
    makes = [
        {**MAKE, "product": "Cherry jowl", "piece": "2 lb", "pack": ""},
        {**MAKE, "product": "", "piece": "2 lb", "pack": ""},
    ]
    wants = [{**want, "amount": "2.9 lb"} for want in BOTH]
    body = both(two, makes=makes, wants=wants)
    (smoker,) = [clash for clash in body["clashes"] if clash["store"] == "Smoker"]
    assert "(this plan's Cherry jowl, this plan's Pulled shoulder)" in smoker["words"]
    early = next(way for way in body["ways_out"] if way["words"].startswith("Make Pulled shoulder earlier"))
    moved = again(two, early["input"])
    assert moved["clashes"] == []
    ends = {
        product: max(job["ends"] for job in moved["jobs"] if job["product"] == product)
        for product in ("Cherry jowl", "Pulled shoulder")
    }
    day = datetime.fromisoformat(ends["Cherry jowl"]) - datetime.fromisoformat(ends["Pulled shoulder"])
    assert day == timedelta(days=1)


def test_where_no_single_change_makes_it_fit_two_do(two):
    """Six pieces need two loads of a smoker of four; three more, in two loads too, are then in the way."""
    two.call("POST", "/stores", {"name": "Cellar", "sort": "fridge", "levels": 4, "slots": 4})
    makes = [
        {**MAKE, "product": "Cherry jowl", "piece": "2 lb", "pack": ""},
        {**MAKE, "product": "", "piece": "2 lb", "pack": ""},
    ]
    wants = [{**BOTH[0], "amount": "6 lb"}, {**BOTH[1], "amount": "3 lb"}]
    makes[1]["loads"] = 2
    body = both(two, makes=makes, wants=wants)
    (way, *_) = body["ways_out"]
    assert way["words"] == (
        "Smoke Cherry jowl in two loads, and make Pulled shoulder earlier: ready 1 day before the meal"
    )
    after = again(two, way["input"])
    assert (after["clashes"], len(body["ways_out"]) <= 4) == ([], True)


def test_too_late_and_too_much_the_nearest_day_that_can_be_met_is_said_all_the_same(kitchen):
    """Eighty rolls never fit: the day alone is offered, and what then can be done is said of it."""
    wants = [{"sort": "dish", "name": "Harbor roll", "amount": "80"}]
    (way,) = worked(kitchen, day=in_days(2), wants=wants)["ways_out"]
    assert way["words"].endswith(": then there is time, but not yet the room or the hands")
    then = again(kitchen, way["input"])
    assert (then["is_too_late"], bool(then["clashes"])) == (False, True)
    assert [one["words"] for one in then["ways_out"]][-1].startswith("Make less: ")


def test_beside_another_plan_beginning_earlier_or_another_day_makes_it_fit(kitchen):
    fits = {"wants": [{"sort": "dish", "name": "Harbor roll", "amount": "15"}], "pack": "", "piece": "2 lb"}
    saved(kitchen, name="Friday", **fits)
    listed(kitchen, "Friday")
    body = worked(kitchen, **fits, reserve_hours="6")
    (smoker,) = body["clashes"]
    assert "beside Friday" in smoker["words"]
    ways = {way["words"]: way for way in body["ways_out"]}
    early = ways["Begin 1 day earlier: all is ready 1 day before the meal"]
    assert (early["input"]["reserve_hours"], early["more"]) == ("30", "0.00")
    assert again(kitchen, early["input"])["clashes"] == []
    moved = next(way for words, way in ways.items() if words.startswith("Move the meal to "))
    assert moved["input"]["day"] > body["meal_at"][:10]


def test_a_long_cook_begun_too_late_is_moved_with_its_reserve(two):
    """Twelve hours and four of reserve: what is offered can be begun in time, its reserve kept."""
    two.call("POST", "/stores", {"name": "Smoker", "sort": "smoker", "put_away": True})
    shoulder = {"way": "Pulled", "cut": "pork shoulder, bone in", "pack": ""}
    wants = [{"sort": "product", "name": "Pulled shoulder", "amount": "4 lb"}]
    soon = timezone.localtime() + timedelta(hours=3)
    body = worked(two, wants=wants, **shoulder, day=soon.date().isoformat(), at=f"{soon:%H:%M}")
    assert body["is_too_late"]
    assert body["ways_out"]
    for way in body["ways_out"]:
        assert again(two, way["input"])["is_too_late"] is False


def test_two_loads_cost_their_fuel_and_work_again(kitchen):
    more = {"wants": [{"sort": "dish", "name": "Harbor roll", "amount": "55"}], "pack": ""}
    once, twice = worked(kitchen, **more), worked(kitchen, **more, loads=2)
    fuel = [next(row for row in body["shopping"] if row["what"] == "pellets") for body in (once, twice)]
    assert [row["needed"] for row in fuel] == ["6.00 lb", "12.00 lb"]
    assert float(twice["cost"]) - float(once["cost"]) == pytest.approx(6 * 0.9)
    # half an hour at the fire again, and nothing else of the work
    assert twice["work_minutes"] - once["work_minutes"] == 30
    way = next(way for way in once["ways_out"] if way["words"] == "Smoke it in two loads")
    assert float(way["more"]) == pytest.approx(float(twice["cost"]) - float(once["cost"]), abs=0.011)
    less = next(way for way in once["ways_out"] if way["words"].startswith("Make "))
    assert float(less["more"]) < 0


def under_way(api, *, pieces="11 lb"):
    """A batch that was finished and packed, and another one like it in the cure."""
    noted(api, sort="meat", name="jowl, skin on", price="3.00/lb")
    code = api.started()
    choose(api, code)
    api.recorded(code, {**TRIM, "kind": "slice", "pieces": [{"weight": "9 lb"}], "cut_off": []})
    page = api.get(f"/batches/{code}")[1]
    pack = {"piece": page["pieces"][0]["mark"], "product": "Cherry jowl", "form": "whole", "weight": "1 lb"}
    pack["store"] = "Freezer"
    assert api.call("POST", f"/batches/{code}/packs", {"packs": [pack], "seen": page["seen"]})[0] == 201
    code = api.started()
    choose(api, code)
    api.recorded(code, TRIM)
    return code


def choose(api, code):
    status, body = api.call("POST", f"/batches/{code}/way", {"way": WAY["name"]})
    assert status in (200, 201), body


def test_a_batch_under_way_brings_what_its_cut_and_method_brought_before(kitchen):
    before = worked(kitchen, name="x")
    code = under_way(kitchen)
    body = worked(kitchen)
    (one,) = body["coming"]
    assert (one["code"], one["products"], one["counts"]) == (code, ["Cherry jowl"], True)
    assert timezone.now() < datetime.fromisoformat(one["ready"]) < days_on(20)
    (needed,) = body["needed"]
    # surely is less than about, and what comes is not made again
    assert 0 < float(needed["coming"]["lb"]) < float(one["brings"]["lb"])
    total = sum(float(needed[part]["lb"]) for part in ("here", "coming", "short"))
    assert total == pytest.approx(float(needed["wanted"]["lb"]), abs=0.011)
    assert float(body["needed"][0]["short"]["lb"]) < float(before["needed"][0]["short"]["lb"])
    left_out = worked(kitchen, leave_out=[code])
    assert [(one["counts"], one["is_left_out"]) for one in left_out["coming"]] == [(False, True)]
    assert left_out["needed"][0]["coming"]["lb"] == "0.000"
    soon = worked(kitchen, day=in_days(3))
    assert [one["counts"] for one in soon["coming"]] == [False]
    # to be surer, less of it is counted on
    assert worked(kitchen, sure="99")["problems"] == []
    surer = float(worked(kitchen, sure="99")["needed"][0]["coming"]["lb"])
    assert surer < float(needed["coming"]["lb"])


def test_packs_of_a_batch_under_way_say_what_it_brings_and_are_here_already(kitchen):
    """Sliced in part: what was packed is in the larder, and comes no more."""
    code = under_way(kitchen)
    whole = float(worked(kitchen)["coming"][0]["brings"]["lb"])
    kitchen.recorded(code, weigh("slice", A="3 lb"))
    left = float(worked(kitchen)["coming"][0]["brings"]["lb"])
    pack = {"piece": "A", "product": "Odd ends", "form": "whole", "weight": "3 lb"}
    seen = kitchen.get(f"/batches/{code}")[1]["seen"]
    assert kitchen.call("POST", f"/batches/{code}/packs", {"packs": [pack], "seen": seen})[0] == 201
    assert worked(kitchen)["coming"] == []
    wants = [{"sort": "product", "name": "odd ends", "amount": "9 lb"}]
    (one,) = worked(kitchen, wants=wants)["coming"]
    assert one["products"] == ["Odd ends"]
    assert float(one["brings"]["lb"]) == pytest.approx(left - 3, abs=0.011)
    assert 3 < left < whole


def test_the_list_says_when_a_cure_is_over_and_what_comes_after_follows(kitchen):
    code = under_way(kitchen)
    plain = datetime.fromisoformat(worked(kitchen)["coming"][0]["ready"])
    assert put_in(kitchen, code, on_desk("A"))[0] == 201
    batch = Batch.objects.get(code=code)
    task = batch.planned_tasks.get(kind="smoke")
    ready = datetime.fromisoformat(worked(kitchen)["coming"][0]["ready"])
    assert ready > task.due_at
    assert ready != plain


def test_a_step_of_unknown_length_leaves_the_day_open(kitchen):
    way = {**WAY, "steps": [{**step, "days": 0} for step in WAY["steps"]]}
    under_way(kitchen)
    assert worked(kitchen)["coming"][0]["ready"] is not None
    hasty = {**way, "name": "Hasty"}
    assert kitchen.call("POST", "/ways", hasty)[0] == 201
    status, _ = kitchen.call("POST", f"/batches/{worked(kitchen)['coming'][0]['code']}/way", {"way": "Hasty"})
    assert status in (200, 201)
    # another method from the same cut never brought anything yet
    assert worked(kitchen)["coming"] == []


def test_what_plans_before_take_is_not_there_twice(kitchen):
    under_way(kitchen)
    product = {"sort": "product", "name": "Cherry jowl", "amount": "3 lb"}
    code = worked(kitchen)["coming"][0]["code"]
    saved(kitchen, name="Friday", wants=[product], day=in_days(19), leave_out=[code])
    mine = {"wants": [product], "day": in_days(20), "leave_out": [code]}
    first = worked(kitchen, **mine)["needed"][0]
    assert (first["here"]["lb"], first["taken"]["lb"]) == ("1.00", "0.000")
    listed(kitchen, "Friday")
    after = worked(kitchen, **mine)["needed"][0]
    assert (after["here"]["lb"], after["taken"]["lb"]) == ("0.000", "1.00")
    # at the same time the one that comes first by its name does
    assert worked(kitchen, **{**mine, "day": in_days(19)}, name="A")["needed"][0]["taken"]["lb"] == "0.000"
    assert worked(kitchen, **{**mine, "day": in_days(19)}, name="Z")["needed"][0]["taken"]["lb"] == "1.00"
    # a plan for before that one takes first
    assert worked(kitchen, wants=[product], day=in_days(18))["needed"][0]["taken"]["lb"] == "0.000"
    # dishes of another plan take too: 5⅓ rolls are a pound
    saved(
        kitchen,
        name="Friday",
        wants=[{"sort": "dish", "name": "Harbor roll", "amount": "4"}],
        day=in_days(19),
    )
    assert worked(kitchen, **mine)["needed"][0]["taken"]["lb"] == "0.75"


def test_hands_are_counted_with_the_jobs_of_other_plans(kitchen):
    saved(kitchen, name="Friday", hours_a_day="")
    listed(kitchen, "Friday")
    alone = worked(kitchen, name="Friday", hours_a_day="1.5")
    assert [clash for clash in alone["clashes"] if clash["store"] == ""] == []
    beside = worked(kitchen, hours_a_day="1.5")
    (hands,) = [clash["words"] for clash in beside["clashes"] if clash["store"] == ""]
    assert "jobs of other plans counted" in hands
    # twice an hour and a quarter of trim and cure, and an hour and a half of hands
    assert hands.startswith("Hands: 2 h ")
    ticked = [job["uid"] for job in kitchen.get("/meals/Friday")[1]["jobs"]]
    for uid in ticked:
        kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "done"})
    assert [clash for clash in worked(kitchen, hours_a_day="1.5")["clashes"] if clash["store"] == ""] == []


def test_the_batch_a_plan_is_made_in_shows_which_jobs_are_done(kitchen):
    saved(kitchen)
    listed(kitchen)
    code = kitchen.started()
    status, page = kitchen.call("POST", f"/meals/{NAME}/made", {"product": "Cherry jowl", "batch": code})
    assert status == 201, page
    assert page["made"] == [{"product": "Cherry jowl", "batch": code}]
    done = [job["words"] for job in page["jobs"] if job["state"] == "done"]
    assert (len(done), done[0].startswith("Buy "), page["is_under_way"]) == (1, True, True)
    assert all(job["by_batch"] and job["done_at"] for job in page["jobs"] if job["state"] == "done")
    kitchen.recorded(code, TRIM)
    assert put_in(kitchen, code, on_desk("A"))[0] == 201
    jobs = kitchen.get(f"/meals/{NAME}")[1]["jobs"]
    assert [job["words"] for job in jobs if job["state"] == "done"][1:] == ["Trim", "Into the cure"]
    # a later step recorded: what comes before it is behind it too
    kitchen.recorded(code, weigh("smoke", A="4 lb", B="2.5 lb"))
    page = kitchen.get(f"/meals/{NAME}")[1]
    assert [job["state"] for job in page["jobs"]] == ["done"] * 5 + ["open"] * 2
    # it comes to the plan, when its own jobs say
    (one,) = page["plan"]["coming"]
    assert (one["code"], one["counts"]) == (code, True)
    assert page["on_time"].startswith(
        f"Ready {timezone.localtime(datetime.fromisoformat(one['ready'])):%a, %b %-d, %-I:%M %p}"
    )
    uid = page["jobs"][0]["uid"]
    status, problem = kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "open"})
    assert (status, problem["code"]) == (409, "already")
    assert "Its batch shows" in problem["detail"]
    assert kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "done"})[1]["code"] == "already"
    # what was done first counts: a second smoke changes nothing
    first = page["jobs"][4]["done_at"]
    kitchen.recorded(code, weigh("smoke", A="3.9 lb", B="2.4 lb"))
    assert kitchen.get(f"/meals/{NAME}")[1]["jobs"][4]["done_at"] == first
    # none after all: then only what was checked off counts
    page = kitchen.call("POST", f"/meals/{NAME}/made", {"product": "Cherry jowl", "batch": ""})[1]
    assert [job["state"] for job in page["jobs"]] == ["open"] * 7
    assert page["is_under_way"] is False


def test_a_batch_is_named_for_one_plan_and_of_ones_own_kitchen(kitchen, other):
    saved(kitchen)
    code = kitchen.started()
    named = {"product": "Cherry jowl", "batch": code}
    status, problem = kitchen.call("POST", f"/meals/{NAME}/made", named)
    assert (status, [one["path"] for one in problem["fields"]]) == (422, ["product"])
    listed(kitchen)
    theirs = [other.started() for _ in range(3)][-1]
    assert kitchen.get(f"/meals/{NAME}")[1]["batches"] == [code]
    for wrong in ("X-99", theirs if theirs != code else "X-98"):
        body = {**named, "batch": wrong}
        assert kitchen.call("POST", f"/meals/{NAME}/made", body)[1]["fields"][0]["code"] == "unknown"
    assert kitchen.call("POST", f"/meals/{NAME}/made", named)[0] == 201
    saved(kitchen, name="Sunday", day=in_days(40))
    listed(kitchen, "Sunday")
    problem = kitchen.call("POST", "/meals/Sunday/made", named)[1]
    assert (problem["fields"][0]["code"], NAME in problem["fields"][0]["message"]) == ("taken", True)
    # what is made for that plan does not come to another one
    assert worked(kitchen, name="Sunday", day=in_days(40))["coming"] == []
    assert other.call("POST", f"/meals/{NAME}/made", named)[0] == 404
    assert MealMade.objects.count() == 1


def test_a_late_meal_says_what_can_still_be_done(kitchen):
    noted(kitchen, sort="shop_pack", name="shop jowl", price="9.00", size="1 lb")
    noted(kitchen, sort="shop_pack", name="dear jowl", price="19.00", size="1 lb")
    saved(kitchen, day=in_days(12))
    listed(kitchen)
    page = read_meal_page(row_of(kitchen), NAME, days_on(7))
    words = [one.words for one in page.rescues]
    assert page.is_late
    assert [said.startswith("Move the meal to ") for said in words] == [True, True, False]
    assert {job.is_late for job in page.jobs[:3]} == {True}
    # 7.5 lb of rolls, nothing of it in the larder: all of it from the cheapest there is
    assert words[-1] == "Fetch 7.50 lb of shop jowl ready-made"
    assert page.rescues[-1].more == "67.50"
    assert not [said for said in words if said.startswith("Serve")]
    moved = page.rescues[0].input
    assert moved is not None
    assert moved.day > page.input.day
    # somewhat late, a long day makes up for it
    late = next(
        found
        for hours in range(1, 24 * 8)
        if (found := read_meal_page(row_of(kitchen), NAME, days_on(0) + timedelta(hours=hours))).is_late
    )
    assert late.rescues[0].words.startswith("Work from 05:00 to 23:00: ready ")
    on_time = read_meal_page(row_of(kitchen), NAME, timezone.now())
    assert not any(job.is_late for job in on_time.jobs)
    assert (on_time.is_late, on_time.rescues) == (False, [])


def test_what_is_in_the_larder_can_be_served_of_a_late_meal(kitchen):
    under_way(kitchen)
    code = worked(kitchen)["coming"][0]["code"]
    saved(kitchen, day=in_days(12), leave_out=[code])
    listed(kitchen)
    page = read_meal_page(row_of(kitchen), NAME, days_on(8))
    serve = next(one for one in page.rescues if one.words.startswith("Serve "))
    # one pound is 5⅓ times three ounces
    assert serve.words == "Serve what there will be without it: 5 Harbor roll"
    assert serve.input is not None
    assert serve.input.wants[0].amount == "5"
    assert not [one for one in page.rescues if one.words.startswith("Fetch ")]


def test_shopping_is_by_source_and_has_the_meat(kitchen):
    noted(kitchen, sort="meat", name="jowl, skin on", price="3.00/lb", source="Tidewell")
    noted(kitchen, sort="ingredient", name="salt", price="1.20/kg", source="Quay stores")
    rows = worked(kitchen, meat="jowl, skin on", price="")["shopping"]
    found = {row["what"]: row for row in rows}
    assert found["jowl, skin on"]["source"] == "Tidewell"
    assert (found["salt"]["source"], found["pellets"]["source"]) == ("Quay stores", "")
    assert (found["jowl, skin on"]["needed"], found["pellets"]["here"]) == ("", "not counted")
    # dear things first
    costs = [float(row["cost"] or 0) for row in rows]
    assert costs == sorted(costs, reverse=True)
    bought = {"what": "pellets", "sort": "bought", "amount": "4 lb"}
    assert kitchen.call("POST", "/cupboard", bought)[0] == 201
    row = {row["what"]: row for row in worked(kitchen)["shopping"]}["pellets"]
    assert (row["needed"], row["here"], row["buy"], row["cost"]) == ("6.00 lb", "4.00 lb", "2.00 lb", "1.80")


def finished(api, minutes):
    """A batch whose trim took so many minutes, finished."""
    code = api.started()
    api.recorded(code, {**TRIM, "minutes": minutes})
    api.recorded(code, {"act": "finish"})
    return code


def test_minutes_are_this_kitchens_own_once_three_batches_say_them(kitchen):
    def trim():
        return next(job for job in worked(kitchen)["jobs"] if job["kind"] == "trim")

    start = trim()
    assert start["basis"] == ""
    for _ in range(2):
        finished(kitchen, "60")
    assert trim() == start
    finished(kitchen, "60")
    own = trim()
    assert own["basis"] == "minutes of 3 own batches"
    assert own["minutes"] > start["minutes"]
    # what they say is for their own weight: 20 minutes and one a pound
    assert own["minutes"] == pytest.approx(start["minutes"] * 60 / (20 + 10), abs=1.5)
    assert worked(kitchen)["work_minutes"] > start["minutes"]


def burn(api, hours, count, stages=1, pull_at=None, kind="smoke"):
    """So many fires that took these hours; of a hot smoke, stepped where it has three stages."""
    row, user = row_of(api), User.objects.first()
    for at in range(count):
        stamp = {"kitchen": row, "recorded_at": timezone.now(), "recorded_by": user, "fingerprint": "x"}
        begun = days_on(-at - 1)
        fire = Fire.objects.create(
            name="Smoke",
            meat="pork",
            stages=[{"kind": kind}] * stages,
            pull_at=pull_at,
            begun_at=begun,
            key=f"00000000-0000-400{stages}-8000-{at:012d}",
            **stamp,
        )
        FireEvent.objects.create(
            fire=fire,
            kind="rest",
            at=begun + timedelta(hours=hours[at]),
            key=f"00000000-0000-400{stages}-8001-{at:012d}",
            **stamp,
        )


def test_hours_in_the_smoke_and_their_reserve_are_of_own_fires(kitchen):
    """Five fires of 4 to 8 hours: half take 6, eight in ten no more than 7.2."""

    def smoke():
        return next(job for job in worked(kitchen)["jobs"] if job["kind"] == "smoke")

    assert (smoke()["reserve_hours"], smoke()["basis"]) == (0, "")
    burn(kitchen, [9] * 5, 5, stages=3)
    burn(kitchen, [20] * 5, 5, stages=2, kind="cold_smoke")
    assert smoke()["basis"] == ""
    burn(kitchen, [4, 5, 6, 7, 8], 5)
    assert (smoke()["reserve_hours"], smoke()["basis"]) == (1.2, "hours of 5 own fires")


def test_a_long_cook_keeps_four_hours_free_until_own_fires_say_better(two):
    """Fires to 200 °F of 10 to 14 hours: 12, and 1.2 more in eight of ten; one to 165 °F is none of them."""

    def cook():
        shoulder = {"way": "Pulled", "cut": "pork shoulder, bone in", "pack": ""}
        wants = [{"sort": "product", "name": "Pulled shoulder", "amount": "4 lb"}]
        (job,) = (job for job in worked(two, wants=wants, **shoulder)["jobs"] if job["kind"] == "cook")
        return job["reserve_hours"], job["basis"]

    assert cook() == (4, "")
    burn(two, [30] * 5, 5, stages=2, pull_at=165)
    assert cook() == (4, "")
    burn(two, [10, 11, 12, 13, 14], 5, pull_at=200)
    assert cook() == (1.2, "hours of 5 own fires")


def test_a_plan_saved_when_it_could_make_one_thing_alone_is_read(kitchen):
    saved(kitchen)
    row = Meal.objects.get()
    (make,) = row.input["makes"]
    for name in ("product", "days_early", "places"):
        make.pop(name)
    before = {name: value for name, value in row.input.items() if name != "makes"} | make | {"name": "Before"}
    kept_as_it_was("Before", before)
    old, new = (kitchen.get(f"/meals/{name}")[1]["plan"] for name in ("Before", NAME))
    assert old["buys"] == new["buys"]
    assert old["problems"] == []


def test_dishes_of_a_plan_share_what_is_made_for_both(two):
    snack = {**DISH, "name": "Snack"}
    assert two.call("POST", "/dishes", snack)[0] == 201
    wants = [{"sort": "dish", "name": name, "amount": "20"} for name in ("Harbor roll", "Snack")]
    body = worked(two, wants=wants)
    assert [buy["products"] for buy in body["buys"]] == [["Cherry jowl"]]
    assert body["buys"][0]["buy"] == worked(two)["buys"][0]["buy"]


def test_the_case_asked_for_a_plan_says_what_the_plan_says(kitchen):
    body = worked(kitchen, sure="80")
    (buy,) = body["buys"]
    offer = {"id": "a", "cut": "jowl", "skin": "on", "price": "3.00", "pack_weight": "8 lb"}
    case = {"way": WAY["name"], "sliced": f"{body['needed'][0]['short']['lb']} lb", "sure": "80"}
    by_weight = {**offer, "pack_weight": "", "id": "b"}
    found, loose = again(kitchen, {**case, "offers": [offer, by_weight]}, "/case")["offers"]
    assert loose["amount"]["weight"] == worked(kitchen, sure="80", pack="")["buys"][0]["buy"]
    assert (found["amount"]["packs"], found["amount"]["weight"]) == (buy["packs"], buy["buy"])
    assert (found["amount"]["cost"], found["amount"]["left"]) == (buy["cost"], buy["over"])


def test_when_the_cure_runs_long_the_plan_says_what_that_does_to_the_meal(kitchen):
    saved(kitchen, day=in_days(30))
    listed(kitchen)
    code = kitchen.started()
    assert kitchen.call("POST", f"/meals/{NAME}/made", {"product": "Cherry jowl", "batch": code})[0] == 201
    kitchen.recorded(code, TRIM)
    assert put_in(kitchen, code, on_desk("A"))[0] == 201
    before = kitchen.get(f"/meals/{NAME}")[1]
    assert before["is_late"] is False
    out = Batch.objects.get(code=code).planned_tasks.get(kind="out")
    smoke = Batch.objects.get(code=code).planned_tasks.get(kind="smoke")
    for task in (out, smoke):
        moved = {"sort": "moved", "due_at": days_on(29).isoformat()}
        assert kitchen.call("POST", f"/tasks/{task.uid}/news", moved)[0] in (200, 201)
    after = kitchen.get(f"/meals/{NAME}")[1]
    assert after["is_late"] is True
    assert after["rescues"]
    ready = datetime.fromisoformat(after["plan"]["coming"][0]["ready"])
    assert ready > days_on(29)
    # one belief: what comes to the plan is ready when the plan is
    assert f"{timezone.localtime(ready):%a, %b %-d, %-I:%M %p}" in after["on_time"]


def test_the_places_of_what_its_batch_shows_are_held_once(kitchen):
    saved(kitchen)
    listed(kitchen)
    code = kitchen.started()

    def stays():
        lanes = kitchen.get("/lanes?days=40")[1]["lanes"]
        return [bar["kind"] for lane in lanes for bar in lane["bars"] if bar["name"] == NAME]

    whole = stays()
    assert whole.count("smoke") == 1
    assert kitchen.call("POST", f"/meals/{NAME}/made", {"product": "Cherry jowl", "batch": code})[0] == 201
    kitchen.recorded(code, TRIM)
    # nobody said yet when the batch is cured and smoked: the plan still holds its places
    assert stays() == whole
    assert put_in(kitchen, code, on_desk("A"))[0] == 201
    # now its tasks do, but for the chill that comes after them
    assert stays() == ["wait"]


def test_spans_are_said_in_minutes_hours_and_days():
    spans = [timedelta(minutes=count) for count in (1, 27, 59, 60, 150, 47 * 60, 48 * 60, 100 * 60)]
    assert [say_hours(span) for span in spans] == [
        *("1 minute", "27 minutes", "59 minutes", "1 hour", "2 hours", "47 hours", "2 days", "4 days"),
    ]


def local(day, hour, minute):
    return datetime(2026, 12, day, hour, minute, tzinfo=timezone.get_current_timezone())


def test_a_meal_is_moved_to_the_quarter_hour_and_to_its_own_hour_on_the_days_after():
    meal, soonest = local(5, 19, 0), local(7, 19, 19)
    times = [timezone.localtime(one) for one in list_meal_times(meal, soonest)]
    assert [f"{one:%d %H:%M}" for one in times[:3]] == ["07 19:30", "08 19:00", "09 19:00"]
    times = [timezone.localtime(one) for one in list_meal_times(meal, local(7, 18, 45))]
    assert [f"{one:%d %H:%M}" for one in times[:3]] == ["07 18:45", "07 19:00", "08 19:00"]


def test_a_smoke_on_the_list_is_in_the_way_for_half_a_day(kitchen):
    code = kitchen.started()
    kitchen.recorded(code, TRIM)
    assert put_in(kitchen, code, on_desk("A"))[0] == 201
    smoke = timezone.localdate(Batch.objects.get(code=code).planned_tasks.get(kind="smoke").due_at)
    fits = {"wants": [{"sort": "dish", "name": "Harbor roll", "amount": "20"}], "pack": "", "piece": "2 lb"}
    clashes = {}
    for days in range(9, 40):
        body = worked(kitchen, **fits, day=in_days(days))
        mine = next(job["starts"] for job in body["jobs"] if job["kind"] == "smoke")
        words = [clash["words"] for clash in body["clashes"] if clash["store"] == "Smoker"]
        clashes[timezone.localdate(datetime.fromisoformat(mine))] = words
    # four pieces in a smoker of four, and one more on that day alone
    assert [day for day, words in clashes.items() if words] == [smoke]
    assert f"beside {code}" in clashes[smoke][0]


def test_big_pieces_take_several_places(kitchen):
    """Two pieces of three places each: six fill the fridge, and are too many for the smoker of four."""
    more = {"wants": [{"sort": "dish", "name": "Harbor roll", "amount": "20"}], "pack": "", "piece": "5 lb"}
    assert worked(kitchen, **more)["clashes"] == []
    (clash,) = worked(kitchen, **more, places=3)["clashes"]
    assert clash["words"].startswith("Smoker: 2 places too few")
    saved(kitchen, **more, places=3)
    listed(kitchen)
    cure = kitchen.get("/lanes?days=40")[1]["lanes"][0]["bars"][0]
    assert (cure["kind"], cure["pieces"]) == ("cure", 6)


def test_jobs_of_a_meal_that_is_over_are_gone(kitchen):
    saved(kitchen, day=in_days(12))
    saved(kitchen, name="Weekly", day=in_days(12), is_weekly=True)
    for name in (NAME, "Weekly"):
        listed(kitchen, name)
    row = row_of(kitchen)

    def live(days):
        return {name: bool(read_meal_page(row, name, days_on(days)).jobs) for name in (NAME, "Weekly")}

    assert live(12) == {NAME: True, "Weekly": True}
    # the next week's is planned anew, what was late of a single one stays for a week
    assert live(14) == {NAME: True, "Weekly": False}
    assert live(18) == {NAME: True, "Weekly": False}
    assert live(20) == {NAME: False, "Weekly": False}
    assert {job.meal for job in read_meals(row, days_on(14)).jobs} == {NAME}


def test_what_is_too_big_by_itself_is_tried_at_no_other_time(kitchen):
    wants = [{"sort": "dish", "name": "Harbor roll", "amount": "55"}]
    words = [way["words"] for way in worked(kitchen, wants=wants, pack="")["ways_out"]]
    assert words[0] == "Smoke it in two loads"
    assert not [said for said in words if "earlier" in said or said.startswith("Move")]
