"""What holds of every ledger, whatever was done: order, merges, steps that cost nothing, bills."""

from dataclasses import replace
from fractions import Fraction as F

from hypothesis import assume, given
from hypothesis import strategies as st

from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.costing.strip import lay_out
from dolmetsch.core.costing.strip_of_piece import lay_out_piece
from dolmetsch.core.ledger.batch import Batch, Discard, Lot, Main, Merge, Policy, Split, Step, Used, Weigh
from dolmetsch.core.ledger.bill import NOTHING, Bill, shared_out, sum_of, total_of
from dolmetsch.core.ledger.run_ledger import run
from dolmetsch.core.numbers.quantity import Price
from tests.strategies import batches, money, weights

LB = F("453.59237")


def pieces_of(batch):
    ledger = run(batch)
    return {
        piece.id: (piece.grams, piece.costs, piece.is_main) for piece in (*ledger.mains, *ledger.by_products)
    }


def without_nothing(pieces):
    """Groups of nothing apart: one way of computing books them, another does not."""
    return {
        mark: (grams, {group: cost for group, cost in costs.items() if cost}, is_main)
        for mark, (grams, costs, is_main) in pieces.items()
    }


@given(batches(min_steps=1), batches(min_steps=1, prefix="q"), st.data())
def test_the_order_of_independent_steps_does_not_matter(one, other, data):
    """Steps that touch no piece in common, and move no cost to others, may be taken in any order."""
    ours, theirs = (
        [step for step in batch.steps if not isinstance(step.action, Discard)] for batch in (one, other)
    )
    whole = replace(one, lots=(*one.lots, *other.lots), steps=(*ours, *theirs))
    turns = data.draw(st.permutations([True] * len(ours) + [False] * len(theirs)))
    left, right = iter(ours), iter(theirs)
    mingled = replace(whole, steps=tuple(next(left if is_ours else right) for is_ours in turns))
    assert without_nothing(pieces_of(mingled)) == without_nothing(pieces_of(whole))


@given(weights, money, st.lists(st.integers(1, 50), min_size=1, max_size=6))
def test_what_is_split_and_brought_together_again_is_what_it_was(grams, paid, shares):
    parts = [grams * share / sum(shares) for share in shares]
    into = tuple(Main(id=f"p{number}", grams=part) for number, part in enumerate(parts))
    whole = Batch(lots=(Lot(id="L", grams=grams, paid=paid),))
    steps = (
        Step(kind="cut", action=Split(piece="L", into=into)),
        Step(kind="mix", action=Merge(pieces=tuple(out.id for out in into), into=Main(id="M", grams=grams))),
    )
    (before,), (after,) = run(whole).mains, run(replace(whole, steps=steps)).mains
    assert (after.grams, after.cost) == (before.grams, before.cost)
    assert compute_sheet(replace(whole, steps=steps)).final.groups == compute_sheet(whole).final.groups


@given(batches(), st.integers(40, 110))
def test_a_step_that_costs_nothing_changes_prices_by_weight_alone(batch, percent):
    mains = run(batch).mains
    assume(mains)
    kept = F(percent, 100)
    weigh = Step(kind="rest", action=Weigh(grams={piece.id: piece.grams * kept for piece in mains}))
    before, after = compute_sheet(batch), compute_sheet(replace(batch, steps=(*batch.steps, weigh)))
    assert after.final.cost == before.final.cost
    assert after.final.groups == before.final.groups
    assert after.final.cost_per_lb == before.final.cost_per_lb / kept
    same = Step(kind="look", action=Weigh(grams={piece.id: piece.grams for piece in mains}))
    assert compute_sheet(replace(batch, steps=(*batch.steps, same))).final == before.final


@given(batches(min_lots=2))
def test_what_is_thrown_away_is_borne_by_the_others_or_booked(batch):
    mains = run(batch).mains
    assume(len(mains) > 1)
    opened = {mark for step in batch.steps for mark in step.entering}
    lots = {lot.id for lot in batch.lots}
    bearers = [piece.id for piece in mains[1:] if piece.id not in lots or piece.id in opened]
    for charge in ("batch", "loss"):
        throw = Step(kind="discard", action=Discard(pieces=(mains[0].id,), charge=charge))
        after = run(replace(batch, steps=(*batch.steps, throw)))
        lost = after.loss.total - run(batch).loss.total
        booked = charge == "loss" or not bearers
        assert lost == (mains[0].cost if booked else 0)
        left = {piece.id: piece.cost for piece in after.mains}
        gained = sum(left[piece.id] - piece.cost for piece in mains[1:])
        assert gained == (0 if booked else mains[0].cost)


@given(batches())
def test_no_piece_carries_less_than_nothing(batch):
    assert all(cost >= 0 for _, costs, _ in pieces_of(batch).values() for cost in [sum(costs.values())])


@given(batches(), money)
def test_dearer_meat_never_makes_a_pound_cheaper(batch, more):
    dearer = replace(batch, lots=tuple(replace(lot, paid=lot.paid + more) for lot in batch.lots))
    before, after = compute_sheet(batch).final, compute_sheet(dearer).final
    if before.cost_per_lb is not None:
        assert after.cost_per_lb >= before.cost_per_lb


@given(batches())
def test_the_strip_tells_where_all_weight_went(batch):
    sheet = compute_sheet(batch)
    strip = lay_out(batch, sheet)
    for before, after in zip(strip.columns, strip.columns[1:], strict=False):
        assert after.grams_in == before.grams_out
    assert strip.columns[-1].grams_out == sheet.final.grams
    assert sum(column.spent for column in strip.columns) == sheet.bought.cost + sum(
        stage.cost_added for stage in sheet.ledger.stages
    )


@given(batches())
def test_the_strip_of_each_piece_ends_with_that_piece(batch):
    sheet = compute_sheet(batch)
    for piece in sheet.ledger.mains:
        strip = lay_out_piece(batch, sheet, piece.id)
        last = strip.columns[-1]
        assert (last.grams_out, last.cost_per_lb) == (piece.grams, piece.cost * LB / piece.grams)
        for column in strip.columns[1:]:
            assert column.grams_in - column.grams_out == sum(peel.grams for peel in column.peels)


def test_a_million_pieces_of_a_cent_are_still_a_cent():
    """Shares that have no end in decimals are kept exactly: a third of a third of …, brought together."""
    steps = []
    lot = Lot(id="p", grams=F(3**9), paid=F("0.01"))
    mark = "p"
    for depth in range(8):
        names = [f"{mark}{way}" for way in "abc"]
        third = F(3 ** (8 - depth))
        steps.append(
            Step(kind="cut", action=Split(piece=mark, into=tuple(Main(id=n, grams=third) for n in names)))
        )
        mark = names[0]
    mains = run(Batch(lots=(lot,), steps=tuple(steps))).mains
    assert min(piece.cost for piece in mains) == F("0.01") / 3**8
    assert sum(piece.cost for piece in mains) == F("0.01")


bills = st.dictionaries(st.sampled_from("abc"), st.integers(-1000, 1000), min_size=1).flatmap(
    lambda of: st.integers(1, 997).map(lambda over: Bill(of, over))
)


@given(bills, bills)
def test_bills_add_group_by_group(one, other):
    together = one.plus(other)
    for group in "abc":
        assert together.group(group) == one.group(group) + other.group(group)
    assert together.total == one.total + other.total == total_of([one, other])
    assert one.plus(NOTHING) == one
    assert NOTHING.plus(one) == one


@given(bills, st.lists(st.integers(1, 99), min_size=1, max_size=6), bills)
def test_what_is_shared_out_adds_up(cost, parts, first):
    start = [first] * len(parts)
    shared = shared_out(start, cost, parts)
    assert F(*sum_of(shared)) == first.total * len(parts) + cost.total
    for bill, part in zip(shared, parts, strict=True):
        assert bill.total == first.total + cost.total * part / sum(parts)
    mixed = [first, *[Bill({"a": 1}, 7)] * (len(parts) - 1)]
    assert F(*sum_of(shared_out(mixed, cost, parts))) == total_of(mixed) + cost.total


@given(bills)
def test_long_bills_are_lowered_and_stay_what_they_are(bill):
    long = Bill({group: money * 3**1500 for group, money in bill.of.items()}, bill.over * 3**1500)
    assert long.lowered().costs == bill.costs
    assert long.lowered().over < long.over


def test_a_long_chain_stays_exact_and_quick_to_add_up():
    """Sixty weighings of three pieces with work in each: the last fraction of a cent is still there."""
    into = tuple(Main(id=mark, grams=F(grams)) for mark, grams in (("A", 331), ("B", 337), ("C", 347)))
    steps = [Step(kind="trim", action=Split(piece="L", into=into))]
    wood = Used(what="wood", amount=F(7), price=Price(paid=F("0.13"), grams=F(3)), group="fuel")
    for number in range(60):
        grams = {mark: F(300 - number) + F(number, 7) for mark in "ABC"}
        steps.append(Step(kind="s", action=Weigh(grams=grams), minutes=F(7), used=(wood,)))
    batch = Batch(
        lots=(Lot(id="L", grams=F(1100), paid=F("17.77")),),
        steps=tuple(steps),
        policy=Policy(labour_rate=F(11)),
    )
    expected = F("17.77") + 60 * (F(7) * 11 / 60 + wood.cost)
    assert sum(piece.cost for piece in run(batch).mains) == expected
