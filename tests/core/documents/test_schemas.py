"""The JSON Schemas that ship agree with what is read and written."""

import json
from fractions import Fraction as F

import pytest
from hypothesis import given
from jsonschema import Draft202012Validator

from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.documents.answers import SCHEMAS
from dolmetsch.core.documents.batch_reading import BatchDocument
from dolmetsch.core.documents.sheet_writing import write_sheet
from dolmetsch.core.ledger.batch import Portion, ShopPack
from tests.core.documents import test_answers as documents
from tests.core.jowl import EXAMPLES
from tests.strategies import batches


def validator(name):
    schema = json.loads((SCHEMAS / f"{name}.schema.json").read_text())
    Draft202012Validator.check_schema(schema)
    return Draft202012Validator(schema)


@pytest.mark.parametrize(
    ("example", "schema"),
    [("batch", "batch"), ("batch.answer", "sheet"), ("cure", "cure"), ("cure.answer", "cure-answer")],
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
