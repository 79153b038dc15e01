"""Days are printed by the clock of whoever asks: their browser tells its time zone in a cookie."""

from collections.abc import Callable
from functools import lru_cache
from zoneinfo import ZoneInfo, available_timezones

from django.http import HttpRequest, HttpResponseBase
from django.utils import timezone

#: The cookie's name; its value is an IANA zone, like America/New_York.
COOKIE = "zone"


def by_own_clock(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Answer each request in the time zone it tells; in UTC where it tells none, or one that is none."""

    def answer(request: HttpRequest) -> HttpResponseBase:
        with timezone.override(_zone(request.COOKIES.get(COOKIE, ""))):
            return get_response(request)

    return answer


def _zone(name: str) -> ZoneInfo:
    return ZoneInfo(name if name in _known() else "UTC")


@lru_cache(maxsize=1)
def _known() -> frozenset[str]:
    return frozenset(available_timezones())
