"""What has to be cooked before it is eaten."""

from fractions import Fraction as F

import pytest

from dolmetsch.core.heat.raw import is_cooked, is_raw
from dolmetsch.core.ledger.strands import Heated, Strand

WHOLE = Strand(lot="lot", marks=frozenset({"lot"}))
SMOKED = WHOLE.then(heated=Heated(kind="smoke"))


@pytest.mark.parametrize(
    ("kinds", "strands", "cooked", "expected"),
    [
        # on its way: nothing is said of it yet
        (["trim", "cure"], [WHOLE], [], False),
        # sliced, and never heated
        (["cure", "slice"], [WHOLE], [], True),
        (["cure", "hang"], [WHOLE], [], True),
        (["cure", "Dry age"], [WHOLE], [], True),
        (["smoke"], [SMOKED], [], True),
        (["smoke", "slice"], [SMOKED], [SMOKED], False),
        # one part of a mix that is not cooked makes it raw
        (["mix", "slice"], [SMOKED, WHOLE], [SMOKED], True),
        (["mix"], [SMOKED, WHOLE], [SMOKED], True),
    ],
)
def test_raw_is_what_no_step_cooked(kinds, strands, cooked, expected):
    assert is_raw(kinds, strands, cooked) is expected


@pytest.mark.parametrize(
    ("heated", "course", "methods", "followed", "cooked"),
    [
        # a smoke nobody said anything of goes by the course, then by the method, then it was hot
        (Heated(kind="Smoke"), None, {}, {}, True),
        (Heated(kind="smoke"), "cold_smoked_raw", {"smoke": "hot_smoke"}, {}, False),
        (Heated(kind="smoke"), "air_dried", {}, {}, False),
        (Heated(kind="smoke"), "cooked", {"smoke": "cold_smoke"}, {}, True),
        (Heated(kind="smoke"), None, {"smoke": "cold_smoke"}, {}, False),
        (Heated(kind="smoke"), None, {"smoke": "hot_smoke"}, {}, True),
        # what was said of the smoke itself counts before those
        (Heated(kind="smoke", heat="cold"), "cooked", {"smoke": "hot_smoke"}, {}, False),
        (Heated(kind="smoke", heat="hot"), "cold_smoked_raw", {"smoke": "cold_smoke"}, {}, True),
        # what was measured counts before what was said
        (Heated(kind="smoke", heat="hot", inside_fahrenheit=F(144)), "cooked", {}, {}, False),
        (Heated(kind="smoke", heat="cold", inside_fahrenheit=F(145)), None, {}, {}, True),
        (Heated(kind="smoke", heat="hot"), "cooked", {}, {"smoke": False}, False),
        (Heated(kind="smoke", heat="cold"), None, {}, {"smoke": True}, True),
        # a fire may cook it at less, by the time it took; a reading at the end may cook it too
        (Heated(kind="smoke", inside_fahrenheit=F(138)), None, {}, {"smoke": True}, True),
        (Heated(kind="smoke", inside_fahrenheit=F(150)), None, {}, {"smoke": False}, True),
        # a steaming is a cook, and cooks unless a fire says otherwise
        (Heated(kind="steam"), "cold_smoked_raw", {"smoke": "cold_smoke"}, {"smoke": False}, True),
        (Heated(kind="steam"), None, {}, {"cook": False}, False),
        (Heated(kind="cook", heat="cold"), None, {}, {}, False),
    ],
)
def test_cooked_is_what_was_measured_then_what_was_said(heated, course, methods, followed, cooked):
    found = is_cooked(heated, course=course, methods=methods, followed=followed, safe_fahrenheit=F(145))
    assert found is cooked
