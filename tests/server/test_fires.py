"""Fires: into the smoke, what happens there, and what the live view says of it."""

import uuid
from datetime import timedelta

import pytest
from django.db import OperationalError, transaction
from django.utils import timezone

from dolmetsch.core.documents.answers import answer_cook
from dolmetsch.core.heat.raw import RAW_LABEL
from dolmetsch.server.batches.models import Batch, StepYield
from dolmetsch.server.fires.models import Fire, FireEvent, ProbeReading, Program
from dolmetsch.server.fires.of_batch import list_own_cooks
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.labels.facts import gather_labels
from tests.server.conftest import BOUGHT, TRIM, make_kitchen
from tests.server.test_case import WAY
from tests.server.test_cures import on_desk, put_in

pytestmark = pytest.mark.django_db


@pytest.fixture
def cooks(api, settings):
    """A kitchen with a cooker, and a batch trimmed into A and B."""
    settings.COOKERS = f"{api.slug}/drum=line:127.0.0.1:1,elsewhere/pit=line:127.0.0.1:1"
    api.code = api.started()
    api.recorded(api.code, TRIM)
    return api


def fire(api, **more):
    pieces = [{"code": api.code, "mark": "A", "rack": 1, "slot": 1, "probe": "1", "where": "thick end"}]
    return {
        "name": "Jowl",
        "cooker": "drum",
        "pull_at": "150",
        "pieces": pieces,
        "stages": [
            {"kind": "dry", "air": "130", "minutes": "60"},
            {"kind": "smoke", "air": "180", "inside": "120"},
            {"kind": "cook", "air": "225"},
        ],
        **more,
    }


def begun(api, *, ago=0, **more):
    at = (timezone.now() - timedelta(minutes=ago)).isoformat() if ago else None
    status, body = api.call("POST", "/fires", fire(api, begun_at=at, **more))
    assert status == 201, body
    return body["id"]


def heard(api, at, **values):
    kitchen = Kitchen.objects.get(slug=api.slug)
    named = {name.removeprefix("p"): str(value) for name, value in values.items()}
    ProbeReading.objects.create(kitchen=kitchen, cooker="drum", at=at, values=named, heard_at=timezone.now())


def climb(api, fire_id, minutes, *, start=40, rate=0.5, air=200):
    begun_at = Fire.objects.get(pk=fire_id).begun_at
    for minute in range(0, minutes + 1, 2):
        heard(api, begun_at + timedelta(minutes=minute), p1=start + rate * minute, air=air)


def live(api, fire_id):
    status, body = api.get(f"/fires/{fire_id}")
    assert status == 200
    return body


def happens(api, fire_id, kind, **more):
    return api.call("POST", f"/fires/{fire_id}/events", {"kind": kind, **more})


def test_a_fire_is_begun_and_listed_with_its_cooker(cooks):
    fire_id = begun(cooks)
    heard(cooks, timezone.now(), p1="41.2", air="131")
    answer = cooks.get("/fires")[1]
    (one,) = answer["burning"]
    assert (one["name"], one["pieces"]) == ("Jowl", [f"{cooks.code} A"])
    (cooker,) = answer["cookers"]
    assert (cooker["name"], cooker["air"], cooker["probes"], cooker["fire"]) == (
        "drum",
        "131",
        {"1": "41"},
        fire_id,
    )


def test_the_live_view_answers_when_what_and_whether(cooks):
    fire_id = begun(cooks, ago=121, meal_at=(timezone.now() + timedelta(hours=30)).isoformat())
    climb(cooks, fire_id, 120)
    answer = live(cooks, fire_id)
    assert (answer["coldest"], answer["rate_per_hour"], answer["air"]) == ("100", "30", "200")
    ready = answer["ready"]
    assert ready["low"] < ready["likely"] < ready["high"]
    assert 0 < ready["left_seconds"] < 30 * 3600
    (piece,) = answer["hanging"]
    assert (piece["probe"], piece["now"], piece["is_coldest"]) == ("1", "100", True)
    assert [one["part"] for one in answer["lethality"]] == ["0.00", "0.00"]
    assert answer["next_stage"] == "Smoke 180 now: 61 min over"
    assert answer["stages"][0]["label"] == "Dry 130"
    (plan,) = [pull for pull in answer["pulls"] if pull["is_plan"]]
    assert (plan["inside"], plan["kept"]) == ("150", "87")
    prices = [float(pull["price"]["per_lb"]) for pull in answer["pulls"]]
    assert prices == sorted(prices)
    assert answer["troubles"] == []


def price_of(pull):
    return float(pull["price"]["per_lb"])


def test_pulled_as_planned_the_price_is_the_forecasts(cooks):
    """A is 5 lb; at 150 °F .87 are kept. The forecast of the batch says the same of its smoke."""
    cooks.recorded(cooks.code, {"act": "course", "course": "cooked", "pieces": []})
    before = cooks.get(f"/batches/{cooks.code}/forecast")[1]["price"]["middle"]["per_lb"]
    fire_id = begun(cooks, ago=10, pull_at="200")
    (plan,) = [pull for pull in live(cooks, fire_id)["pulls"] if pull["is_plan"]]
    assert (plan["weight"]["lb"], plan["kept"]) == ("3.00", "60")
    ahead = cooks.get(f"/batches/{cooks.code}/forecast")[1]
    assert plan["price"]["per_lb"] == ahead["price"]["middle"]["per_lb"] > before
    smoke = next(step for step in ahead["steps"] if step["kind"] == "smoke")
    assert smoke["basis"] == "60.0 % ± 6.0: pulled at 200 °F inside: start value, 0 cooks"


def test_pieces_of_two_cuts_are_each_carried_as_their_own(cooks):
    """A jowl's slicing keeps .87, a loin's .94: together they cost between the two, in either order."""
    loin = cooks.started(name="Test loin", bought={**BOUGHT, "cut": "loin"})
    cooks.recorded(loin, TRIM)
    jowl = cooks.code
    prices = {}
    for codes in ((jowl, loin), (loin, jowl), (jowl,), (loin,)):
        pieces = [{"code": code, "mark": "A"} for code in codes]
        fire_id = begun(cooks, ago=10, pieces=pieces, cooker="")
        (plan,) = [pull for pull in live(cooks, fire_id)["pulls"] if pull["is_plan"]]
        prices[codes] = price_of(plan)
        happens(cooks, fire_id, "done")
    assert prices[loin,] < prices[jowl, loin] == prices[loin, jowl] < prices[jowl,]


def test_the_stages_to_come_are_counted_on(cooks):
    """In air of 130 °F nothing gets to 150; the program goes on to 225."""
    stages = [{"kind": "dry", "air": "130", "minutes": "90"}, {"kind": "cook", "air": "225"}]
    fire_id = begun(cooks, ago=61, stages=stages)
    climb(cooks, fire_id, 60, air=130)
    assert live(cooks, fire_id)["ready"]["likely"] is not None
    alone = begun(
        cooks, ago=61, stages=stages[:1], pieces=[{"code": cooks.code, "mark": "B", "probe": "2"}], cooker=""
    )
    assert live(cooks, alone)["ready"]["why"] == "nothing has been read in the cook yet"
    happens(cooks, fire_id, "done")
    last = begun(cooks, ago=61, stages=[{"kind": "cook", "air": "130"}])
    assert live(cooks, last)["ready"]["why"] == "the air is no warmer than the inside is to be"


def test_a_stage_moves_by_the_cooks_touch_alone(cooks):
    fire_id = begun(cooks, ago=121)
    assert live(cooks, fire_id)["stage"] == 0
    assert happens(cooks, fire_id, "stage", stage=1)[1]["stage"] == 1
    climb(cooks, fire_id, 120, start=80)
    answer = live(cooks, fire_id)
    assert answer["next_stage"] == "Cook 225 now: 120 °F is reached"
    assert answer["stages"][0]["ended_at"] == answer["stages"][1]["begun_at"]
    assert happens(cooks, fire_id, "stage", stage=3)[1]["fields"][0]["path"] == "stage"


def test_swapped_probes_change_their_curves_from_then_on(cooks):
    both = [{"code": cooks.code, "mark": mark, "probe": probe} for mark, probe in (("A", "1"), ("B", "2"))]
    fire_id = begun(cooks, ago=60, pieces=both)
    start = Fire.objects.get(pk=fire_id).begun_at
    for minute in (0, 10, 20):
        heard(cooks, start + timedelta(minutes=minute), p1=100, p2=130)
    at = (start + timedelta(minutes=15)).isoformat()
    instant = happens(cooks, fire_id, "instant", piece=f"{cooks.code} A", temp="131", at=at)[1]
    (trouble,) = [one for one in instant["troubles"] if one["code"] == "probe_swap"]
    assert trouble["probe"] == "2"
    answer = happens(cooks, fire_id, "swap", probe="1", other="2", at=at)[1]
    now = {curve["piece"].split()[-1]: curve["now"] for curve in answer["curves"] if curve["is_now"]}
    assert now == {"A": "130", "B": "100"}
    before = {curve["id"]: curve["points"][-1] for curve in answer["curves"] if not curve["is_now"]}
    assert before == {"1": [600, 100.0], "2": [600, 130.0]}


def test_out_of_the_fire_it_rests_and_cools_against_both_rules(cooks):
    fire_id = begun(cooks, ago=400, nitrite_ppm="150")
    climb(cooks, fire_id, 240, start=40, rate=0.48)
    start = Fire.objects.get(pk=fire_id).begun_at
    out = (start + timedelta(minutes=240)).isoformat()
    assert happens(cooks, fire_id, "cool", at=out)[1]["state"] == "cooling"
    for minute in range(242, 400, 2):
        heard(cooks, start + timedelta(minutes=minute), p1=155 - 0.7 * (minute - 240), air=40)
    answer = live(cooks, fire_id)
    legs = {leg["name"]: leg["state"] for leg in answer["cooling"]}
    assert legs == {"to_70": "met", "to_41": "running", "to_80": "met", "to_45": "met"}
    assert answer["ready"]["why"] == "reached"
    assert answer["is_raw"] is False
    assert answer["pulls"] == []
    assert happens(cooks, fire_id, "done")[1]["state"] == "done"
    status, body = happens(cooks, fire_id, "spritz")
    assert (status, body["code"]) == (409, "fire_done")
    assert cooks.get("/fires")[1]["burning"] == []


def test_what_came_out_raw_says_so(cooks):
    fire_id = begun(cooks, ago=100, stages=[{"kind": "cold_smoke", "air": "85"}])
    climb(cooks, fire_id, 60, rate=0.2, air=95)
    answer = happens(cooks, fire_id, "cool")[1]
    assert answer["is_raw"] is True
    assert "cook before eating" in answer["notes"][0]["message"]
    assert [one["code"] for one in answer["troubles"]] == ["smoke_warm"]


def test_without_a_cooker_readings_by_hand_do(cooks):
    fire_id = begun(cooks, cooker="", ago=60)
    start = Fire.objects.get(pk=fire_id).begun_at
    for minute, temp in ((0, "40"), (30, "70"), (60, "100")):
        at = (start + timedelta(minutes=minute)).isoformat()
        status, answer = happens(cooks, fire_id, "instant", piece=f"{cooks.code} A", temp=temp, at=at)
        assert status == 201
    assert (answer["coldest"], answer["coldest_probe"]) == ("100", "instant")
    assert answer["ready"]["likely"] is not None


def test_readings_of_a_clock_that_had_run_ahead_are_not_this_fires(cooks):
    now = timezone.now()
    heard(cooks, now + timedelta(hours=3), p1="170", air="225")
    heard(cooks, now - timedelta(seconds=2), p1="40", air="100")
    fire_id = begun(cooks)
    assert Fire.objects.get().begun_at < now + timedelta(minutes=5)
    heard(cooks, timezone.now() + timedelta(hours=4), p1="90", air="200")
    answer = live(cooks, fire_id)
    assert [point[1] for curve in answer["curves"] for point in curve["points"]] == [90.0]
    assert answer["now"] > (now + timedelta(hours=3)).isoformat()


def test_a_fire_taken_away_is_answered_by_the_command_as_on_the_screen(cooks):
    fire_id = begun(cooks, ago=121)
    climb(cooks, fire_id, 120)
    happens(cooks, fire_id, "cool")
    path = f"/api/kitchens/{cooks.slug}/fires/{fire_id}/files"
    answer = answer_cook(cooks.client.get(f"{path}/json").content)
    seen = live(cooks, fire_id)
    assert answer["inside"]["now"] == f"{seen['coldest']}.0"
    assert answer["cooling"]["plain"] is not None
    lines = cooks.client.get(f"{path}/csv").content.decode().splitlines()
    assert lines[0] == "time,1,air"
    assert len(lines) == 62
    assert cooks.client.get(f"{path}/xlsx").status_code == 422


def test_a_kitchen_of_kilograms_reads_celsius(cooks):
    Kitchen.objects.filter(slug=cooks.slug).update(weight_unit="kg", temperature_unit="C")
    fire_id = begun(cooks, ago=121, pull_at="65.5", stages=[{"kind": "cook", "air": "110 °C"}])
    climb(cooks, fire_id, 120)
    answer = live(cooks, fire_id)
    assert (answer["unit"], answer["coldest"], answer["pull_at"]) == ("C", "37.8", "65.5")
    assert Fire.objects.get().stages[0]["air"] == "230.000"


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"pieces": []}, "pieces"),
        ({"pieces": [{"code": "J-01", "mark": "Z"}]}, "pieces[0]"),
        ({"pieces": [{"code": "J-01", "mark": "A"}] * 2}, "pieces[1]"),
        (
            {"pieces": [{"code": "J-01", "mark": mark, "probe": "1"} for mark in ("A", "B")]},
            "pieces[1].probe",
        ),
        ({"pieces": [{"code": "J-01", "mark": "A", "probe": "9"}]}, "pieces[0].probe"),
        ({"cooker": "pit"}, "cooker"),
        ({"begun_at": "2020-01-01T00:00:00Z"}, "begun_at"),
        ({"begun_at": "2099-01-01T00:00:00Z"}, "begun_at"),
        ({"pull_at": "1500"}, "pull_at"),
        ({"pull_at": "warm"}, "pull_at"),
        ({"nitrite_ppm": "-1"}, "nitrite_ppm"),
        ({"stages": [{"kind": "cook", "air": "1500"}]}, "stages[0].air"),
        ({"stages": [{"kind": "cook", "minutes": "0"}]}, "stages[0].minutes"),
        ({"stages": [{"kind": "cook", "minutes": "60", "inside": "150"}]}, "stages[0]"),
    ],
)
def test_a_fire_that_cannot_be_is_refused_at_its_place(cooks, change, path):
    status, body = cooks.call("POST", "/fires", fire(cooks, **change))
    assert (status, [one["path"] for one in body["fields"]]) == (422, [path])
    assert not Fire.objects.exists()


def test_a_piece_is_in_one_fire_and_a_cooker_holds_one(cooks):
    first = begun(cooks)
    _, body = cooks.call("POST", "/fires", fire(cooks))
    assert [one["path"] for one in body["fields"]] == ["pieces[0]", "cooker"]
    happens(cooks, first, "done")
    begun(cooks)


@pytest.mark.parametrize(
    ("kind", "more", "path"),
    [
        ("instant", {"piece": "J-01 A"}, "temp"),
        ("instant", {"piece": "J-01 Z", "temp": "100"}, "piece"),
        ("instant", {"piece": "J-01 A", "temp": "1500"}, "temp"),
        ("swap", {"probe": "1", "other": "2"}, "other"),
        ("swap", {"probe": "1", "other": "1"}, "other"),
        ("probe", {"probe": "9", "piece": "J-01 A"}, "probe"),
        ("probe", {"probe": "2", "piece": "J-01 B"}, "piece"),
        ("tender", {"text": "very"}, "text"),
        ("fuel", {}, "text"),
        ("note", {}, "text"),
        ("spritz", {"at": "2020-01-01T00:00:00Z"}, "at"),
        ("spritz", {"at": "2099-01-01T00:00:00Z"}, "at"),
    ],
)
def test_an_event_that_cannot_be_is_refused_at_its_place(cooks, kind, more, path):
    fire_id = begun(cooks)
    status, body = happens(cooks, fire_id, kind, **more)
    assert (status, [one["path"] for one in body["fields"]]) == (422, [path])
    assert FireEvent.objects.count() == 1


def test_stages_come_in_order(cooks):
    fire_id = begun(cooks, ago=60)
    assert happens(cooks, fire_id, "stage", stage=1)[0] == 201
    early = (timezone.now() - timedelta(minutes=30)).isoformat()
    assert happens(cooks, fire_id, "stage", stage=2, at=early)[1]["fields"][0]["path"] == "at"
    assert happens(cooks, fire_id, "rest")[0] == 201
    assert happens(cooks, fire_id, "stage", stage=2)[1]["fields"][0]["path"] == "stage"


def test_what_happened_is_said_in_words(cooks):
    fire_id = begun(cooks)
    for kind, more in (
        ("wrap", {"text": "in paper"}),
        ("fuel", {"text": "3 lb of pellets"}),
        ("tender", {"text": "nearly"}),
        ("probe", {"probe": "2", "piece": "J-01 A", "where": "thin end"}),
    ):
        assert happens(cooks, fire_id, kind, **more)[0] == 201
    said = [one["text"] for one in live(cooks, fire_id)["events"]]
    assert said == [
        "probe 2 in J-01 A, thin end",
        "nearly tender",
        "fuel: 3 lb of pellets",
        "wrapped: in paper",
        "probe 1 in J-01 A, thick end",
    ]


def test_another_kitchen_sees_none_of_it(cooks):
    fire_id = begun(cooks)
    other = make_kitchen("other-kitchen")
    seen = other.get("/fires")[1]
    assert (seen["burning"], seen["done"], seen["cookers"]) == ([], [], [])
    assert other.get(f"/fires/{fire_id}")[0] == 404
    assert happens(other, fire_id, "spritz")[0] == 404
    assert other.call("POST", "/cookers/drum/command", {"command": "SET 225"})[0] == 404
    assert other.call("POST", "/fires", fire(cooks, cooker=""))[1]["fields"][0]["path"] == "pieces[0]"


def test_a_resend_is_one_fire_and_one_event(cooks):

    key = uuid.uuid4()
    one, again = (cooks.call("POST", "/fires", fire(cooks), key) for _ in range(2))
    assert one == again
    key = uuid.uuid4()
    for _ in range(2):
        assert cooks.call("POST", f"/fires/{one[1]['id']}/events", {"kind": "spritz"}, key)[0] == 201
    assert FireEvent.objects.filter(kind="spritz").count() == 1


@pytest.mark.parametrize(
    "command", ["", "SINCE 2026-11-26T09:00:00Z", "got 2026-11-26T09:00:00Z", "SET\n225"]
)
def test_the_collectors_own_words_are_not_the_panels(cooks, command):
    status, body = cooks.call("POST", "/cookers/drum/command", {"command": command})
    assert (status, body["code"]) == (422, "bad_command")
    assert cooks.call("POST", "/cookers/drum/command", {"command": "SET 225"})[1]["code"] == "cooker_away"


@pytest.mark.parametrize("model", [Fire, FireEvent])
def test_no_record_of_a_fire_is_ever_changed(cooks, model):
    begun(cooks)
    with pytest.raises(OperationalError, match="never changed"), transaction.atomic():
        model.objects.update(recorded_at=timezone.now())
    with pytest.raises(OperationalError, match="never deleted"), transaction.atomic():
        model.objects.filter(pk=model.objects.first().pk)._raw_delete("default")


def test_programs_are_offered_in_the_kitchens_degrees(cooks):
    first = cooks.get("/fires")[1]["programs"][0]
    assert (first["stages"][0]["air"], first["pull_at"]) == ("130", "150")
    Kitchen.objects.filter(slug=cooks.slug).update(weight_unit="kg", temperature_unit="C")
    first = cooks.get("/fires")[1]["programs"][0]
    assert (first["stages"][0]["air"], first["pull_at"]) == ("54.4", "65.6")


def both(api):
    return [{"code": api.code, "mark": mark, "probe": probe} for mark, probe in (("A", "1"), ("B", "2"))]


def test_fuel_and_work_go_into_each_pieces_step_once(cooks):
    """A weighs 5 lb and B 4.1: 9.10 of pellets are 5.00 and 4.10, 20 minutes are 11 and 9."""
    fire_id = begun(cooks, ago=60, pieces=both(cooks))
    fuel = {"text": "oak pellets", "amount": "7 lb", "price": "1.30/lb", "minutes": "5"}
    assert happens(cooks, fire_id, "fuel", **fuel)[0] == 201
    assert happens(cooks, fire_id, "fuel", text="a log from the yard")[0] == 201
    share = {one["mark"]: one for one in cooks.get(f"/batches/{cooks.code}/fires")[1]["pieces"]}
    assert (share["A"]["out_at"], share["A"]["is_weighed"]) == (None, False)
    assert happens(cooks, fire_id, "cool", minutes="15")[1]["events"][0]["text"] == "cooling began"
    share = {one["mark"]: one for one in cooks.get(f"/batches/{cooks.code}/fires")[1]["pieces"]}
    weighed = {
        piece["mark"]: piece["weight"]["lb"] for piece in cooks.get(f"/batches/{cooks.code}")[1]["pieces"]
    }
    assert {mark: one["kind"] for mark, one in share.items()} == {"A": "smoke", "B": "smoke"}
    prices = {mark: one["used"] for mark, one in share.items()}
    total = sum(float(weight) for weight in weighed.values())
    for mark, weight in weighed.items():
        (line,) = prices[mark]
        assert line["what"] == "oak pellets, share of 2"
        assert float(line["price"]) == pytest.approx(9.10 * float(weight) / total, abs=0.006)
    assert sum(float(lines[0]["price"]) for lines in prices.values()) == pytest.approx(9.10)
    assert sum(int(one["minutes"]) for one in share.values()) == 20
    line = {**share["A"]["used"][0], "group": "fuel", "pieces": ["A"]}
    cooks.recorded(
        cooks.code,
        {
            "act": "weigh",
            "kind": "smoke",
            "weights": [{"mark": "A", "weight": "4.4 lb"}],
            "used": [line],
            "minutes": share["A"]["minutes"],
        },
    )
    after = {one["mark"]: one["is_weighed"] for one in cooks.get(f"/batches/{cooks.code}/fires")[1]["pieces"]}
    assert after == {"A": True, "B": False}


def test_a_fire_stands_in_the_diary_of_its_batch(cooks):
    fire_id = begun(cooks, ago=60, wood="oak")
    happens(cooks, fire_id, "spritz")
    happens(cooks, fire_id, "cool")
    leaves = [one for one in cooks.get(f"/batches/{cooks.code}/diary")[1]["leaves"] if one["sort"] == "fire"]
    assert [one["title"] for one in leaves] == ["Into the fire: Jowl", "Spritzed", "Cooling began"]
    assert leaves[0]["lines"] == ["Dry 130, Smoke 180, Cook 225", "oak"]
    assert leaves[0]["marks"] == ["A"]


def cautions(api):
    return [one["code"] for one in api.get(f"/batches/{api.code}/verdict")[1]["cautions"]]


def smoked(api, weight="4.4 lb"):
    api.recorded(api.code, {"act": "weigh", "kind": "smoke", "weights": [{"mark": "A", "weight": weight}]})


@pytest.mark.parametrize(("rate", "is_raw"), [(0.2, True), (0.5, False)])
def test_what_was_not_cooked_in_its_fire_is_raw_on_verdict_and_label(cooks, rate, is_raw):
    fire_id = begun(cooks, ago=300)
    climb(cooks, fire_id, 240, rate=rate)
    assert "raw" not in cautions(cooks)
    happens(cooks, fire_id, "done")
    smoked(cooks)
    assert ("raw" in cautions(cooks)) is is_raw
    (label,) = gather_labels(Batch.objects.get(code=cooks.code), ["A"], root="")
    assert (RAW_LABEL in label.lines) is is_raw
    again = begun(cooks, ago=300, cooker="", pieces=[{"code": cooks.code, "mark": "A"}])
    start = Fire.objects.get(pk=again).begun_at
    for minute in (0, 5):
        at = (start + timedelta(minutes=minute)).isoformat()
        happens(cooks, again, "instant", piece=f"{cooks.code} A", temp="165", at=at)
    happens(cooks, again, "done")
    # every fire it was in counts: one that did not cook it is not undone by its kind alone
    assert ("raw" in cautions(cooks)) is is_raw


def test_the_kitchens_own_cooks_correct_what_is_kept(cooks):
    """Pulled at 160 °F .83 are kept; a cook that kept .77 lowers every temperature, by a quarter of it."""
    fire_id = begun(cooks, ago=300)
    climb(cooks, fire_id, 240)
    happens(cooks, fire_id, "done")
    assert FireEvent.objects.get(kind="done").data["peak"] == "160.0"
    kinds = {
        piece["mark"]: float(piece["weight"]["lb"])
        for piece in cooks.get(f"/batches/{cooks.code}")[1]["pieces"]
    }
    kept = 0.77
    lines = [{"mark": mark, "weight": f"{weight * kept:.3f} lb"} for mark, weight in kinds.items()]
    cooks.recorded(cooks.code, {"act": "weigh", "kind": "smoke", "weights": lines})
    cooks.recorded(cooks.code, {"act": "finish"})
    other = cooks.started(name="Next jowl")
    cooks.recorded(other, TRIM)
    later = begun(cooks, pieces=[{"code": other, "mark": "A"}], cooker="")
    pulls = {pull["inside"]: pull for pull in live(cooks, later)["pulls"]}
    hours = FireEvent.objects.get(kind="done").data["hours"]
    start = 0.83 - 0.007 * (hours - 4)
    expected = 0.87 * (kept / start) ** 0.25
    assert float(pulls["150"]["kept"]) == pytest.approx(100 * expected, abs=0.6)
    assert list_own_cooks(Kitchen.objects.get(slug=cooks.slug))[0].peak == 160


@pytest.mark.parametrize(
    ("more", "path"),
    [({"price": "dear"}, "price"), ({"price": "1.30/lb"}, "amount"), ({"minutes": "long"}, "minutes")],
)
def test_fuel_that_cannot_be_read_is_refused_at_its_field(cooks, more, path):
    fire_id = begun(cooks)
    status, body = happens(cooks, fire_id, "fuel", text="oak", **more)
    assert (status, [one["path"] for one in body["fields"]]) == (422, [path])


def save(api, **more):
    return api.call("POST", "/programs", {"name": "Night", "stages": fire(api)["stages"], **more})


def test_a_program_is_saved_in_versions_and_begun_with(cooks):
    assert cooks.call("POST", "/ways", WAY)[0] == 201
    assert cooks.call("POST", f"/batches/{cooks.code}/way", {"way": "plain"})[0] == 201
    assert save(cooks, pull_at="148")[0] == 201
    status, answer = save(cooks, pull_at="150", wood="plum", way="plain")
    own, *starts = answer["programs"]
    assert (status, own["name"], own["version"], own["pull_at"], own["way"]) == (
        201,
        "Night",
        2,
        "150",
        "plain",
    )
    assert own["stages"][1] == {"kind": "smoke", "air": "180", "minutes": "", "inside": "120"}
    assert [one["version"] for one in starts] == [None] * 5
    assert answer["methods"] == {cooks.code: "plain"}
    fire_id = begun(cooks, program="Night")
    assert live(cooks, fire_id)["program"] == "Night, version 2"
    happens(cooks, fire_id, "done")
    other = begun(cooks, program="Night", stages=[{"kind": "cook", "air": "200"}])
    assert live(cooks, other)["program"] == "Night, version 2, changed"
    # one's own stands for that of common practice by its name; put away, that is back
    assert "Cold smoke" in [
        one["name"] for one in save(cooks, name="Cold smoke")[1]["programs"] if one["version"]
    ]
    after = save(cooks, name="Cold smoke", put_away=True)[1]["programs"]
    assert [one["version"] for one in after if one["name"] == "Cold smoke"] == [None]
    elsewhere = make_kitchen("no-programs")
    assert not [one for one in elsewhere.get("/fires")[1]["programs"] if one["version"]]


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"name": ""}, "name"),
        ({"way": "nobody's"}, "way"),
        ({"pull_at": "1500"}, "pull_at"),
        ({"stages": [{"kind": "cook", "minutes": "0"}]}, "stages[0].minutes"),
    ],
)
def test_a_program_that_cannot_be_is_refused_at_its_field(cooks, change, path):
    status, body = save(cooks, **change)
    assert (status, [one["path"] for one in body["fields"]]) == (422, [path])
    assert not Program.objects.exists()


def test_the_nitrite_is_that_of_the_cures_recorded_here(cooks):
    assert put_in(cooks, cooks.code, on_desk("A"))[0] == 201
    begun(cooks, cooker="")
    assert Fire.objects.get().nitrite_ppm == 150
    typed = begun(cooks, cooker="", nitrite_ppm="40", pieces=[{"code": cooks.code, "mark": "B"}])
    assert Fire.objects.get(pk=typed).nitrite_ppm == 40
    for fire_id in Fire.objects.values_list("pk", flat=True):
        happens(cooks, fire_id, "done")
    # B was never cured: nothing is known of them together
    together = begun(cooks, cooker="", pieces=both(cooks))
    assert Fire.objects.get(pk=together).nitrite_ppm is None


def test_a_cold_smoke_keeps_what_cold_smokes_keep(cooks):
    """.96 as the method says, whatever its inside came to; and it is learned as one."""
    cold = [{"kind": "dry", "air": "80"}, {"kind": "cold_smoke", "air": "85"}]
    fire_id = begun(cooks, ago=300, stages=cold, pull_at="", pieces=both(cooks))

    def smoke():
        steps = cooks.get(f"/batches/{cooks.code}/forecast")[1]["steps"]
        return next(step for step in steps if step["kind"] == "smoke")["kept"]

    assert (smoke(), live(cooks, fire_id)["pulls"]) == ("96.0", [])
    climb(cooks, fire_id, 240, rate=0.1)
    happens(cooks, fire_id, "done")
    assert smoke() == "96.0"
    weights = cooks.get(f"/batches/{cooks.code}")[1]["pieces"]
    lines = [
        {"mark": one["mark"], "weight": f"{float(one['weight']['lb']) * 0.95:.3f} lb"} for one in weights
    ]
    cooks.recorded(cooks.code, {"act": "weigh", "kind": "smoke", "weights": lines})
    cooks.recorded(cooks.code, {"act": "finish"})
    assert set(StepYield.objects.values_list("method", flat=True)) == {"trim", "cold_smoke"}
    assert list_own_cooks(Kitchen.objects.get(slug=cooks.slug)) == []
    assert cautions(cooks)[0] == "raw"


def test_whatever_fuel_is_called_its_share_can_be_recorded(cooks):
    """A line of a step is called by forty letters at most; a name of blanks or control letters is none."""
    fire_id = begun(cooks, ago=60, pieces=both(cooks))
    long = "cherry splits from the old orchard behind the quay, dried two winters"
    assert happens(cooks, fire_id, "fuel", text=long, price="4.20")[0] == 201
    for text, path in ((" \u200b ", "text"), ("oak\x07", "text")):
        status, body = happens(cooks, fire_id, "fuel", text=text, price="4.20")
        assert (status, body["fields"][0]["path"]) == (422, path)
    happens(cooks, fire_id, "cool")
    (share, _) = cooks.get(f"/batches/{cooks.code}/fires")[1]["pieces"]
    (line,) = share["used"]
    assert line["what"] == "cherry splits from the old o, share of 2"
    used = [{**line, "group": "fuel", "pieces": ["A"]}]
    weights = [{"mark": "A", "weight": "4.4 lb"}]
    cooks.recorded(cooks.code, {"act": "weigh", "kind": "smoke", "weights": weights, "used": used})


def test_a_program_of_blanks_has_no_name(cooks):
    assert save(cooks, name="  ")[1]["fields"][0]["path"] == "name"
    assert save(cooks, name=" Night ")[1]["programs"][0]["name"] == "Night"


def lies(api, mark):
    pieces = api.get(f"/batches/{api.code}/pieces")[1]["pieces"]
    place = next(one["place"] for one in pieces if one["mark"] == mark)
    return place and place["text"]


def test_pieces_hang_on_the_racks_of_the_map_until_they_are_out(cooks):
    for name, sort in (("Cabinet", "smoker"), ("Fridge", "fridge")):
        cooks.call("POST", "/stores", {"name": name, "sort": sort, "levels": 3, "slots": 2})
    cooks.call(
        "POST", f"/batches/{cooks.code}/pieces/B/facts", {"place": {"store": "Fridge", "level": 1, "slot": 1}}
    )
    on = {"code": cooks.code, "rack": 2, "slot": 2, "probe": ""}
    fire_id = begun(cooks, store="cabinet", pieces=[{**on, "mark": "A"}])
    assert lies(cooks, "A") == "Cabinet, rack 2, place 2"
    assert happens(cooks, fire_id, "rest")[0] == 201
    assert lies(cooks, "A") is None
    assert lies(cooks, "B") == "Fridge, shelf 1, place 1"


@pytest.mark.parametrize(
    ("more", "path"),
    [({"store": "Elsewhere"}, "pieces[0].place.store"), ({"store": "Cabinet"}, "pieces[0].place.level")],
)
def test_a_rack_that_is_not_there_is_refused_at_its_place(cooks, more, path):
    there = make_kitchen("other")
    there.call("POST", "/stores", {"name": "Elsewhere", "sort": "smoker", "levels": 3, "slots": 3})
    cooks.call("POST", "/stores", {"name": "Cabinet", "sort": "smoker", "levels": 1, "slots": 1})
    piece = {"code": cooks.code, "mark": "A", "rack": 2, "slot": 1}
    status, problem = cooks.call("POST", "/fires", fire(cooks, pieces=[piece], **more))
    assert (status, [one["path"] for one in problem["fields"]]) == (422, [path])
    assert (Fire.objects.count(), lies(cooks, "A")) == (0, None)


COLD = {"stages": [{"kind": "cold_smoke", "air": "80"}], "pull_at": ""}


def becomes(api):
    return {one["mark"]: one["course"] for one in api.get(f"/batches/{api.code}/pieces")[1]["pieces"]}


@pytest.mark.parametrize(
    ("program", "course"),
    [
        ({}, "cooked"),
        ({"pull_at": "200"}, "pulled"),
        ({"pull_at": ""}, None),
        ({"stages": [{"kind": "smoke"}, {"kind": "steam"}], "pull_at": "200"}, "steamed"),
        (COLD, "cold_smoked_raw"),
        ({"course": "air_dried", **COLD}, "air_dried"),
        ({"course": "as_said", **COLD}, "cold_smoked_raw"),
    ],
)
def test_the_program_says_what_its_pieces_become_where_nobody_did(cooks, program, course):
    begun(cooks, **program)
    assert becomes(cooks) == {"A": course, "B": None}


def test_a_program_that_leads_elsewhere_than_was_said_is_asked_about(cooks):
    pieces = [{"code": cooks.code, "mark": mark} for mark in "AB"]
    cooks.recorded(cooks.code, {"act": "course", "course": "air_dried", "pieces": ["B"]})
    status, body = cooks.call("POST", "/fires", fire(cooks, pieces=pieces))
    (asked,) = body["fields"]
    assert (status, asked["path"], asked["code"]) == (422, "course", "contradicts")
    assert asked["message"].startswith(
        f"{cooks.code} B is to become air-dried. This program makes it cooked."
    )
    assert not Fire.objects.exists()
    assert becomes(cooks) == {"A": None, "B": "air_dried"}
    # a cold one smokes what is dried, and what it becomes stays
    happens(cooks, begun(cooks, pieces=pieces, **COLD), "done")
    assert becomes(cooks) == {"A": "cold_smoked_raw", "B": "air_dried"}
    # what is meant is said in one go
    begun(cooks, pieces=pieces, course="cooked")
    assert becomes(cooks) == {"A": "cooked", "B": "cooked"}
    assert [one["label"] for one in cooks.get(f"/batches/{cooks.code}")[1]["log"]][-1] == "To become"


def test_each_program_is_offered_for_what_it_leads_to(cooks):
    offered = {one["name"]: one["courses"] for one in cooks.get("/fires")[1]["programs"]}
    assert offered == {
        "Hot smoke": ["cooked"],
        "Stepped": ["cooked"],
        "Cold smoke": ["cold_smoked_raw", "air_dried", "fermented_dried"],
        "Smoke, wrap, pull": ["cooked", "pulled"],
        "Smoke, then steam": ["steamed"],
    }
    cooks.recorded(cooks.code, {"act": "course", "course": "pulled", "pieces": ["A"]})
    lying = {one["mark"]: one["course"] for one in cooks.get("/map")[1]["nowhere"]}
    assert lying == {"A": "pulled", "B": None}
