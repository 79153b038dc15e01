"""The ways' API: only maps requests to reads and writes."""

from django.http import HttpRequest
from ninja import Path, Router, Status

from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.ways import schemas
from dolmetsch.server.ways.actions import save_way
from dolmetsch.server.ways.queries import read_ways
from dolmetsch.server.ways.reading import read_way
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["ways"])


@router.get("/ways", response=schemas.WaysOut, operation_id="getWays")
def get_ways(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.WaysOut:
    """Every way, and the methods there are."""
    return read_ways(kitchen_of(request, kitchen_slug))


@router.post("/ways", response={201: schemas.WaysOut}, operation_id="saveWay")
def post_way(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.WayIn, key: Key
) -> Status[schemas.WaysOut]:
    """Save a way: the next version of its name."""
    kitchen = kitchen_of(request, kitchen_slug)
    save_way(write_of(request, kitchen, key), body)
    return Status(201, read_ways(kitchen))


@router.post("/previews/ways", response=schemas.WayPreviewOut, operation_id="previewWay")
def preview_way(request: HttpRequest, kitchen_slug: Path[str], body: schemas.WayIn) -> schemas.WayPreviewOut:
    """How a way being typed is read; nothing is written."""
    reader = read_way(kitchen_of(request, kitchen_slug), body).reader
    return schemas.WayPreviewOut(readings=reader.readings, problems=reader.problems)
