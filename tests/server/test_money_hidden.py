"""A helper who is not shown prices: what is about money alone is refused, of the rest it is left out."""

import json
import re

import pytest

from dolmetsch.server.access.money import _MONEY, _without
from dolmetsch.server.access.rules import RULES
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.config.api import api as api_document
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from tests.server.conftest import TRIM, Api, sign_in, weigh
from tests.server.test_kitchens_apart import fill, ids  # noqa: F401 (a fixture)
from tests.server.test_rules import APART, IN_KITCHEN, ask

#: What the batch of the tests paid and was credited for, a pound's price, and a typed price.
AMOUNTS = re.compile(r"20\.00|17\.50|2\.50/lb|\$\d|2\.85")


@pytest.fixture
def helper(api):
    user = User.objects.create(username="helper")
    kitchen = Kitchen.objects.get(slug=api.slug)
    Membership.objects.create(user=user, kitchen=kitchen, role=Role.HELPER)
    Kitchen.objects.filter(slug=api.slug).update(helpers_see_money=False, labour_rate="17.25")
    return Api(client=sign_in(user), slug=api.slug)


def test_no_price_reaches_a_helper_who_is_to_see_none(api, ids, helper):  # noqa: F811
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
        text = answer.content.decode(errors="replace")
        assert not AMOUNTS.search(text), (name, AMOUNTS.search(text), text[:300])
        seen_by_owner += bool(
            AMOUNTS.search(ask(api.client, method, address).content.decode(errors="replace"))
        )
    # the same questions do tell an owner
    assert seen_by_owner >= 3
    assert helper.client.get("/api/session").json()["kitchens"][0]["sees_money"] is False


def test_a_helper_weighs_and_the_answer_holds_no_price(api, ids, helper):  # noqa: F811
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


def test_a_helper_records_weights_not_purchases_prices_or_the_policy(api, ids, helper):  # noqa: F811
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


def test_where_the_owner_lets_them_helpers_see_prices(api, ids, helper):  # noqa: F811
    Kitchen.objects.update(helpers_see_money=True)
    assert AMOUNTS.search(json.dumps(helper.get(f"/batches/{ids['code']}")[1]))
    assert helper.get("/prices")[0] == 200


@pytest.mark.parametrize(
    ("text", "shown"),
    [
        ("lean at $2.50 a pound", "lean at … a pound"),
        ("paid −€3.10, CHF 12.00 and 4.49/lb", "paid …, … and …"),
        ("4.49 a pound now", "… now"),
        ("5.10 lb of 10.00 lb, 51.0 %", "5.10 lb of 10.00 lb, 51.0 %"),
        ("at 145 °F after 2 h", "at 145 °F after 2 h"),
    ],
)
def test_prices_are_left_out_of_words(text, shown):
    assert _without({"said": text}) == {"said": shown}


def test_the_answer_without_prices_is_one_that_the_document_describes():
    """Each field that is emptied may be empty by its own schema."""
    parts = api_document.get_openapi_schema()["components"]["schemas"]
    strict = []
    for part, schema in parts.items():
        for name, field in schema.get("properties", {}).items():
            patterns = re.findall(r'"pattern": "((?:[^"\\]|\\.)*)"', json.dumps(field))
            # what is sent in says a price itself, and is never emptied
            if name in _MONEY and not part.endswith("In"):
                strict += [(part, name) for one in patterns if not re.match(json.loads(f'"{one}"'), "")]
    assert strict == []
