"""Lethality and the home rule, by hand from the table, and what no log may do to them."""

from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.heat.cook_log import CookLog, Phase, Probe, Reading
from dolmetsch.core.heat.lethality import compute_lethality
from dolmetsch.core.heat.moments import count_log, list_moments
from tests.core.heat.cooks import at, cook, phase, troubles


def met(answer):
    return answer["lethality"]["log6_5"], answer["lethality"]["met_at_6_5"]


def test_four_minutes_at_145_meet_it_to_the_second():
    """145 °F asks for 240 s: 3 minutes are three quarters of it, 4 are all of it."""
    rows = [(minute, 145) for minute in range(4)]
    assert met(cook(*rows)) == ("0.750000", None)
    assert met(cook(*rows, (4, 145))) == ("1.000000", at(4))


def test_the_lower_end_of_an_interval_counts():
    """Up to 150 and back: both intervals count as 140 °F, of which 12 minutes are all."""
    assert met(cook((0, 140), (3, 150), (6, 140))) == ("0.500000", None)


def test_between_two_rows_the_time_is_log_linear():
    """Half way from 9 to 8 minutes (141 and 142 °F) is the root of 540·480 seconds: 509.117."""
    assert met(cook((0, "141.5"), (5, "141.5")))[0] == f"{300 / (540 * 480) ** 0.5:.6f}"


@pytest.mark.parametrize(
    ("fahrenheit", "columns"),
    [
        ("130", (6720, 7260)),
        ("138", (1080, 1140)),
        ("145", (240, 240)),
        ("150", (67, 72)),
        ("157", (14, 15)),
        ("157.9", (14, 15)),
    ],
)
def test_the_table_as_printed(fahrenheit, columns):
    """Ten seconds at a temperature are ten of the seconds that it asks for."""
    lethality = cook((0, fahrenheit), (F(1, 6), fahrenheit))["lethality"]
    assert (lethality["log6_5"], lethality["log7"]) == tuple(f"{10 / asked:.6f}" for asked in columns)


def test_under_130_nothing_counts():
    assert cook((0, "129.9"), (9, "129.9"))["lethality"]["log6_5"] == "0.000000"


def test_158_is_met_at_once_and_adds_no_more():
    answer = cook((0, 160), (1, 160), (2, 160))
    assert answer["lethality"] == {
        "log6_5": "1.000000",
        "log7": "1.000000",
        "met_at_6_5": at(1),
        "met_at_7": at(1),
    }


def test_what_is_met_already_is_not_taken_back_at_158():
    """Eight minutes of 145 are twice the need; a minute of 158 after it leaves that as it is."""
    assert met(cook(*[(minute, 145) for minute in range(9)], (9, 158), (10, 158)))[0] == "2.250000"


def test_the_coldest_probe_decides_and_an_instant_reading_counts_at_its_own_moment():
    rows = [(0, {"1": 150, "2": 145}), (1, {"1": 150, "2": 145}), (2, {"1": 150, "2": 145})]
    assert met(cook(*rows, probes=("1", "2")))[0] == "0.500000"
    by_hand = [{"at": at(1), "piece": "P1", "temp": "129"}]
    assert met(cook(*rows, probes=("1", "2"), instant=by_hand))[0] == "0.000000"


def test_a_value_counts_for_ten_minutes_and_a_longer_interval_is_a_gap():
    """Probe 2 falls silent: for ten minutes its last value is the coldest, then its piece is not known."""
    rows = [(0, {"1": 145, "2": 130}), (10, {"1": 145}), (11, {"1": 145}), (15, {"1": 145})]
    assert met(cook(*rows, probes=("1", "2")))[0] == f"{600 / 6720:.6f}"
    answer = cook((0, 145), (10, 145), (21, 145))
    assert met(answer)[0] == "2.500000"
    assert [(one["from"], one["to"], one["probe"]) for one in troubles(answer, "gap")] == [
        (at(10), at(21), None)
    ]


def test_an_interval_counts_where_both_ends_lie_in_one_stretch_of_heat():
    """Cook and rest touch: one stretch. What cools, and cold smoke, count nothing."""
    rows = [(minute, 145) for minute in range(9)]
    joined = cook(*rows, phases=[phase("cook", 0, 2), phase("rest", 2, 4), phase("cool", 4)])
    assert met(joined)[0] == "1.000000"
    parted = cook(*rows, phases=[phase("cook", 0, 2), phase("rest", 3, 4)])
    assert met(parted)[0] == "0.750000"
    assert met(cook(*rows, phases=[phase("cold_smoke", 0)]))[0] == "0.000000"


def test_poultry_has_tables_of_its_own():
    assert cook((0, 160), (1, 160), meat="poultry")["lethality"] is None


def test_celsius_is_converted_exactly():
    """65 °C are 149 °F: 85 s. 62.8 °C are 145.04 °F, a little quicker than 145."""
    assert met(cook((0, 65), (1, 65), unit="C"))[0] == f"{60 / 85:.6f}"
    assert met(cook((0, "62.8"), (1, "62.8"), unit="C"))[0] == f"{60 / (240 * (169 / 240) ** 0.04):.6f}"


def log_of(values, step=60):
    readings = tuple(Reading(at=F(step * index), values={"1": value}) for index, value in enumerate(values))
    phases = (Phase(kind="cook", start=F(0)),)
    return CookLog(unit="F", probes=(Probe(id="1"),), readings=readings, phases=phases, meat="pork")


def lethality(log):
    counted = count_log(log)
    found = compute_lethality(counted, list_moments(counted))
    assert found is not None
    return found.log6_5, found.log7


temperatures = st.lists(st.integers(1200, 1600).map(lambda tenths: F(tenths, 10)), min_size=2, max_size=12)


@given(temperatures, st.integers(0, 80))
def test_a_hotter_log_is_never_less_safe(values, more):
    """Beyond 1 it is met either way: at 158 °F no more is counted."""
    hotter = lethality(log_of([value + F(more, 10) for value in values]))
    cooler = lethality(log_of(values))
    assert all(min(one, 1) >= min(other, 1) for one, other in zip(hotter, cooler, strict=True))


@given(temperatures, st.data())
def test_splitting_an_interval_at_a_colder_point_never_raises_it(values, data):
    index = data.draw(st.integers(1, len(values) - 1))
    coldest = min(values[index - 1 : index + 1])
    dip = coldest - F(data.draw(st.integers(0, 100)), 10)
    whole = log_of(values, step=120)
    extra = Reading(at=F(120 * index - 60), values={"1": dip})
    finer = tuple(sorted([*whole.readings, extra], key=lambda one: one.at))
    split = CookLog(unit="F", probes=whole.probes, readings=finer, phases=whole.phases, meat="pork")
    columns = zip(lethality(split), lethality(whole), strict=True)
    assert all(min(one, 1) <= min(other, 1) for one, other in columns)


@pytest.mark.parametrize(
    ("meat", "ground", "needed", "rests"),
    [
        ("pork", False, 145, 3),
        ("beef", False, 145, 3),
        ("pork", True, 160, 0),
        ("beef", True, 160, 0),
        ("poultry", False, 165, 0),
        ("poultry", True, 165, 0),
    ],
)
def test_the_home_rule_by_meat(meat, ground, needed, rests):
    rows = [(0, needed - 1), *[(1 + minute, needed) for minute in range(4)]]
    answer = cook(*rows, meat=meat, ground=ground)
    assert answer["home_rule"]["met_at"] == at(1 + rests)
    assert str(needed) in answer["home_rule"]["needs"]
    assert cook((0, needed - 1), (9, needed - 1), meat=meat, ground=ground)["home_rule"]["met_at"] is None


@pytest.mark.parametrize("meat", ["other", None])
def test_other_meat_has_no_home_rule(meat):
    assert cook((0, 200), (1, 200), meat=meat)["home_rule"] is None


@pytest.mark.parametrize(
    ("rows", "met_at"),
    [
        ([(0, 145), (2, 145)], None),
        ([(0, 145), (4, 145)], 3),
        # what it reads after the rest is no part of it
        ([(0, 145), (4, 100)], 3),
        ([(0, 145), (3, 144), (6, 145)], None),
        ([(0, 145), (2, 144), (3, 145), (6, 145)], 6),
        # unwatched: the next reading is too far off
        ([(0, 145), (11, 145)], None),
        ([(0, 145), (11, 145), (14, 145)], 14),
        ([(0, 145), (10, 145)], 3),
    ],
)
def test_a_rest_has_to_be_watched_through(rows, met_at):
    assert cook(*rows)["home_rule"]["met_at"] == (None if met_at is None else at(met_at))


def test_home_rule_looks_at_the_whole_log_whatever_the_phase():
    answer = cook((0, 145), (3, 145), phases=[phase("cool", 0)])
    assert answer["home_rule"]["met_at"] == at(3)
