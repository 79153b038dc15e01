"""Batches of before from a spreadsheet: matched, shown with their faults, written once."""

import uuid
from dataclasses import replace
from datetime import date, timedelta
from io import BytesIO

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from openpyxl import Workbook

from dolmetsch.server.batches.models import Batch, BatchFacts, StepYield
from dolmetsch.server.history import importing
from dolmetsch.server.history.models import HistoryFile
from dolmetsch.server.history.reading import guess_match
from dolmetsch.server.kitchens.models import Kitchen
from tests.server.test_meals import WAY

pytestmark = pytest.mark.django_db
HEADS = "Batch,Cut,Date,Butcher,Bought (lb),Paid,Trimmed,Smoked,Sliced,Slices,Minutes"
GOOD = "Spring jowl,jowl skin on,2026-03-04,Quay butcher,10,20.00,8.5,7,6,100,90"


def upload(api, text, name="batches.csv"):
    content = text if isinstance(text, bytes) else text.encode()
    answer = api.client.post(
        f"/api/kitchens/{api.slug}/history",
        {"file": SimpleUploadedFile(name, content)},
        headers={"Idempotency-Key": str(uuid.uuid4())},
    )
    return answer.status_code, answer.json()


def uploaded(api, *rows, heads=HEADS):
    status, body = upload(api, "\n".join([heads, *rows]))
    assert status == 201, str(body)
    return body


def preview(api, file, **more):
    status, body = api.call("POST", f"/history/{file['id']}/preview", {**file["match"], **more})
    assert status == 200, str(body)
    return body


def write(api, file, **more):
    match = {**file["match"], **more}
    while not file["is_done"]:
        body = {"from_row": file["next_row"], "match": match}
        status, file = api.call("POST", f"/history/{file['id']}/write", body)
        assert status == 200, str(file)
    return file


def test_columns_are_guessed_by_their_heads(api):
    file = uploaded(api, GOOD)
    heads = HEADS.split(",")
    found = {target: heads[at] for target, at in file["match"]["columns"].items()}
    assert found == {
        "name": "Batch",
        "cut": "Cut",
        "day": "Date",
        "source": "Butcher",
        "bought": "Bought (lb)",
        "paid": "Paid",
        "trim": "Trimmed",
        "smoke": "Smoked",
        "slice": "Sliced",
        "slices": "Slices",
        "minutes": "Minutes",
    }
    assert file["match"]["unit"] == "lb"
    assert guess_match(["weight kg", "out lb"]).unit == ""


def test_nothing_is_written_until_it_is_confirmed_and_then_it_is_a_finished_batch(api):
    Kitchen.objects.filter(slug=api.slug).update(labour_rate=20)
    file = uploaded(api, GOOD)
    shown = preview(api, file)
    assert (shown["new"], shown["known"], shown["faulty"], shown["problems"]) == (1, 0, 0, [])
    (row,) = shown["sample"]
    assert (row["name"], row["kept"], row["price"]["per_lb"]) == ("Spring jowl", "60.0", "3.33")
    assert "wage of today" in shown["notes"][0]
    assert not Batch.objects.exists()
    done = write(api, file)
    assert (done["added"], done["known"], done["faulty"]) == (1, 0, 0)
    batch = Batch.objects.get()
    assert (batch.name, batch.is_finished) == ("Spring jowl", True)
    assert timezone.localdate(batch.started_at) == timezone.localdate(batch.last_entry_at) == date(2026, 3, 4)
    body = api.get(f"/batches/{batch.code}")[1]
    assert [column["label"] for column in body["strip"]["columns"]] == [
        "Bought",
        "Trimmed",
        "Smoked",
        "Sliced",
    ]
    assert [column["kept_of_step"] for column in body["strip"]["columns"]][1:] == ["85.0", "82.4", "85.7"]
    # 20.00 and an hour and a half at 20.00
    assert body["house"]["cost"] == "50.00"
    assert body["house"]["slices"] == 100
    assert BatchFacts.objects.get().source == "Quay butcher"
    assert StepYield.objects.count() == 3


def test_the_same_file_twice_changes_nothing(api):
    write(api, uploaded(api, GOOD))
    again = uploaded(api, GOOD, "Autumn jowl,jowl skin on,2026-09-04,Quay butcher,10,20.00,8.5,7,6,100,90")
    assert again["is_remembered"]
    shown = preview(api, again)
    assert (shown["new"], shown["known"]) == (1, 1)
    assert [row["is_known"] for row in shown["sample"]] == [True, False]
    done = write(api, again)
    assert (done["added"], done["known"]) == (1, 1)
    assert Batch.objects.count() == 2
    # written otherwise, it is the same batch
    heads = "what,cut,date,in,cost,trimmed,smoked,final"
    same = uploaded(api, "spring JOWL,jowl skin on,4 Mar 2026,160 oz,$20,136 oz,112 oz,6 lb", heads=heads)
    assert preview(api, same)["known"] == 1


def test_two_rows_alike_in_one_file_are_one_batch(api):
    file = uploaded(api, GOOD, GOOD)
    shown = preview(api, file)
    assert (shown["new"], shown["known"]) == (1, 1)
    assert "Row 3 is row 2 again, and is left out." in shown["notes"]
    assert write(api, file)["added"] == 1


def test_faulty_rows_are_named_and_the_others_come_in(api):
    rows = [
        GOOD,
        "No weight,jowl,2026-03-05,,,20,8,7,6,,",
        "Formula,jowl,2026-03-05,,10,=B2*2,8,7,6,,",
        "Mixed,jowl,2026-03-05,,10,20,8,15,6,,",
        "Vanished,jowl,2026-03-05,,10,20,8,7,1,,",
        "Heavier,jowl,2026-03-05,,10,20,8,7,7.2,,",
        "Ahead,jowl,2099-03-05,,10,20,8,7,6,,",
        "No day,jowl,,,10,20,8,7,6,,",
        "Half a slice,jowl,2026-03-05,,10,20,8,7,6,10.5,",
        "Nothing paid,jowl,2026-03-05,,10,,8,7,6,,",
        ",,2026-03-05,,10,20,8,7,6,,",
        "Below,jowl,2026-03-05,,10,-5,8,7,6,,",
    ]
    shown = preview(api, uploaded(api, *rows))
    assert (shown["new"], shown["faulty"]) == (1, len(rows) - 1)
    said = {fault["row"]: fault["message"] for fault in shown["faults"]}
    for row, words in {
        3: "the weight as bought is missing",
        4: "is a formula",
        5: "are pounds and kilograms mixed",
        6: "are pounds and kilograms mixed",
        7: "are pounds and kilograms mixed",
        8: "in the future",
        9: "the day is missing",
        10: "not a number of slices",
        11: "what was paid is missing",
        12: "the cut is missing",
    }.items():
        assert words in said[row], (row, said[row])
    assert 13 in said
    done = write(api, uploaded(api, *rows))
    assert (done["added"], done["faulty"]) == (1, len(rows) - 1)


@pytest.mark.parametrize(
    ("row", "said"),
    [
        (GOOD.replace(",10,", ",,", 1), "the weight as bought is missing"),
        (GOOD.replace(",6,100", ",,100"), "the finished weight is missing"),
        (GOOD.replace("Spring jowl", "x" * 81), "at most 80 plain letters"),
        (GOOD.replace("Quay butcher", "=cmd()"), "formula"),
    ],
)
def test_a_row_that_lacks_or_spoils_what_it_needs_is_named(api, row, said):
    faults = preview(api, uploaded(api, GOOD, row))["faults"]
    assert [fault["row"] for fault in faults] == [3]
    assert said in str(faults)


def test_weights_in_another_unit_than_the_rest_are_read_where_they_say_so(api):
    """A cell with a unit of its own is read by that."""
    row = GOOD.replace(",10,", ",4.536 kg,", 1)
    file = uploaded(api, row)
    assert preview(api, file)["faults"] == []
    write(api, file)
    assert BatchFacts.objects.get().own_grams == pytest.approx(4536)


def test_a_unit_nobody_said_is_asked_for(api):
    heads = "batch,cut,date,bought,paid,sliced"
    file = uploaded(api, "A,jowl,2026-03-04,10,20,6", heads=heads)
    shown = preview(api, file)
    assert shown["asks_unit"]
    assert [one["path"] for one in shown["problems"]] == ["unit"]
    assert api.call("POST", f"/history/{file['id']}/write", {"from_row": 0, "match": file["match"]})[0] == 422
    assert preview(api, file, unit="kg")["sample"][0]["bought"]["kg"] == "10.000"
    own = uploaded(api, "A,jowl,2026-03-04,10 lb,20,6 lb", "B,jowl,2026-03-04,4.5 kg,20,2.7 kg", heads=heads)
    shown = preview(api, own)
    assert not shown["asks_unit"]
    assert "Several units in one column: 1 in lb, 1 in kg. Each row is read in its own." in shown["notes"]
    by_row = uploaded(api, "A,jowl,2026-03-04,10,20,6,kg", heads=f"{heads},unit")
    assert preview(api, by_row)["sample"][0]["bought"]["kg"] == "10.000"


def test_days_of_two_orders_are_asked_for(api):
    heads = "batch,cut,date,bought lb,paid,sliced"
    file = uploaded(api, "A,jowl,03/04/2026,10,20,6", heads=heads)
    shown = preview(api, file)
    assert shown["asks_days"]
    assert [one["path"] for one in shown["problems"]] == ["day_first"]
    assert preview(api, file, day_first=True)["sample"][0]["day"] == "2026-04-03"
    assert preview(api, file, day_first=False)["sample"][0]["day"] == "2026-03-04"
    plain = uploaded(api, "A,jowl,03/04/2026,10,20,6", "B,jowl,03/25/2026,10,20,6", heads=heads)
    assert preview(api, plain)["sample"][0]["day"] == "2026-03-04"
    both = uploaded(api, "A,jowl,13/04/2026,10,20,6", "B,jowl,03/25/2026,10,20,6", heads=heads)
    assert preview(api, both)["asks_days"]


def test_a_price_by_weight_and_a_comma_are_read(api):
    heads = "batch;cut;date;bought kg;price;sliced"
    file = uploaded(api, "A;jowl;2026-03-04;4,5;6,20/kg;2,7", heads=heads)
    (row,) = preview(api, file)["sample"]
    # 4.5 kg at 6.20: 27.90 over 2.7 kg
    assert (row["kept"], row["price"]["per_kg"]) == ("60.0", "10.33")
    per_lb = uploaded(api, "A;jowl;2026-03-04;4,5;2,80 per lb;2,7", heads=heads)
    assert preview(api, per_lb)["sample"][0]["price"]["per_kg"] == "10.29"


def test_a_workbook_is_read_with_its_days_and_numbers(api):
    book = Workbook()
    sheet = book.active
    sheet.append(["what", "cut", "date", "bought lb", "paid", "sliced lb"])
    sheet.append(["A", "jowl", date(2026, 3, 4), 10.1, 20, 6.06])
    sheet.append(["B", "jowl", date(2026, 3, 4), 10.1, "=C2*2", 6.06])
    out = BytesIO()
    book.save(out)
    status, file = upload(api, out.getvalue(), "batches.xlsx")
    assert status == 201
    shown = preview(api, file)
    assert (shown["new"], shown["faulty"]) == (1, 1)
    assert shown["sample"][0]["kept"] == "60.0"
    assert "formula" in shown["faults"][0]["message"]


def test_a_method_known_here_is_chosen(api):
    assert api.call("POST", "/ways", WAY)[0] == 201
    heads = "batch,cut,date,bought lb,paid,sliced,method"
    rows = [f'A,jowl,2026-03-04,10,20,6,"{WAY["name"].upper()}"', "B,jowl,2026-03-05,10,20,6,Moonlight"]
    file = uploaded(api, *rows, heads=heads)
    assert any("No method is called “Moonlight”" in note for note in preview(api, file)["notes"])
    write(api, file)
    assert set(BatchFacts.objects.values_list("way", flat=True)) == {WAY["name"], ""}


def test_too_many_rows_and_no_table_are_refused(api, monkeypatch):
    monkeypatch.setattr(importing, "MOST_ROWS", 2)
    status, body = upload(api, "\n".join([HEADS, GOOD, GOOD, GOOD]))
    assert (status, body["code"]) == (413, "too_many")
    assert "Bring it in in parts" in body["detail"]
    assert upload(api, "")[0] == 422
    assert not HistoryFile.objects.exists()


@pytest.mark.parametrize(
    ("name", "shown"),
    [
        ("my batches.csv", "my batches.csv"),
        ("my\u200b batches.csv", "my batches.csv"),
        ("b" * 200, "b" * 120),
    ],
)
def test_a_spreadsheet_is_called_as_its_file_without_what_cannot_be_seen(api, name, shown):
    status, body = upload(api, "\n".join([HEADS, GOOD]), name=name)
    assert (status, body["name"]) == (201, shown)


def test_it_is_written_in_pieces_that_can_be_sent_again(api, monkeypatch):
    monkeypatch.setattr(importing, "PAST_BATCHES", replace(importing.PAST_BATCHES, piece_rows=2))
    rows = [GOOD.replace("Spring", f"Spring {at}") for at in range(5)]
    file = uploaded(api, *rows)
    body = {"from_row": 0, "match": file["match"]}
    first = api.call("POST", f"/history/{file['id']}/write", body)[1]
    assert (first["next_row"], first["added"]) == (2, 2)
    # the answer was lost: nothing is written twice
    assert api.call("POST", f"/history/{file['id']}/write", body)[1] == first
    other = {**body, "from_row": 2, "match": {**file["match"], "cut": "belly"}}
    assert api.call("POST", f"/history/{file['id']}/write", other)[1]["code"] == "moved_on"
    assert write(api, first | {"match": file["match"]})["added"] == 5
    assert Batch.objects.count() == 5


def test_each_kitchen_has_its_own_files_and_batches(api, other):
    file = uploaded(api, GOOD)
    write(api, file)
    assert other.get(f"/history/{file['id']}")[0] == 404
    assert other.call("POST", f"/history/{file['id']}/preview", file["match"])[0] == 404
    assert (
        other.call("POST", f"/history/{file['id']}/write", {"from_row": 0, "match": file["match"]})[0] == 404
    )
    theirs = uploaded(other, GOOD)
    assert not theirs["is_remembered"]
    assert preview(other, theirs)["new"] == 1


def test_forecasts_are_the_kitchens_own_from_then_on(api):
    rows = [GOOD.replace("03-04", f"03-{day:02d}") for day in range(4, 10)]
    write(api, uploaded(api, *rows))
    smoke = next(one for one in api.get("/yields")[1]["yields"] if one["method"] == "hot_smoke")
    assert smoke["batches"] == 6
    assert smoke["basis"].endswith("your last 6 hot smokes of this cut")


def test_a_batch_of_today_is_not_of_tomorrow(api):
    day = timezone.localdate().isoformat()
    done = write(api, uploaded(api, GOOD.replace("2026-03-04", day)))
    assert done["added"] == 1
    assert Batch.objects.get().last_entry_at <= timezone.now() + timedelta(seconds=1)
