"""One field finds batches, pieces, packs, notes, prices, dishes, plans and people."""

from datetime import date, timedelta
from urllib.parse import quote

import pytest
from django.utils import timezone

from dolmetsch.server.finding.queries import SHOWN, read_day
from tests.server.conftest import TRIM
from tests.server.test_meals import DISH, MAKE, WAY, in_days
from tests.server.test_prices import noted

pytestmark = pytest.mark.django_db
TODAY = date(2026, 11, 27)


@pytest.fixture
def full(api):
    """A jowl, sliced in part and packed, a note on it, a price, a dish and a plan."""
    api.code = api.started(name="Lantern jowl")
    api.recorded(api.code, TRIM)
    api.recorded(
        api.code,
        {**TRIM, "kind": "slice", "piece": "A", "pieces": [{"mark": "A1", "weight": "4 lb"}], "cut_off": []},
    )
    seen = api.get(f"/batches/{api.code}")[1]["seen"]
    pack = {"piece": "A1", "product": "Cherry jowl", "form": "whole", "weight": "1 lb"}
    assert api.call("POST", f"/batches/{api.code}/packs", {"packs": [pack], "seen": seen})[0] == 201
    note = {"text": "Fog and a light that would not stay lit"}
    assert api.call("POST", f"/batches/{api.code}/notes", note)[0] == 201
    noted(api, sort="ingredient", name="juniper", price="31/kg", source="Quay stores")
    assert api.call("POST", "/ways", WAY)[0] == 201
    assert api.call("POST", "/dishes", DISH)[0] == 201
    meal = {"name": "Ferry supper", "day": in_days(20), "wants": [{"name": "Harbor roll", "amount": "40"}]}
    assert api.call("POST", "/meals", {**meal, "makes": [MAKE]})[0] == 201
    return api


def found(api, words):
    status, body = api.get(f"/find?words={quote(words)}")
    assert status == 200, body
    return {(one["kind"], one["title"]) for one in body["found"]}


def test_each_kind_is_found_by_what_it_is_called(full):
    code = full.code
    batch, piece, pack = ("batch", f"{code} Lantern jowl"), ("piece", f"{code} A1"), ("pack", f"{code} P1")
    assert found(full, "lantern") == {batch}
    assert found(full, code.lower()) == {batch}
    assert found(full, f"{code} a1") == {batch, piece}
    assert found(full, f"{code.lower()} p1") == {batch, pack}
    assert found(full, "cherry JOWL") == {pack}
    assert found(full, "light lit") == {("note", "Fog and a light that would not stay lit")}
    assert found(full, "junip") == found(full, "quay stores") == {("price", "juniper")}
    assert found(full, "harbor roll") == {("dish", "Harbor roll"), ("plan", "Ferry supper")}
    assert found(full, "ferry") == {("plan", "Ferry supper")}
    assert found(full, f"{code} Z9") == {batch}
    assert found(full, "nowhere to be seen") == found(full, "") == found(full, "   ") == set()
    (person,) = [one for one in full.get("/find?words=cook")[1]["found"] if one["kind"] == "person"]
    assert person["detail"] == "cooks here: 3 entries recorded"


def test_all_words_have_to_be_there(full):
    assert found(full, "lantern skin") == {("batch", f"{full.code} Lantern jowl")}
    assert found(full, "lantern belly") == set()
    assert found(full, "fog sun") == set()
    assert found(full, "ferry twelve") == set()


def test_a_day_finds_what_was_recorded_on_it_and_served_on_it(full):
    today = timezone.localdate()
    kinds = {kind for kind, _ in found(full, today.isoformat())}
    assert kinds == {"batch", "pack", "note"}
    assert found(full, f"{today:%d %b}") == found(full, today.isoformat())
    assert found(full, (today - timedelta(days=1)).isoformat()) == set()
    assert found(full, in_days(20)) == {("plan", "Ferry supper")}


@pytest.mark.parametrize(
    ("typed", "day"),
    [
        ("2026-11-22", date(2026, 11, 22)),
        ("22.11.2026", date(2026, 11, 22)),
        ("22 Nov", date(2026, 11, 22)),
        ("Nov 22, 2025", date(2025, 11, 22)),
        ("27 November", TODAY),
        ("December 1", date(2025, 12, 1)),
        ("29 Feb", None),
        ("31 Nov", None),
        ("jowl", None),
    ],
)
def test_days_are_read_as_they_are_typed(typed, day):
    assert read_day(typed, TODAY) == day


def test_of_each_kind_the_latest_are_shown_and_more_is_said(api):
    codes = [api.started(name=f"Harbor jowl {at}") for at in range(SHOWN + 1)]
    body = api.get("/find?words=harbor")[1]
    assert [one["code"] for one in body["found"]] == codes[:0:-1]
    assert body["more"] == ["batch"]
    assert api.get(f"/find?words={'x' * 81}")[0] == 422


@pytest.mark.parametrize(
    "words", ["lantern", "cherry", "light", "juniper", "harbor", "ferry", "test-kitchen", "2026"]
)
def test_another_kitchen_finds_none_of_it(full, other, words):
    assert found(other, words) == set()
    assert found(other, f"{full.code} P1") == found(other, timezone.localdate().isoformat()) == set()
