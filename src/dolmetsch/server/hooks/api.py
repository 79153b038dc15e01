"""The hooks' API: only maps requests to reads and writes."""

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Router, Status

from dolmetsch.server.hooks import actions, schemas
from dolmetsch.server.hooks.queries import read_chamber
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.responses import print_json
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["hooks"])


@router.get("/chamber", response=schemas.ChamberOut, operation_id="getChamber")
@until_next_write
def get_chamber(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """What hangs, and when it is dry."""
    return print_json(read_chamber(kitchen_of(request, kitchen_slug), now=timezone.now()))


@router.post("/hooks", response={201: schemas.HungOut}, operation_id="hangPiece")
def post_hook(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.HangIn, key: Key
) -> Status[schemas.HungOut]:
    """Hang a piece."""
    kitchen = kitchen_of(request, kitchen_slug)
    return Status(201, schemas.HungOut(id=actions.hang(write_of(request, kitchen, key), body).pk))


@router.post("/hooks/{hook_id}/notes", response={201: schemas.ChamberOut}, operation_id="noteOfHook")
def post_note(
    request: HttpRequest, kitchen_slug: Path[str], hook_id: int, body: schemas.HookNoteIn, key: Key
) -> HttpResponse:
    """Note something of a hanging piece; the chamber as it is then."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.write_note(write_of(request, kitchen, key), hook_id, body)
    answer = print_json(read_chamber(kitchen, now=timezone.now()))
    answer.status_code = 201
    return answer
