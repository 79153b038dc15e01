"""Tables of any logger: times, units, rubbish."""

from datetime import UTC, datetime
from zoneinfo import ZoneInfo

import pytest

from dolmetsch.core.heat.logger_table import TableMatch, read_logger, read_moment

HARBOR = ZoneInfo("America/New_York")


def match(**more):
    plain = {"time": 0, "probes": {1: "1", 2: "air"}, "unit": "F", "zone": UTC, "is_day_first": False}
    return TableMatch(**{**plain, **more})


def table(*rows):
    return [(number, list(cells)) for number, cells in enumerate(rows, start=2)]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("2026-11-26T09:00:00Z", (26, 9, 0)),
        ("2026-11-26T09:00:00-05:00", (26, 14, 0)),
        # nine in the morning in the harbor's zone is two in the afternoon in UTC
        ("2026-11-26 09:00", (26, 14, 0)),
        ("11/26/2026 9:00 AM", (26, 14, 0)),
        ("11/26/26 9:00:30 pm", (27, 2, 0)),
        ("11/26/2026 12:05 AM", (26, 5, 5)),
        ("26.11.2026 09:00", (26, 14, 0)),
        ("2026/11/26 09:00", (26, 14, 0)),
        ("1795687200", (26, 10, 0)),
        ("1795687200000", (26, 10, 0)),
    ],
)
def test_a_time_is_read_in_whatever_form(text, expected):
    found = read_moment(text, zone=HARBOR, is_day_first=False)
    assert (found.day, found.hour, found.minute) == expected
    assert (found.year, found.month, found.tzinfo) == (2026, 11, UTC)


def test_the_order_of_day_and_month_is_asked():
    text = "03/04/2026 09:00"
    assert read_moment(text, zone=UTC, is_day_first=False) == datetime(2026, 3, 4, 9, tzinfo=UTC)
    assert read_moment("03.04.2026 09:00", zone=UTC, is_day_first=False).month == 4
    assert read_moment(text, zone=UTC, is_day_first=True) == datetime(2026, 4, 3, 9, tzinfo=UTC)


@pytest.mark.parametrize("text", ["", "noon", "13/13/2026 09:00", "2026-11-26T25:00", "99999999999999999"])
def test_what_is_no_time_is_none(text):
    assert read_moment(text, zone=UTC, is_day_first=False) is None


def test_rubbish_is_said_by_its_row_and_the_rest_is_taken():
    read = read_logger(
        table(
            ("2026-11-26T09:00Z", "41.5", "130"),
            ("2026-11-26T09:01Z", "--", "131,5 °F"),
            ("later", "42", "131"),
            ("2026-11-26T09:02Z", "wet", "132"),
            ("2026-11-26T09:03Z", "1500", "1000"),
            ("2026-11-26T09:01Z", "43", "132"),
            ("2026-11-26T09:04Z", "", "OPEN"),
        ),
        match(),
    )
    assert [
        (at.minute, {key: float(value) for key, value in values.items()}) for at, values in read.readings
    ] == [
        (0, {"1": 41.5, "air": 130}),
        (1, {"air": 131.5}),
        (2, {"air": 132}),
        (3, {"air": 1000}),
    ]
    assert [(one.row, one.message) for one in read.faults] == [
        (4, "“later” is not a time"),
        (5, "“wet” is not a temperature"),
        (6, "1500 is not what a probe in a fire reads"),
        (7, "the same time as in row 3; that one counts"),
    ]
    assert (read.notes, read.asks_unit) == ([], False)


def test_celsius_is_converted_exactly():
    read = read_logger(table(("2026-11-26T09:00Z", "60.1", "-40")), match(unit="C"))
    assert read.readings[0][1]["1"] * 100 == 14018
    assert read.readings[0][1]["air"] == -40


def test_a_clock_that_jumps_is_said_and_gaps_stay_gaps():
    read = read_logger(
        table(
            ("2026-11-26T09:00Z", "41", "200"),
            ("2026-11-26T12:00Z", "45", "200"),
            ("2026-11-26T09:10Z", "42", "200"),
            ("2026-11-26T12:11Z", "46", "200"),
        ),
        match(),
    )
    assert [at.hour * 60 + at.minute for at, _ in read.readings] == [540, 550, 720, 731]
    assert read.notes == [
        "The clock goes back at row 4; readings are put in order of time.",
        "2 gaps over 10 minutes, the longest of 170 min.",
    ]


@pytest.mark.parametrize(
    ("unit", "highest", "asks"),
    [("F", "119", True), ("F", "120", False), ("F", "121", False), ("C", "261", True), ("C", "259", False)],
)
def test_a_log_in_the_wrong_unit_is_asked_about(unit, highest, asks):
    read = read_logger(table(("2026-11-26T09:00Z", "20", highest)), match(unit=unit))
    assert read.asks_unit is asks
    assert not read_logger([], match(unit=unit)).asks_unit


@pytest.mark.parametrize(
    ("count", "said"), [(5, "at row 3, 5, 7, 9, 11; "), (6, "3, 5, 7, 9, 11 and more; ")]
)
def test_of_many_rows_in_which_the_clock_goes_back_five_are_named(count, said):
    rows = []
    for number in range(count):
        rows += [
            (f"2026-11-26T{10 + number}:05Z", "41", "200"),
            (f"2026-11-26T{10 + number}:00Z", "41", "200"),
        ]
    assert said in read_logger(table(*rows), match()).notes[0]
