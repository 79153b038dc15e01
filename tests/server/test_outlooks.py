"""Forecasts of batches under way, what steps keep, and how good forecasts were."""

import pytest
from django.db import DatabaseError, connection, transaction

from dolmetsch.server.batches.forecast.derived import renew_stale
from dolmetsch.server.batches.forecast.history import list_fryings, read_history
from dolmetsch.server.batches.models import Batch, Forecast, StepYield
from dolmetsch.server.kitchens.models import Kitchen
from tests.server.conftest import BOUGHT, TRIM, weigh
from tests.server.test_case import FULL, WAY, save

PACK = {"act": "shop_pack", "name": "good", "paid": "8.00", "weight": "1 lb"}


def slice_of(piece, weight):
    return {
        "act": "split",
        "kind": "slice",
        "piece": piece,
        "pieces": [{"mark": f"{piece}1", "weight": weight, "slices": "10"}],
    }


def finish(api, code, smoke=("4.3 lb", "2.6 lb")):
    api.recorded(code, TRIM)
    api.recorded(code, weigh("cure", A="4.8 lb", B="2.9 lb"))
    api.recorded(code, weigh("smoke", A=smoke[0], B=smoke[1]))
    api.recorded(code, slice_of("A", "3.9 lb"))
    return api.recorded(code, slice_of("B", "2.3 lb"))


def forecast(api, code):
    status, body = api.get(f"/batches/{code}/forecast")
    assert status == 200, str(body)
    return body


def test_a_forecast_carries_on_from_where_the_batch_stands(api):
    code = api.started(course="cooked")
    api.recorded(code, PACK)
    answer = forecast(api, code)
    assert [step["label"] for step in answer["steps"]] == [
        *("Trimmed", "Cured", "Rested", "Smoked", "Chilled", "Sliced")
    ]
    kept = 0.88 * 0.95 * 0.99 * 0.86 * 0.985 * 0.87
    assert float(answer["weight"]["middle"]["lb"]) == pytest.approx(10 * kept, abs=0.006)
    assert float(answer["price"]["middle"]["per_lb"]) == pytest.approx(2 / kept, abs=0.006)
    assert answer["shop_name"] == "good"
    assert answer["chance"] == 100
    assert answer["way"] is None
    assert "No method chosen" in answer["notes"][0]
    assert answer["steps"][3]["basis"] == "86.0 % ± 3.0: start value, 0 batches"
    api.recorded(code, TRIM)
    now = forecast(api, code)
    assert [step["kind"] for step in now["steps"]] == ["cure", "rest", "smoke", "chill", "slice"]
    rest = kept / 0.88
    assert float(now["weight"]["middle"]["lb"]) == pytest.approx(8 * rest, abs=0.006)


def test_each_weighing_narrows_the_forecast(api):
    code = api.started(course="cooked")
    width = []
    for content in (
        None,
        TRIM,
        weigh("cure", A="4.8 lb", B="2.9 lb"),
        weigh("smoke", A="4.3 lb", B="2.6 lb"),
    ):
        if content is not None:
            api.recorded(code, content)
        price = forecast(api, code)["price"]
        width.append(float(price["high"]["per_lb"]) / float(price["low"]["per_lb"]))
    assert width == sorted(width, reverse=True)
    api.recorded(code, slice_of("A", "3.9 lb"))
    answer = forecast(api, code)
    # A is sliced; what is to come is B's chill and slicing alone
    assert [step["kind"] for step in answer["steps"]] == ["chill", "slice"]
    assert float(answer["weight"]["middle"]["lb"]) == pytest.approx(3.9 + 2.6 * 0.985 * 0.87, abs=0.006)
    api.recorded(code, slice_of("B", "2.3 lb"))
    done = forecast(api, code)
    assert (done["steps"], done["price"], done["notes"]) == ([], None, [])


def test_finished_batches_teach_what_steps_keep(api):
    assert api.get("/yields")[1]["yields"] == []
    code = api.started(course="cooked")
    finish(api, code)
    kitchen = Kitchen.objects.get()
    assert sorted(StepYield.objects.values_list("method", flat=True)) == [
        *("dry_cure", "hot_smoke", "slice", "trim")
    ]
    answer = {one["method"]: one for one in api.get("/yields")[1]["yields"]}
    assert answer["hot_smoke"]["cut"] == "jowl skin-on"
    assert 86 < float(answer["hot_smoke"]["kept"]) < 100 * 6.9 / 7.7
    assert answer["hot_smoke"]["basis"].endswith("one of your hot smokes")
    assert read_history(kitchen)["trim"]["jowl skin-on"].count == 1
    again = api.started(course="cooked")
    assert forecast(api, again)["steps"][3]["basis"].endswith("one of your hot smokes")


def test_a_correction_changes_what_was_learned(api):
    code = api.started()
    finish(api, code)
    smoke = next(
        row for row in api.get(f"/batches/{code}")[1]["log"] if row["content"].get("kind") == "smoke"
    )
    before = StepYield.objects.get(method="hot_smoke").log_ratio
    api.recorded(code, weigh("smoke", A="4.5 lb", B="2.7 lb"), corrects=smoke["id"], reason="misread")
    assert StepYield.objects.get(method="hot_smoke").log_ratio > before
    sliced = api.get(f"/batches/{code}")[1]["log"][-2]
    api.recorded(code, {"act": "withdraw"}, corrects=sliced["id"], reason="not yet sliced")
    assert not StepYield.objects.exists()
    assert not Batch.objects.get().is_finished


def test_the_way_says_by_which_method_a_step_was_done(api):
    brine = {
        **WAY,
        "name": "brine",
        "steps": [{"method": "trim"}, {"method": "pumped"}, {"method": "cold_smoke"}, {"method": "slice"}],
    }
    save(api, brine)
    code = api.started()
    finish(api, code)
    status, answer = api.call("POST", f"/batches/{code}/way", {"way": "brine"})
    assert (status, answer["steps"]) == (201, [])
    assert sorted(StepYield.objects.values_list("method", flat=True)) == [
        "cold_smoke",
        "pumped",
        "slice",
        "trim",
    ]
    assert api.call("POST", f"/batches/{code}/way", {"way": "nothing"})[0] == 404
    assert api.call("POST", "/batches/X-99/way", {"way": "brine"})[0] == 404


def test_a_batch_follows_the_way_that_was_chosen_for_it(api):
    save(api, FULL)
    code = api.started()
    answer = api.call("POST", f"/batches/{code}/way", {"way": "full"})[1]
    assert (answer["way"], answer["way_version"]) == ("full", 1)
    assert [step["kind"] for step in answer["steps"]] == ["trim", "cure", "smoke", "slice"]
    assert answer["notes"] == []
    assert float(answer["steps"][2]["spent"]) == pytest.approx(5.4, abs=0.01)
    save(api, {**FULL, "steps": FULL["steps"][:2]})
    assert forecast(api, code)["way_version"] == 1
    # a kind of step the way does not know counts by the usual order
    api.recorded(code, TRIM)
    api.recorded(code, weigh("rest", A="4.9 lb", B="2.9 lb"))
    assert [step["kind"] for step in forecast(api, code)["steps"]] == ["smoke", "slice"]


def test_forecasts_are_kept_and_scored_when_the_batch_is_done(api):
    assert api.get("/calibration")[1]["all"]["count"] == 0
    code = api.started(course="cooked")
    api.recorded(code, PACK)
    assert Forecast.objects.count() == 1
    finish(api, code)
    assert list(Forecast.objects.values_list("stage", flat=True).order_by("id")) == [
        *("bought", "trim", "cure", "smoke", "slice")
    ]
    answer = api.get("/calibration")[1]
    assert (answer["all"]["count"], answer["batches"], answer["waiting"]) == (5, 1, 0)
    assert [stage["label"] for stage in answer["stages"]] == [
        *("as bought", "once trimmed", "once cured", "once smoked", "partly sliced")
    ]
    true = api.get(f"/batches/{code}")[1]["house"]["unit_cost"]["per_lb"]
    assert {one["true"]["per_lb"] for one in answer["scored"]} == {true}
    for one in answer["scored"]:
        low, high = float(one["price"]["low"]["per_lb"]), float(one["price"]["high"]["per_lb"])
        came = "held" if low <= float(true) <= high else "above" if float(true) > high else "below"
        assert one["came"] == came
    assert answer["all"]["held"] + answer["all"]["above"] + answer["all"]["below"] == 5
    with (
        pytest.raises(DatabaseError, match="never changed"),
        transaction.atomic(),
        connection.cursor() as cursor,
    ):
        cursor.execute("UPDATE batches_forecast SET price_middle = 1")


def test_a_corrected_entry_is_forecast_from_anew(api):
    code = api.started(course="cooked")
    body = api.recorded(code, TRIM)
    wrong = body["entry"]
    lighter = {**TRIM, "pieces": [{"mark": "A", "weight": "4 lb"}, {"mark": "B", "weight": "3 lb"}]}
    api.recorded(code, lighter, corrects=wrong, reason="tray")
    api.recorded(code, slice_of("A", "3.5 lb"))
    api.recorded(code, slice_of("B", "2.5 lb"))
    answer = api.get("/calibration")[1]
    assert [(stage["stage"], stage["count"]) for stage in answer["stages"]] == [
        ("bought", 1),
        ("trim", 1),
        ("slice", 1),
    ]
    assert Forecast.objects.filter(stage="trim").count() == 2


def test_merged_meats_and_documents_are_not_forecast(api):
    code = api.started()
    api.recorded(code, {**BOUGHT, "cut": "shoulder"})
    api.recorded(
        code,
        {"act": "merge", "kind": "mix", "pieces": ["lot", "lot 2"], "into": {"mark": "M", "weight": "20 lb"}},
    )
    answer = forecast(api, code)
    assert "mixed together" in answer["notes"][0]
    assert answer["price"] is None
    document = api.client.get(f"/api/kitchens/{api.slug}/batches/{code}/files/json").content.decode()
    before = Forecast.objects.count()
    api.call("POST", "/imports", {"document": document})
    assert Forecast.objects.count() == before


def test_batches_of_an_older_program_are_read_once(api):
    code = api.started()
    finish(api, code)
    StepYield.objects.all().delete()
    Kitchen.objects.update(derived_edition="")
    assert renew_stale() == 1
    assert len(api.get("/yields")[1]["yields"]) == 4
    assert StepYield.objects.count() == 4
    assert renew_stale() == 0


def test_history_is_of_one_kitchen(api, other):
    finish(api, api.started())
    assert other.get("/yields")[1]["yields"] == []
    assert other.get("/calibration")[1]["all"]["count"] == 0


def test_house_batches_are_fried_as_often_as_one_likes(api):
    code = api.started()
    wrong = api.recorded(code, {"act": "fry", "kept": "90"})["entry"]
    api.recorded(code, {"act": "fry", "kept": "80"}, corrects=wrong, reason="wet")
    api.recorded(code, {"act": "withdraw"}, corrects=wrong, reason="never fried")
    for content in (
        {"act": "fry", "raw": "100 g", "cooked": "40 g"},
        {"act": "fry", "raw": "100 g", "cooked": "44 g"},
        {"act": "fry", "kept": "42"},
    ):
        body = api.recorded(code, content)
    house = body["batch"]["house"]
    assert (house["fry_kept"], house["fry_spread"], house["fry_tests"]) == ("42.0", "2.0", 3)
    assert list_fryings(Kitchen.objects.get()) == [0.42, 0.44, 0.40]
    for content, path in (
        ({"act": "fry", "raw": "100 g", "cooked": "101 g"}, "content.cooked"),
        ({"act": "fry", "raw": "100 g"}, "content.cooked"),
        ({"act": "fry", "raw": "100 g", "cooked": "40 g", "kept": "40"}, "content.kept"),
    ):
        status, problem = api.record(code, content)
        assert status == 422
        assert problem["fields"][0]["path"].endswith(path.partition(".")[2])
    save(api, WAY)
    answer = api.call(
        "POST", "/case", {"way": "plain", "offers": [{"id": "a", "cut": "jowl", "price": "2"}]}
    )[1]
    assert answer["offers"][0]["cooked"]["middle"]
