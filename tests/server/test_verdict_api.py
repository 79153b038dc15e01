"""The verdict, trials of it, policies and settings, over the real record store."""

import pytest

from dolmetsch.server.batches.models import Entry
from tests.server.conftest import BOUGHT, TRIM, weigh

PACK = {"act": "shop_pack", "name": "good", "paid": "6.00", "weight": "1 lb", "slices": "12", "fry": "40"}


@pytest.fixture
def code(api):
    """10 lb for 20: A 5 lb and B 3 lb at 17.50, smoked to 4 lb and 2 lb with 3.00 of wood and 30 minutes.

    Finished as it is: a smoked pound is what is compared.
    """
    code = smoked(api)
    api.recorded(code, {"act": "finish"})
    return code


def smoked(api):
    code = api.started()
    api.recorded(code, {**TRIM, "scale": "50 g"})
    wood = {"what": "wood", "group": "fuel", "amount": "", "price": "3.00"}
    smoke = {**weigh("smoke", A="4 lb", B="2 lb"), "used": [wood], "minutes": "30", "scale": "50 g"}
    api.recorded(code, smoke)
    api.recorded(code, PACK)
    return code


def verdict_of(api, code):
    status, body = api.get(f"/batches/{code}/verdict")
    assert status == 200, str(body)
    return body


def tried(api, code, **wanted):
    status, body = api.call("POST", f"/batches/{code}/trial", wanted)
    assert status == 200, str(body)
    return body


def test_the_verdict_by_hand(api, code):
    """20.50 for 6 lb: 3.42 a pound. The shop asks 36: 15.50 saved, 31.00 an hour."""
    verdict = verdict_of(api, code)
    pound, portion, _, _ = verdict["judged"]["bases"]
    assert (pound["label"], pound["price"], pound["shops"][0]["saved"]) == ("a pound, smoked", "3.42", "2.58")
    assert pound["low"] < pound["price"] < pound["high"]
    assert (portion["price"], portion["missing"][:13]) == (None, "Say what a po")
    bill = verdict["judged"]["bill"]
    parts = {part["label"]: (part["per_lb"], part["on_batch"]) for part in bill["parts"]}
    assert parts == {
        "meat as bought": ("2.00", "12.00"),
        "lost in the trim": ("0.50", "3.00"),
        "lost in the smoke": ("0.84", "5.00"),
        "fuel": ("0.50", "3.00"),
        "credit for trim": ("-0.42", "-2.50"),
    }
    assert (bill["per_lb"], bill["on_batch"]) == ("3.42", "20.50")
    (shop,) = verdict["judged"]["shops"]
    assert (shop["saved_on_batch"], shop["earned_per_hour"]) == ("15.50", "31.00")
    assert [lever["label"] for lever in verdict["levers"]][:1] == ["10 % less kept when trimmed or smoked"]
    assert {lever["label"] for lever in verdict["levers"]} == {
        "10 % less kept when trimmed or smoked",
        "meat costs 10 % more",
        "fuel costs 10 % more",
        "10 % less credit for trim",
    }
    answer = {one["figure"]: one for one in verdict["derivations"]}
    log = api.get(f"/batches/{code}")[1]["log"]
    fuel = next(line for line in answer["cost_per_lb"]["inputs"] if line["label"] == "fuel")
    assert fuel["entries"] == [log[2]["id"]]


def test_a_trial_moves_the_verdict_and_not_the_record(api, code):
    """Smoked to 50 % of 8 lb: 4 lb at 20.50. Twice the tag: 40 of meat. The shop at 9.00."""
    before = api.get(f"/batches/{code}")[1]
    house = tried(api, code, yields={"smoke": "50 %"})["judged"]["house"]
    assert (house["weight"]["lb"], house["unit_cost"]["per_lb"]) == ("4.00", "5.12")
    assert tried(api, code, tag="4.00")["judged"]["house"]["cost"] == "40.50"
    assert tried(api, code, tag="8.8185", tag_unit="kg")["judged"]["house"]["cost"] in ("40.50", "40.51")
    assert tried(api, code, shops=["9.00"])["judged"]["shops"][0]["saved_per_lb"] == "5.58"
    assert tried(api, code, portion={"weight": "8 oz"})["judged"]["house"]["portion"] == "1.71"
    assert len(tried(api, code)["strip"]["columns"]) == 3
    assert not tried(api, code, tag="4.00")["judged"]["spread"]["is_known"]
    assert api.get(f"/batches/{code}")[1] == before


@pytest.mark.parametrize(
    ("wanted", "path"),
    [
        ({"tag": "much"}, "tag"),
        ({"yields": {"smoke": "0"}}, "yields.smoke"),
        ({"yields": {"smoke": "ninety"}}, "yields.smoke"),
        ({"minutes": "-2"}, "minutes"),
        ({"shops": ["x"]}, "shops[0]"),
        ({"portion": {"slices": "3", "weight": "2 oz"}}, "slices"),
    ],
)
def test_what_cannot_be_tried_is_told_at_its_dial(api, code, wanted, path):
    answer = tried(api, code, **wanted)
    assert (answer["judged"], [fault["path"] for fault in answer["problems"]]) == (None, [path])


def test_policies_of_kitchen_and_batch(api, code):
    flipped = {"labour_rate": "18.00", "by_products": False, "fuel": False}
    house = tried(api, code, policy=flipped)["judged"]["house"]
    assert (house["cost"], verdict_of(api, code)["policy_is_own"]) == ("29.00", False)
    api.recorded(code, {"act": "policy", **flipped})
    verdict = verdict_of(api, code)
    assert (verdict["judged"]["house"]["cost"], verdict["policy_is_own"]) == ("29.00", True)
    assert verdict["policy_words"] == "work at $18.00 an hour, trim not credited, fuel left out"
    settings = {"labour_rate": "20", "scale": "2 g", "fridge_slabs": 6, "smoker_slabs": 4}
    assert api.call("PUT", "/settings", settings)[0] == 200
    answer = api.get("/settings")[1]
    assert (answer["labour_rate"], answer["scale"], answer["smoker_slabs"]) == ("20.00", "2 g", 4)
    verdict = verdict_of(api, code)
    assert (verdict["judged"]["house"]["cost"], verdict["kitchen_policy"]["labour_rate"]) == (
        "29.00",
        "20.00",
    )
    assert (verdict["judged"]["size"]["wall"], verdict["judged"]["size"]["wall_is"]) == (4, "the smoker")
    fresh = api.started(name="After")
    assert api.get(f"/batches/{fresh}")[1]["policy"]["labour_rate"] == "20.00"
    entry = Entry.objects.get(batch__code=fresh)
    assert entry.scale_grams == 2


def test_settings_that_cannot_be(api, other):
    for settings in ({"labour_rate": "x"}, {"scale": "2 kg"}, {"fridge_slabs": 0}, {"surprise": 1}):
        assert api.call("PUT", "/settings", settings)[0] == 422
    assert other.client.get("/api/kitchens/test-kitchen/settings").status_code == 404


def test_the_scale_may_not_tell_house_and_shop_apart(api, code):
    near = {**PACK, "name": "near", "paid": "3.42"}
    api.recorded(code, near)
    rungs = verdict_of(api, code)["judged"]["bases"][0]["shops"]
    assert [(rung["name"], rung["apart"]) for rung in rungs] == [("good", True), ("near", False)]


def test_cooked_portions_fry_yields_and_overhead(api, code):
    api.recorded(code, {"act": "fry", "kept": "50 %"})
    api.recorded(code, {"act": "portion", "cooked_weight": "8 oz"})
    api.recorded(code, {**weigh("chill", A="4 lb"), "overhead": "3.50"})
    batch = api.get(f"/batches/{code}")[1]
    assert (batch["house"]["cost_per_cooked"]["per_lb"], batch["house"]["portion"]) == ("8.00", "4.00")
    assert batch["house"]["portion_label"] == "8 oz cooked"
    assert batch["shops"][0]["cost_per_cooked"]["per_lb"] == "15.00"
    cooked = verdict_of(api, code)["judged"]["bases"][3]
    assert (cooked["price"], cooked["shops"][0]["price"]) == ("0.50", "0.94")


def test_pieces_come_together_and_are_thrown_away(api, code):
    mix = {"act": "merge", "kind": "mix", "pieces": ["A", "B"], "into": {"weight": "5 lb", "slices": "40"}}
    batch = api.recorded(code, mix)["batch"]
    assert [(piece["mark"], piece["slices"]) for piece in batch["pieces"]] == [("MIX1", 40)]
    assert batch["strip"]["columns"][-1]["came_together"]
    throw = {"act": "discard", "pieces": ["MIX1"], "charge": "loss", "why": "left in the sun"}
    batch = api.recorded(code, throw)["batch"]
    assert (batch["loss_account"], batch["house"]["unit_cost"]) == ("20.50", None)
    assert batch["log"][-1]["lines"] == ["MIX1", "booked as loss", "left in the sun"]
    assert verdict_of(api, code)["judged"]["bill"] is None
    again = {**throw, "pieces": ["A"]}
    status, problem = api.record(code, again)
    assert (status, problem["fields"][0]["message"]) == (422, "“A” was merged in step 3 and is gone.")


def test_further_lots_extras_and_solution(api):
    code = api.started()
    more = {**BOUGHT, "price": "10.00", "extras": [{"what": "cart", "cost": "2"}], "solution": "12.5"}
    batch = api.recorded(code, more)["batch"]
    assert [piece["mark"] for piece in batch["pieces"]] == ["lot", "lot 2"]
    assert (batch["house"]["cost"], batch["log"][-1]["content"]["solution"]) == ("32.00", "12.5")
    assert batch["log"][-1]["lines"][-2:] == ["and cart $2.00", "12.5 % solution added"]


def test_pay_back(api, code):
    """120 for a sealer that keeps 10 % of 20.50 more: 2.05 a batch, 59 batches."""
    status, paid = api.call("POST", f"/batches/{code}/pay-back", {"price": "120", "kept_more": "10"})
    assert (status, paid["saved"], paid["batches"]) == (200, "2.05", 59)
    assert api.call("POST", f"/batches/{code}/pay-back", {"price": "x"})[1]["problems"][0]["path"] == "price"


def test_one_piece_alone(api, code):
    strip = api.get(f"/batches/{code}/strips/B")[1]
    assert [column["weight_out"]["lb"] for column in strip["columns"]] == ["10.00", "3.00", "2.00"]
    assert api.get(f"/batches/{code}/strips/Q")[0] == 404
