"""Writes: acts planned, and what became of them. Nothing moves by itself."""

import uuid
from collections.abc import Sequence
from datetime import datetime

from dolmetsch.core.planning.plan import Act, act_at, follow_taste
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import get_piece, reckon_batch
from dolmetsch.server.plans import schemas
from dolmetsch.server.plans.models import ActNews, PlannedAct
from dolmetsch.server.problems import DomainError, not_found, refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once

State = PlannedAct.State


def plan_together(
    write: Write,
    batch: Batch,
    marks: Sequence[str],
    acts: Sequence[Act],
    *,
    follows: uuid.UUID | None = None,
    words: str = "",
) -> list[PlannedAct]:
    """Plan ``acts`` for pieces of ``batch`` as one whole, within a transaction of the caller's.

    ``words``: what they are called, where their kind says too little.
    """
    shared = follows or uuid.uuid4()
    return PlannedAct.objects.bulk_create(
        [_new_act(write, batch, marks, act, follows=shared, words=words) for act in acts]
    )


def _new_act(
    write: Write, batch: Batch, marks: Sequence[str], act: Act, *, follows: uuid.UUID, words: str
) -> PlannedAct:
    return PlannedAct(
        batch=batch,
        uid=uuid.uuid4(),
        follows=follows,
        kind=act.kind,
        words=words,
        marks=list(marks),
        due_at=act.due,
        until_at=act.until,
        minutes=act.minutes,
        changed_at=write.now,
        **write.stamp,
    )


def plan_act(write: Write, batch: Batch, told: schemas.ActIn) -> PlannedAct:
    """Plan one act by hand.

    Raises:
        DomainError: not_found (a piece), bad_fields, key_reused.
    """

    def plan() -> PlannedAct:
        reckoning = reckon_batch(batch)
        for mark in told.marks:
            get_piece(reckoning, mark)
        reader = Reader.of(write.kitchen)
        if told.kind == "other":
            reader.need("words", told.words, "Say what is to be done.")
        reader.planned("due_at", told.due_at, now=write.now)
        if reader.problems:
            raise refuse_fields(reader.problems)
        marks = told.marks or [piece.id for piece in reckoning.sheet.ledger.mains]
        act = act_at(told.kind, told.due_at, minutes=told.minutes)
        planned = _new_act(write, batch, marks, act, follows=uuid.uuid4(), words=told.words)
        planned.save(force_insert=True)
        return planned

    return keep_once(write, PlannedAct, plan)


def tell_news(write: Write, uid: uuid.UUID, told: schemas.NewsIn) -> ActNews:
    """Keep what became of an act.

    Raises:
        DomainError: not_found, already (it is done or dropped, or open as asked), bad_fields, key_reused.
    """

    def tell() -> ActNews:
        act = _find_act(write, uid)
        _refuse_again(act, told)
        _refuse_odd(write, act, told)
        news = ActNews(
            act=act,
            sort=told.sort,
            happened_at=told.happened_at or write.now,
            due_before=act.due_at,
            due_now=told.due_at if told.due_at and told.sort == "moved" else act.due_at,
            taste=told.taste,
            note=told.note,
            **write.stamp,
        )
        news.save(force_insert=True)
        _apply(write, act, told)
        if told.sort == "done" and told.taste:
            _follow_taste(write, act, told, tasted=news.happened_at)
        return news

    return keep_once(write, ActNews, tell)


def _follow_taste(write: Write, act: PlannedAct, told: schemas.NewsIn, *, tasted: datetime) -> None:
    """Too salty: a soak and another tasting, unless they are planned already. Else no soak is needed."""
    later = PlannedAct.objects.filter(
        kitchen=write.kitchen,
        follows=act.follows,
        kind__in=["soak", "taste"],
        state=State.OPEN,
        due_at__gte=act.due_at,
    )
    planned = [one for one in later.exclude(pk=act.pk).order_by("pk") if set(one.marks) & set(act.marks)]
    if told.taste == "salty":
        if not planned:
            more = follow_taste(told.taste, tasted=tasted, soak_minutes=told.soak_minutes)
            plan_together(write, act.batch, act.marks, more, follows=act.follows)
        return
    for one in planned:
        ActNews.objects.create(
            act=one,
            sort="dropped",
            happened_at=tasted,
            due_before=one.due_at,
            due_now=one.due_at,
            note="tasted: no soak needed",
            **{**write.stamp, "key": uuid.uuid5(write.key, str(one.uid))},
        )
        one.state, one.changes, one.changed_at = State.DROPPED, one.changes + 1, write.now
        one.save(update_fields=["state", "changes", "changed_at"])


def _refuse_odd(write: Write, act: PlannedAct, told: schemas.NewsIn) -> None:
    reader = Reader.of(write.kitchen)
    if told.sort == "moved" and told.due_at is None:
        reader.refuse("due_at", "missing", "Say when instead.")
    if told.due_at is not None:
        reader.planned("due_at", told.due_at, now=write.now)
    if told.happened_at is not None:
        reader.happened("happened_at", told.happened_at, now=write.now)
    if told.taste and act.kind != "taste":
        reader.refuse("taste", "no_taste", "Only a tasting has a taste.")
    if reader.problems:
        raise refuse_fields(reader.problems)


def _find_act(write: Write, uid: uuid.UUID) -> PlannedAct:
    act = PlannedAct.objects.filter(kitchen=write.kitchen, uid=uid).first()
    if act is None:
        raise not_found("such act")
    return act


def _refuse_again(act: PlannedAct, told: schemas.NewsIn) -> None:
    is_open = act.state == State.OPEN
    if (told.sort == "open") != is_open:
        return
    last = act.news.select_related("recorded_by").order_by("-id").first()
    who = last.recorded_by.called if last else act.recorded_by.called
    word = {State.DONE: "ticked off", State.DROPPED: "dropped"}.get(State(act.state), "open")
    said = f"This was already {word} by {who}. Nothing was written."
    raise DomainError("already", 409, "Already done", said)


def _apply(write: Write, act: PlannedAct, told: schemas.NewsIn) -> None:
    moved: list[PlannedAct] = [act]
    if told.sort == "moved" and told.due_at is not None:
        by = told.due_at - act.due_at
        if told.with_following:
            later = PlannedAct.objects.filter(
                kitchen=write.kitchen, follows=act.follows, state=State.OPEN, due_at__gt=act.due_at
            )
            moved += list(later.exclude(pk=act.pk))
        for one in moved:
            one.due_at, one.until_at = one.due_at + by, one.until_at + by
    else:
        act.state = {"done": State.DONE, "dropped": State.DROPPED}.get(told.sort, State.OPEN)
    for one in moved:
        one.changes += 1
        one.changed_at = write.now
        one.save(update_fields=["due_at", "until_at", "state", "changes", "changed_at"])
