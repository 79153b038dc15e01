"""The JSON Schemas that ship agree with what is read and written."""

import json
from fractions import Fraction as F

import pytest
from hypothesis import given
from jsonschema import Draft202012Validator

from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.documents.answers import SCHEMAS, answer_cook, answer_drying
from dolmetsch.core.documents.batch_reading import BatchDocument
from dolmetsch.core.documents.sheet_writing import write_sheet
from dolmetsch.core.ledger.batch import Portion, ShopPack
from tests.core.documents import test_answers as documents
from tests.core.drying import test_drying as drying
from tests.core.heat import cooks
from tests.core.jowl import EXAMPLES
from tests.strategies import batches


def validator(name):
    schema = json.loads((SCHEMAS / f"{name}.schema.json").read_text())
    Draft202012Validator.check_schema(schema)
    return Draft202012Validator(schema)


@pytest.mark.parametrize(
    ("example", "schema"),
    [
        ("batch", "batch"),
        ("batch.answer", "sheet"),
        ("cure", "cure"),
        ("cure.answer", "cure-answer"),
        ("cook", "cook"),
        ("cook.answer", "cook-answer"),
        ("drying", "drying"),
        ("drying.answer", "drying-answer"),
    ],
)
def test_the_examples_satisfy_their_schemas(example, schema):
    validator(schema).validate(json.loads((EXAMPLES / f"{example}.json").read_text()))


SHEET = validator("sheet")


@given(batches())
def test_every_answer_satisfies_its_schema(batch):
    shop = (ShopPack(name="x", paid=F(3), grams=F(340), slices=7, fry_yield=F("0.4")),)
    batch = type(batch)(
        lots=batch.lots, steps=batch.steps, policy=batch.policy, shop=shop, portion=Portion(grams=F(30))
    )
    answer = write_sheet(BatchDocument(name=None, currency="USD", batch=batch), compute_sheet(batch))
    SHEET.validate(json.loads(json.dumps(answer)))


@pytest.mark.parametrize(
    "change",
    [
        {"lots": []},
        {"lots": [documents.lot(weight="1e3 g")]},
        {"lots": [documents.lot(paid=3)]},
        {"steps": [{}]},
        {"steps": [{"weigh": {"L": "1 lb"}, "split": "L", "into": []}]},
        {"steps": [{"pieces": ["L"]}]},
        {"steps": [{"weigh": {"L": "1 lb"}, "used": [{"count": 1, "price": "1 lb"}]}]},
        {"policy": {"by_products": "some"}},
    ],
)
def test_what_cannot_be_read_does_not_satisfy_the_schema(change):
    document = {"format": "dolmetsch-batch/1", "lots": [documents.lot()], **change}
    assert not validator("batch").is_valid(document)
    assert validator("batch").is_valid({**document, "lots": [documents.lot()], "steps": [], "policy": None})


@pytest.mark.parametrize(
    ("document", "schema"),
    [
        (cooks.document((0, 145), (4, 145)), "cook"),
        (cooks.document((0, {"air": 200}), meat=None, phases=[], pull_at="150"), "cook"),
        (drying.document(), "drying"),
        (drying.document((30, 500), cuts=[], ph=None), "drying"),
    ],
)
def test_short_logs_and_their_answers_satisfy_their_schemas(document, schema):
    validator(schema).validate(document)
    answer = {"cook": answer_cook, "drying": answer_drying}[schema](json.dumps(document))
    validator(f"{schema}-answer").validate(answer)


@pytest.mark.parametrize(
    "change",
    [
        {"unit": "K"},
        {"readings": []},
        {"readings": [{"at": "2026-11-26"}]},
        {"readings": [{"at": cooks.at(0), "1": "1e3"}]},
        {"probes": [{"id": "instant"}]},
        {"phases": [{"kind": "boil", "from": cooks.at(0)}]},
        {"nitrite_ppm": "-1"},
    ],
)
def test_a_cook_that_cannot_be_read_does_not_satisfy_the_schema(change):
    whole = cooks.document((0, 145))
    assert validator("cook").is_valid(whole)
    assert not validator("cook").is_valid({**whole, **change})


@pytest.mark.parametrize(
    "change",
    [
        {"green": 1000},
        {"target_loss": "-0.4"},
        {"weighings": None},
        {"weighings": [{"at": cooks.at(0), "weight": "1"}]},
        {"chamber": [{"at": cooks.at(0), "humidity": 1.4}]},
        {"ph": [{"at": cooks.at(0), "ph": 15}]},
        {"ferment": {"temp": "80"}},
    ],
)
def test_a_drying_log_that_cannot_be_read_does_not_satisfy_the_schema(change):
    assert not validator("drying").is_valid({**drying.document((1, 900)), **change})
