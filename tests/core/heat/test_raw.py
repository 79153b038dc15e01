"""What has to be cooked before it is eaten."""

import pytest

from dolmetsch.core.heat.raw import is_raw


@pytest.mark.parametrize(
    ("kinds", "methods", "cooked", "expected"),
    [
        # on its way: nothing is said of it yet
        (["trim", "cure"], {}, {}, False),
        # sliced, and never heated
        (["cure", "slice"], {}, {}, True),
        (["cure", "hang"], {}, {}, True),
        (["cure", "Dry age"], {}, {}, True),
        # a smoke nobody followed goes by its method
        (["smoke", "slice"], {}, {}, False),
        (["smoke"], {"smoke": "hot_smoke"}, {}, False),
        (["smoke"], {"smoke": "cold_smoke"}, {}, True),
        # a fire that was followed says more than the method
        (["smoke"], {"smoke": "hot_smoke"}, {"smoke": False}, True),
        (["smoke"], {"smoke": "cold_smoke"}, {"smoke": True}, False),
        # cooked after a cold smoke
        (["smoke", "steam"], {"smoke": "cold_smoke"}, {}, False),
        (["smoke", "steam"], {"smoke": "cold_smoke"}, {"smoke": False, "cook": False}, True),
        (["cook", "pull"], {}, {}, False),
        # of another step than it went through
        (["cure", "slice"], {}, {"smoke": True}, True),
    ],
)
def test_raw_is_what_no_step_cooked(kinds, methods, cooked, expected):
    assert is_raw(kinds, methods=methods, cooked=cooked) is expected
