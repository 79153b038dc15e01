"""How many batches a kitchen makes, what they saved, and how long its work takes."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from fractions import Fraction
from typing import Final

from django.db.models import Count, Sum

from dolmetsch.core.costing.batch_size import Work, fit_work
from dolmetsch.server.batches.models import Batch, ShopSaving
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.writing.kept_answers import keep

#: So many of the latest finished batches tell how the kitchen works.
LOG_READ: Final = 50
YEAR: Final = timedelta(days=365)
#: A kitchen that began lately is taken to have worked at least so long.
LEAST_SPAN: Final = timedelta(days=30)


@dataclass(frozen=True, slots=True, kw_only=True)
class Pace:
    """How a kitchen works: finished batches of the past year and the pace they make, how many were
    compared with each shop pack by its name and what they saved together, and hands-on work by its own log
    (None: too little).
    """

    batches_a_year: Fraction
    finished: int
    saved: Mapping[str, tuple[int, Fraction]]
    work: Work | None
    fridge_slabs: int | None
    smoker_slabs: int | None


def find_pace(kitchen: Kitchen, now: datetime, *, shops: Collection[str] = ()) -> Pace:
    """The pace of ``kitchen`` over the last 365 days, or since it began; what it saved beside ``shops``.

    Kept until the kitchen's next write: every batch looked at asks for it.
    """
    about = ("pace", kitchen.pk, kitchen.writes, *sorted(shops))
    return keep(about, lambda: _read_pace(kitchen, now, shops))


def _read_pace(kitchen: Kitchen, now: datetime, shops: Collection[str]) -> Pace:
    finished = Batch.objects.filter(kitchen=kitchen, is_finished=True, last_entry_at__gt=now - YEAR)
    count = finished.count()
    latest = finished.order_by("-last_entry_at").values_list("summary", flat=True)[:LOG_READ]
    first = (
        Batch.objects.filter(kitchen=kitchen).order_by("started_at").values_list("started_at", flat=True)[:1]
    )
    span = YEAR
    for started_at in first:
        span = min(YEAR, max(LEAST_SPAN, now - started_at))
    log = [
        (int(summary["slabs"]), Fraction(summary["minutes"]))
        for summary in latest
        if summary.get("slabs") and Fraction(summary.get("minutes", "0"))
    ]
    savings = ShopSaving.objects.filter(kitchen=kitchen, name__in=shops, last_entry_at__gt=now - YEAR).values(
        "name"
    )
    saved = {
        row["name"]: (row["batches"], Fraction(row["sum"]))
        for row in savings.annotate(batches=Count("*"), sum=Sum("saved"))
    }
    return Pace(
        batches_a_year=count * Fraction(YEAR.days) / max(span.days, 1),
        finished=count,
        saved=saved,
        work=fit_work(log),
        fridge_slabs=kitchen.fridge_slabs,
        smoker_slabs=kitchen.smoker_slabs,
    )
