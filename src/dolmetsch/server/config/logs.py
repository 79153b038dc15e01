"""Log lines say who asked for what: user, method and path of the request they came from."""

import logging
from collections.abc import Callable
from contextvars import ContextVar

from django.http import HttpRequest, HttpResponseBase

_request: ContextVar[HttpRequest | None] = ContextVar("request", default=None)


def remember_who(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Remember the request while it is answered."""

    def answer(request: HttpRequest) -> HttpResponseBase:
        # left in place afterwards: what Django logs of the answer it logs once this has returned
        _request.set(request)
        return get_response(request)

    return answer


class Who(logging.Filter):
    """Puts ``who`` on each record: "maren POST /api/…", or "-" outside of a request."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Add it; every record passes."""
        request = _request.get()
        record.who = "-" if request is None else f"[{_name(request)} {request.method} {request.path}]"
        return True


def _name(request: HttpRequest) -> str:
    # only what is known already: a log line must not ask the record store
    user = request.__dict__.get("_cached_user")
    return str(getattr(user, "username", "") or "nobody")
