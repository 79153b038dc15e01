"""The inside now, its climb and its peak; phases, times and what is refused."""

import json

import pytest

from dolmetsch.core.documents.answers import answer_cook
from dolmetsch.core.errors import DocumentError
from tests.core.heat.cooks import at, cook, document, phase


def test_now_is_the_last_moment_with_an_inside_and_the_climb_that_of_half_an_hour():
    rows = [(0, 100), (10, 100), (30, 110), (40, 115), (60, 125)]
    assert cook(*rows)["inside"] == {"now": "125.0", "probe": "1", "rate_per_hour": "30.0", "unread": []}
    assert cook((0, 100))["inside"] == {"now": "100.0", "probe": "1", "rate_per_hour": None, "unread": []}
    assert cook((0, {"air": 200}))["inside"] == {
        "now": None,
        "probe": None,
        "rate_per_hour": None,
        "unread": [],
    }
    late = cook((0, 100), (5, {"air": 200}), (20, {"air": 200}))
    assert late["inside"]["now"] == "100.0"


def test_of_equal_probes_the_first_listed_a_reading_by_hand_behind_them():
    both = {"1": 100, "2": 100}
    assert cook((0, both), probes=("2", "1"))["inside"]["probe"] == "2"
    by_hand = [{"at": at(0), "piece": "P1", "temp": "100"}]
    assert cook((0, both), probes=("1", "2"), instant=by_hand)["inside"]["probe"] == "1"
    by_hand[0]["temp"] = "99"
    assert cook((0, both), probes=("1", "2"), instant=by_hand)["inside"]["probe"] == "instant"


def test_celsius_stays_celsius_and_a_climb_has_no_freezing_point():
    assert cook((0, 50), (30, 60), unit="C")["inside"] == {
        "now": "60.0",
        "probe": "1",
        "rate_per_hour": "20.0",
        "unread": [],
    }


def test_the_peak_is_of_the_coldest_while_it_is_heated():
    rows = [(0, 150), (1, 152), (2, 152), (3, 160)]
    assert cook(*rows, phases=[phase("cook", 0, 2), phase("cool", 2.5)])["peak"] == {
        "temp": "152.0",
        "at": at(1),
    }
    assert cook(*rows, phases=[phase("cold_smoke", 0)])["peak"] is None


def test_phases_absent_or_empty_are_one_cook_and_an_open_one_goes_on():
    rows = [(minute, 145) for minute in range(5)]
    for phases in (None, [], [phase("cook", 0)]):
        assert cook(*rows, phases=phases)["lethality"]["log6_5"] == "1.000000"
    assert cook(*rows, phases=[phase("cook", 60)])["lethality"]["log6_5"] == "0.000000"
    assert cook(*rows, phases=[phase("cool", 60)], until=at(4))["lethality"]["log6_5"] == "0.000000"


def test_until_cuts_readings_instants_and_phases_and_what_is_at_it_stays():
    rows = [(minute, 145) for minute in range(9)]
    assert cook(*rows, until=at(4))["lethality"]["log6_5"] == "1.000000"
    assert cook(*rows, until="2026-11-26T12:03:59Z")["lethality"]["log6_5"] == "0.750000"
    by_hand = [{"at": at(6), "piece": "P1", "temp": "100"}]
    assert cook(*rows, until=at(5), instant=by_hand)["inside"]["now"] == "145.0"


def test_times_with_offsets_and_fractions_of_seconds():
    rows = document((0, 145), (4, 145))
    rows["readings"][0]["at"] = "2026-11-26T07:00:00.25-05:00"
    rows["readings"][1]["at"] = "2026-11-26T13:04:00.250+01:00"
    assert answer_cook(json.dumps(rows))["lethality"]["met_at_6_5"] == at(4)


def put(path, value):
    """A whole document with ``value`` at ``path``."""
    whole = document((0, 100, 225), (5, 101, 225), instant=[{"at": at(1), "piece": "P1", "temp": "100"}])
    whole["phases"] = [phase("cook", 0)]
    *heads, last = path
    target = whole
    for head in heads:
        target = target[head]
    if value is ...:
        del target[last]
    else:
        target[last] = value
    return json.dumps(whole)


@pytest.mark.parametrize(
    ("path", "value", "place"),
    [
        (("format",), "dolmetsch-cook/2", "format"),
        (("unit",), ..., "unit"),
        (("unit",), "K", "unit"),
        (("meat",), "fish", "meat"),
        (("ground",), "no", "ground"),
        (("probes",), ..., "probes"),
        (("probes", 0, "id"), "air", "probes[1].id"),
        (("probes", 0, "id"), "at", "probes[0].id"),
        (("probes", 0, "id"), "instant", "probes[0].id"),
        (("probes", 0, "role"), "outside", "probes[0].role"),
        (("readings",), [], "readings"),
        (("readings",), ..., "readings"),
        (("readings", 1, "at"), at(0), "readings[1]"),
        (("readings", 1, "at"), at(-1), "readings[1]"),
        (("readings", 1, "at"), "2026-11-26", "readings[1].at"),
        (("readings", 1, "at"), "2026-11-26T12:05:00", "readings[1].at"),
        (("readings", 1, "at"), "2026-11-31T12:05:00Z", "readings[1].at"),
        (("readings", 1, "at"), "2026-11-26T12:05:60Z", "readings[1].at"),
        (("readings", 1, "at"), "2026-11-26T12:05:00+24:00", "readings[1].at"),
        (("readings", 1, "9"), "100", "readings[1].9"),
        (("readings", 1, "1"), "1000.1", "readings[1].1"),
        (("readings", 1, "1"), "-40.1", "readings[1].1"),
        (("readings", 1, "1"), "1e2", "readings[1].1"),
        (("readings", 1, "1"), "+5", "readings[1].1"),
        (("readings", 1, "1"), True, "readings[1].1"),
        (("instant", 0, "piece"), ..., "instant[0].piece"),
        (("instant", 0, "temp"), "hot", "instant[0].temp"),
        (("phases", 0, "kind"), "boil", "phases[0].kind"),
        (("phases", 0, "from"), ..., "phases[0].from"),
        (("phases", 0, "to"), at(-1), "phases[0].to"),
        (("pull_at",), "1500", "pull_at"),
        (("nitrite_ppm",), "-5", "nitrite_ppm"),
        (("until",), "noon", "until"),
    ],
)
def test_what_cannot_be_read_is_refused_at_its_place(path, value, place):
    with pytest.raises(DocumentError) as refused:
        answer_cook(put(path, value))
    assert refused.value.field == place


def test_what_is_later_than_until_is_checked_too():
    whole = document((0, 100), (5, 101), (4, 102), until=at(1))
    with pytest.raises(DocumentError, match=r"readings\[2\]"):
        answer_cook(json.dumps(whole))


@pytest.mark.parametrize(("unit", "coldest", "hottest"), [("F", "-40", "1000"), ("C", "-40", "537.7")])
def test_the_coldest_and_the_hottest_that_can_be_read(unit, coldest, hottest):
    answer = cook((0, coldest), (1, hottest), unit=unit)
    assert answer["inside"]["now"].startswith(hottest)


@pytest.mark.parametrize("text", ["[]", '"cook"', "null", '{"format": "dolmetsch-cook/1", "format": 1}'])
def test_what_is_no_cook_log_at_all(text):
    with pytest.raises(DocumentError):
        answer_cook(text)
