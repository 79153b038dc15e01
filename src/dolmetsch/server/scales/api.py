"""The scales' API: only maps requests to the hub and to reads."""

from django.http import HttpRequest, StreamingHttpResponse
from django.utils import timezone
from ninja import Path, Router

from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.responses import answer_stream, answer_with
from dolmetsch.server.scales import schemas
from dolmetsch.server.scales.hub import hub
from dolmetsch.server.scales.laying import lay
from dolmetsch.server.scales.meaning import read_meaning

router = Router(tags=["scales"])


@router.get("/scales", response=schemas.ScalesOut, operation_id="getScales")
def get_scales(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.ScalesOut:
    """The scales there are."""
    return schemas.ScalesOut(names=hub.names(kitchen_of(request, kitchen_slug).slug))


@router.get(
    "/scales/{name}/stream",
    operation_id="listenToScale",
    openapi_extra=answer_with("text/event-stream"),
)
def listen(request: HttpRequest, kitchen_slug: Path[str], name: str) -> StreamingHttpResponse:
    """What the scale shows, as a stream of events (text/event-stream)."""
    return answer_stream(hub.stream(hub.get(kitchen_of(request, kitchen_slug).slug, name)))


@router.post("/scales/{name}/command", response=schemas.ScalesOut, operation_id="commandScale")
def command(
    request: HttpRequest, kitchen_slug: Path[str], name: str, body: schemas.CommandIn
) -> schemas.ScalesOut:
    """Tare the scale, or clear its tare."""
    kitchen = kitchen_of(request, kitchen_slug)
    hub.get(kitchen.slug, name).send(body.command.upper())
    return schemas.ScalesOut(names=hub.names(kitchen.slug))


@router.post("/scales/{name}/lay", response=schemas.LoadOut, operation_id="layOnScale")
def lay_on(request: HttpRequest, kitchen_slug: Path[str], name: str, body: schemas.LayIn) -> schemas.LoadOut:
    """Lay something on a simulated scale."""
    kitchen = kitchen_of(request, kitchen_slug)
    return lay(kitchen, hub.get(kitchen.slug, name), body)


@router.post("/batches/{code}/on-the-scale", response=schemas.MeaningOut, operation_id="readOnScale")
def on_the_scale(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.OnScaleIn
) -> schemas.MeaningOut:
    """What a weight means for a piece; nothing is written."""
    batch = get_batch(kitchen_of(request, kitchen_slug), code)
    return read_meaning(batch, body, now=timezone.now())
