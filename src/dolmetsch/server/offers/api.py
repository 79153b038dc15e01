"""The case check's API: only maps requests to reads and writes."""

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router

from dolmetsch.server.batches.api import answer_recorded
from dolmetsch.server.batches.show.schemas import RecordedOut
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.offers import schemas
from dolmetsch.server.offers.showing import read_case, read_choices
from dolmetsch.server.offers.taking import take_offer
from dolmetsch.server.responses import print_json
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["offers"])


@router.get("/case", response=schemas.ChoicesOut, operation_id="getCaseChoices")
def get_choices(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.ChoicesOut:
    """Ways, shop kinds and listed meats a case check can be made of."""
    return read_choices(kitchen_of(request, kitchen_slug))


@router.post("/case", response=schemas.CaseOut, operation_id="checkCase")
def check_case(request: HttpRequest, kitchen_slug: Path[str], body: schemas.CaseIn) -> HttpResponse:
    """Rank offers by what a sliced pound will come to; nothing is written."""
    return print_json(read_case(kitchen_of(request, kitchen_slug), body))


@router.post("/case/taken", response={frozenset({200, 201}): RecordedOut}, operation_id="takeOffer")
def post_taken(request: HttpRequest, kitchen_slug: Path[str], body: schemas.TakeIn, key: Key) -> HttpResponse:
    """Take an offer home: the lot of a new batch. 200 for a resend of the same key, 201 for a new one."""
    kitchen = kitchen_of(request, kitchen_slug)
    return answer_recorded(take_offer(write_of(request, kitchen, key), body))
