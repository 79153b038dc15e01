"""Reads: the lanes, from what was recorded (map, cures, hooks, fires, packs) and the list of tasks."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from fractions import Fraction
from typing import Final

from django.db.models import Count, Max, Min, Sum
from django.utils import timezone

from dolmetsch.core.drying.follow_drying import follow_drying
from dolmetsch.core.numbers.span import TimeForecast
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.fires.followed import follow_fire
from dolmetsch.server.fires.queries import list_open
from dolmetsch.server.fires.story import moment_of
from dolmetsch.server.hooks.drying import build_log, follow_hook
from dolmetsch.server.hooks.models import Hook
from dolmetsch.server.hooks.queries import list_hanging
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.lanes import schemas
from dolmetsch.server.larder.models import PackNow
from dolmetsch.server.pieces.models import PieceFact, Store
from dolmetsch.server.pieces.queries import NOWHERE, list_stores
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.plans.over import find_over
from dolmetsch.server.plans.queries import words_of
from dolmetsch.server.quantities.calendar import print_day
from dolmetsch.server.quantities.printing import print_weight
from dolmetsch.server.upward import Upward

#: Tasks that end a stay in the place a piece lies in, and what the stay is.
_ENDS: Final[dict[str, schemas.StayKind]] = {"out": "cure", "smoke": "wait", "hang": "wait"}
_STAY_WORDS: Final[dict[schemas.StayKind, str]] = {"cure": "cure", "wait": "rest"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Lying:
    """A piece under way, and where it lies since when; ``store`` empty: nobody said."""

    batch: int
    code: str
    name: str
    mark: str
    store: str
    since: datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class Stay:
    """What a piece does where it lies: until ``ends``, ``latest`` at the longest."""

    kind: schemas.StayKind
    words: str
    begins: datetime
    ends: datetime | None = None
    latest: datetime | None = None


Piece = tuple[int, str]


Planned = Callable[[Kitchen, datetime, str], Iterable[tuple[str, schemas.StayOut]]]
#: Stays of plans that are on the list, by their store: (kitchen, from when on, the plan left out).
planned_stays: Final = Upward[Planned]("meal plans")


def read_lanes(kitchen: Kitchen, now: datetime, *, days: int, apart_from: str = "") -> schemas.LanesOut:
    """Every store with who lies in it until when, and the tasks of ``days`` from today on; the stays of the
    plan ``apart_from`` left out.
    """
    first = timezone.make_aware(datetime.combine(timezone.localdate(now), time()))
    end = first + timedelta(days=days)
    stores = list_stores(kitchen)
    lying = list(list_lying(kitchen))
    tasks = list_tasks(kitchen)
    hooks = {(hook.batch_id, follow_hook(hook).mark): hook for hook in list_hanging(kitchen)}
    fires = dict(_list_fires(kitchen))
    bars: dict[str, list[schemas.StayOut]] = defaultdict(list)
    for (_, store, stay), group in _group(lying, tasks, hooks, fires).items():
        bars[same_name(store)].append(_show_bar(group, stay, tasks, now))
    for store, bar in _list_planned(lying, tasks, stores, until=end):
        bars[same_name(store)].append(bar)
    for store, bar in _list_packs(kitchen, now):
        bars[same_name(store)].append(bar)
    for store, bar in planned_stays()(kitchen, first, apart_from):
        if bar.begins < end:
            bars[same_name(store)].append(bar)
    lanes = [
        schemas.LaneOut(
            name=store.name,
            sort=store.sort,
            slots=store.levels * store.slots,
            bars=_in_order(bars.pop(same_name(store.name), [])),
        )
        for store in stores
    ]
    rest = _in_order(bar for left in bars.values() for bar in left)
    if rest:
        lanes.append(schemas.LaneOut(name="", sort="", slots=None, bars=rest))
    return schemas.LanesOut(now=now, first=first, days=days, lanes=lanes)


def list_lying(kitchen: Kitchen) -> Iterator[Lying]:
    """Every piece under way, and where it lies by the map."""
    under_way = list(
        Batch.objects.filter(kitchen=kitchen, is_finished=False)
        .order_by("code")
        .values_list("pk", "code", "name", "summary", "started_at")
    )
    laid: dict[Piece, PieceFact] = {}
    for row in PieceFact.objects.filter(batch__in=[pk for pk, *_ in under_way]).order_by("id"):
        if row.store:
            laid[(row.batch_id, row.mark)] = row
    for pk, code, name, summary, started_at in under_way:
        for piece in summary["mains"]:
            fact = laid.get((pk, piece["mark"]))
            is_laid = fact is not None and fact.store != NOWHERE
            yield Lying(
                batch=pk,
                code=code,
                name=name,
                mark=piece["mark"],
                store=fact.store if fact is not None and is_laid else "",
                since=started_at if fact is None else fact.recorded_at,
            )


def list_tasks(kitchen: Kitchen) -> list[PlannedTask]:
    """Open tasks that no weighing shows to be over, in order."""
    tasks = list(PlannedTask.objects.filter(kitchen=kitchen, state="open").order_by("due_at", "id"))
    over = find_over(tasks)
    return [task for task in tasks if task.pk not in over]


def _list_fires(kitchen: Kitchen) -> Iterator[tuple[Piece, tuple[datetime, TimeForecast | None]]]:
    """Pieces that are in the smoke now: since when, and when they will be ready."""
    for fire in list_open(kitchen):
        followed = follow_fire(fire)
        if followed.story.out_at is None:
            for piece in fire.pieces.all():
                yield (piece.batch_id, piece.mark), (fire.begun_at, followed.cook.ready)


def _group(
    lying: Iterable[Lying],
    tasks: Sequence[PlannedTask],
    hooks: Mapping[Piece, Hook],
    fires: Mapping[Piece, tuple[datetime, TimeForecast | None]],
) -> dict[tuple[int, str, Stay], list[Lying]]:
    """Pieces of one batch that do the same in the same place, as one bar."""
    groups: dict[tuple[int, str, Stay], list[Lying]] = defaultdict(list)
    last: dict[Piece, PlannedTask] = {}
    for task in tasks:
        if task.kind in _ENDS:
            for mark in task.marks:
                last.setdefault((task.batch_id, mark), task)
    for one in lying:
        key = (one.batch, one.mark)
        stay = _stay_of(one, last.get(key), hooks.get(key), fires.get(key))
        store = one.store or (hooks[key].chamber if key in hooks else "")
        groups[one.batch, store, stay].append(one)
    return groups


def _stay_of(
    one: Lying,
    last: PlannedTask | None,
    hook: Hook | None,
    fire: tuple[datetime, TimeForecast | None] | None,
) -> Stay:
    if fire is not None:
        begun, ready = fire
        span = None if ready is None else ready.span
        likely, high = (None, None) if span is None else (moment_of(span.likely), moment_of(span.high))
        return Stay(kind="smoke", words="in the smoke", begins=begun, ends=likely, latest=high)
    if hook is not None:
        return _hang(hook)
    if last is None:
        return Stay(kind="wait", words="waits", begins=one.since)
    kind = _ENDS[last.kind]
    latest = last.until_at if kind == "cure" else None
    return Stay(kind=kind, words=_STAY_WORDS[kind], begins=one.since, ends=last.due_at, latest=latest)


def _hang(hook: Hook) -> Stay:
    """A hanging piece, until it is likely to be dry."""
    span = follow_drying(build_log(hook, list(hook.notes.order_by("at", "id")))).dry.span
    if span is None:
        return Stay(kind="hang", words="hangs", begins=hook.hung_at)
    low, likely, high = (moment_of(moment) for moment in (span.low, span.likely, span.high))
    words = f"hangs, ready {print_day(low)} to {print_day(high)}"
    return Stay(kind="hang", words=words, begins=hook.hung_at, ends=likely, latest=high)


def _show_bar(
    group: Sequence[Lying], stay: Stay, tasks: Sequence[PlannedTask], now: datetime
) -> schemas.StayOut:
    marks = {one.mark for one in group}
    points = [
        schemas.TaskPointOut(at=task.due_at, words=words_of(task), is_late=now > task.until_at)
        for task in tasks
        if task.batch_id == group[0].batch and marks & set(task.marks)
    ]
    return schemas.StayOut(
        code=group[0].code,
        name=group[0].name,
        marks=sorted(marks),
        kind=stay.kind,
        words=stay.words,
        begins=stay.begins,
        ends=stay.ends,
        latest=stay.latest,
        is_planned=False,
        pieces=len(marks),
        points=points,
    )


def _list_planned(
    lying: Sequence[Lying], tasks: Sequence[PlannedTask], stores: Sequence[Store], *, until: datetime
) -> Iterator[tuple[str, schemas.StayOut]]:
    """What the list says of the days after the cure: dry where it lies, then the smoke or the chamber."""
    at = {(one.batch, one.mark): one for one in lying}
    first_of = {store.sort: store.name for store in reversed(stores)}
    for task in tasks:
        mine = [at[(task.batch_id, mark)] for mark in task.marks if (task.batch_id, mark) in at]
        if not mine or task.kind not in ("dry", "smoke", "hang") or task.due_at >= until:
            continue
        kind: schemas.StayKind = "dry" if task.kind == "dry" else "smoke" if task.kind == "smoke" else "hang"
        sort = {"smoke": "smoker", "hang": "chamber"}.get(task.kind, "")
        store = first_of.get(sort, "") if sort else mine[0].store
        ends = task.due_at + timedelta(minutes=task.minutes) if task.minutes else None
        yield (
            store,
            schemas.StayOut(
                code=mine[0].code,
                name=mine[0].name,
                marks=sorted(one.mark for one in mine),
                kind=kind,
                words={"dry": "dry", "smoke": "smoke"}.get(task.kind, "hang"),
                begins=task.due_at,
                ends=ends,
                latest=None,
                is_planned=True,
                pieces=len(mine),
                points=[],
            ),
        )


def _list_packs(kitchen: Kitchen, now: datetime) -> Iterator[tuple[str, schemas.StayOut]]:
    """The packs of each store as one stay, until the last is to be used; a point where the first is."""
    here = PackNow.objects.filter(kitchen=kitchen, is_gone=False).values("store")
    summed = here.annotate(
        packs=Count("pack"),
        grams=Sum("left_grams"),
        since=Min("pack__packed_at"),
        first=Min("keep_until"),
        last=Max("keep_until"),
    )
    for row in summed.order_by("store"):
        weight = print_weight(Fraction(row["grams"])).say(kitchen.weight_unit)
        yield (
            row["store"],
            schemas.StayOut(
                code="",
                name="",
                marks=[],
                kind="packs",
                words=f"{row['packs']} {'pack' if row['packs'] == 1 else 'packs'}, {weight}",
                begins=row["since"],
                ends=_end_of(row["last"]),
                latest=None,
                is_planned=False,
                pieces=0,
                points=[] if row["first"] is None else [_first_used(row["first"], now)],
            ),
        )


def _first_used(day: date, now: datetime) -> schemas.TaskPointOut:
    at = timezone.make_aware(datetime.combine(day, time(12)))
    return schemas.TaskPointOut(at=at, words="The first to be used", is_late=day < timezone.localdate(now))


def _end_of(day: date | None) -> datetime | None:
    return None if day is None else timezone.make_aware(datetime.combine(day, time(23, 59)))


def _in_order(bars: Iterable[schemas.StayOut]) -> list[schemas.StayOut]:
    return sorted(bars, key=lambda bar: (bar.begins, bar.code, bar.marks))
