"""How long a chamber's air lay outside, worked out by hand."""

from fractions import Fraction

from dolmetsch.core.drying.air import time_outside

LIMITS = {"lowest": Fraction(70), "highest": Fraction(80)}


def curve(*pairs):
    return [(Fraction(60 * minute), Fraction(value)) for minute, value in pairs]


def test_an_interval_counts_where_both_its_ends_lie_outside():
    found = time_outside(curve((0, 75), (10, 69), (20, 68), (30, 70), (40, 81), (50, 90)), **LIMITS)
    assert (found.under, found.over) == (600, 600)


def test_a_gap_counts_for_nothing():
    assert time_outside(curve((0, 60), (61, 60)), **LIMITS).under == 0
    assert time_outside(curve((0, 60), (60, 60)), **LIMITS).under == 3600


def test_the_limits_themselves_are_inside():
    found = time_outside(curve((0, 70), (10, 70), (20, 80), (30, 80)), **LIMITS)
    assert (found.under, found.over) == (0, 0)
    assert time_outside([], **LIMITS).under == 0
