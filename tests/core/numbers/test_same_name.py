"""When two spellings are one name."""

import pytest

from dolmetsch.core.numbers.spelling import same_name


@pytest.mark.parametrize(
    "name", ["hollow farm", "Hollow Farm", "HOLLOWFARM", "  Hollow \t farm ", "Hollow  Farm"]
)
def test_neither_case_nor_spaces_tell_names_apart(name):
    assert same_name(name) == "hollowfarm"


def test_spaces_between_digits_do():
    assert same_name("Bag 1 10") == "bag1 10" != same_name("bag 11 0")
    assert same_name("bag  1   10 lb") == same_name("Bag 1 10lb")
