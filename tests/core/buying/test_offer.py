"""Offers carried to the sliced pound: worked by hand, and what must hold whatever the tag says."""

import random
from dataclasses import replace
from fractions import Fraction as F
from math import exp, floor, log, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.buying.offer import (
    LB,
    Offer,
    Plan,
    ShopKind,
    ask_basis,
    assess,
    fry_estimate,
    judge_chance,
    rank,
)
from dolmetsch.core.forecast.outlook import Estimate, Start, carry
from dolmetsch.core.forecast.way import Way, WayStep, WayUse, cost_step, plain_method, plain_way
from dolmetsch.core.forecast.yields import RANGE_80, believe, tally
from dolmetsch.core.ledger.batch import Policy, Portion
from dolmetsch.core.meat.cuts import read_cut, usual_product
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.quantity import Price, read_price
from dolmetsch.core.reference.yields import START_FRY

near = pytest.approx
STEPS = ("trim", "dry_cure", "rest", "hot_smoke", "chill", "slice")
BARE = Way(name="bare", steps=tuple(WayStep(method=one) for one in STEPS))
FREE = Policy(labour_rate=None)
WAGE = Policy(labour_rate=F(18))
FRY = Estimate(middle=0.42, log_deviation=0.1)
PLAN = Plan(grams=F(20) * GRAMS_PER_LB, portions=None, fry=FRY)
GOOD = ShopKind(name="good", price=7.2 / LB, fry=FRY)
JOWL = read_cut("jowl, skin on")
SALT = WayUse(what="salt", group="cure", amount=F(25), per="kg", price=read_price("1.20/kg"))
PELLETS = WayUse(
    what="pellets", group="fuel", amount=6 * GRAMS_PER_LB, per="batch", price=read_price("0.90/lb")
)
FULL = Way(
    name="full",
    steps=(
        WayStep(method="trim", batch_minutes=F(10), kilo_minutes=F(2), worth=read_price("1.10/lb")),
        WayStep(method="dry_cure", used=(SALT,), batch_minutes=F(20), days=7),
        WayStep(method="hot_smoke", used=(PELLETS,), batch_minutes=F(30), days=1),
        WayStep(method="slice", kilo_minutes=F(4), worth=read_price("3.00/lb")),
    ),
    portion=Portion(slices=F(3)),
    slice_grams=F(25),
)


def offer(tag="2.85", cut=JOWL, **more):
    return Offer(cut=cut, price=F(tag) / GRAMS_PER_LB, **more)


def check(data, way=BARE, *, policy=FREE, plan=PLAN, against=GOOD, history=None):
    return assess(data, way, history=history or {}, policy=policy, plan=plan, against=against)


def test_a_bare_way_divides_the_tag_by_the_yields():
    found = check(offer())
    kept = 0.88 * 0.95 * 0.99 * 0.86 * 0.985 * 0.87
    assert found.outlook.price.middle * LB == near(2.85 / kept)
    spread = [0.05 / 0.88, 0.02 / 0.95, 0.005 / 0.99, 0.03 / 0.86, 0.007 / 0.985, 0.05 / 0.87]
    assert found.outlook.price.log_deviation == near(sqrt(sum(one * one for one in spread)), rel=1e-6)
    assert found.outlook.price.low == near(
        found.outlook.price.middle * exp(-RANGE_80 * found.outlook.price.log_deviation)
    )
    assert float(found.worth_up_to) == near(7.2 * kept, abs=0.01)
    assert found.verdict == "buy"
    assert found.hourly is None
    assert found.cooked.middle == near(found.outlook.price.middle / 0.42)


@pytest.mark.parametrize("cents", [701, 713, 720, 734, 749])
def test_what_it_is_worth_is_rounded_down_to_the_cent(cents):
    """Half a cent too much, and the sliced pound would cost more than the shop's."""
    kept = 0.88 * 0.95 * 0.99 * 0.86 * 0.985 * 0.87
    found = check(offer(), against=replace(GOOD, price=cents / 100 / LB))
    assert found.worth_up_to == F(floor(cents * kept), 100)


def test_a_full_way_by_hand():
    found = check(offer(), FULL, policy=WAGE)
    bought = 20 * LB
    trimmed = bought * 0.88
    cured = trimmed * 0.95
    smoked = cured * 0.86
    sliced = smoked * 0.87
    wage = 18 / 60
    minutes = 10 + 2 * bought / 1000 + 20 + 30 + 4 * smoked / 1000
    cost = (
        57.0
        - (bought - trimmed) * 1.10 / LB
        + trimmed * 0.025 * 1.2 / 1000
        + 6 * 0.90
        - (smoked - sliced) * 3.00 / LB
        + minutes * wage
    )
    assert found.outlook.minutes == near(minutes)
    assert found.outlook.labour == near(minutes * wage)
    assert found.outlook.cost == near(cost)
    assert found.outlook.price.middle == near(cost / sliced)
    assert found.portion.middle == near(75 * cost / sliced)
    gained = GOOD.price * sliced - (cost - minutes * wage)
    assert found.hourly == near(gained / (minutes / 60))
    # at the highest tag worth paying, rounded down to the cent, the sliced pound costs what the shop asks
    at_worth = check(offer(str(found.worth_up_to)), FULL, policy=WAGE)
    assert at_worth.outlook.price.middle <= GOOD.price
    dearer = check(offer(str(found.worth_up_to + F(1, 100))), FULL, policy=WAGE)
    assert dearer.outlook.price.middle > GOOD.price


def test_how_much_to_buy_suffices_nine_times_in_ten():
    plan = Plan(grams=F(1), portions=60, fry=FRY)
    found = check(offer(pack_grams=12 * GRAMS_PER_LB), FULL, plan=plan)
    needed = 60 * 75
    kept = Estimate(
        middle=0.88 * 0.95 * 0.86 * 0.87,
        log_deviation=sqrt(sum(belief.log_deviation**2 for belief in found.beliefs)),
    )
    assert found.amount.packs == 2
    assert found.amount.packs * 12 * LB * kept.low >= needed > (found.amount.packs - 1) * 12 * LB * kept.low
    assert found.amount.left_grams == near(24 * LB * kept.middle - needed)
    assert found.amount.left_portions == near(found.amount.left_grams / 75)
    by_weight = check(offer(), FULL, plan=plan)
    assert by_weight.amount.packs is None
    assert by_weight.amount.grams * kept.low == near(needed)
    assert check(offer(), BARE, plan=plan).amount is None


@pytest.mark.parametrize(
    ("portion", "grams"),
    [
        (Portion(grams=F(60)), 60),
        (Portion(cooked_grams=F(42)), 100),
        (Portion(slices=F(2)), None),
        (None, None),
    ],
)
def test_portions_by_weight_raw_and_cooked(portion, grams):
    way = Way(name="x", steps=BARE.steps, portion=portion)
    found = check(offer(), way, plan=Plan(grams=F(1000), portions=10, fry=FRY))
    assert (found.amount is None) == (grams is None)
    if grams:
        assert found.portion.middle == near(found.outlook.price.middle * grams)


tags = st.decimals("0.05", "20", places=2).map(F)
waters = st.decimals("0", "0.4", places=2).map(F)


@given(tags, waters, waters)
def test_more_solution_never_makes_meat_cheaper(tag, one, other):
    less, more = sorted((one, other))
    dry = check(offer(tag, solution=less), FULL, policy=WAGE)
    wet = check(offer(tag, solution=more), FULL, policy=WAGE)
    assert wet.offer.meat_price >= dry.offer.meat_price
    assert wet.outlook.price.middle >= dry.outlook.price.middle * (1 - 1e-12)
    assert wet.worth_up_to <= dry.worth_up_to


@given(st.lists(st.tuples(tags, waters), min_size=2, max_size=8), tags)
def test_a_lower_tag_never_ranks_worse(offers, cut):
    made = [check(offer(tag, solution=water)) for tag, water in offers]
    at = rank(made).index(0)
    cheaper = check(offer(min(cut, offers[0][0]), solution=offers[0][1]))
    assert rank([cheaper, *made[1:]]).index(0) <= at


@given(st.integers(1, len(STEPS)))
def test_ranges_widen_with_steps(count):
    answer = [
        check(offer(), Way(name="x", steps=BARE.steps[:upto])).outlook.price for upto in (count - 1, count)
    ]
    assert answer[1].log_deviation > answer[0].log_deviation
    milestones = check(offer()).outlook.milestones
    spreads = [one.price.log_deviation for one in milestones]
    assert spreads == sorted(spreads)


def test_credits_never_take_more_than_there_is():
    rich = Way(name="rich", steps=(WayStep(method="trim", worth=read_price("500.00/lb")),))
    found = check(offer(), rich)
    assert found.outlook.cost == 0
    assert found.outlook.price.middle == 0
    assert found.outlook.price.chance_below(GOOD.price) == 1
    none = check(offer(), rich, policy=Policy(credit_by_products=False))
    assert none.outlook.cost == near(57.0)


@pytest.mark.parametrize(
    ("chance", "verdict"),
    [
        (1, "buy"),
        (0.75, "buy"),
        (0.74, "too_close"),
        (0.26, "too_close"),
        (0.25, "walk_past"),
        (0, "walk_past"),
    ],
)
def test_the_verdict_is_three_in_four(chance, verdict):
    assert judge_chance(chance) == verdict


@pytest.mark.parametrize(
    ("each", "pack", "is_pack_price", "asked"),
    [
        ("34.20", "12", False, "is_pack"),
        ("2.85", "12", False, None),
        ("34.20", None, False, None),
        ("90", "2", False, None),
        ("0.24", "12", True, "is_each"),
        ("2.85", "12", True, None),
        ("0.01", "12", True, None),
    ],
)
def test_a_price_on_the_wrong_basis_is_asked_about(each, pack, is_pack_price, asked):
    found = ask_basis(each=F(each), pack=pack and F(pack), is_pack_price=is_pack_price, usual=F("2.90"))
    assert found == asked


@pytest.mark.parametrize(
    ("message", "word"),
    [
        ({"cut": read_cut("breast of lamb")}, "No start value for this cut"),
        ({"cut": read_cut("shoulder, boneless")}, "bone-in shoulder"),
        ({"cut": read_cut("belly, skinless, trimmed")}, "whole piece"),
        ({}, "No batch of this cut"),
    ],
)
def test_doubts_are_said(message, word):
    assert any(word in doubt.message for doubt in check(offer(**message)).doubts)


def test_enhanced_meat_is_warned_about_whatever_its_price():
    for answer in ({"solution": F(12, 100)}, {"is_enhanced": True}):
        assert "Enhanced meat is better not cured" in check(offer(**answer)).warning
    assert check(offer()).warning == ""


def test_there_is_enough_nine_times_in_ten_for_portions_of_a_cooked_weight_too():
    """Drawn by the model: what is bought for 40 cooked portions suffices in about nine of ten kitchens."""
    way = Way(name="x", steps=BARE.steps, portion=Portion(cooked_grams=F(30)))
    plan = Plan(grams=F(1), portions=40, fry=fry_estimate(START_FRY["house"], []))
    found = check(offer(pack_grams=None), way, plan=plan)
    draw = random.Random(7)
    enough = 0
    for _ in range(4000):
        kept = sum(draw.gauss(one.log_mean, one.log_deviation) for one in found.beliefs)
        fried = draw.gauss(log(plan.fry.middle), plan.fry.log_deviation)
        enough += found.amount.grams * exp(kept + fried) >= 40 * 30
    assert 0.88 < enough / 4000 < 0.92


def test_a_cut_known_from_own_batches_raises_no_doubt():
    history = {method: {JOWL.key: tally([0.9, 0.91])} for method in STEPS}
    assert check(offer(), history=history).doubts == ()
    pulled = Way(name="x", steps=(WayStep(method="pulled"),))
    assert any("long cooks" in doubt.message for doubt in check(offer(), pulled).doubts)


def test_no_shop_no_verdict():
    found = check(offer(), against=None)
    assert (found.verdict, found.chance, found.worth_up_to) == (None, None, None)


def test_what_is_under_way_is_carried_on_from_where_it_stands():
    beliefs = [believe(method, JOWL, {}) for method in ("chill", "slice")]
    costs = [cost_step(WayStep(method=method, batch_minutes=F(10)), WAGE) for method in ("chill", "slice")]
    steps = list(zip(costs, beliefs, strict=True))
    # 3 kg wait for the chill, 2 kg are chilled already, 1 kg is sliced
    answer = carry(Start(cost=60.0, labour=6.0, joining=[3000, 2000, 1000]), steps)
    chilled = 3000 * 0.985
    assert answer.milestones[0].grams.middle == near(chilled + 3000)
    assert answer.grams.middle == near((chilled + 2000) * 0.87 + 1000)
    assert answer.cost == near(66.0)
    assert answer.labour == near(12.0)
    done = carry(Start(cost=60.0, labour=0.0, joining=[6000]), [])
    assert (done.price.middle, done.price.log_deviation) == (0.01, 0)
    assert carry(Start(cost=1.0, labour=0.0, joining=[0, 0, 500]), steps).minutes == 0
    for wrong in ([3000], [0, 0, 0]):
        with pytest.raises(ValueError, match="one weight before each step"):
            carry(Start(cost=1.0, labour=0.0, joining=wrong), steps)


def test_what_is_paid_once_is_not_paid_again_on_a_step_begun():
    begun = cost_step(FULL.steps[2], WAGE, is_begun=True)
    assert (begun.batch, begun.minutes) == (0, 0)
    assert cost_step(FULL.steps[2], Policy(fuel=False)).batch == 0


@pytest.mark.parametrize(
    ("kind", "gained", "method"),
    [
        ("cure", False, "dry_cure"),
        ("cure", True, "immersion"),
        ("smoke", False, "hot_smoke"),
        ("hang", False, "air_dry"),
        ("Dry age", False, "dry_age"),
        ("steam", False, "pulled"),
        ("pump", True, "immersion"),
        ("cook", False, "pulled"),
        ("whistle", False, None),
    ],
)
def test_kinds_of_step_have_a_plain_method(kind, gained, method):
    assert plain_method(kind, has_gained=gained) == method


def test_a_plain_way_takes_the_start_minutes_and_uses_nothing():
    way = plain_way(("trim", "cure", "whistle", "slice"))
    assert [step.method for step in way.steps] == ["trim", "dry_cure", "slice"]
    assert way.steps[0].batch_minutes == 13
    assert not any(step.used for step in way.steps)
    assert FULL.days == 8


def test_frying_is_learned_too():
    assert fry_estimate(START_FRY["shop"], []).middle == near(0.33)
    answer = fry_estimate(START_FRY["shop"], [0.36] * 3)
    assert 0.33 < answer.middle < 0.36


@given(st.floats(0.001, 100), st.floats(0, 0.5), st.floats(0.001, 100))
def test_a_chance_is_a_chance(middle, deviation, other):
    answer = Estimate(middle=middle, log_deviation=deviation)
    assert 0 <= answer.chance_below(other) <= 1
    assert answer.low <= answer.middle <= answer.high
    assert answer.chance_below(answer.high * 1.0001) >= 0.8999
    assert answer.chance_below(0) == 0


def test_a_price_may_be_counted():
    bags = WayUse(what="bags", group="packaging", amount=F(2), per="kg", price=Price(paid=F(18), count=F(50)))
    assert cost_step(WayStep(method="slice", used=(bags,)), FREE).gram == near(0.72 / 1000)
    assert cost_step(WayStep(method="slice", used=(bags,)), Policy(packaging=False)).gram == 0


@pytest.mark.parametrize(
    ("cut", "kinds", "product"),
    [
        ("jowl, skin on", ["trim"], "bacon"),
        ("pork belly", [], "bacon"),
        ("goose breast", [], "whole_muscle"),
        ("breast of lamb", [], "whole_muscle"),
        ("belly", ["trim", "mix", "stuff"], "comminuted"),
    ],
)
def test_what_a_piece_is_cured_as_follows_from_its_cut_and_its_steps(cut, kinds, product):
    assert usual_product(read_cut(cut), kinds) == product
