"""Reads: what is to be done, and the same as a calendar."""

import uuid
from collections.abc import Collection, Sequence
from datetime import datetime, timedelta
from typing import Final

from django.db.models import Q, QuerySet
from icalendar import Alarm, Calendar, Event

from dolmetsch.core.planning.plan import TASK_WORDS, TaskKind
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.pieces.queries import Facts, gather_facts, show_place, sorts_of
from dolmetsch.server.plans import schemas
from dolmetsch.server.plans.models import PlannedTask, TaskNews
from dolmetsch.server.plans.over import find_over
from dolmetsch.server.quantities.calendar import print_day

#: So many tasks are shown at once; what was ticked off stays in sight for a while.
SHOWN: Final = 80
#: So many are looked at, to leave out what a weighing shows to be over.
LOOKED_AT: Final = 400
IN_SIGHT: Final = timedelta(hours=18)
#: A task without minutes takes so long in a calendar.
CALENDAR_MINUTES: Final = 15


def read_plan(kitchen: Kitchen, now: datetime, *, days: int, code: str = "") -> schemas.PlanOut:
    """Tasks due within ``days``, late ones too, and those lately ticked off; of one batch or of all."""
    mine = PlannedTask.objects.filter(kitchen=kitchen)
    if code:
        mine = mine.filter(batch__code=code)
    # of one batch all that was done is shown
    done = Q(state="done") if code else Q(state="done", changed_at__gte=now - IN_SIGHT)
    ordered = _with_batch(mine.filter(Q(state="open") | done)).order_by("due_at", "id")
    looked_at = list(ordered[:LOOKED_AT])
    over = find_over(looked_at)
    kept = [task for task in looked_at if code or task.pk not in over]
    until = now + timedelta(days=days)
    tasks = [task for task in kept if task.due_at <= until or task.state == "done"]
    coming = [task for task in kept if task.due_at > until and task.state == "open" and task.pk not in over]
    more = len(coming) + max(0, len(tasks) - SHOWN)
    return schemas.PlanOut(now=now, tasks=show_tasks(kitchen, tasks[:SHOWN], now, over=over), more=more)


def _with_batch(tasks: QuerySet[PlannedTask]) -> QuerySet[PlannedTask]:
    """With the batch of each, but for what that keeps of itself: it is long, and one batch has many tasks."""
    return tasks.select_related("batch", "recorded_by").defer("batch__summary")


def show_tasks(
    kitchen: Kitchen, tasks: Sequence[PlannedTask], now: datetime, *, over: Collection[int] = ()
) -> list[schemas.PlannedOut]:
    """Tasks as shown; those ``over`` are behind their pieces by what was weighed, so they are done."""
    news: dict[int, TaskNews] = {}
    for one in TaskNews.objects.filter(task__in=tasks).select_related("recorded_by").order_by("id"):
        news[one.task_id] = one
    facts = gather_facts({task.batch for task in tasks})
    sorts = sorts_of(kitchen)
    counted = _count({task.follows for task in tasks}, kitchen)
    shown = []
    for task in tasks:
        latest = news.get(task.pk)
        place_in, of = counted.get(task.pk, (1, 1))
        shown.append(
            schemas.PlannedOut.model_validate(
                {
                    "uid": task.uid,
                    "kind": task.kind,
                    "words": words_of(task),
                    "code": task.batch.code,
                    "name": task.batch.name,
                    "marks": task.marks,
                    "due_at": task.due_at,
                    "until_at": task.until_at,
                    "minutes": task.minutes,
                    "state": "done" if task.pk in over else task.state,
                    "done_at": latest.happened_at if latest and task.state == "done" else None,
                    "by": latest.recorded_by.called if latest else None,
                    "is_late": task.state == "open" and task.pk not in over and now > task.until_at,
                    "count": place_in,
                    "of": of,
                    "where": _where(task, facts, sorts),
                    "text": "shown by the weighing" if task.pk in over else _window_text(task),
                    "taste": latest.taste if latest else "",
                }
            )
        )
    return shown


def _where(task: PlannedTask, facts: dict[tuple[int, str], Facts], sorts: dict[str, str]) -> str:
    """Shelves and racks its pieces lie on, each store named once: "Fridge 1: shelf 1, shelf 3"."""
    levels: dict[str, list[str]] = {}
    for mark in task.marks:
        known = facts.get((task.batch_id, mark))
        place = None if known is None else show_place(known, sorts)
        if place is not None and place.level_text not in levels.setdefault(place.store, []):
            levels[place.store].append(place.level_text)
    return "; ".join(f"{store}: {', '.join(sorted(names))}" for store, names in levels.items())


def words_of(task: PlannedTask) -> str:
    """What a task is called."""
    return task.words or TASK_WORDS[_kind(task)]


def _kind(task: PlannedTask) -> TaskKind:
    return next(kind for kind in TASK_WORDS if kind == task.kind)


def _count(follows: set[uuid.UUID], kitchen: Kitchen) -> dict[int, tuple[int, int]]:
    """Which of how many of its kind each task is, among those planned together and not dropped."""
    rows: QuerySet[PlannedTask] = PlannedTask.objects.filter(kitchen=kitchen, follows__in=follows)
    groups: dict[tuple[object, str], list[int]] = {}
    for pk, follow, kind in (
        rows.exclude(state="dropped").order_by("due_at", "id").values_list("pk", "follows", "kind")
    ):
        groups.setdefault((follow, kind), []).append(pk)
    return {pk: (at + 1, len(pks)) for pks in groups.values() for at, pk in enumerate(pks)}


def _window_text(task: PlannedTask) -> str:
    if task.kind == "out":
        return f"window closes {print_day(task.until_at)}"
    return f"for {task.minutes} minutes" if task.minutes and task.minutes < 120 else ""


def write_calendar(kitchen: Kitchen, *, code: str = "") -> bytes:
    """All tasks as an iCalendar file (RFC 5545); each keeps its UID, so that a later file updates it."""
    calendar = Calendar()
    calendar.add("prodid", "-//Dolmetsch//cure plan//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{kitchen.name}: curing")
    tasks = _with_batch(PlannedTask.objects.filter(kitchen=kitchen)).order_by("due_at", "id")
    wanted = list(tasks.filter(batch__code=code) if code else tasks)
    over = find_over(wanted)
    for task in wanted:
        calendar.add_component(_event(task, is_over=task.pk in over))
    written: bytes = calendar.to_ical()
    return written


def make_alarm(words: str) -> Alarm:
    """An alarm a quarter of an hour before."""
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", words)
    alarm.add("trigger", timedelta(minutes=-15))
    return alarm


def _event(task: PlannedTask, *, is_over: bool) -> Event:
    event = Event()
    marks = " · ".join(task.marks)
    done = "✓ " if is_over or task.state == "done" else ""
    event.add("uid", f"{task.uid}@dolmetsch")
    event.add("dtstamp", task.changed_at)
    event.add("last-modified", task.changed_at)
    event.add("sequence", task.changes)
    event.add("dtstart", task.due_at)
    minutes = task.minutes if task.minutes and task.minutes <= 120 else CALENDAR_MINUTES
    event.add("dtend", task.due_at + timedelta(minutes=minutes))
    event.add("summary", f"{done}{words_of(task)}: {task.batch.code} {marks}".strip())
    event.add("description", f"{task.batch.name}. {_window_text(task)}".strip())
    event.add("status", "CANCELLED" if task.state == "dropped" else "CONFIRMED")
    event.add("transp", "TRANSPARENT")
    if not done and task.state == "open":
        event.add_component(make_alarm(words_of(task)))
    return event
