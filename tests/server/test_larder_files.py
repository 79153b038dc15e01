"""Packs in documents and spreadsheets: taken away, brought in, refused."""

import json
from decimal import Decimal
from fractions import Fraction

import pytest
from django.utils import timezone

from dolmetsch.core.documents.answers import answer_cost
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.larder.models import Pack, Packing, PackNow, TakenNow
from tests.server.conftest import as_file
from tests.server.test_larder import everything, larder, packed, page, take  # noqa: F401 (fixtures)


def test_packs_go_into_the_document_and_come_back(packed):
    take(packed, fate="sold", slices="2", income="3.20")
    take(packed, weight="1 oz", fate="discarded", why="dried out")
    take(packed, "P4")
    exported = packed.client.get(f"/api/kitchens/{packed.slug}/batches/{packed.code}/files/json").content
    answer = answer_cost(exported)
    _, _, stowed = everything(packed)
    assert answer["gone"]["sold"]["income"] == "3.2000"
    assert answer["packs"]["P1"]["left_slices"] is None
    assert Fraction(answer["on_hand"]["cost"]) == round(stowed.on_hand.cost, 4)
    body = {"document": exported.decode()}
    assert packed.call("POST", "/imports?dry_run=true", body)[0] == 200
    assert Packing.objects.count() == 1
    status, made = packed.call("POST", "/imports", body)
    assert status == 201
    code = made["batches"][0]["code"]
    again = packed.client.get(f"/api/kitchens/{packed.slug}/batches/{code}/files/json").content
    assert json.loads(again) == json.loads(exported)
    assert packed.get(f"/packs/{code}/P1")[1]["pack"]["left"] == page(packed)["pack"]["left"]


@pytest.mark.parametrize("change", [{"id": "P" * 61}, {"weight": "0." + "0" * 45 + "5 lb"}])
def test_a_document_beyond_what_is_kept_is_refused(packed, change):
    exported = json.loads(
        packed.client.get(f"/api/kitchens/{packed.slug}/batches/{packed.code}/files/json").content
    )
    exported["packs"] = [exported["packs"][0] | change]
    status, body = packed.call("POST", "/imports", {"document": json.dumps(exported)})
    assert (status, body["code"]) == (422, "bad_document")
    assert Batch.objects.count() == 1


def test_the_larder_is_taken_away_as_tables_and_json(packed):
    take(packed, slices="3", why="breakfast")
    path = f"/api/kitchens/{packed.slug}/larder/files"
    answer = json.loads(packed.client.get(f"{path}/json").content)
    assert (len(answer["packs"]), answer["gone"][0]["why"]) == (4, "breakfast")
    assert answer["packs"][0]["left_slices"] == 7
    text = packed.client.get(f"{path}/csv").content.decode("utf-8-sig")
    assert "breakfast" in text
    assert packed.client.get(f"{path}/xlsx").content[:2] == b"PK"


def files(api, form):
    return api.client.get(f"/api/kitchens/{api.slug}/larder/files/{form}").content


def test_the_rows_of_a_file_add_up_to_what_the_larder_says(packed):
    """Rounded each by itself the packs would be cents beside it."""
    for part in ("0.11 lb", "0.13 lb", "0.07 lb"):
        assert take(packed, weight=part)[0] == 201
    document = json.loads(files(packed, "json"))
    exact = sum(Fraction(now.left_cost) for now in PackNow.objects.all())
    gone = sum(Fraction(now.cost) for now in TakenNow.objects.all())
    assert sum(Decimal(one["left_cost"]) for one in document["packs"]) == round(Decimal(float(exact)), 2)
    assert sum(Decimal(one["cost"]) for one in document["gone"]) == round(Decimal(float(gone)), 2)


@pytest.mark.parametrize("form", ["csv", "xlsx", "json"])
def test_the_same_file_brought_in_changes_nothing(packed, form):
    take(packed, slices="3")
    file = as_file(files(packed, form))
    found = packed.call("POST", "/previews/larder/imports", file)[1]
    assert (found["new"], found["same"], found["problems"]) == (0, 4, [])
    assert packed.call("POST", "/larder/imports", file)[0] == 201
    assert (Pack.objects.count(), Packing.objects.count()) == (4, 1)


def test_packs_of_a_spreadsheet_are_recorded_with_their_day_and_place(packed):
    text = (
        "Batch;Product;Weight;Slices;Place;Packed;Piece\n"
        f"{packed.code};Jowl, sliced;8 oz;10;freezer;2026-11-20;S\n"
        f"{packed.code};Jowl, diced;0.25;;;;D\n"
    )
    found = packed.call("POST", "/previews/larder/imports", as_file(text))[1]
    assert [(one["mark"], one["weight"]["lb"]) for one in found["packs"]] == [("P5", "0.50"), ("P6", "0.25")]
    status, larder = packed.call("POST", "/larder/imports", as_file(text))
    assert (status, larder["packs"]) == (201, 6)
    first, second = Pack.objects.filter(number__gte=5).order_by("number")
    assert (first.store, first.slices, first.form) == ("Freezer", 10, "slices")
    assert timezone.localdate(first.packed_at).isoformat() == "2026-11-20"
    assert (second.store, second.form, PackNow.objects.get(pack=second).is_gone) == ("", "whole", False)
    made, there, _ = everything(packed)
    assert (made.cost, made.grams) == (there.cost, there.grams)


@pytest.mark.parametrize(
    ("row", "said"),
    [
        ("Z-99,Jowl,1 lb,,,", "row 2: There is no batch “Z-99”"),
        ("{},Jowl,1 lb,,,", "no finished piece “”"),
        ("{},Jowl,9 lb,,,S", "over 1 % more"),
        ("{},Jowl,heavy,,,S", "row 2: "),
        ("{},Jowl,1 lb,,Attic,S", "There is no “Attic” here"),
        ("{},Jowl,1 lb,0,,S", "At least one slice"),
        ("{},,1 lb,,,S", "The product is missing"),
        ("{},Jowl,1 lb,,,S,2126-01-01", "has not come yet"),
        ("{},Jowl,1 lb,,,S,soon", "is no day"),
        ("{},Jowl,0.1 lb,,,S,,P1", "P1 is in the book already"),
    ],
)
def test_a_row_that_cannot_be_is_named_and_nothing_is_brought_in(packed, row, said):
    good = f"{packed.code},Jowl,0.1 lb,,,S\n"
    heads = "batch,product,weight,slices,place,piece,packed,pack\n"
    file = as_file(heads + row.format(packed.code) + "\n" + good)
    found = packed.call("POST", "/previews/larder/imports", file)[1]
    assert found["problems"]
    status, problem = packed.call("POST", "/larder/imports", file)
    assert (status, said in problem["detail"]) == (422, True), problem["detail"]
    assert Pack.objects.count() == 4


def test_a_batch_of_another_kitchen_takes_no_packs(packed, other):
    text = f"batch,product,weight,piece\n{packed.code},Jowl,0.1 lb,S\n"
    assert other.call("POST", "/larder/imports", as_file(text))[0] == 422
    assert Pack.objects.count() == 4


def test_a_file_without_packs_is_refused(packed):
    odd = '{"format": "dolmetsch-larder/1", "packs": [1]}'
    for bad in ("{", '{"format": "x", "packs": []}', "a,b\n1,2\n", odd):
        status, problem = packed.call("POST", "/larder/imports", as_file(bad))
        assert (status, problem["code"] in ("bad_file", "bad_document")) == (422, True)
