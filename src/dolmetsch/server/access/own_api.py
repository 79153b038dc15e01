"""One's own page: name, password, second factor, devices; and who one is at the kitchen's tablet."""

from django.contrib.auth import update_session_auth_hash
from django.contrib.auth.hashers import check_password
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django_otp.plugins.otp_static.models import StaticToken
from ninja import Router

from dolmetsch.server.access import passwords, schemas, second_factor, sessions
from dolmetsch.server.access.api import show_session
from dolmetsch.server.access.devices import TABLET
from dolmetsch.server.access.guard import origin_of
from dolmetsch.server.access.models import SignedInDevice
from dolmetsch.server.access.own_data import collect_own_data
from dolmetsch.server.access.throttle import address_of, forget_failures, note_failure, refuse_locked
from dolmetsch.server.audit.noting import note_done, note_refused
from dolmetsch.server.kitchens.models import Kitchen, Membership, User
from dolmetsch.server.kitchens.queries import signed_in
from dolmetsch.server.problems import (
    DomainError,
    FieldProblem,
    refuse_fields,
)

router = Router(tags=["own page"])


@router.get("/own", response=schemas.OwnPage, operation_id="getOwnPage")
def get_own_page(request: HttpRequest) -> schemas.OwnPage:
    """One's name, second factor, and the devices one is signed in on."""
    return show_own_page(request)


@router.put("/own/password", response=schemas.OwnPage, operation_id="changePassword")
def put_password(request: HttpRequest, body: schemas.NewPassword) -> schemas.OwnPage:
    """Change one's password; other devices are signed out."""
    user = _refuse_wrong(request, body.password)
    passwords.set_password(user, body.new, but=str(request.session.session_key))
    with sessions.followed(request):
        update_session_auth_hash(request, user)
    _note(request, "changed their password")
    return show_own_page(request)


@router.delete("/own/devices/{device_id}", response=schemas.OwnPage, operation_id="endSession")
def delete_device(request: HttpRequest, device_id: int) -> schemas.OwnPage:
    """Sign out on one of one's devices."""
    user = signed_in(request)
    if not sessions.end_sessions(user, only=device_id, but=str(request.session.session_key)):
        raise DomainError("not_found", 404, "Not here", "You are not signed in on that device any more.")
    _note(request, "signed out on another device")
    return show_own_page(request)


@router.post("/own/second-factor", response=schemas.SecondFactorOut, operation_id="beginSecondFactor")
def post_second_factor(request: HttpRequest, body: schemas.PasswordAgain) -> schemas.SecondFactorOut:
    """A key for an authenticator app; it is asked for only once it was confirmed."""
    user = _refuse_wrong(request, body.password)
    secret, qr = second_factor.begin_second_factor(user)
    return schemas.SecondFactorOut(secret=secret, qr=qr)


@router.put("/own/second-factor", response=schemas.RecoveryCodes, operation_id="confirmSecondFactor")
def put_second_factor(request: HttpRequest, body: schemas.AppCode) -> schemas.RecoveryCodes:
    """Confirm the app by the code it shows; gives recovery codes."""
    codes = second_factor.confirm_second_factor(signed_in(request), body.code)
    _note(request, "set up a second factor")
    return schemas.RecoveryCodes(codes=codes)


@router.delete("/own/second-factor", response=schemas.OwnPage, operation_id="endSecondFactor")
def delete_second_factor(request: HttpRequest, body: schemas.PasswordAgain) -> schemas.OwnPage:
    """Sign in by the password alone again."""
    user = _refuse_wrong(request, body.password)
    second_factor.end_second_factor(user)
    _note(request, "ended their second factor")
    return show_own_page(request)


@router.get("/own/data", operation_id="exportOwnData")
def get_own_data(request: HttpRequest) -> HttpResponse:
    """All that is kept about oneself, as JSON."""
    content = collect_own_data(signed_in(request))
    headers = {"Content-Disposition": 'attachment; filename="my-data.json"'}
    return HttpResponse(content, content_type="application/json", headers=headers)


@router.get("/tablet", response=schemas.TabletOut, auth=None, operation_id="getTablet")
def get_tablet(request: HttpRequest) -> schemas.TabletOut:
    """Who works in the kitchen whose tablet this is."""
    kitchen = _kitchen_of_tablet(request)
    places = Membership.objects.select_related("user").filter(kitchen=kitchen, left_at=None)
    people = [
        schemas.TabletPerson(id=one.pk, name=one.user.called, has_code=bool(one.tablet_code))
        for one in places.filter(user__is_active=True).order_by("user__first_name", "pk")
    ]
    return schemas.TabletOut(kitchen=kitchen.name, people=people)


@router.post("/tablet", response=schemas.Session, auth=None, operation_id="sayWho")
def post_who(request: HttpRequest, body: schemas.WhoIn) -> schemas.Session:
    """At the kitchen's tablet: say who one is, by the short code one set."""
    kitchen = _kitchen_of_tablet(request)
    name, address, now = f"tablet {body.person}", address_of(request), timezone.now()
    refuse_locked(name, address, now)
    place = (
        Membership.objects.select_related("user")
        .filter(pk=body.person, kitchen=kitchen, left_at=None, user__is_active=True)
        .first()
    )
    if place is None or not place.tablet_code or not check_password(body.code, place.tablet_code):
        note_failure(name, address, now)
        user = None if place is None else place.user
        said = "was not let in at the tablet: wrong code"
        note_refused(origin_of(request), kitchen=kitchen, user=user, now=now, words=said)
        raise DomainError("wrong_code", 401, "Not signed in", "That is not your code. Try again.")
    forget_failures(name, address)
    sessions.become(request, place.user)
    note_done(origin_of(request), kitchen=kitchen, user=place.user, now=now, words="came to the tablet")
    return show_session(request)


def _kitchen_of_tablet(request: HttpRequest) -> Kitchen:
    kitchen = Kitchen.objects.filter(pk=request.session.get(TABLET, 0), put_away_at=None).first()
    if kitchen is None:
        raise DomainError("not_found", 404, "Not here", "This device is no kitchen’s tablet.")
    return kitchen


def _refuse_wrong(request: HttpRequest, password: str) -> User:
    """The user, where ``password`` is theirs; wrong ones are slowed as at signing in.

    Raises:
        DomainError: locked_out, bad_fields.
    """
    user, address, now = signed_in(request), address_of(request), timezone.now()
    refuse_locked(user.get_username(), address, now)
    if not user.check_password(password):
        note_failure(user.get_username(), address, now)
        said = "That is not your password."
        raise refuse_fields([FieldProblem(path="password", code="wrong", message=said)])
    return user


def _note(request: HttpRequest, words: str) -> None:
    user, now = signed_in(request), timezone.now()
    note_done(origin_of(request), kitchen=None, user=user, now=now, words=words)


def show_own_page(request: HttpRequest) -> schemas.OwnPage:
    """One's name, second factor, and devices, as they are now."""
    user, key = signed_in(request), request.session.session_key
    devices = SignedInDevice.objects.select_related("kitchen").filter(user=user).order_by("-last_at")
    return schemas.OwnPage(
        name=user.called,
        username=user.get_username(),
        has_second_factor=second_factor.has_second_factor(user),
        recovery_left=StaticToken.objects.filter(device__user=user).count(),
        devices=[
            schemas.DeviceOut(
                id=one.pk,
                name=one.name,
                address=one.address,
                since=one.since,
                last_at=one.last_at,
                is_here=one.session_key == key,
                tablet_of=None if one.kitchen is None else one.kitchen.name,
            )
            for one in devices[:100]
        ],
    )
