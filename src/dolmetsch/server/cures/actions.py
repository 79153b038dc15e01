"""Writes: recipes kept, pieces put into the cure, a cure taken back."""

import uuid
from collections.abc import Sequence
from datetime import datetime, timedelta
from decimal import Decimal

from django.utils import timezone

from dolmetsch.core.curing.schools import SCHOOLS
from dolmetsch.core.ledger.course import COURSES, Course
from dolmetsch.core.numbers.quantity import GRAM_PLACES
from dolmetsch.core.planning.plan import Task, Wishes, plan_days
from dolmetsch.server.batches.entries.chain import list_entry_rows
from dolmetsch.server.batches.forecast.derived import renew
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.record.courses import state_course
from dolmetsch.server.batches.record.order import refuse_before_meat
from dolmetsch.server.batches.show.queries import cost_batch, get_batch
from dolmetsch.server.cures import typed
from dolmetsch.server.cures.desk import DeskPiece, DeskState, read_desk
from dolmetsch.server.cures.figures import spoons_of
from dolmetsch.server.cures.models import CureRecipe, CureTakenBack, PieceCure
from dolmetsch.server.cures.reading import read_recipe
from dolmetsch.server.cures.showing import show_desk
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.pieces.models import PieceFact
from dolmetsch.server.plans.actions import plan_together
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.problems import DomainError, FieldProblem, not_found, refuse_fields
from dolmetsch.server.quantities.reader import Reader, round_decimal
from dolmetsch.server.writing.kept import next_version
from dolmetsch.server.writing.once import Write, keep_once, once


def save_recipe(write: Write, data: typed.SaveRecipeIn) -> CureRecipe:
    """Keep the next version of a recipe.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def save() -> CureRecipe:
        name, version = next_version(write, CureRecipe, data.recipe.name)
        reader = Reader.of(write.kitchen)
        reader.need("recipe.name", data.recipe.name, "Give the recipe a name.")
        read_recipe(reader, data.recipe, spoons_of(write.kitchen), path="recipe.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        return CureRecipe.objects.create(
            name=name,
            version=version,
            input=data.recipe.model_dump(mode="json"),
            is_put_away=data.put_away,
            **write.stamp,
        )

    return keep_once(write, CureRecipe, save)


def put_in(write: Write, batch: Batch, data: typed.PutInIn) -> list[PieceCure]:
    """Put pieces into the cure: what was weighed out for each is kept, and the days to come are planned.

    A cure that is unwise is kept all the same, with its cautions; only what cannot be read, or cannot be
    mixed, is refused, and what is more likely a slip is asked about first.

    Raises:
        DomainError: not_found, bad_fields, ask (answer with ``sure``), key_reused.
    """
    return once(write, lambda: _find_put(write), lambda: _put_in(write, batch, data))


def _find_put(write: Write) -> list[PieceCure]:
    """The pieces put in with this key; none where nothing was."""
    done = list(PieceCure.objects.filter(kitchen=write.kitchen, key=write.key))
    for one in done:
        write.refuse_reused(one.fingerprint)
    return done


def _put_in(write: Write, batch: Batch, data: typed.PutInIn) -> list[PieceCure]:
    # two cooks at one desk: the second sees what the first put in, for the kitchen is locked
    laid = read_desk(batch, data)
    shown = show_desk(laid)
    in_at = data.in_at or write.now
    laid.reader.happened("in_at", in_at, now=write.now)
    refuse_before_meat(laid.reader, "in_at", in_at, list_entry_rows(batch))
    if laid.reader.problems:
        raise refuse_fields(laid.reader.problems)
    questions = [asked for piece in shown.pieces for asked in piece.questions]
    if questions and not data.sure:
        said = questions[0].message if len(questions) == 1 else "Some of this needs a yes first."
        raise DomainError("ask", 409, "Is that right?", said, questions)
    made = [
        _put_one(write, laid, one, answer=answer.model_dump(mode="json"), in_at=in_at)
        for one, answer in zip(laid.pieces, shown.pieces, strict=True)
    ]
    _plan(write, laid, data, in_at=in_at)
    for course in COURSES:
        if marks := [one.input.mark for one in laid.pieces if one.input.course == course]:
            state_course(write, batch, course, marks=marks)
    _renew_finished(get_batch(write.kitchen, batch.code))
    return made


def _put_one(
    write: Write, laid: DeskState, one: DeskPiece, *, answer: dict[str, object], in_at: datetime
) -> PieceCure:
    assert one.time is not None
    assert one.recipe is not None
    window = one.time.window
    recipe = _find_recipe(write.kitchen, one.input.recipe)
    if one.input.thickness or one.input.skin:
        _learn(write, laid.batch, one)
    return PieceCure.objects.create(
        batch=laid.batch,
        mark=one.input.mark,
        recipe=recipe,
        input=one.input.recipe.model_dump(mode="json"),
        answer=answer,
        green_grams=round_decimal(one.piece.grams, GRAM_PLACES),
        school=one.recipe.school,
        in_at=in_at,
        first_at=in_at + timedelta(days=window.first),
        last_at=in_at + timedelta(days=window.last),
        out_at=in_at + timedelta(days=one.out_day),
        mix=None if one.mix is None else one.mix.mix,
        mix_grams=None if one.mix is None else round_decimal(one.dry_grams, GRAM_PLACES),
        **write.stamp,
    )


def _find_recipe(kitchen: Kitchen, data: typed.RecipeIn) -> CureRecipe | None:
    """The kept version that says just this; None where what was typed was not kept."""
    if not data.name:
        return None
    latest = CureRecipe.objects.filter(kitchen=kitchen, name=data.name).order_by("-version").first()
    return latest if latest is not None and latest.input == data.model_dump(mode="json") else None


def _learn(write: Write, batch: Batch, one: DeskPiece) -> None:
    """What was entered of the piece at the desk becomes a fact of the piece."""
    assert one.cured is not None
    thick = one.cured.thickness_mm if one.input.thickness else None
    # its own key: one request may tell of several pieces
    stamp = {**write.stamp, "key": uuid.uuid5(write.key, one.input.mark)}
    PieceFact.objects.create(
        batch=batch,
        mark=one.input.mark,
        thickness_mm=None if thick is None else Decimal(f"{thick:.2f}"),
        skin=one.input.skin,
        **stamp,
    )


def _plan(write: Write, laid: DeskState, data: typed.PutInIn, *, in_at: datetime) -> None:
    """The days to come: pieces alike are planned together, and all that is turned on a day is one task."""
    turns: dict[tuple[Task, str], list[str]] = {}
    alike: dict[tuple[int, int, int, str, Course | None, bool], list[DeskPiece]] = {}
    local = timezone.localtime(in_at)
    for one in laid.pieces:
        assert one.time is not None
        window = one.time.window
        assert one.recipe is not None
        days = (window.first, window.last, one.out_day)
        alike.setdefault((*days, one.recipe.school, one.course, one.recipe.has_second_stage), []).append(one)
    for (_, _, out, school, _, is_staged), pieces in alike.items():
        assert pieces[0].time is not None
        wishes = Wishes(
            turn_days=_turn_days(pieces, data.wishes),
            out_day=out,
            dry_hours=data.wishes.dry_hours,
            soak_minutes=data.wishes.soak_minutes,
            reseason=data.wishes.reseason,
            spice_day=(data.wishes.spice_day or out) if is_staged else None,
            course=pieces[0].course,
        )
        tasks = plan_days(local, pieces[0].time.window, wishes)
        marks = [one.input.mark for one in pieces]
        for task in tasks:
            if task.kind == "turn":
                turns.setdefault((task, _turn_words(school)), []).extend(marks)
        plan_together(write, laid.batch, marks, [task for task in tasks if task.kind != "turn"])
    follows = uuid.uuid4()
    for (task, words), marks in turns.items():
        plan_together(write, laid.batch, sorted(marks), [task], follows=follows, words=words)


def _turn_days(pieces: Sequence[DeskPiece], wishes: typed.WishesIn) -> int:
    """As wished; what is only injected, and sausage meat, is not turned."""
    is_still = all(
        (one.recipe and not one.recipe.facts.turn_days) or one.product == "comminuted" for one in pieces
    )
    return 0 if is_still else wishes.turn_days


def _turn_words(school: str) -> str:
    """What turning is called; empty: as usual."""
    return "Turn in the brine" if SCHOOLS[school].method in ("brine", "pump_and_brine") else ""


def take_back(write: Write, batch: Batch, cure_id: int, data: typed.TakeBackIn) -> CureTakenBack:
    """A cure put down by mistake counts no more, and what was planned for it is dropped.

    Raises:
        DomainError: not_found, bad_fields, already, key_reused.
    """

    def take() -> CureTakenBack:
        cure = PieceCure.objects.filter(batch=batch, pk=cure_id).first()
        if cure is None:
            raise not_found("such cure")
        if not data.reason:
            said = "Give a reason: it stays in the record."
            raise refuse_fields([FieldProblem(path="reason", code="missing", message=said)])
        if CureTakenBack.objects.filter(cure=cure).exists():
            raise DomainError("already", 409, "Already so", "This cure has been canceled already.")
        still = {
            one.mark
            for one in PieceCure.objects.filter(batch=batch, key=cure.key, taken_back=None).exclude(
                pk=cure.pk
            )
        }
        for task in PlannedTask.objects.filter(batch=batch, key=cure.key, state=PlannedTask.State.OPEN):
            _drop(task, cure.mark, still, write)
        taken = CureTakenBack.objects.create(cure=cure, reason=data.reason, **write.stamp)
        # read again under the lock: what a finished batch kept is counted by the cure it was in
        _renew_finished(get_batch(write.kitchen, batch.code))
        return taken

    return keep_once(write, CureTakenBack, take)


def _renew_finished(batch: Batch) -> None:
    if batch.is_finished:
        renew(batch, cost_batch(batch))


def _drop(task: PlannedTask, mark: str, still: set[str], write: Write) -> None:
    """A task loses the piece; one that is for no other piece is dropped."""
    if mark not in task.marks:
        return
    task.marks = [one for one in task.marks if one in still and one != mark]
    if not task.marks:
        task.marks, task.state = [mark], PlannedTask.State.DROPPED
    task.changes, task.changed_at = task.changes + 1, write.now
    task.save(update_fields=["marks", "state", "changes", "changed_at"])
