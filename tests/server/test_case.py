"""Ways, the case check, and an offer taken home."""

import uuid
from datetime import timedelta
from decimal import Decimal
from fractions import Fraction as F

import pytest
from django.utils import timezone

from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.server.batches.models import Batch, BatchWay, Entry
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.prices.queries import find_usual
from dolmetsch.server.ways.models import Way
from tests.server.test_prices import PACK, noted

USUAL = ["trim", "dry_cure", "rest", "hot_smoke", "chill", "slice"]
WAY = {"name": "plain", "steps": [{"method": method} for method in USUAL]}
FULL = {
    "name": "full",
    "portion_slices": "3",
    "slice_weight": "25 g",
    "steps": [
        {"method": "trim", "batch_minutes": "10", "worth": "1.10/lb"},
        {
            "method": "dry_cure",
            "days": 7,
            "used": [
                {"what": "salt", "group": "cure", "amount": "2.5 %"},
                {"what": "juniper", "group": "cure", "amount": "3 g", "price": "31/kg"},
            ],
        },
        {
            "method": "hot_smoke",
            "days": 1,
            "used": [
                {"what": "pellets", "group": "fuel", "amount": "6 lb", "per": "batch", "price": "0.90/lb"}
            ],
        },
        {
            "method": "slice",
            "pound_minutes": "2",
            "used": [
                {"what": "bags", "group": "packaging", "amount": "1", "per": "lb", "price": "0.36 each"}
            ],
        },
    ],
}
OFFERS = [
    {"id": "a", "cut": "jowl", "skin": "on", "price": "2.85", "pack_weight": "12 lb"},
    {"id": "b", "cut": "belly", "skin": "off", "price": "5.20", "trimmed": True},
    {
        "id": "c",
        "cut": "shoulder, bone in",
        "price": "15.92",
        "basis": "pack",
        "pack_weight": "8 lb",
        "solution": "12",
    },
]


def save(api, data=WAY, key=None):
    return api.call("POST", "/ways", data, key)


def check(api, offers=OFFERS, **more):
    status, body = api.call("POST", "/case", {"way": "plain", "offers": offers, **more})
    assert status == 200, str(body)
    return body


@pytest.fixture
def kitchen(api):
    """A kitchen with a way and the good shop bacon in its price list."""
    assert save(api)[0] == 201
    noted(api, **PACK)
    return api


def test_a_way_is_saved_version_by_version_and_priced_by_the_list(api):
    noted(api, sort="ingredient", name="Salt", price="1.20/kg", source="market")
    way = save(api, FULL)[1]["ways"][0]
    assert (way["version"], way["days"], way["portion"], way["missing"]) == (1, 8, "3 slices", [])
    salt = next(one for one in way["priced"] if one["what"] == "salt")
    assert salt["cost"] == {"per_lb": "0.01", "per_kg": "0.03"}
    assert salt["origin"] == "price list, market on 2026-03-02"
    pellets = next(one for one in way["priced"] if one["what"] == "pellets")
    assert (pellets["cost"], pellets["batch"]) == (None, "5.40")
    bags = next(one for one in way["priced"] if one["what"] == "bags")
    assert bags["cost"]["per_lb"] == "0.36"
    # next week's price costs it anew, nothing is saved for that
    noted(api, sort="ingredient", name="Salt", price="2.40/kg", source="market", on="2026-03-09")
    again = api.get("/ways")[1]["ways"][0]
    assert next(one for one in again["priced"] if one["what"] == "salt")["cost"]["per_kg"] == "0.06"
    assert save(api, {**FULL, "portion_slices": "2"})[1]["ways"][0]["version"] == 2
    assert [way.version for way in Way.objects.order_by("version")] == [1, 2]
    assert save(api, {**FULL, "put_away": True})[1]["ways"] == []


def test_what_has_no_price_is_named_and_left_out(api):
    way = save(api, FULL)[1]["ways"][0]
    assert way["missing"] == ["salt"]
    answer = api.call("POST", "/case", {"way": "full", "offers": OFFERS[:1]})[1]
    assert "“salt” has no price" in answer["notes"][0]
    # counted in the list, weighed in the way: no price that fits
    noted(api, sort="packaging", name="salt", price="0.10 each")
    assert api.get("/ways")[1]["ways"][0]["missing"] == ["salt"]


@pytest.mark.parametrize(
    ("step", "path"),
    [
        ({"batch_minutes": "long"}, "steps[0].batch_minutes"),
        ({"batch_minutes": "-1"}, "steps[0].batch_minutes"),
        ({"worth": "nothing"}, "steps[0].worth"),
        ({"used": [{"what": "", "amount": "1 g", "price": "1/kg"}]}, "steps[0].used[0].what"),
        ({"used": [{"what": "x", "amount": "", "price": "1/kg"}]}, "steps[0].used[0].amount"),
        ({"used": [{"what": "x", "amount": "0 g", "price": "1/kg"}]}, "steps[0].used[0].amount"),
        ({"used": [{"what": "x", "amount": "250 %", "price": "1/kg"}]}, "steps[0].used[0].amount"),
        (
            {"used": [{"what": "x", "amount": "2 %", "per": "batch", "price": "1/kg"}]},
            "steps[0].used[0].amount",
        ),
        ({"used": [{"what": "x", "amount": "1 g", "price": "free"}]}, "steps[0].used[0].price"),
        ({"used": [{"what": "x", "amount": "3", "price": "1/kg"}]}, "steps[0].used[0].amount"),
    ],
)
def test_a_bad_way_is_named_and_not_saved(api, step, path):
    answer = {"name": "bad", "steps": [{"method": "trim", **step}]}
    status, problem = save(api, answer)
    assert (status, [fault["path"] for fault in problem["fields"]]) == (422, [path])
    assert [one["path"] for one in api.call("POST", "/previews/ways", answer)[1]["problems"]] == [path]
    assert not Way.objects.exists()


def test_other_bad_ways(api):
    for answer in (
        {"name": "", "steps": WAY["steps"]},
        {**WAY, "portion_slices": "0"},
        {**WAY, "portion_slices": "3", "portion_weight": "2 oz"},
        {**WAY, "steps": []},
        {**WAY, "steps": [{"method": "boil"}]},
    ):
        assert save(api, answer)[0] == 422
    key = uuid.uuid4()
    assert save(api, WAY, key)[0] == save(api, WAY, key)[0] == 201
    assert Way.objects.count() == 1
    assert save(api, {**WAY, "name": "other"}, key)[0] == 409


def test_offers_are_ranked_by_the_sliced_pound(kitchen):
    answer = check(kitchen)
    assert [offer["id"] for offer in answer["offers"]] == ["c", "a", "b"]
    jowl = answer["offers"][1]
    kept = 0.88 * 0.95 * 0.99 * 0.86 * 0.985 * 0.87
    assert float(jowl["sliced"]["middle"]["per_lb"]) == pytest.approx(2.85 / kept, abs=0.006)
    assert jowl["tag"]["per_lb"] == "2.85"
    assert float(jowl["worth_up_to"]["per_lb"]) == pytest.approx(8.20 * kept, abs=0.01)
    assert jowl["verdict"] == "buy"
    assert jowl["steps"][0]["basis"] == "88.0 % ± 5.0: start value, 0 batches"
    shoulder = answer["offers"][0]
    assert (shoulder["tag"]["per_lb"], shoulder["meat"]["per_lb"]) == ("1.99", "2.23")
    assert "Enhanced meat is better not cured" in shoulder["warning"]
    assert jowl["warning"] == ""
    assert answer["against"] == "good shop bacon"
    assert answer["problems"] == []


def test_a_small_kitchen_without_shop_packs_is_still_told_the_price(api):
    save(api)
    answer = check(api)
    assert answer["offers"][0]["verdict"] is None
    assert answer["shops"] == []


def test_so_many_portions_on_a_day(kitchen):
    noted(kitchen, sort="ingredient", name="salt", price="1.20/kg")
    save(kitchen, FULL)
    day = timezone.localdate() + timedelta(days=30)
    answer = check(kitchen, way="full", portions="60", on=day.isoformat())
    assert answer["buy_by"] == (day - timedelta(days=8)).isoformat()
    jowl = next(offer for offer in answer["offers"] if offer["id"] == "a")
    assert (jowl["amount"]["packs"], jowl["amount"]["weight"]["lb"]) == (2, "24.00")
    assert jowl["amount"]["cost"] == "68.40"
    assert float(jowl["amount"]["left_portions"]) > 0
    assert jowl["packs_wanted"] == 2
    assert answer["portion_label"] == "3 slices"
    # a day that has gone by is none to buy by: said is when it can be ready
    late = check(kitchen, way="full", on=(timezone.localdate() + timedelta(days=3)).isoformat())
    ready = (timezone.localdate() + timedelta(days=8)).isoformat()
    assert (late["buy_by"], late["ready_if_bought_today"]) == (None, ready)


def test_so_much_sliced_goes_before_portions_and_is_as_sure_as_asked(kitchen):
    save(kitchen)
    asked = {"sliced": "8 lb", "portions": "4"}
    answers = [check(kitchen, **asked, sure=sure)["offers"] for sure in ("50", "90", "99")]
    amounts = [next(one["amount"] for one in offers if one["id"] == "b") for offers in answers]
    assert all(amount["left_portions"] is None for amount in amounts)
    pounds = [float(amount["weight"]["lb"]) for amount in amounts]
    assert pounds == sorted(set(pounds))
    assert float(amounts[0]["left"]["lb"]) == pytest.approx(0, abs=0.01)
    body = check(kitchen, sliced="0 lb", sure="100")
    assert {one["path"]: one["code"] for one in body["problems"]} == {"sliced": "zero", "sure": "too_large"}


@pytest.mark.parametrize(
    ("offer", "field", "code"),
    [
        ({"price": ""}, "price", "missing"),
        ({"price": "0"}, "price", "zero"),
        ({"price": "-2"}, "price", "negative"),
        ({"price": "two"}, "price", "unreadable"),
        ({"pack_weight": "0 lb"}, "pack_weight", "zero"),
        ({"pack_weight": "-3 lb"}, "pack_weight", "negative"),
        ({"basis": "pack", "pack_weight": ""}, "pack_weight", "missing"),
        ({"solution": "90"}, "solution", "too_large"),
        ({"solution": "some"}, "solution", "unreadable"),
        ({"cut": ""}, "cut", "missing"),
    ],
)
def test_a_bad_offer_is_named_and_the_others_are_ranked(kitchen, offer, field, code):
    answer = check(kitchen, [{**OFFERS[0], **offer}, OFFERS[1]])
    assert [(one["path"], one["code"]) for one in answer["problems"]] == [(f"offers[0].{field}", code)]
    assert [one["id"] for one in answer["offers"]] == ["b"]


def test_bad_plans_are_named(kitchen):
    for more, path in (
        ({"about": "much"}, "about"),
        ({"about": "0 lb"}, "about"),
        ({"portions": "0"}, "portions"),
        ({"portions": "2.5"}, "portions"),
        ({"portions": "40"}, "portions"),
        ({"on": "0001-01-01"}, "on"),
        ({"on": "9999-12-31"}, "on"),
    ):
        assert [one["path"] for one in check(kitchen, **more)["problems"]] == [path], more
    assert kitchen.call("POST", "/case", {"way": "none", "offers": []})[0] == 404


def test_a_price_on_the_wrong_basis_is_asked_about_until_it_is_sure(kitchen):
    noted(kitchen, price="2.79")
    typed = {**OFFERS[0], "price": "34.20"}
    asked = check(kitchen, [typed])["offers"][0]
    assert asked["question_is"] == "is_pack"
    assert asked["question"].startswith("$34.20 a pound? That looks like the price of the pack")
    assert check(kitchen, [{**typed, "is_sure": True}])["offers"][0]["question"] is None
    fixed = check(kitchen, [{**typed, "basis": "pack"}])["offers"][0]
    assert (fixed["question"], fixed["tag"]["per_lb"]) == (None, "2.85")
    other = check(kitchen, [{**OFFERS[0], "price": "2.85", "basis": "pack"}])["offers"][0]
    assert other["question_is"] == "is_each"


def test_what_meat_usually_costs_is_the_middle_of_the_year_before_its_latest_price(kitchen):
    """2.00, 2.40 and 2.80 in the year, 2.90 before it; what was taken back says nothing."""
    dated = {"2025-02-28": "2.90", "2026-01-05": "2.80", "2026-02-01": "2.00", "2026-03-01": "2.40"}
    for on, price in dated.items():
        noted(kitchen, price=price, on=on)
    slip = noted(kitchen, price="2.95", on="2026-03-02")
    noted(kitchen, corrects=slip["quote"], withdraw=True, reason="never was")
    (item,) = PriceItem.objects.filter(name="jowl, skin on")
    assert find_usual(item.kitchen, "meat") == {item.name: F("2.40") / GRAMS_PER_LB}
    listed = {one["cut"]: (one["price"], one["on"]) for one in kitchen.get("/case")[1]["listed"]}
    assert listed[item.name] == ("2.40", "2026-03-01")


def test_a_kitchen_of_kilograms_is_asked_in_kilograms(kitchen):
    Kitchen.objects.update(weight_unit="kg")
    noted(kitchen, price="6.28")
    asked = check(kitchen, [{**OFFERS[0], "price": "6.28", "basis": "pack"}])["offers"][0]
    assert asked["question_is"] == "is_each"
    assert "the price of a kilogram: such meat usually costs about $6.28 a kilogram" in asked["question"]


def test_the_shop_kind_to_beat_is_chosen(kitchen):
    noted(kitchen, **{**PACK, "name": "cheap one", "kind": "cheap", "price": "3.00"})
    assert check(kitchen)["against"] == "good shop bacon"
    answer = check(kitchen, against="cheap one")
    assert answer["against"] == "cheap one"
    assert [shop["name"] for shop in answer["shops"]] == ["cheap one", "good shop bacon"]
    assert all(offer["verdict"] == "walk_past" for offer in answer["offers"] if offer["id"] != "c")


def test_choices_offer_what_the_price_list_has(kitchen):
    noted(kitchen, price="34.20", size="12 lb", solution="12")
    answer = kitchen.get("/case")[1]
    assert answer["ways"][0]["name"] == "plain"
    assert answer["listed"] == [
        {
            "cut": "jowl, skin on",
            "price": "2.85",
            "source": "Quay butcher",
            "on": "2026-03-02",
            "pack_weight": "12.00 lb",
            "solution": "12",
        }
    ]


def take(api, offer="a", key=None, offers=OFFERS, way="plain", **more):
    body = {"case": {"way": way, "offers": offers}, "offer": offer, **more}
    return api.call("POST", "/case/taken", body, key)


def test_the_offer_taken_becomes_the_lot_and_nothing_is_typed_twice(kitchen):
    noted(kitchen, sort="ingredient", name="salt", price="1.20/kg")
    save(kitchen, FULL)
    status, made = take(kitchen, packs=2, way="full")
    assert status == 201
    batch = made["batch"]
    assert (batch["name"], batch["cut"]) == ("Jowl, full", "jowl, skin on")
    assert batch["strip"]["columns"][0]["weight_out"]["lb"] == "24.00"
    assert batch["house"]["cost"] == "68.40"
    assert [shop["unit_cost"]["per_lb"] for shop in batch["shops"]] == ["8.20"]
    assert batch["house"]["portion_label"] == "3 slices"
    assert BatchWay.objects.get().way.name == "full"
    forecast = kitchen.get(f"/batches/{batch['code']}/forecast")[1]
    assert (forecast["way"], len(forecast["steps"])) == ("full", 4)
    # a pack's price for three packs; the tag's water is in the record
    shoulder = take(kitchen, "c", packs=3)[1]["batch"]
    assert shoulder["house"]["cost"] == "47.76"
    bought = shoulder["log"][0]["content"]
    assert (bought["solution"], bought["cut"]) == ("12", "shoulder, bone in")


def test_an_offer_by_weight_asks_what_it_weighs(kitchen):
    status, problem = take(kitchen, "b")
    assert (status, problem["fields"][0]["path"]) == (422, "weight")
    assert not Batch.objects.exists()
    made = take(kitchen, "b", weight="9.5 lb")[1]["batch"]
    assert (made["house"]["cost"], made["cut"]) == ("49.40", "belly, skinless, trimmed")


def test_taking_is_all_or_nothing_and_once(kitchen):
    key = uuid.uuid4()
    assert take(kitchen, key=key)[0] == 201
    assert take(kitchen, key=key)[0] == 200
    assert Batch.objects.count() == 1
    assert take(kitchen, "c", key=key)[1]["code"] == "key_reused"
    entries = Entry.objects.count()
    assert take(kitchen, "nothing")[0] == 404
    assert take(kitchen, "a", offers=[{**OFFERS[0], "price": "x"}])[0] == 422
    assert take(kitchen, way="none")[0] == 404
    assert Entry.objects.count() == entries


def test_prices_of_another_kitchen_are_not_seen(kitchen, other):
    save(other, {**WAY, "name": "theirs"})
    assert check(other, way="theirs")["shops"] == []
    assert other.call("POST", "/case", {"way": "plain", "offers": []})[0] == 404


def test_a_kilogram_is_a_basis_too(kitchen):
    answer = check(kitchen, [{**OFFERS[0], "price": "6.28", "basis": "per_kg"}])["offers"][0]
    assert Decimal(answer["tag"]["per_lb"]) == Decimal("2.85")


def test_a_new_kitchen_is_priced_by_the_standard_method_and_takes_an_offer_home_by_it(api):
    """The start values of every usual step, nothing used; work as `start values` say."""
    choices = api.get("/case")[1]
    assert choices["ways"] == []
    steps = {one["course"]: one["steps"] for one in choices["courses"]}
    assert (next(iter(steps)), steps["pulled"]) == ("cooked", "trim, pulled")
    assert steps["cold_smoked_raw"] == "trim, dry cure, rest, cold smoke, chill, slice"
    status, answer = api.call("POST", "/case", {"offers": OFFERS})
    assert status == 200
    assert [offer["id"] for offer in answer["offers"]] == ["c", "a", "b"]
    assert (answer["way"], answer["course"], answer["course_label"]) == ("", "cooked", "cooked")
    asked = api.call("POST", "/case", {"offers": OFFERS, "portions": "60"})[1]
    assert [(one["path"], one["code"]) for one in asked["problems"]] == [("portions", "missing")]
    code = take(api, way="")[1]["batch"]["code"]
    assert not BatchWay.objects.exists()
    assert Batch.objects.get(code=code).name == "Jowl"
    # the batch taken home expects what its offer did
    about = api.call("POST", "/case", {"offers": OFFERS[:1], "about": "12 lb"})[1]["offers"][0]
    forecast = api.get(f"/batches/{code}/forecast")[1]
    assert forecast["way"] is None
    assert forecast["price"] == about["sliced"]
    # pulled it is dearer, and what was asked at the case is what it is to become
    pulled = {"offers": OFFERS[:1], "about": "12 lb", "course": "pulled"}
    dear = api.call("POST", "/case", pulled)[1]["offers"][0]["sliced"]
    assert float(dear["middle"]["per_lb"]) > float(about["sliced"]["middle"]["per_lb"])
    body = {"case": pulled, "offer": "a"}
    code = api.call("POST", "/case/taken", body)[1]["batch"]["code"]
    forecast = api.get(f"/batches/{code}/forecast")[1]
    assert (forecast["course"], forecast["price"]) == ("pulled", dear)
    assert api.get("/case")[1]["courses"][0]["course"] == "pulled"
    assert save(api)[0] == 201
    assert [way["name"] for way in api.get("/case")[1]["ways"]] == ["plain"]
