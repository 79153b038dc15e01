"""When more ask at once than can be answered: who would wait too long is refused early, and asks again."""

import threading
from collections.abc import Callable
from typing import Final

from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponseBase, UnreadablePostError
from django.http.multipartparser import MultiPartParserError

from dolmetsch.server.config.watching import REQUESTS
from dolmetsch.server.problems import DomainError, answer, answer_failure

#: So many answers each worker works out at once; more would only take from each other.
AT_ONCE: Final = 8
#: Seconds that a read and a write wait for their turn, less than a screen waits for its answer; and how many
#: may wait: whoever comes when more do is refused at once.
READ_PATIENCE, WRITE_PATIENCE = 5.0, 10.0
READS_WAITING, WRITES_WAITING = 20, 40
BUSY: Final = DomainError(
    "busy",
    503,
    "Busy just now",
    "Many are asking at once. Nothing was written; what you typed is kept, and trying again records it once.",
)


class _Turns:
    """``AT_ONCE`` turns, and who waits for one."""

    def __init__(self) -> None:
        self._free = threading.BoundedSemaphore(AT_ONCE)
        self._lock = threading.Lock()
        self._waiting = 0

    def take(self, *, is_read: bool) -> bool:
        """Wait for a turn; whether there was one in time."""
        if self._free.acquire(blocking=False):
            return True
        with self._lock:
            if self._waiting >= (READS_WAITING if is_read else WRITES_WAITING):
                return False
            self._waiting += 1
        try:
            return self._free.acquire(timeout=READ_PATIENCE if is_read else WRITE_PATIENCE)
        finally:
            with self._lock:
                self._waiting -= 1

    def give_back(self) -> None:
        """Let the next one have it."""
        self._free.release()


_turns = _Turns()


def take_turns(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: answer ``AT_ONCE`` requests to the API at once; refuse who would wait too long (``busy``).

    What is sent is received before its turn, and a stream holds its turn until it begins: neither a slow line
    nor a long look keeps others waiting.
    """

    def middleware(request: HttpRequest) -> HttpResponseBase:
        if not request.path.startswith("/api/"):
            return get_response(request)
        is_read = request.method in ("GET", "HEAD")
        try:
            if not is_read:
                _receive(request)
        except (RequestDataTooBig, MultiPartParserError, UnreadablePostError) as error:
            return answer_failure(error)
        if not _turns.take(is_read=is_read):
            REQUESTS.labels("refused as busy", request.method or "", "503").inc()
            refused = answer(BUSY)
            refused["Retry-After"] = "2"
            return refused
        try:
            return get_response(request)
        finally:
            _turns.give_back()

    return middleware


def _receive(request: HttpRequest) -> None:
    """Read all that is sent."""
    if request.content_type == "multipart/form-data":
        len(request.POST)
    else:
        len(request.body)
