"""By which method a step was done: what was measured, what was said, what it is to become."""

from fractions import Fraction

import pytest

from dolmetsch.core.forecast.way import find_method, plain_way
from dolmetsch.core.heat.program_course import course_of_program, fits_course
from dolmetsch.core.ledger.course import COURSES
from dolmetsch.core.ledger.strands import Heated


@pytest.mark.parametrize(
    ("kind", "heat", "inside", "more", "method"),
    [
        # a shoulder smoked to 200 °F is no hot smoke of bacon, whatever the batch's method says
        ("smoke", "hot", 200, {}, "pulled"),
        ("smoke", "hot", 200, {"methods": {"smoke": "hot_smoke"}}, "pulled"),
        ("smoke", "hot", 180, {}, "pulled"),
        ("smoke", "hot", 179, {}, "hot_smoke"),
        ("cook", None, 150, {"methods": {"cook": "pulled"}}, "hot_smoke"),
        ("cook", None, 150, {}, "hot_smoke"),
        ("smoke", "hot", 140, {"methods": {"smoke": "stepped_smoke"}}, "stepped_smoke"),
        ("smoke", "cold", None, {"methods": {"smoke": "hot_smoke"}}, "cold_smoke"),
        ("smoke", "cold", 150, {}, "cold_smoke"),
        ("smoke", "hot", None, {"methods": {"smoke": "cold_smoke"}}, "hot_smoke"),
        ("smoke", None, None, {"methods": {"smoke": "cold_smoke"}}, "cold_smoke"),
        ("smoke", None, None, {"course": "air_dried"}, "cold_smoke"),
        ("smoke", "hot", None, {"course": "air_dried"}, "hot_smoke"),
        ("smoke", None, None, {"course": "pulled", "kinds": ["smoke", "pull"]}, "pulled"),
        ("smoke", None, None, {"course": "pulled", "kinds": ["smoke", "Steam"]}, "hot_smoke"),
        ("smoke", None, None, {"course": "cooked"}, "hot_smoke"),
        ("steam", None, None, {}, "pulled"),
        ("Hang", None, None, {}, "air_dry"),
        ("cure", None, None, {"has_gained": True}, "immersion"),
        ("cure", None, None, {"methods": {"cure": "salt_box"}, "has_gained": True}, "salt_box"),
        ("mix", None, None, {}, None),
    ],
)
def test_a_step_is_told_by_what_was_measured_then_said(kind, heat, inside, more, method):
    heated = Heated(kind=kind, heat=heat, inside_fahrenheit=None if inside is None else Fraction(inside))
    assert find_method(kind, **{"methods": {}, "heated": heated, **more}) == method


@pytest.mark.parametrize(
    ("kinds", "pull_at", "course", "fitting"),
    [
        ({"dry", "smoke", "cook"}, 150, "cooked", {"cooked"}),
        ({"smoke", "wrap"}, 200, "pulled", {"pulled", "cooked"}),
        ({"smoke", "cook"}, 180, "pulled", {"pulled", "cooked"}),
        ({"smoke", "cook"}, 179, "cooked", {"cooked"}),
        ({"smoke", "steam"}, 200, "steamed", {"steamed"}),
        ({"dry", "cold_smoke"}, None, "cold_smoked_raw", {"cold_smoked_raw", "air_dried", "fermented_dried"}),
        ({"cold_smoke"}, 150, "cold_smoked_raw", {"cold_smoked_raw", "air_dried", "fermented_dried"}),
        ({"cold_smoke", "cook"}, 150, "cooked", {"cooked"}),
        ({"smoke"}, None, None, set()),
        ({"dry"}, None, None, set()),
    ],
)
def test_a_program_leads_to_what_it_heats_to(kinds, pull_at, course, fitting):
    inside = None if pull_at is None else Fraction(pull_at)
    assert course_of_program(kinds, inside) == course
    assert {one for one in COURSES if fits_course(kinds, inside, one)} == fitting


def test_the_standard_way_smokes_cold_what_stays_raw():
    kinds = ("trim", "cure", "smoke", "chill")
    hot, cold = (plain_way(kinds, is_smoked_cold=is_cold) for is_cold in (False, True))
    assert [step.method for step in hot.steps] == ["trim", "dry_cure", "hot_smoke", "chill"]
    assert [step.method for step in cold.steps] == ["trim", "dry_cure", "cold_smoke", "chill"]
