"""Dishes and the store cupboard: what a plate costs and takes, and what is left of salt and bags."""

import json
import uuid
from datetime import timedelta
from fractions import Fraction

import pytest
from django.db import OperationalError, connection, transaction
from django.utils import timezone

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.dishes.models import Dish, Plating
from dolmetsch.server.larder.models import PackNow, Taken
from dolmetsch.server.writing import kept_answers
from tests.server.conftest import as_file, make_kitchen, weigh
from tests.server.test_larder import (  # noqa: F401 (fixtures)
    everything,
    larder,
    packed,
    page,
    paths,
    take,
)
from tests.server.test_prices import PACK, noted

pytestmark = pytest.mark.django_db


def part(sort, name, amount="", **more):
    return {"sort": sort, "name": name, "amount": amount, **more}


ROLL = {
    "name": "Harbor roll",
    "parts": [
        part("larder", "Jowl, sliced", "3 slices"),
        part("price", "Rye flour", "40 g"),
        part("own", "leaves and tomato", "a handful", cost="0.52"),
    ],
    "price": "9.50",
}


@pytest.fixture
def kitchen(packed):
    """The larder of three packs of slices, and flour at 1.20 a kilogram."""
    noted(packed, sort="ingredient", name="Rye flour", price="1.20/kg")
    noted(packed, sort="ingredient", name="Eggs", price="3.60 for 12 each")
    return packed


def save(api, key=None, **change):
    return api.call("POST", "/dishes", {**ROLL, **change}, key)


def saved(api, **change):
    status, body = save(api, **change)
    assert status == 201, str(body)
    return read(api, change.get("name", ROLL["name"]))


def read(api, name=ROLL["name"]):
    status, body = api.get(f"/dishes/{name}")
    assert status == 200, str(body)
    return body


def plate(api, plates, name=ROLL["name"], key=None, **more):
    return api.call("POST", f"/dishes/{name}/plates", {"plates": str(plates), **more}, key)


def slice_cost():
    now = PackNow.objects.get(pack__mark="P1")
    return Fraction(now.cost) / 10


def test_a_plate_part_by_part_at_its_own_batchs_price(kitchen):
    roll = saved(kitchen)
    meat = 3 * slice_cost()
    costs = [one["cost"] for one in roll["parts"]]
    assert (costs[1], costs[2]) == ("0.05", "0.52")
    assert Fraction(costs[0]) == round(meat, 2)
    cost = meat + Fraction("0.048") + Fraction("0.52")
    assert Fraction(roll["dish"]["cost"]) == round(cost, 2)
    menu = roll["menu"]
    assert (menu["price"], menu["net"]) == ("9.50", "9.50")
    assert Fraction(menu["leaves"]) == round(Fraction("9.5") - cost, 2)
    assert Fraction(menu["food_cost"]) == round(100 * cost / Fraction("9.5"), 1)
    assert roll["parts"][0]["basis"] == f"{kitchen.code} P1"
    assert (roll["enough"], roll["dish"]["missing"]) == (10, [])


def test_by_weight_raw_and_cooked_with_a_yield(kitchen):
    per_gram = slice_cost() * 10 / (Fraction("453.59237") / 2)
    raw = saved(kitchen, parts=[part("larder", "jowl, SLICED", "1 oz", kept="50")])
    ounce = Fraction("453.59237") / 16
    assert Fraction(raw["dish"]["cost"]) == round(per_gram * ounce * 2, 2)
    cooked = saved(kitchen, parts=[part("larder", "Jowl, sliced", "1 oz", is_cooked=True)])
    assert (cooked["dish"]["cost"], cooked["parts"][0]["basis"]) == (None, "fry a slice first")
    kitchen.recorded(kitchen.code, {"act": "fry", "kept": "40"})
    cooked = read(kitchen)
    assert Fraction(cooked["dish"]["cost"]) == round(per_gram * ounce / Fraction("0.4"), 2)


def test_a_loaf_within_a_roll_and_eggs_by_the_piece(kitchen):
    loaf = {"name": "Rye loaf", "parts": [part("price", "Rye flour", "500 g")], "plates": "12", "price": ""}
    assert saved(kitchen, **loaf)["dish"]["cost"] == "0.05"
    parts = [part("dish", "rye LOAF", "2"), part("price", "eggs", "1 each"), part("price", "Eggs", "10 g")]
    roll = saved(kitchen, parts=parts)
    assert [one["cost"] for one in roll["parts"]] == ["0.10", "0.30", None]
    assert roll["parts"][2]["basis"] == "priced each, not by weight"
    assert roll["dish"]["missing"] == ["Eggs"]


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"name": ""}, "name"),
        ({"name": "a/b"}, "name"),
        ({"parts": []}, "parts"),
        ({"parts": [part("larder", "", "3")]}, "parts[0].name"),
        ({"parts": [part("larder", "Jowl, sliced", "")]}, "parts[0].amount"),
        ({"parts": [part("larder", "Jowl, sliced", "0 slices")]}, "parts[0].amount"),
        ({"parts": [part("larder", "Jowl, sliced", "a few")]}, "parts[0].amount"),
        ({"parts": [part("price", "Rye flour", "-2 g")]}, "parts[0].amount"),
        ({"parts": [part("own", "leaves")]}, "parts[0].cost"),
        ({"parts": [part("own", "leaves", cost="-1")]}, "parts[0].cost"),
        ({"parts": [part("own", "leaves", cost="1", kept="0")]}, "parts[0].kept"),
        ({"parts": [part("own", "leaves", cost="1", kept="101")]}, "parts[0].kept"),
        ({"parts": [part("dish", "Harbor roll", "1")]}, "parts[0].name"),
        ({"parts": [part("dish", "Soup", "1")]}, "parts[0].name"),
        ({"price": "-1"}, "price"),
        ({"plates": "0"}, "plates"),
        ({"tax": "lots"}, "tax"),
    ],
)
def test_a_dish_that_cannot_be_is_refused_at_its_place(kitchen, change, path):
    status, body = save(kitchen, **change)
    assert (status, list(paths(body))) == (422, [path])
    assert Dish.objects.count() == 0
    status, preview = kitchen.call("POST", "/previews/dishes", {**ROLL, **change})
    if path not in ("name", "parts"):
        assert (status, [one["path"] for one in preview["problems"]]) == (200, [path])


def test_a_dish_that_contains_itself_however_deep_is_refused(kitchen):
    saved(kitchen, name="A", parts=[part("own", "x", cost="1")])
    saved(kitchen, name="B", parts=[part("dish", "A", "1")])
    status, body = save(kitchen, name="A", parts=[part("dish", "b", "1")])
    assert (status, paths(body)) == (422, {"parts[0].name": "contains_itself"})
    assert read(kitchen, "B")["dish"]["cost"] == "1.00"


def test_what_to_charge_for_the_aim_and_which_dish_moved(kitchen):
    saved(kitchen, parts=[part("price", "Rye flour", "1 kg")])
    assert read(kitchen)["charge"] == []
    status, body = kitchen.call("POST", "/dish-aims", {"low": "28", "high": "35", "threshold": "5"})
    assert (status, body["aims"]) == (201, {"low": "28.0", "high": "35.0", "threshold": "5.0"})
    # 1.20 ÷ 0.35 and ÷ 0.28, in whole cents up
    assert read(kitchen)["charge"] == ["3.43", "4.29"]
    noted(kitchen, sort="ingredient", name="Rye flour", price="1.25/kg", on="2026-04-01")
    assert read(kitchen)["dish"]["moved"] is None
    noted(kitchen, sort="ingredient", name="Rye flour", price="1.50/kg", on="2026-04-02")
    (dish,) = kitchen.get("/dishes")[1]["dishes"]
    assert (dish["cost"], dish["cost_then"], dish["moved"]) == ("1.50", "1.20", "25.0")
    status, seen = kitchen.call("POST", f"/dishes/{ROLL['name']}/looks")
    assert (status, seen["dish"]["moved"], seen["dish"]["version"]) == (201, None, 2)
    assert [one["cost"] for one in seen["versions"]] == ["1.50", "1.20"]


@pytest.mark.parametrize(
    ("aims", "path"),
    [
        ({"low": "0", "high": "35", "threshold": "5"}, "low"),
        ({"low": "40", "high": "35", "threshold": "5"}, "high"),
        ({"low": "28", "high": "135", "threshold": "5"}, "high"),
        ({"low": "28", "high": "35", "threshold": ""}, "threshold"),
    ],
)
def test_an_aim_that_cannot_be_is_refused_at_its_place(kitchen, aims, path):
    status, body = kitchen.call("POST", "/dish-aims", aims)
    assert (status, list(paths(body))) == (422, [path])


def test_tax_in_the_price_is_not_the_kitchens(kitchen):
    only = [part("own", "all of it", cost="2.00")]
    menu = saved(kitchen, parts=only, price="11.90", tax="19", is_tax_in=True)["menu"]
    assert (menu["net"], menu["leaves"], menu["food_cost"]) == ("10.00", "8.00", "20.0")
    on_top = saved(kitchen, parts=only, price="10.00", tax="19")
    assert on_top["menu"]["net"] == "10.00"


def test_the_same_plate_with_the_shops_meat(kitchen):
    shop = {"name": "good shop bacon", "price": "8.00 for 1 lb", "slices": "16"}
    noted(kitchen, **{**PACK, "sort": "shop_pack", **shop})
    roll = saved(kitchen)
    house, shop = roll["bars"]
    assert (house["name"], shop["name"]) == ("our own", "good shop bacon")
    # three of sixteen slices of a pack at 8.00
    assert shop["parts"] == ["1.50", "0.05", "0.52"]
    assert (shop["cost"], shop["leaves"]) == ("2.07", "7.43")


def test_plating_takes_the_oldest_and_brings_money_in(kitchen):
    saved(kitchen)
    status, body = plate(kitchen, 4)
    assert (status, body["month_plates"], body["month_income"]) == (201, 4, "38.00")
    # twelve slices: all of P1 and two of P2
    assert page(kitchen, "P1")["pack"]["is_gone"]
    assert page(kitchen, "P2")["pack"]["left_slices"] == 8
    assert [one["words"] for one in page(kitchen, "P2")["news"]][-1] == "2 slices plated as Harbor roll"
    assert body["enough"] == 6
    final, accounted, stowed = everything(kitchen)
    assert accounted.cost == final.cost
    # the meat's own: 38.00 less flour at 0.048 and leaves at 0.52 a plate
    assert stowed.gone["plated"].income == Fraction("35.728")
    went = {one["fate"]: one for one in kitchen.get("/larder")[1]["went"]}
    assert went["plated"]["income"] == "35.73"


def test_a_plate_within_a_plate_takes_its_meat_too(kitchen):
    saved(kitchen)
    saved(kitchen, name="Two rolls", parts=[part("dish", "Harbor roll", "2")], price="18.00")
    assert read(kitchen, "Two rolls")["enough"] == 5
    assert plate(kitchen, 1, name="Two rolls")[0] == 201
    assert page(kitchen, "P1")["pack"]["left_slices"] == 4
    # 18.00 less flour and leaves of both
    assert everything(kitchen)[2].gone["plated"].income == Fraction("16.864")


@pytest.mark.parametrize(("plates", "code"), [(11, "not_enough"), ("0", "bad_fields"), ("two", "bad_fields")])
def test_plates_that_cannot_be_take_nothing(kitchen, plates, code):
    saved(kitchen)
    status, body = plate(kitchen, plates)
    assert (status, body["code"]) == (422, code)
    assert (Taken.objects.count(), Plating.objects.count()) == (0, 0)
    assert page(kitchen)["pack"]["left_slices"] == 10


def test_parts_of_slices_are_not_plated(kitchen):
    saved(kitchen, plates="2")
    assert plate(kitchen, 1)[1]["code"] == "part_of_slice"
    assert plate(kitchen, 2)[0] == 201


def test_plates_given_or_at_another_price(kitchen):
    saved(kitchen)
    assert plate(kitchen, 1, price="8.00")[1]["month_income"] == "8.00"
    assert plate(kitchen, 1, is_free=True)[1]["month_income"] == "8.00"


def test_plates_not_served_are_back_in_the_larder(kitchen):
    saved(kitchen)
    served = plate(kitchen, 4)[1]["served"][0]["id"]
    path = f"/platings/{served}/cancel"
    assert list(paths(kitchen.call("POST", path, {"reason": ""})[1])) == ["reason"]
    assert kitchen.call("POST", path, {"reason": "sent back"})[0] == 201
    assert kitchen.call("POST", path, {"reason": "sent back"})[0] == 409
    assert read(kitchen)["month_plates"] == 0
    assert (page(kitchen)["pack"]["left_slices"], page(kitchen, "P2")["pack"]["left_slices"]) == (10, 10)
    other = make_kitchen("elsewhere")
    assert other.call("POST", path, {"reason": "x"})[0] == 404


def test_a_resend_plates_once(kitchen):
    saved(kitchen)
    key = uuid.uuid4()
    assert [plate(kitchen, 2, key=key)[0] for _ in range(2)] == [201, 201]
    assert (Plating.objects.count(), page(kitchen)["pack"]["left_slices"]) == (1, 4)
    assert plate(kitchen, 3, key=key)[1]["code"] == "key_reused"


def test_another_kitchen_has_none_of_it(kitchen):
    saved(kitchen)
    other = make_kitchen("elsewhere")
    assert other.get("/dishes/Harbor roll")[0] == 404
    assert plate(other, 1)[0] == 404
    assert other.get("/dishes")[1]["dishes"] == []
    assert other.get("/dishes")[1]["products"] == []
    # of the same name, its own dish, of meat it never made
    status, _ = save(other)
    assert status == 201
    assert read(other)["parts"][0]["basis"] == "not made yet"
    assert read(other)["enough"] == 0
    assert other.get("/cupboard")[1]["stock"] == []


def test_the_next_of_its_kind_at_todays_price(kitchen):
    roll = saved(kitchen)
    assert "no price of jowl" in roll["next"][0]["why"]
    noted(kitchen, sort="meat", name="jowl, skin on", price="2.85/lb")
    ahead = read(kitchen)["next"][0]
    low, high = Fraction(ahead["low"]), Fraction(ahead["high"])
    assert low < high
    rest = Fraction("0.568")
    assert abs(Fraction(ahead["plate_low"]) - low - rest) < Fraction("0.011")


def test_a_dish_put_away_is_gone_from_the_list(kitchen):
    saved(kitchen)
    assert save(kitchen, put_away=True)[1]["dishes"] == []
    assert kitchen.get("/dishes/Harbor roll")[0] == 404
    assert save(kitchen)[1]["dishes"][0]["version"] == 3


def test_dishes_are_taken_away_and_brought_in(kitchen):
    saved(kitchen, name="Zest", parts=[part("own", "x", cost="1")])
    saved(kitchen, parts=[part("dish", "Zest", "1"), part("larder", "Jowl, sliced", "1 oz", is_cooked=True)])
    stem = f"/api/kitchens/{kitchen.slug}/dishes/files"
    text = kitchen.client.get(f"{stem}/json").content.decode()
    other = make_kitchen("elsewhere")
    status, made = other.call("POST", "/dish-imports", as_file(text))
    assert (status, [one["name"] for one in made["dishes"]]) == (201, ["Harbor roll", "Zest"])
    again = other.client.get(f"/api/kitchens/{other.slug}/dishes/files/json").content.decode()
    assert json.loads(again) == json.loads(text)
    document = json.loads(text)
    document["dishes"][0]["parts"][0]["name"] = "Nothing"
    status, body = other.call("POST", "/dish-imports", as_file(json.dumps(document)))
    assert (status, body["code"], "Nothing" in body["detail"]) == (422, "bad_document", True)
    for bad in ("{", "[]", '{"format": "dolmetsch-dishes/1", "dishes": [{}]}'):
        assert other.call("POST", "/dish-imports", as_file(bad))[1]["code"] == "bad_document"
    assert Dish.objects.filter(kitchen__slug="elsewhere").count() == 2


@pytest.mark.parametrize("form", ["csv", "xlsx"])
def test_dishes_come_back_from_a_spreadsheet(kitchen, form):
    more = {"plates": "2", "price": "9.50", "tax": "8", "is_tax_in": True}
    own = part("own", "-1 pickle", "1 each", cost="0.40", kept="90")
    saved(kitchen, parts=[part("larder", "Jowl, sliced", "1 oz", is_cooked=True), own], **more)
    file = kitchen.client.get(f"/api/kitchens/{kitchen.slug}/dishes/files/{form}").content
    assert kitchen.call("POST", "/dish-imports", as_file(file))[0] == 201
    first, second = (row.input for row in Dish.objects.order_by("id"))
    assert {**second, "words": first["words"]} == first


def test_a_spreadsheet_of_no_dishes_is_refused_at_its_place(kitchen):
    for text, said in (
        ("name,cost\nRoll,2\n", "no columns “dish” and “part”"),
        ("dish,part,from\nRoll,bun,moon\n", "row 2, parts.0.sort"),
        ("dish,part,from\nRoll,Nothing,dish\n", "There is no dish “Nothing”"),
    ):
        status, problem = kitchen.call("POST", "/dish-imports", as_file(text))
        assert (status, said in problem["detail"]) == (422, True), problem
    assert not Dish.objects.exists()


@pytest.mark.parametrize("table", ["dish", "plating", "platingcanceled", "dishaims", "stocknote"])
@pytest.mark.parametrize("statement", ["UPDATE dishes_{} SET id = id", "DELETE FROM dishes_{}"])
def test_no_record_of_a_dish_is_ever_changed(kitchen, table, statement):
    saved(kitchen)
    served = plate(kitchen, 1)[1]["served"][0]["id"]
    kitchen.call("POST", f"/platings/{served}/cancel", {"reason": "slip"})
    kitchen.call("POST", "/dish-aims", {"low": "28", "high": "35", "threshold": "5"})
    kitchen.call("POST", "/cupboard", {"what": "salt", "sort": "bought", "amount": "1 kg"})
    with connection.cursor() as cursor, pytest.raises(OperationalError), transaction.atomic():
        cursor.execute(statement.format(table))


def stock(api, what="salt"):
    return next(one for one in api.get("/cupboard")[1]["stock"] if one["what"] == what)


def note(api, sort, amount, what="salt", **more):
    return api.call("POST", "/cupboard", {"what": what, "sort": sort, "amount": amount, **more})


def salted(api, code, grams, what="salt", price="1.20/kg"):
    used = [{"what": what, "group": "cure", "amount": grams, "price": price}]
    api.recorded(code, {**weigh("rest", B="2.9 lb"), "used": used})


def test_the_cupboard_holds_what_was_bought_less_what_batches_used(kitchen):
    kitchen.recorded(kitchen.code, weigh("rest", B="2.9 lb"))
    assert note(kitchen, "bought", "1 kg", at=(timezone.now() - timedelta(minutes=5)).isoformat())[0] == 201
    salted(kitchen, kitchen.code, "200 g")
    salted(kitchen, kitchen.code, "100 g", what="Salt")
    row = stock(kitchen)
    # 700 g are left; one batch used 300 g: enough for two more
    assert (row["left"], row["a_batch"], row["batches"], row["is_low"]) == ("1.54 lb", "300 g", 2, False)
    assert note(kitchen, "counted", "0.25 kg")[0] == 201
    row = stock(kitchen)
    assert (row["left"], row["batches"], row["is_low"]) == ("250 g", 0, True)
    assert row["note"].startswith("counted ")
    assert note(kitchen, "bought", "1 kg")[0] == 201
    assert stock(kitchen)["left"] == "2.76 lb"


def test_what_batches_used_follows_corrections_and_stays_in_its_kitchen(kitchen):
    kitchen.recorded(kitchen.code, weigh("rest", B="2.9 lb"))
    noted(kitchen, sort="ingredient", name="salt", price="1.20/kg")
    assert stock(kitchen)["used"] == "0 g"
    salted(kitchen, kitchen.code, "200 g")
    salted(kitchen, kitchen.code, "100 g")
    row = stock(kitchen)
    assert (row["used"], row["a_batch"]) == ("300 g", "300 g")
    last = kitchen.get(f"/batches/{kitchen.code}")[1]["log"][-1]["id"]
    less = {"used": [{"what": "salt", "group": "cure", "amount": "40 g", "price": "1.20/kg"}]}
    content = {**weigh("rest", B="2.9 lb"), **less}
    kitchen.recorded(kitchen.code, content, corrects=last, reason="weighed again")
    row = stock(kitchen)
    assert (row["used"], row["a_batch"]) == ("240 g", "240 g")
    # of a batch that an older program wrote, nothing is kept in its summary
    summary = Batch.objects.get(code=kitchen.code).summary
    Batch.objects.filter(code=kitchen.code).update(
        summary={name: value for name, value in summary.items() if name != "used"},
    )
    kept_answers.cache.clear()
    assert stock(kitchen) == row
    other = make_kitchen("used-elsewhere")
    noted(other, sort="ingredient", name="salt", price="1.20/kg")
    assert (stock(other)["used"], stock(other)["a_batch"]) == ("0 g", None)


def test_more_used_than_bought_is_said_and_never_below_nothing(kitchen):
    note(kitchen, "bought", "100 g", at=(timezone.now() - timedelta(minutes=5)).isoformat())
    salted(kitchen, kitchen.code, "200 g")
    row = stock(kitchen)
    assert (row["left"], row["is_low"], row["note"]) == (
        "0 g",
        True,
        "More was used than was bought: count it.",
    )


def test_bags_are_counted_and_things_with_a_price_are_listed(kitchen):
    assert stock(kitchen, "Rye flour")["left"] is None
    assert note(kitchen, "counted", "40", what="bags")[0] == 201
    assert stock(kitchen, "bags")["left"] == "40"
    assert note(kitchen, "counted", "none", what="bags")[0] == 201
    assert stock(kitchen, "bags")["left"] == "0"
    for amount in ("", "much", "-3", "0 g"):
        status, body = note(kitchen, "bought", amount)
        assert (status, list(paths(body))) == (422, ["amount"]), amount
    assert list(paths(note(kitchen, "bought", "1 kg", what="")[1])) == ["what"]


def test_the_parts_of_a_plate_add_up_to_what_it_costs(api):
    """Three parts of a third of a dollar are 0.33, 0.33 and 0.34, and the plate is 1.00."""
    for name in ("mustard", "pickle", "bread"):
        noted(api, sort="ingredient", name=name, price="1.00", size="3")
    parts = [{"sort": "price", "name": name, "amount": "1"} for name in ("mustard", "pickle", "bread")]
    preview = api.call("POST", "/previews/dishes", {"name": "Plate", "parts": parts})[1]
    assert preview["problems"] == []
    costs = [part["cost"] for part in preview["parts"]]
    assert (sorted(costs), preview["cost"]) == (["0.33", "0.33", "0.34"], "1.00")
