"""The diary's API: only maps requests to reads and writes."""

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Path, Router, Status, UploadedFile

from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.diary import actions, schemas
from dolmetsch.server.diary.pictures import MAX_BYTES, Size, read_file
from dolmetsch.server.diary.queries import get_photo, read_diary
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.problems import DomainError
from dolmetsch.server.responses import answer_with, print_json
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["diary"])


@router.get("/batches/{code}/diary", response=schemas.DiaryOut, operation_id="getDiary")
@until_next_write
def get_diary(request: HttpRequest, kitchen_slug: Path[str], code: str) -> HttpResponse:
    """Everything that happened to a batch, in time order."""
    return print_json(read_diary(get_batch(kitchen_of(request, kitchen_slug), code)))


@router.post("/batches/{code}/notes", response={201: schemas.DiaryOut}, operation_id="writeNote")
def write_note(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.NoteIn, key: Key
) -> Status[schemas.DiaryOut]:
    """Add a note."""
    kitchen = kitchen_of(request, kitchen_slug)
    batch = get_batch(kitchen, code)
    actions.write_note(write_of(request, kitchen, key), batch, body)
    return Status(201, read_diary(batch))


@router.post("/batches/{code}/photos", response={201: schemas.DiaryOut}, operation_id="keepPhoto")
def keep_photo(
    request: HttpRequest,
    kitchen_slug: Path[str],
    code: str,
    key: Key,
    file: File[UploadedFile],
    mark: Form[str] = "",
    note: Form[str] = "",
) -> Status[schemas.DiaryOut]:
    """Add a photo."""
    kitchen = kitchen_of(request, kitchen_slug)
    batch = get_batch(kitchen, code)
    if file.size is not None and file.size > MAX_BYTES:
        raise DomainError("too_much", 413, "Too large", "A photo may have 15 MB; nothing was written.")
    content = file.read()
    write = write_of(request, kitchen, key, uploaded=f"{mark}\n{note}\n".encode() + content)
    actions.keep_photo(write, batch, content, data=schemas.PhotoIn(mark=mark, note=note))
    return Status(201, read_diary(batch))


@router.get("/photos/{photo_id}/{size}", operation_id="getPhoto", openapi_extra=answer_with("image/jpeg"))
def show_photo(request: HttpRequest, kitchen_slug: Path[str], photo_id: int, size: Size) -> HttpResponse:
    """A photo, as the picture it is and nothing else."""
    photo = get_photo(kitchen_of(request, kitchen_slug), photo_id)
    content = read_file(photo.digest, size)
    if content is None:
        said = "The photo's file is gone; bring it back from a backup."
        raise DomainError("photo_gone", 404, "Not here", said)
    headers = {
        "Content-Disposition": f'inline; filename="{photo.batch.code}-{photo.pk}.jpg"',
        "Content-Security-Policy": "default-src 'none'; sandbox",
        "X-Content-Type-Options": "nosniff",
        "Cache-Control": "private, max-age=31536000, immutable",
    }
    return HttpResponse(content, content_type="image/jpeg", headers=headers)
