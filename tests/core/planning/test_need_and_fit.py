"""How much to buy, and whether it fits: by hand, by brute force, and what must always hold."""

from datetime import UTC, date, datetime
from fractions import Fraction
from itertools import pairwise, product
from math import log

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.planning.fit import (
    Clash,
    HandsClash,
    Held,
    Room,
    find_clashes,
    find_hands_clashes,
    free_slots,
    lay,
    too_full,
)
from dolmetsch.core.planning.need import chance_enough, draw_odds, raw_needed, whole_packs

KEPT = Estimate(middle=0.6, log_deviation=0.08)


def test_raw_meat_for_three_kilos_sliced():
    """3000 ÷ 0.6 is 5000 g, enough every other time; nine times in ten e^(1.2816 · 0.08) as much: 5540 g."""
    need = raw_needed(3000, KEPT, chance=0.9)
    assert need.even == pytest.approx(5000)
    assert need.sure == pytest.approx(5539.9, abs=0.1)
    assert chance_enough(need.sure, 3000, KEPT) == pytest.approx(0.9)
    assert (chance_enough(1, 0, KEPT), chance_enough(5000, 3000, KEPT)) == (1, pytest.approx(0.5))


def test_whole_packs_hold_enough():
    assert [whole_packs(raw, Fraction(2500)) for raw in (0, 2500, 2502, 2600, 5540)] == [0, 1, 1, 2, 3]


@pytest.mark.parametrize(("kept", "chance"), [(0.0, 0.9), (0.6, 0.49), (0.6, 0.991)])
def test_what_cannot_be_asked_is_refused(kept, chance):
    with pytest.raises(ValueError, match="chance"):
        raw_needed(1, Estimate(middle=kept, log_deviation=0.1), chance=chance)


def pairs(least, most):
    return st.tuples(st.floats(least, most), st.floats(least, most)).map(sorted)


@given(pairs(1, 1e6), pairs(0.5, 0.99))
def test_more_portions_or_more_certainty_never_need_less(wanted, chances):
    (one, other), (chance, surer) = wanted, chances
    least = raw_needed(one, KEPT, chance=chance).sure * (1 - 1e-9)
    assert least <= raw_needed(other, KEPT, chance=chance).sure
    assert least <= raw_needed(one, KEPT, chance=surer).sure


def test_the_odds_are_drawn_around_the_middle_and_sum_to_one():
    points = draw_odds(3000, KEPT)
    assert points[len(points) // 2][0] == pytest.approx(5000)
    area = sum((b[0] - a[0]) * (a[1] + b[1]) / 2 for a, b in pairwise(points))
    assert area == pytest.approx(1, abs=0.01)
    assert log(points[-1][0] / 5000) == pytest.approx(3 * 0.08)
    assert draw_odds(0, KEPT) == draw_odds(1, Estimate(middle=0.6, log_deviation=0)) == []


def at(day, hour=12):
    return datetime(2026, 12, day, hour, tzinfo=UTC)


def held(who, room, slots, begins, ends, sort="fridge"):
    return Held(who=who, room=room, sort=sort, slots=slots, begins=at(begins), ends=at(ends))


FRIDGES = [Room(name="One", sort="fridge", slots=3), Room(name="Two", sort="fridge", slots=2)]


def test_a_room_too_full_says_by_how_many_until_when_and_who():
    """Two and two in three places from the third to the fifth; what only touches does not clash."""
    stays = [held("B-02", "One", 2, 1, 5), held("plan", "One", 2, 3, 8), held("later", "One", 1, 8, 9)]
    assert find_clashes(FRIDGES, stays) == [
        Clash(room="One", begins=at(3), ends=at(5), over=1, who=("B-02", "plan"))
    ]
    assert too_full(FRIDGES, stays) == 48
    assert free_slots(FRIDGES[0], stays, at(5), at(9)) == 1
    assert free_slots(FRIDGES[0], stays, at(4), at(6)) == 0
    assert free_slots(FRIDGES[1], stays, at(1), at(9)) == 2


def test_places_are_free_only_where_they_are_all_the_time():
    """Two from the second on, three more on the fourth alone; who comes as one leaves takes nothing."""
    room = Room(name="One", sort="fridge", slots=6)
    stays = [held("a", "One", 2, 2, 9), held("b", "One", 3, 4, 5), held("c", "One", 1, 9, 10)]
    assert (free_slots(room, stays, at(2), at(4)), free_slots(room, stays, at(2), at(6))) == (4, 1)
    assert free_slots(room, stays, at(5), at(9)) == 4
    assert free_slots(room, stays, at(8), at(10)) == 4


def test_one_clash_goes_on_while_it_is_too_full_and_another_begins_after_it():
    stays = [held("a", "Two", 2, 1, 9), held("b", "Two", 1, 2, 4), held("c", "Two", 2, 4, 5)]
    first, *rest = find_clashes(FRIDGES, [*stays, held("d", "Two", 1, 7, 8)])
    assert (first.begins, first.ends, first.over, first.who) == (at(2), at(5), 2, ("a", "b", "c"))
    assert [(one.begins, one.who) for one in rest] == [(at(7), ("a", "d"))]


def test_pieces_are_laid_where_they_fit_in_as_few_rooms_as_can_be():
    stays = [held("B-02", "One", 2, 1, 5)]
    piece = held("plan", "", 1, 3, 8)
    assert [one.room for one in lay(FRIDGES, stays, [piece, piece])] == ["Two", "Two"]
    assert sorted(one.room for one in lay(FRIDGES, stays, [piece] * 3)) == ["One", "Two", "Two"]
    assert lay(FRIDGES, [], [held("plan", "", 1, 1, 2, sort="smoker")])[0].room == ""
    assert lay(FRIDGES, [], []) == []


def test_many_pieces_are_laid_in_turn_each_where_most_is_free():
    laid = lay([Room(name="One", sort="fridge", slots=8), *FRIDGES[1:]], [], [held("p", "", 1, 1, 2)] * 13)
    assert sum(one.room == "One" for one in laid) in (9, 10, 11)
    assert too_full([Room(name="One", sort="fridge", slots=30)], laid) == 0


def test_laid_in_turn_each_lies_in_a_room_of_its_sort():
    smoker = Room(name="Drum", sort="smoker", slots=2)
    names = [Room(name=f"F{at}", sort="fridge", slots=9) for at in range(9)]
    pieces = [
        *(held("p", "", 1, day, day + 1) for day in range(1, 8)),
        held("p", "", 1, 1, 2, sort="smoker"),
    ]
    laid = lay([*names, smoker], [], pieces)
    assert [one.room == "Drum" for one in laid] == [one.sort == "smoker" for one in laid]


rooms = st.lists(st.integers(1, 3), min_size=1, max_size=3).map(
    lambda sizes: [Room(name=str(at), sort="fridge", slots=size) for at, size in enumerate(sizes)]
)
stays = st.lists(
    st.tuples(st.integers(1, 8), st.integers(1, 6), st.integers(1, 2)).map(
        lambda each: held("x", "", each[2], each[0], each[0] + each[1])
    ),
    max_size=4,
)


@given(rooms, stays, st.integers(0, 2))
def test_the_layout_is_the_best_there_is(several, wanted, taken):
    """Against every layout there is."""
    here = [held("here", several[at % len(several)].name, 1, 2, 5) for at in range(taken)]
    best = min(
        too_full(several, [*here, *(held_in(one, room) for one, room in zip(wanted, chosen, strict=True))])
        for chosen in product(several, repeat=len(wanted))
    )
    assert too_full(several, [*here, *lay(several, here, wanted)]) == best


def held_in(one, room):
    return Held(who="x", room=room.name, sort="fridge", slots=one.slots, begins=one.begins, ends=one.ends)


@given(rooms, stays)
def test_a_bigger_fridge_never_adds_a_clash(several, wanted):
    laid = [held_in(one, several[at % len(several)]) for at, one in enumerate(wanted)]
    bigger = [Room(name=room.name, sort=room.sort, slots=room.slots + 1) for room in several]
    assert too_full(bigger, laid) <= too_full(several, laid)
    assert bool(find_clashes(several, laid)) == (too_full(several, laid) > 0)


def test_a_day_with_more_work_than_hands():
    work = [(date(2026, 12, 4), 200), (date(2026, 12, 3), 240), (date(2026, 12, 4), 100)]
    assert find_hands_clashes(work, minutes_a_day=240) == [
        HandsClash(day=date(2026, 12, 4), minutes=300, over=60)
    ]
