"""Writes: a practice run is begun, and what is done in it."""

import secrets
from fractions import Fraction
from typing import Any

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.practice import schemas
from dolmetsch.server.practice.lessons import LESSONS
from dolmetsch.server.practice.models import PracticeAct, PracticeRun
from dolmetsch.server.practice.showing import read_run, seconds_now
from dolmetsch.server.problems import DomainError, FieldProblem, not_found, refuse_fields
from dolmetsch.server.writing.once import Write, keep_once

#: Acts a practice fire does not know: it has one piece, one probe, and no file.
_UNKNOWN = ("swap", "import")


def begin_run(write: Write, data: schemas.PracticeIn) -> PracticeRun:
    """Begin a run; its troubles are drawn and not said.

    Raises:
        DomainError: bad_fields, key_reused.
    """
    if data.lesson not in LESSONS:
        said = f"There is no lesson “{data.lesson}”."
        raise refuse_fields([FieldProblem(path="lesson", code="unknown", message=said)])
    return keep_once(
        write,
        PracticeRun,
        lambda: PracticeRun.objects.create(
            lesson=data.lesson, seed=secrets.randbelow(2**31), speed=data.speed, **write.stamp
        ),
    )


def get_run(kitchen: Kitchen, run_id: int) -> PracticeRun:
    """The run ``run_id`` of ``kitchen``.

    Raises:
        DomainError: not_found.
    """
    row = PracticeRun.objects.filter(kitchen=kitchen, pk=run_id).select_related("recorded_by").first()
    if row is None:
        raise not_found("such practice")
    row.kitchen = kitchen
    return row


def do_in_run(write: Write, run_id: int, data: schemas.PracticeActIn) -> PracticeAct:
    """Something is done in a run, now by its clock.

    Raises:
        DomainError: not_found, bad_fields, practice_done, key_reused.
    """

    def do() -> PracticeAct:
        row = get_run(write.kitchen, run_id)
        run = read_run(row)
        if run.done_seconds is not None:
            raise DomainError("practice_done", 409, "Not recorded", "This practice is over. Begin a new one.")
        content: dict[str, Any] = {"text": data.text}
        if data.kind in _UNKNOWN:
            said = "A practice fire has one piece and one probe."
            raise refuse_fields([FieldProblem(path="kind", code="unknown", message=said)])
        if data.kind == "stage":
            if data.stage is None or data.stage >= len(run.lesson.stages) or run.course.out_at is not None:
                said = "The program has no such stage."
                raise refuse_fields([FieldProblem(path="stage", code="unknown", message=said)])
            content["stage"] = data.stage
        if data.kind == "tender" and data.text not in ("no", "nearly", "yes"):
            said = "Tender: no, nearly or yes."
            raise refuse_fields([FieldProblem(path="text", code="unknown", message=said)])
        if data.kind == "instant":
            middle = run.course.middle_at(seconds_now(row))
            content["fahrenheit"] = fixed(Fraction(middle), 1)
        return PracticeAct.objects.create(
            run=row, seconds=seconds_now(row), kind=data.kind, data=content, **write.stamp
        )

    return keep_once(write, PracticeAct, do)
