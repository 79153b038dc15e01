"""Links as they are shown: the address others open, and its QR code."""

from datetime import datetime

import segno
from django.conf import settings
from django.http import HttpRequest

from dolmetsch.server.people.schemas import LinkOut


def show_link(request: HttpRequest, page: str, code: str, ends_at: datetime) -> LinkOut:
    """The link to ``page`` with its code, by the address other devices open this machine at."""
    base = settings.ADDRESS or request.build_absolute_uri("/").rstrip("/")
    link = f"{base}/{page}/{code}"
    qr = segno.make(link, error="m").svg_inline(scale=5, border=2)
    return LinkOut(code=code, link=link, qr=qr, ends_at=ends_at)
