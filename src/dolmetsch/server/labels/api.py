"""The labels' API: only maps requests to reads and the printer."""

from typing import Annotated

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Path, Query, Router
from pydantic import BaseModel

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.labels.facts import LabelFacts, gather_labels, gather_pack_labels, gather_tubs
from dolmetsch.server.labels.printing import print_labels
from dolmetsch.server.labels.sheet import Paper, write_sheet
from dolmetsch.server.quantities.typed import Body, Marks
from dolmetsch.server.responses import answer_with

router = Router(tags=["labels"])


class LabelsIn(Body):
    """Pieces to print labels for; none named: all that live. ``tubs``, ``packs``: of those instead."""

    marks: Marks = []
    tubs: bool = False
    packs: bool = False


class PrintedOut(BaseModel):
    """What came out of the printer: a picture for each label, as a data address."""

    pictures: list[str]


@router.get(
    "/batches/{code}/labels.pdf",
    operation_id="getLabelSheet",
    openapi_extra=answer_with("application/pdf"),
)
def get_sheet(
    request: HttpRequest,
    kitchen_slug: Path[str],
    code: str,
    marks: Annotated[list[str], Query()] = [],  # noqa: B006 (read, never changed)
    paper: Paper = "letter",
    tubs: bool = False,
) -> HttpResponse:
    """A sheet of labels as PDF, of pieces or of tubs."""
    batch = get_batch(kitchen_of(request, kitchen_slug), code)
    labels = _gather(request, batch, marks, tubs=tubs)
    headers = {"Content-Disposition": f'inline; filename="labels-{batch.code}.pdf"'}
    return HttpResponse(write_sheet(labels, paper), content_type="application/pdf", headers=headers)


@router.get(
    "/batches/{code}/pack-labels.pdf",
    operation_id="getPackLabelSheet",
    openapi_extra=answer_with("application/pdf"),
)
def get_pack_sheet(
    request: HttpRequest,
    kitchen_slug: Path[str],
    code: str,
    marks: Annotated[list[str], Query()] = [],  # noqa: B006 (read, never changed)
    paper: Paper = "letter",
) -> HttpResponse:
    """A sheet of labels of packs as PDF."""
    batch = get_batch(kitchen_of(request, kitchen_slug), code)
    labels = gather_pack_labels(batch, marks, root=_root(request))
    headers = {"Content-Disposition": f'inline; filename="packs-{batch.code}.pdf"'}
    return HttpResponse(write_sheet(labels, paper), content_type="application/pdf", headers=headers)


@router.post("/batches/{code}/labels", response=PrintedOut, operation_id="printLabels")
def post_labels(request: HttpRequest, kitchen_slug: Path[str], code: str, body: LabelsIn) -> PrintedOut:
    """Print labels on the label printer."""
    batch = get_batch(kitchen_of(request, kitchen_slug), code)
    if body.packs:
        labels = gather_pack_labels(batch, body.marks, root=_root(request))
    else:
        labels = _gather(request, batch, body.marks, tubs=body.tubs)
    return PrintedOut(pictures=print_labels(labels))


def _root(request: HttpRequest) -> str:
    return settings.ADDRESS or request.build_absolute_uri("/").rstrip("/")


def _gather(request: HttpRequest, batch: Batch, marks: list[str], *, tubs: bool) -> list[LabelFacts]:
    root = _root(request)
    return gather_tubs(batch, root=root) if tubs else gather_labels(batch, marks, root=root)
