"""The larder's API: only maps requests to reads and writes."""

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Router, Status

from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.larder import actions, schemas
from dolmetsch.server.larder.board import read_board
from dolmetsch.server.larder.files import write_larder
from dolmetsch.server.larder.importing import import_packs, preview_file
from dolmetsch.server.larder.one_pack import read_pack
from dolmetsch.server.larder.packing import pack_batch, preview_packing
from dolmetsch.server.larder.queries import read_larder, show_now
from dolmetsch.server.larder.thickness import read_thickness
from dolmetsch.server.quantities.typed import FileIn
from dolmetsch.server.responses import answer_with, print_json
from dolmetsch.server.tables.writing import TABLE_TYPES, TableForm
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["larder"])


@router.get("/batches/{code}/board", response=schemas.BoardOut, operation_id="getBoard")
def get_board(request: HttpRequest, kitchen_slug: Path[str], code: str) -> HttpResponse:
    """What lies on the board: pieces to slice and to pack, packs made."""
    return print_json(read_board(get_batch(kitchen_of(request, kitchen_slug), code)))


@router.post("/previews/batches/{code}/packs", response=schemas.PackingPreview, operation_id="previewPacks")
def preview_packs(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.PackingIn
) -> schemas.PackingPreview:
    """What this slicing and packing would make; nothing is written."""
    return preview_packing(get_batch(kitchen_of(request, kitchen_slug), code), body)


@router.post("/batches/{code}/packs", response={201: schemas.BoardOut}, operation_id="closePacks")
def close_packs(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.PackingIn, key: Key
) -> Status[schemas.BoardOut]:
    """Record a slicing and the packs closed with it, in one go."""
    kitchen = kitchen_of(request, kitchen_slug)
    pack_batch(write_of(request, kitchen, key), code, body)
    return Status(201, read_board(get_batch(kitchen, code)))


@router.post("/batches/{code}/thickness", response=schemas.ThicknessOut, operation_id="getThickness")
def get_thickness(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.ThicknessIn
) -> schemas.ThicknessOut:
    """What a millimetre does to slices, their price and packs; nothing is written."""
    return read_thickness(get_batch(kitchen_of(request, kitchen_slug), code), body)


@router.get("/larder", response=schemas.LarderOut, operation_id="getLarder")
@until_next_write
def get_larder(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """What lies where, what to thaw, what runs out, where it went."""
    return print_json(read_larder(kitchen_of(request, kitchen_slug)))


@router.get(
    "/larder/files/{form}",
    operation_id="getLarderFile",
    openapi_extra=answer_with(*TABLE_TYPES.values()),
)
def get_larder_file(request: HttpRequest, kitchen_slug: Path[str], form: TableForm) -> HttpResponse:
    """All packs and where they went, to take away (csv, xlsx, json)."""
    kitchen = kitchen_of(request, kitchen_slug)
    name = f'attachment; filename="larder.{form}"'
    return HttpResponse(
        write_larder(kitchen, form), content_type=TABLE_TYPES[form], headers={"Content-Disposition": name}
    )


@router.post("/previews/larder/imports", response=schemas.PacksFoundOut, operation_id="previewPackImport")
def preview_pack_import(request: HttpRequest, kitchen_slug: Path[str], body: FileIn) -> schemas.PacksFoundOut:
    """What bringing in a file of packs would do; nothing is written."""
    return preview_file(kitchen_of(request, kitchen_slug), body.name, body.content)


@router.post("/larder/imports", response={201: schemas.LarderOut}, operation_id="importPacks")
def post_pack_import(
    request: HttpRequest, kitchen_slug: Path[str], body: FileIn, key: Key
) -> Status[schemas.LarderOut]:
    """Bring in the packs of a file (csv, xlsx, json) that are not here yet; all of them or none."""
    kitchen = kitchen_of(request, kitchen_slug)
    import_packs(write_of(request, kitchen, key), body.name, body.content)
    return Status(201, read_larder(kitchen))


@router.get("/packs/{code}/{mark}", response=schemas.PackPage, operation_id="getPack")
def get_pack(request: HttpRequest, kitchen_slug: Path[str], code: str, mark: str) -> schemas.PackPage:
    """One pack with all that happened to it."""
    return read_pack(kitchen_of(request, kitchen_slug), code, mark)


@router.post("/packs/{code}/{mark}/takings", response={201: schemas.PackOut}, operation_id="takeFromPack")
def take_from_pack(
    request: HttpRequest, kitchen_slug: Path[str], code: str, mark: str, body: schemas.TakingIn, key: Key
) -> Status[schemas.PackOut]:
    """Take something out of a pack: eaten, plated, sold, given, used, spoiled or thrown away."""
    kitchen = kitchen_of(request, kitchen_slug)
    taken = actions.take_from(write_of(request, kitchen, key), code, mark, body)
    return Status(201, show_now(taken.pack.now, timezone.localdate()))


@router.post("/packs/{code}/{mark}/moves", response={201: schemas.PackPage}, operation_id="movePack")
def move_pack(
    request: HttpRequest, kitchen_slug: Path[str], code: str, mark: str, body: schemas.MoveIn, key: Key
) -> Status[schemas.PackPage]:
    """Place a pack in a fridge or freezer, or open it."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.move_pack(write_of(request, kitchen, key), code, mark, body)
    return Status(201, read_pack(kitchen, code, mark))


@router.post("/packs/{code}/{mark}/weighings", response={201: schemas.PackPage}, operation_id="weighPack")
def weigh_pack(
    request: HttpRequest, kitchen_slug: Path[str], code: str, mark: str, body: schemas.WeighedIn, key: Key
) -> Status[schemas.PackPage]:
    """Record what a pack weighs now: what is missing is purge, or what the freezer took."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.weigh_pack(write_of(request, kitchen, key), code, mark, body)
    return Status(201, read_pack(kitchen, code, mark))


@router.post("/packs/{code}/{mark}/cancel", response={201: schemas.BoardOut}, operation_id="cancelPack")
def cancel_pack(
    request: HttpRequest, kitchen_slug: Path[str], code: str, mark: str, body: schemas.CancelIn, key: Key
) -> Status[schemas.BoardOut]:
    """Take back a pack that was recorded by mistake."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.cancel_pack(write_of(request, kitchen, key), code, mark, body)
    return Status(201, read_board(get_batch(kitchen, code)))


@router.post("/takings/{taken_id}/cancel", response={201: schemas.LarderOut}, operation_id="cancelTaking")
def cancel_taking(
    request: HttpRequest, kitchen_slug: Path[str], taken_id: int, body: schemas.CancelIn, key: Key
) -> Status[schemas.LarderOut]:
    """Take back something that was not taken out of a pack."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.cancel_taken(write_of(request, kitchen, key), taken_id, body)
    return Status(201, read_larder(kitchen))


@router.post("/larder/counts", response={201: schemas.LarderOut}, operation_id="countShelves")
def count_shelves(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.CountIn, key: Key
) -> Status[schemas.LarderOut]:
    """Record a count of the shelves."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.count_shelves(write_of(request, kitchen, key), body)
    return Status(201, read_larder(kitchen))
