"""Cures: what to weigh out and what it brings, by the four methods."""

import json
from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.curing.cure import MILLION, Cure, mix_cure
from dolmetsch.core.documents.answers import answer_cure
from dolmetsch.core.errors import CureError, DolmetschError


def cure(method, **more):
    wet = {} if method == "dry" else {"water": F(3000)}
    pumped = {"pump": F("0.1")} if "pump" in method else {}
    return Cure(**{"method": method, "meat": F(2000), "nitrite": F("0.0625"), **wet, **pumped, **more})


def test_a_dry_rub_by_hand():
    """2 kg, 2.5 % salt, 1 % sugar, 156 ppm: 4.992 g of no. 1, 50 − 4.68 g salt, 20 g sugar."""
    mix = mix_cure(cure("dry", target_ppm=F(156), salt=F("0.025"), sugar=F("0.01"), product="bacon"))
    assert (mix.agent, mix.salt, mix.sugar) == (F("4.992"), F("45.32"), 20)
    assert (mix.ppm, mix.over_limit, mix.brine) == (156, False, None)


def test_a_brine_shows_both_methods_and_judges_by_the_higher():
    mix = mix_cure(cure("brine", agent_amount=F(20), salt=F("0.03"), pick_up=F("0.12")))
    assert mix.salt == 150 - 20 * F("0.9375")
    assert mix.brine == 3000 + 20 + mix.salt
    assert mix.ppm_pick_up == F("1.25") / mix.brine * F("0.12") * MILLION
    assert mix.ppm_one_system == F("1.25") / (2000 + mix.brine) * MILLION
    assert mix.ppm == max(mix.ppm_pick_up, mix.ppm_one_system)


def test_a_pumped_brine_brings_what_is_wanted_into_the_green_weight():
    mix = mix_cure(cure("pump", target_ppm=F(120), salt=F("0.02"), sugar=F("0.005")))
    taken_in = F(2000) / mix.brine * F("0.1")
    assert (mix.salt + mix.agent * F("0.9375")) * taken_in == F("0.02") * 2000
    assert mix.sugar * taken_in == F("0.005") * 2000
    assert (mix.ppm, mix.pump) == (120, 200)


methods = st.sampled_from(["dry", "brine", "pump", "pump_and_brine"])
shares = st.integers(0, 40).map(lambda n: F(n, 1000))


@given(methods, shares, shares, st.integers(1, 200), st.sampled_from([F(0), F("0.04")]))
def test_a_target_is_met_and_the_amount_leads_back_to_it(method, salt, sugar, target, nitrate):
    wanted = cure(method, target_ppm=F(target), salt=salt, sugar=sugar, nitrate=nitrate)
    mix = mix_cure(wanted)
    assert (mix.ppm_one_system if method == "brine" else mix.ppm) == target
    again = mix_cure(cure(method, agent_amount=mix.agent, salt=salt, sugar=sugar, nitrate=nitrate))
    assert (again.agent, again.salt, again.sugar, again.ppm) == (mix.agent, mix.salt, mix.sugar, mix.ppm)
    if mix.brine is not None:
        assert mix.brine == 3000 + mix.agent + mix.salt + mix.sugar


@pytest.mark.parametrize(
    ("product", "method", "skin_on", "limit"),
    [
        ("bacon", "dry", False, 200),
        ("bacon", "dry", True, 180),
        ("bacon", "pump_and_brine", True, 108),
        ("bacon", "brine", False, 120),
        ("whole_muscle", "dry", True, 625),
        ("whole_muscle", "pump", False, 200),
        ("comminuted", "dry", False, 156),
    ],
)
def test_limits_by_product_and_method(product, method, skin_on, limit):
    mix = mix_cure(cure(method, agent_amount=F(5), product=product, skin_on=skin_on))
    assert mix.limit_ppm == limit
    assert "9 CFR" in mix.limit_source


def test_at_the_limit_is_not_over():
    at = mix_cure(cure("dry", target_ppm=F(200), product="bacon"))
    over = mix_cure(cure("dry", target_ppm=F("200.001"), product="bacon"))
    assert (at.over_limit, over.over_limit) == (False, True)


@pytest.mark.parametrize(
    ("wanted", "word"),
    [
        (cure("dry", agent_amount=F(60), salt=F("0.02")), "more salt than wanted"),
        (cure("dry", agent_amount=F(60), salt=F("0.1"), product="bacon"), "over the limit of 200 ppm"),
        (cure("dry", agent_amount=F(3), salt=F("0.02"), scale=F(1)), "17 % off"),
        (cure("dry", agent_amount=F(3), salt=F("0.02"), nitrate=F("0.04"), product="bacon"), "nitrate"),
        (cure("dry", agent_amount=F(3), salt=F("0.02"), nitrite=None), "not known"),
        (cure("brine", target_ppm=F(60), salt=F("0.02"), pick_up=F("0.9")), "by the other method"),
    ],
)
def test_each_warning_is_given_alone(wanted, word):
    (found,) = mix_cure(wanted).warnings
    assert word in found.message


@pytest.mark.parametrize("method", ["dry", "brine", "pump", "pump_and_brine"])
def test_where_the_agent_brings_too_much_salt_none_is_added_and_the_target_still_met(method):
    mix = mix_cure(cure(method, target_ppm=F(150), salt=F(0), sugar=F("0.01")))
    assert mix.salt == 0
    assert (mix.ppm_one_system if method == "brine" else mix.ppm) == 150


@pytest.mark.parametrize(
    ("wanted", "field"),
    [
        (cure("dry"), "target_ppm"),
        (cure("dry", target_ppm=F(1), agent_amount=F(1)), "target_ppm"),
        (cure("dry", target_ppm=F(1), nitrite=None), "agent.nitrite"),
        (cure("dry", target_ppm=F(1), nitrite=F(0)), "agent.nitrite"),
        (cure("dry", agent_amount=F(1), nitrate=F("0.99")), "agent"),
        (cure("pump", agent_amount=F(1), water=F(100)), "pump"),
        (cure("pump", agent_amount=F(1), salt=F("0.08"), sugar=F("0.03")), "salt"),
        (cure("brine", target_ppm=F(70_000)), "target_ppm"),
        (cure("brine", agent_amount=F(1), water=F(0)), "water"),
        (cure("pump", agent_amount=F(1), pump=None), "pump"),
    ],
)
def test_what_cannot_be_mixed_is_refused(wanted, field):
    with pytest.raises(CureError) as refused:
        mix_cure(wanted)
    assert refused.value.field == field


@pytest.mark.parametrize(
    ("change", "message"),
    [
        ({"method": "soak"}, "method: “soak” is none of"),
        ({"meat": "0 g"}, "meat: “0 g” weighs nothing"),
        ({"agent": {"nitrite": "1.5"}}, "agent.nitrite: “1.5” is more than 1"),
        ({"method": "brine"}, "water: is missing"),
        ({"method": "pump", "water": "1 kg", "pump": "0"}, "pump: “0” must be above zero"),
        ({"target_ppm": "-3"}, "target_ppm: “-3” is not a plain number"),
        ({"target_ppm": 120}, "target_ppm: the number 120 is not text"),
        ({"skin_on": "yes"}, "skin_on"),
        ({"format": None}, "format: is missing"),
    ],
)
def test_documents_are_refused_with_their_place(change, message):
    document = {
        "format": "dolmetsch-cure/1",
        "method": "dry",
        "meat": "2 kg",
        "agent": {"nitrite": "0.0625"},
        "target_ppm": "120",
        "scale": "0.1 g",
    }
    with pytest.raises(DolmetschError) as refused:
        answer_cure(json.dumps({**document, **change}))
    assert message in str(refused.value)
