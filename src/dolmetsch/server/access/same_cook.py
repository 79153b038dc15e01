"""A page's records go out under the name of the cook who wrote them, or not at all."""

from collections.abc import Callable
from typing import Final
from urllib.parse import quote

from django.http import HttpRequest, HttpResponseBase

from dolmetsch.server.problems import DomainError, answer

#: The cook a page was opened by, percent-encoded.
COOK: Final = "Dolmetsch-Cook"
_READS: Final = frozenset({"GET", "HEAD", "OPTIONS"})


def keep_cooks_apart(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: refuse what one cook wrote where another is signed in by now, in another window perhaps.

    A request without the header is taken as its session has it.
    """

    def middleware(request: HttpRequest) -> HttpResponseBase:
        cook = request.headers.get(COOK)
        is_write = request.method not in _READS and request.path != "/api/session"
        if is_write and cook and request.user.is_authenticated and cook != quote(request.user.get_username()):
            said = (
                "Someone else is signed in on this device now. What you typed is saved on this "
                "device; sign in as yourself."
            )
            return answer(DomainError("signed_out", 401, "Signed out", said))
        return get_response(request)

    return middleware
