"""The API of past batches: only maps requests to reads and writes."""

from django.http import HttpRequest
from django.utils import timezone
from ninja import File, Path, Router, Status
from ninja.files import UploadedFile

from dolmetsch.server.history import importing, schemas
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.tables.uploading import get_uploaded, read_upload, write_piece
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["history"])


@router.post("/history", response={201: schemas.HistoryFileOut}, operation_id="uploadHistory")
def post_history(
    request: HttpRequest, kitchen_slug: Path[str], key: Key, file: File[UploadedFile]
) -> Status[schemas.HistoryFileOut]:
    """Upload a spreadsheet of past batches; no batch is made."""
    kitchen = kitchen_of(request, kitchen_slug)
    content = read_upload(file)
    write = write_of(request, kitchen, key, uploaded=f"{file.name}\n".encode() + content)
    return Status(201, importing.upload(write, name=file.name or "batches", content=content))


@router.get("/history/{file_id}", response=schemas.HistoryFileOut, operation_id="getHistory")
def get_history(request: HttpRequest, kitchen_slug: Path[str], file_id: int) -> schemas.HistoryFileOut:
    """An uploaded spreadsheet, and how far it is written."""
    return importing.show_file(
        get_uploaded(kitchen_of(request, kitchen_slug), importing.PAST_BATCHES, file_id)
    )


@router.post("/history/{file_id}/preview", response=schemas.HistoryPreviewOut, operation_id="previewHistory")
def preview_history(
    request: HttpRequest, kitchen_slug: Path[str], file_id: int, body: schemas.HistoryMatchIn
) -> schemas.HistoryPreviewOut:
    """What writing it would do; nothing is written."""
    kept = get_uploaded(kitchen_of(request, kitchen_slug), importing.PAST_BATCHES, file_id)
    return importing.preview(kept, body, today=timezone.localdate())


@router.post("/history/{file_id}/write", response=schemas.HistoryFileOut, operation_id="writeHistory")
def write_history(
    request: HttpRequest, kitchen_slug: Path[str], file_id: int, body: schemas.HistoryWriteIn, key: Key
) -> schemas.HistoryFileOut:
    """Write the next piece, as confirmed."""
    write = write_of(request, kitchen_of(request, kitchen_slug), key)
    return importing.show_file(
        write_piece(write, importing.PAST_BATCHES, file_id, from_row=body.from_row, match=body.match)
    )
