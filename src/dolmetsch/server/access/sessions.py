"""Sessions: begun at sign-in, noted by device, ended after a while without use and on being asked."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from datetime import datetime, timedelta
from typing import Final

from django.contrib.auth import login, logout
from django.contrib.sessions.models import Session as StoredSession
from django.db import DatabaseError, transaction
from django.http import HttpRequest, HttpResponseBase
from django.utils import timezone

from dolmetsch.server.access.devices import DEVICE, TABLET, device_of, name_device
from dolmetsch.server.access.models import SignedInDevice
from dolmetsch.server.access.throttle import address_of
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.lengths import DEVICE_LENGTH

#: A session ends after so long without use, and after so long in any case.
IDLE: Final = timedelta(days=7)
LONGEST: Final = timedelta(days=30)
#: On a kitchen's tablet whoever said who they are is asked again after so long without use.
TABLET_IDLE: Final = timedelta(minutes=10)
#: The last use is noted no more often than this.
NOTED_EVERY: Final = timedelta(minutes=2)
BACKEND: Final = "django.contrib.auth.backends.ModelBackend"
_SINCE: Final = "since"
_SEEN: Final = "seen"


def begin_session(request: HttpRequest, user: User) -> None:
    """Sign ``user`` in on this device, under a new session key."""
    now = timezone.now()
    forget_device(request)
    login(request, user, backend=BACKEND)
    request.session[DEVICE] = name_device(request.headers.get("User-Agent", ""))
    request.session[_SINCE] = request.session[_SEEN] = now.timestamp()
    _note_device(request, user, now)


def become(request: HttpRequest, user: User) -> None:
    """On a kitchen's tablet: from now on it is ``user`` who works there."""
    kept = {name: request.session.get(name) for name in (TABLET, DEVICE)}
    with followed(request):
        login(request, user, backend=BACKEND)
        request.session.update({**kept, _SEEN: timezone.now().timestamp()})


def leave_tablet(request: HttpRequest) -> None:
    """On a kitchen's tablet: nobody works there now; the device stays the kitchen's."""
    kept = {name: request.session.get(name) for name in (TABLET, DEVICE, _SINCE)}
    with followed(request):
        logout(request)
        request.session.update(kept)
        request.session.save()


@contextmanager
def followed(request: HttpRequest) -> Iterator[None]:
    """The device of this request stays in its list while its session takes another key."""
    before = request.session.session_key
    yield
    SignedInDevice.objects.filter(session_key=before).update(session_key=request.session.session_key)


def make_tablet(request: HttpRequest, user: User, kitchen: Kitchen) -> None:
    """Turn this device into the kitchen's tablet; ``user`` is signed out on it."""
    now = timezone.now()
    forget_device(request)
    logout(request)
    request.session[TABLET] = kitchen.pk
    request.session[DEVICE] = f"Tablet of {kitchen.name}"[:DEVICE_LENGTH]
    request.session[_SINCE] = now.timestamp()
    request.session.save()
    SignedInDevice.objects.create(
        user=user,
        kitchen=kitchen,
        session_key=str(request.session.session_key),
        name=name_device(request.headers.get("User-Agent", "")),
        address=address_of(request),
        since=now,
        last_at=now,
    )


def end_session(request: HttpRequest) -> None:
    """Sign out here, also where it is a kitchen's tablet."""
    forget_device(request)
    logout(request)


def forget_device(request: HttpRequest) -> None:
    """The session of this request is in no list of devices any more."""
    if request.session.session_key:
        SignedInDevice.objects.filter(session_key=request.session.session_key).delete()


def end_sessions(user: User, *, but: str = "", only: int | None = None) -> int:
    """End the sessions of ``user``, ``but`` that of this key, ``only`` that of this device; how many."""
    with transaction.atomic():
        mine = SignedInDevice.objects.filter(user=user).exclude(session_key=but)
        if only is not None:
            mine = mine.filter(pk=only)
        keys = list(mine.values_list("session_key", flat=True))
        StoredSession.objects.filter(session_key__in=keys).delete()
        mine.delete()
    return len(keys)


def _note_device(request: HttpRequest, user: User, now: datetime) -> None:
    SignedInDevice.objects.create(
        user=user,
        session_key=str(request.session.session_key),
        name=device_of(request),
        address=address_of(request),
        since=now,
        last_at=now,
    )


def end_idle(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: end a session that was not used for long, and note when it was used last."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        if request.path.startswith("/api/") and request.session.session_key:
            # where the record store is away, the answer itself says so
            with suppress(DatabaseError):
                _look_at(request, timezone.now())
        return get_response(request)

    return middleware


def _look_at(request: HttpRequest, now: datetime) -> None:
    session, moment = request.session, now.timestamp()
    seen, since = session.get(_SEEN, moment), session.get(_SINCE, moment)
    # a clock that was set back says nothing of use
    unused = max(moment - seen, 0)
    if TABLET in session:
        if request.user.is_authenticated and unused > TABLET_IDLE.total_seconds():
            leave_tablet(request)
            return
    elif unused > IDLE.total_seconds() or moment - since > LONGEST.total_seconds():
        end_session(request)
        return
    if unused > NOTED_EVERY.total_seconds() or _SEEN not in session or seen > moment:
        session[_SEEN] = moment
        session.setdefault(_SINCE, moment)
        SignedInDevice.objects.filter(session_key=session.session_key).update(last_at=now)
