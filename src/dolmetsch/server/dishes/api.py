"""The API of dishes and the store cupboard: only maps requests to reads and writes."""

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Status

from dolmetsch.server.dishes import actions, schemas
from dolmetsch.server.dishes.cupboard import read_cupboard
from dolmetsch.server.dishes.files import write_dishes
from dolmetsch.server.dishes.queries import preview_dish, read_dish_page, read_dishes
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.quantities.typed import FileIn
from dolmetsch.server.responses import answer_with, print_json
from dolmetsch.server.tables.writing import TABLE_TYPES, TableForm
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["dishes"])


@router.get("/dishes", response=schemas.DishesOut, operation_id="getDishes")
@until_next_write
def get_dishes(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """Every dish with what a plate costs now."""
    return print_json(read_dishes(kitchen_of(request, kitchen_slug)))


@router.post("/previews/dishes", response=schemas.DishPreview, operation_id="previewDish")
def preview(request: HttpRequest, kitchen_slug: Path[str], body: schemas.DishIn) -> schemas.DishPreview:
    """What a dish as typed would cost; nothing is written."""
    return preview_dish(kitchen_of(request, kitchen_slug), body)


@router.post("/dishes", response={201: schemas.DishesOut}, operation_id="saveDish")
def save_dish(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.DishIn, key: Key
) -> Status[schemas.DishesOut]:
    """Save a dish as its next version."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.save_dish(write_of(request, kitchen, key), body)
    return Status(201, read_dishes(kitchen))


@router.post("/dish-imports", response={201: schemas.DishesOut}, operation_id="importDishes")
def import_dishes(
    request: HttpRequest, kitchen_slug: Path[str], body: FileIn, key: Key
) -> Status[schemas.DishesOut]:
    """Save every dish of a file (csv, xlsx, json) as its next version; all of them or none."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.import_dishes(write_of(request, kitchen, key), body.name, body.content)
    return Status(201, read_dishes(kitchen))


@router.get(
    "/dishes/files/{form}",
    operation_id="getDishesFile",
    openapi_extra=answer_with(*TABLE_TYPES.values()),
)
def get_dishes_file(request: HttpRequest, kitchen_slug: Path[str], form: TableForm) -> HttpResponse:
    """All dishes to take away (csv, xlsx, json)."""
    kitchen = kitchen_of(request, kitchen_slug)
    name = f'attachment; filename="dishes.{form}"'
    return HttpResponse(
        write_dishes(kitchen, form), content_type=TABLE_TYPES[form], headers={"Content-Disposition": name}
    )


@router.get("/dishes/{name}", response=schemas.DishPage, operation_id="getDish")
@until_next_write
def get_dish(request: HttpRequest, kitchen_slug: Path[str], name: str) -> HttpResponse:
    """One dish whole."""
    return print_json(read_dish_page(kitchen_of(request, kitchen_slug), name))


@router.post("/dishes/{name}/looks", response={201: schemas.DishPage}, operation_id="lookAtCost")
def look_at_cost(
    request: HttpRequest, kitchen_slug: Path[str], name: str, key: Key
) -> Status[schemas.DishPage]:
    """The cook has seen what a plate costs now: from here on it is compared with that."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.look_at_cost(write_of(request, kitchen, key), name)
    return Status(201, read_dish_page(kitchen, name))


@router.post("/dishes/{name}/plates", response={201: schemas.DishPage}, operation_id="servePlates")
def serve_plates(
    request: HttpRequest, kitchen_slug: Path[str], name: str, body: schemas.PlatesIn, key: Key
) -> Status[schemas.DishPage]:
    """Plates are served: what they take leaves the larder, oldest first."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.serve_plates(write_of(request, kitchen, key), name, body)
    return Status(201, read_dish_page(kitchen, name))


@router.post("/platings/{plating_id}/cancel", response={201: schemas.DishesOut}, operation_id="cancelPlates")
def cancel_plates(
    request: HttpRequest, kitchen_slug: Path[str], plating_id: int, body: schemas.CancelPlatesIn, key: Key
) -> Status[schemas.DishesOut]:
    """Plates were not served: what they took is in the larder again."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.cancel_plates(write_of(request, kitchen, key), plating_id, body)
    return Status(201, read_dishes(kitchen))


@router.post("/dish-aims", response={201: schemas.DishesOut}, operation_id="setAims")
def set_aims(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.AimsIn, key: Key
) -> Status[schemas.DishesOut]:
    """Set what the kitchen aims at."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.set_aims(write_of(request, kitchen, key), body)
    return Status(201, read_dishes(kitchen))


@router.get("/cupboard", response=schemas.CupboardOut, operation_id="getCupboard")
@until_next_write
def get_cupboard(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """The store cupboard."""
    return print_json(read_cupboard(kitchen_of(request, kitchen_slug)))


@router.post("/cupboard", response={201: schemas.CupboardOut}, operation_id="noteStock")
def note_stock(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.StockIn, key: Key
) -> Status[schemas.CupboardOut]:
    """Note what was bought for the store cupboard, or counted in it."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.note_stock(write_of(request, kitchen, key), body)
    return Status(201, read_cupboard(kitchen))
