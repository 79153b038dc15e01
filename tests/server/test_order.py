"""What comes before what: dates of a purchase and of its steps; and weights that cannot be."""

from datetime import timedelta

import pytest
from django.utils import timezone

from dolmetsch.server.batches.models import Batch
from tests.server.conftest import BOUGHT, TRIM, weigh


def ago(**span):
    return (timezone.now() - timedelta(**span)).isoformat()


@pytest.fixture
def code(api):
    body = {"name": "Jowl", "bought": BOUGHT, "happened_at": ago(days=3)}
    status, answer = api.call("POST", "/batches", body)
    assert status == 201, answer
    return answer["batch"]["code"]


def fault(answer):
    status, body = answer
    return status, [(one["path"], one["code"]) for one in body.get("fields", [])]


def test_a_step_is_not_dated_before_the_meat_was_bought(api, code):
    early = api.record(code, TRIM, happened_at=ago(days=3, minutes=2))
    assert fault(early) == (422, [("happened_at", "before_purchase")])
    assert "The meat was bought on" in early[1]["detail"]
    # a page gives a time to the minute, so the minute of the purchase itself is no fault
    assert api.record(code, TRIM, happened_at=ago(days=3, seconds=30))[0] == 201


def test_the_purchase_is_not_moved_behind_a_step_and_can_be_moved_before_it(api, code):
    trimmed = api.recorded(code, TRIM, happened_at=ago(days=2))
    bought = trimmed["batch"]["log"][0]["id"]
    late = api.record(code, BOUGHT, corrects=bought, reason="the wrong day", happened_at=ago(days=1))
    assert fault(late) == (422, [("happened_at", "after_a_step")])
    moved = ago(days=9)
    answer = api.recorded(code, BOUGHT, corrects=bought, reason="the wrong day", happened_at=moved)
    assert answer["batch"]["started_at"][:16] == moved[:16]
    assert Batch.objects.get(code=code).started_at.isoformat()[:16] == moved[:16]
    assert api.record(code, weigh("cure", A="4 lb"), happened_at=ago(days=8))[0] == 201


def test_a_second_lot_may_come_after_the_first_steps(api, code):
    api.recorded(code, TRIM, happened_at=ago(days=2))
    assert api.record(code, {**BOUGHT, "mark": "Z"}, happened_at=ago(days=1))[0] == 201


@pytest.mark.parametrize(("weight", "asked"), [("39 lb", True), ("6.3 lb", True), ("6.2 lb", False)])
def test_far_more_than_before_is_asked_about_where_it_is_typed_and_on_the_scale(api, code, weight, asked):
    api.recorded(code, TRIM)
    for kind in ("cure", "hang"):
        preview = api.preview(code, weigh(kind, A=weight))[1]
        assert any("digit wrong" in one for one in preview["asks"]) is asked
        answer = {"mark": "A", "weight": weight, "kind": kind}
        meaning = api.call("POST", f"/batches/{code}/on-the-scale", answer)
        if meaning[0] == 200:
            assert bool(meaning[1]["asks"]) or not asked
