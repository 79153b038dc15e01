"""Old readings thinned in the record store: they are nobody's record, and most of them say the same."""

from datetime import UTC, datetime, timedelta
from typing import Final

from django.db import transaction
from django.db.models import QuerySet

from dolmetsch.core.heat.thinning import choose_kept
from dolmetsch.core.reference.heat import KEPT_MARKS
from dolmetsch.server.fires.models import ProbeReading

#: Readings are kept whole for so long, and each time so many days before that are looked at.
WHOLE_DAYS, LOOKED_AT_DAYS = 30, 40
_DAY: Final = timedelta(days=1)


def thin_old(now: datetime) -> int:
    """Thin what is older than ``WHOLE_DAYS``, a device and a day at a time; how many readings went."""
    end = now.astimezone(UTC).replace(hour=0, minute=0, second=0, microsecond=0) - WHOLE_DAYS * _DAY
    begin = end - LOOKED_AT_DAYS * _DAY
    gone = 0
    # by the index alone: a search by time would read every reading of every kitchen
    for kitchen, cooker in ProbeReading.objects.values_list("kitchen", "cooker").distinct():
        if not _of(kitchen, cooker, begin, end).exists():
            continue
        for number in range(LOOKED_AT_DAYS):
            start = begin + number * _DAY
            gone += _thin(kitchen, cooker, start, start + _DAY)
    return gone


def _of(kitchen: int, cooker: str, start: datetime, end: datetime) -> QuerySet[ProbeReading]:
    return ProbeReading.objects.filter(kitchen=kitchen, cooker=cooker, at__gte=start, at__lt=end)


def _thin(kitchen: int, cooker: str, start: datetime, end: datetime) -> int:
    rows = list(_of(kitchen, cooker, start, end).order_by("at").values_list("id", "at", "values"))
    if not rows:
        return 0
    readings = [
        (at.timestamp(), {name: float(text) for name, text in values.items()}) for _, at, values in rows
    ]
    kept = choose_kept(readings, marks=KEPT_MARKS)
    gone = [row[0] for index, row in enumerate(rows) if index not in kept]
    with transaction.atomic():
        ProbeReading.objects.filter(id__in=gone).delete()
    return len(gone)
