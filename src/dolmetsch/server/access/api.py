"""Signing in and out, by session cookie; every write needs the CSRF token."""

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from django.utils import timezone
from ninja import Router
from ninja.security import django_auth
from ninja.utils import check_csrf

from dolmetsch.server.access.demo_sign_in import DEMO_PASSWORD, DEMO_USERNAME
from dolmetsch.server.access.schemas import Alive, Session, SignIn
from dolmetsch.server.access.throttle import (
    address_of,
    forget_failures,
    is_local,
    note_failure,
    refuse_locked,
)
from dolmetsch.server.kitchens.models import User
from dolmetsch.server.kitchens.queries import list_kitchens
from dolmetsch.server.kitchens.schemas import KitchenInfo
from dolmetsch.server.problems import DomainError, Problem, answer_csrf_failure
from dolmetsch.server.responses import REFUSALS

router = Router(tags=["session"])


@router.get("/session", response={200: Session, REFUSALS: Problem}, auth=None, operation_id="getSession")
def get_session(request: HttpRequest) -> Session:
    """Who is signed in, if anyone; gives the page its CSRF token."""
    get_token(request)
    return _show_session(request)


@router.get(
    "/session/alive", response={200: Alive, REFUSALS: Problem}, auth=django_auth, operation_id="checkSession"
)
def check_session(request: HttpRequest) -> Alive:
    """Whether the session still holds: 401 if not."""
    return Alive()


@router.post("/session", response={200: Session, REFUSALS: Problem}, auth=None, operation_id="signIn")
def sign_in(request: HttpRequest, body: SignIn) -> Session | HttpResponse:
    """Sign in with name and password."""
    if check_csrf(request) is not None:
        return answer_csrf_failure(request)
    name, address, now = body.username, address_of(request), timezone.now()
    refuse_locked(name, address, now)
    user = authenticate(request, username=name, password=body.password)
    if user is None or (name == DEMO_USERNAME and not _may_show_demo(request)):
        note_failure(name, address, now)
        said = "Name and password do not match."
        raise DomainError("wrong_sign_in", 401, "Not signed in", said)
    forget_failures(name, address)
    login(request, user)
    return _show_session(request)


@router.delete(
    "/session", response={200: Session, REFUSALS: Problem}, auth=django_auth, operation_id="signOut"
)
def sign_out(request: HttpRequest) -> Session:
    """Sign out."""
    logout(request)
    return _show_session(request)


def _may_show_demo(request: HttpRequest) -> bool:
    """The demo's sign-in is no secret: it is for the machine itself, unless it was asked for elsewhere
    too.
    """
    return bool(settings.DEMO) and (bool(settings.DEMO_EVERYWHERE) or is_local(request))


def _show_session(request: HttpRequest) -> Session:
    demo = SignIn(username=DEMO_USERNAME, password=DEMO_PASSWORD) if _may_show_demo(request) else None
    user = request.user
    if not isinstance(user, User):
        return Session(signed_in=False, demo=demo)
    kitchens = [KitchenInfo.from_orm(kitchen) for kitchen in list_kitchens(user)]
    return Session(
        signed_in=True, name=user.called, username=user.get_username(), kitchens=kitchens, demo=demo
    )
