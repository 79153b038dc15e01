"""Meal plans: from what is to be served back to what to buy, when to begin, and whether it fits."""

import uuid
from datetime import datetime, timedelta

import pytest
from django.db import OperationalError, connection, transaction
from django.utils import timezone
from icalendar import Calendar

from dolmetsch.server.batches.models import Entry
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals.models import Meal
from dolmetsch.server.meals.queries import read_meal_page
from tests.server.conftest import TRIM, make_kitchen
from tests.server.test_cures import on_desk, put_in
from tests.server.test_prices import noted

pytestmark = pytest.mark.django_db
WAY = {
    "name": "Dry cure, cherry smoke",
    "steps": [
        {"method": "trim", "batch_minutes": "20", "pound_minutes": "1"},
        {
            "method": "dry_cure",
            "batch_minutes": "30",
            "days": 7,
            "used": [{"what": "salt", "group": "cure", "amount": "2.5 %", "price": "1.20/kg"}],
        },
        {"method": "rest", "batch_minutes": "15", "days": 1},
        {
            "method": "hot_smoke",
            "batch_minutes": "30",
            "used": [
                {"what": "pellets", "group": "fuel", "amount": "6 lb", "per": "batch", "price": "0.90/lb"}
            ],
        },
        {"method": "chill", "batch_minutes": "10", "days": 1},
        {"method": "slice", "pound_minutes": "4"},
    ],
}
DISH = {
    "name": "Harbor roll",
    "price": "9.50",
    "parts": [{"sort": "larder", "name": "Cherry jowl", "amount": "3 oz"}],
}


def in_days(days):
    return (timezone.localdate() + timedelta(days=days)).isoformat()


@pytest.fixture
def kitchen(api):
    """A fridge of six places, a smoker of four, a method, and a roll with three ounces of jowl."""
    for name, sort, levels in (("Fridge 1", "fridge", 3), ("Smoker", "smoker", 2), ("Freezer", "freezer", 3)):
        api.call("POST", "/stores", {"name": name, "sort": sort, "levels": levels, "slots": 2})
    assert api.call("POST", "/ways", WAY)[0] == 201
    assert api.call("POST", "/dishes", DISH)[0] == 201
    return api


MAKE = {
    "way": WAY["name"],
    "cut": "jowl, skin on",
    "price": "3.00/lb",
    "pack": "8 lb",
    "piece": "4 lb",
}
OF_MAKE = {*MAKE, "meat", "loads", "places", "product"}


def plan(**more):
    """A plan that makes one thing; what is of its make is given beside the rest."""
    make = {**MAKE, **{name: more.pop(name) for name in OF_MAKE & more.keys()}}
    return {
        "name": "Saturday's forty",
        "day": in_days(20),
        "at": "19:00",
        "wants": [{"sort": "dish", "name": "Harbor roll", "amount": "40"}],
        "makes": [make],
        **more,
    }


def worked(api, **more):
    status, body = api.call("POST", "/previews/meals", plan(**more))
    assert status == 200, body
    return body


def again(api, given, path="/previews/meals"):
    """What was offered, asked for."""
    status, body = api.call("POST", path, given)
    assert status == 200, body
    return body


def paths(body):
    return {one["path"]: one["code"] for one in body["problems"]}


def test_forty_rolls_back_to_what_to_buy(kitchen):
    """40 × 3 oz are 7.5 lb sliced; nine times in ten enough, in whole packs of 8 lb."""
    body = worked(kitchen)
    assert body["problems"] == []
    (needed,) = body["needed"]
    assert (needed["wanted"]["lb"], needed["here"]["lb"], needed["short"]["lb"]) == ("7.50", "0.000", "7.50")
    (buy,) = body["buys"]
    even, sure = float(buy["even"]["lb"]), float(buy["sure"]["lb"])
    assert even < sure <= float(buy["buy"]["lb"]) == 8 * buy["packs"]
    assert float(buy["chance"]) >= 90
    assert buy["cost"] == f"{3 * 8 * buy['packs']:.2f}"
    assert (buy["is_too_late"], buy["by"]) == (False, body["latest_start"][:10])
    (plate,) = body["plates"]
    assert 0 < float(plate["low"]) < float(plate["high"])
    assert float(plate["food_low"]) == pytest.approx(float(plate["low"]) / 9.5 * 100, abs=0.12)
    assert float(plate["leave_high"]) == pytest.approx((9.5 - float(plate["low"])) * 40, abs=0.3)


def test_jobs_are_counted_back_inside_the_kitchens_day(kitchen):
    body = worked(kitchen)
    starts = [datetime.fromisoformat(job["starts"]) for job in body["jobs"]]
    assert starts == sorted(starts)
    assert [job["kind"] for job in body["jobs"]] == ["trim", "cure", "rest", "smoke", "chill", "slice"]
    assert all(7 <= timezone.localtime(start).hour < 20 for start in starts)
    assert body["jobs"][-1]["ends"] == body["meal_at"]
    assert {job["kind"]: job["store"] for job in body["jobs"]}["smoke"] == "Smoker"
    assert body["later"].startswith("A day later it is ready ")
    mine = [bar for lane in body["lanes"] for bar in lane["bars"] if bar["name"] == "Saturday's forty"]
    assert {bar["kind"] for bar in mine} == {"cure", "dry", "smoke", "wait"}


def test_a_reserve_begins_earlier(kitchen):
    first, second = (worked(kitchen, reserve_hours=hours)["latest_start"] for hours in ("0", "48"))
    assert datetime.fromisoformat(first) - datetime.fromisoformat(second) >= timedelta(hours=24)


def test_what_the_larder_has_is_taken_off(kitchen):
    code = kitchen.started()
    kitchen.recorded(code, {**TRIM, "kind": "slice", "pieces": [{"weight": "9 lb"}], "cut_off": []})
    mark = kitchen.get(f"/batches/{code}")[1]["pieces"][0]["mark"]
    pack = {"piece": mark, "product": "Cherry jowl", "form": "whole", "weight": "2 lb", "store": "Freezer"}
    chilled = {**pack, "weight": "1 lb", "store": "Fridge 1"}
    seen = kitchen.get(f"/batches/{code}")[1]["seen"]
    body = {"packs": [pack, pack, chilled], "seen": seen}
    assert kitchen.call("POST", f"/batches/{code}/packs", body)[0] == 201
    # what lies chilled is past its date by then; tomorrow it counts
    assert worked(kitchen, day=in_days(1))["needed"][0]["here"]["lb"] == "5.00"
    (needed,) = worked(kitchen)["needed"]
    assert (needed["here"]["lb"], needed["short"]["lb"]) == ("4.00", "3.50")
    few = worked(kitchen, wants=[{"sort": "product", "name": "Cherry jowl", "amount": "3 lb"}])
    assert (few["buys"], few["jobs"], few["needed"][0]["short"]["lb"]) == ([], [], "0.000")


def test_a_day_that_cannot_be_met_says_which_can(kitchen):
    body = worked(kitchen, day=in_days(2))
    (buy,) = body["buys"]
    assert (buy["is_too_late"], buy["by"], body["is_too_late"]) == (True, None, True)
    assert body["later"].startswith("It is too late for that day. Begun now it is ready ")
    # the days that can be met are offered, and can be
    assert [way["words"].startswith("Move the meal to ") for way in body["ways_out"]]
    for way in body["ways_out"]:
        moved = again(kitchen, way["input"])
        assert (moved["is_too_late"], moved["clashes"]) == (False, [])
        assert moved["meal_at"] > body["meal_at"]


@pytest.mark.parametrize(
    ("more", "path", "code"),
    [
        ({"day": in_days(-1)}, "day", "odd_time"),
        ({"day": in_days(500)}, "day", "odd_time"),
        ({"wants": [{"sort": "dish", "name": "Harbor roll", "amount": "0"}]}, "wants[0].amount", "zero"),
        ({"wants": [{"sort": "dish", "name": "Nothing", "amount": "4"}]}, "wants[0].name", "unknown"),
        (
            {"wants": [{"sort": "dish", "name": "Harbor roll", "amount": "10001"}]},
            "wants[0].amount",
            "too_large",
        ),
        ({"way": ""}, "makes[0].way", "missing"),
        ({"way": "By magic"}, "makes[0].way", "unknown"),
        ({"meat": "Unicorn"}, "makes[0].meat", "unknown"),
        ({"cut": ""}, "makes[0].cut", "missing"),
        ({"hours_a_day": "25"}, "hours_a_day", "too_large"),
        ({"hours_a_day": "0"}, "hours_a_day", "zero"),
        ({"sure": "100"}, "sure", "too_large"),
    ],
)
def test_what_cannot_be_is_said_at_its_place_and_not_saved(kitchen, more, path, code):
    assert paths(worked(kitchen, **more)) == {path: code}
    status, problem = kitchen.call("POST", "/meals", plan(**more))
    assert (status, [one["path"] for one in problem["fields"]]) == (422, [path])
    assert not Meal.objects.exists()


def test_a_home_fridge_is_too_small_for_it_and_ways_out_are_offered(kitchen):
    """Six places in the fridge, four in the smoker: 80 rolls are eight pieces."""
    body = worked(kitchen, wants=[{"sort": "dish", "name": "Harbor roll", "amount": "80"}])
    said = [clash["words"] for clash in body["clashes"]]
    assert any(words.startswith("Fridge 1: ") and "too few" in words for words in said)
    assert any(words.startswith("Smoker: ") for words in said)
    (less,) = [way for way in body["ways_out"] if way["words"].startswith("Make less: ")]
    # the most that fits: a plate more of it does not
    wants = less["input"]["wants"]
    more = [{**wants[0], "amount": str(int(wants[0]["amount"]) + 1)}]
    assert again(kitchen, {**less["input"], "wants": more})["clashes"]
    for way in body["ways_out"]:
        assert again(kitchen, way["input"])["clashes"] == []


def test_two_loads_ease_the_smoker_alone(kitchen):
    """Five pieces fit into the fridge of six, but not into the smoker of four."""
    more = {"wants": [{"sort": "dish", "name": "Harbor roll", "amount": "55"}], "pack": ""}
    body = worked(kitchen, **more)
    assert [clash["store"] for clash in body["clashes"]] == ["Smoker"]
    assert "Smoke it in two loads" in [way["words"] for way in body["ways_out"]]
    smoke = {job["kind"]: job for job in worked(kitchen, **more, loads=2)["jobs"]}["smoke"]
    once = {job["kind"]: job for job in body["jobs"]}["smoke"]
    assert smoke["minutes"] == 2 * once["minutes"]


def test_what_lies_there_already_is_in_the_way(kitchen):
    code = kitchen.started()
    kitchen.recorded(code, TRIM)
    place = {"store": "Fridge 1", "level": 1, "slot": 1}
    fits = {
        "wants": [{"sort": "dish", "name": "Harbor roll", "amount": "55"}],
        "piece": "3.2 lb",
        "pack": "",
        "loads": 2,
    }
    assert worked(kitchen, **fits)["clashes"] == []
    assert kitchen.call("POST", f"/batches/{code}/pieces/A/facts", {"place": place})[0] == 201
    clashes = worked(kitchen, **fits)["clashes"]
    assert clashes
    assert all(f"beside {code}" in clash["words"] for clash in clashes)


def test_more_work_than_hands_is_said(kitchen):
    body = worked(kitchen, hours_a_day="0.2")
    assert any(clash["words"].startswith("Hands: ") for clash in body["clashes"])
    assert worked(kitchen, hours_a_day="12")["clashes"] == []


def test_without_a_price_the_cost_is_not_known(kitchen):
    body = worked(kitchen, price="")
    assert (body["cost"], body["buys"][0]["cost"], body["plates"][0]["low"]) == (None, None, None)
    assert "no price" in body["missing"][0]


def test_a_cure_of_unknown_length_is_said(kitchen):
    way = {**WAY, "name": "Hasty", "steps": [{**step, "days": 0} for step in WAY["steps"]]}
    assert kitchen.call("POST", "/ways", way)[0] == 201
    missing = worked(kitchen, way="Hasty")["missing"]
    assert missing == ["How many days “dry cures” take is not set: set it with the method."]
    assert worked(kitchen)["missing"] == []


def test_what_stays_over_is_said_in_plates(kitchen):
    buy = worked(kitchen)["buys"][0]
    plates = int(float(buy["over"]["lb"]) / (3 / 16))
    assert buy["over_plates"] == f"{plates} more plates of Harbor roll"
    product = [{"sort": "product", "name": "Cherry jowl", "amount": "3 lb"}]
    assert worked(kitchen, wants=product)["buys"][0]["over_plates"] == ""


def test_no_smoker_on_the_map_is_said(kitchen):
    kitchen.call("POST", "/stores", {"name": "Smoker", "sort": "smoker", "put_away": True})
    assert any("no smoker on the map" in said for said in worked(kitchen)["missing"])


def test_the_shopping_list_reaches_into_the_dishes_of_a_dish(kitchen):
    """Sixty slices of a loaf of twenty: three loaves of 600 g flour at 2.00 a kilogram."""
    noted(kitchen, sort="ingredient", name="flour", price="2.00/kg")
    loaf = {"name": "Loaf", "plates": "20", "parts": [{"sort": "price", "name": "flour", "amount": "600 g"}]}
    assert kitchen.call("POST", "/dishes", loaf)[0] == 201
    slice_of = {"sort": "dish", "name": "Loaf", "amount": "2"}
    assert kitchen.call("POST", "/dishes", {**DISH, "parts": [*DISH["parts"], slice_of]})[0] == 201
    body = worked(kitchen, wants=[{"sort": "dish", "name": "Harbor roll", "amount": "30"}])
    row = next(row for row in body["shopping"] if row["what"] == "flour")
    assert (row["buy"], row["cost"]) == ("3.97 lb", "3.60")


def saved(api, **more):
    status, body = api.call("POST", "/meals", plan(**more))
    assert status == 201, body
    return body


def kept_as_it_was(name, typed):
    """A plan in the database that could not be saved so today; a row like the first one's."""
    row = Meal.objects.order_by("id").first()
    stamp = {"recorded_at": row.recorded_at, "recorded_by": row.recorded_by, "fingerprint": "x"}
    return Meal.objects.create(
        kitchen=row.kitchen, name=name, version=1, input=typed, key=uuid.uuid4(), **stamp
    )


def test_a_plan_is_saved_in_versions_copied_and_dropped(kitchen):
    saved(kitchen)
    body = saved(kitchen, at="18:00")
    assert [(row["version"], row["at"], row["words"]) for row in body["meals"]] == [
        (2, "18:00", "40 Harbor roll")
    ]
    assert len(saved(kitchen, name="Sunday")["meals"]) == 2
    assert [row["name"] for row in saved(kitchen, put_away=True)["meals"]] == ["Sunday"]
    assert kitchen.get("/meals/Saturday's forty")[0] == 404


def test_every_week_it_is_planned_for_the_next_of_its_days(kitchen):
    saved(kitchen, is_weekly=True, day=in_days(1))
    row = Meal.objects.get()
    kept_as_it_was("Past", {**row.input, "day": in_days(-8)})
    kept_as_it_was("Just now", {**row.input, "day": in_days(0)})
    days = {one["name"]: (one["day"], one["is_over"]) for one in kitchen.get("/meals")[1]["meals"]}
    assert days["Past"] == (in_days(6), False)
    assert days["Just now"] == (in_days(0), False)


def listed(api, name="Saturday's forty"):
    status, body = api.call("POST", f"/meals/{name}/listed")
    assert status == 201, body
    return body


def test_on_the_list_its_jobs_are_ticked_off_and_say_what_that_does_to_the_meal(kitchen):
    saved(kitchen)
    body = listed(kitchen)
    bought = f"Buy {body['plan']['buys'][0]['buy']['lb']} lb of jowl, skin on"
    assert [job["words"] for job in body["jobs"]][:3] == [bought, "Trim", "Into the cure"]
    begins = datetime.fromisoformat(body["jobs"][0]["due_at"])
    said = f"Not started. First job: {timezone.localtime(begins):%a, %b %-d, %-I:%M %p}."
    assert (body["is_late"], body["on_time"]) == (False, said)
    again = listed(kitchen)
    assert len(again["jobs"]) == len(body["jobs"])
    uid = again["jobs"][0]["uid"]
    status, after = kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "done"})
    assert (status, [job["state"] for job in after["jobs"]][:2]) == (201, ["done", "open"])
    assert kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "done"})[1]["code"] == "already"
    assert kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "open"})[0] == 201


def test_a_listed_plan_says_what_has_changed_since(kitchen):
    """More is asked for, other meat, or none any more: the list is compared with what is needed now."""
    name = "Saturday's forty"

    def changes():
        return kitchen.get(f"/meals/{name}")[1]["changes"]

    saved(kitchen)
    (buy,) = {one["words"] for one in listed(kitchen)["jobs"] if one["words"].startswith("Buy")}
    assert changes() == []
    saved(kitchen, wants=[{"sort": "dish", "name": "Harbor roll", "amount": "80"}])
    (said,) = changes()
    now = kitchen.get(f"/meals/{name}")[1]["plan"]["buys"][0]["buy"]["lb"]
    assert said == f"Buy {now} lb of jowl, skin on; the list says “{buy}”."
    # what was bought of it counts, and more is needed than that
    uid = kitchen.get(f"/meals/{name}")[1]["jobs"][0]["uid"]
    assert kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "done"})[0] == 201
    assert changes()[0].startswith("More is needed than was bought: Buy ")
    assert kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "open"})[0] == 201
    listed(kitchen)
    assert changes() == []
    # other things are wanted of it now
    saved(kitchen, wants=[{"sort": "product", "name": "Lantern roll", "amount": "4 lb"}])
    new, gone = changes()
    assert new.endswith("that is not on the list.")
    assert gone.startswith("Nothing of Cherry jowl is needed any more; the list says “Buy ")


def test_a_listed_plan_holds_its_places_until_its_jobs_are_done(kitchen):
    fits = {"wants": [{"sort": "dish", "name": "Harbor roll", "amount": "20"}], "pack": "", "piece": "2 lb"}
    saved(kitchen, **fits)
    jobs = listed(kitchen)["jobs"]
    fridge = kitchen.get("/lanes?days=40")[1]["lanes"][0]["bars"]
    assert [(bar["name"], bar["kind"], bar["pieces"]) for bar in fridge] == [
        ("Saturday's forty", kind, 4) for kind in ("cure", "dry", "wait")
    ]
    # beside itself it fits, a second one of four pieces beside it does not
    assert worked(kitchen, **fits)["clashes"] == []
    clashes = worked(kitchen, **fits, name="Sunday")["clashes"]
    assert clashes
    assert all("beside Saturday's forty" in clash["words"] for clash in clashes)
    for job in jobs:
        kitchen.call("POST", f"/meal-jobs/{job['uid']}/news", {"sort": "done"})
    assert worked(kitchen, **fits, name="Sunday")["clashes"] == []


def test_what_is_not_done_in_time_makes_the_meal_late(kitchen):
    saved(kitchen, day=in_days(12))
    jobs = listed(kitchen)["jobs"]
    row = Kitchen.objects.get(slug=kitchen.slug)
    page = read_meal_page(row, "Saturday's forty", timezone.now() + timedelta(days=6))
    assert (page.is_late, "after the meal" in page.on_time) == (True, True)
    for job in jobs[:3]:
        kitchen.call("POST", f"/meal-jobs/{job['uid']}/news", {"sort": "done"})
    # trimmed and in the cure today: its days are behind it by then
    page = read_meal_page(row, "Saturday's forty", timezone.now() + timedelta(days=6))
    assert (page.is_late, "before the meal" in page.on_time) == (False, True)


def test_the_calendar_is_read_back_with_its_alarms(kitchen):
    saved(kitchen)
    jobs = listed(kitchen)["jobs"]
    text = kitchen.client.get(f"/api/kitchens/{kitchen.slug}/meals/Saturday's forty/plan.ics").content
    events = Calendar.from_ical(text).walk("VEVENT")
    assert [str(event["summary"]).split(":")[0] for event in events] == [job["words"] for job in jobs]
    assert all(event.walk("VALARM") for event in events)


def test_nothing_is_put_on_the_list_where_the_larder_has_enough(kitchen):
    saved(kitchen)
    kitchen.call("POST", "/dishes", {**DISH, "parts": [{"sort": "own", "name": "bun", "cost": "1"}]})
    assert kitchen.call("POST", "/meals/Saturday's forty/listed")[1]["code"] == "nothing_to_do"


def test_another_kitchen_sees_and_touches_none_of_it(kitchen, other):
    saved(kitchen)
    uid = listed(kitchen)["jobs"][0]["uid"]
    assert other.get("/meals")[1]["meals"] == other.get("/meals")[1]["jobs"] == []
    assert other.get("/meals/Saturday's forty")[0] == 404
    assert other.call("POST", "/meals/Saturday's forty/listed")[0] == 404
    assert other.call("POST", f"/meal-jobs/{uid}/news", {"sort": "done"})[0] == 404
    assert paths(worked(other))["makes[0].way"] == "unknown"


def test_a_kitchen_of_kilograms_plans_in_them():
    metric = make_kitchen("metric", weight_unit="kg", currency="EUR")
    assert metric.call("POST", "/ways", WAY)[0] == 201
    wants = [{"sort": "product", "name": "Bauch", "amount": "3"}]
    body = worked(metric, wants=wants, price="8.00", pack="4", piece="2")
    assert (body["needed"][0]["wanted"]["kg"], body["buys"][0]["buy"]["kg"]) == (
        "3.000",
        f"{4 * body['buys'][0]['packs']}.000",
    )
    assert body["buys"][0]["cost"] == f"{8 * 4 * body['buys'][0]['packs']:.2f}"


@pytest.mark.parametrize("table", ["meal", "mealjob", "mealjobnews"])
@pytest.mark.parametrize("statement", ["UPDATE meals_{} SET id = id", "DELETE FROM meals_{}"])
def test_no_record_of_a_plan_is_ever_changed(kitchen, table, statement):
    saved(kitchen)
    uid = listed(kitchen)["jobs"][0]["uid"]
    kitchen.call("POST", f"/meal-jobs/{uid}/news", {"sort": "done"})
    with connection.cursor() as cursor, pytest.raises(OperationalError), transaction.atomic():
        cursor.execute(statement.format(table))


def test_a_cure_under_way_takes_its_place_until_its_window_ends(kitchen):
    code = kitchen.started()
    kitchen.recorded(code, TRIM)
    kitchen.call(
        "POST", f"/batches/{code}/pieces/A/facts", {"place": {"store": "Fridge 1", "level": 1, "slot": 1}}
    )
    assert put_in(kitchen, code, on_desk("A"))[0] == 201
    fridge = next(lane for lane in worked(kitchen)["lanes"] if lane["name"] == "Fridge 1")
    assert next(bar["kind"] for bar in fridge["bars"] if bar["code"] == code) == "cure"


def test_ten_thousand_plates_in_a_home_fridge_say_how_many_would_do(kitchen):
    body = worked(kitchen, wants=[{"sort": "dish", "name": "Harbor roll", "amount": "10000"}])
    assert body["clashes"]
    *_, less = body["ways_out"]
    fits = again(kitchen, less["input"])
    assert (fits["clashes"], 1 <= int(less["input"]["wants"][0]["amount"]) < 100) == ([], True)


def test_less_of_a_product_by_weight_is_offered_too(kitchen):
    wants = [{"sort": "product", "name": "Cherry jowl", "amount": "20 lb"}]
    (less,) = [way for way in worked(kitchen, wants=wants)["ways_out"] if "Make less" in way["words"]]
    assert less["words"] == f"Make less: {less['input']['wants'][0]['amount']} Cherry jowl"
    assert 1 < float(less["input"]["wants"][0]["amount"].removesuffix(" lb")) < 20
    assert again(kitchen, less["input"])["clashes"] == []


def test_sixty_portions_weigh_as_much_at_the_case_as_in_a_plan(kitchen):
    """Three slices each: by the method 0.06 lb a slice, until it was sliced here; then as it was."""
    way = {**WAY, "portion_slices": "3", "slice_weight": "0.06 lb"}
    assert kitchen.call("POST", "/ways", way)[0] == 201
    roll = {**DISH, "parts": [{"sort": "larder", "name": "Cherry jowl", "amount": "3 slices"}]}
    assert kitchen.call("POST", "/dishes", roll)[0] == 201

    def case(**asked):
        offers = [{"id": "a", "cut": "jowl", "skin": "on", "price": "3.00", "pack_weight": "0.05 lb"}]
        body = {"way": WAY["name"], "offers": offers, **asked}
        return again(kitchen, body, "/case")["offers"][0]["amount"]["weight"]["lb"]

    def planned():
        wants = [{"sort": "dish", "name": "Harbor roll", "amount": "60"}]
        make = {"makes": [{**MAKE, "product": "Cherry jowl"}]}
        (needed,) = again(kitchen, {**plan(wants=wants), **make})["needed"]
        return needed["wanted"]["lb"]

    assert planned() == "10.80"
    assert case(portions="60") == case(sliced="10.8 lb")
    code = kitchen.started()
    slicing = {
        "act": "split",
        "kind": "slice",
        "piece": "lot",
        "pieces": [{"mark": "S", "weight": "5.90 lb", "slices": "100"}, {"mark": "dice", "weight": "1 lb"}],
        "cut_off": [],
    }
    kitchen.recorded(code, slicing)
    # it was made by no method, or by another one
    assert planned() == "10.80"
    assert kitchen.call("POST", f"/batches/{code}/way", {"way": WAY["name"]})[0] in (200, 201)
    assert planned() == "10.62"
    assert case(portions="60") == case(sliced="10.62 lb") != case(sliced="10.8 lb")
    # corrected: the slices were counted wrong
    counted = [{"mark": "S", "weight": "6 lb", "slices": "120"}]
    kitchen.recorded(code, {**slicing, "pieces": counted}, corrects=last_entry(code), reason="counted again")
    assert planned() == "9.00"


def last_entry(code):
    return Entry.objects.filter(batch__code=code).latest("sequence").pk
