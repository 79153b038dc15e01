"""Trials side by side, and blind tastings by a link without an account."""

import uuid
from datetime import timedelta

import pytest
from django.db import DatabaseError
from django.db.models import F
from django.test import Client
from django.utils import timezone

from dolmetsch.core.statistics.tasting import SCALES
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.tastings import actions
from dolmetsch.server.tastings.models import Tasting, TastingSheet, TrialSide
from tests.server.conftest import TRIM, weigh

pytestmark = pytest.mark.django_db


@pytest.fixture
def trial(api):
    """Two pieces of one jowl, smoked differently."""
    api.code = api.started()
    api.recorded(api.code, TRIM)
    api.recorded(api.code, weigh("smoke", A="4.5 lb", B="2.4 lb"))
    body = {
        "name": "Lighter smoke",
        "sides": [
            {"batch": api.code, "mark": "A", "what": "house"},
            {"batch": api.code, "mark": "B", "what": "longer"},
        ],
    }
    status, trial = api.call("POST", "/trials", body)
    assert status == 201, trial
    return trial


def opened(api, trial):
    status, body = api.call("POST", f"/trials/{trial['id']}/tastings")
    assert status == 201, body
    tasting = body["tastings"][-1]
    return tasting["path"].removeprefix("/taste/"), tasting["codes"]


def table(token, device=None):
    """What someone without an account sees."""
    answer = Client().get(f"/api/tastings/{token}?device={device or uuid.uuid4()}")
    return answer.status_code, answer.json()


def sheet(codes, *, taster="Ibba", device=None, again="", **scores):
    """A taster's sheet: each plate's letter with one score for all scales."""
    return {
        "taster": taster,
        "device": str(device or uuid.uuid4()),
        "plates": [
            {"code": codes[letter], **dict.fromkeys(SCALES, score)} for letter, score in scores.items()
        ],
        "again": codes.get(again, again),
    }


def hand_in(token, body):
    answer = Client().post(f"/api/tastings/{token}/sheets", body, content_type="application/json")
    return answer.status_code, answer.json()


def test_sides_stand_beside_each_other(api, trial):
    assert [side["letter"] for side in trial["sides"]] == ["A", "B"]
    assert [step["label"] for step in trial["steps"]] == ["Trimmed", "Smoked"]
    smoked = trial["steps"][1]["kept"]
    assert smoked == ["90.0", "80.0"]
    assert [side["weight"]["lb"] for side in trial["sides"]] == ["4.50", "2.40"]
    # 17.50 left for 8 lb after the trim's credit of 2.50: 2.1875 a pound, over what each kept
    assert [side["price"]["per_lb"] for side in trial["sides"]] == ["2.43", "2.73"]
    assert trial["sides"][0]["cure"] is None
    assert trial["results"] == []


def test_a_trial_with_faults_is_refused(api, other, trial):
    theirs = other.started()
    for sides, paths in (
        ([{"batch": api.code, "mark": "A", "what": "x"}], ["sides"]),
        ([{"batch": api.code, "mark": "A", "what": "x"}] * 2, ["sides[1].batch"]),
        ([{"batch": api.code, "mark": "Z", "what": ""}, {"batch": "X-99", "what": "y"}], None),
        ([{"batch": api.code, "what": str(at)} for at in range(7)], None),
    ):
        status, body = api.call("POST", "/trials", {"name": "t", "sides": sides})
        assert status == 422
        if paths:
            assert [one["path"] for one in body["fields"]] == paths
    assert api.call("POST", "/trials", {"name": "", "sides": []})[0] == 422
    mine = {"batch": api.code, "what": "x"}
    status, body = other.call(
        "POST", "/trials", {"name": "t", "sides": [mine, {"batch": theirs, "what": "y"}]}
    )
    assert body["fields"][0]["path"] in ("sides[0].batch", "sides[1].batch")
    assert other.get(f"/trials/{trial['id']}")[0] == 404
    assert other.call("POST", f"/trials/{trial['id']}/tastings")[0] == 404
    assert other.get("/trials")[1]["trials"] == []


def test_a_side_is_of_this_kitchen_also_where_another_has_its_code(other, api):
    """The other kitchen's batch of the same code was there first."""
    for kitchen in (other, api):
        assert kitchen.started(name=f"jowl of {kitchen.slug}") == "J-01"
    sides = [{"batch": "J-01", "mark": "lot", "what": "house"}, {"batch": api.started(), "what": "longer"}]
    status, trial = api.call("POST", "/trials", {"name": "Two jowls", "sides": sides})
    assert status == 201, trial
    assert {side.batch.kitchen.slug for side in TrialSide.objects.all()} == {api.slug}


def test_a_tasting_is_open_until_its_day_is_over(api, trial, monkeypatch):
    assert api.get("/trials")[1]["trials"][0]["is_open"] is False
    opened(api, trial)
    assert api.get("/trials")[1]["trials"][0]["is_open"] is True
    assert api.get(f"/trials/{trial['id']}")[1]["tastings"][0]["is_open"] is True
    later = timezone.now() + timedelta(days=1, seconds=1)
    monkeypatch.setattr(timezone, "now", lambda: later)
    Kitchen.objects.update(writes=F("writes") + 1)
    assert api.get("/trials")[1]["trials"][0]["is_open"] is False
    assert api.get(f"/trials/{trial['id']}")[1]["tastings"][0]["is_open"] is False


def test_tasters_see_codes_in_an_order_of_their_own_and_nothing_of_the_trial(api, trial):
    token, codes = opened(api, trial)
    assert len(token) >= 32
    status, seen = table(token)
    assert status == 200
    assert sorted(seen["plates"]) == sorted(codes.values())
    assert set(seen) == {"kitchen", "closes_at", "plates", "scales", "least", "most", "scored_at"}
    device = uuid.uuid4()
    assert table(token, device)[1] == table(token, device)[1]
    orders = {tuple(table(token)[1]["plates"]) for _ in range(20)}
    assert len(orders) == 2
    assert table("no-such-link")[0] == 404


def test_scores_say_whether_one_is_ahead(api, trial):
    token, codes = opened(api, trial)
    for taster, one, other in (("Ibba", 8, 6), ("Tolle", 7, 6), ("Wieb", 6, 6)):
        assert hand_in(token, sheet(codes, taster=taster, A=one, B=other, again="A"))[0] == 201
    shown = api.get(f"/trials/{trial['id']}")[1]
    assert shown["sheets"] == 3
    assert shown["tastings"][0]["tasters"] == ["Ibba", "Tolle", "Wieb"]
    together = shown["results"][0]
    assert [(plate["letter"], plate["mean"]) for plate in together["plates"]] == [
        ("A", "7.00"),
        ("B", "6.00"),
    ]
    (pair,) = together["pairs"]
    assert (pair["wins"], pair["ties"], pair["losses"]) == (2, 1, 0)
    assert pair["chance"] == "0.5000"
    assert together["said"] == ["A and B: 3 tasters are too few to tell anything; it takes six or more."]
    for at in range(5):
        assert hand_in(token, sheet(codes, taster=f"T{at}", A=8, B=5, again="A"))[0] == 201
    shown = api.get(f"/trials/{trial['id']}")[1]
    # seven of eight differ and all say A: 2 of 128 signs are as far
    assert shown["results"][0]["pairs"][0]["chance"] == "0.0156"
    assert shown["results"][0]["said"][0].startswith(
        "A over B is more than chance (chance alone does that 1 time"
    )
    assert [one["key"] for one in shown["results"]] == ["all", "again", *SCALES]
    assert shown["results"][1]["plates"][0]["mean"] == "1.00"
    assert api.get("/trials")[1]["trials"][0]["sheets"] == 8


def test_who_cannot_choose_is_a_tie(api, trial):
    token, codes = opened(api, trial)
    hand_in(token, sheet(codes, A=5, B=5))
    result = api.get(f"/trials/{trial['id']}")[1]["results"][1]
    assert {plate["mean"] for plate in result["plates"]} == {"0.50"}
    assert result["pairs"][0]["ties"] == 1


def test_one_phone_is_one_taster(api, trial):
    token, codes = opened(api, trial)
    device = uuid.uuid4()
    first = sheet(codes, device=device, A=7, B=6)
    assert hand_in(token, first)[0] == 201
    # the answer was lost, and the same is sent again
    assert hand_in(token, first)[0] == 201
    status, body = hand_in(token, sheet(codes, device=device, A=2, B=9))
    assert (status, body["code"]) == (409, "scored_already")
    assert TastingSheet.objects.count() == 1
    assert table(token, device)[1]["scored_at"] is not None
    again, codes = opened(api, trial)
    assert hand_in(again, sheet(codes, device=device, A=2, B=9))[0] == 201


def test_half_a_sheet_is_refused_with_what_is_missing(api, trial):
    token, codes = opened(api, trial)
    status, body = hand_in(token, sheet(codes, A=7))
    assert status == 422
    (fault,) = body["fields"]
    assert fault["message"] == f"Plate {codes['B']} has no score yet. Score every plate, or hand in nothing."
    half = sheet(codes, A=7, B=6)
    half["plates"][1].pop("smoke")
    assert "no score for smoke" in hand_in(token, half)[1]["fields"][0]["message"]
    for wrong, path in (
        ({"plates": [*sheet(codes, A=7, B=6)["plates"], {"code": "000"}]}, "plates[2].code"),
        ({"plates": sheet(codes, A=7, B=6)["plates"] * 2}, "plates[2].code"),
        ({"again": "000"}, "again"),
    ):
        status, body = hand_in(token, {**sheet(codes, A=7, B=6), **wrong})
        assert status == 422
        assert path in [one["path"] for one in body["fields"]]
    for score in (0, 10, "eight"):
        assert hand_in(token, sheet(codes, A=score, B=5))[0] == 422
    assert not TastingSheet.objects.exists()


def test_a_link_lives_a_day(api, trial, monkeypatch):
    token, codes = opened(api, trial)
    closes = Tasting.objects.get().closes_at
    assert timedelta(hours=23) < closes - timezone.now() <= timedelta(days=1)
    monkeypatch.setattr(timezone, "now", lambda: closes)
    for status, body in (table(token), hand_in(token, sheet(codes, A=7, B=6))):
        assert (status, body["code"]) == (404, "closed")
    monkeypatch.setattr(timezone, "now", lambda: closes - timedelta(seconds=1))
    assert table(token)[0] == 200


def test_no_more_tasters_than_a_table_holds(api, trial, monkeypatch):
    token, codes = opened(api, trial)
    monkeypatch.setattr(actions, "MOST_SHEETS", 1)
    assert hand_in(token, sheet(codes, A=7, B=6))[0] == 201
    assert hand_in(token, sheet(codes, A=7, B=6))[1]["code"] == "too_many"


@pytest.mark.parametrize("kind", [Tasting, TastingSheet])
def test_what_was_scored_stays(api, trial, kind):
    token, codes = opened(api, trial)
    hand_in(token, sheet(codes, A=7, B=6))
    changes = {"closes_at": timezone.now()} if kind is Tasting else {"taster": "someone else"}
    with pytest.raises(DatabaseError, match="never changed"):
        kind.objects.update(**changes)


def test_a_side_that_went_into_another_is_said_to_be_gone(api, trial):
    split = {**TRIM, "kind": "slice", "piece": "A", "cut_off": []}
    api.recorded(api.code, {**split, "pieces": [{"mark": "A1", "weight": "4 lb"}]})
    side = api.get(f"/trials/{trial['id']}")[1]["sides"][0]
    assert side["is_gone"]
    assert side["weight"] is side["price"] is None
