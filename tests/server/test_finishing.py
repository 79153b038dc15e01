"""Finished or not: what is compared with the shop, when a batch is done, what a year saved, the index."""

import pytest

from dolmetsch.server.batches.forecast.derived import renew_stale
from dolmetsch.server.batches.models import Batch, StepYield
from dolmetsch.server.kitchens.models import Kitchen
from tests.server.conftest import TRIM, weigh
from tests.server.test_outlooks import finish, slice_of
from tests.server.test_verdict_api import PACK, smoked, tried, verdict_of


def test_an_unfinished_pound_is_never_set_beside_the_shops(api):
    """Smoked at 3.42 so far; chilled and sliced it is expected at 3.99, and that is what is compared."""
    code = smoked(api)
    batch = api.get(f"/batches/{code}")[1]
    assert (batch["house"]["stage"], batch["house"]["unit_cost"]["per_lb"]) == ("smoked", "3.42")
    (shop,) = batch["shops"]
    assert {shop[key] for key in ("saved_per_lb", "saved_on_batch", "is_cheaper", "earned_per_hour")} == {
        None
    }
    judged = verdict_of(api, code)["judged"]
    assert (judged["is_forecast"], judged["size"]) == (True, None)
    expected = judged["expected"]
    assert (expected["stage"], expected["price"]["per_lb"]) == ("sliced", "3.99")
    assert float(expected["low"]["per_lb"]) < 3.99 < float(expected["high"]["per_lb"])
    pound = judged["bases"][0]
    assert (pound["label"], pound["price"]) == ("a pound, sliced, by the forecast", "3.99")
    assert (pound["low"], pound["high"]) == (expected["low"]["per_lb"], expected["high"]["per_lb"])
    (shop,) = judged["shops"]
    assert (shop["saved_per_lb"], shop["chance"], shop["is_cheaper"]) == ("2.01", 100, True)
    assert float(shop["saved_low"]["per_lb"]) < 2.01 < float(shop["saved_high"]["per_lb"])
    assert shop["break_even"] is None
    # the same figures as the forecast's own page, and none of the sheet's
    answer = api.get(f"/batches/{code}/forecast")[1]
    assert (answer["price"]["middle"]["per_lb"], answer["chance"]) == ("3.99", 100)
    figures = {one["figure"] for one in verdict_of(api, code)["derivations"]}
    assert not figures & {"saved_per_lb", "saved_on_batch", "break_even", "earned_per_hour"}
    today = api.get("/today")[1]["under_way"][0]
    assert (today["stage"], today["saved_per_lb"]) == ("smoked", None)


def test_a_forecast_that_cannot_tell_says_neither(api):
    code = smoked(api)
    api.recorded(code, {**PACK, "name": "near", "paid": "4.00"})
    _, near = verdict_of(api, code)["judged"]["shops"]
    assert (near["is_cheaper"], 25 < near["chance"] < 75) == (None, True)
    rung = verdict_of(api, code)["judged"]["bases"][0]["shops"][1]
    assert (rung["apart"], rung["chance"]) == (False, near["chance"])
    _, dear = tried(api, code, shops=["", "3.00"])["judged"]["shops"]
    assert (dear["is_cheaper"], dear["chance"]) == (False, 0)


def test_trials_and_files_of_an_unfinished_batch_are_of_the_forecast(api):
    code = smoked(api)
    judged = tried(api, code, tag="4.00")["judged"]
    assert (judged["is_forecast"], judged["house"]["unit_cost"]["per_lb"]) == (True, "6.75")
    assert float(judged["expected"]["price"]["per_lb"]) == pytest.approx(3.99 * 40.5 / 20.5, abs=0.03)
    table = api.client.get(f"/api/kitchens/{api.slug}/batches/{code}/files/csv").content.decode()
    assert (
        '"forecast: price of a pound, sliced",3.99' in table or "forecast: price of a pound, sliced" in table
    )
    assert "saved a pound by the forecast" in table
    api.recorded(code, {"act": "finish"})
    table = api.client.get(f"/api/kitchens/{api.slug}/batches/{code}/files/csv").content.decode()
    assert "forecast" not in table


def test_portions_slices_and_cooked_ounces_of_the_forecast(api):
    code = smoked(api)
    api.recorded(code, {"act": "portion", "weight": "4 oz"})
    pound, portion, piece, cooked = verdict_of(api, code)["judged"]["bases"]
    assert (portion["label"], portion["price"]) == ("a portion of 4 oz, by the forecast", "1.00")
    assert (piece["price"], "what one weighs" in piece["missing"]) == (None, True)
    # .42 is left of a house's pound after frying, give or take
    assert float(cooked["price"]) == pytest.approx(float(pound["price"]) / 16 / 0.42, abs=0.01)
    assert float(cooked["high"]) / float(cooked["low"]) > float(pound["high"]) / float(pound["low"])
    api.recorded(code, {"act": "fry", "kept": "50"})
    cooked = verdict_of(api, code)["judged"]["bases"][3]
    assert float(cooked["price"]) == pytest.approx(float(pound["price"]) / 8, abs=0.01)


def test_meats_mixed_together_have_no_forecast_and_so_no_comparison(api):
    code = smoked(api)
    api.recorded(code, {"act": "merge", "kind": "mix", "pieces": ["A", "B"], "into": {"weight": "6 lb"}})
    judged = verdict_of(api, code)["judged"]
    assert (judged["is_forecast"], judged["expected"], judged["shops"][0]["saved_per_lb"]) == (
        True,
        None,
        None,
    )
    assert "once it is finished" in judged["bases"][0]["missing"]


@pytest.mark.parametrize("kind", ["pull", "slice", "pack"])
def test_a_batch_is_finished_once_every_piece_is_sliced_pulled_or_packed(api, kind):
    code = smoked(api)
    assert not api.recorded(code, weigh(kind, A="3.9 lb"))["batch"]["is_finished"]
    batch = api.recorded(code, weigh(kind, B="1.9 lb"))["batch"]
    assert (batch["is_finished"], batch["place"], batch["shops"][0]["is_cheaper"]) == (True, "books", True)


def test_slices_and_dice_finish_a_batch_with_the_price_of_a_slice(api):
    code = smoked(api)
    pieces = [{"mark": "A1", "weight": "3 lb", "slices": "60"}, {"mark": "A2", "weight": "0.9 lb"}]
    api.recorded(code, {"act": "split", "kind": "slice", "piece": "A", "pieces": pieces})
    batch = api.recorded(code, slice_of("B", "1.9 lb"))["batch"]
    # B: 1.9 lb, 10 slices; the dice carry their own weight's cost
    assert (batch["is_finished"], batch["house"]["slices"], batch["house"]["cost_per_slice"]) == (
        True,
        70,
        "0.25",
    )


def test_a_dried_batch_is_finished_when_the_cook_says_so_and_the_books_learn_from_it(api):
    code = api.started()
    api.recorded(code, TRIM)
    for weights in ({"A": "4 lb", "B": "2.4 lb"}, {"A": "3.4 lb", "B": "2 lb"}):
        assert not api.recorded(code, weigh("hang", **weights))["batch"]["is_finished"]
    recorded = api.recorded(code, {"act": "finish"})
    batch = recorded["batch"]
    assert (batch["is_finished"], batch["log"][-1]["label"]) == (True, "Finished")
    assert StepYield.objects.get(method="air_dry").log_ratio == pytest.approx(-0.3930, abs=1e-3)
    yields = {one["method"] for one in api.get("/yields")[1]["yields"]}
    assert yields == {"trim", "air_dry"}
    undone = api.recorded(code, {"act": "withdraw"}, corrects=recorded["entry"], reason="still soft inside")
    assert not undone["batch"]["is_finished"]
    assert not StepYield.objects.exists()
    api.recorded(code, {"act": "finish"})
    more = {"act": "bought", "cut": "jowl", "own_weight": "3 lb", "price_basis": "pack", "price": "6"}
    assert not api.recorded(code, more)["batch"]["is_finished"]


def test_a_finished_batch_stays_finished_through_a_document(api, other):
    code = smoked(api)
    api.recorded(code, {"act": "finish"})
    document = api.client.get(f"/api/kitchens/{api.slug}/batches/{code}/files/json").content.decode()
    assert '"finished": true' in document
    status, _ = other.call("POST", "/imports", {"document": document})
    assert (status, Batch.objects.get(kitchen__slug=other.slug).is_finished) == (201, True)


def test_a_year_is_the_sum_of_what_was_saved_and_too_little_is_said_to_be(api):
    totals = []
    for number in range(3):
        code = smoked(api)
        api.recorded(code, {"act": "finish"})
        judged = verdict_of(api, code)["judged"]
        totals.append(float(judged["shops"][0]["saved_on_batch"]))
        year = judged["year"]
        assert (year["batches"], year["compared"]) == (number + 1, [number + 1])
        assert (year["saved"][0] is None) == (number < 2)
    assert float(year["saved"][0]) == pytest.approx(sum(totals))
    # a batch that was dearer takes from it
    code = smoked(api)
    entry = api.get(f"/batches/{code}")[1]["log"][-1]["id"]
    api.recorded(code, {**PACK, "paid": "1.00"}, corrects=entry, reason="on offer")
    api.recorded(code, {"act": "finish"})
    assert float(verdict_of(api, code)["judged"]["year"]["saved"][0]) < sum(totals)


def test_the_verdict_opens_on_finished_batches_and_what_is_under_way_by_forecast(api, other):
    under_way = smoked(api)
    first, second = api.started(), api.started()
    for code in (first, second):
        api.recorded(code, {**PACK, "paid": "8.00"})
        finish(api, code)
    index = api.get("/verdicts")[1]
    assert [one["code"] for one in index["finished"]] == [second, first]
    assert (
        index["finished"][0]["saved_on_batch"]
        == verdict_of(api, second)["judged"]["shops"][0]["saved_on_batch"]
    )
    (mine,) = index["under_way"]
    judged = verdict_of(api, under_way)["judged"]
    assert (mine["code"], mine["stage"], mine["price"], mine["low"], mine["chance"]) == (
        under_way,
        "smoked",
        judged["expected"]["price"],
        judged["expected"]["low"],
        judged["shops"][0]["chance"],
    )
    assert api.get("/verdicts?page=9")[1]["page"] == 1
    assert other.get("/verdicts")[1]["finished"] == other.get("/verdicts")[1]["under_way"] == []


def test_batches_an_older_program_left_open_are_looked_at_again(api):
    code = smoked(api)
    api.recorded(code, weigh("pull", A="3 lb", B="1.5 lb"))
    Batch.objects.update(is_finished=False, place="bench")
    StepYield.objects.all().delete()
    Kitchen.objects.update(derived_edition="1")
    assert renew_stale() == 1
    assert (Batch.objects.get().is_finished, StepYield.objects.count()) == (True, 2)
