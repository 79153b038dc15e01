"""Every action of the batch API over real MariaDB, and every refusal."""

import json
import uuid

import pytest
from django.db import connection

from dolmetsch.server.batches.models import Batch, Entry, UsedLine, Weighing
from dolmetsch.server.quantities.lengths import MOST_PIECES
from tests.server.conftest import BOUGHT, TRIM, weigh


def paths(problem):
    return {field["path"]: field["code"] for field in problem["fields"]}


def test_the_whole_chain_by_hand(api):
    """10 lb for 20.00. Lean takes 2.50; A gets 10.94, B 6.56. Smoke: 6.00 of wood by weight. Slice A."""
    code = api.started()
    assert code == "J-01"
    api.recorded(code, TRIM)
    smoke = weigh("smoke", A="4 lb", B="2.5 lb")
    smoke["used"] = [{"what": "wood", "group": "fuel", "amount": "3 lb", "price": "10.00 for 5 lb"}]
    api.recorded(code, smoke)
    sliced = {
        "act": "split",
        "kind": "slice",
        "piece": "A",
        "pieces": [{"weight": "3.5 lb", "slices": "70"}],
        "cut_off": [{"name": "ends", "material": "ends", "weight": "6 oz", "worth": "as_main"}],
    }
    api.recorded(code, sliced)
    api.recorded(
        code, {"act": "shop_pack", "name": "good", "paid": "6.00", "weight": "12 oz", "slices": "12"}
    )
    batch = api.recorded(code, {"act": "portion", "weight": "2 oz"})["batch"]

    assert [column["label"] for column in batch["strip"]["columns"]] == [
        "Bought",
        "Trimmed",
        "Smoked",
        "Sliced",
    ]
    trim, smoke, sliced = batch["strip"]["columns"][1:]
    assert (trim["kept_of_step"], trim["worth_back"], trim["cost"]["per_lb"]) == ("80.0", "2.50", "2.19")
    assert trim["peels"] == [
        {
            "material": "lean",
            "name": "lean",
            "weight": {"lb": "1.00", "kg": "0.454"},
            "gain": False,
            "carried": "2.50",
        },
        {
            "material": "loss",
            "name": "lost, not weighed",
            "weight": {"lb": "1.00", "kg": "0.454"},
            "gain": False,
            "carried": None,
        },
    ]
    # 17.50 + 6.00 over 6.5 lb
    assert (smoke["spent"], smoke["cost"]["per_lb"], smoke["peels"][0]["name"]) == ("6.00", "3.62", "water")
    # A carries 10.9375 + 3.75; ends take 0.375 of 3.875 parts of it
    assert sliced["pieces"] == ["A1"]
    assert [(piece["mark"], piece["cost"]["per_lb"]) for piece in batch["pieces"]] == [
        ("A1", "3.79"),
        ("B", "3.52"),
    ]
    house = batch["house"]
    assert (house["stage"], house["is_sliced"], house["slices"]) == ("partly sliced", False, 70)
    assert (house["cost"], house["unit_cost"]["per_lb"], house["portion"]) == ("22.08", "3.68", "0.46")
    # one piece is not sliced yet, so nothing is compared until the batch is said to be finished
    assert batch["shops"][0]["saved_per_lb"] is None
    (shop,) = api.recorded(code, {"act": "finish"})["batch"]["shops"]
    assert (shop["unit_cost"]["per_lb"], shop["saved_per_lb"], shop["saved_on_batch"]) == (
        "8.00",
        "4.32",
        "25.92",
    )
    assert (shop["portion"], shop["saved_per_portion"], shop["is_cheaper"]) == ("1.00", "0.54", True)


def test_a_batch_that_is_sliced_whole_is_finished(api):
    code = api.started()
    body = api.recorded(code, {**TRIM, "kind": "slice"})["batch"]
    assert (body["is_finished"], body["house"]["stage"]) == (True, "sliced")
    today = api.get("/today")[1]
    assert ([b["code"] for b in today["under_way"]], [b["code"] for b in today["finished"]]) == ([], [code])


def test_today_lists_batches_and_counts_what_hangs_where(api):
    first, second = api.started(), api.started(name="Another")
    api.recorded(first, TRIM)
    api.recorded(first, weigh("smoke", A="4 lb", B="2.5 lb"))
    today = api.get("/today")[1]
    assert [batch["code"] for batch in today["under_way"]] == [first, second]
    assert today["under_way"][0]["next"] == {"kind": "chill", "label": "Chilled"}
    assert today["hanging"] == {"bench": 1, "fire": 2, "today": 2}


@pytest.mark.parametrize(
    ("change", "path", "code"),
    [
        ({"label_weight": "0 lb", "own_weight": ""}, "bought.label_weight", "zero"),
        ({"own_weight": "-2 lb"}, "bought.own_weight", "negative"),
        ({"own_weight": "5001 kg"}, "bought.own_weight", "too_heavy"),
        ({"own_weight": "4.3.1 lb"}, "bought.own_weight", "unreadable"),
        ({"own_weight": "twelve"}, "bought.own_weight", "unreadable"),
        ({"label_weight": "", "own_weight": ""}, "bought.label_weight", "missing"),
        ({"price": "-1"}, "bought.price", "negative"),
        ({"price": ""}, "bought.price", "missing"),
        ({"price": "900000", "price_basis": "per_lb"}, "bought.price", "too_large"),
        ({"cut": "  "}, "bought.cut", "missing"),
    ],
)
def test_bad_buying_is_refused_at_its_field_and_writes_nothing(api, change, path, code):
    status, problem = api.start(bought={**BOUGHT, **change})
    assert (status, problem["code"], paths(problem)) == (422, "bad_fields", {path: code})
    assert not Batch.objects.exists()
    assert not Entry.objects.exists()


def test_all_faults_are_told_at_once(api):
    _, problem = api.start(name="", bought={**BOUGHT, "price": "x", "own_weight": "y"})
    assert set(paths(problem)) == {"name", "bought.price", "bought.own_weight"}


def split(**change):
    return {**TRIM, **change}


USED = {"what": "salt", "group": "cure", "amount": "95 g", "price": "1.20/kg"}


@pytest.mark.parametrize(
    ("content", "path", "code"),
    [
        (split(pieces=[{"mark": "A", "weight": "10.2 lb"}], cut_off=[]), "pieces", "overweight"),
        (split(pieces=[{"mark": "A", "weight": "0"}]), "pieces[0].weight", "zero"),
        (split(pieces=[{"mark": "A", "weight": ""}]), "pieces[0].weight", "missing"),
        (split(pieces=[]), "pieces", "no_main"),
        (
            split(pieces=[{"mark": "a", "weight": "1 lb"}, {"mark": "A", "weight": "1 lb"}]),
            "pieces[1].mark",
            "same_mark",
        ),
        (split(pieces=[{"mark": "LOT", "weight": "1 lb"}]), "pieces[0].mark", "same_mark"),
        (split(pieces=[{"mark": "A", "weight": "1 lb", "slices": "0"}]), "pieces[0].slices", "zero"),
        (split(pieces=[{"mark": "A", "weight": "1 lb", "slices": "2.5"}]), "pieces[0].slices", "too_fine"),
        (split(piece="Z"), "piece", "unknown_piece"),
        (split(kind=""), "kind", "missing"),
        (split(minutes="-5"), "minutes", "negative"),
        (split(cut_off=[{"name": "", "weight": "1 lb"}]), "cut_off[0].name", "missing"),
        (split(cut_off=[{"name": "fat", "weight": "soon"}]), "cut_off[0].weight", "unreadable"),
        (
            split(cut_off=[{"name": "fat", "weight": "1 lb", "worth": "price", "price": "-1/lb"}]),
            "cut_off[0].price",
            "negative",
        ),
        (
            split(cut_off=[{"name": "fat", "weight": "1 lb", "worth": "price", "price": "1 each"}]),
            "cut_off[0].price",
            "unreadable",
        ),
        (weigh("cure", Z="1 lb"), "weights[0].weight", "unknown_piece"),
        (weigh("cure"), "weights", "empty"),
        ({**weigh("cure", lot="9 lb"), "used": [{**USED, "what": ""}]}, "used[0].what", "missing"),
        ({**weigh("cure", lot="9 lb"), "used": [{**USED, "price": ""}]}, "used[0].price", "missing"),
        ({**weigh("cure", lot="9 lb"), "used": [{**USED, "price": "-1/kg"}]}, "used[0].price", "negative"),
        ({**weigh("cure", lot="9 lb"), "used": [{**USED, "amount": "some"}]}, "used[0].amount", "unreadable"),
        ({**weigh("cure", lot="9 lb"), "used": [{**USED, "amount": ""}]}, "used[0].amount", "missing"),
        ({**weigh("cure", lot="9 lb"), "used": [{**USED, "amount": "5 t"}]}, "used[0].amount", "unreadable"),
        ({"act": "portion"}, "slices", "one_of"),
        ({"act": "portion", "slices": "3", "weight": "2 oz"}, "slices", "one_of"),
        ({"act": "portion", "slices": "0"}, "slices", "zero"),
        ({"act": "shop_pack", "name": "", "paid": "1", "weight": "1 lb"}, "name", "missing"),
        ({"act": "shop_pack", "name": "good", "paid": "-1", "weight": "1 lb"}, "paid", "negative"),
    ],
)
def test_bad_entries_are_refused_at_their_field_and_write_nothing(api, content, path, code):
    batch = api.started()
    status, problem = api.record(batch, content)
    assert (status, problem["code"], paths(problem)) == (422, "bad_fields", {path: code})
    assert Entry.objects.count() == 1
    assert not Weighing.objects.exists()
    assert not UsedLine.objects.exists()


@pytest.mark.parametrize(
    "content",
    [
        {"act": "fly"},
        {"act": "weigh", "kind": "cure"},
        {**TRIM, "surprise": 1},
        {**TRIM, "minutes": 20},
        {**TRIM, "kind": "x" * 61},
        {**TRIM, "pieces": [{"mark": "A", "weight": "1 lb"}] * (MOST_PIECES + 1)},
        {**TRIM, "kind": "\ud800"},
        {**TRIM, "kind": "a\x00b"},
        {**TRIM, "kind": "two\nlines"},
    ],
)
def test_a_malformed_body_is_a_problem_not_a_crash(api, content):
    status, problem = api.record(api.started(), content)
    assert status in (400, 422)
    assert problem["code"] == "bad_request"


def test_a_second_trim_of_a_piece_that_is_gone(api):
    code = api.started()
    api.recorded(code, TRIM)
    again = {**TRIM, "pieces": [{"mark": "C", "weight": "5 lb"}]}
    status, problem = api.record(code, again)
    assert (status, paths(problem)) == (422, {"piece": "piece_gone"})
    assert "is gone" in problem["detail"]


def test_a_bare_number_is_in_the_kitchens_unit_and_typed_text_is_kept(api):
    code = api.started(bought={**BOUGHT, "own_weight": "10"})
    batch = api.get(f"/batches/{code}")[1]
    assert batch["strip"]["columns"][0]["weight_out"] == {"lb": "10.00", "kg": "4.536"}
    assert batch["log"][0]["content"].items() >= {**BOUGHT, "own_weight": "10"}.items()


def test_a_price_by_weight_is_charged_as_the_till_does(api):
    """10.2 lb on the label at 2.85: 29.07; a pound of the 10 lb that came home costs 2.91."""
    code = api.started(bought={**BOUGHT, "price_basis": "per_lb", "price": "$2.85"})
    first = api.get(f"/batches/{code}")[1]["strip"]["columns"][0]
    assert (first["spent"], first["cost"]) == ("29.07", {"per_lb": "2.91", "per_kg": "6.41"})


def test_purge_is_what_the_label_says_and_the_own_scale_does_not_find(api):
    """0.2 of 10.2 lb: 2 %."""
    lines = api.get(f"/batches/{api.started()}")[1]["log"][0]["lines"]
    assert lines[1].endswith("on our scale, 2.0 % purge")
    heavier = api.started(bought={**BOUGHT, "own_weight": "10.4 lb"})
    assert "purge" not in str(api.get(f"/batches/{heavier}")[1]["log"][0]["lines"])


def test_marks_are_given_where_none_are_typed(api):
    code = api.started()
    pieces = [{"weight": "2 lb"}, {"mark": "A", "weight": "2 lb"}, {"weight": "2 lb"}]
    twice = [{"name": "skin", "weight": "1 lb"}, {"name": "skin", "weight": "1 lb"}]
    batch = api.recorded(code, {**TRIM, "pieces": pieces, "cut_off": twice})["batch"]
    assert [piece["mark"] for piece in batch["pieces"]] == ["A", "B", "C"]
    assert batch["pieces"][0]["free_marks"][:2] == ["A1", "A2"]
    assert [peel["name"] for peel in batch["strip"]["columns"][1]["peels"]] == ["skin", "lost, not weighed"]


def test_preview_reads_and_computes_and_writes_nothing(api):
    code = api.started()
    status, preview = api.preview(code, {**TRIM, "used": [USED]})
    assert status == 200
    assert preview["column"]["cost"] == {"per_lb": "2.20", "per_kg": "4.85"}
    assert {"path": "pieces[0].weight", "weight": {"lb": "5.00", "kg": "2.268"}, "money": None} in preview[
        "readings"
    ]
    assert {"path": "used[0].price", "weight": None, "money": "0.11"} in preview["readings"]
    _, half = api.preview(code, {**TRIM, "pieces": [{"mark": "A", "weight": "4 l"}]})
    assert (half["column"], paths({"fields": half["problems"]})) == (None, {"pieces[0].weight": "volume"})
    status, start = api.call("POST", "/previews/batches", {"name": "", "bought": BOUGHT})
    assert (status, start["bought_cost"]["per_lb"], start["paid"]) == (200, "2.00", "20.00")
    assert Entry.objects.count() == 1


def test_a_correction_is_previewed_before_its_reason_is_typed(api):
    code = api.started()
    trim = api.recorded(code, TRIM)["entry"]
    heavier = {**TRIM, "pieces": [{"mark": "A", "weight": "6 lb"}, {"mark": "B", "weight": "3 lb"}]}
    heavier["cut_off"] = []
    _, preview = api.preview(code, heavier, corrects=trim)
    assert preview["column"]["kept_of_step"] == "90.0"
    assert paths({"fields": preview["problems"]}) == {"reason": "missing"}


def test_a_resend_changes_nothing_and_tells_the_same_entry(api):
    key, entry_key = uuid.uuid4(), uuid.uuid4()
    first, again = api.start(key=key), api.start(key=key)
    assert (first[0], again[0]) == (201, 200)
    assert again[1] == first[1]
    code = first[1]["batch"]["code"]
    once, twice = (api.record(code, TRIM, seen=1, key=entry_key) for _ in range(2))
    assert (once[0], twice[0], once[1]["entry"]) == (201, 200, twice[1]["entry"])
    assert Entry.objects.count() == 2


def test_a_key_with_another_body_is_refused(api):
    key = uuid.uuid4()
    code = api.started(key=key)
    for status, problem in (api.start(name="Other", key=key), api.record(code, TRIM, key=key)):
        assert (status, problem["code"]) == (409, "key_reused")
    assert Entry.objects.count() == 1


def test_a_write_without_a_key_is_refused(api):
    answer = api.client.post(
        f"/api/kitchens/{api.slug}/batches", {"name": "x", "bought": BOUGHT}, content_type="application/json"
    )
    assert (answer.status_code, answer.json()["code"]) == (422, "bad_request")


def test_the_second_cook_sees_what_changed(api):
    code = api.started()
    api.recorded(code, TRIM)
    status, problem = api.record(code, {**TRIM, "kind": "slice"}, seen=1)
    assert (status, problem["code"]) == (409, "moved_on")
    assert "recorded “Trimmed”" in problem["changes"][0]
    assert "A 5 lb · B 3 lb" in problem["changes"][0]
    assert Entry.objects.count() == 2


def test_a_correction_takes_the_place_of_the_wrong_entry_and_both_stay(api):
    code = api.started()
    api.recorded(code, TRIM)
    wrong = api.recorded(code, weigh("smoke", A="2.4 lb", B="2.5 lb"))["entry"]
    api.recorded(code, weigh("chill", A="4.1 lb", B="2.4 lb"))
    right = weigh("smoke", A="4.2 lb", B="2.5 lb")
    body = api.recorded(code, right, corrects=wrong, reason="digits swapped")
    batch = body["batch"]
    assert [column["weight_out"]["lb"] for column in batch["strip"]["columns"]] == [
        "10.00",
        "8.00",
        "6.70",
        "6.50",
    ]
    old, new = batch["log"][2], batch["log"][4]
    assert (old["overruled_by"], new["corrects"], new["reason"]) == (new["id"], old["id"], "digits swapped")
    assert (old["lines"][0], new["lines"][0]) == ("A 2.4 lb · B 2.5 lb", "A 4.2 lb · B 2.5 lb")
    again = api.recorded(
        code, weigh("smoke", A="4.3 lb", B="2.5 lb"), corrects=body["entry"], reason="once more"
    )
    assert again["batch"]["log"][5]["corrects"] == old["id"]
    assert again["batch"]["strip"]["columns"][2]["weight_out"]["lb"] == "6.80"


def test_what_was_bought_can_be_corrected(api):
    code = api.started()
    first = api.get(f"/batches/{code}")[1]["log"][0]["id"]
    batch = api.recorded(code, {**BOUGHT, "price": "25.00"}, corrects=first, reason="wrong tag")["batch"]
    assert batch["house"]["unit_cost"]["per_lb"] == "2.50"


def test_an_entry_can_be_taken_back(api):
    code = api.started()
    trim = api.recorded(code, TRIM)["entry"]
    batch = api.recorded(code, {"act": "withdraw"}, corrects=trim, reason="other batch")["batch"]
    assert [piece["mark"] for piece in batch["pieces"]] == ["lot"]
    assert [entry["act"] for entry in batch["log"]] == ["bought", "split", "withdraw"]


def test_a_correction_that_later_entries_contradict_is_refused_whole(api):
    code = api.started()
    trim = api.recorded(code, TRIM)["entry"]
    api.recorded(code, weigh("smoke", A="4 lb", B="2.5 lb"))
    for content in ({"act": "withdraw"}, {**TRIM, "pieces": [{"mark": "A", "weight": "8 lb"}]}):
        status, problem = api.record(code, content, corrects=trim, reason="why not")
        assert (status, problem["code"]) == (422, "breaks_later")
        assert "“Smoked” (entry 3)" in problem["detail"]
    assert Entry.objects.count() == 3


def test_bad_corrections(api):
    code = api.started()
    first = api.get(f"/batches/{code}")[1]["log"][0]["id"]
    trim = api.recorded(code, TRIM)["entry"]
    for content, more, refusal in [
        (TRIM, {"corrects": trim}, "bad_fields"),
        (TRIM, {"reason": "because"}, "bad_fields"),
        (TRIM, {"corrects": trim + 999, "reason": "x"}, "not_found"),
        (BOUGHT, {"corrects": trim, "reason": "x"}, "bad_correction"),
        ({"act": "withdraw"}, {"corrects": first, "reason": "x"}, "bad_correction"),
        ({"act": "withdraw"}, {}, "bad_correction"),
    ]:
        status, problem = api.record(code, content, **more)
        assert (status in (404, 422), problem["code"]) == (True, refusal)
    assert Entry.objects.count() == 2


@pytest.mark.parametrize("when", ["1999-12-31T00:00:00Z", "2999-01-01T00:00:00Z"])
def test_days_that_cannot_be(api, when):
    status, problem = api.record(api.started(), TRIM, happened_at=when)
    assert (status, paths(problem)) == (422, {"happened_at": "odd_time"})


def test_another_kitchens_batch_is_not_here(api, other):
    code = api.started()
    entry = api.get(f"/batches/{code}")[1]["log"][0]["id"]
    for status, problem in (
        other.get(f"/batches/{code}"),
        other.record(code, TRIM, seen=1),
        other.preview(code, TRIM),
    ):
        assert (status, problem["code"]) == (404, "not_found")
    theirs = other.started()
    assert other.record(theirs, BOUGHT, corrects=entry, reason="mine now")[0] == 404
    for path in (f"/api/kitchens/{api.slug}/today", f"/api/kitchens/{api.slug}/batches/{code}"):
        assert other.client.get(path).status_code == 404
    assert [batch["code"] for batch in other.get("/today")[1]["under_way"]] == [theirs]


def test_the_same_key_in_two_kitchens_is_two_writes(api, other):
    key = uuid.uuid4()
    assert (api.start(key=key)[0], other.start(key=key)[0]) == (201, 201)


def test_a_write_answers_what_a_read_then_tells(api):
    started = api.start(bought={**BOUGHT, "own_weight": "4.536 kg"})[1]
    code = started["batch"]["code"]
    assert api.get(f"/batches/{code}") == (200, started["batch"])
    used = [{"what": "salt", "group": "cure", "amount": "95 g", "price": "1.20/kg"}]
    for content in (
        {**TRIM, "minutes": "12.50", "used": used},
        {"act": "portion", "slices": "3.0"},
        {"act": "shop_pack", "name": "good", "paid": "6", "weight": "12 oz"},
    ):
        assert api.recorded(code, content)["batch"] == api.get(f"/batches/{code}")[1]


def test_query_budgets(api, django_assert_num_queries):
    code = api.started(course="cooked")
    api.recorded(code, TRIM)
    for number in range(12):
        api.recorded(code, weigh(f"step {number}", A="4 lb", B="2 lb"))
    with django_assert_num_queries(11):
        api.get(f"/batches/{code}")
    with django_assert_num_queries(30):
        api.record(code, weigh("chill", A="4 lb", B="2 lb"), seen=15)
    for _ in range(6):
        api.started(course="cooked")
    with django_assert_num_queries(6):
        api.get("/today")


def test_recorded_briefly_the_entry_alone_is_answered(api):
    code = api.started()
    api.get(f"/batches/{code}")
    key = str(uuid.uuid4())
    body = json.dumps({"content": TRIM, "seen": 1})
    headers = {"Idempotency-Key": key, "Prefer": "return=minimal"}
    path = f"/api/kitchens/{api.slug}/batches/{code}/entries"
    for status in (201, 200):
        answer = api.client.post(path, body, content_type="application/json", headers=headers)
        assert (answer.status_code, answer.json()) == (status, {"entry": Entry.objects.latest("id").pk})
    page = api.get(f"/batches/{code}")[1]
    assert [piece["mark"] for piece in page["pieces"]] == ["A", "B"]
    assert page == api.call("POST", f"/batches/{code}/entries", {"content": TRIM, "seen": 1}, key)[1]["batch"]


def test_grams_come_back_exactly(api):
    code = api.started()
    api.recorded(code, {**TRIM, "pieces": [{"mark": "A", "weight": "4 lb 6.125 oz"}], "cut_off": []})
    with connection.cursor() as cursor:
        cursor.execute("SELECT grams FROM batches_weighing")
        assert str(cursor.fetchone()[0]) == "1988.010309140625"


def test_a_sum_beside_a_weight_is_asked_about_for_it_may_be_the_price_of_the_jar(api):
    code = api.started()
    api.recorded(code, TRIM)
    used = [
        {"what": "juniper", "group": "cure", "amount": "22 g", "price": "6.99"},
        {"what": "salt", "group": "cure", "amount": "100 g", "price": "6.99 for 500 g"},
        {"what": "bags", "group": "packaging", "amount": "3", "price": "1.20"},
        {"what": "rub", "group": "cure", "price": "2.00"},
    ]
    preview = api.preview(code, {**weigh("cure", A="4.9 lb"), "used": used})[1]
    (asked,) = preview["asks"]
    assert asked.startswith("juniper: is 6.99 what 22 g cost, or the price of the whole jar?")
    # the answer it proposes can be read
    used[0]["price"] = asked.rpartition(": ")[2].removesuffix(".")
    preview = api.preview(code, {**weigh("cure", A="4.9 lb"), "used": used})[1]
    assert (preview["asks"], preview["problems"]) == ([], [])
