"""Days are printed by the clock of whoever asks: their browser tells its time zone in a cookie."""

from collections.abc import Callable
from zoneinfo import ZoneInfo

from django.http import HttpRequest, HttpResponseBase
from django.utils import timezone

from dolmetsch.server.kitchens.clock import told_zone
from dolmetsch.server.quantities.calendar import written_as_in


def by_own_clock(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Answer each request in the time zone it tells; in UTC where it tells none, or one that is none."""

    def answer(request: HttpRequest) -> HttpResponseBase:
        with timezone.override(ZoneInfo(told_zone(request) or "UTC")), written_as_in(None):
            return get_response(request)

    return answer
