"""Addresses: the API below /api/, the one page of the web client everywhere else."""

from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from dolmetsch.server.config.api import api
from dolmetsch.server.config.watching import show_health, show_metrics
from dolmetsch.server.problems import answer_no_such_address, answer_server_error


@require_safe
@ensure_csrf_cookie
def show_client(_request: HttpRequest) -> HttpResponse:
    """The web client's page; it finds its own way by the address."""
    page = settings.WEB_DIST / "index.html"
    if not page.is_file():
        return HttpResponse("The web client is not built; run ./dolmetsch start.", status=503)
    return HttpResponse(page.read_bytes(), headers={"Cache-Control": "no-cache"})


@require_safe
def show_certificate(request: HttpRequest) -> HttpResponse:
    """The authority made here, for phones to trust; where it speaks HTTPS itself."""
    if not settings.OWN_CERTIFICATE:
        return answer_no_such_address(request)
    content = Path(settings.OWN_CERTIFICATE).read_bytes()
    return HttpResponse(content, content_type="application/x-x509-ca-cert")


urlpatterns = [
    path("healthz", require_safe(show_health)),
    path("metrics", require_safe(show_metrics)),
    path("certificate.crt", show_certificate),
    path("api/", api.urls),
    re_path(r"^(?:api|assets|static)(?:/|$)", answer_no_such_address),
    re_path(r"^.*$", show_client),
]
handler500 = answer_server_error
