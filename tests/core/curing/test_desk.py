"""The cure desk: each school by hand, its cautions and questions, and what rounding must never do."""

from dataclasses import replace
from fractions import Fraction as F
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.curing.cure import PRODUCTS
from dolmetsch.core.curing.curing_cautions import ask, caution, caution_days
from dolmetsch.core.curing.curing_time import _rules, plan_time
from dolmetsch.core.curing.desk import print_agent, weigh_out
from dolmetsch.core.curing.recipe import CuredPiece, Ingredient, MixedBrine, Recipe
from dolmetsch.core.curing.recipe_words import describe_cure
from dolmetsch.core.curing.schools import SCHOOLS, SchoolKey
from dolmetsch.core.curing.usual_dose import usual_dose
from dolmetsch.core.errors import CureError
from dolmetsch.core.ledger.course import COURSES
from dolmetsch.core.numbers.amounts import read_amount
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.reference.agents import AGENTS
from dolmetsch.core.reference.nitrite import NITRITE_LIMITS, NitriteLimit
from dolmetsch.core.reference.spoons import SPOONS

SALT = Ingredient(name="salt", share=F("0.025"))
SUGAR = Ingredient(name="sugar", share=F("0.01"))
NO_1 = AGENTS["no_1"]


def recipe(school="measured", **more):
    wet = {"water": F(1)} if school in ("brine", "inject_cover") else {}
    pumped = {"pump": F("0.1")} if school in ("injection", "inject_cover") else {}
    # a tenth of brine cannot carry 2.5 % of salt and dissolve it
    salted = {"salt": Ingredient(name="salt", share=F("0.02"))} if school == "injection" else {"salt": SALT}
    dosed = {} if "agent_share" in more else {"target_ppm": F(110)}
    answer = {"school": school, "sugar": SUGAR, "agent": NO_1}
    return Recipe(**{**answer, **salted, **dosed, **wet, **pumped, **more})


def piece(grams=2000, **more):
    return CuredPiece(**{"grams": F(grams), "product": "bacon", **more})


def weighed(desk):
    return {line.role: line.grams for line in desk.lines}


def test_a_measured_cure():
    """2 kg at 156 ppm: 4.992 g of no. 1; 50 g salt less the 4.68 g it brings; 20 g sugar; pepper beside."""
    pepper = Ingredient(name="pepper", share=F("0.005"))
    desk = weigh_out(recipe(target_ppm=F(156), extras=(pepper,)), piece(), scale=F("0.1"))
    assert weighed(desk) == {"salt": F("45.32"), "agent": F("4.992"), "sugar": F(20), "extra": F(10)}
    assert (desk.mix.ppm, desk.mix.limit_ppm, desk.salt_low) == (156, 200, F("0.025"))
    # half a tenth on 4.992 g is 1 %: 154.4 to 157.6 ppm, and fit for pieces from 400.6 g on
    assert (round(float(desk.ppm_low), 1), round(float(desk.ppm_high), 1)) == (154.4, 157.6)
    assert round(float(desk.smallest_grams), 1) == 400.6


def test_a_rub_by_spoon_is_turned_into_grams_with_its_spread():
    """On 5 lb: 5 tbsp of dense flake salt is 73.5 g, a teaspoon of curing salt 6 g: 165 ppm ± a tenth."""
    salt = Ingredient(
        name="coarse salt",
        share=read_amount("1 tbsp/lb").share_by(SPOONS["dense_flake"]),
        by_spoon=True,
        spoon=SPOONS["dense_flake"],
    )
    share = read_amount("1 tsp for 5 lb").share_by(SPOONS["curing_salt"])
    rub = recipe(
        "spoon",
        salt=salt,
        sugar=None,
        agent_share=share,
        agent_by_spoon=True,
        agent_spoon=SPOONS["curing_salt"],
    )
    desk = weigh_out(rub, piece(5 * GRAMS_PER_LB))
    assert weighed(desk) == {"salt": F("73.5"), "agent": 6}
    assert round(float(desk.mix.ppm), 1) == 165.3
    assert (round(float(desk.ppm_low)), round(float(desk.ppm_high))) == (149, 182)
    assert desk.salt_low < desk.salt_high


def test_a_salt_box_takes_its_nitrite_rubbed_on_and_does_not_guess_the_salt():
    box = recipe("salt_box", salt=Ingredient(name="salt", share=F(0)), sugar=None, box=F(1))
    desk = weigh_out(box, piece())
    assert weighed(desk) == {"agent": F("3.52"), "box": 2000}
    assert (desk.salt_low, desk.mix.warnings) == (None, ())
    expected = weigh_out(recipe("salt_box", box=F(1), uptake=F("0.035")), piece())
    assert expected.salt_high == F("0.035")


def test_a_sausage_is_salted_by_its_meat_and_judged_as_comminuted():
    """2 kg: 2.7 % salt are 54 g, of which 5 g of no. 1 (0.25 %) bring 4.6875; 312.5 mg of nitrite in 2 kg."""
    salt = Ingredient(name="salt", share=F("0.027"))
    mixed = recipe("sausage", salt=salt, target_ppm=None, agent_share=F("0.0025"))
    desk = weigh_out(mixed, piece(product="comminuted"))
    assert weighed(desk)["agent"] == 5
    assert weighed(desk)["salt"] == 54 - F("4.6875")
    assert (desk.ppm, desk.mix.limit_ppm, desk.is_at_rule, desk.is_over) == (F("156.25"), 156, True, False)
    codes = {one.code for one in caution(mixed, piece(product="comminuted"), desk)}
    assert {"at_rule", "mixed_cold"} <= codes
    assert not codes & {"sausage_salt", "dextrose", "dried_long"}


@pytest.mark.parametrize(
    ("salt", "sugar", "course", "code"),
    [
        ("0.020", "0.01", "cooked", "sausage_salt"),
        ("0.031", "0.01", "cooked", "sausage_salt"),
        ("0.027", "0.001", "air_dried", "dextrose"),
        ("0.027", "0.01", "air_dried", "dried_long"),
    ],
)
def test_what_is_unusual_in_a_sausage_is_said(salt, sugar, course, code):
    mixed = recipe(
        "sausage",
        salt=Ingredient(name="salt", share=F(salt)),
        sugar=Ingredient(name="dextrose", share=F(sugar)),
    )
    meat = piece(product="comminuted", course=course)
    assert code in {one.code for one in caution(mixed, meat, weigh_out(mixed, meat))}
    other = recipe("measured", salt=mixed.salt, sugar=mixed.sugar)
    assert not {"sausage_salt", "dextrose"} & {
        one.code for one in caution(other, meat, weigh_out(other, meat))
    }


def test_what_is_mixed_through_needs_no_days_and_no_thickness():
    time = plan_time("sausage", pounds=4, thickness_mm=80, skin_on=False, is_belly=False)
    assert (time.window.first, time.window.last, time.planned) == (1, 2, 1)
    assert (time.curve, time.asks_thickness) == ((), False)


def test_a_brine_is_judged_by_the_higher_figure_and_salts_evenly():
    desk = weigh_out(recipe("brine"), piece())
    assert desk.brine.grams == desk.mix.brine == sum(weighed(desk).values())
    assert desk.mix.ppm_one_system == 110 == max(desk.mix.ppm_one_system, desk.mix.ppm_pick_up)
    # 2.5 % of meat and water: once even, as much of meat and brine
    assert desk.salt_low == desk.salt_high == 100 / (2000 + desk.mix.brine)


def test_an_injection_makes_what_the_pump_takes_and_a_tenth_more():
    desk = weigh_out(recipe("injection"), piece())
    assert (desk.brine.grams, desk.brine.injector, desk.brine.tub, desk.brine.spare) == (220, 200, 0, 20)
    assert desk.mix.ppm == 110
    # 2 % of the green weight, in meat that weighs a tenth more
    assert desk.salt_low == F("0.02") / F("1.1")


def test_injected_and_covered():
    desk = weigh_out(recipe("inject_cover", water=F("0.8")), piece())
    assert (desk.brine.injector, weighed(desk)["water"]) == (200, 1600)
    assert (desk.brine.tub, desk.brine.spare) == (desk.brine.grams - 200, 0)
    assert desk.mix.limit_name == "bacon, pumped"


def test_ready_mixed_at_the_packets_rate():
    """Complete cure at 25 g on a kilogram: ppm = n × rate × 10³ = 0.005 × 25 × 1000 = 125."""
    rated = recipe("ready_mixed", salt=None, sugar=None, agent=AGENTS["complete"], agent_share=F("0.025"))
    desk = weigh_out(rated, piece(product="whole_muscle"))
    assert (weighed(desk), desk.mix.ppm, desk.mix.warnings) == ({"agent": 50}, 125, ())
    unknown = weigh_out(
        recipe("ready_mixed", salt=None, agent=AGENTS["packet"], agent_share=F("0.025")), piece()
    )
    assert (unknown.mix.ppm, unknown.ppm_high, unknown.salt_low) == (None, None, None)


def test_two_stages_and_no_nitrite():
    later = Ingredient(name="juniper", share=F("0.003"), stage=2)
    staged = weigh_out(recipe("two_stage", extras=(later,)), piece())
    assert [line.name for line in staged.lines if line.stage == 2] == ["juniper"]
    plain = weigh_out(recipe("plain", agent=None, target_ppm=None), piece())
    assert (weighed(plain), plain.mix.ppm) == ({"salt": 50, "sugar": 20}, 0)


def test_nitrited_salt_is_used_as_the_salt():
    weak = replace(AGENTS["weak"], nitrite=F("0.006"))
    desk = weigh_out(recipe(agent=weak, target_ppm=None), piece())
    assert (weighed(desk)["agent"], desk.mix.ppm, "salt" in weighed(desk)) == (50, 150, False)
    brined = weigh_out(recipe("brine", agent=weak, target_ppm=None), piece())
    assert weighed(brined)["agent"] == 100
    with pytest.raises(CureError, match="rubs and brines"):
        weigh_out(recipe("injection", agent=weak, target_ppm=None), piece())


schools = st.sampled_from(["measured", "two_stage", "brine", "injection", "inject_cover"])


@given(schools, st.integers(200, 20_000), st.integers(2, 9))
def test_a_recipe_scales_with_the_piece(school, grams, times):
    one, many = (weigh_out(recipe(school), piece(each)) for each in (grams, grams * times))
    assert [line.grams * times for line in one.lines] == [line.grams for line in many.lines]
    assert one.mix.ppm == many.mix.ppm


@given(schools, st.integers(1, 90), st.integers(1, 90))
def test_more_of_the_agent_is_more_nitrite(school, less, more):
    amounts = [F(each, 10_000) for each in sorted((less, less + more))]
    low, high = (weigh_out(recipe(school, agent_share=share), piece()) for share in amounts)
    assert low.mix.ppm < high.mix.ppm


@given(st.integers(20, 200), st.integers(100, 30_000))
def test_what_is_printed_of_the_agent_never_brings_more_than_was_reckoned(target, grams):
    desk = weigh_out(recipe(target_ppm=F(target)), piece(grams))
    printed = F(print_agent(desk.mix.agent))
    assert printed <= desk.mix.agent
    assert printed * F("0.0625") / grams * 10**6 <= target


def test_a_brine_that_cannot_dissolve_its_salt_is_refused():
    strong = Ingredient(name="salt", share=F("0.16"))
    with pytest.raises(CureError, match="does not dissolve") as refused:
        weigh_out(recipe("brine", salt=strong, water=F("0.6")), piece())
    assert refused.value.field == "salt"
    with pytest.raises(CureError, match="how much water"):
        weigh_out(recipe("brine", water=F(0)), piece())
    with pytest.raises(CureError, match="gain"):
        weigh_out(recipe("injection", pump=None), piece())
    with pytest.raises(CureError, match="known nitrite"):
        weigh_out(recipe("injection", agent=AGENTS["packet"], agent_share=F("0.02")), piece())


def codes(made, of, **more):
    return [one.code for one in caution(made, of, weigh_out(made, of, **more))]


def test_cautions_stand_by_what_they_concern():
    assert codes(recipe(target_ppm=F(200)), piece()) == ["poison"]
    assert codes(recipe(target_ppm=F(201)), piece()) == ["over_limit", "poison"]
    assert codes(recipe(target_ppm=F(199)), piece(), scale=F("0.1")) == ["maybe_over", "poison"]
    assert codes(recipe(target_ppm=F(150)), piece(), scale=F(1)) == ["coarse", "poison"]
    assert codes(recipe(agent=AGENTS["no_2"]), piece()) == ["nitrate_in_bacon", "poison"]
    whole = piece(product="whole_muscle")
    assert codes(recipe(agent=AGENTS["no_2"]), whole) == ["nitrate_too_soon", "under_floor", "poison"]
    dried = piece(product="whole_muscle", course="air_dried")
    assert codes(recipe(agent=AGENTS["no_2"], target_ppm=F(150)), dried) == ["poison"]
    assert codes(recipe(target_ppm=F(150)), dried) == ["dried_long", "poison"]
    bare = recipe("plain", agent=None, target_ppm=None)
    assert codes(bare, piece(course="cold_smoked_raw")) == ["no_nitrite", "plain"]
    assert codes(bare, piece()) == ["plain"]
    packet = recipe("ready_mixed", agent=AGENTS["packet"], agent_share=F("0.02"))
    assert codes(packet, whole) == ["unknown", "poison"]


def share_of(grams, of):
    return F(grams) / F(of)


def by_spoon(grams, of=454, **more):
    """A rub whose curing salt, so many grams on a piece of ``of`` grams, is measured by the spoon."""
    share = share_of(grams, of)
    spoon = {"agent_by_spoon": True, "agent_spoon": SPOONS["curing_salt"]}
    return recipe("spoon", agent_share=share, **spoon, **more)


def test_spoons_of_curing_salt_are_rounded_down_and_the_gauge_speaks_of_what_they_hold():
    """2.6 g wanted on 1 kg: a quarter teaspoon holds 1.5 g, so 93.75 ppm go on, not 162.5."""
    desk = weigh_out(by_spoon("2.6", 1000), piece(1000))
    assert (desk.spoons.teaspoons, desk.spoons.grams, desk.spoons.wanted) == (F(1, 4), F("1.5"), F("2.6"))
    assert weighed(desk)["agent"] == F("1.5")
    assert (desk.ppm, desk.mix.ppm) == (F("93.75"), F("93.75"))
    assert (desk.ppm_low, desk.ppm_high) == (F("84.375"), F("103.125"))
    assert "spoon_short" in codes(by_spoon("2.6", 1000), piece(1000))
    # just under 3 g is still a quarter; from 3 g on a half
    assert weigh_out(by_spoon("2.99", 1000), piece(1000)).spoons.teaspoons == F(1, 4)
    assert weigh_out(by_spoon("3", 1000), piece(1000)).spoons.teaspoons == F(1, 2)
    assert "spoon_short" not in codes(by_spoon("3", 1000), piece(1000))


def test_a_smallest_spoon_that_holds_too_much_is_said_with_the_piece_it_fits():
    """0.79 g on 316 g is 156 ppm; a quarter teaspoon would be 1.5 g, 297 ppm: it fits pieces from 600 g
    on.
    """
    desk = weigh_out(by_spoon("0.79", 316), piece(316))
    assert desk.spoons.is_too_coarse
    assert weighed(desk)["agent"] == F("0.79")
    assert desk.spoons.fits_from_grams == 600
    # between nothing and a level quarter teaspoon, a tenth either way
    assert desk.ppm_low == 0
    assert desk.ppm_high == F("0.0625") * F("1.65") / 316 * 10**6
    said = {one.code: one.message for one in caution(by_spoon("0.79", 316), piece(316), desk)}
    assert "Good enough" not in said["spoon_coarse"]
    assert "1.3 lb (0.6 kg) or more" in said["spoon_coarse"]
    assert "maybe_over" in said


def test_nitrited_salt_by_the_spoon_has_the_spread_of_spoons():
    weak = replace(AGENTS["weak"], nitrite=F("0.006"))
    salt = Ingredient(name="salt", share=F("0.033"), by_spoon=True, spoon=SPOONS["fine_salt"])
    rub = recipe("spoon", agent=weak, target_ppm=None, salt=salt, agent_by_spoon=True, agent_spoon=salt.spoon)
    desk = weigh_out(rub, piece())
    # 66 g are 11 teaspoons of 6 g: 198 ppm, and up to 217.8
    assert (desk.ppm, desk.ppm_high) == (198, F("217.8"))
    assert "maybe_over" in codes(rub, piece())


def test_too_little_nitrite_is_judged_by_what_is_really_brought():
    cold, dried = piece(course="cold_smoked_raw"), piece(course="air_dried")
    stay = caution(recipe(), piece(is_kept_warm=True), weigh_out(recipe(), piece()))
    assert [one.source for one in stay if one.code == "kept_warm"] == ["danger zone 40 to 140 °F (USDA)"]
    warm = piece(is_kept_warm=True)
    labelled_none = replace(NO_1, nitrite=F(0))
    for made in (
        recipe(target_ppm=F(0)),
        recipe(target_ppm=F(10)),
        recipe(agent=labelled_none, agent_share=F("0.0025")),
        recipe("plain", agent=None, target_ppm=None),
        recipe("two_stage", agent=None, target_ppm=None),
    ):
        for of in (cold, dried, warm):
            assert "no_nitrite" in codes(made, of), (made, of)
        # all that apply are said: of what it is to be, of the warm rest, and of the danger zone
        both = piece(course="air_dried", is_kept_warm=True)
        said = [one.message for one in caution(made, both, weigh_out(made, both))][:3]
        assert [text.split(" with ")[0] for text in said[:2]] == [
            "It is to be air-dried",
            "It is to be kept warm",
        ]
        assert "danger zone" in said[2]
        assert "no_nitrite" not in codes(made, piece())
    for ppm, expected in ((99, True), (100, False)):
        assert ("no_nitrite" in codes(recipe(target_ppm=F(ppm)), cold)) is expected
    packet = recipe("ready_mixed", agent=AGENTS["packet"], agent_share=F("0.02"))
    assert codes(packet, cold) == ["unknown", "unknown_nitrite", "poison"]
    assert "unknown_nitrite" not in codes(packet, piece())


def test_salt_among_the_extras_is_salt_and_curing_salt_there_is_asked_about():
    """21 g of sea salt beside 2.5 % of 2 kg: 3.55 % in the meat; in a brine less."""
    sea = Ingredient(name="sea salt", share=F("0.0105"))
    spooned = Ingredient(name="crystals", share=F("0.0105"), spoon=SPOONS["sea_salt"])
    pepper = Ingredient(name="salted pepper", share=F("0.01"))
    for extra, more in ((sea, F("0.0105")), (spooned, F("0.0105")), (pepper, 0)):
        desk = weigh_out(recipe(extras=(extra,)), piece())
        assert desk.salt_low == weigh_out(recipe(), piece()).salt_low + more
        assert not [one for one in ask(recipe(extras=(extra,)), piece()) if one.subject == "extras"]
    brine = recipe("brine", water=F(1))
    mix = weigh_out(brine, piece())
    salted = weigh_out(replace(brine, extras=(sea,)), piece())
    assert salted.salt_low - mix.salt_low == F(21) / (2000 + mix.mix.brine)
    for name in ("pink salt", "Curing salt no. 1", "Prague cure"):
        (asked,) = ask(recipe(extras=(Ingredient(name=name, share=F("0.001")),)), piece())
        assert (asked.subject, name in asked.message) == ("extras", True)


def test_a_school_without_a_rule_of_its_own_has_no_days(monkeypatch):
    crust = replace(SCHOOLS["plain"], key="salt_crust", time="crust")
    with pytest.raises(KeyError, match="salt_crust"):
        _rules("salt_crust", pounds=5.0, thickness_mm=None, skin_on=False, is_belly=True)
    monkeypatch.setitem(SCHOOLS, "salt_crust", crust)
    with pytest.raises(AssertionError, match="crust"):
        _rules("salt_crust", pounds=5.0, thickness_mm=None, skin_on=False, is_belly=True)


@pytest.mark.parametrize(
    ("school", "product", "skin_on", "course", "dose"),
    [
        ("measured", "bacon", False, None, ("no_1", "150", "")),
        ("measured", "bacon", True, "cooked", ("no_1", "150", "")),
        # under the limit of 120, and of 108 with the skin on, in tens
        ("brine", "bacon", False, "cooked", ("no_1", "110", "")),
        ("injection", "bacon", True, "cooked", ("no_1", "100", "")),
        # whole muscle is not begun under its own floor of 120
        ("brine", "whole_muscle", False, "cooked", ("no_1", "150", "")),
        ("inject_cover", "whole_muscle", True, None, ("no_1", "150", "")),
        # what hangs for weeks needs the nitrate, and nothing else has time for it
        ("measured", "whole_muscle", False, "air_dried", ("no_2", "150", "")),
        ("two_stage", "whole_muscle", False, "air_dried", ("no_2", "150", "")),
        ("two_stage", "whole_muscle", False, None, ("no_1", "150", "")),
        ("two_stage", "whole_muscle", False, "cooked", ("no_1", "150", "")),
        ("sausage", "comminuted", False, "fermented_dried", ("no_2", "", "0.25 %")),
        ("ready_mixed", "bacon", False, "air_dried", ("complete", "", "25 g for 1 kg")),
        ("plain", "bacon", False, None, ("none", "", "")),
    ],
)
def test_a_recipe_begins_with_the_usual_curing_salt(school, product, skin_on, course, dose):
    found = usual_dose(school, product=product, skin_on=skin_on, course=course)
    assert (found.agent, found.target, found.agent_amount) == dose


def test_a_stricter_limit_of_ones_own_lowers_the_usual_dose():
    own = {key: replace(limit, ppm=F(120)) for key, limit in NITRITE_LIMITS.items()}
    assert usual_dose("measured", product="bacon", skin_on=False, course=None, limits=own).target == "110"


@pytest.mark.parametrize("school", list(SCHOOLS))
@pytest.mark.parametrize("course", [None, *COURSES])
@pytest.mark.parametrize("product", PRODUCTS)
@pytest.mark.parametrize("skin_on", [False, True])
def test_no_recipe_begins_with_what_the_desk_warns_of(school, course, product, skin_on):
    """By its curing salt: neither over a limit, under a floor, nor of the wrong number."""
    dose, begins = usual_dose(school, product=product, skin_on=skin_on, course=course), SCHOOLS[school].begins
    if not dose.target:
        return
    percent = {"water": begins.water, "pump": begins.pump, "box": begins.box}
    shares = {name: F(text.removesuffix(" %")) / 100 for name, text in percent.items() if text}
    made = recipe(school, agent=AGENTS[dose.agent], target_ppm=F(dose.target), **shares)
    laid = piece(product=product, skin_on=skin_on, course=course)
    said = {one.code for one in caution(made, laid, weigh_out(made, laid))}
    assert "poison" in said
    limits = {"over_limit", "at_rule", "maybe_over", "under_floor"}
    assert not said & (limits | {"nitrate_in_bacon", "nitrate_too_soon", "dried_long", "no_nitrite"})


def test_one_advice_for_a_dried_belly():
    dried = piece(course="air_dried")
    assert codes(recipe(target_ppm=F(150)), dried) == ["dried_long", "poison"]
    assert codes(recipe(agent=AGENTS["no_2"], target_ppm=F(150)), dried) == ["poison"]
    assert codes(recipe(agent=AGENTS["no_2"]), piece()) == ["nitrate_in_bacon", "poison"]


def test_what_the_piece_carries_from_an_earlier_cure_is_added():
    again = piece(carried_ppm=F(150))
    desk = weigh_out(recipe(target_ppm=F(100)), again, scale=F("0.1"))
    assert (desk.ppm, desk.mix.ppm, desk.is_over) == (250, 100, True)
    # the scale's error is of what is weighed now: half a tenth on 3.2 g
    assert desk.ppm_high - 250 == 100 * F("0.05") / F("3.2")
    assert {"over_limit", "carried"} <= set(codes(recipe(target_ppm=F(100)), again))
    unknown = piece(carried_ppm=None)
    assert weigh_out(recipe(), unknown).ppm is None
    assert codes(recipe(), unknown) == ["unknown", "carried", "poison"]
    bare = recipe("plain", agent=None, target_ppm=None)
    assert codes(bare, piece(course="cold_smoked_raw", carried_ppm=F(150))) == ["carried"]


def test_a_limit_of_156_is_a_rule_of_156_and_a_quarter():
    sausage = piece(product="comminuted")
    at_rule = recipe(agent_share=F("0.0025"))
    desk = weigh_out(at_rule, sausage)
    assert (desk.ppm, desk.is_at_rule, desk.is_over, desk.mix.over_limit) == (F("156.25"), True, False, True)
    said = {one.code: one.message for one in caution(at_rule, sausage, desk)}
    assert said["at_rule"].startswith("156.25 ppm beside a limit printed as 156 ppm")
    assert "over_limit" not in said
    over = recipe(agent_share=F("0.0025001"))
    assert weigh_out(over, sausage).is_over
    assert "156.26 ppm" not in said["at_rule"]
    own = {**NITRITE_LIMITS, ("comminuted", "dry", False): NitriteLimit(ppm=F(156), name="x", source="here")}
    assert weigh_out(at_rule, sausage, limits=own).is_over


def test_figures_over_a_limit_are_printed_with_the_places_it_takes():
    slightly = recipe(target_ppm=F("200.04"))
    (over, _) = caution(slightly, piece(), weigh_out(slightly, piece()))
    assert over.message.startswith("200.04 ppm of nitrite is over the limit of 200 ppm")


def test_the_center_and_an_unmeasured_thickness_are_said():
    thick = piece(thickness_mm=76.2, product="whole_muscle")
    time = plan_time("spoon", pounds=2, thickness_mm=76.2, skin_on=False, is_belly=False)
    (center,) = caution_days(thick, time, 4)
    assert "On day 4 the center has about 1 %" in center.message
    assert "takes about 50 days" in center.message
    assert caution_days(thick, time, 60) == []
    blind = plan_time("spoon", pounds=2, thickness_mm=None, skin_on=False, is_belly=False)
    assert [one.code for one in caution_days(piece(), blind, 4)] == ["no_thickness"]
    pumped = plan_time("injection", pounds=2, thickness_mm=None, skin_on=False, is_belly=False)
    assert caution_days(piece(), pumped, 2) == []


def test_a_brine_as_it_was_mixed_says_what_it_brings():
    """8 qt of water (7570.8 g), 400 g of salt, 30 g of no. 1 over 4 kg: one system 1.875 g on 12.0 kg, 156
    ppm.
    """
    mixed = MixedBrine(water=F("7570.8"), salt=F(400), sugar=F(0), agent=F(30))
    brine = Recipe(school="brine", salt=Ingredient(name="salt", share=F(0)), agent=NO_1, mixed=mixed)
    desk = weigh_out(brine, piece(4000))
    assert weighed(desk) == {"water": F("7570.8"), "salt": 400, "agent": 30}
    assert desk.brine.grams == F("8000.8")
    assert desk.mix.ppm_one_system == F(30) * F("0.0625") * 10**6 / (4000 + F("8000.8"))
    assert (desk.ppm_low, ask(brine, piece(4000))) == (None, [])
    spooned = Recipe(school="brine", salt=brine.salt, agent=NO_1, mixed=replace(mixed, by_volume=True))
    assert weigh_out(spooned, piece(4000)).ppm_high == desk.ppm * F("1.1")
    bare = Recipe(school="brine", salt=brine.salt, mixed=replace(mixed, agent=F(0)))
    assert weigh_out(bare, piece(4000)).ppm == 0


def test_what_is_more_likely_a_slip_is_asked():
    def asked(made, of=None):
        return [one.subject for one in ask(made, of or piece())]

    assert asked(recipe()) == []
    assert asked(recipe(salt=Ingredient(name="salt", share=F("0.00025")))) == ["salt"]
    assert asked(recipe(salt=Ingredient(name="salt", share=F("0.48")))) == ["salt"]
    for school in ("brine", "injection", "inject_cover", "two_stage", "plain"):
        slip = recipe(school, salt=Ingredient(name="salt", share=F("0.00025")))
        assert ("salt" in asked(slip), school) == (True, school)
    assert asked(recipe("brine", salt=Ingredient(name="salt", share=F("0.12")))) == []
    assert asked(recipe(agent_share=F("0.025"))) == ["agent_amount"]
    assert asked(recipe("injection", pump=F("0.35"))) == ["pump"]
    assert asked(recipe("injection", pump=F("0.3"))) == []
    assert asked(recipe(), piece(kinds=frozenset({"cure", "smoke"}))) == ["piece"]
    rated = {"school": "ready_mixed", "salt": None, "agent": AGENTS["complete"]}
    # what has its salt elsewhere is not asked for none; what has none at all is
    box = recipe("salt_box", salt=Ingredient(name="salt", share=F(0)), box=F(1))
    assert asked(box) == []
    assert (
        asked(recipe(**{**rated, "salt": Ingredient(name="salt", share=F(0))}, agent_share=F("0.02"))) == []
    )
    (bare,) = ask(recipe(salt=Ingredient(name="salt", share=F(0))), piece())
    assert bare.message.startswith("No salt at all")
    # 30 typed for a packet's rate is 30 %, where 30 g for a kilogram was meant
    (slip,) = ask(recipe(**rated, agent_share=F("0.3")), piece(907))
    assert "30 % is 272.1 g for this piece. Did you mean 3 % (30 g for each kilogram)?" in slip.message
    assert asked(recipe(**rated, agent_share=F("0.1"))) == []


def test_a_kitchens_own_limit_stands_in_place_of_the_table():
    own = {
        **NITRITE_LIMITS,
        ("bacon", "dry", False): NitriteLimit(ppm=F(120), name="bacon, dry rub", source="here"),
    }
    mix = weigh_out(recipe(target_ppm=F(150)), piece(), limits=own).mix
    assert (mix.over_limit, mix.limit_ppm, mix.limit_source) == (True, 120, "here")


def test_every_school_says_how_and_what_of_going_over():
    assert list(SCHOOLS) == list(get_args(SchoolKey))
    for school in SCHOOLS.values():
        assert len({school.how, school.inside, school.over, school.label}) == 4


def test_a_recipe_in_a_few_words_counts_the_salt_of_the_curing_salt():
    """110 ppm of no. 1 at 6.25 % is 1.76 g on a kilogram; 1.65 g of it is salt, of the 25 g wanted."""
    assert describe_cure(recipe()) == "110 ppm nitrite, 2.5 % salt, 1 % sugar"
    assert describe_cure(recipe(agent=None, target_ppm=None)) == "no nitrite, 2.5 % salt, 1 % sugar"
    packet = AGENTS["packet"]
    unknown = recipe("ready_mixed", agent=packet, target_ppm=None, agent_share=F("0.03"), salt=None)
    assert describe_cure(unknown).startswith("nitrite not known, ")


def test_a_second_stage_is_of_two_stages_or_of_late_spices():
    late = Ingredient(name="pepper", share=F("0.005"), stage=2)
    assert recipe("two_stage").has_second_stage
    assert recipe("brine", extras=(late,)).has_second_stage
    assert not recipe("brine", extras=(replace(late, stage=1),)).has_second_stage


def test_the_limits_are_those_of_the_table():
    """9 CFR 424.21(c) and 424.22(b): bacon with its skin 10 % less, comminuted meat alike by any method."""
    by_method = {
        ("bacon", False): (200, 120, 120),
        ("bacon", True): (180, 108, 108),
        ("whole_muscle", False): (625, 200, 200),
        ("comminuted", False): (156, 156, 156),
    }
    expected = {
        (product, method, skin): ppm
        for (product, skin), row in by_method.items()
        for method, ppm in zip(("dry", "brine", "pump"), row, strict=True)
    }
    assert {key: limit.ppm for key, limit in NITRITE_LIMITS.items()} == expected
