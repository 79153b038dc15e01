"""A kitchen as a whole: only maps requests to reads and writes."""

from django.http import HttpRequest
from django.utils import timezone
from ninja import Path, Router, Status

from dolmetsch.server.access.api import may_start, show_session
from dolmetsch.server.access.demo_sign_in import DEMO_USERNAME
from dolmetsch.server.access.guard import origin_of
from dolmetsch.server.access.sessions import begin_session
from dolmetsch.server.access.throttle import address_of, is_local, note_kitchen, refuse_more_kitchens
from dolmetsch.server.audit.noting import note_done
from dolmetsch.server.house import schemas
from dolmetsch.server.house.demo import put_demo_away, show_demo
from dolmetsch.server.house.settings import change_settings, show_settings
from dolmetsch.server.house.starting import start_kitchen
from dolmetsch.server.house.units import change_units, show_units
from dolmetsch.server.kitchens.models import User
from dolmetsch.server.kitchens.queries import kitchen_of, signed_in
from dolmetsch.server.problems import DomainError

router = Router(tags=["kitchen"])


@router.post("/kitchens", response={201: schemas.StartedOut}, auth=None, operation_id="startKitchen")
def post_kitchen(request: HttpRequest, body: schemas.StartKitchenIn) -> Status[schemas.StartedOut]:
    """Start a kitchen: with its owner, who is signed in then; or another one of who is signed in."""
    if not may_start(request):
        said = "Kitchens are started at the machine itself, or by who owns one here. Ask who keeps it."
        raise DomainError("not_allowed", 403, "Not here", said)
    now, is_elsewhere = timezone.now(), not is_local(request)
    if is_elsewhere:
        refuse_more_kitchens(address_of(request), now)
    # whoever looked around in the demo starts as themselves
    user = request.user
    is_someone = isinstance(user, User) and user.get_username() != DEMO_USERNAME
    membership = start_kitchen(
        body,
        user=user if isinstance(user, User) and is_someone else None,
        origin=origin_of(request),
        now=now,
    )
    if is_elsewhere:
        note_kitchen(address_of(request), now)
    if not is_someone:
        begin_session(request, membership.user)
    return Status(201, schemas.StartedOut(slug=membership.kitchen.slug, session=show_session(request)))


@router.get("/kitchens/{kitchen_slug}/settings", response=schemas.SettingsIn, operation_id="getSettings")
def get_settings(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.SettingsIn:
    """What a kitchen counts by default, its scale, and how many slabs fit."""
    return show_settings(kitchen_of(request, kitchen_slug))


@router.put("/kitchens/{kitchen_slug}/settings", response=schemas.SettingsIn, operation_id="changeSettings")
def put_settings(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.SettingsIn
) -> schemas.SettingsIn:
    """Keep a kitchen's settings; batches already begun keep theirs."""
    kitchen = kitchen_of(request, kitchen_slug)
    return change_settings(kitchen, body, user=signed_in(request), origin=origin_of(request))


@router.get("/kitchens/{kitchen_slug}/units", response=schemas.UnitsOut, operation_id="getUnits")
def get_units(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.UnitsOut:
    """A kitchen's name, units, currency and clock."""
    return show_units(kitchen_of(request, kitchen_slug))


@router.put("/kitchens/{kitchen_slug}/units", response=schemas.UnitsOut, operation_id="changeUnits")
def put_units(request: HttpRequest, kitchen_slug: Path[str], body: schemas.UnitsIn) -> schemas.UnitsOut:
    """Change a kitchen's name, units and clock; its currency only before the first price."""
    kitchen = kitchen_of(request, kitchen_slug)
    return change_units(kitchen, body, user=signed_in(request), origin=origin_of(request))


@router.get("/kitchens/{kitchen_slug}/demo", response=schemas.DemoOut, operation_id="getDemo")
def get_demo(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.DemoOut:
    """Whether the demo is on this machine, and was put away."""
    return show_demo()


@router.put("/kitchens/{kitchen_slug}/demo", response=schemas.DemoOut, operation_id="putDemoAway")
def put_demo(request: HttpRequest, kitchen_slug: Path[str], body: schemas.DemoIn) -> schemas.DemoOut:
    """Put the demo away, or bring it back: by an owner of a kitchen of their own, at the machine itself."""
    user = signed_in(request)
    if not is_local(request) or user.get_username() == DEMO_USERNAME:
        said = "The demo is put away by who owns a kitchen here, at the machine itself."
        raise DomainError("not_allowed", 403, "Not here", said)
    shown = put_demo_away(body.is_away)
    words = "put the demo away" if body.is_away else "brought the demo back"
    kitchen = kitchen_of(request, kitchen_slug)
    note_done(origin_of(request), kitchen=kitchen, user=user, now=timezone.now(), words=words)
    return shown
