"""A kitchen that weighs and prices in kilograms: every figure and its word are of that unit."""

from decimal import Decimal
from fractions import Fraction

import pytest

from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.ways.reading import read_way
from dolmetsch.server.ways.schemas import WayIn
from tests.server.conftest import BOUGHT, make_kitchen, weigh
from tests.server.test_case import OFFERS, WAY, save
from tests.server.test_prices import PACK as LISTED
from tests.server.test_prices import noted
from tests.server.test_verdict_api import PACK, smoked, tried, verdict_of

KG = Decimal("2.20462262")


@pytest.fixture
def metric(api):
    Kitchen.objects.update(weight_unit="kg", temperature_unit="C", currency="EUR")
    return api


def rounded(price):
    return str(price.quantize(Decimal("0.01")))


def test_house_and_shop_are_compared_by_the_kilogram(metric):
    """20.50 for 6 lb is 3.4167 a pound, 7.53 a kilogram; the shop asks 6.00 a pound, 13.23."""
    code = smoked(metric)
    metric.recorded(code, {"act": "fry", "raw": "100 g", "cooked": "40 g"})
    metric.recorded(code, {"act": "finish"})
    pound, _, _, cooked = verdict_of(metric, code)["judged"]["bases"]
    assert (pound["label"], pound["price"]) == ("a kilogram, smoked", rounded(Decimal("20.5") / 6 * KG))
    assert (pound["shops"][0]["price"], pound["shops"][0]["saved"]) == ("13.23", "5.70")
    # 40 % left of it: 7.5325 / 0.4 / 10 for 100 g
    assert (cooked["label"], cooked["price"]) == ("100 g, cooked", "1.88")
    assert float(pound["low"]) < float(pound["price"]) < float(pound["high"])
    assert tried(metric, code)["judged"]["bases"][0]["label"] == "a kilogram, smoked"


def test_the_bill_adds_up_by_the_kilogram(metric):
    code = smoked(metric)
    bill = verdict_of(metric, code)["judged"]["bill"]
    assert sum(Decimal(part["per_kg"]) for part in bill["parts"]) == Decimal(bill["per_kg"])
    assert bill["per_kg"] == rounded(Decimal("20.5") / 6 * KG)


@pytest.mark.parametrize(
    ("unit", "typed", "said"),
    [
        ("kg", "2500", "Is 2500 meant in kg? Write 2500 g, or 2500 kg."),
        ("kg", "100", "Is 100 meant in kg? Write 100 g, or 100 kg."),
        ("kg", "99.9", None),
        ("kg", "2500 g", None),
        ("kg", "150 kg", None),
        ("lb", "1000", "Is 1000 meant in lb? Write 1000 oz, or 1000 lb."),
        ("lb", "999", None),
    ],
)
def test_a_number_alone_that_would_be_very_heavy_is_asked_about(db, unit, typed, said):
    api = make_kitchen("heavy", weight_unit=unit)
    bought = {**BOUGHT, "own_weight": typed, "label_weight": ""}
    status, body = api.call("POST", "/batches", {"name": "Belly", "bought": bought})
    if said is None:
        assert status == 201
    else:
        (asked,) = body["fields"]
        assert (status, asked["path"], asked["code"], asked["message"]) == (
            422,
            "bought.own_weight",
            "which_unit",
            said,
        )


def test_the_forecast_is_compared_by_the_kilogram_at_the_same_chance(api):
    code = api.started(course="cooked")
    api.recorded(code, weigh("trim", lot="8 lb"))
    api.recorded(code, PACK)
    by_pound = verdict_of(api, code)["judged"]["bases"]
    Kitchen.objects.update(weight_unit="kg", temperature_unit="C")
    by_kilo = verdict_of(api, code)["judged"]["bases"]
    assert by_kilo[0]["label"] == "a kilogram, sliced, by the forecast"
    for one, other, times in zip(
        (by_pound[0], by_pound[3]), (by_kilo[0], by_kilo[3]), (KG, Decimal("3.5274")), strict=True
    ):
        for name in ("price", "low", "high"):
            assert abs(Decimal(one[name]) * times - Decimal(other[name])) < Decimal("0.03")
        assert one["shops"][0]["chance"] == other["shops"][0]["chance"]


def test_papers_name_the_kilogram(metric):
    code = smoked(metric)
    answer = metric.client.get(f"/api/kitchens/{metric.slug}/batches/{code}/files/csv")
    table = answer.content.decode("utf-8-sig")
    assert '"price of a kilogram, smoked",7.53' in table
    assert "part of the bill,a kilogram,a portion" in table
    assert "pound" not in table


def test_an_offer_is_told_by_100_g_cooked(api):
    assert save(api, WAY)[0] == 201
    noted(api, **LISTED)
    asked = {"way": "plain", "offers": OFFERS[:1]}
    by_ounce = api.call("POST", "/case", asked)[1]["offers"][0]["cooked"]["middle"]
    Kitchen.objects.update(weight_unit="kg", temperature_unit="C")
    by_100 = api.call("POST", "/case", asked)[1]["offers"][0]["cooked"]["middle"]
    assert abs(Decimal(by_ounce) * Decimal("3.5274") - Decimal(by_100)) < Decimal("0.03")


def test_minutes_of_a_method_are_by_the_kilogram_or_by_the_pound(api):
    def minutes(**step):
        answer = WayIn.model_validate({"name": "short", "steps": [{"method": "slice", **step}]})
        way = read_way(Kitchen.objects.get(), answer).way
        return way.steps[0].kilo_minutes

    assert minutes(kilo_minutes="4.5") == Fraction("4.5")
    assert minutes(pound_minutes="2") == 2 * 1000 / GRAMS_PER_LB
    both = {**WAY, "steps": [{"method": "slice", "pound_minutes": "2", "kilo_minutes": "4"}]}
    status, refused = save(api, both)
    assert (status, refused["fields"][0]["path"]) == (422, "steps[0].kilo_minutes")


def test_the_log_gives_bare_numbers_the_unit_and_the_sign_they_were_read_in(metric):
    code = metric.started()
    off = {"name": "lean", "weight": "0,5", "worth": "price", "price": "4,20"}
    pieces = [{"mark": "A", "weight": "3,5"}]
    metric.recorded(
        code, {"act": "split", "kind": "trim", "piece": "lot", "pieces": pieces, "cut_off": [off]}
    )
    metric.recorded(code, {"act": "shop_pack", "name": "good", "paid": "6", "weight": "0.25"})
    metric.recorded(code, {"act": "portion", "weight": "0.06"})
    metric.recorded(code, {"act": "fry", "raw": "0.1", "cooked": "40 g"})
    lines = [entry["lines"] for entry in reversed(metric.get(f"/batches/{code}")[1]["log"])]
    log = [line for entry in lines for line in entry]
    assert "whole → A 3,5 kg" in log
    assert "off: lean 0,5 kg (worth €4,20 a kilogram)" in log
    assert "good: €6.00 for 0.25 kg" in log
    assert "0.06 kg" in log
    assert "40 % left after frying, 0.1 kg to 40 g" in log
