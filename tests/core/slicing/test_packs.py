"""Packs and where they went: worked by hand, refused at their place, conserved whatever happens."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.batch import Batch, Lot, Main, Split, Step
from dolmetsch.core.slicing.packs import EARNING, FATES, Pack, Taking, Weighed, follow_packs, together

KILO = Fraction(1000)


def mains(*, slices=40, grams=KILO, dice=Fraction(250), paid=Fraction(20)):
    """A piece of 40 slices at 16.00 and dice at 4.00, by weight."""
    split = Split(
        piece="L", into=(Main(id="S", grams=grams, slices=slices), Main(id="D", grams=dice, slices=None))
    )
    lot = Lot(id="L", grams=grams + dice, paid=paid)
    return compute_sheet(Batch(lots=(lot,), steps=(Step(kind="slice", action=split),))).ledger.mains


def pack(mark="P1", *, piece="S", grams=250, slices=10):
    return Pack(id=mark, piece=piece, grams=Fraction(grams), slices=slices)


def taking(mark="P1", fate="eaten", **more):
    return Taking(pack=mark, fate=fate, **more)


def test_a_pack_costs_its_weight_of_its_piece():
    """250 g of 1000 g at 16.00 is 4.00; three of ten slices are 75 g, 1.20."""
    stowed = follow_packs(mains(), [pack()], [taking(slices=3)])
    now = stowed.packs["P1"]
    assert (now.cost, now.left_grams, now.left_cost, now.left_slices) == (4, 175, Fraction("2.8"), 7)
    assert (stowed.unpacked["S"].grams, stowed.unpacked["S"].cost) == (750, 12)
    assert (stowed.unpacked["D"].grams, stowed.unpacked["D"].cost) == (250, 4)
    assert (stowed.gone["eaten"].grams, stowed.gone["eaten"].cost) == (75, Fraction("1.2"))
    assert (stowed.on_hand.grams, stowed.on_hand.cost) == (1175, Fraction("18.8"))


def test_what_is_sold_brings_money_and_the_rest_goes_whole():
    gone = [taking(fate="sold", slices=5, income=Fraction("4.50")), taking(fate="given")]
    stowed = follow_packs(mains(), [pack()], gone)
    assert (stowed.gone["sold"].cost, stowed.gone["sold"].income) == (2, Fraction("4.5"))
    assert (stowed.gone["given"].cost, stowed.gone["given"].income) == (2, 0)
    assert (stowed.packs["P1"].left_grams, stowed.packs["P1"].left_slices) == (0, 0)
    assert list(stowed.gone) == ["sold", "given"]


@pytest.mark.parametrize(
    ("grams", "left"), [("250.5", "0"), ("250", "0"), ("249.7", "0.3"), ("249.5", "0.5"), ("1", "249")]
)
def test_half_a_gram_more_than_is_left_takes_what_is_left(grams, left):
    stowed = follow_packs(mains(), [pack(slices=None)], [taking(grams=Fraction(grams))])
    assert stowed.packs["P1"].left_grams == Fraction(left)


def test_slices_are_known_until_a_part_is_taken_by_weight():
    stowed = follow_packs(mains(), [pack()], [taking(slices=1), taking(grams=Fraction(25))])
    assert (stowed.packs["P1"].left_grams, stowed.packs["P1"].left_slices) == (200, None)
    stowed = follow_packs(mains(), [pack()], [taking(grams=Fraction(25)), taking()])
    assert stowed.packs["P1"].left_slices == 0
    assert follow_packs(mains(), [pack(slices=None)], [taking()]).packs["P1"].left_slices is None


def test_packs_a_little_heavier_than_their_piece_share_its_cost():
    """1010 g packed of 1000 g: all of its 16.00, nothing unpacked."""
    stowed = follow_packs(mains(), [pack(grams=505), pack("P2", grams=505)], [])
    assert [one.cost for one in stowed.packs.values()] == [8, 8]
    assert (stowed.unpacked["S"].grams, stowed.unpacked["S"].cost) == (0, 0)


@pytest.mark.parametrize(
    ("packs", "gone", "field", "reason"),
    [
        ([pack(piece="L")], [], "packs[0].piece", "unknown_piece"),
        ([pack(piece="X")], [], "packs[0].piece", "unknown_piece"),
        ([pack(), pack()], [], "packs[1].id", "same_mark"),
        ([pack(grams=0)], [], "packs[0].weight", "no_weight"),
        ([pack(grams=600), pack("P2", grams=411)], [], "packs[1].weight", "overweight"),
        ([pack(slices=30), pack("P2", slices=11)], [], "packs[1].slices", "too_many_slices"),
        ([pack(piece="D", grams=90, slices=1)], [], "packs[0].slices", "too_many_slices"),
        ([pack()], [taking("P2")], "gone[0].pack", "unknown_pack"),
        ([pack()], [taking(grams=Fraction("250.6"))], "gone[0].weight", "more_than_left"),
        ([pack()], [taking(grams=Fraction(0))], "gone[0].weight", "no_weight"),
        ([pack()], [taking(slices=9), taking(slices=2)], "gone[1].slices", "more_than_left"),
        ([pack()], [taking(), taking()], "gone[1].all", "pack_empty"),
        ([pack()], [taking(), taking(grams=Fraction("0.4"))], "gone[1].all", "pack_empty"),
        ([pack()], [taking(), taking(slices=1)], "gone[1].slices", "more_than_left"),
        ([pack(slices=None)], [taking(slices=1)], "gone[0].slices", "no_slices"),
        ([pack()], [taking(grams=Fraction(1)), taking(slices=1)], "gone[1].slices", "no_slices"),
        ([pack()], [taking(income=Fraction(0))], "gone[0].income", "income"),
        ([pack()], [taking(fate="sold", income=Fraction(-1))], "gone[0].income", "negative"),
        ([], [taking()], "gone[0].pack", "unknown_pack"),
    ],
)
def test_what_cannot_have_been_is_refused_at_its_place(packs, gone, field, reason):
    with pytest.raises(LedgerError) as refused:
        follow_packs(mains(), packs, gone)
    assert (refused.value.field, refused.value.reason) == (field, reason)


def test_a_hundredth_more_is_two_scales():
    packs = [pack(grams=600), pack("P2", grams=410)]
    assert follow_packs(mains(), packs, []).on_hand.cost == 20


GRAMS = st.fractions(min_value=Fraction(1, 10), max_value=400, max_denominator=1000)


@st.composite
def histories(draw):
    """Packs of the 40 slices, and takings of which those that cannot be are left out."""
    packs = []
    for number in range(draw(st.integers(1, 5))):
        slices = draw(st.none() | st.integers(1, 8))
        packs.append(pack(f"P{number}", grams=draw(GRAMS) / 2, slices=slices))
    wanted = st.one_of(
        st.builds(lambda n: {"slices": n}, st.integers(1, 6)),
        st.builds(lambda g: {"grams": g}, GRAMS),
        st.just({}),
    )
    gone = []
    for _ in range(draw(st.integers(0, 12))):
        fate = draw(st.sampled_from(FATES))
        income = draw(st.none() | st.fractions(0, 50)) if fate in EARNING else None
        mark = draw(st.sampled_from([one.id for one in packs]))
        one = Taking(pack=mark, fate=fate, income=income, **draw(wanted))
        try:
            follow_packs(mains(), packs, [*gone, one])
        except LedgerError:
            continue
        gone.append(one)
    return packs, gone


@given(histories(), st.fractions(0, 100), st.fractions(Fraction(99, 100), 2))
def test_everything_made_is_in_the_larder_or_gone_whatever_is_corrected_upstream(history, paid, heavier):
    packs, gone = history
    # a price, or a piece's weight, corrected upstream: the packs cost otherwise, and still all of it
    pieces = mains(paid=paid, grams=KILO * heavier)
    stowed = follow_packs(pieces, packs, gone)
    whole = together([*stowed.gone.values(), stowed.on_hand])
    assert whole.cost == sum(piece.cost for piece in pieces)
    packed = sum(one.grams for one in packs)
    assert whole.grams == sum(piece.grams for piece in pieces) + max(0, packed - pieces[0].grams)
    assert whole.income == sum(one.income or 0 for one in gone)
    assert together(stowed.takings).cost == together(stowed.gone.values()).cost
    for now in stowed.packs.values():
        assert 0 <= now.left_grams <= now.pack.grams
        assert (now.left_slices or 0) >= 0
        # a slice gone is that share of the pack as made
        if now.left_slices is not None and now.left_slices:
            assert now.left_grams == now.pack.grams * now.left_slices / now.pack.slices


def test_at_the_limits_it_is_taken():
    """The last slices, packs of 1 % more than the piece and of all its slices, and income of nothing."""
    stowed = follow_packs(
        mains(), [pack(grams=1010, slices=40)], [taking(fate="sold", slices=40, income=Fraction(0))]
    )
    assert (stowed.packs["P1"].left_slices, stowed.on_hand.grams) == (0, 250)


def test_what_is_taken_after_a_weighing_is_so_much_of_what_it_weighs():
    """250 g that weigh 200: a hundred is half of it, at half its cost; then the rest weighs 90."""
    happened = [Weighed(pack="P1", grams=Fraction(200)), taking(grams=Fraction(100))]
    now = follow_packs(mains(), [pack()], happened).packs["P1"]
    assert (now.left_grams, now.here_grams, now.left_cost) == (125, 100, 2)
    later = follow_packs(mains(), [pack()], [*happened, Weighed(pack="P1", grams=Fraction(90))])
    assert (later.packs["P1"].here_grams, later.packs["P1"].left_cost) == (90, 2)
    assert later.on_hand.grams == 90 + 750 + 250
    with pytest.raises(LedgerError) as refused:
        follow_packs(mains(), [pack()], [*happened, taking(grams=Fraction("100.6"))])
    assert refused.value.field == "gone[1].weight"
    # of one that is empty nothing is left to weigh
    empty = follow_packs(mains(), [pack()], [taking(), Weighed(pack="P1", grams=Fraction(5))])
    assert empty.packs["P1"].here_grams == 0


@given(histories())
def test_weighing_packs_again_changes_no_cost(history):
    packs, gone = history
    heavy = [Weighed(pack=one.id, grams=one.grams * 2) for one in packs]
    dearer = follow_packs(mains(), packs, [*gone, *heavy])
    plain = follow_packs(mains(), packs, gone)
    assert {fate: share.cost for fate, share in dearer.gone.items()} == {
        fate: share.cost for fate, share in plain.gone.items()
    }
    assert dearer.on_hand.cost == plain.on_hand.cost
    for mark, now in dearer.packs.items():
        assert now.here_grams == (now.pack.grams * 2 if plain.packs[mark].left_grams else 0)
    # weighed first as it was, all goes on as if nobody had
    same = [Weighed(pack=one.id, grams=one.grams) for one in packs]
    assert follow_packs(mains(), packs, [*same, *gone]).gone == plain.gone
