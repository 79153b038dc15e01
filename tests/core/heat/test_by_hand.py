"""Read by hand: what counts of it, what is unread, and marks that are taken back."""

import json
from fractions import Fraction as F
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.documents.answers import answer_cook
from dolmetsch.core.documents.cook_reading import read_cook
from dolmetsch.core.documents.strict import parse
from dolmetsch.core.errors import DolmetschError
from dolmetsch.core.heat.inside import read_pieces
from dolmetsch.core.reference.heat import LETHALITY_SECONDS
from tests.core.heat.cooks import at, cook, document, phase


def hand(minutes, temp, piece="P1", **more):
    return {"at": at(minutes), "piece": piece, "temp": str(temp), **more}


def by_hand(*readings, rows=((0, {"air": 220}),), probes=(), **more):
    return cook(*rows, probes=probes, instant=list(readings), **more)


def test_a_reading_by_hand_counts_ten_minutes_or_until_its_place_is_read_again():
    warm = [(minute, 150) for minute in (0, 5, 10, 15)]
    assert cook(*warm, instant=[hand(0, 140)], until=at(10))["inside"]["now"] == "140.0"
    assert cook(*warm, instant=[hand(0, 140)])["inside"]["now"] == "150.0"
    again = [hand(0, 140, where="thick"), hand(4, 149, where="thick")]
    assert cook(*warm[:2], instant=again)["inside"]["now"] == "149.0"
    elsewhere = [hand(0, 140, where="thick"), hand(4, 149, where="thin")]
    assert cook(*warm[:2], instant=elsewhere)["inside"]["now"] == "140.0"
    # two at one place and time both count
    assert cook(*warm[:2], instant=[hand(4, 149), hand(4, 141)])["inside"]["now"] == "141.0"


def test_a_piece_that_was_not_read_is_said_to_be_unread():
    assert cook((0, 150), pieces=["P1", "B"])["inside"]["unread"] == ["B"]
    assert cook((0, 150), instant=[hand(0, 150, "B")])["inside"]["unread"] == []
    assert cook((0, 150), (11, 151), instant=[hand(0, 150, "B")])["inside"]["unread"] == ["B"]
    # what comes after names no piece
    assert cook((0, 150), (11, 151), instant=[hand(11, 150, "B")], until=at(5))["inside"]["unread"] == []
    # a probe without a piece counts for the inside alone
    loose = [{"id": "1"}]
    assert cook((0, 150), probes=loose)["inside"] == {
        "now": "150.0",
        "probe": "1",
        "rate_per_hour": None,
        "unread": [],
    }
    assert by_hand()["inside"] == {"now": None, "probe": None, "rate_per_hour": None, "unread": []}


def test_the_climb_by_hand_is_of_one_place_over_three_hours():
    """100 °F at noon, 130 an hour later: 30 an hour; read elsewhere, or a minute before, it says nothing."""
    two = [hand(0, 100, where="thick"), hand(60, 130, where="thick"), hand(60, 150, where="thin")]
    assert by_hand(*two)["inside"]["rate_per_hour"] == "30.0"
    assert by_hand(hand(0, 100), hand(60, 130, where="thick"))["inside"]["rate_per_hour"] is None
    assert by_hand(hand(59, 100), hand(60, 130))["inside"]["rate_per_hour"] is None
    assert by_hand(hand(50, 100), hand(60, 130))["inside"]["rate_per_hour"] == "180.0"
    assert by_hand(hand(0, 100), hand(180, 130))["inside"]["rate_per_hour"] == "10.0"
    assert by_hand(hand(0, 100), hand(181, 130))["inside"]["rate_per_hour"] is None
    # beside probes the climb of the probes is of probes alone
    rows = [(minute, 100 + minute) for minute in range(0, 31, 10)]
    mixed = cook(*rows, instant=[hand(15, 60)], until=at(30))["inside"]
    assert (mixed["probe"], mixed["rate_per_hour"]) == ("1", "60.0")


def test_what_is_read_by_hand_before_and_after_an_interval_is_credited():
    """145 °F at 0, 4 and 8 minutes: two times four minutes of the four it needs."""
    held = [hand(0, 145), hand(4, 145), hand(8, 146)]
    assert by_hand(*held)["lethality"]["log6_5"] == "2.000000"
    assert by_hand(*held[:1])["lethality"]["log6_5"] == "0.000000"
    # eleven minutes apart nobody knows
    assert by_hand(hand(0, 145), hand(11, 145))["lethality"]["log6_5"] == "0.000000"
    # the other piece is not known at all, or only at one end
    assert by_hand(*held, pieces=["P1", "B"])["lethality"]["log6_5"] == "0.000000"
    assert by_hand(*held, hand(4, 150, "B"))["lethality"]["log6_5"] == "0.000000"
    both = [*held, hand(0, 150, "B"), hand(4, 144, "B"), hand(8, 144, "B")]
    # 144 °F need five minutes
    assert by_hand(*both)["lethality"]["log6_5"] == "1.600000"
    # read at another place at one end: no two of it, and it lowers the interval it is made at
    lower = [*held, hand(4, 143, where="thin")]
    assert by_hand(*lower)["lethality"]["log6_5"] == f"{8 / 6:.6f}"


def test_a_mark_is_reached_while_it_holds():
    rows = [(0, 140), (10, 150), (20, 152), (30, 151)]
    reached = {"low": at(10), "likely": at(10), "high": at(10)}
    phases = [phase("cook", 0)]
    assert cook(*rows, pull_at="150", phases=phases)["ready"] == reached
    # two degrees under it is still it, more takes it back
    assert cook(*rows, (40, 148), pull_at="150", phases=phases)["ready"] == reached
    assert cook(*rows, (40, "147.9"), pull_at="150", phases=phases)["ready"] != reached
    again = cook(*rows, (40, 147), (50, 150), pull_at="150", phases=phases)["ready"]
    assert again == {"low": at(50), "likely": at(50), "high": at(50)}
    # in Celsius two Fahrenheit too
    warm = [(0, "65.6"), (10, "64.6")]
    assert cook(*warm, pull_at="65.6", phases=phases, unit="C")["ready_why"] == "reached"
    warm = [(0, "65.6"), (10, "64.4")]
    assert cook(*warm, pull_at="65.6", phases=phases, unit="C")["ready_why"] != "reached"


def test_an_unread_or_colder_piece_takes_it_back_and_is_named():
    rows = [(0, 140), (10, 151)]
    unread = cook(*rows, pull_at="150", pieces=["P1", "B"])
    assert (unread["ready"], "B" in unread["ready_why"]) == (None, True)
    read = cook(*rows, pull_at="150", pieces=["P1", "B"], instant=[hand(10, 152, "B")])
    assert read["ready_why"] == "reached"
    colder = cook(*rows, pull_at="150", instant=[hand(10, 133, "B")])
    assert (colder["ready"], colder["ready_why"]) == (None, "B is colder, read by hand")
    # an unread moment may take it back too
    back = cook(*rows, (11, 140), (22, 151), pull_at="150", instant=[hand(10, 152, "B"), hand(22, 151, "B")])
    assert back["ready"]["low"] == at(22)


def test_the_rest_of_the_home_rule_is_not_met_by_what_nobody_read():
    rows = [(minute, 146) for minute in range(5)]
    assert cook(*rows)["home_rule"]["met_at"] == at(3)
    assert cook(*rows, pieces=["P1", "B"])["home_rule"]["met_at"] is None
    assert cook(*rows, instant=[hand(1, 146, "B")])["home_rule"]["met_at"] == at(4)
    assert cook(*rows, instant=[hand(2, 146, "B")])["home_rule"]["met_at"] is None
    # poultry has no rest: the first moment at which all is read
    bird = [(0, 166), (1, 166)]
    assert cook(*bird, meat="poultry", instant=[hand(1, 166, "B")])["home_rule"]["met_at"] == at(1)


def test_time_of_a_running_leg_goes_on_where_nothing_is_read_inside():
    rows = [(0, 140), (10, 130), (20, {"air": 60}), (200, {"air": 60})]
    leg = cook(*rows, phases=[phase("cool", 0)])["cooling"]["plain"]["to_70"]
    assert (leg["state"], leg["seconds"]) == ("failed", 195 * 60)
    # the clock starts where the line comes down to 135, and at once where it stands on it
    assert leg["from"] == at(5)
    on = cook((0, 135), (10, 135), (20, 130), phases=[phase("cool", 0)])["cooling"]["plain"]["to_70"]
    assert (on["from"], on["seconds"]) == (at(0), 20 * 60)
    # of a phase in which nothing was read inside all legs wait, whatever was read before it
    none = cook((0, 60), (5, {"air": 60}), (9, {"air": 60}), phases=[phase("cool", 1)], until=at(9))
    waits = cook((0, 60), (15, {"air": 60}), phases=[phase("cool", 1)])["cooling"]["plain"]
    assert none["cooling"]["plain"]["to_70"] is None
    assert [leg["state"] for leg in waits.values()] == ["waiting", "waiting"]


@pytest.mark.parametrize(
    ("change", "place"),
    [
        ({"pieces": ["P1", "P1"]}, "pieces[1]"),
        ({"pieces": ["B"]}, "probes[0].piece"),
        ({"pieces": ["P1"], "instant": [hand(0, 150, "B")]}, "instant[0].piece"),
        ({"pieces": "P1"}, "pieces"),
        ({"instant": [{"at": at(0), "temp": "150"}]}, "instant[0].piece"),
        ({"instant": [hand(0, ".5")]}, "instant[0].temp"),
        ({"instant": [hand(0, "5.")]}, "instant[0].temp"),
        ({"instant": [hand(0, "+5")]}, "instant[0].temp"),
        ({"nitrite_ppm": ".5"}, "nitrite_ppm"),
        ({"instant": [hand(0, 150, where=3)]}, "instant[0].where"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(change, place):
    with pytest.raises(DolmetschError) as refused:
        cook((0, 150), **change)
    assert str(refused.value).startswith(f"{place}: "), refused.value


def test_what_a_piece_reads_is_its_lowest_that_counts_or_its_last():
    probes = [
        {"id": "1", "piece": "A"},
        {"id": "2", "piece": "A", "where": "thin"},
        {"id": "3", "piece": "C"},
    ]
    rows = [(0, {"1": 150, "2": 148, "3": 120}), (5, {"1": 151}), (25, {"air": 200})]
    readings = [hand(5, 140, "A", where="bone"), hand(7, 149, "A", where="bone"), hand(2, 99, "B")]
    log = read_cook(parse(json.dumps(document(*rows, probes=probes, instant=readings)))).log
    noon = log.readings[0].at

    def read(minutes):
        found = read_pieces(log, now=noon + 60 * minutes)
        return {
            name: (int(one.fahrenheit), one.probe, one.where, one.is_unread) for name, one in found.items()
        }

    assert read(0) == {"A": (148, "2", "thin", False), "C": (120, "3", "", False)}
    assert read(6)["A"] == (140, "instant", "bone", False)
    assert read(8)["A"] == (148, "2", "thin", False)
    assert read(12)["A"] == (149, "instant", "bone", False)
    # too long ago it is unread, and what was read last is still shown
    assert read(25) == {
        "A": (149, "instant", "bone", True),
        "B": (99, "instant", "", True),
        "C": (120, "3", "", True),
    }


# -- against the rules as they are written, moment by moment ------------------------------------------------


def counted(log, moment):
    """Everything that counts at a moment: probe or piece and place, temperature."""
    found = []
    for probe in log["probes"]:
        name = probe["id"]
        read = [row for row in log["rows"] if row[0] <= moment and name in row[1]]
        if name != "air" and read and moment - read[-1][0] <= 600:
            found.append((probe["piece"], name, F(read[-1][1][name])))
    for when, piece, where, temp in log["hand"]:
        later = [one for one in log["hand"] if one[1:3] == (piece, where) and when < one[0] <= moment]
        if when <= moment <= when + 600 and not later:
            found.append((piece, "instant", F(temp)))
    return found


def credited(log, start, end):
    """The temperature of an interval, or None where it is not credited."""
    if end - start > 600:
        return None
    values, known = [], set()
    before, after = counted(log, start), counted(log, end)
    for piece, name, temp in before:
        if name != "instant":
            values.append(temp)
            if any(other == name for _, other, _ in after):
                known.add(piece)
    values += [temp for _, name, temp in after if name != "instant"]
    for piece, where in {one[1:3] for one in log["hand"]}:
        own = [one for one in log["hand"] if one[1:3] == (piece, where)]
        first = [one for one in own if one[0] <= start]
        last = [one for one in own if one[0] >= end]
        if first and last:
            since, until = max(one[0] for one in first), min(one[0] for one in last)
            if until - since <= 600:
                known.add(piece)
                values += [one[3] for one in own if one[0] in (since, until)]
    values += [one[3] for one in log["hand"] if one[0] in (start, end)]
    return min(map(F, values)) if log["pieces"] <= known and log["pieces"] else None


logs = st.fixed_dictionaries(
    {
        "rows": st.dictionaries(
            st.integers(0, 12).map(lambda step: 240 * step),
            st.dictionaries(st.sampled_from(["1", "2", "air"]), st.integers(138, 150), min_size=1),
            min_size=1,
            max_size=8,
        ),
        "hand": st.lists(
            st.tuples(
                st.integers(0, 12).map(lambda step: 240 * step),
                st.sampled_from(["A", "B", "C"]),
                st.sampled_from(["", "thin"]),
                st.integers(138, 150),
            ),
            max_size=8,
        ),
    }
)


@given(logs)
def test_moments_are_judged_as_the_rules_are_written(drawn):
    probes = [{"id": "1", "piece": "A"}, {"id": "2", "piece": "B"}, {"id": "air", "role": "air"}]
    rows = sorted(drawn["rows"].items())
    log = {"probes": [{"piece": "", **one} for one in probes], "rows": rows, "hand": drawn["hand"]}
    log["pieces"] = {"A", "B", *(one[1] for one in drawn["hand"])}
    answer = answer_cook(
        json.dumps(
            {
                "format": "dolmetsch-cook/1",
                "unit": "F",
                "meat": "pork",
                "pull_at": "144",
                "probes": probes,
                "readings": [
                    {"at": at(F(when, 60)), **{k: str(v) for k, v in row.items()}} for when, row in rows
                ],
                "instant": [
                    hand(F(when, 60), temp, piece, where=where) for when, piece, where, temp in drawn["hand"]
                ],
            }
        )
    )
    moments = sorted({when for when, _ in rows} | {one[0] for one in drawn["hand"]})
    inside = [(when, found) for when in moments if (found := counted(log, when))]
    assert (answer["inside"]["now"] is None) == (not inside)
    if inside:
        last = inside[-1][1]
        assert answer["inside"]["now"] == f"{min(temp for *_, temp in last)}.0"
        assert set(answer["inside"]["unread"]) == log["pieces"] - {piece for piece, *_ in last}
    part = F(0)
    for start, end in pairwise(moments):
        cold = credited(log, start, end)
        if cold is not None:
            part += F(end - start, LETHALITY_SECONDS[int(cold)][0])
    assert answer["lethality"]["log6_5"] == f"{float(part):.6f}"
    reached = [
        when
        for index, (when, found) in enumerate(inside)
        if min(temp for *_, temp in found) >= 144
        and log["pieces"] == {piece for piece, *_ in found}
        and all(min(temp for *_, temp in later) >= 142 for _, later in inside[index:])
    ]
    assert (answer["ready_why"] == "reached") == bool(reached)
    if reached:
        assert answer["ready"]["low"] == at(F(reached[0], 60))
