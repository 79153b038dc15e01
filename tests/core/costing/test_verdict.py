"""What the verdict rests on: scale error, parts of the bill, trials, batch size, pay-back, derivations."""

import random
from dataclasses import replace
from fractions import Fraction as F
from statistics import stdev

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dolmetsch.core.costing.batch_size import Work, compute_pay_back, fit_work, model_size
from dolmetsch.core.costing.explain import explain
from dolmetsch.core.costing.parts import compute_outlay, compute_parts
from dolmetsch.core.costing.scale_error import compute_spread
from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.costing.strip import lay_out
from dolmetsch.core.costing.strip_of_piece import lay_out_piece
from dolmetsch.core.costing.trial import Changes, apply_changes, rank_levers, tag_per_lb, yields_by_kind
from dolmetsch.core.ledger.batch import (
    AS_MAIN,
    ByProduct,
    Lot,
    Main,
    Portion,
    ShopPack,
    Split,
    Step,
    Used,
    Weigh,
)
from dolmetsch.core.ledger.batch import Batch as CoreBatch
from dolmetsch.core.numbers.exact import apportion
from dolmetsch.core.numbers.quantity import read_price
from tests.core.jowl import JOWL
from tests.strategies import batches

LB = F("453.59237")
SHEET = compute_sheet(JOWL)


def on_scale(batch, grams):
    return replace(
        batch,
        lots=tuple(replace(lot, resolution_grams=grams) for lot in batch.lots),
        steps=tuple(replace(step, resolution_grams=grams) for step in batch.steps),
    )


def test_scale_error_by_hand():
    """10 lb for 20, weighed to 4 lb on a scale of 12 g: price 5.00 a pound, sd 5.00 × 12/√12 ÷ 4 lb."""
    step = Step(kind="smoke", action=Weigh(grams={"L": 4 * LB}), resolution_grams=F(12))
    batch = CoreBatch(lots=(Lot(id="L", grams=10 * LB, paid=F(20)),), steps=(step,))
    spread = compute_spread(batch, compute_sheet(batch))
    assert float(spread.cost_per_lb) == pytest.approx(5 * 12**0.5 / float(4 * LB), rel=1e-4)
    assert float(spread.sliced_yield) == pytest.approx(12**0.5 / float(10 * LB), rel=1e-4)


def _shaken(batch, rng, half):
    def shake(grams):
        return grams + F(rng.uniform(-half, half)).limit_denominator(10_000)

    def shake_action(action):
        if isinstance(action, Weigh):
            return Weigh(grams={mark: shake(grams) for mark, grams in action.grams.items()})
        return replace(action, into=tuple(replace(out, grams=shake(out.grams)) for out in action.into))

    return replace(
        batch,
        lots=tuple(replace(lot, grams=shake(lot.grams)) for lot in batch.lots),
        steps=tuple(replace(step, action=shake_action(step.action)) for step in batch.steps),
    )


def test_scale_error_agrees_with_a_seeded_simulation():
    """1200 batches shaken by a 20 g scale spread as first order says, shared weighings and all."""
    spread = compute_spread(on_scale(JOWL, F(20)), SHEET)
    rng = random.Random(24)
    sheets = [compute_sheet(_shaken(JOWL, rng, 10)) for _ in range(1200)]
    found = {
        "cost_per_lb": stdev(float(s.final.cost_per_lb) for s in sheets),
        "sliced_yield": stdev(float(s.final.sliced_yield_ratio) for s in sheets),
        "portion": stdev(float(s.final.portion) for s in sheets),
    }
    for name, deviation in found.items():
        assert float(getattr(spread, name)) == pytest.approx(deviation, rel=0.08), name
    saved = stdev(float(s.shop[0].saved_on_batch) for s in sheets)
    assert float(spread.saved_on_batch[0]) == pytest.approx(saved, rel=0.08)
    step_yield = stdev(float(s.ledger.stages[2].yield_ratio) for s in sheets)
    assert float(spread.yields[2]) == pytest.approx(step_yield, rel=0.08)


def test_without_a_scale_no_figure_has_a_spread():
    assert not compute_spread(JOWL, SHEET).is_known


def test_parts_of_the_bill_by_hand():
    """10 lb for 20, trimmed to 8 lb, smoked to 5 lb with 3.00 of wood: 2.00 + 0.50 + 1.50 + 0.60 a pound."""
    trim = Step(kind="trim", action=Weigh(grams={"L": 8 * LB}))
    wood = Used(what="wood", amount=F(1), price=read_price("3.00 each"), group="fuel")
    smoke = Step(kind="smoke", action=Weigh(grams={"L": 5 * LB}), used=(wood,))
    batch = CoreBatch(
        lots=(Lot(id="L", grams=10 * LB, paid=F(20)),), steps=(trim, smoke), portion=Portion(grams=LB / 2)
    )
    parts = compute_parts(compute_sheet(batch))
    assert [(part.sort, part.name, part.per_lb, part.per_portion, part.on_batch) for part in parts] == [
        ("meat", "meat", 2, 1, 10),
        ("shrink", "trim", F("0.5"), F("0.25"), F("2.5")),
        ("shrink", "smoke", F("1.5"), F("0.75"), F("7.5")),
        ("group", "fuel", F("0.6"), F("0.3"), 3),
    ]


@given(batches())
def test_parts_add_up_to_the_price(batch):
    sheet = compute_sheet(batch)
    parts = compute_parts(sheet)
    assert sum(part.on_batch for part in parts) == sheet.final.cost
    assert sum(part.per_lb for part in parts) == (sheet.final.cost_per_lb or 0)


@given(st.lists(st.fractions(-1000, 1000), min_size=1))
def test_apportioned_cents_add_up(values):
    cents = apportion(values, places=2)
    assert sum(map(F, cents)) == F(apportion([sum(values)], places=2)[0])
    assert all(abs(F(cent) - value) < F(1, 100) for cent, value in zip(cents, values, strict=True))


def test_a_jar_is_paid_once_and_charged_by_the_gram():
    jar, salt = read_price("5.00 for 8 oz"), read_price("1.20/kg")
    lines = (Used(what="curing salt", amount=F(120), price=jar), Used(what="salt", amount=F(500), price=salt))
    step = Step(kind="cure", action=Weigh(grams={"L": LB}), used=lines)
    batch = CoreBatch(lots=(Lot(id="L", grams=LB, paid=F(9)),), steps=(step, step))
    meat, cure, plain = compute_outlay(batch)
    assert (meat.paid, plain.paid, plain.packs) == (9, F("1.2"), None)
    assert (cure.packs, cure.paid, cure.charged) == (2, 10, 240 * jar.paid / jar.grams)


kinds = st.sampled_from(["trim", "cure", "smoke", "chill", "slice"])


@settings(max_examples=40)
@given(kinds, st.integers(60, 100))
def test_a_tried_yield_is_the_yield_that_comes_out_and_the_others_stay(kind, percent):
    kept = F(percent, 100) * F(999, 1000)
    were = yields_by_kind(SHEET)
    tried = compute_sheet(apply_changes(JOWL, SHEET, Changes(yields={kind: kept})))
    after = yields_by_kind(tried)
    assert after.keys() == were.keys()
    for name, value in were.items():
        if name != kind:
            assert after[name] == value
    if kind != "slice":  # pieces of differing yields each meet the ceiling of their own
        assert after[kind] == kept


def test_a_trial_of_nothing_changes_nothing_and_tag_and_minutes_do_as_told():
    assert apply_changes(JOWL, SHEET, Changes()) == JOWL
    same = Changes(yields=yields_by_kind(SHEET), tag_per_lb=tag_per_lb(JOWL), minutes=SHEET.minutes)
    assert compute_sheet(apply_changes(JOWL, SHEET, same)).final == SHEET.final
    tried = apply_changes(JOWL, SHEET, Changes(tag_per_lb=F(4), minutes=F(75), shop_paid={1: F(9)}))
    sheet = compute_sheet(tried)
    assert (sheet.bought.paid, sheet.minutes, tried.shop[1].paid) == (4 * 24, 75, 9)


def test_the_break_even_price_tried_as_tag_makes_house_and_shop_equal():
    price = SHEET.shop[0].break_even_paid_per_lb
    tried = compute_sheet(apply_changes(JOWL, SHEET, Changes(tag_per_lb=price)))
    assert tried.shop[0].saved_per_lb == 0


def test_levers_are_ranked_by_a_tenth_of_each():
    levers = rank_levers(JOWL, SHEET)
    assert {(lever.sort, lever.kind) for lever in levers} == {
        ("tag", ""),
        ("minutes", ""),
        *(("group", group) for group in ("buying", "cure", "fuel", "packaging", "credit")),
        *(("yield", kind) for kind in ("trim", "cure", "smoke", "chill", "slice", "pack")),
    }
    changes = [lever.change for lever in levers]
    assert changes == sorted(changes, key=lambda change: -abs(change))
    tag = next(lever for lever in levers if lever.sort == "tag")
    assert tag.change == SHEET.final.groups["meat"] / 10 * LB / SHEET.final.grams


def test_batch_size_by_hand():
    """Two slabs of 5 lb: fuel 6, work 60 + 30 min at 12 an hour, meat 40: once 6 + 12, a slab 3 + 20."""
    split = Step(
        kind="trim", action=Split(piece="L", into=(Main(id="A", grams=5 * LB), Main(id="B", grams=5 * LB)))
    )
    wood = Used(what="wood", amount=F(1), price=read_price("6.00 each"), group="fuel")
    smoke = Step(kind="smoke", action=Weigh(grams={"A": 5 * LB, "B": 5 * LB}), used=(wood,), minutes=F(90))
    batch = CoreBatch(
        lots=(Lot(id="L", grams=10 * LB, paid=F(40)),),
        steps=(split, smoke),
        policy=replace(JOWL.policy, labour_rate=F(12)),
    )
    model = model_size(batch, compute_sheet(batch), Work(batch_minutes=F(60), slab_minutes=F(15)))
    assert (model.slabs, model.once, model.per_slab, model.slab_grams) == (2, 18, 23, 5 * LB)
    assert model.price_per_lb(2) == F("6.4")
    assert (model.crossing(F("5.5")), model.crossing(F("4.6")), model.crossing(F(100))) == (4, None, 1)


def test_the_model_meets_the_batch_it_was_made_from():
    model = model_size(JOWL, SHEET, None)
    assert (model.slabs, model.price_per_lb(3)) == (3, SHEET.final.cost_per_lb)


@pytest.mark.parametrize("minutes", [0, 40])
def test_work_paid_in_a_sum_is_in_the_model_and_not_by_the_minute(minutes):
    """Two slabs of 5 lb, meat 40, work bought for 30: 15 a slab, whatever the minutes beside it cost."""
    split = Step(
        kind="trim",
        action=Split(piece="L", into=(Main(id="A", grams=5 * LB), Main(id="B", grams=5 * LB))),
        used=(Used(what="help", amount=F(1), price=read_price("30.00 each"), group="labour"),),
        minutes=F(minutes),
    )
    batch = CoreBatch(
        lots=(Lot(id="L", grams=10 * LB, paid=F(40)),),
        steps=(split,),
        policy=replace(JOWL.policy, labour_rate=F(12)),
    )
    sheet = compute_sheet(batch)
    model = model_size(batch, sheet, None)
    assert model.price_per_lb(2) == sheet.final.cost_per_lb == F(7) + F(minutes, 50)
    own = model_size(batch, sheet, Work(batch_minutes=F(10), slab_minutes=F(5)))
    assert (own.once, own.per_slab) == (2, 20 + 15 + 1)


def test_work_is_fitted_to_the_own_log_once_it_tells_something():
    """30 minutes a batch and 12 a slab, from three batches."""
    log = [(1, F(42)), (2, F(54)), (4, F(78))]
    work = fit_work(log)
    assert (work.batch_minutes, work.slab_minutes, work.is_own) == (30, 12, True)
    assert fit_work(log[:2]) is None
    assert fit_work([(2, F(50)), (2, F(60)), (2, F(70))]) is None
    falling = fit_work([(1, F(90)), (2, F(60)), (3, F(30))])
    assert (falling.batch_minutes, falling.slab_minutes) == (60, 0)


def test_work_of_a_kind_without_start_values_is_by_the_slab_and_never_left_out():
    """90 minutes of drying, two slabs: 45 a slab, whatever the size; the price at its own size is the
    recorded.
    """
    cut = Split(piece="L", into=(Main(id="A", grams=5 * LB), Main(id="B", grams=5 * LB)))
    dry = Step(kind="dry", action=Weigh(grams={"A": 4 * LB, "B": 4 * LB}), minutes=F(90))
    for kind, once in (("halve", 0), ("trim", F(16) * 10 / 16)):
        batch = CoreBatch(
            lots=(Lot(id="L", grams=10 * LB, paid=F(40)),),
            steps=(Step(kind=kind, action=cut, minutes=F(16)), dry),
            policy=replace(JOWL.policy, labour_rate=F(12)),
        )
        sheet = compute_sheet(batch)
        model = model_size(batch, sheet, None)
        assert model.work.batch_minutes == once
        assert model.work.batch_minutes + 2 * model.work.slab_minutes == 106
        assert model.price_per_lb(2) == sheet.final.cost_per_lb


def test_a_tenth_less_kept_is_lost_and_so_never_looks_like_a_gain():
    """Trim worth 9.00 a pound beside meat of 2.00: cutting more off would pay, keeping less does not."""
    worth = read_price("9.00/lb")
    into = (Main(id="A", grams=8 * LB), ByProduct(id="lean", grams=LB, worth=worth))
    batch = CoreBatch(
        lots=(Lot(id="L", grams=10 * LB, paid=F(20)),),
        steps=(Step(kind="trim", action=Split(piece="L", into=into)),),
    )
    sheet = compute_sheet(batch)
    (lever,) = [one for one in rank_levers(batch, sheet) if one.sort == "yield"]
    # 11.00 over 7.2 lb instead of 8
    assert lever.change == F(11) / F("7.2") - F(11) / 8
    cheaper = compute_sheet(apply_changes(batch, sheet, Changes(yields={"trim": F("0.72")})))
    assert cheaper.final.cost_per_lb < sheet.final.cost_per_lb
    as_main = (Main(id="A", grams=8 * LB), ByProduct(id="ends", grams=LB, worth=AS_MAIN))
    batch = replace(batch, steps=(Step(kind="trim", action=Split(piece="L", into=as_main)),))
    (lever,) = [one for one in rank_levers(batch, compute_sheet(batch)) if one.sort == "yield"]
    assert lever.change == F(20) / F("8.1") - F(20) / 9


def test_slices_have_their_price_whatever_else_was_cut_from_the_piece():
    """A slab of 20.00: 8 lb of slices, 80 of them, and 2 lb of dice: 16.00 and 4.00."""
    into = (Main(id="S", grams=8 * LB, slices=80), Main(id="dice", grams=2 * LB))
    batch = CoreBatch(
        lots=(Lot(id="L", grams=10 * LB, paid=F(20)),),
        steps=(Step(kind="slice", action=Split(piece="L", into=into)),),
        portion=Portion(slices=F(3)),
        shop=(ShopPack(name="x", paid=F(5), grams=LB, slices=10),),
    )
    sheet = compute_sheet(batch)
    final = sheet.final
    assert (final.slices, final.cost_per_slice, final.portion) == (None, None, None)
    assert (final.sliced.cost, final.sliced.slices, final.sliced.cost_per_slice) == (16, 80, F("0.2"))
    assert final.portion_served == final.sliced.portion == F("0.6")
    assert sheet.shop[0].saved_per_portion == F("1.5") - F("0.6")
    found = {one.figure: one.value for one in explain(batch, sheet, lay_out(batch, sheet))}
    assert (found["cost_per_slice"], found["portion"]) == (F("0.2"), F("0.6"))
    whole = compute_sheet(replace(batch, steps=())).final
    assert (whole.sliced, whole.portion_served) == (None, None)
    alone = replace(batch, steps=(Step(kind="slice", action=Split(piece="L", into=into[:1])),))
    final = compute_sheet(alone).final
    assert final.sliced.cost_per_slice == final.cost_per_slice
    assert (final.sliced.grams, final.sliced.portion) == (final.grams, final.portion)


def test_pay_back_counts_whole_batches():
    """120 for a slicer; 20 minutes at 18 an hour and 2 % of 116.80 kept: 8.34 a batch, 15 batches."""
    paid = compute_pay_back(SHEET, price=F(120), minutes=F(20), kept_more_ratio=F("0.02"), hourly=F(18))
    assert (paid.saved_by_minutes, paid.batches) == (6, 15)
    none = compute_pay_back(SHEET, price=F(1), minutes=F(0), kept_more_ratio=F(0), hourly=F(18))
    assert none.batches is None


def test_derivations_name_inputs_that_lead_to_the_figure():
    answer = {(d.figure, d.shop): d for d in explain(JOWL, SHEET, lay_out(JOWL, SHEET))}
    portion = answer["portion", None]
    assert portion.value == portion.inputs[0].value * portion.inputs[1].value == SHEET.final.portion
    pound = answer["cost_per_lb", None]
    *costs, weight = [line.value for line in pound.inputs]
    assert sum(costs) * LB / weight == SHEET.final.cost_per_lb
    assert next(line.steps for line in pound.inputs if line.label == "cure") == (2,)
    assert sum(line.value for line in answer["cost", None].inputs) == SHEET.final.cost
    for figure in ("saved_per_lb", "saved_per_portion"):
        theirs, ours = [line.value for line in answer[figure, 0].inputs]
        assert theirs - ours == answer[figure, 0].value == getattr(SHEET.shop[0], figure)
    even = answer["break_even", 0]
    paid, worth, rest, meat = [line.value for line in even.inputs]
    assert paid * (worth - rest) / meat == even.value
    hour = answer["earned_per_hour", 1]
    worth, cost, minutes = [line.value for line in hour.inputs]
    assert (worth - cost) * 60 / minutes == hour.value
    assert answer["kept", None].inputs[0].steps == (8,)
    before, weighed, spent, back, left = [line.value for line in answer["column_5_price", None].inputs]
    assert (before * weighed / LB + spent - back) * LB / left == answer["column_5_price", None].value
    sliced = answer["column_5_kept", None]
    assert sliced.inputs[0].value / sliced.inputs[1].value == sliced.value
    assert sliced.inputs[0].steps == (5, 6, 7)
    shrink = answer["part_shrink_smoke", None]
    assert shrink.inputs[1].value - shrink.inputs[0].value == shrink.value


def test_one_piece_alone_keeps_its_own_way():
    strip = lay_out_piece(JOWL, SHEET, "B1")
    assert [column.kind for column in strip.columns] == [
        *("bought", "trim", "cure", "smoke", "chill", "slice", "pack")
    ]
    for before, after in zip(strip.columns, strip.columns[1:], strict=False):
        assert after.grams_in == before.grams_out
        assert after.grams_in - after.grams_out == sum(peel.grams for peel in after.peels)
    piece = next(main for main in SHEET.ledger.mains if main.id == "B1")
    assert strip.columns[-1].cost_per_lb == piece.cost * LB / piece.grams
    assert strip.columns[1].peels[0].name == "on as A, C"
    assert lay_out_piece(JOWL, SHEET, "A") is None


def test_by_products_shrink_as_more_is_kept():
    into = (Main(id="A", grams=8 * LB, slices=80), ByProduct(id="ends", grams=LB))
    batch = CoreBatch(
        lots=(Lot(id="L", grams=10 * LB, paid=F(20)),),
        steps=(Step(kind="slice", action=Split(piece="L", into=into)),),
        shop=(ShopPack(name="x", paid=F(5), grams=LB),),
    )
    tried = apply_changes(batch, compute_sheet(batch), Changes(yields={"slice": F("0.9")}))
    main, ends = tried.steps[0].action.into
    assert (main.grams, main.slices, ends.grams) == (9 * LB, 90, LB / 2)
