"""Writes: beginning a trial, opening a tasting, and a taster's sheet."""

import random
import secrets
import uuid
from datetime import datetime, timedelta
from typing import Final

from django.db import transaction

from dolmetsch.core.statistics.tasting import LEAST_SCORE, MOST_SCORE, SCALES
from dolmetsch.server.audit.noting import COMMAND, Origin, note_done
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.problems import DomainError, FieldProblem, refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.tastings import schemas
from dolmetsch.server.tastings.models import Tasting, TastingSheet, Trial, TrialSide
from dolmetsch.server.tastings.queries import get_trial
from dolmetsch.server.writing.once import Write, keep_once, lock_kitchen

LETTERS: Final = "ABCDEF"
#: A link lives a day.
OPEN_FOR: Final = timedelta(days=1)
#: More phones than this at one tasting are refused.
MOST_SHEETS: Final = 200
#: 32 letters of 6 bits: nobody guesses a link.
TOKEN_BYTES: Final = 24


def begin_trial(write: Write, data: schemas.CureTrialIn) -> Trial:
    """Begin a trial.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def make() -> Trial:
        reader = Reader.of(write.kitchen)
        reader.need("name", data.name, "Give the trial a name.")
        if not 2 <= len(data.sides) <= len(LETTERS):
            reader.refuse("sides", "wrong_number", f"A trial has 2 to {len(LETTERS)} sides.")
        batches = [_find_side(reader, write, side, at) for at, side in enumerate(data.sides)]
        seen = set()
        for at, side in enumerate(data.sides):
            if (side.batch, side.mark) in seen:
                reader.refuse(f"sides[{at}].batch", "twice", "This piece is in the trial already.")
            seen.add((side.batch, side.mark))
        if reader.problems:
            raise refuse_fields(reader.problems)
        trial = Trial.objects.create(name=data.name, **write.stamp)
        TrialSide.objects.bulk_create(
            TrialSide(trial=trial, letter=letter, batch=batch, mark=side.mark, what=side.what)
            for letter, side, batch in zip(LETTERS, data.sides, batches, strict=False)
        )
        return trial

    return keep_once(write, Trial, make)


def _find_side(reader: Reader, write: Write, side: schemas.SideIn, at: int) -> Batch | None:
    reader.need(f"sides[{at}].what", side.what, "Say what is different here.")
    batch = Batch.objects.filter(kitchen=write.kitchen, code=side.batch).select_related("kitchen").first()
    if batch is None:
        reader.refuse(f"sides[{at}].batch", "not_found", f"There is no batch “{side.batch}”.")
    elif side.mark and side.mark not in {piece.id for piece in cost_batch(batch).sheet.ledger.mains}:
        said = f"{batch.code} has no piece “{side.mark}”, or it is no longer in use."
        reader.refuse(f"sides[{at}].mark", "not_found", said)
    return batch


def open_tasting(write: Write, trial_id: int) -> Tasting:
    """Open a tasting of a trial, for a day.

    Raises:
        DomainError: not_found, key_reused.
    """

    def make() -> Tasting:
        trial = get_trial(write.kitchen, trial_id)
        letters = list(trial.sides.order_by("letter").values_list("letter", flat=True))
        codes = random.SystemRandom().sample(range(101, 1000), len(letters))
        return Tasting.objects.create(
            trial=trial,
            token=secrets.token_urlsafe(TOKEN_BYTES),
            closes_at=write.now + OPEN_FOR,
            codes={letter: str(code) for letter, code in zip(letters, codes, strict=True)},
            **write.stamp,
        )

    return keep_once(write, Tasting, make)


def get_open(token: str, now: datetime) -> Tasting:
    """The open tasting of a link.

    Raises:
        DomainError: not_found, closed.
    """
    tasting = Tasting.objects.filter(token=token).select_related("kitchen").first()
    if tasting is None:
        raise DomainError("not_found", 404, "Not here", "There is no tasting behind this link.")
    if tasting.closes_at <= now:
        said = "This tasting is over: its link lived a day. Ask the kitchen for a new one."
        raise DomainError("closed", 404, "Over", said)
    return tasting


def show_table(token: str, device: uuid.UUID, now: datetime) -> schemas.TableOut:
    """What a taster sees, the plates in an order of this device's own.

    Raises:
        DomainError: not_found, closed.
    """
    tasting = get_open(token, now)
    plates = sorted(tasting.codes.values())
    random.Random(f"{token} {device}").shuffle(plates)  # noqa: S311 (an order, no secret)
    sheet = tasting.sheets.filter(device=device).first()
    return schemas.TableOut(
        kitchen=tasting.kitchen.name,
        closes_at=tasting.closes_at,
        plates=plates,
        scales=list(SCALES),
        least=LEAST_SCORE,
        most=MOST_SCORE,
        scored_at=None if sheet is None else sheet.recorded_at,
    )


def hand_in(token: str, data: schemas.SheetIn, now: datetime, origin: Origin = COMMAND) -> None:
    """Record a taster's sheet: all plates on all scales, once a device; sent again, nothing changes.

    Raises:
        DomainError: not_found, closed, bad_fields, scored_already, too_many.
    """
    tasting = get_open(token, now)
    letters = {code: letter for letter, code in tasting.codes.items()}
    scores = _read_scores(data, letters)
    again = letters.get(data.again, "")
    with transaction.atomic():
        # against a phone that hands in twice at once, and one taster too many
        lock_kitchen(tasting.kitchen)
        sheet = tasting.sheets.filter(device=data.device).first()
        if sheet is not None:
            if (sheet.scores, sheet.again, sheet.taster) == (scores, again, data.taster):
                return
            said = "This phone has handed in its scores already. One phone is one taster."
            raise DomainError("scored_already", 409, "Not recorded", said)
        if tasting.sheets.count() >= MOST_SHEETS:
            raise DomainError("too_many", 409, "Not recorded", f"{MOST_SHEETS} tasters have scored already.")
        made = TastingSheet.objects.create(
            kitchen=tasting.kitchen,
            tasting=tasting,
            taster=data.taster,
            device=data.device,
            scores=scores,
            again=again,
            recorded_at=now,
        )
        said = f"{data.taster or 'A taster'} handed in a sheet"
        note_done(origin, kitchen=tasting.kitchen, user=None, now=now, made=made, words=said)


def _read_scores(data: schemas.SheetIn, letters: dict[str, str]) -> dict[str, dict[str, int]]:
    """Scores by letter and scale; every plate on the table on every scale."""
    problems = []
    scores: dict[str, dict[str, int]] = {}
    for at, plate in enumerate(data.plates):
        if plate.code not in letters:
            said = f"There is no plate {plate.code}."
            problems.append(FieldProblem(path=f"plates[{at}].code", code="not_found", message=said))
        elif letters[plate.code] in scores:
            said = f"Plate {plate.code} is scored twice."
            problems.append(FieldProblem(path=f"plates[{at}].code", code="twice", message=said))
        else:
            scores[letters[plate.code]] = {
                scale: score for scale in SCALES if (score := getattr(plate, scale)) is not None
            }
    for code, letter in sorted(letters.items()):
        missing = [scale for scale in SCALES if scale not in scores.get(letter, {})]
        if missing:
            lacks = "no score yet" if len(missing) == len(SCALES) else f"no score for {', '.join(missing)}"
            said = f"Plate {code} has {lacks}. Score every plate, or hand in nothing."
            problems.append(FieldProblem(path=f"plates.{code}", code="missing", message=said))
    if data.again and data.again not in letters:
        problems.append(
            FieldProblem(path="again", code="not_found", message=f"There is no plate {data.again}.")
        )
    if problems:
        raise refuse_fields(problems)
    return scores
