"""Reading what was typed into rows, and telling rows again: nothing typed is lost on the way."""

import uuid
from decimal import Decimal
from fractions import Fraction as F

import pytest
from django.utils import timezone
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase

from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.entries.chain import list_entry_rows, used_record
from dolmetsch.server.batches.entries.describing import describe, label_entry, plain, read_back
from dolmetsch.server.batches.entries.reading import Reader, as_decimal, free_marks, read_content
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.record.actions import record_entry, start_batch
from dolmetsch.server.batches.show.queries import read_batch
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.printing import print_percent, print_unit_cost, print_weight, sign_of
from dolmetsch.server.writing.once import Write
from tests.server.conftest import BOUGHT, TRIM


def read(content, *, unit="lb", taken=frozenset({"lot"})):
    reader = Reader(unit=unit)
    parsed = typed.EntryIn.model_validate({"content": content, "seen": 1}).content
    return read_content(reader, Entry(), parsed, taken=set(taken)), reader


def used(price, amount="", group="cure"):
    line = {"what": "salt", "group": group, "amount": amount, "price": price}
    content = {
        "act": "weigh",
        "kind": "cure",
        "weights": [{"mark": "lot", "weight": "1 lb"}],
        "used": [line],
    }
    return read(content)


@pytest.mark.parametrize(
    ("price", "amount", "cost"),
    [
        ("1.20/kg", "95 g", "0.114"),
        ("5.00 for 8 oz", "2 oz", "1.25"),
        ("18.00 for 50 each", "15", "5.4"),
        ("0.35 each", "4 bags", "1.4"),
        ("2.40", "", "2.4"),
        ("2.40", "95 g", "2.4"),
        ("2.40", "3", "2.4"),
        ("$0", "", "0"),
    ],
)
def test_what_was_used_costs_amount_times_price_or_the_sum_named(price, amount, cost):
    rows, reader = used(price, amount)
    assert reader.problems == []
    assert used_record(rows.used[0]).cost == F(cost)


@pytest.mark.parametrize(
    ("price", "amount", "path", "code"),
    [
        ("1.20/kg", "", "used[0].amount", "missing"),
        ("1.20/kg", "95", "used[0].amount", "unreadable"),
        ("0.35 each", "95 g", "used[0].amount", "unreadable"),
        ("2.40", "0 g", "used[0].amount", "zero"),
        ("2.40", "some", "used[0].amount", "unreadable"),
        ("1.2.3", "95 g", "used[0].price", "unreadable"),
        ("1.23456", "95 g", "used[0].price", "too_fine"),
        ("900000/g", "5000 kg", "used[0].price", "too_large"),
        ("5 for 0 oz", "1 oz", "used[0].price", "zero"),
    ],
)
def test_what_was_used_is_refused_at_the_field_that_is_wrong(price, amount, path, code):
    _, reader = used(price, amount)
    assert [(fault.path, fault.code) for fault in reader.problems] == [(path, code)]


@pytest.mark.parametrize(
    ("mark", "is_lot", "taken", "first"),
    [
        ("lot", True, set(), ["A", "B", "C"]),
        ("lot", True, {"A", "C"}, ["B", "D", "E"]),
        ("A", False, {"A1"}, ["A2", "A3", "A4"]),
        ("A1", False, set(), ["A1A", "A1B", "A1C"]),
    ],
)
def test_marks_follow_from_the_piece_they_come_of(mark, is_lot, taken, first):
    marks = free_marks(mark, is_lot=is_lot, taken=taken)
    assert [next(marks) for _ in first] == first


def test_after_z_comes_aa():
    marks = free_marks("lot", is_lot=True, taken=set())
    assert [next(marks) for _ in range(54)][25:28] == ["Z", "AA", "AB"]


def test_a_cut_off_of_a_name_in_use_gets_a_mark_of_its_own():
    rows, _ = read({**TRIM, "cut_off": [{"name": "fat", "weight": "1 oz"}]}, taken={"lot", "fat", "fat 2"})
    assert [(row.mark, row.name) for row in rows.weighings][-1] == ("fat 3", "fat")


def test_a_kitchen_in_kilograms_reads_bare_numbers_so():
    rows, _ = read({**TRIM, "pieces": [{"weight": "4.5"}], "cut_off": []}, unit="kg")
    assert rows.weighings[0].grams == Decimal(4500)


@given(st.integers(0, 10**19), st.integers(0, 12))
def test_decimals_are_exact(digits, places):
    value = F(digits, 10**places)
    assert F(as_decimal(value, places)) == value


@pytest.mark.parametrize(
    ("number", "message"), [("20.00", "20"), ("12.50", "12.5"), ("0.00", "0"), ("100", "100")]
)
def test_plain_numbers_lose_needless_zeros_only(number, message):
    assert plain(Decimal(number)) == message


def test_printed_figures():
    assert print_weight(F("453.59237")).model_dump() == {"lb": "1.00", "kg": "0.454"}
    assert print_weight(F(20)).model_dump() == {"lb": "0.044", "kg": "0.020"}
    assert print_percent(F(2, 3)) == "66.7"
    assert print_unit_cost(None) is None
    assert print_unit_cost(F("2.85")).model_dump() == {"per_lb": "2.85", "per_kg": "6.28"}
    assert (sign_of("USD"), sign_of("SEK")) == ("$", "SEK ")


WEIGHTS = st.sampled_from(["1 lb", "12 oz", "1 lb 2 oz", "340 g", "0.5 kg", "1.25"])
WORTHS = st.sampled_from([("nothing", ""), ("as_main", ""), ("price", "2.40/lb"), ("price", "5 for 8 oz")])
WORDS = st.text(st.characters(codec="utf-8", exclude_categories=("C", "Z")), min_size=1, max_size=12)


@st.composite
def steps(draw):
    """A trim of the 10 lb lot, or a weighing of it, as a cook might type it."""
    lines = [
        {"what": draw(WORDS), "group": "cure", "amount": amount, "price": price}
        for amount, price in draw(
            st.lists(st.sampled_from([("9 g", "1/kg"), ("", "2.50"), ("4", "0.35 each")]))
        )
    ]
    common = {"minutes": draw(st.sampled_from(["", "0", "12.5", "90"])), "used": lines[:3]}
    if draw(st.booleans()):
        weights = [{"mark": "lot", "weight": draw(WEIGHTS)}]
        return {"act": "weigh", "kind": draw(WORDS), "weights": weights, **common}
    cut_off = [
        {"name": draw(WORDS), "material": "fat", "weight": draw(WEIGHTS), "worth": worth, "price": price}
        for worth, price in draw(st.lists(WORTHS, max_size=3))
    ]
    pieces = [
        {"mark": mark, "weight": draw(WEIGHTS), "slices": draw(st.sampled_from(["", "12"]))} for mark in "AB"
    ]
    return {"act": "split", "kind": "trim", "piece": "lot", "pieces": pieces, "cut_off": cut_off, **common}


class Retelling(TestCase):
    """Any step recorded over the real record store tells itself again as it was typed."""

    @settings(max_examples=25)
    @given(steps())
    def test_a_step_is_told_again_as_it_was_typed(self, content):
        kitchen = Kitchen.objects.create(slug="telling", name="Telling")
        user = User.objects.create(username="teller")

        def write():
            key = uuid.uuid4()
            return Write(kitchen=kitchen, user=user, now=timezone.now(), key=key, fingerprint="f")

        start = typed.StartIn.model_validate({"name": "Described", "bought": BOUGHT})
        code = start_batch(write(), start).entry.batch.code
        draft = typed.EntryIn.model_validate({"content": content, "seen": 1})
        record_entry(write(), code, draft)

        batch = Batch.objects.select_related("kitchen").get()
        rows = list_entry_rows(batch)[-1]
        assert read_back(rows) == draft.content
        assert label_entry(rows)
        assert all(describe(rows, Kitchen(currency="USD")))
        shown = read_batch(batch)
        assert shown.log[-1].content == draft.content
        again = typed.EntryIn.model_validate(
            {
                "content": shown.log[-1].content,
                "seen": 2,
                "corrects": rows.entry.id,
                "reason": "the same again",
            }
        )
        corrected = read_batch(record_entry(write(), code, again).entry.batch)
        assert (corrected.house, corrected.strip.columns[1].peels) == (
            shown.house,
            shown.strip.columns[1].peels,
        )
