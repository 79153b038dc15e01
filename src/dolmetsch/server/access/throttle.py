"""Wrong passwords: a pause that grows for a name at an address, and a bound on tries from one address.

Kept in the record store, so that every worker counts alike. A stranger can neither lock a cook out elsewhere
nor, behind a proxy, everybody at once; nor can a colleague at the same address: a device that someone has
signed in on before is counted by itself, for them alone.
"""

import secrets
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime, timedelta
from typing import Final

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from dolmetsch.server.kitchens.models import SignInFailure
from dolmetsch.server.problems import DomainError

#: Wrong passwords of a name at an address that cost nothing but a try.
FREE_TRIES: Final = 5
FIRST_PAUSE: Final = timedelta(seconds=15)
LONGEST_PAUSE: Final = timedelta(hours=1)
#: Failures are forgotten after so long without another.
FORGOTTEN: Final = timedelta(days=1)
#: Failures from one address, whatever the names, within a while.
ADDRESS_TRIES: Final = 60
ADDRESS_WHILE: Final = timedelta(minutes=10)
#: Kitchens that may be started from one address within a day (the machine itself is not counted), and the
#: name they are counted by, which nobody can sign in with.
KITCHENS_A_DAY: Final = 10
_KITCHEN: Final = "a new kitchen"
#: The cookie of a device that someone has signed in on, signed; and for how long it is one.
KNOWN: Final = "known"
KNOWN_SECONDS: Final = 365 * 24 * 3600


def address_of(request: HttpRequest) -> str:
    """Whose request it is: behind the kitchen's own proxy, what that says of the one before it."""
    if settings.IS_PROXIED:
        # each proxy adds the address it heard from at the end; only the last is our own proxy's word
        forwarded = request.headers.get("X-Forwarded-For", "").rpartition(",")[2].strip()
        if forwarded:
            return forwarded[:45]
    return str(request.META.get("REMOTE_ADDR", ""))[:45]


def where_tried(request: HttpRequest, name: str) -> str:
    """What tries of ``name`` are counted by: the device, where that person has signed in on it before, else
    the address.
    """
    try:
        whose, device = str(signing.loads(request.COOKIES.get(KNOWN, ""), salt=KNOWN)).rsplit(" ", 1)
    except (signing.BadSignature, ValueError):
        return address_of(request)
    return f"device {device}" if whose == _known(name) else address_of(request)


def remember_device(request: HttpRequest, response: HttpResponse, name: str) -> None:
    """Let the device remember that ``name`` has signed in on it."""
    content = signing.dumps(f"{_known(name)} {secrets.token_hex(8)}", salt=KNOWN)
    response.set_cookie(
        KNOWN,
        content,
        max_age=KNOWN_SECONDS,
        httponly=True,
        samesite="Lax",
        secure=bool(settings.SESSION_COOKIE_SECURE),
        path="/api/",
    )


def is_local(request: HttpRequest) -> bool:
    """Whether it comes from the machine itself, through no proxy."""
    is_forwarded = "X-Forwarded-For" in request.headers or "Forwarded" in request.headers
    return request.META.get("REMOTE_ADDR") in ("127.0.0.1", "::1") and not is_forwarded


def refuse_locked(name: str, address: str, now: datetime) -> None:
    """Refuse a try while a pause lasts.

    Raises:
        DomainError: locked_out, with how long.
    """
    mine = SignInFailure.objects.filter(name=_known(name), address=address, at__gt=now - FORGOTTEN)
    times = list(mine.order_by("-at").values_list("at", flat=True)[:40])
    if len(times) >= FREE_TRIES:
        pause = min(FIRST_PAUSE * 2 ** (len(times) - FREE_TRIES), LONGEST_PAUSE)
        _refuse_until(times[0] + pause, now)
    tried = SignInFailure.objects.filter(address=address, at__gt=now - ADDRESS_WHILE).order_by("at")
    if tried.count() >= ADDRESS_TRIES:
        first = tried.values_list("at", flat=True)[0]
        _refuse_until(first + ADDRESS_WHILE, now)


@contextmanager
def slow_guesses(request: HttpRequest, what: str, *, wrong: str) -> Iterator[None]:
    """Slow whoever guesses ``what`` at an address: refusals with the code ``wrong`` count as failures.

    Raises:
        DomainError: locked_out, and what is raised within.
    """
    address, now = address_of(request), timezone.now()
    refuse_locked(what, address, now)
    try:
        yield
    except DomainError as error:
        if error.code == wrong:
            note_failure(what, address, now)
        raise


def refuse_more_kitchens(address: str, now: datetime) -> None:
    """Refuse another kitchen from an address that many were started from lately.

    Raises:
        DomainError: too_many_kitchens.
    """
    started = SignInFailure.objects.filter(name=_KITCHEN, address=address, at__gt=now - FORGOTTEN)
    if started.count() >= KITCHENS_A_DAY:
        said = f"{KITCHENS_A_DAY} kitchens were started from here within a day. Try again tomorrow."
        raise DomainError("too_many_kitchens", 429, "Too many kitchens", said)


def note_kitchen(address: str, now: datetime) -> None:
    """A kitchen was started."""
    note_failure(_KITCHEN, address, now)


def note_failure(name: str, address: str, now: datetime) -> None:
    """A wrong password was tried."""
    SignInFailure.objects.create(name=_known(name), address=address, at=now)
    SignInFailure.objects.filter(at__lt=now - FORGOTTEN).delete()


def forget_failures(name: str, address: str) -> None:
    """The right password was given."""
    SignInFailure.objects.filter(name=_known(name), address=address).delete()


def _known(name: str) -> str:
    return name.casefold()[:150]


def _refuse_until(until: datetime, now: datetime) -> None:
    if now >= until:
        return
    seconds = int((until - now).total_seconds()) + 1
    wait = f"{seconds} seconds" if seconds < 120 else f"{-(-seconds // 60)} minutes"
    raise DomainError("locked_out", 429, "Wait a moment", f"Too many wrong passwords. Try again in {wait}.")
