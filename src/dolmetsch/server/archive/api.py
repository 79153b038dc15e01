"""The API of the archive: only maps requests to reads and writes."""

import re

from django.http import FileResponse, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import File, Path, Router, Status
from ninja.files import UploadedFile

from dolmetsch.server.access.guard import origin_of
from dolmetsch.server.archive import schemas
from dolmetsch.server.archive.lists import LISTS, Form, ListName, write_list
from dolmetsch.server.archive.reading import fill_kitchen, is_empty
from dolmetsch.server.archive.writing import write_archive
from dolmetsch.server.kitchens.queries import kitchen_of, signed_in
from dolmetsch.server.responses import answer_with
from dolmetsch.server.tables.writing import TABLE_TYPES

router = Router(tags=["archive"])


@router.get("/archive", response=schemas.ArchiveFactsOut, operation_id="getArchiveFacts")
def get_facts(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.ArchiveFactsOut:
    """Whether this kitchen is empty, and which lists there are."""
    kitchen = kitchen_of(request, kitchen_slug)
    return schemas.ArchiveFactsOut(is_empty=is_empty(kitchen), lists=list(LISTS))


@router.get(
    "/archive/everything.zip",
    operation_id="exportEverything",
    openapi_extra=answer_with("application/zip"),
)
def get_everything(request: HttpRequest, kitchen_slug: Path[str]) -> FileResponse:
    """The whole kitchen as one ZIP."""
    kitchen = kitchen_of(request, kitchen_slug)
    now = timezone.now()
    day = timezone.localdate(now).isoformat()
    name = re.sub(r"[^a-z0-9-]+", "-", kitchen.slug)
    file = write_archive(kitchen, now)
    return FileResponse(
        file, as_attachment=True, filename=f"{name}-{day}.zip", content_type="application/zip"
    )


@router.get(
    "/archive/{name}.{form}",
    operation_id="exportList",
    openapi_extra=answer_with(TABLE_TYPES["csv"], TABLE_TYPES["xlsx"]),
)
def get_list(request: HttpRequest, kitchen_slug: Path[str], name: ListName, form: Form) -> HttpResponse:
    """A list as CSV or XLSX."""
    content = write_list(kitchen_of(request, kitchen_slug), name, form)
    disposition = {"Content-Disposition": f'attachment; filename="{name}.{form}"'}
    return HttpResponse(content, content_type=TABLE_TYPES[form], headers=disposition)


@router.post("/archive", response={201: schemas.FilledOut}, operation_id="fillKitchen")
def post_everything(
    request: HttpRequest, kitchen_slug: Path[str], file: File[UploadedFile]
) -> Status[schemas.FilledOut]:
    """Fill an empty kitchen from a ZIP; all of it or nothing. A second time it is not empty any more."""
    kitchen = kitchen_of(request, kitchen_slug)
    return Status(201, fill_kitchen(kitchen, signed_in(request), file, origin_of(request)))
