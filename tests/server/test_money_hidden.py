"""A helper who is not shown prices: what is about money alone is refused, of the rest it is left out."""

import json
import re
from typing import Annotated

import pytest
from pydantic import BaseModel, Field

from dolmetsch.server.access.money import field_shape, shape_of, without_money
from dolmetsch.server.access.rules import RULES
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.config.api import api as api_document
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from dolmetsch.server.quantities.schemas import Fixed, Money, UnitCost
from dolmetsch.server.quantities.spoken import hide_amounts, say_amount, show_amounts
from dolmetsch.server.quantities.typed import TypedMoney
from tests.server.conftest import TRIM, Api, sign_in, weigh
from tests.server.test_kitchens_apart import fill, ids  # noqa: F401 (a fixture)
from tests.server.test_rules import APART, IN_KITCHEN, ask

#: What the batch of the tests paid and was credited for, a pound's price, and a typed price.
AMOUNTS = re.compile(r"20\.00|17\.50|2\.50/lb|\$\d|2\.85")
#: The hour of a moment is no price, though its seconds may look like one.
HOURS = re.compile(r"T\d\d:\d\d:\d\d(\.\d+)?(?=Z|[+-]\d\d:)")


def find_amount(answer):
    return AMOUNTS.search(HOURS.sub("", answer.content.decode(errors="replace")))


@pytest.fixture
def helper(api):
    user = User.objects.create(username="helper")
    kitchen = Kitchen.objects.get(slug=api.slug)
    Membership.objects.create(user=user, kitchen=kitchen, role=Role.HELPER)
    Kitchen.objects.filter(slug=api.slug).update(helpers_see_money=False, labour_rate="17.25")
    return Api(client=sign_in(user), slug=api.slug)


def test_no_price_reaches_a_helper_who_is_to_see_none(api, ids, helper):
    code = ids["code"]
    api.recorded(code, weigh("cure", A="5.1 lb", B="3.05 lb"))
    seen_by_owner = 0
    for name, method, path in IN_KITCHEN:
        rule = RULES[name]
        if name in APART or method != "GET" or not Role.HELPER.covers(rule.least):
            continue
        address = fill(path, api.slug, ids)
        answer = ask(helper.client, method, address)
        if rule.is_money:
            assert (answer.status_code, answer.json()["code"]) == (403, "money_hidden"), name
            continue
        if answer.streaming or answer.status_code != 200 or "json" not in answer["Content-Type"]:
            continue
        assert not find_amount(answer), (name, find_amount(answer), answer.content[:300])
        seen_by_owner += bool(find_amount(ask(api.client, method, address)))
    # the same questions do tell an owner
    assert seen_by_owner >= 3
    assert helper.client.get("/api/session").json()["kitchens"][0]["sees_money"] is False


def test_a_helper_weighs_and_the_answer_holds_no_price(api, ids, helper):
    code = ids["code"]
    status, body = helper.record(code, weigh("cure", A="5.1 lb", B="3.05 lb"), seen=2)
    assert status == 201
    assert not AMOUNTS.search(json.dumps(body))
    assert body["batch"]["strip"]["columns"][-1]["spent"] == ""
    # neither what came off took along, nor what was lost
    peels = [peel for column in body["batch"]["strip"]["columns"] for peel in column["peels"]]
    assert {peel["carried"] for peel in peels} <= {"", None}
    assert "" in {peel["carried"] for peel in peels}
    assert body["batch"]["loss_account"] == ""
    preview = helper.preview(code, weigh("smoke", A="4.6 lb"))[1]
    assert not AMOUNTS.search(json.dumps(preview))


def test_a_helper_records_weights_not_purchases_prices_or_the_policy(api, ids, helper):
    code = ids["code"]
    for content in (
        {"act": "shop_pack", "name": "Thick cut", "paid": "8.99", "weight": "1 lb"},
        {"act": "portion", "weight": "2 oz"},
        {"act": "policy", "labour_rate": "1"},
        {"act": "finish"},
    ):
        status, problem = helper.record(code, content, seen=2)
        assert (status, problem["code"]) == (403, "not_allowed"), content
    bought, trim = Entry.objects.order_by("id").values_list("id", flat=True)
    more = {"reason": "typed wrong", "seen": 2}
    assert helper.record(code, {"act": "withdraw"}, corrects=bought, **more)[0] == 403
    assert helper.record(code, TRIM, corrects=bought, **more)[0] == 403
    assert helper.record(code, TRIM, corrects=trim, **more)[0] == 201
    assert helper.record(code, {"act": "withdraw"}, seen=3)[0] == 403


def test_where_the_owner_lets_them_helpers_see_prices(api, ids, helper):
    Kitchen.objects.update(helpers_see_money=True)
    assert AMOUNTS.search(json.dumps(helper.get(f"/batches/{ids['code']}")[1]))
    assert helper.get("/prices")[0] == 200


class Inner(BaseModel):
    worth: Money | None
    weight: Fixed


class Outer(BaseModel):
    """A field of each form that money has in an answer."""

    cost: Money
    typed: TypedMoney = ""
    low: Fixed
    parts: list[Inner]
    either: Inner | UnitCost
    named: dict[str, Annotated[list[Money], Field(max_length=3)]]
    again: "Outer | None" = None


def test_money_is_emptied_by_the_type_of_its_field():
    inner = {"worth": "2.50", "weight": "2.50"}
    value = {
        "cost": "4.10",
        "typed": "$4.10 a pound",
        "low": "4.10",
        "parts": [inner, {"worth": None, "weight": "1.0"}],
        "either": {"per_lb": "3.00", "per_kg": "6.61"},
        "named": {"cost": ["1.00", "2.00"]},
        "unknown": "4.10",
    }
    shown = without_money({**value, "again": {**value, "again": None}}, shape_of(Outer))
    assert shown.pop("again") == {**shown, "again": None}
    hidden = {"worth": "", "weight": "2.50"}
    assert shown == {
        "cost": "",
        "typed": "",
        "low": "4.10",
        "parts": [hidden, {"worth": None, "weight": "1.0"}],
        "either": {"per_lb": "", "per_kg": ""},
        "named": {"cost": ["", ""]},
        "unknown": "4.10",
    }


def test_amounts_within_sentences_are_shown_or_not_however_they_are_printed():
    said = f"lean at {say_amount('$2.50')} a pound, {say_amount('CHF 3.10')} in all, 5.10 lb"
    for printed in (json.dumps(said), json.dumps(said, ensure_ascii=False), said):
        shown = show_amounts(printed.encode()).decode()
        assert shown.strip('"') == "lean at $2.50 a pound, CHF 3.10 in all, 5.10 lb"
        hidden = hide_amounts(printed.encode()).decode()
        assert hidden.strip('"') == "lean at … a pound, … in all, 5.10 lb"


def test_the_answer_without_prices_is_one_that_the_document_describes():
    """Whatever is money may be empty by its own schema."""
    parts = api_document.get_openapi_schema()["components"]["schemas"]
    asked = 0
    for model in list_models(BaseModel):
        if model.__name__ not in parts or model.__name__.endswith("In"):
            # what is sent in says a price itself, and is never emptied
            continue
        for name in model.model_fields:
            if field_shape(frozenset({model}), name).is_money:
                field = json.dumps(parts[model.__name__]["properties"][name])
                patterns = re.findall(r'"pattern": "((?:[^"\\]|\\.)*)"', field)
                assert all(re.match(json.loads(f'"{one}"'), "") for one in patterns), (model, name)
                asked += 1
    assert asked > 100


def list_models(base):
    for model in base.__subclasses__():
        yield model
        yield from list_models(model)
