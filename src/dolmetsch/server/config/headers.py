"""Headers every answer has: what the page may use of the device, and that records are not kept in caches."""

from collections.abc import Callable
from typing import Final

from django.http import HttpRequest, HttpResponseBase

#: The camera is for photos of the diary; nothing else of the device is wanted.
PERMISSIONS: Final = "camera=(self), microphone=(), geolocation=(), payment=(), usb=(), interest-cohort=()"


def add_headers(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Permissions, and ``no-store`` on what the API tells, unless it says otherwise itself."""

    def answer(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        response.headers.setdefault("Permissions-Policy", PERMISSIONS)
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    return answer
