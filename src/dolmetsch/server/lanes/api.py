"""The lanes' API."""

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Query, Router

from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.lanes import schemas
from dolmetsch.server.lanes.queries import read_lanes
from dolmetsch.server.responses import print_json
from dolmetsch.server.writing.kept_answers import until_next_write

router = Router(tags=["lanes"])


@router.get("/lanes", response=schemas.LanesOut, operation_id="getLanes")
@until_next_write
def get_lanes(
    request: HttpRequest, kitchen_slug: Path[str], days: Annotated[int, Query(ge=1, le=60)] = 14
) -> HttpResponse:
    """Who lies where until when."""
    return print_json(read_lanes(kitchen_of(request, kitchen_slug), timezone.now(), days=days))
