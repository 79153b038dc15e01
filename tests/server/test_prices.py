"""The price list: noted, corrected, fried, brought in from hostile files, taken away."""

import csv
import io
import json
import uuid
import zipfile
from decimal import Decimal

import openpyxl
import pytest
from django.db import DatabaseError, connection, transaction

from dolmetsch.server.prices.models import FryTest, PriceFile, PriceItem, Quote, SourceMatch
from dolmetsch.server.ways.models import Way
from tests.server.conftest import BOUGHT, make_kitchen

JOWL = {
    "sort": "meat",
    "name": "jowl, skin on",
    "source": "Quay butcher",
    "on": "2026-03-02",
    "price": "2.79",
}
PACK = {
    "sort": "shop_pack",
    "name": "good shop bacon",
    "kind": "good",
    "source": "Pier grocer",
    "on": "2026-03-02",
    "price": "6.15",
    "size": "12 oz",
    "slices": "11",
}


def note(api, data, key=None):
    return api.call("POST", "/prices", data, key)


def noted(api, **answer):
    status, body = note(api, {**JOWL, **answer})
    assert status == 201, str(body)
    return body


def test_latest_lowest_usual_and_a_line_of_history(api):
    for on, price in (("2026-01-05", "2.40"), ("2026-02-05", "3.00"), ("2026-03-02", "2.80")):
        noted(api, on=on, price=price)
    (item,) = api.get("/prices?sort=meat")[1]["items"]
    assert item["latest"]["weight"] == {"per_lb": "2.80", "per_kg": "6.17"}
    assert (item["latest_on"], item["source"], item["quotes"]) == ("2026-03-02", "Quay butcher", 3)
    assert item["lowest"]["weight"]["per_lb"] == "2.40"
    assert item["usual"]["weight"]["per_lb"] == "2.80"
    assert [point["each"] for point in item["history"]] == ["2.4000", "3.0000", "2.8000"]


def test_a_pack_price_is_by_weight_too_and_keeps_its_size(api):
    item = noted(api, price="34.20", size="12 lb", solution="12")["item"]
    assert item["latest"]["weight"]["per_lb"] == "2.85"
    assert (item["pack"]["lb"], item["latest_typed"], item["solution"]) == (
        "12.00",
        "34.20 for 12 lb",
        "12.0",
    )
    bags = noted(api, sort="packaging", name="bags", price="18.00", size="50 each")["item"]
    assert bags["latest"] == {"weight": None, "each": "0.3600"}
    shop = noted(api, **PACK)["item"]
    assert (shop["latest"]["weight"]["per_lb"], shop["slices"], shop["kind"]) == ("8.20", 11, "good")


@pytest.mark.parametrize(
    ("message", "path", "code"),
    [
        ({"price": ""}, "price", "missing"),
        ({"price": "-2"}, "price", "negative"),
        ({"price": "dear"}, "price", "unreadable"),
        ({"name": ""}, "name", "missing"),
        ({"source": ""}, "source", "missing"),
        ({"on": "1999-01-01"}, "on", "odd_time"),
        ({"on": "2999-01-01"}, "on", "odd_time"),
        ({"solution": "90"}, "solution", "too_large"),
        ({"size": "12 each"}, "price", "unreadable"),
        ({"price": "34", "size": "0 lb"}, "size", "zero"),
        ({"price": "2.79/lb", "size": "12 each"}, "size", "unreadable"),
        ({"sort": "ingredient", "name": "salt", "price": "3"}, "price", "missing"),
        ({**PACK, "size": ""}, "size", "missing"),
        ({**PACK, "slices": "0"}, "slices", "zero"),
        ({"reason": "because"}, "reason", "no_correction"),
    ],
)
def test_bad_prices_are_named_and_nothing_is_written(api, message, path, code):
    status, problem = note(api, {**JOWL, **message})
    assert status == 422, problem
    assert [(fault["path"], fault["code"]) for fault in problem["fields"]] == [(path, code)]
    assert not Quote.objects.exists()
    assert not PriceItem.objects.exists()


def test_the_same_price_twice_is_one_and_two_on_one_day_are_told(api):
    first = noted(api)
    again = noted(api)
    assert again["quote"] == first["quote"]
    assert "saved already" in again["notes"][0]
    other = noted(api, price="2.99")
    assert "two prices on 2026-03-02" in other["notes"][0]
    assert other["item"]["latest"]["weight"]["per_lb"] == "2.99"
    whole = api.get(f"/prices/{other['item']['id']}")[1]
    assert [quote["same_day"] for quote in whole["quotes"]] == [True, True]


def test_a_resend_writes_once_and_a_reused_key_is_refused(api):
    key = uuid.uuid4()
    assert note(api, JOWL, key)[0] == 201
    assert note(api, JOWL, key)[0] == 201
    assert Quote.objects.count() == 1
    status, problem = note(api, {**JOWL, "price": "9"}, key)
    assert (status, problem["code"]) == (409, "key_reused")


def test_a_wrong_price_is_corrected_by_a_later_one_that_says_why(api):
    wrong = noted(api, price="27.90")
    status, problem = note(api, {**JOWL, "corrects": wrong["quote"]})
    assert problem["fields"][0]["path"] == "reason"
    right = noted(api, corrects=wrong["quote"], reason="the point slipped")
    assert right["item"]["latest"]["weight"]["per_lb"] == "2.79"
    assert right["item"]["quotes"] == 1
    status, problem = note(api, {**JOWL, "corrects": wrong["quote"], "reason": "again"})
    assert (status, problem["code"]) == (409, "moved_on")
    whole = api.get(f"/prices/{right['item']['id']}")[1]["quotes"]
    assert [(quote["overruled"], quote["reason"]) for quote in whole] == [
        (False, ""),
        (True, "the point slipped"),
    ]
    other = {**JOWL, "name": "belly", "corrects": right["quote"], "reason": "other meat"}
    assert note(api, other)[1]["fields"][0]["path"] == "name"
    gone = noted(api, corrects=right["quote"], withdraw=True, reason="never was")
    assert gone["item"] is None
    assert api.get("/prices?sort=meat")[1]["items"] == []


def test_a_price_far_off_the_usual_is_asked_about_before_it_is_noted(api):
    noted(api, price="2.80", on="2026-02-01")
    for price in ("34.20", "0.28"):
        status, problem = note(api, {**JOWL, "price": price})
        assert (status, problem["code"]) == (422, "odd_price")
        assert f"{price} a pound is far off the usual 2.80 a pound" in problem["detail"]
    assert Quote.objects.count() == 1
    assert noted(api, price="34.20", size="12 lb")["item"]["latest"]["weight"]["per_lb"] == "2.85"
    sure = noted(api, price="34.20", is_sure=True, on="2026-03-03")
    # a slip that was noted all the same is corrected without being asked again
    noted(api, corrects=sure["quote"], reason="a slip", on="2026-03-03")


def test_rows_are_never_changed_and_are_of_one_kitchen(api, other):
    quote = noted(api)
    for table in ("prices_quote",):
        with (
            pytest.raises(DatabaseError, match="never changed"),
            transaction.atomic(),
            connection.cursor() as cursor,
        ):
            cursor.execute(f"UPDATE {table} SET source = 'x'")
    assert other.get(f"/prices/{quote['item']['id']}")[0] == 404
    assert other.get("/prices")[1]["items"] == []
    assert note(other, {**JOWL, "corrects": quote["quote"], "reason": "x"})[0] == 404


def test_fryings_any_number_of_times_mean_and_spread(api):
    item = noted(api, **PACK)["item"]["id"]
    for raw, cooked in (("100 g", "30 g"), ("100 g", "34 g"), ("200 g", "64 g")):
        answer = {"raw": raw, "cooked": cooked, "on": "2026-03-03"}
        assert api.call("POST", f"/prices/{item}/fryings", answer)[0] == 201
    whole = api.get(f"/prices/{item}")[1]
    assert whole["item"]["fry"] == {"tests": 3, "mean": "32.0", "spread": "2.0"}
    assert [test["kept"] for test in whole["fryings"]] == ["32.0", "34.0", "30.0"]
    for answer, path in (
        ({"raw": "0 g", "cooked": "1 g"}, "raw"),
        ({"raw": "", "cooked": "1 g"}, "raw"),
        ({"raw": "100 g", "cooked": "101 g"}, "cooked"),
    ):
        status, problem = api.call("POST", f"/prices/{item}/fryings", {**answer, "on": "2026-03-03"})
        assert (status, problem["fields"][0]["path"]) == (422, path)
    assert FryTest.objects.count() == 3


def test_a_page_is_short_of_queries(api, django_assert_max_num_queries):
    for number in range(70):
        noted(api, name=f"cut {number:02d}")
    with django_assert_max_num_queries(12):
        first = api.get("/prices?sort=meat")[1]
    assert (len(first["items"]), first["total"], first["counts"]) == (60, 70, {"meat": 70})
    assert len(api.get("/prices?sort=meat&page=1")[1]["items"]) == 10
    assert [item["name"] for item in api.get("/prices?find=CUT 07")[1]["items"]] == ["cut 07"]


# ---- lists brought in ----

LIST = (
    "Item,Unit price,Per,Date\njowl,$2.79,lb,2026-03-02\nbelly,3.79,lb,2026-03-02\nsalt,1.20,kg,2026-03-02\n"
)


def upload(api, content, *, name="list.csv", source="Tidewell", key=None):
    from django.core.files.uploadedfile import SimpleUploadedFile

    content = content.encode() if isinstance(content, str) else content
    answer = api.client.post(
        f"/api/kitchens/{api.slug}/price-lists",
        {"file": SimpleUploadedFile(name, content), "source": source},
        headers={"Idempotency-Key": str(key or uuid.uuid4())},
    )
    return answer.status_code, answer.json()


def look(api, data, **match):
    return api.call("POST", f"/price-lists/{data['id']}/preview", {**data["match"], **match})[1]


def write(api, data, from_row=0, **match):
    body = {"from_row": from_row, "match": {**data["match"], **match}}
    return api.call("POST", f"/price-lists/{data['id']}/write", body)


def test_a_list_is_matched_looked_over_and_only_then_written(api):
    status, answer = upload(api, LIST)
    assert status == 201
    assert answer["match"]["columns"] == {"name": 0, "price": 1, "unit": 2, "day": 3}
    seen = look(api, answer)
    assert (seen["new"], seen["known"], seen["faulty"], seen["decimal"]) == (3, 0, 0, ".")
    assert seen["sample"][0]["per"]["weight"]["per_lb"] == "2.79"
    assert not Quote.objects.exists()
    done = write(api, answer)[1]
    assert (done["added"], done["is_done"]) == (3, True)
    assert sorted(PriceItem.objects.values_list("name", flat=True)) == ["belly", "jowl", "salt"]


def test_the_same_list_twice_changes_nothing_and_its_match_is_remembered(api):
    answer = upload(api, LIST)[1]
    write(api, answer, sort="ingredient")
    again = upload(api, LIST)[1]
    assert again["is_remembered"]
    assert again["match"]["sort"] == "ingredient"
    seen = look(api, again)
    assert (seen["new"], seen["known"]) == (0, 3)
    assert write(api, again)[1]["known"] == 3
    assert Quote.objects.count() == 3
    moved = upload(api, "Date,Per,Item,Unit price\n2026-04-02,lb,jowl,2.99\n")[1]
    assert moved["match"]["columns"] == {"name": 2, "price": 3, "unit": 1, "day": 0}
    assert SourceMatch.objects.count() == 1
    # a resend of a piece tells how far it is and writes nothing
    assert write(api, again)[1]["known"] == 3
    assert write(api, answer, sort="meat")[1]["code"] == "moved_on"


def test_every_faulty_row_is_named_and_the_rest_is_written(api):
    rows = [
        "jowl,2.79,lb,2026-03-02",
        ",3.00,lb,2026-03-02",
        "loin,,lb,2026-03-02",
        "belly,=1+1,lb,2026-03-02",
        "=HYPERLINK(1),1.00,lb,2026-03-02",
        "leg,-4,lb,2026-03-02",
        "brisket,4.10,stone,2026-03-02",
        "shoulder,1.99,lb,2026-02-31",
        "goose,1.99,lb,2999-02-01",
        "duck,cheap,lb,2026-03-02",
    ]
    answer = upload(api, "\n".join(["item,price,unit,date", *rows]))[1]
    seen = look(api, answer)
    assert (seen["new"], seen["faulty"]) == (1, 9)
    assert [fault["row"] for fault in seen["faults"]] == list(range(3, 12))
    said = " | ".join(fault["message"] for fault in seen["faults"])
    for word in (
        "name is missing",
        "price is missing",
        "formula",
        "below zero",
        "stone",
        "not a day",
        "in the future",
        "cheap",
    ):
        assert word in said, word
    done = write(api, answer)[1]
    assert (done["added"], done["faulty"]) == (1, 9)


def listed(names):
    """A list of ``names``, parted by upright bars, each at 3.49."""
    return "item,price,unit\n" + "".join(f"{name},3.49,kg\n" for name in names.split("|"))


@pytest.mark.parametrize(
    ("content", "note", "price"),
    [
        (
            "Artikel;price;unit\nname1;1.234,50;kg\nname2;3,49;kg\n".replace("Artikel", "item"),
            "semicolons",
            "1234.50",
        ),
        ("item\tprice\tunit\nsalt\t$1,234.50\tkg\n", "tabs", "1234.50"),
        ("item|price|unit\nsalt|€ 3.49|kg\n", "upright bars", "3.49"),
        ("item,price,unit\njambon salé,3.49,kg\n".encode("cp1252"), "Windows-1252", "3.49"),
        ("item,price,unit\nlomo añejo,3.49,kg\n".encode("cp1252"), "Windows-1252", "3.49"),
        (
            listed(
                "boczek wędzony|żeberka|łopatka świńska|karkówka|schab środkowy|słonina|śledź|cząber"
            ).encode("cp1250"),
            "Windows-1250",
            "3.49",
        ),
        (
            listed("свиная грудинка|лопатка|соль каменная|сахар|перец черный").encode("cp1251"),
            "Windows-1251",
            "3.49",
        ),
        ("item,price,unit\nsalt,3.49,kg\n".encode("utf-16"), "UTF-16", "3.49"),
        ("\ufeffitem,price,unit\r\nsalt,3.49,kg\r\n", None, "3.49"),
    ],
)
def test_other_encodings_and_separators(api, content, note, price):
    answer = upload(api, content)[1]
    assert [note in one for one in answer["notes"]] == ([True] if note else [])
    seen = look(api, answer)
    assert seen["faulty"] == 0, seen["faults"]
    assert seen["sample"][0]["per"]["weight"]["per_kg"] == price


def workbook(*rows):
    book = openpyxl.Workbook()
    for row in rows:
        book.active.append(row)
    held = io.BytesIO()
    book.save(held)
    return held.getvalue()


def test_a_workbook_with_numbers_dates_and_a_formula(api):
    from datetime import datetime

    day = datetime(2026, 3, 2)  # noqa: DTZ001
    content = workbook(
        ["Harbour list", None],
        ["product", "pack price", "pack", "date"],
        ["jowl", 34.2, "12 lb", day],
        ["belly", "=2*20", "11 lb", day],
        ["loin", 0.1 + 0.2, "1 lb", day],
    )
    answer = upload(api, content, name="list.xlsx")[1]
    assert answer["heads"] == ["product", "pack price", "pack", "date"]
    seen = look(api, answer)
    assert (seen["new"], seen["faulty"]) == (2, 1)
    assert "formula" in seen["faults"][0]["message"]
    assert seen["faults"][0]["row"] == 4
    write(api, answer)
    assert Quote.objects.get(item__name="jowl").paid == Decimal("34.2")
    assert Quote.objects.get(item__name="loin").paid == Decimal("0.3")


@pytest.mark.parametrize(
    ("content", "code"),
    [
        (b"", "bad_file"),
        (b"   \n\n", "bad_file"),
        (b"only one column\n1\n2\n", "bad_file"),
        (b"item,price\n", "bad_file"),
        (b"\x89PNG\r\n\x1a\n\x00\x00", "bad_file"),
        (b"PK\x03\x04 not a workbook", "bad_file"),
        (b'item,price\n"' + b"x" * 200_000 + b'",3\n', "bad_file"),
        (b"\xff\xfe\x00", "bad_file"),
        (b"a,b\n" + b"x" * 50_000_000, "too_large"),
    ],
)
def test_files_that_are_no_lists(api, content, code):
    status, problem = upload(api, content)
    assert (problem["code"], status) == (code, 413 if code == "too_large" else 422), problem
    assert not PriceFile.objects.exists()


def test_a_workbook_that_unpacks_to_a_flood_is_refused(api):
    held = io.BytesIO()
    with zipfile.ZipFile(held, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("xl/worksheets/sheet1.xml", b"0" * 210_000_000)
    status, problem = upload(api, held.getvalue(), name="x.xlsx")
    assert (status, problem["code"]) == (422, "bad_file")


def test_a_workbook_may_be_large_or_packed_tight_but_not_both(api):
    def zipped(size, *, tight):
        held = io.BytesIO()
        way = zipfile.ZIP_DEFLATED if tight else zipfile.ZIP_STORED
        with zipfile.ZipFile(held, "w", way) as packed:
            packed.writestr("xl/worksheets/sheet1.xml", b"0" * size)
        return upload(api, held.getvalue(), name="x.xlsx")[1]["detail"]

    assert "unpacks to more" in zipped(11_000_000, tight=True)
    assert "unpacks to more" not in zipped(9_000_000, tight=False)
    assert "unpacks to more" not in zipped(9_000_000, tight=True)


def test_a_list_has_sixty_columns_at_most(api):
    def shown(columns):
        heads, row = ["item", "price", "day"], ["rye", "1.50/kg", "2026-03-09"]
        more = columns - len(heads)
        wide = ",".join([*heads, *(f"c{at}" for at in range(more))])
        return upload(api, f"{wide}\n{','.join([*row, *['x'] * more])}\n")[1]["heads"]

    assert len(shown(60)) == 60
    assert len(shown(61)) == 60


def test_a_list_needs_a_source_and_its_columns(api):
    assert upload(api, LIST, source=" ")[0] == 422
    answer = upload(api, LIST)[1]
    seen = look(api, answer, columns={"name": 0})
    assert [fault["path"] for fault in seen["problems"]] == ["columns.price"]
    assert write(api, answer, columns={"name": 0, "price": 99})[0] == 422
    assert api.get("/price-lists/999999")[0] == 404
    assert api.call("POST", "/price-lists/999999/write", {"from_row": 0, "match": answer["match"]})[0] == 404
    key = uuid.uuid4()
    assert upload(api, LIST, key=key)[1]["id"] == upload(api, LIST, key=key)[1]["id"]
    assert upload(api, LIST + "x,1,lb,2026-01-01\n", key=key)[0] == 409


def test_two_prices_on_one_day_are_told_before_they_are_written(api):
    answer = upload(api, "item,price,unit\njowl,2.79,lb\nbelly,3,lb\njowl,2.89,lb\nJowl,2.79,lb\n")[1]
    seen = look(api, answer)
    assert (seen["new"], seen["known"]) == (3, 1)
    assert "Rows 2 and 4: two prices of “jowl”" in seen["notes"][0]


def test_rows_far_off_the_usual_are_asked_about_before_they_are_written(api):
    noted(api, name="jowl", price="2.80")
    answer = upload(
        api, "item,price,unit\njowl,34.20,lb\nbelly,3,lb\nbelly,3.10,lb\nbelly,31,lb\nloin,99,lb\n"
    )[1]
    said = [one for one in look(api, answer)["notes"] if "far off" in one]
    assert [one.split(":")[0] for one in said] == ["Row 2", "Row 5"]
    assert "“jowl” at 34.20 a pound is far off the usual 2.80 a pound. Is it the price of a pack?" in said[0]


def test_whole_prices_that_look_like_cents_are_asked_about(api):
    """648 is 6.48 or 648.00: it is asked, and not written before it was said."""
    data = upload(api, "Item,Price,Unit\nBelly,648,lb\nJowl,285,lb\nSalt,95,lb\n")[1]
    before = look(api, data)
    assert before["asks_cents"] == "Are the prices in cents? “648” would be 6.48, or else 648.00."
    status, problem = write(api, data)
    assert (status, problem["fields"][0]["path"]) == (422, "is_in_cents")
    assert not Quote.objects.exists()
    whole = look(api, data, is_in_cents=False)
    assert (whole["asks_cents"], whole["sample"][0]["per"]["weight"]["per_lb"]) == ("", "648.00")
    cents = look(api, data, is_in_cents=True)
    assert [one["per"]["weight"]["per_lb"] for one in cents["sample"]] == ["6.48", "2.85", "0.95"]
    assert write(api, data, is_in_cents=True)[0] == 200
    assert sorted(Quote.objects.values_list("paid", flat=True)) == [
        Decimal("0.95"),
        Decimal("2.85"),
        Decimal("6.48"),
    ]
    # the next list of this seller is read the same way
    again = upload(api, "Item,Price,Unit\nLoin,300,lb\n")[1]
    assert again["match"]["is_in_cents"] is True


@pytest.mark.parametrize("prices", ["648,28.50,95", "99,98,648", "12 lb,300,648"])
def test_prices_that_are_not_all_whole_and_high_are_not_asked_about(api, prices):
    rows = "".join(f"Belly {at};{price};lb\n" for at, price in enumerate(prices.split(",")))
    data = upload(api, f"Item;Price;Unit\n{rows}")[1]
    assert look(api, data)["asks_cents"] == ""


def test_a_long_list_is_written_piece_by_piece_and_gone_on_with_after_a_break(api):
    rows = [
        f"thing {number % 900},{1 + number % 97}.{number % 90 + 10},kg,2026-01-{number % 28 + 1:02d}"
        for number in range(4_500)
    ]
    answer = upload(api, "\n".join(["item,price,unit,date", *rows]))[1]
    first = write(api, answer)[1]
    assert (first["next_row"], first["is_done"]) == (2_000, False)
    # the answer was lost: the same piece again writes nothing more
    assert write(api, answer)[1]["next_row"] == 2_000
    second = write(api, answer, 2_000)[1]
    done = write(api, answer, second["next_row"])[1]
    assert done["is_done"]
    assert done["added"] + done["known"] == 4_500
    assert Quote.objects.count() == done["added"]


def test_a_receipt_of_shop_packs_with_its_own_sorts(api):
    answer = upload(
        api,
        "sort,item,kind,price,pack size,slices,solution %\n"
        "shop pack,good rashers,good,6.15,12 oz,11,\n"
        "Fuel,pellets,,19.50,20 lb,,\n"
        "meat,wet shoulder,,15.92,8 lb,,12\n"
        "shop pack,no weight,good,6.15,,11,\n"
        "raw meat,drowned,,15.92,8 lb,,90\n"
        "gold,x,,1,1 lb,,\n",
    )[1]
    seen = look(api, answer)
    assert (seen["new"], seen["faulty"]) == (3, 3)
    write(api, answer)
    assert PriceItem.objects.get(name="good rashers").kind == "good"
    assert Quote.objects.get(item__name="wet shoulder").solution_ratio == Decimal("0.12")
    assert Quote.objects.get(item__name="pellets").is_pack


def test_the_list_is_taken_away_and_comes_back_as_known(api):
    noted(api)
    noted(api, **PACK)
    noted(api, sort="packaging", name="=bags", price="18.00", size="50 each")
    answer = api.client.get(f"/api/kitchens/{api.slug}/prices/files/csv")
    rows = list(csv.reader(io.StringIO(answer.content.decode("utf-8-sig"))))
    assert rows[0][:4] == ["sort", "item", "kind", "price"]
    assert rows[2][1] == "'=bags"
    assert answer["Content-Type"].startswith("text/csv")
    result = upload(api, answer.content, source="Quay butcher")[1]
    seen = look(api, result)
    assert (seen["faulty"], seen["known"], seen["new"]) == (0, 2, 1)
    book = api.client.get(f"/api/kitchens/{api.slug}/prices/files/xlsx").content
    sheet = openpyxl.load_workbook(io.BytesIO(book)).active
    assert [cell.value for cell in sheet[2]][:4] == ["meat", "jowl, skin on", None, "2.79"]
    elsewhere = make_kitchen("elsewhere")
    assert len(elsewhere.client.get("/api/kitchens/elsewhere/prices/files/csv").content.splitlines()) == 1


def test_a_price_by_weight_is_kept_to_the_digit(api):
    body = noted(api, price="3.3333/kg")
    assert json.dumps(body["item"]["latest"]["weight"]) == '{"per_lb": "1.51", "per_kg": "3.33"}'
    assert Quote.objects.get().paid == Decimal("3.3333")


def sellers(api):
    book = api.get("/books/prices")[1]
    return {one["name"]: (one["called"], one["prices"], one["batches"]) for one in book["sellers"]}


def test_a_seller_in_two_spellings_is_one_and_two_names_are_joined_and_separated(api, other):
    # of another kitchen's sellers nothing is known here
    elsewhere = {"name": "Quay butcher", "same_as": "Hollow Farm"}
    assert other.call("POST", "/sellers", elsewhere)[0] == 201
    noted(api, source="hollow farm", on="2026-01-05", price="2.40")
    noted(api, source="Hollow Farm", on="2026-02-05", price="3.00")
    noted(api, source="Hollow Frm", on="2026-03-05", price="3.10")
    noted(api, source="Quay butcher", on="2026-03-06", price="3.20")
    farm = {**BOUGHT, "bought_from": "HollowFarm"}
    # two lots of one batch
    api.recorded(api.started(bought=farm), farm)
    assert sellers(api) == {
        "HollowFarm": ("HollowFarm", 2, 1),
        "Hollow Frm": ("Hollow Frm", 1, 0),
        "Quay butcher": ("Quay butcher", 1, 0),
    }
    # the same price of the same seller on the same day is there already
    again = noted(api, source="HOLLOW  farm", on="2026-02-05", price="3.00")
    assert again["item"]["quotes"] == 4
    two = noted(api, source="hollowfarm", on="2026-02-05", price="3.20")
    assert "has two prices on 2026-02-05" in two["notes"][0]

    def join(name, same_as):
        return api.call("POST", "/sellers", {"name": name, "same_as": same_as})

    status, book = join("hollow frm", "Hollow Farm")
    assert status == 201
    assert [line["source"] for line in book["items"][0]["lines"]] == ["hollowfarm", "Quay butcher"]
    assert sellers(api)["Hollow Frm"][0] == "HollowFarm"
    assert api.get("/prices")[1]["sources"] == ["Quay butcher", "hollowfarm"]
    # joined on, all three are one
    assert join("Quay butcher", "Hollow Frm")[0] == 201
    assert {one[0] for one in sellers(api).values()} == {"HollowFarm"}
    for same in ("quaybutcher", "hollow farm"):
        status, problem = join("Hollow Farm", same)
        assert (status, problem["fields"][0]["code"]) == (422, "circle")
    assert join("", "Hollow Farm")[0] == 422
    assert join("Hollow Frm", "")[0] == 201
    assert sellers(api)["Hollow Frm"][0] == "Hollow Frm"
    assert sellers(api)["Quay butcher"][0] == "Hollow Frm"


def test_neither_case_nor_spaces_make_a_second_line_dish_or_method(api, other):
    assert other.call("POST", "/ways", {"name": "DRYCURE", "steps": [{"method": "trim"}]})[0] == 201
    noted(api, sort="ingredient", name="Rye flour", price="1.20/kg")
    noted(api, sort="ingredient", name="ryeflour", price="1.40/kg")
    (item,) = api.get("/prices?sort=ingredient")[1]["items"]
    assert (item["name"], item["quotes"]) == ("Rye flour", 2)
    for name in ("Bag 1 10", "bag 1  10", "Bag 11 0"):
        noted(api, sort="packaging", name=name, price="0.10 each")
    bags = api.get("/prices?sort=packaging")[1]["items"]
    assert {one["name"]: one["quotes"] for one in bags} == {"Bag 1 10": 1, "Bag 11 0": 1}
    used = {"what": "RYE  FLOUR", "group": "cure", "amount": "1 %"}
    way = {"name": "Dry cure", "steps": [{"method": "dry_cure", "used": [used]}]}
    assert api.call("POST", "/ways", way)[1]["ways"][0]["missing"] == []
    (shown,) = api.call("POST", "/ways", {**way, "name": "drycure"})[1]["ways"]
    assert (shown["name"], shown["version"]) == ("Dry cure", 2)
    # another case is a new spelling
    (shown,) = api.call("POST", "/ways", {**way, "name": "Dry Cure"})[1]["ways"]
    assert (shown["name"], shown["version"]) == ("Dry Cure", 3)
    # two that were kept apart before go on as two
    twin = Way.objects.latest("pk")
    twin.pk, twin.name, twin.version, twin.key = None, "Drycure", 1, uuid.uuid4()
    twin.save(force_insert=True)
    shown = api.call("POST", "/ways", {**way, "name": "Drycure"})[1]["ways"]
    assert [(one["name"], one["version"]) for one in shown] == [("Dry Cure", 3), ("Drycure", 2)]
    listed = upload(api, "item,price,day\nRYEFLOUR,1.50/kg,2026-03-09\nrye  flour,1.60/kg,2026-03-10\n")[1]
    done = write(api, listed, sort="ingredient")
    assert (done[0], done[1]["added"]) == (200, 2)
    (item,) = api.get("/prices?sort=ingredient")[1]["items"]
    assert item["quotes"] == 4
