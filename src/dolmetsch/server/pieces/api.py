"""The pieces' API: only maps requests to reads and writes."""

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Status

from dolmetsch.core.meat.looking_over import LOOKS
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.pieces import actions, schemas
from dolmetsch.server.pieces.cutting import read_test
from dolmetsch.server.pieces.queries import list_offcuts, read_map, read_pieces
from dolmetsch.server.problems import Problem
from dolmetsch.server.responses import REFUSALS, print_json
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["pieces"])


@router.get(
    "/batches/{code}/pieces", response={200: schemas.PiecesOut, REFUSALS: Problem}, operation_id="getPieces"
)
def get_pieces(request: HttpRequest, kitchen_slug: Path[str], code: str) -> schemas.PiecesOut:
    """The living pieces of a batch, with size, skin and place."""
    return read_pieces(get_batch(kitchen_of(request, kitchen_slug), code))


@router.post(
    "/batches/{code}/pieces/{mark}/facts",
    response={201: schemas.PiecesOut, REFUSALS: Problem},
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


@router.post(
    "/batches/{code}/look-overs",
    response={201: schemas.PiecesOut, REFUSALS: Problem},
    operation_id="lookOver",
)
def look_over(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.LookOverIn, key: Key
) -> Status[schemas.PiecesOut]:
    """Keep that the meat was checked."""
    kitchen = kitchen_of(request, kitchen_slug)
    batch = get_batch(kitchen, code)
    actions.look_over(write_of(request, kitchen, key), batch, body)
    return Status(201, read_pieces(batch))


@router.get("/looks", response={200: list[schemas.LookOut], REFUSALS: Problem}, operation_id="getLooks")
def get_looks(request: HttpRequest, kitchen_slug: Path[str]) -> list[schemas.LookOut]:
    """What meat is checked for, and what to do where it is found."""
    kitchen_of(request, kitchen_slug)
    return [
        schemas.LookOut(key=look.key, question=look.question, what_to_do=look.what_to_do, stops=look.stops)
        for look in LOOKS
    ]


@router.get("/offcuts", response={200: list[schemas.OffcutOut], REFUSALS: Problem}, operation_id="getOffcuts")
def get_offcuts(request: HttpRequest, kitchen_slug: Path[str]) -> list[schemas.OffcutOut]:
    """What was cut off before, and what it was worth."""
    return list_offcuts(kitchen_of(request, kitchen_slug))


@router.post(
    "/batches/{code}/butchers-test",
    response={200: schemas.TestOut, REFUSALS: Problem},
    operation_id="readButchersTest",
)
def butchers_test(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.TestIn
) -> schemas.TestOut:
    """The butcher's test of a batch; nothing is written."""
    return read_test(get_batch(kitchen_of(request, kitchen_slug), code), body)


@router.get("/map", response={200: schemas.MapOut, REFUSALS: Problem}, operation_id="getMap")
@until_next_write
def get_map(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """Which piece lies where."""
    return print_json(read_map(kitchen_of(request, kitchen_slug)))


@router.post("/stores", response={201: schemas.MapOut, REFUSALS: Problem}, operation_id="saveStore")
def save_store(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.StoreIn, key: Key
) -> Status[schemas.MapOut]:
    """Keep a store."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.save_store(write_of(request, kitchen, key), body)
    return Status(201, read_map(kitchen))
