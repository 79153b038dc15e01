"""Whether a plan fits: its pieces laid in fridges, smokers and chambers beside all that lies there."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from math import ceil
from typing import Final

from django.utils import timezone

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
from dolmetsch.server.quantities.printing import print_day

#: What the plan's own pieces are called among those that lie in a store.
MINE: Final = "this plan"
#: Pieces that are laid one by one; of more, so many together take the places of one another.
MOST_LAID: Final = 6
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
    """Where the plan's jobs lie (each job's rooms, by its place among them), and what does not fit."""

    rooms_of: dict[int, tuple[str, ...]]
    clashes: list[Clash]
    hands: list[HandsClash]
    missing: list[str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Surroundings:
    """Rooms, who lies in them now and by the list, and the lanes that show it."""

    rooms: list[Room]
    held: list[Held]
    lanes: LanesOut


def look_around(kitchen: Kitchen, now: datetime, *, until: datetime, apart_from: str) -> Surroundings:
    """What the kitchen has, and who lies where, up to a day after ``until``; what the plan ``apart_from``
    itself has on the list left out.
    """
    days = max(1, (timezone.localdate(until) - timezone.localdate(now)).days + 2)
    lanes = read_lanes(kitchen, now, days=days, apart_from=apart_from)
    end = lanes.first + timedelta(days=days)
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
    ]
    return Surroundings(rooms=rooms, held=held, lanes=lanes)


def fit_plan(
    around: Surroundings,
    placed: Sequence[PlacedJob],
    *,
    pieces: int,
    loads: int,
    minutes_a_day: int | None,
) -> Fitted:
    """Lay ``pieces`` for each of ``placed``; the smoker takes them in so many ``loads``."""
    rooms_of: dict[int, tuple[str, ...]] = {}
    laid: list[Held] = []
    missing: list[str] = []
    for stretch in _stretches(placed):
        first, last = placed[stretch[0]], placed[stretch[-1]]
        holder = first.job.holder
        count = ceil(pieces / loads) if holder == "smoker" else pieces
        if not any(room.sort == holder for room in around.rooms):
            missing.append(f"There is no {holder} on the map, so whether it fits there is not known.")
            continue
        mine = lay(around.rooms, [*around.held, *laid], _pieces(count, holder, first, last))
        laid += mine
        for index in stretch:
            rooms_of[index] = tuple(dict.fromkeys(one.room for one in mine))
    clashes = [clash for clash in find_clashes(around.rooms, [*around.held, *laid]) if MINE in clash.who]
    hands = [] if minutes_a_day is None else _find_hands(placed, minutes_a_day)
    return Fitted(rooms_of=rooms_of, clashes=clashes, hands=hands, missing=list(dict.fromkeys(missing)))


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


def _pieces(count: int, holder: str, first: PlacedJob, last: PlacedJob) -> list[Held]:
    """So many pieces; many of them in groups, each of which lies together."""
    groups = min(count, MOST_LAID)
    sizes = [count // groups + (at < count % groups) for at in range(groups)]
    return [
        Held(who=MINE, room="", sort=holder, slots=size, begins=first.start, ends=last.end) for size in sizes
    ]


def _find_hands(placed: Iterable[PlacedJob], minutes_a_day: int) -> list[HandsClash]:
    work = [(one.start.date(), one.job.hands_minutes) for one in placed]
    return find_hands_clashes(work, minutes_a_day=minutes_a_day)


def show_clashes(fitted: Fitted) -> list[schemas.ClashOut]:
    """What does not fit, in words."""
    found = [
        schemas.ClashOut(
            store=clash.room,
            begins=clash.begins,
            ends=clash.ends,
            words=(
                f"{clash.room}: {clash.over} {'place' if clash.over == 1 else 'places'} too few"
                f" {_say_span(clash.begins, clash.ends)}{_beside(clash)}."
            ),
        )
        for clash in fitted.clashes
    ]
    for hands in fitted.hands:
        begins = timezone.make_aware(datetime.combine(hands.day, datetime.min.time()))
        words = (
            f"Hands: {_hours(hands.minutes)} of work on {print_day(begins)},"
            f" {_hours(hands.over)} more than there are."
        )
        found.append(schemas.ClashOut(store="", begins=begins, ends=begins + timedelta(days=1), words=words))
    return found


def _say_span(begins: datetime, ends: datetime) -> str:
    """ "from 2 Mar to 5 Mar", or "on 2 Mar from 13:30 to 20:00" """
    first, last = timezone.localtime(begins), timezone.localtime(ends)
    if first.date() == last.date():
        return f"on {print_day(begins)} from {first:%H:%M} to {last:%H:%M}"
    return f"from {print_day(begins)} to {print_day(ends)}"


def _beside(clash: Clash) -> str:
    others = [who for who in clash.who if who != MINE]
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
    around: Surroundings, placed: Sequence[PlacedJob], fitted: Fitted, *, name: str
) -> list[LaneOut]:
    """The lanes with the plan's own stays among those that are there."""
    mine: dict[str, list[StayOut]] = defaultdict(list)
    for index, one in enumerate(placed):
        for room in fitted.rooms_of.get(index, ()):
            mine[room.casefold()].append(
                show_stay(one.job.kind, meal=name, begins=one.start, ends=one.end, pieces=0)
            )
    return [
        lane.model_copy(
            update={"bars": sorted([*lane.bars, *mine.get(lane.name.casefold(), [])], key=lambda b: b.begins)}
        )
        for lane in around.lanes.lanes
    ]
