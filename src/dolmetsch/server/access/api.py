"""Signing in and out, by session cookie; every write needs the CSRF token."""

from django.conf import settings
from django.contrib.auth import authenticate
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from django.utils import timezone
from ninja import Router

from dolmetsch.server.access import passwords, sessions
from dolmetsch.server.access.demo_sign_in import DEMO_PASSWORD, DEMO_USERNAME
from dolmetsch.server.access.devices import TABLET
from dolmetsch.server.access.guard import origin_of
from dolmetsch.server.access.schemas import Alive, PasswordByLink, PasswordLinkOut, Session, SignIn
from dolmetsch.server.access.second_factor import check_code, has_second_factor
from dolmetsch.server.access.throttle import (
    forget_failures,
    is_local,
    note_failure,
    refuse_locked,
    remember_device,
    slow_guesses,
    where_tried,
)
from dolmetsch.server.audit.noting import note_done, note_refused
from dolmetsch.server.kitchens.models import Kitchen, Membership, User
from dolmetsch.server.kitchens.queries import list_memberships
from dolmetsch.server.kitchens.room import say_room
from dolmetsch.server.kitchens.schemas import KitchenInfo
from dolmetsch.server.problems import DomainError
from dolmetsch.server.responses import print_json

router = Router(tags=["session"])


@router.get("/session", response=Session, auth=None, operation_id="getSession")
def get_session(request: HttpRequest) -> Session:
    """Who is signed in, if anyone; gives the page its CSRF token."""
    get_token(request)
    return show_session(request)


@router.get("/session/alive", response=Alive, operation_id="checkSession")
def check_session(request: HttpRequest) -> Alive:
    """Whether the session still holds: 401 if not."""
    return Alive()


@router.post("/session", response=Session, auth=None, operation_id="signIn")
def sign_in(request: HttpRequest, body: SignIn) -> HttpResponse:
    """Sign in with name and password, and with the second factor's code where there is one."""
    name, address, now = body.username, where_tried(request, body.username), timezone.now()
    refuse_locked(name, address, now)
    user = authenticate(request, username=name, password=body.password)
    if not isinstance(user, User) or (name == DEMO_USERNAME and not may_show_demo(request)):
        raise _refused(request, name, "Name and password do not match.", "wrong_sign_in")
    if has_second_factor(user):
        if not body.code:
            said = "Type the code your authenticator app shows, or a recovery code."
            raise DomainError("code_needed", 401, "One more step", said)
        if not check_code(user, body.code):
            said = "That code is not the one of now. Wait for the next one, or use a recovery code."
            raise _refused(request, name, said, "wrong_code")
    forget_failures(name, address)
    sessions.begin_session(request, user)
    note_done(origin_of(request), kitchen=None, user=user, now=now, words="signed in")
    response = print_json(show_session(request))
    remember_device(request, response, name)
    return response


def _refused(request: HttpRequest, name: str, said: str, code: str) -> DomainError:
    now = timezone.now()
    note_failure(name, where_tried(request, name), now)
    known = User.objects.filter(username=name[:150]).first()
    words = "wrong password" if code == "wrong_sign_in" else "wrong code of the second factor"
    note_refused(origin_of(request), kitchen=None, user=known, now=now, words=f"was not signed in: {words}")
    return DomainError(code, 401, "Not signed in", said)


@router.delete("/session", response=Session, operation_id="signOut")
def sign_out(request: HttpRequest) -> HttpResponse:
    """Sign out; on a kitchen's tablet it is free for the next person. The browser forgets what it kept."""
    user = request.user
    if isinstance(user, User):
        note_done(origin_of(request), kitchen=None, user=user, now=timezone.now(), words="signed out")
    if TABLET in request.session:
        sessions.leave_tablet(request)
    else:
        sessions.end_session(request)
    response = print_json(show_session(request))
    # what was private on this device goes with the session, on a shared one above all
    response["Clear-Site-Data"] = '"cache"'
    return response


@router.get("/password-links/{code}", response=PasswordLinkOut, auth=None, operation_id="showPasswordLink")
def show_password_link(request: HttpRequest, code: str) -> PasswordLinkOut:
    """Whose password this link sets, while it works."""
    with slow_guesses(request, "a link", wrong="no_link"):
        link = passwords.find_password_link(code, timezone.now())
    return PasswordLinkOut(name=link.user.called, username=link.user.get_username())


@router.post("/password-links/{code}", response=Session, auth=None, operation_id="setPasswordByLink")
def set_password_by_link(request: HttpRequest, code: str, body: PasswordByLink) -> Session:
    """Set a new password by a link, once; every device is signed out, and this one has to sign in."""
    now = timezone.now()
    with slow_guesses(request, "a link", wrong="no_link"):
        user = passwords.use_password_link(code, body.new, now)
    sessions.end_session(request)
    note_done(origin_of(request), kitchen=None, user=user, now=now, words="set a new password by a link")
    return show_session(request)


def may_show_demo(request: HttpRequest) -> bool:
    """The demo's sign-in is no secret: it is for the machine itself, unless it was asked for elsewhere
    too, and until the demo was put away.
    """
    if not settings.DEMO or not (settings.DEMO_EVERYWHERE or is_local(request)):
        return False
    return not Kitchen.objects.filter(
        memberships__user__username=DEMO_USERNAME, put_away_at__isnull=False
    ).exists()


def may_start(request: HttpRequest) -> bool:
    """A kitchen is started at the machine itself, by an owner of another one, or where none is there yet."""
    if settings.OPEN_TO_NEW or is_local(request):
        return True
    if isinstance(request.user, User):
        return Membership.objects.filter(user=request.user, role="owner", left_at=None).exists()
    return False


def show_session(request: HttpRequest) -> Session:
    """Who is signed in, with the kitchens they are in."""
    demo = SignIn(username=DEMO_USERNAME, password=DEMO_PASSWORD) if may_show_demo(request) else None
    tablet = _tablet_of(request)
    user = request.user
    if not isinstance(user, User):
        return Session(signed_in=False, demo=demo, tablet=tablet, may_start=may_start(request))
    memberships = [
        one for one in list_memberships(user) if tablet is None or one.kitchen_id == request.session[TABLET]
    ]
    return Session(
        signed_in=True,
        name=user.called,
        username=user.get_username(),
        kitchens=[KitchenInfo.of(one) for one in memberships],
        demo=demo,
        may_start=may_start(request),
        tablet=tablet,
        disk_low=say_room() if any(one.role == "owner" for one in memberships) else None,
        mail=bool(settings.MAIL_SENDS),
    )


def _tablet_of(request: HttpRequest) -> str | None:
    if TABLET not in request.session:
        return None
    kitchen = Kitchen.objects.filter(pk=request.session[TABLET]).first()
    return None if kitchen is None else kitchen.name
