"""Cooling against both rules, by hand."""

import pytest

from tests.core.heat.cooks import at, cook, phase

COOL = [phase("cool", 0)]


def legs(*rows, phases=COOL, **more):
    found = cook(*rows, phases=phases, **more)["cooling"]
    return {**(found["plain"] or {}), **(found["cured"] or {})}


def short(leg):
    return None if leg is None else (leg["state"], leg["seconds"], leg["from"], leg["to"])


def test_the_plain_rule_by_straight_lines():
    """From 140 at noon to 130 ten minutes later: 135 at five past. 70 at 2:05, 41 at 6:05: both just met."""
    rows = [(0, 140), (10, 130), (125, 70), (365, 41)]
    found = legs(*rows)
    assert short(found["to_70"]) == ("met", 7200, at(5), at(125))
    assert short(found["to_41"]) == ("met", 21600, at(5), at(365))


def test_a_second_too_long_fails_with_its_crossing():
    found = legs((0, 135), (121, 70), (361, 41))
    assert short(found["to_70"]) == ("failed", 7260, at(0), at(121))
    assert short(found["to_41"]) == ("failed", 21660, at(0), at(361))


def test_waiting_running_and_failed_before_it_is_crossed():
    assert short(legs((0, 150), (5, 140))["to_70"]) == ("waiting", 0, None, None)
    assert short(legs((0, 135), (60, 100))["to_70"]) == ("running", 3600, at(0), None)
    assert short(legs((0, 135), (120, 100))["to_70"]) == ("running", 7200, at(0), None)
    assert short(legs((0, 135), (121, 100))["to_70"]) == ("failed", 7260, at(0), None)


def test_the_first_mark_at_its_first_crossing_the_last_at_its_last():
    """It warms up again: over 135 does not start the clock anew, over 70 at the end means not there."""
    rows = [(0, 136), (2, 134), (4, 136), (6, 134), (60, 69), (70, 71), (80, 69)]
    assert short(legs(*rows)["to_70"]) == ("met", 75 * 60 - 60, at(1), at(75))
    assert short(legs(*rows[:-1])["to_70"]) == ("running", 69 * 60, at(1), None)


def test_the_warmest_inside_decides():
    rows = [(0, {"1": 140, "2": 136}), (10, {"1": 140, "2": 100}), (20, {"1": 130, "2": 60})]
    assert short(legs(*rows, probes=("1", "2"))["to_70"]) == ("running", 300, at(15), None)


@pytest.mark.parametrize(("ppm", "is_cured"), [(None, False), ("99.9", False), ("100", True), (156, True)])
def test_the_cured_rule_from_100_ppm_on(ppm, is_cured):
    found = cook((0, 135), (5, 130), (305, 80), (905, 45), phases=COOL, nitrite_ppm=ppm)["cooling"]
    assert (found["cured"] is not None) == is_cured
    if is_cured:
        assert short(found["cured"]["to_80"]) == ("met", 18000, at(5), at(305))
        assert short(found["cured"]["to_45"]) == ("met", 36000, at(305), at(905))


def test_the_cured_clock_of_the_second_leg_starts_at_80():
    found = legs((0, 130), (400, 80), (1001, 45), nitrite_ppm=120)
    assert short(found["to_80"]) == ("failed", 24000, at(0), at(400))
    assert short(found["to_45"]) == ("failed", 36060, at(400), at(1001))


def test_a_phase_that_begins_below_a_mark_has_no_such_leg():
    found = legs((0, 120), (60, 75), nitrite_ppm=120)
    assert [short(found[name]) for name in ("to_70", "to_41", "to_80")] == [None, None, None]
    assert short(found["to_45"])[0] == "running"


def test_the_phase_begins_at_the_last_moment_before_it_if_that_is_not_stale():
    rows = [(0, 140), (15, 130), (30, 69)]
    found = legs(*rows, phases=[phase("cool", 10)])["to_70"]
    assert (found["state"], found["from"]) == ("met", at(7.5))
    assert legs(*rows, phases=[phase("cool", 10.5)])["to_70"] is None


def test_the_last_cool_phase_counts_and_none_is_null():
    rows = [(0, 140), (60, 60), (70, 140), (80, 130)]
    found = legs(*rows, phases=[phase("cool", 0, 60), phase("cool", 70)])
    assert short(found["to_70"]) == ("running", 300, at(75), None)
    assert cook((0, 140), (1, 140))["cooling"] == {"plain": None, "cured": None}
    assert short(legs(*rows, phases=[phase("cool", 900)])["to_70"]) == ("waiting", 0, None, None)


def test_cooling_is_known_as_of_until():
    rows = [(0, 135), (60, 100), (130, 69)]
    found = legs(*rows, until=at(90))
    assert short(found["to_70"]) == ("running", 3600, at(0), None)
    assert cook(*rows, phases=[phase("cool", 60)], until=at(30))["cooling"]["plain"] is None
