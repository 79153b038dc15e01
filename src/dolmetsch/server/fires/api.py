"""The fires' API: only maps requests to reads and writes."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.utils import timezone
from ninja import File, Form, Path, Router, Status
from ninja.files import UploadedFile
from pydantic import BaseModel

from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.fires import actions, schemas
from dolmetsch.server.fires.alarms import read_alarms
from dolmetsch.server.fires.files import CONTENT_TYPES, FileForm, write_file
from dolmetsch.server.fires.followed import follow_fire
from dolmetsch.server.fires.live import read_live
from dolmetsch.server.fires.of_batch import read_of_batch
from dolmetsch.server.fires.queries import find_last_heard, get_fire, list_open, read_fires
from dolmetsch.server.fires.readings.commanding import command_cooker
from dolmetsch.server.fires.readings.hearing import hear_cooker
from dolmetsch.server.fires.readings.importing import guess_match, look_at, parse_match, read_log, take_in
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.responses import answer_stream, answer_with, print_json
from dolmetsch.server.scales.hub import hub
from dolmetsch.server.tables.uploading import read_upload
from dolmetsch.server.writing.kept_answers import keep_until_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["fires"])


def _keep(kitchen: Kitchen, about: tuple[object, ...], read: Callable[[], BaseModel]) -> HttpResponse:
    """What is read ``about`` fires, kept until a write or until that is another: many screens ask every few
    seconds.
    """
    text = keep_until_write(kitchen, timezone.now(), about, lambda: read().model_dump_json())
    return HttpResponse(text, content_type="application/json")


@router.get("/fires", response=schemas.FiresOut, operation_id="getFires")
def get_fires(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """Fires, and cookers."""
    kitchen = kitchen_of(request, kitchen_slug)
    return _keep(kitchen, ("fires", find_last_heard(kitchen)), lambda: read_fires(kitchen))


@router.get("/alarms", response=schemas.AlarmsOut, operation_id="getAlarms")
def get_alarms(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """What asks for the cook now, of all fires."""
    kitchen = kitchen_of(request, kitchen_slug)
    burning = [follow_fire(fire) for fire in list_open(kitchen)]
    about = ("alarms", *(followed.up_to for followed in burning))
    return _keep(kitchen, about, lambda: read_alarms(kitchen, burning))


@router.post("/fires", response={201: schemas.BegunOut}, operation_id="beginFire")
def post_fire(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.FireIn, key: Key
) -> Status[schemas.BegunOut]:
    """Pieces go into the smoke."""
    kitchen = kitchen_of(request, kitchen_slug)
    return Status(201, schemas.BegunOut(id=actions.begin_fire(write_of(request, kitchen, key), body).pk))


@router.get("/fires/{fire_id}", response=schemas.LiveOut, operation_id="getFire")
def get_live(request: HttpRequest, kitchen_slug: Path[str], fire_id: int) -> HttpResponse:
    """A fire as it is now."""
    kitchen = kitchen_of(request, kitchen_slug)
    followed = follow_fire(get_fire(kitchen, fire_id))
    return _keep(kitchen, ("live", followed.up_to), lambda: read_live(followed))


@router.post("/fires/{fire_id}/events", response={201: schemas.LiveOut}, operation_id="recordFireEvent")
def post_event(
    request: HttpRequest, kitchen_slug: Path[str], fire_id: int, body: schemas.EventIn, key: Key
) -> HttpResponse:
    """Record what happened in a fire; the fire as it is then."""
    kitchen = kitchen_of(request, kitchen_slug)
    event = actions.record_event(write_of(request, kitchen, key), fire_id, body)
    answer = print_json(read_live(follow_fire(get_fire(kitchen, event.fire_id))))
    answer.status_code = 201
    return answer


@router.post("/previews/fires/{fire_id}/log", response=schemas.LogPreviewOut, operation_id="previewLog")
def preview_log(
    request: HttpRequest,
    kitchen_slug: Path[str],
    fire_id: int,
    file: File[UploadedFile],
    match: Form[str] = "",
) -> schemas.LogPreviewOut:
    """What taking in a logger's file, or a cook log document, would do; nothing is written."""
    fire = get_fire(kitchen_of(request, kitchen_slug), fire_id)
    log = read_log(file.name or "log", read_upload(file))
    return look_at(fire, log, parse_match(match))


@router.post("/fires/{fire_id}/log", response={201: schemas.LiveOut}, operation_id="takeInLog")
def post_log(
    request: HttpRequest,
    kitchen_slug: Path[str],
    fire_id: int,
    key: Key,
    file: File[UploadedFile],
    match: Form[str],
) -> HttpResponse:
    """Take in a logger's file, or a cook log document; the fire as it is then."""
    kitchen = kitchen_of(request, kitchen_slug)
    fire = get_fire(kitchen, fire_id)
    content = read_upload(file)
    write = write_of(request, kitchen, key, uploaded=f"{match}\n{file.name}\n".encode() + content)
    log = read_log(file.name or "log", content)
    take_in(write, fire, log, parse_match(match) or guess_match(fire, log))
    answer = print_json(read_live(follow_fire(fire)))
    answer.status_code = 201
    return answer


@router.get(
    "/fires/{fire_id}/files/{form}",
    operation_id="getFireFile",
    openapi_extra=answer_with(*CONTENT_TYPES.values()),
)
def get_file(request: HttpRequest, kitchen_slug: Path[str], fire_id: int, form: FileForm) -> HttpResponse:
    """A fire to take away: its cook log (json), or its readings (csv)."""
    fire = get_fire(kitchen_of(request, kitchen_slug), fire_id)
    name = f'attachment; filename="fire-{fire.pk}.{form}"'
    headers = {"Content-Disposition": name}
    return HttpResponse(write_file(fire, form), content_type=CONTENT_TYPES[form], headers=headers)


@router.get("/batches/{code}/fires", response=schemas.BatchFiresOut, operation_id="getBatchFires")
def get_of_batch(request: HttpRequest, kitchen_slug: Path[str], code: str) -> HttpResponse:
    """The latest fire of each piece of a batch, with its share of fuel and work."""
    return print_json(read_of_batch(get_batch(kitchen_of(request, kitchen_slug), code)))


@router.post("/programs", response={201: schemas.FiresOut}, operation_id="saveProgram")
def post_program(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.ProgramIn, key: Key
) -> Status[schemas.FiresOut]:
    """Save the next version of a program."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.save_program(write_of(request, kitchen, key), body)
    return Status(201, read_fires(kitchen))


@router.get(
    "/cookers/{name}/stream",
    operation_id="listenToCooker",
    openapi_extra=answer_with("text/event-stream"),
)
def listen(request: HttpRequest, kitchen_slug: Path[str], name: str) -> StreamingHttpResponse:
    """What the probes read, as a stream of events (text/event-stream)."""
    return answer_stream(hub.stream(hear_cooker(kitchen_of(request, kitchen_slug), name)))


@router.post("/cookers/{name}/command", response=schemas.FiresOut, operation_id="commandCooker")
def post_command(
    request: HttpRequest, kitchen_slug: Path[str], name: str, body: schemas.CookerCommandIn
) -> HttpResponse:
    """Tell a simulated cooker what goes on in it."""
    kitchen = kitchen_of(request, kitchen_slug)
    command_cooker(kitchen, name, body.command)
    return print_json(read_fires(kitchen))
