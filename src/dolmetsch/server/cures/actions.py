"""Writes: recipes kept, pieces put into the cure, a cure taken back."""

import uuid
from collections.abc import Sequence
from datetime import datetime, timedelta
from decimal import Decimal

from django.utils import timezone

from dolmetsch.core.curing.schools import SCHOOLS
from dolmetsch.core.numbers.quantity import GRAM_PLACES
from dolmetsch.core.planning.plan import Act, Wishes, plan_days
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.cures import typed
from dolmetsch.server.cures.desk import Laid, LaidOut, lay_out_desk
from dolmetsch.server.cures.figures import spoons_of
from dolmetsch.server.cures.models import CureRecipe, CureTakenBack, PieceCure
from dolmetsch.server.cures.reading import read_recipe
from dolmetsch.server.cures.showing import show_desk
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.pieces.models import PieceFact
from dolmetsch.server.plans.actions import plan_together
from dolmetsch.server.plans.models import PlannedAct
from dolmetsch.server.problems import DomainError, FieldProblem, not_found, refuse_fields
from dolmetsch.server.quantities.reader import Reader, round_decimal
from dolmetsch.server.writing.kept import next_version
from dolmetsch.server.writing.once import Write, keep_once, once


def save_recipe(write: Write, told: typed.SaveRecipeIn) -> CureRecipe:
    """Keep the next version of a recipe.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def save() -> CureRecipe:
        version = next_version(write, CureRecipe, told.recipe.name)
        reader = Reader.of(write.kitchen)
        reader.need("recipe.name", told.recipe.name, "Give the recipe a name.")
        read_recipe(reader, told.recipe, spoons_of(write.kitchen), path="recipe.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        return CureRecipe.objects.create(
            name=told.recipe.name,
            version=version,
            told=told.recipe.model_dump(mode="json"),
            is_put_away=told.put_away,
            **write.stamp,
        )

    return keep_once(write, CureRecipe, save)


def put_in(write: Write, batch: Batch, told: typed.PutInIn) -> list[PieceCure]:
    """Put pieces into the cure: what was weighed out for each is kept, and the days to come are planned.

    A cure that is unwise is kept all the same, with its cautions; only what cannot be read, or cannot be
    mixed, is refused, and what is more likely a slip is asked about first.

    Raises:
        DomainError: not_found, bad_fields, ask (answer with ``sure``), key_reused.
    """
    return once(write, lambda: _find_put(write), lambda: _put_in(write, batch, told))


def _find_put(write: Write) -> list[PieceCure]:
    """The pieces put in with this key; none where nothing was."""
    done = list(PieceCure.objects.filter(kitchen=write.kitchen, key=write.key))
    for one in done:
        write.refuse_reused(one.fingerprint)
    return done


def _put_in(write: Write, batch: Batch, told: typed.PutInIn) -> list[PieceCure]:
    # two cooks at one desk: the second sees what the first put in, for the kitchen is locked
    laid = lay_out_desk(batch, told)
    shown = show_desk(laid)
    in_at = told.in_at or write.now
    laid.reader.happened("in_at", in_at, now=write.now)
    if laid.reader.problems:
        raise refuse_fields(laid.reader.problems)
    questions = [asked for piece in shown.pieces for asked in piece.questions]
    if questions and not told.sure:
        said = questions[0].message if len(questions) == 1 else "Some of this needs a yes first."
        raise DomainError("ask", 409, "Is that right?", said, questions)
    made = [
        _put_one(write, laid, one, answer=answer.model_dump(mode="json"), in_at=in_at)
        for one, answer in zip(laid.pieces, shown.pieces, strict=True)
    ]
    _plan(write, laid, told, in_at=in_at)
    return made


def _put_one(
    write: Write, laid: Laid, one: LaidOut, *, answer: dict[str, object], in_at: datetime
) -> PieceCure:
    assert one.time is not None
    assert one.recipe is not None
    window = one.time.window
    recipe = _find_recipe(write.kitchen, one.told.recipe)
    if one.told.thickness or one.told.skin:
        _learn(write, laid.batch, one)
    return PieceCure.objects.create(
        batch=laid.batch,
        mark=one.told.mark,
        recipe=recipe,
        told=one.told.recipe.model_dump(mode="json"),
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


def _find_recipe(kitchen: Kitchen, told: typed.RecipeIn) -> CureRecipe | None:
    """The kept version that says just this; None where what was typed was not kept."""
    if not told.name:
        return None
    latest = CureRecipe.objects.filter(kitchen=kitchen, name=told.name).order_by("-version").first()
    return latest if latest is not None and latest.told == told.model_dump(mode="json") else None


def _learn(write: Write, batch: Batch, one: LaidOut) -> None:
    """What was told of the piece on the desk is known of it from now on."""
    assert one.cured is not None
    thick = one.cured.thickness_mm if one.told.thickness else None
    # its own key: one request may tell of several pieces
    stamp = {**write.stamp, "key": uuid.uuid5(write.key, one.told.mark)}
    PieceFact.objects.create(
        batch=batch,
        mark=one.told.mark,
        thickness_mm=None if thick is None else Decimal(f"{thick:.2f}"),
        skin=one.told.skin,
        **stamp,
    )


def _plan(write: Write, laid: Laid, told: typed.PutInIn, *, in_at: datetime) -> None:
    """The days to come: pieces alike are planned together, and all that is turned on a day is one act."""
    turns: dict[tuple[Act, str], list[str]] = {}
    alike: dict[tuple[int, int, int, str, str, bool], list[LaidOut]] = {}
    local = timezone.localtime(in_at)
    for one in laid.pieces:
        assert one.time is not None
        window = one.time.window
        assert one.recipe is not None
        days = (window.first, window.last, one.out_day)
        alike.setdefault((*days, one.recipe.school, one.told.finish, one.recipe.has_second_stage), []).append(
            one
        )
    for (_, _, out, school, _, is_staged), pieces in alike.items():
        assert pieces[0].time is not None
        wishes = Wishes(
            turn_days=_turn_days(pieces, told.wishes),
            out_day=out,
            dry_hours=told.wishes.dry_hours,
            soak_minutes=told.wishes.soak_minutes,
            reseason=told.wishes.reseason,
            spice_day=(told.wishes.spice_day or out) if is_staged else None,
            finish=pieces[0].told.finish,
        )
        acts = plan_days(local, pieces[0].time.window, wishes)
        marks = [one.told.mark for one in pieces]
        for act in acts:
            if act.kind == "turn":
                turns.setdefault((act, _turn_words(school)), []).extend(marks)
        plan_together(write, laid.batch, marks, [act for act in acts if act.kind != "turn"])
    follows = uuid.uuid4()
    for (act, words), marks in turns.items():
        plan_together(write, laid.batch, sorted(marks), [act], follows=follows, words=words)


def _turn_days(pieces: Sequence[LaidOut], wishes: typed.WishesIn) -> int:
    """As wished; what is only injected, and sausage meat, is not turned."""
    is_still = all(one.told.recipe.school == "injection" or one.product == "comminuted" for one in pieces)
    return 0 if is_still else wishes.turn_days


def _turn_words(school: str) -> str:
    """What turning is called; empty: as usual."""
    return "Turn in the brine" if SCHOOLS[school].method in ("brine", "pump_and_brine") else ""


def take_back(write: Write, batch: Batch, cure_id: int, told: typed.TakeBackIn) -> CureTakenBack:
    """A cure put down by mistake counts no more, and what was planned for it is dropped.

    Raises:
        DomainError: not_found, bad_fields, already, key_reused.
    """

    def take() -> CureTakenBack:
        cure = PieceCure.objects.filter(batch=batch, pk=cure_id).first()
        if cure is None:
            raise not_found("such cure")
        if not told.reason:
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
        for act in PlannedAct.objects.filter(batch=batch, key=cure.key, state=PlannedAct.State.OPEN):
            _drop(act, cure.mark, still, write)
        return CureTakenBack.objects.create(cure=cure, reason=told.reason, **write.stamp)

    return keep_once(write, CureTakenBack, take)


def _drop(act: PlannedAct, mark: str, still: set[str], write: Write) -> None:
    """An act loses the piece; one that is for no other piece is dropped."""
    if mark not in act.marks:
        return
    act.marks = [one for one in act.marks if one in still and one != mark]
    if not act.marks:
        act.marks, act.state = [mark], PlannedAct.State.DROPPED
    act.changes, act.changed_at = act.changes + 1, write.now
    act.save(update_fields=["marks", "state", "changes", "changed_at"])
