"""For who watches over it: whether all is well (``/healthz``), and counts and times (``/metrics``)."""

import hmac
import os
import time
from collections.abc import Callable, Iterator
from datetime import timedelta
from pathlib import Path
from typing import Any, Final

from django.conf import settings
from django.db import DatabaseError, connection
from django.http import HttpRequest, HttpResponse, HttpResponseBase, JsonResponse
from django.utils import timezone
from prometheus_client import CONTENT_TYPE_LATEST, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.multiprocess import MultiProcessCollector

from dolmetsch.server.access.throttle import is_local
from dolmetsch.server.config.logs import operation_of
from dolmetsch.server.kitchens.models import Kitchen, SignInFailure, User
from dolmetsch.server.kitchens.room import read_room, say_room
from dolmetsch.server.problems import answer_no_such_address

REQUESTS: Final = Counter("dolmetsch_requests", "Requests answered.", ["operation", "method", "status"])
SECONDS: Final = Histogram(
    "dolmetsch_request_seconds",
    "How long answers took.",
    ["operation"],
    buckets=(0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10),
)


def count_requests(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: count the API's answers and time them, by operation."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        begun = time.perf_counter()
        response = get_response(request)
        if request.path.startswith("/api/"):
            operation = operation_of(request)
            REQUESTS.labels(operation, request.method or "", str(response.status_code)).inc()
            if not getattr(response, "streaming", False):
                SECONDS.labels(operation).observe(time.perf_counter() - begun)
        return response

    return middleware


def show_health(_request: HttpRequest) -> HttpResponse:
    """200 where the record store answers, 503 where it does not; and whether the disk has room."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
        is_well = True
    except DatabaseError:
        is_well = False
    facts = {"record_store": "up" if is_well else "away", "disk": "low" if say_room() else "enough"}
    headers = {"Cache-Control": "no-store"}
    return JsonResponse(facts, status=200 if is_well else 503, headers=headers)


def show_metrics(request: HttpRequest) -> HttpResponse:
    """Counts and times as Prometheus reads them: to the machine itself, or by the token of the settings."""
    if not _may_read(request):
        return answer_no_such_address(request)
    registry = CollectorRegistry()
    if os.environ.get("PROMETHEUS_MULTIPROC_DIR"):
        MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    else:
        registry.register(REQUESTS)
        registry.register(SECONDS)
    registry.register(_Now())
    headers = {"Cache-Control": "no-store"}
    return HttpResponse(generate_latest(registry), content_type=CONTENT_TYPE_LATEST, headers=headers)


def _may_read(request: HttpRequest) -> bool:
    token = settings.METRICS_TOKEN
    given = request.headers.get("Authorization", "").removeprefix("Bearer ")
    return is_local(request) or bool(token and hmac.compare_digest(given, token))


class _Now:
    """What is counted when it is asked for."""

    def collect(self) -> Iterator[Any]:
        """Gauges of the records, the disk and the backups."""
        yield GaugeMetricFamily("dolmetsch_disk_free_bytes", "Room left for records.", value=read_room().free)
        yield GaugeMetricFamily("dolmetsch_backup_age_seconds", "Since the last backup.", value=_backup_age())
        try:
            kitchens, people = Kitchen.objects.count(), User.objects.filter(is_active=True).count()
            hour = timezone.now() - timedelta(hours=1)
            failures = SignInFailure.objects.filter(at__gt=hour).count()
        except DatabaseError:
            yield GaugeMetricFamily("dolmetsch_record_store_up", "Whether it answers.", value=0)
            return
        yield GaugeMetricFamily("dolmetsch_record_store_up", "Whether it answers.", value=1)
        yield GaugeMetricFamily("dolmetsch_kitchens", "Kitchens.", value=kitchens)
        yield GaugeMetricFamily("dolmetsch_people", "People who may sign in.", value=people)
        yield GaugeMetricFamily(
            "dolmetsch_wrong_passwords_last_hour", "Sign-ins refused in the last hour.", value=failures
        )


def _backup_age() -> float:
    """Seconds since the newest backup; infinite where there is none."""
    made = [path.stat().st_mtime for path in Path(settings.BACKUPS).glob("*.tar")]
    return time.time() - max(made) if made else float("inf")
