"""Nitrite that goes along with the meat: shared by weight, added up, never lost, and unknown once unknown."""

from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.curing.nitrite_carried import carry_nitrite
from dolmetsch.core.errors import QuantityError
from dolmetsch.core.ledger.batch import Batch, ByProduct, Discard, Lot, Main, Merge, Split, Step, Weigh
from dolmetsch.core.ledger.run_ledger import run
from dolmetsch.core.numbers.volumes import WATER, read_measure
from dolmetsch.core.reference.spoons import SPOONS


def stages(*actions):
    lot = Lot(id="lot", grams=F(4000), paid=F(20))
    return run(Batch(lots=(lot,), steps=tuple(Step(kind="x", action=one) for one in actions))).stages


HALVES = Split(piece="lot", into=(Main(id="A", grams=F(2000)), Main(id="B", grams=F(1000))))
SLICED = Split(piece="A", into=(Main(id="S", grams=F(1500)), ByProduct(id="ends", grams=F(500), name="ends")))
MIXED = Merge(pieces=("S", "B"), into=Main(id="M", grams=F(2500)))


def test_a_cut_piece_shares_it_by_weight_and_a_mixed_one_adds_it_up():
    """3 g in the lot: 2 to A, 1 to B; B gets 0.5 more. Of A three quarters go on as S: M has 1.5 + 1.5."""
    held = carry_nitrite(stages(HALVES, SLICED, MIXED), {"lot": F(3), "B": F("0.5")})
    assert (held["A"], held["B"], held["S"], held["ends"]) == (2, F("1.5"), F("1.5"), F("0.5"))
    assert held["M"] == 3


def test_a_weighing_or_a_discard_moves_none_of_it_and_what_is_unknown_stays_so():
    steps = stages(HALVES, Weigh(grams={"A": F(1900)}), Discard(pieces=("B",), charge="loss"))
    assert carry_nitrite(steps, {"A": F(1)}) == {"A": 1, "B": 0}
    held = carry_nitrite(stages(HALVES, SLICED, MIXED), {"lot": None})
    assert (held["A"], held["M"]) == (None, None)
    assert carry_nitrite(stages(HALVES, SLICED, MIXED), {"B": None})["M"] is None


@given(st.fractions(0, 5), st.fractions(0, 5))
def test_none_of_it_is_lost_or_made(first, second):
    held = carry_nitrite(stages(HALVES, SLICED), {"lot": first, "B": second})
    assert held["B"] + held["S"] + held["ends"] == first + second


@pytest.mark.parametrize(
    ("typed", "grams"),
    [
        ("3 kg", 3000),
        ("8 qt", F("3785.411784") * 2),
        ("½ gal", F("3785.411784") / 2),
        ("1 1/2 cups", F("3785.411784") / 16 * F("1.5")),
        ("2 l", 2000),
        ("500 ml", 500),
        ("1/3 cup", F("3785.411784") / 48),
        ("2 packets of 4 oz", F("226.796185")),
        ("3 x 100 g", 300),
        ("1.5", 1500),
    ],
)
def test_what_goes_into_a_tub_is_read_by_weight_volume_or_packet(typed, grams):
    assert read_measure(typed, WATER, default_unit="kg").grams == grams


def test_volumes_of_salt_go_by_its_spoon_and_are_refused_without_one():
    cup = read_measure("1 cup", SPOONS["fine_salt"])
    assert (cup.grams, cup.by_volume) == (48 * 6, True)
    assert not read_measure("300 g", SPOONS["fine_salt"]).by_volume
    for typed, teaspoons in (("1 pt", 96), ("1 qt", 192), ("1 gal", 768), ("2 tbsp", 6)):
        assert read_measure(typed, SPOONS["fine_salt"]).grams == 6 * teaspoons
    assert read_measure("5000000/6 tsp", SPOONS["fine_salt"]).grams == 5_000_000
    for typed, spoon, said in (
        ("1 cup", None, "weigh it"),
        ("0 cups", SPOONS["fine_salt"], "is nothing"),
        ("1/0 cup", SPOONS["fine_salt"], "is not an amount"),
        ("a lot", SPOONS["fine_salt"], "write it like 3 kg, 8 qt"),
        ("9999999 cups", SPOONS["fine_salt"], "over 5 t"),
        ("1,200 g", SPOONS["fine_salt"], "may be 1.200 or 1200"),
    ):
        with pytest.raises(QuantityError, match=said):
            read_measure(typed, spoon)
