"""Reads: what is to be done, and the same as a calendar."""

import uuid
from collections.abc import Collection, Sequence
from datetime import datetime, timedelta
from typing import Final

from django.db.models import Q, QuerySet
from icalendar import Calendar, Event

from dolmetsch.core.planning.plan import ACT_WORDS, ActKind
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.pieces.queries import Facts, gather_facts, show_place, sorts_of
from dolmetsch.server.plans import schemas
from dolmetsch.server.plans.models import ActNews, PlannedAct
from dolmetsch.server.plans.over import find_over
from dolmetsch.server.quantities.printing import print_day

#: So many acts are shown at once; what was ticked off stays in sight for a while.
SHOWN: Final = 80
#: So many are looked at, to leave out what a weighing shows to be over.
LOOKED_AT: Final = 400
IN_SIGHT: Final = timedelta(hours=18)
#: An act without minutes takes so long in a calendar.
CALENDAR_MINUTES: Final = 15


def read_plan(kitchen: Kitchen, now: datetime, *, days: int, code: str = "") -> schemas.PlanOut:
    """Acts due within ``days``, late ones too, and those lately ticked off; of one batch or of all."""
    mine = PlannedAct.objects.filter(kitchen=kitchen)
    if code:
        mine = mine.filter(batch__code=code)
    # of one batch all that was done is shown
    done = Q(state="done") if code else Q(state="done", changed_at__gte=now - IN_SIGHT)
    ordered = _with_batch(mine.filter(Q(state="open") | done)).order_by("due_at", "id")
    looked_at = list(ordered[:LOOKED_AT])
    over = find_over(looked_at)
    kept = [act for act in looked_at if code or act.pk not in over]
    until = now + timedelta(days=days)
    acts = [act for act in kept if act.due_at <= until or act.state == "done"]
    coming = [act for act in kept if act.due_at > until and act.state == "open" and act.pk not in over]
    more = len(coming) + max(0, len(acts) - SHOWN)
    return schemas.PlanOut(now=now, acts=show_acts(kitchen, acts[:SHOWN], now, over=over), more=more)


def _with_batch(acts: QuerySet[PlannedAct]) -> QuerySet[PlannedAct]:
    """With the batch of each, but for what that keeps of itself: it is long, and one batch has many acts."""
    kept = ("batch__page", "batch__figures", "batch__summary")
    return acts.select_related("batch", "recorded_by").defer(*kept)


def show_acts(
    kitchen: Kitchen, acts: Sequence[PlannedAct], now: datetime, *, over: Collection[int] = ()
) -> list[schemas.PlannedOut]:
    """Acts as shown; those ``over`` are behind their pieces by what was weighed, so they are done."""
    news: dict[int, ActNews] = {}
    for one in ActNews.objects.filter(act__in=acts).select_related("recorded_by").order_by("id"):
        news[one.act_id] = one
    facts = gather_facts({act.batch for act in acts})
    sorts = sorts_of(kitchen)
    counted = _count({act.follows for act in acts}, kitchen)
    shown = []
    for act in acts:
        told = news.get(act.pk)
        place_in, of = counted.get(act.pk, (1, 1))
        shown.append(
            schemas.PlannedOut.model_validate(
                {
                    "uid": act.uid,
                    "kind": act.kind,
                    "words": words_of(act),
                    "code": act.batch.code,
                    "name": act.batch.name,
                    "marks": act.marks,
                    "due_at": act.due_at,
                    "until_at": act.until_at,
                    "minutes": act.minutes,
                    "state": "done" if act.pk in over else act.state,
                    "done_at": told.happened_at if told and act.state == "done" else None,
                    "by": told.recorded_by.called if told else None,
                    "is_late": act.state == "open" and act.pk not in over and now > act.until_at,
                    "count": place_in,
                    "of": of,
                    "where": _tell_where(act, facts, sorts),
                    "told": "shown by the weighing" if act.pk in over else _tell_window(act),
                    "taste": told.taste if told else "",
                }
            )
        )
    return shown


def _tell_where(act: PlannedAct, facts: dict[tuple[int, str], Facts], sorts: dict[str, str]) -> str:
    """Shelves and racks its pieces lie on, each store named once: "Fridge 1: shelf 1, shelf 3"."""
    levels: dict[str, list[str]] = {}
    for mark in act.marks:
        known = facts.get((act.batch_id, mark))
        place = None if known is None else show_place(known, sorts)
        if place is not None and place.level_text not in levels.setdefault(place.store, []):
            levels[place.store].append(place.level_text)
    return "; ".join(f"{store}: {', '.join(sorted(told))}" for store, told in levels.items())


def words_of(act: PlannedAct) -> str:
    """What an act is called."""
    return act.words or ACT_WORDS[_kind(act)]


def _kind(act: PlannedAct) -> ActKind:
    return next(kind for kind in ACT_WORDS if kind == act.kind)


def _count(follows: set[uuid.UUID], kitchen: Kitchen) -> dict[int, tuple[int, int]]:
    """Which of how many of its kind each act is, among those planned together and not dropped."""
    rows: QuerySet[PlannedAct] = PlannedAct.objects.filter(kitchen=kitchen, follows__in=follows)
    groups: dict[tuple[object, str], list[int]] = {}
    for pk, follow, kind in (
        rows.exclude(state="dropped").order_by("due_at", "id").values_list("pk", "follows", "kind")
    ):
        groups.setdefault((follow, kind), []).append(pk)
    return {pk: (at + 1, len(pks)) for pks in groups.values() for at, pk in enumerate(pks)}


def _tell_window(act: PlannedAct) -> str:
    if act.kind == "out":
        return f"window closes {print_day(act.until_at)}"
    return f"for {act.minutes} minutes" if act.minutes and act.minutes < 120 else ""


def write_calendar(kitchen: Kitchen, *, code: str = "") -> bytes:
    """All acts as an iCalendar file (RFC 5545); each keeps its UID, so that a later file updates it."""
    calendar = Calendar()
    calendar.add("prodid", "-//Dolmetsch//cure plan//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{kitchen.name}: curing")
    acts = _with_batch(PlannedAct.objects.filter(kitchen=kitchen)).order_by("due_at", "id")
    wanted = list(acts.filter(batch__code=code) if code else acts)
    over = find_over(wanted)
    for act in wanted:
        calendar.add_component(_event(act, is_over=act.pk in over))
    written: bytes = calendar.to_ical()
    return written


def _event(act: PlannedAct, *, is_over: bool) -> Event:
    event = Event()
    marks = " · ".join(act.marks)
    done = "✓ " if is_over or act.state == "done" else ""
    event.add("uid", f"{act.uid}@dolmetsch")
    event.add("dtstamp", act.changed_at)
    event.add("last-modified", act.changed_at)
    event.add("sequence", act.changes)
    event.add("dtstart", act.due_at)
    minutes = act.minutes if act.minutes and act.minutes <= 120 else CALENDAR_MINUTES
    event.add("dtend", act.due_at + timedelta(minutes=minutes))
    event.add("summary", f"{done}{words_of(act)}: {act.batch.code} {marks}".strip())
    event.add("description", f"{act.batch.name}. {_tell_window(act)}".strip())
    event.add("status", "CANCELLED" if act.state == "dropped" else "CONFIRMED")
    event.add("transp", "TRANSPARENT")
    return event
