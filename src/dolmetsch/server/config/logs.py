"""Log lines say who asked for what: request id, user, method, path; as text or JSON, without secrets."""

import logging
import re
import time
import uuid
from collections.abc import Callable
from contextvars import ContextVar
from typing import Final

from django.http import HttpRequest, HttpResponseBase

_request: ContextVar[HttpRequest | None] = ContextVar("request", default=None)
#: An id that a proxy gave a request is taken over where it looks like one.
_ID: Final = re.compile(r"[A-Za-z0-9-]{8,64}")
#: Addresses whose next part opens something.
_SECRETS: Final = re.compile(r"(/(?:invitations|password-links|tastings|join|password|taste)/)[^/\s\"']+")
log = logging.getLogger("dolmetsch.requests")


def remember_who(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Remember the request while it is answered, give it an id, and log what was answered, and how fast."""

    def answer(request: HttpRequest) -> HttpResponseBase:
        begun = time.perf_counter()
        given = request.headers.get("X-Request-Id", "")
        name = given if _ID.fullmatch(given) else uuid.uuid4().hex
        request.__dict__["request_id"] = name
        # left in place afterwards: what Django logs of the answer it logs once this has returned
        _request.set(request)
        response = get_response(request)
        response.headers["X-Request-Id"] = name
        if request.path.startswith("/api/"):
            spent = (time.perf_counter() - begun) * 1000
            facts = {
                "status": response.status_code,
                "ms": round(spent, 1),
                "operation": operation_of(request),
            }
            log.info("answered", extra=facts)
        return response

    return answer


def operation_of(request: HttpRequest) -> str:
    """The operation a request asked for, by its name in the API; "-" where it came to none."""
    return str(getattr(request.__dict__.get("origin"), "operation", "-"))


class Who(logging.Filter):
    """Puts who asked for what on each record, and takes secrets out of its words."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Add ``who`` and, for JSON, its parts; every record passes."""
        request = _request.get()
        name, user, asked = "-", "-", "-"
        if request is not None:
            name, user = request.__dict__.get("request_id", "-"), _name(request)
            asked = f"{request.method} {without_secrets(request.path)}"
        record.__dict__.update(request_id=name, user=user, asked=asked)
        record.who = "-" if request is None else f"[{user} {asked}]"
        record.msg, record.args = without_secrets(record.getMessage()), None
        return True


def without_secrets(words: str) -> str:
    """``words`` without the codes of links in them."""
    return _SECRETS.sub(r"\1…", words)


def _name(request: HttpRequest) -> str:
    # only what is known already: a log line must not ask the record store
    user = request.__dict__.get("_cached_user")
    return str(getattr(user, "username", "") or "nobody")
