"""Numbers on a grid of whole counts are the same numbers."""

from fractions import Fraction as F

from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.numbers.grid import Grid

numbers = st.lists(st.fractions(max_denominator=10_000), max_size=8)


@given(numbers)
def test_every_number_lies_on_the_grid_of_its_set_and_in_the_same_order(values):
    grid = Grid.of(values)
    counts = [grid.count(value) for value in values]
    assert [grid.value(count) for count in counts] == values
    assert sorted(range(len(values)), key=counts.__getitem__) == sorted(
        range(len(values)), key=values.__getitem__
    )


def test_the_grid_of_tenths_and_quarters_is_of_twentieths():
    grid = Grid.of([F("0.1"), F("0.25")])
    assert (grid.parts, grid.count(F("0.25")), grid.count(3)) == (20, 5, 60)
    assert Grid.of([]).count(7) == 7
