"""What goes wrong in a cook, at its marks."""

import pytest

from tests.core.heat.cooks import at, cook, phase, troubles


def spans(answer, code):
    return [(one["from"], one["to"], one["probe"]) for one in troubles(answer, code)]


def fire(*airs, step=5, **more):
    rows = [(index * step, {"1": 100, "air": air}) for index, air in enumerate(airs)]
    return cook(*rows, **more)


def test_a_fire_that_falls_over_40_under_its_usual_for_over_5_minutes():
    assert spans(fire(225, 225, 225, 184, 184, 225, 225), "fire_low") == [(at(15), at(25), "air")]
    assert spans(fire(225, 225, 225, 185, 185, 225), "fire_low") == []
    assert spans(fire(225, 225, 225, 184, 225, 225), "fire_low") == []
    assert spans(fire(225, 225, 225, 184, 184, 184), "fire_low") == [(at(15), at(25), "air")]


def test_a_low_fire_needs_ten_minutes_of_the_hour_before():
    assert spans(fire(225, 225, 150, 150, 150), "fire_low") == [(at(10), at(20), "air")]
    assert spans(fire(225, 150, 150, 150), "fire_low") == []
    # an hour of 150 is the usual by then
    rows = [(index * 10, {"1": 100, "air": 225 if index < 2 else 190}) for index in range(12)]
    assert spans(cook(*rows, (120, {"1": 100, "air": 149}), (130, {"1": 100, "air": 149})), "fire_low") == [
        (at(120), at(130), "air")
    ]


def test_a_cooler_stage_is_no_low_fire():
    stages = [phase("cook", 0, 19), phase("hold", 20)]
    assert spans(fire(225, 225, 225, 225, 150, 150, 150, phases=stages), "fire_low") == []


def smoke(*airs):
    return spans(fire(*airs, phases=[phase("cold_smoke", 0)]), "smoke_warm")


def test_a_cold_smoke_too_warm_for_over_ten_minutes_or_far_too_warm_at_once():
    assert smoke(80, 91, 91, 91, 80) == [(at(5), at(20), "air")]
    assert smoke(80, 91, 91, 80) == []
    assert smoke(80, 90, 90, 90, 90) == []
    assert smoke(80, 111, 80) == [(at(5), at(10), "air")]
    assert smoke(80, 110, 80) == []
    assert spans(fire(95, 95, 95, 95), "smoke_warm") == []


@pytest.mark.parametrize(
    ("rows", "expected"),
    [
        ([(0, 100), (1, 126), (2, 127)], [(at(1), at(2), "1")]),
        ([(0, 100), (1, 125), (2, 126)], []),
        ([(0, 100), (2, 126), (4, 127)], [(at(2), at(4), "1")]),
        ([(0, 100), (3, 130), (4, 131)], []),
        ([(0, 100), (0.5, 113), (1, 126), (2, 127)], [(at(1), at(2), "1")]),
    ],
)
def test_a_probe_that_rises_faster_than_meat_can(rows, expected):
    assert spans(cook(*[(minute, {"1": value}) for minute, value in rows]), "probe_out") == expected


def beside(*rows):
    """Probes 1 and 2 and the air."""
    return spans(
        cook(*[(m, {"1": a, "2": b, "air": c}) for m, a, b, c in rows], probes=("1", "2")), "probe_out"
    )


def test_a_probe_that_reads_like_the_air_while_the_others_do_not():
    assert beside((0, 150, 100, 155), (5, 151, 100, 155), (10, 152, 100, 155)) == [(at(0), at(10), "1")]
    assert beside((0, 149.9, 100, 155), (5, 151, 100, 155), (10, 152, 100, 155)) == []
    assert beside((0, 150, 125, 155), (5, 151, 125, 155), (10, 152, 125, 155)) == []
    lone = cook(*[(minute, {"1": 150, "air": 155}) for minute in (0, 5, 10)])
    assert spans(lone, "probe_out") == []


def test_a_probe_pulled_out_is_one_trouble():
    rows = [(0, 100, 100, 225), (1, 223, 100, 225), (6, 224, 100, 225), (12, 225, 100, 225)]
    assert beside(*rows) == [(at(1), at(12), "1")]


def swap(temp, *, piece="P1", values=(100, 130)):
    rows = [(0, {"1": values[0], "2": values[1]}), (5, {"1": values[0], "2": values[1]})]
    by_hand = [{"at": at(2), "piece": piece, "temp": temp}]
    return spans(cook(*rows, probes=("1", "2"), instant=by_hand), "probe_swap")


def test_an_instant_reading_much_nearer_to_another_pieces_probe():
    """100 and 130: at 120.1 it is 20.1 off its own and 9.9 off the other: 10.2 nearer."""
    assert swap("120.1") == [(at(2), at(2), "2")]
    assert swap("120") == []
    assert swap("129", piece="P2") == []
    assert swap("129", piece="P3") == []
    old = cook(
        (0, {"1": 100, "2": 130}),
        (30, {"1": 100}),
        probes=("1", "2"),
        instant=[{"at": at(30), "piece": "P1", "temp": "130"}],
    )
    assert spans(old, "probe_swap") == []


def test_a_probe_in_no_piece_is_not_another_pieces():
    probes = ("1", {"id": "2"})
    rows = [(0, {"1": 100, "2": 130})]
    by_hand = [{"at": at(0), "piece": "P1", "temp": "130"}]
    assert spans(cook(*rows, probes=probes, instant=by_hand), "probe_swap") == []


def in_danger(minutes, *, low=100, **more):
    rows = [(minute, low) for minute in range(0, minutes + 1, 10)]
    return spans(cook(*rows, (minutes + 10, 141), **more), "danger")


def test_over_four_hours_between_40_and_140_or_eight_where_it_is_cured():
    assert in_danger(240) == [(at(0), at(250), None)]
    assert in_danger(230) == []
    assert in_danger(240, low=39.9) == []
    assert in_danger(240, low=140) == [(at(0), at(250), None)]
    assert in_danger(240, nitrite_ppm="100") == []
    assert in_danger(480, nitrite_ppm="100") == [(at(0), at(490), None)]
    assert in_danger(480, nitrite_ppm="99") != []
    assert in_danger(600, phases=[phase("cold_smoke", 0)]) == []
    assert in_danger(600, phases=[phase("cold_smoke", 0, 400), phase("cook", 401)]) == []


def test_troubles_stand_in_order_and_are_known_as_of_until():
    rows = [(0, 100, 225), (5, 100, 225), (10, 100, 225), (15, 100, 150), (25, 100, 150), (40, 100, 225)]
    answer = cook(*rows)
    assert [one["code"] for one in answer["troubles"]] == ["fire_low", "gap"]
    assert cook(*rows, until=at(15))["troubles"] == []


def test_the_text_says_temperatures_in_the_units_of_the_log():
    rows = [(index * 5, {"1": 40, "air": air}) for index, air in enumerate((110, 110, 110, 80, 80, 110))]
    (found,) = troubles(cook(*rows, unit="C"), "fire_low")
    assert "22 °C under its usual 110 °C for 10 minutes" in found["said"]
