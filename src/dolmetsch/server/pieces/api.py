"""The pieces' API: only maps requests to reads and writes."""

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Query, Router, Status

from dolmetsch.core.meat.looking_over import LOOKS
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.pieces import actions, schemas, table
from dolmetsch.server.pieces.cutting import read_test
from dolmetsch.server.pieces.owner_page import ChargedBy, write_owner_pdf
from dolmetsch.server.pieces.queries import list_offcuts, read_map, read_pieces
from dolmetsch.server.quantities.lengths import NAME_LENGTH, TYPED_LENGTH
from dolmetsch.server.responses import answer_with, print_json
from dolmetsch.server.tables.writing import TABLE_TYPES
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["pieces"])


@router.get("/batches/{code}/pieces", response=schemas.PiecesOut, operation_id="getPieces")
def get_pieces(request: HttpRequest, kitchen_slug: Path[str], code: str) -> schemas.PiecesOut:
    """The living pieces of a batch, with size, skin and place."""
    return read_pieces(get_batch(kitchen_of(request, kitchen_slug), code))


@router.get("/batches/{code}/pieces-table", response=schemas.PiecesTableOut, operation_id="getPiecesTable")
@until_next_write
def get_table(request: HttpRequest, kitchen_slug: Path[str], code: str) -> HttpResponse:
    """All living pieces of a batch at once: owner, weights by step, gain, yield, place."""
    return print_json(table.read_table(get_batch(kitchen_of(request, kitchen_slug), code)))


@router.get(
    "/batches/{code}/pieces-table.{form}",
    operation_id="exportPiecesTable",
    openapi_extra=answer_with(TABLE_TYPES["csv"], TABLE_TYPES["xlsx"]),
)
def get_table_file(
    request: HttpRequest, kitchen_slug: Path[str], code: str, form: table.Form
) -> HttpResponse:
    """The table of pieces as a file."""
    batch = get_batch(kitchen_of(request, kitchen_slug), code)
    disposition = {"Content-Disposition": f'attachment; filename="{batch.code}-pieces.{form}"'}
    content = table.write_table(batch, form)
    return HttpResponse(content, content_type=TABLE_TYPES[form], headers=disposition)


@router.post("/batches/{code}/owners", response={201: schemas.PiecesTableOut}, operation_id="setOwner")
def post_owner(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.OwnerIn, key: Key
) -> Status[schemas.PiecesTableOut]:
    """Note whose pieces are."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.set_owner(write_of(request, kitchen, key), code, body)
    return Status(201, table.read_table(get_batch(kitchen, code)))


@router.get(
    "/batches/{code}/owner-page",
    operation_id="printOwnerPage",
    openapi_extra=answer_with("application/pdf"),
)
def get_owner_page(
    request: HttpRequest,
    kitchen_slug: Path[str],
    code: str,
    owner: Annotated[str, Query(max_length=NAME_LENGTH)],
    charge: Annotated[str, Query(max_length=TYPED_LENGTH)] = "",
    by: ChargedBy = "out",
) -> HttpResponse:
    """A page for one owner: what came in, what goes out, its yield, the charge by the pound in or out."""
    batch = get_batch(kitchen_of(request, kitchen_slug), code)
    page = write_owner_pdf(batch, owner, charge, timezone.now(), by)
    disposition = {"Content-Disposition": f'inline; filename="{batch.code}-owner.pdf"'}
    return HttpResponse(page, content_type="application/pdf", headers=disposition)


@router.post(
    "/batches/{code}/pieces/{mark}/facts",
    response={201: schemas.PiecesOut},
    operation_id="learnFacts",
)
def learn_facts(
    request: HttpRequest, kitchen_slug: Path[str], code: str, mark: str, body: schemas.FactsIn, key: Key
) -> Status[schemas.PiecesOut]:
    """Keep what was learned of a piece: size, skin, place."""
    kitchen = kitchen_of(request, kitchen_slug)
    batch = get_batch(kitchen, code)
    actions.learn_facts(write_of(request, kitchen, key), batch, mark, body)
    return Status(201, read_pieces(batch))


@router.post("/batches/{code}/look-overs", response={201: schemas.PiecesOut}, operation_id="lookOver")
def look_over(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.LookOverIn, key: Key
) -> Status[schemas.PiecesOut]:
    """Keep that the meat was checked."""
    kitchen = kitchen_of(request, kitchen_slug)
    batch = get_batch(kitchen, code)
    actions.look_over(write_of(request, kitchen, key), batch, body)
    return Status(201, read_pieces(batch))


@router.get("/looks", response=list[schemas.LookOut], operation_id="getLooks")
def get_looks(request: HttpRequest, kitchen_slug: Path[str]) -> list[schemas.LookOut]:
    """What meat is checked for, and what to do where it is found."""
    kitchen_of(request, kitchen_slug)
    return [
        schemas.LookOut(key=look.key, question=look.question, what_to_do=look.what_to_do, stops=look.stops)
        for look in LOOKS
    ]


@router.get("/offcuts", response=list[schemas.OffcutOut], operation_id="getOffcuts")
def get_offcuts(request: HttpRequest, kitchen_slug: Path[str]) -> list[schemas.OffcutOut]:
    """What was cut off before, and what it was worth."""
    return list_offcuts(kitchen_of(request, kitchen_slug))


@router.post("/batches/{code}/butchers-test", response=schemas.TestOut, operation_id="readButchersTest")
def butchers_test(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.TestIn
) -> schemas.TestOut:
    """The butcher's test of a batch; nothing is written."""
    return read_test(get_batch(kitchen_of(request, kitchen_slug), code), body)


@router.get("/map", response=schemas.MapOut, operation_id="getMap")
@until_next_write
def get_map(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """Which piece lies where."""
    return print_json(read_map(kitchen_of(request, kitchen_slug)))


@router.post("/stores", response={201: schemas.MapOut}, operation_id="saveStore")
def save_store(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.StoreIn, key: Key
) -> Status[schemas.MapOut]:
    """Keep a store."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.save_store(write_of(request, kitchen, key), body)
    return Status(201, read_map(kitchen))
