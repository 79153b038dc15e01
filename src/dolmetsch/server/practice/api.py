"""The practice API: only maps requests to reads and writes."""

from django.http import HttpRequest
from ninja import Path, Router, Status

from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.practice import schemas
from dolmetsch.server.practice.actions import begin_run, do_in_run, get_run
from dolmetsch.server.practice.models import PracticeRun
from dolmetsch.server.practice.showing import RUNS_SHOWN, show_practices, show_run
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["practice"])


@router.get("/practice", response=schemas.PracticesOut, operation_id="getPractices")
def get_practices(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.PracticesOut:
    """What can be practiced, and how it went lately."""
    kitchen = kitchen_of(request, kitchen_slug)
    mine = PracticeRun.objects.filter(kitchen=kitchen).select_related("recorded_by")
    rows = list(mine.order_by("-id")[:RUNS_SHOWN])
    for row in rows:
        row.kitchen = kitchen
    return show_practices(rows)


@router.post("/practice", response={201: schemas.PracticeBegunOut}, operation_id="beginPractice")
def post_practice(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.PracticeIn, key: Key
) -> Status[schemas.PracticeBegunOut]:
    """Begin a run."""
    kitchen = kitchen_of(request, kitchen_slug)
    return Status(201, schemas.PracticeBegunOut(id=begin_run(write_of(request, kitchen, key), body).pk))


@router.get("/practice/{run_id}", response=schemas.PracticeOut, operation_id="getPractice")
def get_practice(request: HttpRequest, kitchen_slug: Path[str], run_id: int) -> schemas.PracticeOut:
    """A run as it is now."""
    return show_run(get_run(kitchen_of(request, kitchen_slug), run_id))


@router.post("/practice/{run_id}/events", response={201: schemas.PracticeOut}, operation_id="doInPractice")
def post_act(
    request: HttpRequest, kitchen_slug: Path[str], run_id: int, body: schemas.PracticeActIn, key: Key
) -> Status[schemas.PracticeOut]:
    """Do something in a run; the run as it is then."""
    kitchen = kitchen_of(request, kitchen_slug)
    act = do_in_run(write_of(request, kitchen, key), run_id, body)
    return Status(201, show_run(get_run(kitchen, act.run_id)))
