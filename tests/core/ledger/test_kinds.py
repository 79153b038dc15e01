"""Kinds of step match by what they are, not by spelling."""

import pytest

from dolmetsch.core.ledger.kinds import method_kind
from dolmetsch.core.reference.yields import METHODS


@pytest.mark.parametrize(
    ("typed", "kind"),
    [("hang", "dry"), ("Dry-age", "age"), ("dry  age", "age"), ("steam", "cook"), ("pump", "cure")],
)
def test_a_word_of_the_bench_is_a_kind_of_method(typed, kind):
    assert method_kind(typed) == kind
    assert kind in {method.kind for method in METHODS.values()}


def test_any_other_word_is_a_kind_of_its_own():
    assert method_kind("Whistle") == "whistle"
