"""Whether a plan fits: its pieces laid in fridges, smokers and chambers beside all that lies there."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from math import ceil
from typing import Final

from django.utils import timezone

from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.planning.count_back import PlacedJob
from dolmetsch.core.planning.fit import (
    Clash,
    HandsClash,
    Held,
    Room,
    find_clashes,
    find_hands_clashes,
    lay,
)
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.lanes.queries import read_lanes
from dolmetsch.server.lanes.schemas import LaneOut, LanesOut, StayKind, StayOut
from dolmetsch.server.meals import schemas
from dolmetsch.server.pieces.queries import list_stores
from dolmetsch.server.quantities.calendar import print_day, print_time
from dolmetsch.server.quantities.days import midnight_of
from dolmetsch.server.writing.kept_answers import keep_until_write

#: What the plan's own pieces are called among those that lie in a store.
MINE: Final = "this plan"
#: Pieces that are laid one by one; of more, so many together take the places of one another.
MOST_LAID: Final = 6
WEEK: Final = 7
#: A planned smoke of no known end takes half a day.
HALF_DAY: Final = timedelta(hours=12)
#: What a stay is called.
_STAY_WORDS: Final = {"rest": "dry", "cook": "smoke", "dry": "hang", "age": "hang"}
_KINDS: Final[dict[str, StayKind]] = {
    "cure": "cure",
    "rest": "dry",
    "chill": "wait",
    "age": "wait",
    "smoke": "smoke",
    "cook": "smoke",
    "dry": "hang",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Fitted:
    """Where the plan's jobs lie (each job's rooms, by its batch and its place there), what does not fit."""

    rooms_of: dict[tuple[int, int], tuple[str, ...]]
    clashes: list[Clash]
    hands: list[HandsClash]
    missing: list[str]
    names: list[str]

    @property
    def is_too_big(self) -> bool:
        """Whether the plan is in its own way somewhere: at another time that is no better."""
        return any(set(clash.who) <= set(self.names) for clash in self.clashes)


@dataclass(frozen=True, slots=True, kw_only=True)
class Surroundings:
    """Rooms, who lies in them now and by the list, the lanes that show it, and the minutes of ``work`` other
    plans ask for by day.
    """

    rooms: list[Room]
    held: list[Held]
    lanes: LanesOut
    work: Sequence[tuple[date, int]] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Laying:
    """A batch to be laid: its ``name``, jobs, ``pieces`` of so many ``places``, ``loads`` of the smoker."""

    name: str
    placed: Sequence[PlacedJob]
    pieces: int
    places: int
    loads: int


def look_around(
    kitchen: Kitchen,
    now: datetime,
    *,
    until: datetime,
    shown_until: datetime,
    apart_from: str,
    work: Sequence[tuple[date, int]] = (),
) -> Surroundings:
    """What the kitchen has, who lies where, and other plans' ``work``, up to a day after ``until``, of which
    lanes show what is up to ``shown_until``; what the plan ``apart_from`` itself has on the list left out.
    """
    days, shown = (
        max(1, (timezone.localdate(moment) - timezone.localdate(now)).days + 2)
        for moment in (until, shown_until)
    )
    # whole weeks, so that a plan moved by a day finds what was kept for it
    weeks = WEEK * -(-days // WEEK)
    lanes = keep_until_write(
        kitchen,
        now,
        ("meal lanes", weeks, apart_from),
        lambda: read_lanes(kitchen, now, days=weeks, apart_from=apart_from),
    )
    end = lanes.first + timedelta(days=weeks)
    lanes = lanes.model_copy(update={"days": shown})
    rooms = [
        Room(name=store.name, sort=store.sort, slots=store.levels * store.slots)
        for store in list_stores(kitchen)
    ]
    held = [
        Held(
            who=bar.code or bar.name,
            room=lane.name,
            sort=lane.sort,
            slots=bar.pieces,
            begins=bar.begins,
            # what has no end may lie there to the last day
            ends=bar.ends or (bar.begins + HALF_DAY if bar.is_planned else end),
        )
        for lane in lanes.lanes
        if lane.name
        for bar in lane.bars
        if bar.pieces
    ]
    return Surroundings(rooms=rooms, held=held, lanes=lanes, work=work)


def fit_plan(around: Surroundings, layings: Sequence[Laying], *, minutes_a_day: int | None) -> Fitted:
    """Lay the pieces of all ``layings`` for each of their jobs."""
    wanted: list[Held] = []
    stays: dict[tuple[str, datetime, datetime], list[tuple[int, int]]] = {}
    missing: list[str] = []
    names = [_name_of(laying, layings) for laying in layings]
    for batch, laying in enumerate(layings):
        for stretch in _stretches(laying.placed):
            first, last = laying.placed[stretch[0]], laying.placed[stretch[-1]]
            holder = first.job.holder
            count = ceil(laying.pieces / laying.loads) if holder == "smoker" else laying.pieces
            if not any(room.sort == holder for room in around.rooms):
                missing.append(f"There is no {holder} on the map, so whether it fits there is not known.")
                continue
            wanted += _pieces(count, laying.places, holder, first, last, who=names[batch])
            stays[names[batch], first.start, last.end] = [(batch, index) for index in stretch]
    laid = lay(around.rooms, around.held, wanted)
    rooms_of: dict[tuple[int, int], tuple[str, ...]] = {}
    for one in laid:
        for job in stays[one.who, one.begins, one.ends]:
            rooms_of[job] = tuple(dict.fromkeys((*rooms_of.get(job, ()), one.room)))
    clashes = [
        clash for clash in find_clashes(around.rooms, [*around.held, *laid]) if set(names) & set(clash.who)
    ]
    hands = [] if minutes_a_day is None else _find_hands(layings, around.work, minutes_a_day)
    return Fitted(
        rooms_of=rooms_of, clashes=clashes, hands=hands, missing=list(dict.fromkeys(missing)), names=names
    )


def _name_of(laying: Laying, layings: Sequence[Laying]) -> str:
    """What a batch of the plan is called among those that lie in a store."""
    return MINE if len(layings) == 1 else f"{MINE}'s {laying.name}"


def _stretches(placed: Sequence[PlacedJob]) -> list[list[int]]:
    """Jobs in a row that lie in the same kind of place, as one stay each: nobody moves meat for nothing."""
    found: list[list[int]] = []
    before = ""
    for index, one in enumerate(placed):
        holder = one.job.holder
        if holder and holder == before:
            found[-1].append(index)
        elif holder:
            found.append([index])
        before = holder
    return found


def _pieces(
    count: int, places: int, holder: str, first: PlacedJob, last: PlacedJob, *, who: str
) -> list[Held]:
    """So many pieces of so many places each; many of them in groups, each of which lies together."""
    groups = min(count, MOST_LAID)
    sizes = [count // groups + (at < count % groups) for at in range(groups)]
    return [
        Held(who=who, room="", sort=holder, slots=size * places, begins=first.start, ends=last.end)
        for size in sizes
    ]


def _find_hands(
    layings: Iterable[Laying], work: Iterable[tuple[date, int]], minutes_a_day: int
) -> list[HandsClash]:
    """Days of the plan's own work on which it is too much, other plans' work counted."""
    mine = [
        (one.start.date(), one.job.hands_minutes)
        for laying in layings
        for one in laying.placed
        if one.job.hands_minutes
    ]
    days = {day for day, _ in mine}
    beside = [(day, minutes) for day, minutes in work if day in days]
    return find_hands_clashes([*mine, *beside], minutes_a_day=minutes_a_day)


def show_clashes(fitted: Fitted, around: Surroundings) -> list[schemas.ClashOut]:
    """What does not fit, in words."""
    busy = {day for day, minutes in around.work if minutes}
    found = [
        schemas.ClashOut(
            store=clash.room,
            begins=clash.begins,
            ends=clash.ends,
            words=(
                f"{clash.room}: {clash.over} {'place' if clash.over == 1 else 'places'} too few"
                f" {_say_span(clash.begins, clash.ends)}{_beside(clash, fitted.names)}."
            ),
        )
        for clash in fitted.clashes
    ]
    for hands in fitted.hands:
        begins = midnight_of(hands.day)
        words = (
            f"Hands: {_hours(hands.minutes)} of work on {print_day(begins)},"
            f" {_hours(hands.over)} more than there are"
            f"{', jobs of other plans counted' if hands.day in busy else ''}."
        )
        found.append(schemas.ClashOut(store="", begins=begins, ends=begins + timedelta(days=1), words=words))
    return found


def _say_span(begins: datetime, ends: datetime) -> str:
    """ "from 2 Mar to 5 Mar", or "on 2 Mar from 13:30 to 20:00" """
    first, last = timezone.localtime(begins), timezone.localtime(ends)
    if first.date() == last.date():
        return f"on {print_day(begins)} from {print_time(first)} to {print_time(last)}"
    return f"from {print_day(begins)} to {print_day(ends)}"


def _beside(clash: Clash, names: Sequence[str]) -> str:
    """Who else lies there; of a plan that makes several things each of them too."""
    if len(names) > 1:
        return f" ({', '.join(clash.who)})"
    others = [who for who in clash.who if who not in names]
    return f", beside {', '.join(others)}" if others else ""


def _hours(minutes: int) -> str:
    return f"{minutes // 60} h {minutes % 60:02d}" if minutes >= 60 else f"{minutes} min"


def show_stay(kind: str, *, meal: str, begins: datetime, ends: datetime, pieces: int) -> StayOut:
    """The stay of so many ``pieces`` that a job of ``kind`` of the plan ``meal`` asks for."""
    return StayOut(
        code="",
        name=meal,
        marks=[],
        kind=_KINDS.get(kind, "wait"),
        words=_STAY_WORDS.get(kind, kind),
        begins=begins,
        ends=ends,
        latest=None,
        is_planned=True,
        pieces=pieces,
        points=[],
    )


def show_lanes(
    around: Surroundings, layings: Sequence[tuple[str, Sequence[PlacedJob]]], fitted: Fitted
) -> list[LaneOut]:
    """The lanes with the plan's own stays, each batch by its name, among those that are there."""
    mine: dict[str, list[StayOut]] = defaultdict(list)
    for batch, (name, placed) in enumerate(layings):
        for index, one in enumerate(placed):
            for room in fitted.rooms_of.get((batch, index), ()):
                mine[same_name(room)].append(
                    show_stay(one.job.kind, meal=name, begins=one.start, ends=one.end, pieces=0)
                )
    return [
        lane.model_copy(
            update={"bars": sorted([*lane.bars, *mine.get(same_name(lane.name), [])], key=lambda b: b.begins)}
        )
        for lane in around.lanes.lanes
    ]
