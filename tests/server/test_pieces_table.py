"""A small processor's sixty pieces: the table, owners, their pages and labels."""

import csv
import io
import re
from decimal import Decimal

import pytest

from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.books.recount import recount
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.labels.facts import gather_labels, gather_pack_labels
from dolmetsch.server.pieces.owner_page import write_owner_page
from dolmetsch.server.problems import DomainError
from tests.server.conftest import BOUGHT, make_kitchen
from tests.server.test_books import timezone
from tests.server.test_guards import together

pytestmark = pytest.mark.django_db
COUNT = 60


@pytest.fixture
def batch(api):
    """Sixty hams of ten pounds, pumped, smoked."""
    code = api.started(bought={**BOUGHT, "cut": "ham, bone in", "own_weight": "610 lb", "label_weight": ""})
    marks = [f"P{number}" for number in range(1, COUNT + 1)]
    split = {"act": "split", "kind": "trim", "piece": "lot", "cut_off": []}
    api.recorded(code, {**split, "pieces": [{"mark": mark, "weight": "10 lb"} for mark in marks]})
    for kind, weight in (("cure", "11.2 lb"), ("smoke", "9 lb")):
        lines = [{"mark": mark, "weight": weight} for mark in marks]
        api.recorded(code, {"act": "weigh", "kind": kind, "weights": lines})
    api.code = code
    return api


def table(api):
    status, body = api.get(f"/batches/{api.code}/pieces-table")
    assert status == 200, body
    return body


def own(api, owner, *marks):
    return api.call("POST", f"/batches/{api.code}/owners", {"owner": owner, "marks": list(marks)})


def test_sixty_pieces_in_natural_order_with_gain_and_yield(batch):
    body = table(batch)
    assert [row["mark"] for row in body["rows"]] == [f"P{number}" for number in range(1, COUNT + 1)]
    assert [step["label"] for step in body["steps"]] == ["Trimmed", "Cured", "Smoked"]
    row = body["rows"][9]
    assert [weight["lb"] for weight in row["weights"]] == ["10.00", "11.20", "9.00"]
    assert (row["gain"], row["kept"], row["now"]["lb"]) == ("12.0", "90.0", "9.00")
    assert row["price"]["per_lb"] == "0.04"
    shown = batch.get(f"/batches/{batch.code}")[1]
    assert [piece["mark"] for piece in shown["pieces"]][:3] == ["P1", "P2", "P3"]


def test_owners_are_noted_many_at_once_and_follow_their_pieces(batch):
    assert own(batch, "Ibba", "P1", "P2", "P10", "P2")[0] == 201
    assert own(batch, "Tolle", "P3")[0] == 201
    assert own(batch, "Wieb", "P2")[0] == 201
    split = {"act": "split", "kind": "slice", "piece": "P10", "cut_off": []}
    parts = [{"mark": "P10A", "weight": "5 lb"}, {"mark": "P10B", "weight": "3 lb"}]
    batch.recorded(batch.code, {**split, "pieces": parts})
    body = table(batch)
    assert body["owners"] == ["Ibba", "Tolle", "Wieb"]
    owners = {row["mark"]: row["owner"] for row in body["rows"]}
    assert {mark: owners[mark] for mark in ("P1", "P2", "P3", "P4", "P10A", "P10B")} == {
        "P1": "Ibba",
        "P2": "Wieb",
        "P3": "Tolle",
        "P4": "",
        "P10A": "Ibba",
        "P10B": "Ibba",
    }
    cut = next(row for row in body["rows"] if row["mark"] == "P10A")
    # of a piece cut in two nobody knows which half shrank how
    assert [weight and weight["lb"] for weight in cut["weights"]] == [None, None, None, "5.00"]
    assert cut["kept"] == "100.0"


def test_one_piece_cut_out_of_one_keeps_its_way(batch):
    split = {"act": "split", "kind": "slice", "piece": "P5", "cut_off": []}
    batch.recorded(batch.code, {**split, "pieces": [{"mark": "P5S", "weight": "8 lb"}]})
    row = next(row for row in table(batch)["rows"] if row["mark"] == "P5S")
    assert [weight["lb"] for weight in row["weights"]] == ["10.00", "11.20", "9.00", "8.00"]
    assert row["kept"] == "80.0"


def test_an_owner_with_faults_is_refused(batch, other):
    assert own(batch, "", "P1")[0] == 422
    assert own(batch, "Ibba", "P99")[0] == 404
    assert own(batch, "Ibba")[0] == 422
    assert table(batch)["owners"] == []
    other.code = batch.code
    assert own(other, "Ibba", "P1")[0] == 404
    assert other.get(f"/batches/{batch.code}/pieces-table")[0] == 404


def test_the_table_is_a_file(batch):
    own(batch, "Ibba", "P2")
    answer = batch.client.get(f"/api/kitchens/{batch.slug}/batches/{batch.code}/pieces-table.csv")
    rows = [row for row in csv.reader(io.StringIO(answer.content.decode("utf-8-sig"))) if len(row) > 1]
    assert rows[0][:3] == ["piece", "owner", "trimmed, lb"]
    assert rows[2] == ["P2", "Ibba", "10.00", "11.20", "9.00", "9.00", "12.0", "90.0", ""]
    assert len(rows) == COUNT + 1
    book = batch.client.get(f"/api/kitchens/{batch.slug}/batches/{batch.code}/pieces-table.xlsx")
    assert book.content.startswith(b"PK")


def page(api, owner, charge="", **more):
    found = get_batch(Kitchen.objects.get(slug=api.slug), api.code)
    return write_owner_page(found, owner, charge, timezone.now(), **more)


def test_a_page_says_what_came_in_what_goes_out_and_the_charge(batch):
    own(batch, "Ibba & Co <ham>", "P1", "P2")
    text = page(batch, "ibba & co <HAM>", "1.20")
    assert "Ibba &amp; Co &lt;ham&gt;" in text
    assert "<td>2 pieces</td><td>20.00 lb</td><td></td><td>18.00 lb</td><td>90.0 %</td>" in text
    assert "18.00 lb finished at $1.20 a pound = $21.60" in text
    assert "12.0 %" in text
    assert "Not finished yet" in text
    assert "Charge" not in page(batch, "Ibba & Co <ham>")
    with pytest.raises(DomainError, match="not_found"):
        page(batch, "Nobody")
    with pytest.raises(DomainError, match="bad_fields"):
        page(batch, "Ibba & Co <ham>", "a lot")
    with pytest.raises(DomainError, match="not_found"):
        page(batch, "")
    answer = batch.client.get(
        f"/api/kitchens/{batch.slug}/batches/{batch.code}/owner-page", {"owner": "Ibba & Co <ham>"}
    )
    assert answer.content.startswith(b"%PDF")


def test_the_charge_is_by_the_weight_in_or_out(batch):
    own(batch, "Ibba", "P1")
    out, came_in = page(batch, "Ibba", "1.00"), page(batch, "Ibba", "1.00", by="in")
    wanted = re.compile(r"Charge: ([\d.]+) lb ([a-z ]+) at \$1.00 a pound = \$([\d.]+)")
    said = [wanted.search(text) for text in (out, came_in)]
    assert [one[2] for one in said] == ["finished", "as it came in"]
    assert [one[1] == one[3] for one in said] == [True, True]
    assert float(said[0][1]) < float(said[1][1])


def test_a_kitchen_in_kilograms_charges_by_the_kilogram(batch):
    own(batch, "Ibba", "P1")
    Kitchen.objects.filter(slug=batch.slug).update(weight_unit="kg", currency="EUR")
    assert "4.082 kg finished at €2.00 a kilogram = €8.16" in page(batch, "Ibba", "2")


def test_the_owner_is_on_the_label(batch):
    own(batch, "Ibba", "P2")
    found = get_batch(Kitchen.objects.get(slug=batch.slug), batch.code)
    labels = {label.mark: label.lines for label in gather_labels(found, [], root="http://k")}
    assert labels["P2"][0] == "Ibba"
    assert "Ibba" not in labels["P1"]
    assert list(labels)[:3] == ["P1", "P2", "P3"]
    split = {"act": "split", "kind": "slice", "piece": "P2", "cut_off": []}
    batch.recorded(batch.code, {**split, "pieces": [{"mark": "S2", "weight": "8 lb"}]})
    seen = batch.get(f"/batches/{batch.code}")[1]["seen"]
    packs = [{"piece": "S2", "product": "Ham", "form": "whole", "weight": "1 lb"}]
    status, body = batch.call("POST", f"/batches/{batch.code}/packs", {"packs": packs, "seen": seen})
    assert status == 201, body
    found = get_batch(Kitchen.objects.get(slug=batch.slug), batch.code)
    (label,) = gather_pack_labels(found, [], root="http://k")
    assert label.lines[0] == "Ibba"


def test_the_strip_of_one_piece_counts_the_many_others(batch):
    strip = batch.get(f"/batches/{batch.code}/strips/P7")[1]
    names = [peel["name"] for column in strip["columns"] for peel in column["peels"]]
    assert "on as 59 other pieces" in names


@pytest.mark.django_db(transaction=True)
def test_an_owner_noted_while_another_cook_records_leaves_that_record_whole():
    api = make_kitchen("busy-kitchen")
    api.code = code = api.started()
    lines = [{"mark": mark, "weight": "1 lb"} for mark in "AB"]
    api.recorded(code, {"act": "split", "kind": "trim", "piece": "lot", "cut_off": [], "pieces": lines})
    api.recorded(code, {"act": "finish"})
    for turn in range(6):
        pack = {"act": "shop_pack", "name": f"Pack {turn}", "paid": "6.00", "weight": "1 lb"}
        seen = api.get(f"/batches/{code}")[1]["seen"]
        acts = (
            lambda pack=pack, seen=seen: api.record(code, pack, seen=seen)[0],
            lambda turn=turn: own(api, f"Ibba {turn}", "A")[0],
        )
        assert together(*acts) == [201, 201], turn
    batch = Batch.objects.get()
    assert batch.last_sequence == Entry.objects.filter(batch=batch).count() == 9
    assert len(batch.summary["shops"]) == 6
    assert recount(batch.kitchen, is_mending=False).wrong == []


def test_what_a_customers_pieces_save_is_no_saving_of_the_kitchen(batch):
    """A sixth of the batch is a customer's: verdict, list and money book all count the other five."""
    code = batch.code
    lines = [{"mark": f"P{number}", "weight": "9 lb"} for number in range(1, COUNT + 1)]
    batch.recorded(code, {"act": "policy", "labour_rate": "18.00"})
    batch.recorded(code, {"act": "weigh", "kind": "chill", "weights": lines, "minutes": "120"})
    batch.recorded(code, {"act": "shop_pack", "name": "Thick cut", "paid": "6.00", "weight": "1 lb"})
    batch.recorded(code, {"act": "finish"})
    whole = batch.get(f"/batches/{code}/verdict")[1]
    assert whole["yours"] is None
    saved = Decimal(whole["judged"]["shops"][0]["saved_on_batch"])
    before = batch.get("/books/money")[1]["sums"]
    assert before["saved"] == str(saved)
    own(batch, "Ibba", *(f"P{number}" for number in range(1, 11)))
    verdict = batch.get(f"/batches/{code}/verdict")[1]
    yours = verdict["yours"]
    assert (yours["pieces"], yours["customers_pieces"]) == (50, 10)
    assert (yours["weight"]["lb"], yours["customers_weight"]["lb"]) == ("450.00", "90.00")
    assert abs(Decimal(yours["saved"][0]) - saved * 5 / 6) < Decimal("0.01")
    sums = batch.get("/books/money")[1]["sums"]
    assert (sums["saved"], sums["weight"]["lb"]) == (yours["saved"][0], "450.00")
    for figure in ("labor", "saved_without_work"):
        assert abs(Decimal(sums[figure]) - Decimal(before[figure]) * 5 / 6) <= Decimal("0.01"), figure
    assert Decimal(before["labor"]) > 0
    assert abs(Decimal(sums["hours"]) - Decimal(before["hours"]) * 5 / 6) <= Decimal("0.1")
    listed = batch.get("/verdicts")[1]["finished"][0]
    assert (listed["code"], listed["saved_on_batch"]) == (code, yours["saved"][0])
    # all of it theirs: nothing is said of savings
    own(batch, "Ibba", *(f"P{number}" for number in range(11, COUNT + 1)))
    assert batch.get(f"/batches/{code}/verdict")[1]["yours"]["saved"] == [None]
    assert batch.get("/books/money")[1]["sums"] is None
