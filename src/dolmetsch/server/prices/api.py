"""The price list's API: only maps requests to reads and writes."""

from typing import get_args

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import File, Form, Path, Router, Status
from ninja.files import UploadedFile

from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.prices import actions, exporting, importing, schemas
from dolmetsch.server.prices.queries import read_item, read_prices
from dolmetsch.server.responses import answer_with
from dolmetsch.server.tables.uploading import get_uploaded, read_upload, write_piece
from dolmetsch.server.tables.writing import TABLE_TYPES, ListForm
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["prices"])


@router.get("/prices", response=schemas.PricesOut, operation_id="getPrices")
def get_prices(
    request: HttpRequest,
    kitchen_slug: Path[str],
    sort: schemas.SortKey | None = None,
    find: str = "",
    page: int = 0,
) -> schemas.PricesOut:
    """A page of the price list."""
    page = min(max(page, 0), 100_000)
    return read_prices(kitchen_of(request, kitchen_slug), sort=sort, find=find[:80], page=page)


@router.post("/prices", response={201: schemas.NotedOut}, operation_id="notePrice")
def note_price(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.QuoteIn, key: Key
) -> Status[schemas.NotedOut]:
    """Add a price, correct one, or take one back."""
    kitchen = kitchen_of(request, kitchen_slug)
    return Status(201, actions.note_price(write_of(request, kitchen, key), body))


@router.get(
    "/prices/files/{form}",
    operation_id="getPriceFile",
    openapi_extra=answer_with(*(TABLE_TYPES[form] for form in get_args(ListForm))),
)
def get_price_file(request: HttpRequest, kitchen_slug: Path[str], form: ListForm) -> HttpResponse:
    """The price list to take away."""
    content = exporting.write_prices(kitchen_of(request, kitchen_slug), form)
    headers = {"Content-Disposition": f'attachment; filename="prices.{form}"'}
    return HttpResponse(content, content_type=TABLE_TYPES[form], headers=headers)


@router.get("/prices/{item_id}", response=schemas.ItemWholeOut, operation_id="getPriceItem")
def get_price_item(request: HttpRequest, kitchen_slug: Path[str], item_id: int) -> schemas.ItemWholeOut:
    """One line with its whole history."""
    return read_item(kitchen_of(request, kitchen_slug), item_id)


@router.post("/prices/{item_id}/fryings", response={201: schemas.ItemWholeOut}, operation_id="noteFrying")
def note_frying(
    request: HttpRequest, kitchen_slug: Path[str], item_id: int, body: schemas.FryTestIn, key: Key
) -> Status[schemas.ItemWholeOut]:
    """Note a frying of a shop pack."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.note_frying(write_of(request, kitchen, key), item_id, body)
    return Status(201, read_item(kitchen, item_id))


@router.post("/price-lists", response={201: schemas.FileOut}, operation_id="uploadPriceList")
def upload_list(
    request: HttpRequest,
    kitchen_slug: Path[str],
    key: Key,
    file: File[UploadedFile],
    source: Form[str],
) -> Status[schemas.FileOut]:
    """Upload a supplier's list or receipts; no price is written."""
    kitchen = kitchen_of(request, kitchen_slug)
    content = read_upload(file)
    uploaded = f"{source}\n{file.name}\n".encode() + content
    write = write_of(request, kitchen, key, uploaded=uploaded)
    return Status(201, importing.upload(write, name=file.name or "list", source=source, content=content))


@router.get("/price-lists/{file_id}", response=schemas.FileOut, operation_id="getPriceList")
def get_list(request: HttpRequest, kitchen_slug: Path[str], file_id: int) -> schemas.FileOut:
    """An uploaded list, and how far it is written."""
    kept = get_uploaded(kitchen_of(request, kitchen_slug), importing.PRICE_LIST, file_id)
    return importing.show_file(kept, today=timezone.localdate())


@router.post(
    "/price-lists/{file_id}/preview",
    response=schemas.FilePreviewOut,
    operation_id="previewPriceList",
)
def preview_list(
    request: HttpRequest, kitchen_slug: Path[str], file_id: int, body: schemas.MatchIn
) -> schemas.FilePreviewOut:
    """What writing the list would do; nothing is written."""
    kept = get_uploaded(kitchen_of(request, kitchen_slug), importing.PRICE_LIST, file_id)
    return importing.preview(kept, body, today=timezone.localdate())


@router.post("/price-lists/{file_id}/write", response=schemas.FileOut, operation_id="writePriceList")
def write_list(
    request: HttpRequest, kitchen_slug: Path[str], file_id: int, body: schemas.FileWriteIn, key: Key
) -> schemas.FileOut:
    """Write the next piece of the list, as confirmed."""
    kitchen = kitchen_of(request, kitchen_slug)
    write = write_of(request, kitchen, key)
    kept = write_piece(write, importing.PRICE_LIST, file_id, from_row=body.from_row, match=body.match)
    return importing.show_file(kept, today=write.today)
