"""What a step is expected to keep: start values, own batches, pooling, the words for it."""

import random
from math import exp, log, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.forecast.yields import RANGE_80, Tally, believe, believe_ratio, start_of, tally
from dolmetsch.core.meat.cuts import Cut, cut_of_key, read_cut
from dolmetsch.core.reference.yields import METHODS, START_COLUMNS, START_FRY, START_YIELDS

JOWL, BELLY = read_cut("jowl, skin on"), read_cut("belly, skin on")
near = pytest.approx
ratios = st.lists(st.floats(0.7, 1.0), min_size=1, max_size=12)


@pytest.mark.parametrize(
    ("words", "kind", "column", "key"),
    [
        ("Jowl, skin on", "jowl", "jowl", "jowl skin-on"),
        ("belly, skinless, trimmed", "belly", "belly_skinless", "belly skin-off trimmed"),
        ("BELLY", "belly", "belly_skin_on", "belly"),
        ("bone-in pork shoulder", "shoulder", "shoulder", "shoulder bone-in"),
        ("goose breast, boneless", "poultry", "poultry", "poultry bone-out"),
        ("leg of lamb", "leg", "leg", "leg"),
        ("ham", "leg", "leg", "leg"),
        ("breast of lamb, bone in", "other", None, "other bone-in"),
        ("hamper of something", "other", None, "other"),
    ],
)
def test_a_cut_is_read_from_its_words(words, kind, column, key):
    cut = read_cut(words)
    assert (cut.kind, cut.column, cut.key) == (kind, column, key)
    assert cut_of_key(key) == cut


def test_every_start_value_has_its_place_in_the_table():
    assert START_YIELDS.keys() == METHODS.keys()
    for method, row in START_YIELDS.items():
        assert set(row) <= set(START_COLUMNS), method
        for cell in row.values():
            assert 0.5 < cell.mean < 1.1
            assert 0 < cell.deviation < 0.1
    trims = START_YIELDS["trim"]
    assert [trims[column].mean for column in START_COLUMNS] == [
        0.84,
        0.92,
        0.88,
        0.93,
        0.82,
        0.75,
        0.95,
        0.88,
    ]
    assert START_YIELDS["hot_smoke"]["jowl"].mean == 0.86
    assert START_YIELDS["pulled"].keys() == {"shoulder", "brisket", "leg"}


def test_nothing_known_is_the_start_value_and_its_spread():
    belief = believe("hot_smoke", BELLY, {})
    assert belief.ratio == near(0.87)
    assert belief.deviation == near(0.03)
    assert (belief.batches, belief.others, belief.is_borrowed) == (0, 0, False)
    assert belief.low == near(0.87 * exp(-RANGE_80 * 0.03 / 0.87))
    assert belief.explain() == "87.0 % ± 3.0: start value, 0 batches"


def test_one_cut_alone_by_hand():
    # s = 0.03 / 0.87 = sigma * sqrt(4/3); the prior of the mean is worth three batches
    sigma = 0.03 / 0.87 / sqrt(4 / 3)
    own = [0.90, 0.91, 0.92]
    belief = believe("hot_smoke", BELLY, {"hot_smoke": {BELLY.key: tally(own)}})
    mean = sum(log(one / 0.87) for one in own) / 3
    assert belief.log_mean == near(log(0.87) + mean / 2)
    squares = sum((log(one / 0.87) - mean) ** 2 for one in own) / sigma**2
    apart = (mean / sigma) ** 2 / (1 / 3 + 1 / 3)
    spread = (3 + squares + apart) / 6
    assert belief.log_deviation == near(sigma * sqrt(spread * (1 + 1 / 6)))
    assert belief.explain().startswith("89.0 % ± ")
    assert belief.explain().endswith(": your last 3 hot smokes of this cut")


def test_other_cuts_lend_half_of_what_they_say():
    # a single other cut, known without end: a is believed to lie half way to it
    sigma = 0.03 / 0.86 / sqrt(4 / 3)
    many = [0.90] * 100_000
    belief = believe("hot_smoke", BELLY, {"hot_smoke": {JOWL.key: tally(many)}})
    away = log(0.90 / 0.86) / sigma
    half = away / 2 * (0.03 / 0.87 / sqrt(4 / 3))
    assert belief.log_mean == near(log(0.87) + half, rel=1e-4)
    assert belief.explain().endswith("start value, and 100000 of your hot smokes of other cuts")
    one = believe("hot_smoke", BELLY, {"hot_smoke": {JOWL.key: tally([0.9]), BELLY.key: tally([0.9])}})
    assert one.explain().endswith("one of your hot smokes, and 1 of other cuts")


def test_a_cut_whose_form_nobody_told_is_like_all_of_its_kind():
    history = {
        "trim": {"jowl skin-on": tally([0.9] * 3), "jowl": tally([0.9]), "jowl skin-off": tally([0.9])}
    }
    counted = {
        word: believe("trim", read_cut(word), history) for word in ("jowl", "jowl, skin on", "jowl, trimmed")
    }
    assert [(one.batches, one.others) for one in counted.values()] == [(5, 0), (4, 1), (0, 5)]
    assert not BELLY.is_like(JOWL)


def test_a_cut_without_a_start_value_borrows_with_its_spread():
    start, is_borrowed = start_of("hot_smoke", Cut(kind="other"))
    assert is_borrowed
    means = [cell.mean for cell in START_YIELDS["hot_smoke"].values()]
    assert start.mean == near(sum(means) / 8)
    assert start.deviation > 0.035
    assert "mean of the start values of all cuts" in believe("hot_smoke", Cut(kind="other"), {}).explain()
    assert start_of("pulled", JOWL)[1]
    with pytest.raises(KeyError):
        believe("boil", JOWL, {})


@given(ratios, ratios)
def test_tallies_add_up_as_if_gathered_at_once(first, second):
    both = tally([*first, *second], scale_variance=1e-6)
    added = tally(first, scale_variance=1e-6) + tally(second, scale_variance=1e-6)
    assert added.count == both.count
    assert added.log_sum == near(both.log_sum)
    assert added.square_sum == near(both.square_sum)
    assert believe("trim", JOWL, {"trim": {JOWL.key: added}}).log_mean == near(
        believe("trim", JOWL, {"trim": {JOWL.key: both}}).log_mean
    )


@given(ratios)
def test_batches_pull_towards_themselves_and_never_beyond(own):
    belief = believe("trim", JOWL, {"trim": {JOWL.key: tally(own)}})
    middle = exp(sum(log(one) for one in own) / len(own))
    low, high = sorted((0.88, middle))
    assert low - 1e-9 <= belief.ratio <= high + 1e-9


def test_alike_batches_narrow_the_range_and_a_coarse_scale_counts_less():
    known = [believe("trim", JOWL, {"trim": {JOWL.key: tally([0.88] * count)}}) for count in (1, 3, 10, 40)]
    spreads = [one.log_deviation for one in known]
    assert spreads == sorted(spreads, reverse=True)
    fine = believe("trim", JOWL, {"trim": {JOWL.key: tally([0.95] * 4)}})
    coarse = believe("trim", JOWL, {"trim": {JOWL.key: tally([0.95] * 4, scale_variance=0.01)}})
    assert 0.88 < coarse.ratio < fine.ratio
    assert believe("trim", JOWL, {"trim": {JOWL.key: Tally()}}).ratio == near(0.88)


def belief_of(own, method="hot_smoke", cut=BELLY, **more):
    start, _ = start_of(method, cut)
    return believe(method, cut, {method: {cut.key: tally(own, start=start, **more)}})


def test_a_wild_outlier_neither_moves_the_middle_nor_widens_the_range_beyond_the_raw_weight():
    """Six smokes of .86 to .88, and one weighed with a piece forgotten: .50."""
    steady = [0.86, 0.87, 0.88, 0.87, 0.86, 0.88]
    without, with_it = belief_of(steady), belief_of([*steady, 0.50])
    assert with_it.ratio == near(without.ratio, abs=0.005)
    assert with_it.high < 0.95
    assert with_it.log_deviation < 2 * without.log_deviation
    # the same as the very first batch: more likely a slip than this kitchen
    first = belief_of([0.50])
    assert 0.84 < first.ratio < 0.87
    assert first.high < 1


def test_a_kitchen_that_is_really_off_is_believed_after_a_batch_or_two():
    """A kitchen that keeps .78 where .87 is usual, three deviations less, each time a little otherwise."""
    kept = [0.775, 0.785, 0.78, 0.772, 0.788]
    held = [
        belief_of(kept[:count]).low <= kept[count] <= belief_of(kept[:count]).high
        for count in range(1, len(kept))
    ]
    assert held == [True, True, True, True]
    assert not belief_of([]).low <= 0.78


def test_no_range_goes_beyond_all_of_it_where_nothing_is_added():
    for method in METHODS:
        belief = belief_of([0.999, 0.998, 0.9995], method)
        assert (belief.high > 1) == METHODS[method].can_gain, method
    # a slip that reads as a gain is taken for none
    assert belief_of([1.02, 1.03, 1.02, 1.02], "chill").ratio <= 1


def test_no_range_is_narrower_than_the_scale():
    coarse = belief_of([0.985] * 200, "chill", scale_variance=0.02**2)
    assert coarse.log_deviation >= 0.02
    assert belief_of([0.985] * 200, "chill").log_deviation < 0.01


def test_batches_count_by_their_distance_from_their_like():
    start, _ = start_of("hot_smoke", BELLY)
    sigma = 0.03 / 0.87 / sqrt(4 / 3)
    at = [0.87 * exp(sigma * one) for one in (0, 0, 0, 2.5, 5)]
    counted = tally(at, start=start)
    # up to 2.5 deviations wholly, at twice that by a quarter
    assert (counted.count, counted.weight) == (5, near(4.25))
    assert tally(at).weight == 5
    # of two nobody knows which is off; of three one knows
    assert tally(at[-2:], start=start).weight == 2
    assert tally([at[0], at[1], at[4]], start=start).weight == near(2.25)


def test_frying_learns_from_its_own_tests_alone():
    log_mean, log_deviation = believe_ratio(START_FRY["house"], tally([]))
    assert (exp(log_mean), log_deviation) == (near(0.42), near(0.06 / 0.42))
    log_mean, narrower = believe_ratio(START_FRY["house"], tally([0.42] * 6))
    assert exp(log_mean) == near(0.42)
    assert narrower < log_deviation


# ---- a simulation of many kitchens: does the 80 % range hold, and what if the model is wrong ----

KITCHENS, FEWER = 1_000, 200
STEPS = ("trim", "dry_cure", "rest", "hot_smoke", "chill", "slice")
CUTS = (JOWL, BELLY, read_cut("loin"))


def coverage(*, batches=None, spread=1.0, bias=0.0, leaning=0.0, slips=0.0, kitchens=FEWER, seed=20):
    """How often the range of the final yield held, over kitchens drawn by the model; or against it.

    ``spread``: batches scatter so many times what the start values say; ``bias``: the kitchen keeps so many
    sigma more than the prior can know; ``leaning``: how steps of one batch go together; ``slips``: by which
    the first batch of each cut was weighed wrong.
    """
    draw = random.Random(seed)
    held = 0
    share = sqrt(1 / 6)
    for _ in range(kitchens):
        whole = draw.gauss(0, 1)
        truth = middle = variance = 0.0
        for method in STEPS:
            ours = draw.gauss(0, share)
            history = {}
            for cut in CUTS:
                start, _ = start_of(method, cut)
                sigma = start.deviation / start.mean / sqrt(4 / 3)
                centre = log(start.mean) + sigma * (ours + draw.gauss(0, share) + bias)
                count = draw.randrange(0, 9) if batches is None else batches
                past = [exp(centre + spread * sigma * draw.gauss(0, 1)) for _ in range(count)]
                if past:
                    if slips:
                        past[0] *= slips
                    history[cut.key] = tally(past, start=start)
                if cut is JOWL:
                    own = leaning * whole + sqrt(1 - leaning**2) * draw.gauss(0, 1)
                    truth += centre + spread * sigma * own
            belief = believe(method, JOWL, {method: history})
            middle += belief.log_mean
            variance += belief.log_deviation**2
        held += abs(truth - middle) <= RANGE_80 * sqrt(variance)
    return held / kitchens


@pytest.mark.parametrize("batches", [None, 0, 3])
def test_the_range_holds_where_the_model_is_true(batches):
    assert 0.76 <= coverage(batches=batches, kitchens=KITCHENS) <= 0.84


def test_how_it_fails_where_the_model_is_wrong():
    # a kitchen twice as uneven as the start values say: poor at first, mended by its own batches
    fresh, some, many = (coverage(batches=count, spread=2.0) for count in (0, 3, 20))
    assert fresh < 0.6 < some < many
    assert many >= 0.76
    # a kitchen far off the start values: wrong until it has batches of its own
    assert coverage(batches=0, bias=-2.0) < 0.1
    assert coverage(batches=20, bias=-2.0) > 0.76
    # three deviations off in every one of its six steps: poor at first, and half way there after two batches
    off = [coverage(batches=count, bias=-3.0) for count in (1, 2, 5, 20)]
    assert off == sorted(off)
    assert (off[1] > 0.3, off[2] > 0.6, off[3] > 0.74) == (True, True, True)
    # one batch in each cut weighed a third too light
    for count in (3, 8, 20):
        assert coverage(batches=count, slips=0.66) > 0.7
    # steps of one batch that go together, which is left out: too narrow, and no record mends it
    assert coverage(batches=20, leaning=0.7) < 0.7


def test_what_the_scale_scatters_is_not_taken_for_the_batches_own():
    """Four batches a deviation apart: on a scale that scatters as much, the kitchen itself is steady."""
    around = [0.87 * exp(step) for step in (-0.03, 0.03, -0.03, 0.03)]
    own = belief_of(around).log_deviation
    steady = belief_of(around, scale_variance=0.03**2).log_deviation
    assert steady < own
