"""P2 before P10."""

from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.numbers.natural import natural_key


def test_numbers_go_by_their_value():
    marks = ["P10", "p2", "P1", "A1B", "A1A", "A", "10", "9", "P2a", "P02"]
    assert sorted(marks, key=natural_key) == ["9", "10", "A", "A1A", "A1B", "P1", "p2", "P02", "P2a", "P10"]


@given(numbers=st.lists(st.integers(0, 10**6), unique=True))
def test_numbered_marks_are_in_the_order_of_their_numbers(numbers):
    marks = [f"P{number}" for number in numbers]
    assert sorted(marks, key=natural_key) == [f"P{number}" for number in sorted(numbers)]


@given(marks=st.lists(st.text(alphabet="Aa1²9-", max_size=6)))
def test_any_mark_can_be_sorted(marks):
    ordered = sorted(marks, key=natural_key)
    assert all(natural_key(one) <= natural_key(other) for one, other in pairwise(ordered))
