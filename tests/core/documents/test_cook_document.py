"""A cook's log out as a document and as CSV, and in again."""

import csv
import io
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.documents.answers import answer_cook
from dolmetsch.core.documents.cook_document import write_cook_document, write_readings_csv
from dolmetsch.core.documents.cook_reading import read_cook
from dolmetsch.core.documents.strict import parse
from tests.core.heat.cooks import at, document, phase
from tests.core.jowl import EXAMPLES


def read(data):
    return read_cook(parse(data)).log


@pytest.mark.parametrize("unit", ["F", "C"])
def test_the_example_out_and_in_again_is_answered_alike(unit):
    given_document = {**json.loads((EXAMPLES / "cook.json").read_text()), "unit": unit}
    again = write_cook_document(read(json.dumps(given_document)))
    assert answer_cook(json.dumps(again)) == answer_cook(json.dumps(given_document))


temperatures = st.integers(-400, 10_000).map(lambda tenths: f"{tenths / 10:.1f}")


@given(st.lists(st.dictionaries(st.sampled_from(["1", "2", "air"]), temperatures), min_size=1, max_size=6))
def test_any_log_is_the_same_log_again(rows):
    whole = document(*enumerate(rows), probes=("1", "2"), phases=[phase("cook", 0, 2), phase("cool", 3)])
    log = read(json.dumps(whole))
    assert read(json.dumps(write_cook_document(log))) == log
    cells = list(csv.DictReader(io.StringIO(write_readings_csv(log))))
    assert [cell["time"] for cell in cells] == [at(minute) for minute in range(len(rows))]
    for cell, row in zip(cells, rows, strict=True):
        kept = {probe: float(text) for probe, text in cell.items() if probe != "time" and text}
        assert kept == {probe: float(text) for probe, text in row.items()}


def test_what_is_not_known_is_left_out():
    log = read(json.dumps(document((0, 100), meat=None)))
    assert set(write_cook_document(log)) == {
        "format",
        "unit",
        "meat",
        "ground",
        "probes",
        "readings",
        "instant",
    }
    assert write_readings_csv(log) == f"time,1,air\n{at(0)},100,\n"
