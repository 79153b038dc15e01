"""The clock a device goes by, as its browser tells it."""

from functools import lru_cache
from typing import Final
from zoneinfo import available_timezones

from django.http import HttpRequest

#: The cookie's name; its value is an IANA zone, like America/New_York.
COOKIE: Final = "zone"


def told_zone(request: HttpRequest) -> str:
    """The time zone of the device that asks; empty where it tells none, or one that is none."""
    name = request.COOKIES.get(COOKIE, "")
    return name if name in _known() else ""


@lru_cache(maxsize=1)
def _known() -> frozenset[str]:
    return frozenset(available_timezones())
