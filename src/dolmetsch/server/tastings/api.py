"""The API of trials and tastings: only maps requests to reads and writes. Tasters need no account."""

import uuid
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Query, Router, Status

from dolmetsch.server.access.guard import origin_of
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.responses import print_json
from dolmetsch.server.tastings import actions, schemas
from dolmetsch.server.tastings.models import TOKEN_LENGTH
from dolmetsch.server.tastings.queries import get_trial, list_trials, show_trial
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["trials"])
#: What tasters reach by their link, without signing in.
table = Router(tags=["tastings"])
Token = Annotated[str, Path(max_length=TOKEN_LENGTH)]


@router.get("/trials", response=schemas.TrialsOut, operation_id="getTrials")
def get_trials(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.TrialsOut:
    """All trials, the latest first."""
    return list_trials(kitchen_of(request, kitchen_slug), timezone.now())


@router.post("/trials", response={201: schemas.CureTrialOut}, operation_id="beginTrial")
def post_trial(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.CureTrialIn, key: Key
) -> Status[schemas.CureTrialOut]:
    """Begin a trial of pieces or batches side by side."""
    write = write_of(request, kitchen_of(request, kitchen_slug), key)
    return Status(201, show_trial(actions.begin_trial(write, body), write.now))


@router.get("/trials/{trial_id}", response=schemas.CureTrialOut, operation_id="getTrial")
@until_next_write
def get_one_trial(request: HttpRequest, kitchen_slug: Path[str], trial_id: int) -> HttpResponse:
    """A trial: its sides beside each other, and what tasters said."""
    return print_json(show_trial(get_trial(kitchen_of(request, kitchen_slug), trial_id), timezone.now()))


@router.post("/trials/{trial_id}/tastings", response={201: schemas.CureTrialOut}, operation_id="openTasting")
def post_tasting(
    request: HttpRequest, kitchen_slug: Path[str], trial_id: int, key: Key
) -> Status[schemas.CureTrialOut]:
    """Open a blind tasting; its link lives a day."""
    write = write_of(request, kitchen_of(request, kitchen_slug), key)
    tasting = actions.open_tasting(write, trial_id)
    return Status(201, show_trial(get_trial(write.kitchen, tasting.trial_id), write.now))


@table.get("/tastings/{token}", response=schemas.TableOut, auth=None, operation_id="getTable")
def get_table(request: HttpRequest, token: Token, device: Annotated[uuid.UUID, Query()]) -> schemas.TableOut:
    """The plates of a tasting, in this device's own order."""
    return actions.show_table(token, device, timezone.now())


@table.post("/tastings/{token}/sheets", response={201: schemas.TableOut}, auth=None, operation_id="handIn")
def post_sheet(request: HttpRequest, token: Token, body: schemas.SheetIn) -> Status[schemas.TableOut]:
    """Hand in a taster's scores, once a device."""
    now = timezone.now()
    actions.hand_in(token, body, now, origin_of(request))
    return Status(201, actions.show_table(token, body.device, now))
