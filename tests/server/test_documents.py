"""Export, import, linked batches, sheets to take away, over the real record store."""

import csv
import io
import json
import re
import zlib

import pytest
from jsonschema import Draft202012Validator
from openpyxl import load_workbook

from dolmetsch.core.documents.answers import SCHEMAS, answer_cost
from dolmetsch.server.batches.models import Batch, Entry
from tests.core.documents.test_answers import UPSTREAM, off
from tests.core.jowl import EXAMPLES
from tests.server.conftest import BOUGHT, TRIM, weigh

EXAMPLE = (EXAMPLES / "batch.json").read_text()
FULL = {
    "format": "dolmetsch-batch/1",
    "policy": {"labour_rate": "12", "by_products": "none", "fuel": False},
    "batches": [{**UPSTREAM, "name": "Old ham"}],
    "lots": [
        {"id": "L", "label_weight": "10 lb", "weight": "9 lb 14 oz", "paid": "20.5", "solution": "0.125"},
        {"id": "ham", "from": {"batch": "ham", "piece": "leg", "weight": "2 lb"}},
    ],
    "steps": [
        {
            "split": "L",
            "into": [
                {"id": "A", "weight": "4 lb"},
                {"id": "b", "weight": "1.5 kg", "slices": "12"},
                off("trim", "8 oz", {"paid": "5", "for": "3 oz"}, material="lean"),
                off("skin", "4 oz", "0", name="the skin"),
                off("sq", "50 g", "as_main"),
            ],
            "used": [
                {"count": 0, "price": "1.00/each"},
                {"amount": "9 g", "price": "0.02/g", "pieces": ["L"]},
            ],
            "scale": "5 g",
        },
        {"kind": "smoke", "weigh": {"A": "3.5 lb"}, "overhead": "2", "minutes": 12.5},
        {"kind": "mix", "merge": ["A", "ham"], "into": {"id": "M", "weight": "5 lb", "slices": 40}},
        {"pieces": ["b"], "charge": "loss", "why": "fell in the sand"},
    ],
    "portion": {"cooked_weight": "1 oz"},
    "fry_yield": "0.425",
    "store": [
        {"paid": "7.99", "weight": "12 oz", "slices": 10, "fry_yield": "0.33"},
        {"paid": "5", "weight": "1 lb"},
    ],
}


def file_of(api, code, form="json"):
    return api.client.get(f"/api/kitchens/{api.slug}/batches/{code}/files/{form}")


def imported(api, text, **more):
    status, body = api.call("POST", "/imports", {"document": text}, **more)
    assert status == 201, str(body)
    return body["batches"][-1]["code"]


def without_lineage(answer):
    return {key: value for key, value in answer.items() if key != "lineage"}


@pytest.mark.parametrize("text", [EXAMPLE, json.dumps(FULL)])
def test_export_import_export_gives_the_same_bytes_and_the_same_sheet(api, text):
    code = imported(api, text)
    first = file_of(api, code).content
    again = file_of(api, imported(api, first.decode())).content
    assert again == first
    assert without_lineage(answer_cost(first)) == {
        **without_lineage(answer_cost(text)),
        "currency": "USD",
    }
    schema = json.loads((SCHEMAS / "batch.schema.json").read_text())
    Draft202012Validator(schema).validate(json.loads(first))


def test_what_cooks_recorded_is_exported_and_comes_to_the_same_figures(api):
    code = api.started(bought={**BOUGHT, "price_basis": "per_lb", "price": "2.85", "own_weight": "10"})
    used = [
        {"what": "salt", "group": "cure", "amount": "95 g", "price": "1.20/kg"},
        {"what": "bags", "group": "packaging", "amount": "3 bags", "price": "18 for 50"},
        {"what": "juniper", "amount": "", "price": "1.10", "pieces": ["A"]},
        {"what": "pepper", "amount": "9g", "price": "2.40"},
    ]
    api.recorded(code, TRIM)
    api.recorded(code, {**weigh("cure", A="4lb 12oz", B="2.9"), "used": used, "minutes": "12.50"})
    api.recorded(
        code, {"act": "shop_pack", "name": "good", "paid": "6.15", "weight": "12 ounces", "slices": "11"}
    )
    document = file_of(api, code).content
    answer = json.loads(document)
    assert answer["lots"][0]["paid"] == "29.07"
    assert answer["steps"][1]["weigh"] == {"A": "4 lb 12 oz", "B": "2.9 lb"}
    assert answer["steps"][1]["used"][1]["price"] == {"paid": "18", "for": "50 each"}
    house = api.get(f"/batches/{code}")[1]["house"]
    assert answer_cost(document)["final"]["cost"][:-2] == house["cost"]
    assert file_of(api, imported(api, document.decode())).content == document


def test_a_dry_run_shows_and_writes_nothing_and_a_resend_makes_nothing_twice(api):
    status, shown = api.call("POST", "/imports?dry_run=true", {"document": json.dumps(FULL)})
    assert (status, shown["written"], len(shown["batches"])) == (200, False, 2)
    assert (Batch.objects.count(), Entry.objects.count()) == (0, 0)
    key = "5a17ab1e-0000-4000-8000-0000000000ff"
    made = [api.call("POST", "/imports", {"document": EXAMPLE}, key=key)[1]["batches"][-1] for _ in range(2)]
    assert made[0]["code"] == made[1]["code"]
    assert made[0]["house"] == made[1]["house"]
    assert Batch.objects.count() == 1
    # without weights: said of the dry run too
    assert shown["batches"][1]["house"]["unit_cost"] is not None


@pytest.mark.parametrize(
    ("change", "message"),
    [
        ({"lots": []}, "lots: a batch begins with something bought."),
        ({"currency": "EUR"}, "counts in EUR"),
        ({"name": "x" * 81}, "name"),
        ({"lots": [{"id": "L", "weight": "6000 kg", "paid": "1"}], "steps": []}, "over 5 t"),
        ({"steps": [{"kind": "k" * 61, "weigh": {"box": "1 lb"}}]}, "step 1"),
        ({"steps": [{"weigh": {"box": "1 lb"}, "happened_at": "yesterday"}]}, "step 1"),
        ({"steps": [{"weigh": {"box": "1 lb"}, "minutes": "0.001"}]}, "step 1: minutes"),
    ],
)
def test_what_cannot_be_imported_is_refused_whole(api, change, message):
    document = json.dumps({**json.loads(EXAMPLE), **change})
    status, problem = api.call("POST", "/imports", {"document": document})
    assert status == 422, str(problem)
    assert message in problem["detail"]
    assert (Batch.objects.count(), Entry.objects.count()) == (0, 0)


def take(code, piece="A", **more):
    return {"act": "bought", "cut": "cured meat", "source": {"batch": code, "piece": piece, **more}}


def test_a_correction_upstream_flows_down_and_is_told(api):
    """8 lb of A and B at 17.50 a batch; A's 5 lb carry 10.94. Half the price halves it."""
    up = api.started()
    trimmed = api.recorded(up, TRIM)["entry"]
    down = api.started(name="Sausage", bought=take(up))
    (source,) = api.get(f"/batches/{down}")[1]["sources"]
    assert (source["carried"], source["has_changed"], source["piece"]) == ("10.94", False, "A")
    first = api.get(f"/batches/{up}")[1]["log"][0]["id"]
    api.recorded(up, {**BOUGHT, "price": "10.00"}, corrects=first, reason="half off")
    batch = api.get(f"/batches/{down}")[1]
    (source,) = batch["sources"]
    assert (source["carried_then"], source["carried"], source["has_changed"]) == ("10.94", "4.69", True)
    assert batch["house"]["cost"] == "4.69"
    assert api.get(f"/batches/{up}/verdict")[1]["takers"] == [
        {"batch": down, "name": "Sausage", "piece": "A"}
    ]
    # what the batch below rests on cannot be corrected away
    gone = {**TRIM, "pieces": [{"mark": "C", "weight": "8 lb"}]}
    status, problem = api.record(up, gone, corrects=trimmed, reason="one piece")
    assert (status, problem["code"]) == (422, "breaks_later")
    assert down in problem["detail"]


def test_what_is_not_there_or_taken_already_cannot_be_taken(api, other):
    up = api.started()
    api.recorded(up, TRIM)
    down = api.started(name="Sausage", bought=take(up, weight="3 lb"))
    for bought, path in [
        (take(up, piece="Q"), "bought.source.piece"),
        (take(up, weight="3 lb"), "bought.source.weight"),
        (take("Z-99"), "bought.source.batch"),
    ]:
        status, problem = api.start(bought=bought)
        assert (status, [field["path"] for field in problem["fields"]]) == (422, [path])
    status, problem = api.record(up, take(down, piece="lot"))
    assert (status, problem["fields"][0]["code"]) == (422, "circle")
    assert other.start(bought=take(up))[0] == 422
    assert api.start(bought=take(up, weight="2 lb"))[0] == 201


def test_tables_hold_numbers_and_make_formulas_safe(api):
    code = api.started(name="=1+1", bought={**BOUGHT, "cut": "@home"})
    api.recorded(code, TRIM)
    rows = list(csv.reader(io.StringIO(file_of(api, code, "csv").content.decode("utf-8-sig"))))
    assert ["name", "'=1+1"] in rows
    assert ["cut", "'@home"] in rows
    assert next(row for row in rows if row[:1] == ["Trimmed"])[9:12] == ["0.00", "2.50", "2.19"]
    book = load_workbook(io.BytesIO(file_of(api, code, "xlsx").content))
    cells = {row[0].value: row[1] for row in book["Batch"].iter_rows()}
    assert (cells["name"].value, cells["name"].data_type) == ("'=1+1", "s")
    assert book["Ledger"]["J3"].value == 0
    assert "counted" in cells["policy"].value


def test_the_page_is_one_page(api):
    code = imported(api, json.dumps(FULL))
    for number in range(14):
        api.recorded(code, weigh(f"step {number}", M="5 lb"))
    pdf = file_of(api, code, "pdf").content
    streams = re.findall(rb"stream\r?\n(.*?)\r?\nendstream", pdf, re.DOTALL)
    whole = pdf + b"".join(
        zlib.decompressobj().decompress(stream) for stream in streams if stream[:1] == b"x"
    )
    assert (pdf[:5], len(re.findall(rb"/Type\s*/Page\b", whole))) == (b"%PDF-", 1)


def test_schemas_are_served_and_unknown_forms_are_not(api):
    assert api.client.get("/api/schemas/batch").json()["$id"] == "dolmetsch-batch/1"
    assert api.client.get("/api/schemas/other").status_code == 422
    assert file_of(api, api.started(), "doc").status_code == 422


def test_what_went_wholly_into_another_batch_leaves_every_list_and_its_batch_is_finished(api):
    up = api.started()
    api.recorded(up, TRIM)

    def here():
        batch = api.get(f"/batches/{up}")[1]
        listed = [one["mark"] for one in api.get(f"/batches/{up}/pieces")[1]["pieces"]]
        row = Batch.objects.get(code=up)
        assert listed == [one["mark"] for one in batch["pieces"]] == row.summary["pieces"]
        assert row.pieces_count == len(listed)
        return listed, batch["is_finished"]

    down = api.started(name="Sausage", bought=take(up, weight="4.9 lb"))
    assert here() == (["A", "B"], False)
    # within one part in a hundred it is all of it
    api.recorded(down, take(up, weight="0.06 lb"))
    assert here() == (["B"], False)
    api.recorded(down, take(up, piece="B"))
    assert here() == ([], True)
    # taken back, it is here again
    last = Entry.objects.filter(batch__code=down).latest("sequence")
    api.recorded(down, {"act": "withdraw"}, corrects=last.pk, reason="the other piece")
    assert here() == (["B"], False)
    # 4.96 lb of the 5 that carry 10.94
    assert api.get(f"/batches/{down}")[1]["house"]["cost"] == "10.85"
