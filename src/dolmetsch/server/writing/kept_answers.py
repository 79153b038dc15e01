"""What is asked often is worked out once: answers until the next write, and what answers are made of."""

import hashlib
import time
from collections.abc import Callable
from datetime import datetime
from functools import wraps
from pathlib import Path
from typing import Any, Final, TypeVar

from django.core.cache import cache
from django.db import connection
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

import dolmetsch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.kitchens.queries import kitchen_of

#: By which program it was worked out: of another edition's nothing is taken.
_PROGRAM: Final = max(one.stat().st_mtime_ns for one in Path(dolmetsch.__file__).parent.rglob("*.py"))
#: An answer says what is late and how long ago: it is never older than this.
MOST_SECONDS: Final = 30

View = Callable[..., HttpResponse]
Made = TypeVar("Made")


def keep(about: tuple[object, ...], make: Callable[[], Made], *, seconds: int = MOST_SECONDS) -> Made:
    """What ``make`` makes, kept for all workers under ``about``, which has to name all that it depends on.

    Within a transaction nothing is added to what is kept: it may be of a write that is rolled back.
    """
    key = _key(about)
    kept: Made | None = cache.get(key)
    if kept is not None:
        return kept
    made = make()
    if not connection.in_atomic_block:
        cache.set(key, made, seconds)
    return made


def keep_until_write(
    kitchen: Kitchen, now: datetime, about: tuple[object, ...], make: Callable[[], Made]
) -> Made:
    """As ``keep``, of a kitchen as it is ``now``: until its next write, MOST_SECONDS at the longest.

    Within a write it is made anew: what the kitchen's row said before the lock may be old.
    """
    if connection.in_atomic_block:
        return make()
    return keep((*_as_it_is(kitchen, now.timestamp()), *about), make)


def _as_it_is(kitchen: Kitchen, seconds: float) -> tuple[object, ...]:
    """What changes with the kitchen's next write, with the clock it is read by, and after MOST_SECONDS."""
    zone = timezone.get_current_timezone_name()
    return kitchen.pk, kitchen.writes, zone, int(seconds) // MOST_SECONDS


def _key(about: tuple[object, ...]) -> str:
    # ids of one database say nothing of another's, such as one that tests make anew
    of = (_PROGRAM, connection.settings_dict["NAME"], *about)
    return hashlib.sha256(repr(of).encode()).hexdigest()


def until_next_write(view: View) -> View:
    """Keep a GET's answer until something is written in its kitchen, MOST_SECONDS at the longest.

    Kept by the kitchen's count of writes, which every write raises in its own transaction
    (``writing.once``): what is kept of a count is at least as new as that count. Whoever asks has to be a
    member, as without it.
    """

    @wraps(view)
    def answer(request: HttpRequest, kitchen_slug: str, **path: Any) -> HttpResponse:
        kitchen = kitchen_of(request, kitchen_slug)
        key = _key((*_as_it_is(kitchen, time.time()), request.get_full_path()))
        kept = cache.get(key)
        if kept is not None:
            return HttpResponse(kept, content_type="application/json")
        response = view(request, kitchen_slug, **path)
        if response.status_code == 200:
            cache.set(key, response.content, MOST_SECONDS)
        return response

    return answer
