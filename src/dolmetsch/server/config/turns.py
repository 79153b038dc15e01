"""When more ask at once than can be answered: who waits for too long is told to ask again, early."""

import threading
from collections.abc import Callable
from typing import Final

from django.http import HttpRequest, HttpResponseBase

from dolmetsch.server.config.watching import REQUESTS
from dolmetsch.server.problems import DomainError, answer

#: So many answers each worker works out at once; more would only take from each other.
AT_ONCE: Final = 8
#: Seconds that a read and a write wait for their turn: less than a screen waits for its answer.
READ_PATIENCE, WRITE_PATIENCE = 5.0, 10.0
BUSY: Final = DomainError(
    "busy",
    503,
    "Busy just now",
    "Many are asking at once. Nothing was written; what you typed is kept, and trying again records it once.",
)
_turns = threading.BoundedSemaphore(AT_ONCE)


def take_turns(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: answer ``AT_ONCE`` requests to the API at once; who waited too long is refused (``busy``).

    A stream holds its turn until it begins, not while it lasts.
    """

    def middleware(request: HttpRequest) -> HttpResponseBase:
        if not request.path.startswith("/api/"):
            return get_response(request)
        is_read = request.method in ("GET", "HEAD")
        if not _turns.acquire(timeout=READ_PATIENCE if is_read else WRITE_PATIENCE):
            REQUESTS.labels("refused as busy", request.method or "", "503").inc()
            refused = answer(BUSY)
            refused["Retry-After"] = "2"
            return refused
        try:
            return get_response(request)
        finally:
            _turns.release()

    return middleware
