"""How fast something is eaten of late, and when it runs out."""

from datetime import date, timedelta
from fractions import Fraction

import pytest

from dolmetsch.core.slicing.pace import PACE_DAYS, find_pace
from dolmetsch.core.slicing.thickness import THICKNESSES

TODAY = date(2026, 11, 27)


def day(ago):
    return TODAY - timedelta(days=ago)


def test_the_pace_is_that_of_the_last_two_weeks():
    """100 g a week ago and 180 g today, over fourteen days: 20 g a day; 90 g last until the fourth day on."""
    taken = [(day(13), Fraction(100)), (TODAY, Fraction(180)), (day(PACE_DAYS), Fraction(999))]
    pace = find_pace(taken, since=day(40), today=TODAY)
    assert pace.grams_a_day == 20
    assert (pace.lasts_days(Fraction(90)), pace.runs_out(Fraction(90), TODAY)) == (
        Fraction("4.5"),
        TODAY + timedelta(days=4),
    )


@pytest.mark.parametrize(
    ("ago", "days", "is_known"),
    [(2, 2, True), (1, 2, False), (40, 1, False)],
)
def test_a_pace_needs_three_days_and_takings_on_two(ago, days, is_known):
    taken = [(day(index), Fraction(50)) for index in range(days)]
    assert (find_pace(taken, since=day(ago), today=TODAY) is not None) is is_known


def test_takings_of_nothing_are_no_pace():
    assert find_pace([(TODAY, Fraction(0)), (day(1), Fraction(0))], since=day(9), today=TODAY) is None


def test_thicknesses_are_compared_from_1_5_to_12_mm_by_halves():
    assert (THICKNESSES[0], THICKNESSES[1], THICKNESSES[-1]) == (Fraction("1.5"), 2, 12)
