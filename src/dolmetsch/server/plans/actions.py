"""Writes: tasks planned, and what became of them. Nothing moves by itself."""

import uuid
from collections.abc import Sequence
from datetime import datetime

from dolmetsch.core.planning.plan import Task, follow_taste, task_at
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch, get_piece
from dolmetsch.server.plans import schemas
from dolmetsch.server.plans.models import PlannedTask, TaskNews
from dolmetsch.server.problems import DomainError, not_found, refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once

State = PlannedTask.State


def plan_together(
    write: Write,
    batch: Batch,
    marks: Sequence[str],
    tasks: Sequence[Task],
    *,
    follows: uuid.UUID | None = None,
    words: str = "",
) -> list[PlannedTask]:
    """Plan ``tasks`` for pieces of ``batch`` as one whole, within a transaction of the caller's.

    ``words``: what they are called, where their kind says too little.
    """
    shared = follows or uuid.uuid4()
    return PlannedTask.objects.bulk_create(
        [_new_task(write, batch, marks, task, follows=shared, words=words) for task in tasks]
    )


def _new_task(
    write: Write, batch: Batch, marks: Sequence[str], task: Task, *, follows: uuid.UUID, words: str
) -> PlannedTask:
    return PlannedTask(
        batch=batch,
        uid=uuid.uuid4(),
        follows=follows,
        kind=task.kind,
        words=words,
        marks=list(marks),
        due_at=task.due,
        until_at=task.until,
        minutes=task.minutes,
        changed_at=write.now,
        **write.stamp,
    )


def plan_task(write: Write, batch: Batch, data: schemas.TaskIn) -> PlannedTask:
    """Plan one task by hand.

    Raises:
        DomainError: not_found (a piece), bad_fields, key_reused.
    """

    def plan() -> PlannedTask:
        costed = cost_batch(batch)
        for mark in data.marks:
            get_piece(costed, mark)
        reader = Reader.of(write.kitchen)
        if data.kind == "other":
            reader.need("words", data.words, "Say what is to be done.")
        reader.planned("due_at", data.due_at, now=write.now)
        if reader.problems:
            raise refuse_fields(reader.problems)
        marks = data.marks or [piece.id for piece in costed.sheet.ledger.mains]
        task = task_at(data.kind, data.due_at, minutes=data.minutes)
        planned = _new_task(write, batch, marks, task, follows=uuid.uuid4(), words=data.words)
        planned.save(force_insert=True)
        return planned

    return keep_once(write, PlannedTask, plan)


def record_news(write: Write, uid: uuid.UUID, data: schemas.NewsIn) -> TaskNews:
    """Keep what became of a task.

    Raises:
        DomainError: not_found, already (it is done or dropped, or open as asked), bad_fields, key_reused.
    """

    def record() -> TaskNews:
        task = _find_task(write, uid)
        _refuse_again(task, data)
        _refuse_odd(write, task, data)
        news = TaskNews(
            task=task,
            sort=data.sort,
            happened_at=data.happened_at or write.now,
            due_before=task.due_at,
            due_now=data.due_at if data.due_at and data.sort == "moved" else task.due_at,
            taste=data.taste,
            note=data.note,
            **write.stamp,
        )
        news.save(force_insert=True)
        _apply(write, task, data)
        if data.sort == "done" and data.taste:
            _follow_taste(write, task, data, tasted=news.happened_at)
        return news

    return keep_once(write, TaskNews, record)


def _follow_taste(write: Write, task: PlannedTask, data: schemas.NewsIn, *, tasted: datetime) -> None:
    """Too salty: a soak and another tasting, unless they are planned already. Else no soak is needed."""
    later = PlannedTask.objects.filter(
        kitchen=write.kitchen,
        follows=task.follows,
        kind__in=["soak", "taste"],
        state=State.OPEN,
        due_at__gte=task.due_at,
    )
    planned = [one for one in later.exclude(pk=task.pk).order_by("pk") if set(one.marks) & set(task.marks)]
    if data.taste == "salty":
        if not planned:
            more = follow_taste(data.taste, tasted=tasted, soak_minutes=data.soak_minutes)
            plan_together(write, task.batch, task.marks, more, follows=task.follows)
        return
    for one in planned:
        TaskNews.objects.create(
            task=one,
            sort="dropped",
            happened_at=tasted,
            due_before=one.due_at,
            due_now=one.due_at,
            note="tasted: no soak needed",
            **{**write.stamp, "key": uuid.uuid5(write.key, str(one.uid))},
        )
        one.state, one.changes, one.changed_at = State.DROPPED, one.changes + 1, write.now
        one.save(update_fields=["state", "changes", "changed_at"])


def _refuse_odd(write: Write, task: PlannedTask, data: schemas.NewsIn) -> None:
    reader = Reader.of(write.kitchen)
    if data.sort == "moved" and data.due_at is None:
        reader.refuse("due_at", "missing", "Say when instead.")
    if data.due_at is not None:
        reader.planned("due_at", data.due_at, now=write.now)
    if data.happened_at is not None:
        reader.happened("happened_at", data.happened_at, now=write.now)
    if data.taste and task.kind != "taste":
        reader.refuse("taste", "no_taste", "Only a tasting has a taste.")
    if reader.problems:
        raise refuse_fields(reader.problems)


def _find_task(write: Write, uid: uuid.UUID) -> PlannedTask:
    task = PlannedTask.objects.filter(kitchen=write.kitchen, uid=uid).first()
    if task is None:
        raise not_found("such task")
    return task


def _refuse_again(task: PlannedTask, data: schemas.NewsIn) -> None:
    is_open = task.state == State.OPEN
    if (data.sort == "open") != is_open:
        return
    last = task.news.select_related("recorded_by").order_by("-id").first()
    who = last.recorded_by.called if last else task.recorded_by.called
    word = {State.DONE: "ticked off", State.DROPPED: "dropped"}.get(State(task.state), "open")
    said = f"This was already {word} by {who}. Nothing was written."
    raise DomainError("already", 409, "Already done", said)


def _apply(write: Write, task: PlannedTask, data: schemas.NewsIn) -> None:
    moved: list[PlannedTask] = [task]
    if data.sort == "moved" and data.due_at is not None:
        by = data.due_at - task.due_at
        if data.with_following:
            later = PlannedTask.objects.filter(
                kitchen=write.kitchen, follows=task.follows, state=State.OPEN, due_at__gt=task.due_at
            )
            moved += list(later.exclude(pk=task.pk))
        for one in moved:
            one.due_at, one.until_at = one.due_at + by, one.until_at + by
    else:
        task.state = {"done": State.DONE, "dropped": State.DROPPED}.get(data.sort, State.OPEN)
    for one in moved:
        one.changes += 1
        one.changed_at = write.now
        one.save(update_fields=["due_at", "until_at", "state", "changes", "changed_at"])
