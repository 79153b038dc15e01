"""An operation tried again where the record store could not do it just then.

Of two writes that meet, the record store lets one through and undoes the other whole: on one server when they
wait for each other, in a cluster when another node was first (certification at commit). What was undone is
tried again. Where the connection broke, nobody knows whether a commit went through: then only what reads, or
what carries a key, is tried again, for of a key's record there is one however often it is sent.
"""

import functools
import random
import time
from collections.abc import Callable
from typing import Any, Final

from django.core.files.uploadedfile import UploadedFile
from django.db import InterfaceError, OperationalError, connection
from django.http import HttpRequest

#: MariaDB's numbers for a transaction undone whole: a deadlock, in a cluster also another node's earlier
#: write; a lock waited for too long (only its statement is undone, but the block around it undoes the rest).
UNDONE: Final = frozenset({1205, 1213})
#: Its numbers for a server that is gone, goes, is cut off from its cluster, or has not joined it yet.
AWAY: Final = frozenset({1047, 1053, 1180, 1927, 2002, 2003, 2006, 2013, 2026, 2055})
#: Seconds that one request goes on trying; cooks' devices try again by themselves after that.
PATIENCE: Final = 8.0
FIRST_PAUSE: Final = 0.02
LONGEST_PAUSE: Final = 0.5


def tried_again(view: Callable[..., Any]) -> Callable[..., Any]:
    """``view`` of the API, tried again for ``PATIENCE`` seconds where the record store undid it or was
    away."""

    @functools.wraps(view)
    def run(request: HttpRequest, *args: Any, **kwargs: Any) -> Any:
        until, pause = time.monotonic() + PATIENCE, FIRST_PAUSE
        while True:
            try:
                return view(request, *args, **kwargs)
            except (OperationalError, InterfaceError) as error:
                if not _may_try(error, request) or time.monotonic() + pause > until:
                    raise
            # two that met are not to meet again at the same time
            time.sleep(random.uniform(pause / 2, pause))  # noqa: S311 (nothing is kept secret by it)
            pause = min(2 * pause, LONGEST_PAUSE)
            for uploaded in request.FILES.values():
                if isinstance(uploaded, UploadedFile):
                    uploaded.seek(0)

    return run


def _may_try(error: OperationalError | InterfaceError, request: HttpRequest) -> bool:
    if connection.in_atomic_block:
        return False
    number = error.args[0] if error.args else None
    if number in UNDONE:
        return True
    if number not in AWAY and not isinstance(error, InterfaceError):
        return False
    connection.close()
    return request.method in ("GET", "HEAD") or "Idempotency-Key" in request.headers
