"""What the rest of the ledger is recorded with: faults at their fields, permissions, links under load."""

import json
import threading
import uuid
from unicodedata import normalize

import pytest
from django.db import connection, connections, transaction
from django.utils import timezone
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase

from dolmetsch.core.documents.answers import answer_cost
from dolmetsch.server.batches.exchange.exporting import export_batch
from dolmetsch.server.batches.exchange.importing import import_document
from dolmetsch.server.batches.models import Batch, Entry, ExtraLine, LotLine, PolicyLine
from dolmetsch.server.batches.record.actions import Write
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.visible import make_visible
from tests.server.conftest import BOUGHT, TRIM, make_kitchen, weigh

MERGE = {"act": "merge", "kind": "mix", "pieces": ["A", "B"], "into": {"mark": "M", "weight": "7 lb"}}
THROW = {"act": "discard", "pieces": ["A"], "charge": "batch", "why": "sour"}


def used(**more):
    return {**weigh("cure", A="4 lb"), "used": [{"what": "x", "price": "1", **more}]}


def paths(problem):
    return {field["path"]: field["code"] for field in problem["fields"]}


@pytest.fixture
def trimmed(api):
    code = api.started()
    api.recorded(code, TRIM)
    return code


@pytest.mark.parametrize(
    ("content", "path", "code"),
    [
        ({**MERGE, "pieces": []}, "pieces", "empty"),
        ({**MERGE, "pieces": ["A", "Q"]}, "pieces", "unknown_piece"),
        ({**MERGE, "pieces": ["A", "A"]}, "pieces", "same_mark"),
        ({**MERGE, "into": {"mark": "B", "weight": "7 lb"}}, "into.mark", "same_mark"),
        ({**MERGE, "into": {"mark": "M", "weight": ""}}, "into.weight", "missing"),
        ({**MERGE, "into": {"mark": "M", "weight": "7 lb", "slices": "0"}}, "into.slices", "zero"),
        ({**MERGE, "overhead": "-1"}, "overhead", "negative"),
        ({**MERGE, "scale": "fine"}, "scale", "unreadable"),
        ({**THROW, "pieces": []}, "pieces", "empty"),
        ({**THROW, "pieces": ["lot"]}, "pieces", "piece_gone"),
        ({"act": "fry", "kept": ""}, "kept", "missing"),
        ({"act": "fry", "kept": "0"}, "kept", "zero"),
        ({"act": "fry", "kept": "101"}, "kept", "too_large"),
        ({"act": "policy", "labour_rate": "much"}, "labour_rate", "unreadable"),
        ({"act": "portion"}, "slices", "one_of"),
        ({"act": "portion", "slices": "2", "cooked_weight": "1 oz"}, "slices", "one_of"),
        ({**BOUGHT, "extras": [{"what": "", "cost": "2"}]}, "extras[0].what", "missing"),
        ({**BOUGHT, "extras": [{"what": "cart", "cost": "two"}]}, "extras[0].cost", "unreadable"),
        ({**BOUGHT, "solution": "200"}, "solution", "too_large"),
        ({**BOUGHT, "mark": "lot"}, "mark", "same_mark"),
        ({**BOUGHT, "own_weight": "", "label_weight": ""}, "label_weight", "missing"),
        (used(pieces=["B"]), "used[0].pieces", "not_entering"),
        (used(group="meat"), "used[0].group", "ledger_group"),
        (used(group="credit"), "used[0].group", "ledger_group"),
        ({"act": "shop_pack", "name": "x", "paid": "1", "weight": "1 lb", "fry": "0"}, "fry", "zero"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(api, trimmed, content, path, code):
    before = Entry.objects.count()
    status, problem = api.record(trimmed, content)
    assert (status, problem["code"], paths(problem)) == (422, "bad_fields", {path: code})
    assert Entry.objects.count() == before


def test_a_step_that_rests_on_another_keeps_it_from_being_taken_back(api, trimmed):
    merged = api.recorded(trimmed, MERGE)["entry"]
    api.recorded(trimmed, weigh("rest", M="6.5 lb"))
    status, problem = api.record(trimmed, {"act": "withdraw"}, corrects=merged, reason="no")
    assert (status, problem["code"]) == (422, "breaks_later")
    assert "Rested" in problem["detail"]


def test_merges_discards_and_terms_are_told_again_as_typed_and_corrected(api, trimmed):
    for content in (
        {**MERGE, "overhead": "1.5", "scale": "2 g", "minutes": "10"},
        {"act": "policy", "labour_rate": "12.50", "by_products": False, "fuel": True, "packaging": False},
        {"act": "fry", "kept": "42.5"},
        {"act": "portion", "cooked_weight": "1 oz"},
        {"act": "discard", "kind": "discard", "pieces": ["M"], "charge": "loss", "why": "dropped"},
    ):
        made = api.recorded(trimmed, content)
        answer = made["batch"]["log"][-1]
        for name, value in content.items():
            found = answer["content"][name]
            assert found.items() >= value.items() if isinstance(value, dict) else found == value
        again = api.recorded(trimmed, answer["content"], corrects=made["entry"], reason="the same")
        assert again["batch"]["log"][-1]["content"] == answer["content"]
        assert again["batch"]["house"] == made["batch"]["house"]


def test_a_policy_of_the_batch_holds_until_the_next(api, trimmed):
    free = {"act": "policy", "labour_rate": "", "by_products": False}
    first = api.recorded(trimmed, free)
    assert (first["batch"]["house"]["cost"], first["batch"]["policy"]["by_products"]) == ("20.00", False)
    second = api.recorded(trimmed, {"act": "policy"})
    assert second["batch"]["house"]["cost"] == "17.50"
    back = api.recorded(trimmed, {"act": "withdraw"}, corrects=second["entry"], reason="not so")
    assert back["batch"]["house"]["cost"] == "20.00"
    assert PolicyLine.objects.count() == 2


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("GET", "/batches/{}/verdict", None),
        ("POST", "/batches/{}/trial", {}),
        ("POST", "/batches/{}/pay-back", {"price": "1"}),
        ("GET", "/batches/{}/strips/A", None),
        ("GET", "/batches/{}/files/json", None),
        ("GET", "/batches/{}/files/pdf", None),
    ],
)
def test_another_kitchens_verdict_is_not_here(api, other, trimmed, method, path, body):
    status, problem = other.call(method, path.format(trimmed), body)
    assert (status, problem["code"]) == (404, "not_found")
    theirs = api.client.get("/api/kitchens/other-kitchen/settings")
    assert theirs.status_code == 404


def test_a_piece_of_another_kitchen_cannot_be_taken(api, other, trimmed):
    status, problem = other.start(bought={"cut": "x", "source": {"batch": trimmed, "piece": "A"}})
    assert (status, paths(problem)) == (422, {"bought.source.batch": "not_found"})


def test_recorded_lines_of_the_new_tables_cannot_be_changed(api):
    code = api.started(bought={**BOUGHT, "extras": [{"what": "cart", "cost": "2.00"}]})
    api.recorded(code, {"act": "policy"})
    api.recorded(code, {"act": "fry", "kept": "40"})
    for table in ("batches_extraline", "batches_policyline", "batches_fryline"):
        with (
            pytest.raises(Exception, match="corrected by a later one"),
            transaction.atomic(),
            connection.cursor() as cursor,
        ):
            cursor.execute(f"UPDATE {table} SET entry_id = entry_id")
    assert ExtraLine.objects.get().cost == 2


def test_query_budgets_of_the_verdict(api, trimmed, django_assert_num_queries):
    api.recorded(trimmed, {"act": "course", "course": "cooked", "pieces": []})
    for number in range(10):
        api.recorded(trimmed, weigh(f"step {number}", A="4 lb", B="2 lb"))
    with django_assert_num_queries(19):
        api.get(f"/batches/{trimmed}/verdict")
    with django_assert_num_queries(16):
        api.call("POST", f"/batches/{trimmed}/trial", {"tag": "3.00"})


def test_what_is_tried_for_a_linked_batch_scales_its_own_meat_alone(api, trimmed):
    down = api.started(name="Down", bought={"cut": "x", "source": {"batch": trimmed, "piece": "A"}})
    api.recorded(down, {**BOUGHT, "price": "10.00"})
    before = api.get(f"/batches/{down}")[1]["house"]["cost"]
    answer = api.call("POST", f"/batches/{down}/trial", {"tag": "0"})[1]
    assert (before, answer["judged"]["house"]["cost"]) == ("20.94", "10.94")


def test_three_batches_in_a_row_follow_a_correction_at_the_top(api, trimmed):
    middle = api.started(name="Middle", bought={"cut": "x", "source": {"batch": trimmed, "piece": "A"}})
    last = api.started(name="Last", bought={"cut": "x", "source": {"batch": middle, "piece": "lot"}})
    first = api.get(f"/batches/{trimmed}")[1]["log"][0]["id"]
    api.recorded(trimmed, {**BOUGHT, "price": "40.00"}, corrects=first, reason="twice")
    assert [api.get(f"/batches/{code}")[1]["house"]["cost"] for code in (middle, last)] == ["23.44", "23.44"]
    assert api.get(f"/batches/{last}")[1]["sources"][0]["carried_then"] == "10.94"
    today = {one["code"]: one["cost"]["per_lb"] for one in api.get("/today")[1]["under_way"]}
    assert today[last] == "4.69"


def test_more_of_a_piece_than_it_weighs_is_never_taken(api, trimmed):
    """A weighs 5 lb: 3 lb go into one batch, then no 2.5 lb into the same or another, nor a lighter A."""

    def take(much):
        return {"act": "bought", "cut": "x", "source": {"batch": trimmed, "piece": "A", "weight": much}}

    first = api.started(name="First", bought=take("3 lb"))
    for status, problem in (api.record(first, take("2.5 lb")), api.start(bought=take("2.5 lb"))):
        assert status == 422
        assert list(paths(problem).values()) == ["overweight"]
    more = api.recorded(first, take("2 lb"))["entry"]
    verdict = api.get(f"/batches/{trimmed}/verdict")[1]
    assert [taker["batch"] for taker in verdict["takers"]] == [first, first]
    lighter = {**TRIM, "pieces": [{"mark": "A", "weight": "4 lb"}, {"mark": "B", "weight": "3 lb"}]}
    trim = api.get(f"/batches/{trimmed}")[1]["log"][1]["id"]
    status, problem = api.record(trimmed, lighter, corrects=trim, reason="tray")
    assert (status, problem["code"]) == (422, "breaks_later")
    assert "less of “A” than other batches have taken" in problem["detail"]
    api.recorded(first, {"act": "withdraw"}, corrects=more, reason="not this one")
    assert api.get(f"/batches/{trimmed}/verdict")[1]["takers"] == [
        {"batch": first, "name": "First", "piece": "A"}
    ]
    api.recorded(trimmed, lighter, corrects=trim, reason="tray")


@pytest.mark.django_db(transaction=True)
def test_a_taking_and_a_correction_at_once_leave_no_stale_page():
    """Whichever comes first, what the taker shows is what its source comes to."""
    api = make_kitchen("busy")
    up = api.started()
    api.recorded(up, TRIM)
    first = api.get(f"/batches/{up}")[1]["log"][0]["id"]
    down = api.started(name="Down", bought={"cut": "x", "source": {"batch": up, "piece": "A"}})
    answers = []

    def correct():
        answers.append(api.record(up, {**BOUGHT, "price": "40.00"}, corrects=first, reason="x", seen=2)[0])
        connections.close_all()

    def weigh_below():
        answers.append(api.record(down, weigh("rest", lot="4.9 lb"), seen=1)[0])
        connections.close_all()

    threads = [threading.Thread(target=act) for act in (correct, weigh_below)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert answers == [201, 201]
    assert api.get(f"/batches/{down}")[1]["house"]["cost"] == "23.44"


GRAMS = st.integers(1, 9000).map(lambda tenths: f"{tenths / 10:.1f} g")
MONEY = st.integers(0, 9999).map(lambda cents: f"{cents / 100:.2f}")
WORDS = st.text(st.characters(codec="utf-8", exclude_categories=("C", "Z")), min_size=1, max_size=10).map(
    lambda word: normalize("NFC", word)
)

SOLUTIONS = st.sampled_from(["0", "0.1"])
POLICIES = st.sampled_from([None, {"labour_rate": "18"}, {"by_products": "none", "fuel": False}])


@st.composite
def documents(draw):
    """A lot cut in two with something off, then weighed, used up, brought together or thrown away."""
    mains = [{"id": mark, "weight": "1.5 kg"} for mark in ("A", "B")]
    marks = WORDS.map(make_visible).filter(lambda mark: mark and mark not in "ABLM")
    off = {"id": draw(marks), "weight": draw(GRAMS), "role": "by_product"}
    off["worth"] = draw(st.sampled_from(["0", "as_main", "2.5/kg", {"paid": "5", "for": "7 oz"}]))
    steps = [{"kind": draw(WORDS), "split": "L", "into": [*mains, off], "minutes": draw(st.integers(0, 90))}]
    # a group of signs that nobody sees has no name
    groups = WORDS.filter(lambda word: make_visible(word) not in ("", "meat", "credit"))
    used = {"what": draw(WORDS), "group": draw(groups)}
    used |= draw(st.sampled_from([{"amount": "9 g", "price": "31/kg"}, {"count": 2, "price": "0.35/each"}]))
    steps.append({"weigh": {"A": draw(GRAMS)}, "used": [used], "overhead": draw(MONEY)})
    end = draw(st.sampled_from(["merge", "loss", "batch", "none"]))
    if end == "merge":
        steps.append({"merge": ["A", "B"], "into": {"id": "M", "weight": "2 kg", "slices": 40}})
    elif end != "none":
        steps.append({"pieces": ["A"], "charge": end})
    return {
        "format": "dolmetsch-batch/1",
        "lots": [{"id": "L", "weight": "4 kg", "paid": draw(MONEY), "solution": draw(SOLUTIONS)}],
        "steps": steps,
        "portion": draw(st.sampled_from([None, {"slices": 3}, {"weight": "30 g"}])),
        "fry_yield": draw(st.sampled_from([None, "0.425"])),
        "store": [{"name": draw(WORDS), "paid": draw(MONEY), "weight": draw(GRAMS)}],
        "policy": draw(POLICIES),
    }


class RoundTrips(TestCase):
    """Any such document comes to the same in the book, and goes out as it came out first."""

    @settings(max_examples=20)
    @given(documents())
    def test_documents_come_in_and_go_out(self, document):
        kitchen = Kitchen.objects.create(slug="round", name="Round")
        user = User.objects.create(username="rounder")

        def bring_in(text):
            write = Write(kitchen=kitchen, user=user, now=timezone.now(), key=uuid.uuid4(), fingerprint="f")
            code = import_document(write, text, dry_run=False).batches[-1].code
            return export_batch(Batch.objects.select_related("kitchen").get(code=code))

        first = bring_in(json.dumps(document))
        assert bring_in(first.decode()) == first
        assert answer_cost(first)["final"] == answer_cost(json.dumps(document))["final"]
        assert LotLine.objects.count() == 2
