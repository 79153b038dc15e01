"""Whether it fits: rooms with so many slots, who lies in them when, and hands by the day."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from itertools import combinations_with_replacement, pairwise, product
from math import prod
from typing import Final

#: So many ways of laying things out are all tried; with more, each takes the roomiest in turn.
MOST_TRIED: Final = 4096


@dataclass(frozen=True, slots=True, kw_only=True)
class Room:
    """Something that holds meat: a fridge, a smoker; ``slots``: pieces it has places for."""

    name: str
    sort: str
    slots: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Held:
    """``slots`` places of a room, taken by ``who`` from ``begins`` to ``ends``; ``room`` empty: none yet."""

    who: str
    room: str
    sort: str
    slots: int
    begins: datetime
    ends: datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class Clash:
    """A room that would hold more than it has places for: ``over`` too many, from ``begins`` to ``ends``."""

    room: str
    begins: datetime
    ends: datetime
    over: int
    who: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class HandsClash:
    """A day with more work than there are hands for, in minutes."""

    day: date
    minutes: int
    over: int


def find_clashes(rooms: Iterable[Room], held: Iterable[Held]) -> list[Clash]:
    """Where and when rooms are too full, by room in the order of time; what touches is one clash."""
    by_room: dict[str, list[Held]] = defaultdict(list)
    for one in held:
        by_room[one.room].append(one)
    found: list[Clash] = []
    for room in rooms:
        mine = by_room.get(room.name, [])
        moments = sorted({moment for one in mine for moment in (one.begins, one.ends)})
        open_clash: Clash | None = None
        for begins, ends in pairwise(moments):
            inside = [one for one in mine if one.begins < ends and one.ends > begins]
            over = sum(one.slots for one in inside) - room.slots
            if over <= 0:
                open_clash = None
                continue
            who = tuple(dict.fromkeys(one.who for one in inside))
            if open_clash is None:
                open_clash = Clash(room=room.name, begins=begins, ends=ends, over=over, who=who)
                found.append(open_clash)
            else:
                names = tuple(dict.fromkeys((*open_clash.who, *who)))
                most = max(over, open_clash.over)
                found[-1] = open_clash = replace(open_clash, ends=ends, over=most, who=names)
    return found


def free_slots(room: Room, held: Iterable[Held], begins: datetime, ends: datetime) -> int:
    """How many places of ``room`` are free from ``begins`` to ``ends``, all the time."""
    mine = [one for one in held if one.room == room.name and one.begins < ends and one.ends > begins]
    starts = [begins, *(one.begins for one in mine if one.begins > begins)]
    taken = (sum(one.slots for one in mine if one.begins <= at < one.ends) for at in starts)
    return max(0, room.slots - max(taken, default=0))


def lay(rooms: Sequence[Room], held: Sequence[Held], wanted: Sequence[Held]) -> list[Held]:
    """Each of ``wanted`` in a room of its sort, beside what is ``held``: the layout that is least too full
    (pieces too many, times hours), of equal ones the one with the fewest rooms.

    What meets in no room at no time is laid apart. All layouts are tried where there are few, pieces that are
    alike changing places; else each takes the room that has most places left. What has no room of its sort
    stays without.
    """
    return [one for meeting in _meetings(wanted) for one in _lay_together(rooms, held, meeting)]


def _meetings(wanted: Sequence[Held]) -> list[list[Held]]:
    """``wanted`` parted into those that may meet: of one sort, each overlapping another one's time."""
    found: list[list[Held]] = []
    ends: datetime | None = None
    for one in sorted(wanted, key=lambda each: (each.sort, each.begins, each.ends)):
        if found and ends is not None and found[-1][0].sort == one.sort and one.begins < ends:
            found[-1].append(one)
            ends = max(ends, one.ends)
        else:
            found.append([one])
            ends = one.ends
    return found


def _lay_together(rooms: Sequence[Room], held: Sequence[Held], wanted: Sequence[Held]) -> list[Held]:
    alike = Counter(wanted)
    sort = wanted[0].sort
    mine = [room for room in rooms if room.sort == sort]
    names = [room.name for room in mine] or [""]
    groups = [list(combinations_with_replacement(names, count)) for count in alike.values()]
    if prod(len(group) for group in groups) > MOST_TRIED:
        return _lay_in_turn(rooms, held, wanted)
    # only what lies there meanwhile is in the way
    beside = [one for one in held if one.sort == sort and any(_overlap(one, each) for each in alike)]
    rooms_full = {
        room.name: _Filling(room, [one for one in beside if one.room == room.name]) for room in mine
    }
    kinds = list(alike)
    best: tuple[tuple[float, int], tuple[tuple[str, ...], ...]] | None = None
    for chosen in product(*groups):
        inside = {
            name: tuple(names.count(name) for names in chosen) for names_of in chosen for name in names_of
        }
        badness = sum(rooms_full[name].badness(kinds, counts) for name, counts in inside.items() if name)
        if best is None or (badness, len(inside)) < best[0]:
            best = ((badness, len(inside)), chosen)
    if best is None:
        return []
    return [replace(one, room=name) for one, names in zip(kinds, best[1], strict=True) for name in names]


class _Filling:
    """How much too full a room is made by so many of each kind of stay, worked out once for each."""

    def __init__(self, room: Room, beside: Sequence[Held]) -> None:
        self._room, self._beside = room, beside
        self._known: dict[tuple[int, ...], float] = {}
        self._before = too_full([room], beside)

    def badness(self, kinds: Sequence[Held], counts: tuple[int, ...]) -> float:
        """What ``counts`` of each of ``kinds`` add to it."""
        if counts not in self._known:
            laid = [
                replace(one, room=self._room.name, slots=one.slots * count)
                for one, count in zip(kinds, counts, strict=True)
                if count
            ]
            self._known[counts] = too_full([self._room], [*self._beside, *laid]) - self._before
        return self._known[counts]


def _overlap(one: Held, other: Held) -> bool:
    return one.begins < other.ends and one.ends > other.begins


def _lay_in_turn(rooms: Sequence[Room], held: Sequence[Held], wanted: Sequence[Held]) -> list[Held]:
    laid: list[Held] = []
    for one in wanted:
        mine = [room for room in rooms if room.sort == one.sort]
        taken = [*held, *laid]
        roomiest = max(mine, key=lambda room: free_slots(room, taken, one.begins, one.ends), default=None)
        laid.append(replace(one, room="" if roomiest is None else roomiest.name))
    return laid


def too_full(rooms: Iterable[Room], held: Iterable[Held]) -> float:
    """Pieces too many, times the hours they are: 0 where all fits."""
    by_room: dict[str, list[Held]] = defaultdict(list)
    for one in held:
        by_room[one.room].append(one)
    hours = 0.0
    for room in rooms:
        mine = by_room.get(room.name, [])
        moments = sorted({moment for one in mine for moment in (one.begins, one.ends)})
        for begins, ends in pairwise(moments):
            taken = sum(one.slots for one in mine if one.begins < ends and one.ends > begins)
            hours += max(0, taken - room.slots) * ((ends - begins) / timedelta(hours=1))
    return hours


def find_hands_clashes(work: Iterable[tuple[date, int]], *, minutes_a_day: int) -> list[HandsClash]:
    """Days on which there is more work (day, minutes) than hands, in order."""
    by_day: dict[date, int] = defaultdict(int)
    for day, minutes in work:
        by_day[day] += minutes
    return [
        HandsClash(day=day, minutes=minutes, over=minutes - minutes_a_day)
        for day, minutes in sorted(by_day.items())
        if minutes > minutes_a_day
    ]
