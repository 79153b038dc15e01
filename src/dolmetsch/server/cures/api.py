"""The cures' API: only maps requests to reads and writes."""

from django.http import HttpRequest
from ninja import Path, Router, Status

from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.cures import actions, schemas, typed
from dolmetsch.server.cures.desk import read_desk
from dolmetsch.server.cures.figures import set_figure
from dolmetsch.server.cures.mixes import make_mix
from dolmetsch.server.cures.queries import read_cures, read_facts
from dolmetsch.server.cures.showing import show_desk
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["cures"])


@router.get("/cure-desk", response=schemas.DeskFactsOut, operation_id="getCureDesk")
def get_cure_desk(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.DeskFactsOut:
    """Schools, agents, spoons, limits, recipes and mixes."""
    return read_facts(kitchen_of(request, kitchen_slug))


@router.post("/recipes", response={201: schemas.DeskFactsOut}, operation_id="saveRecipe")
def save_recipe(
    request: HttpRequest, kitchen_slug: Path[str], body: typed.SaveRecipeIn, key: Key
) -> Status[schemas.DeskFactsOut]:
    """Keep a recipe: the next version of its name."""
    kitchen = kitchen_of(request, kitchen_slug)
    actions.save_recipe(write_of(request, kitchen, key), body)
    return Status(201, read_facts(kitchen))


@router.post("/cure-figures", response={201: schemas.DeskFactsOut}, operation_id="setFigure")
def post_figure(
    request: HttpRequest, kitchen_slug: Path[str], body: typed.FigureIn, key: Key
) -> Status[schemas.DeskFactsOut]:
    """Keep a limit or a spoon of the kitchen's own, or give the reference back."""
    kitchen = kitchen_of(request, kitchen_slug)
    set_figure(write_of(request, kitchen, key), body)
    return Status(201, read_facts(kitchen))


@router.post("/mixes", response={201: schemas.DeskFactsOut}, operation_id="makeMix")
def post_mix(
    request: HttpRequest, kitchen_slug: Path[str], body: typed.MixIn, key: Key
) -> Status[schemas.DeskFactsOut]:
    """Keep that a mix was made."""
    kitchen = kitchen_of(request, kitchen_slug)
    make_mix(write_of(request, kitchen, key), body)
    return Status(201, read_facts(kitchen))


@router.post("/batches/{code}/cure-desk", response=schemas.DeskOut, operation_id="askCureDesk")
def ask_cure_desk(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: typed.DeskIn
) -> schemas.DeskOut:
    """What to weigh out for pieces of a batch; nothing is written."""
    return show_desk(read_desk(get_batch(kitchen_of(request, kitchen_slug), code), body))


@router.get("/batches/{code}/cures", response=schemas.CuresOut, operation_id="getCures")
def get_cures(request: HttpRequest, kitchen_slug: Path[str], code: str) -> schemas.CuresOut:
    """Every cure of a batch."""
    return read_cures(get_batch(kitchen_of(request, kitchen_slug), code))


@router.post("/batches/{code}/cures", response={201: schemas.CuresOut}, operation_id="putIn")
def put_in(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: typed.PutInIn, key: Key
) -> Status[schemas.CuresOut]:
    """Put pieces into the cure, and plan the days to come."""
    kitchen = kitchen_of(request, kitchen_slug)
    batch = get_batch(kitchen, code)
    actions.put_in(write_of(request, kitchen, key), batch, body)
    return Status(201, read_cures(batch))


@router.post(
    "/batches/{code}/cures/{cure_id}/take-back",
    response={201: schemas.CuresOut},
    operation_id="takeCureBack",
)
def take_back(
    request: HttpRequest, kitchen_slug: Path[str], code: str, cure_id: int, body: typed.TakeBackIn, key: Key
) -> Status[schemas.CuresOut]:
    """A cure put down by mistake counts no more."""
    kitchen = kitchen_of(request, kitchen_slug)
    batch = get_batch(kitchen, code)
    actions.take_back(write_of(request, kitchen, key), batch, cure_id, body)
    return Status(201, read_cures(batch))
