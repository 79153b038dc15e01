"""What a piece is to become: as said last, else as its record shows."""

import pytest

from dolmetsch.core.ledger.course import COURSE_FACTS, COURSES, CourseStatement, find_course, infer_course


def said(course, *marks):
    return CourseStatement(course=course, marks=frozenset(marks))


@pytest.mark.parametrize(
    ("statements", "course"),
    [
        ([], None),
        ([said("cooked")], "cooked"),
        ([said("cooked"), said("air_dried")], "air_dried"),
        # of the piece, and of what it was cut from
        ([said("cooked"), said("pulled", "A1")], "pulled"),
        ([said("cooked"), said("pulled", "A")], "pulled"),
        ([said("cooked"), said("pulled", "B")], "cooked"),
        # the latest counts, be it of all
        ([said("pulled", "A"), said("cooked")], "cooked"),
        ([said("pulled", "A"), said(None)], None),
    ],
)
def test_the_latest_statement_about_a_piece_counts(statements, course):
    assert find_course({"lot", "A", "A1"}, statements) == course


@pytest.mark.parametrize(
    ("kinds", "methods", "is_cold", "course"),
    [
        ([], [], False, None),
        (["trim", "cure"], [], False, None),
        (["cure", "slice"], [], False, "cured_raw"),
        (["trim", "slice"], [], False, None),
        (["cure", "smoke"], [], False, "cooked"),
        (["cure", "smoke"], [], True, "cold_smoked_raw"),
        (["cure", "smoke", "cook"], [], True, "cooked"),
        (["cure", "smoke", "steam"], [], True, "steamed"),
        (["smoke", "Pull"], [], False, "pulled"),
        (["cure", "smoke", "Hang"], [], True, "air_dried"),
        (["ferment", "dry"], [], False, "fermented_dried"),
        # of what is still to come, by the method
        (["cure"], ["dry_cure", "hot_smoke"], False, "cooked"),
        (["cure"], ["dry_cure", "stepped_smoke"], False, "cooked"),
        (["cure"], ["cold_smoke"], True, "cold_smoked_raw"),
        (["cure"], ["air_dry"], False, "air_dried"),
        ([], ["hot_smoke", "pulled"], False, "pulled"),
    ],
)
def test_a_record_shows_its_course_where_nobody_said_one(kinds, methods, is_cold, course):
    assert infer_course(kinds, methods=methods, is_cold=is_cold) == course


def test_every_course_has_its_facts():
    assert tuple(COURSE_FACTS) == COURSES
    raw = {course for course, facts in COURSE_FACTS.items() if facts.is_raw}
    assert raw == {"cold_smoked_raw", "cured_raw", "air_dried", "fermented_dried"}
