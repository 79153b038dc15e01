"""What a slice weighs by a method: as it was sliced here last, else as the method says."""

from dataclasses import replace
from fractions import Fraction

from django.db.models import OuterRef, Subquery, Sum
from django.utils import timezone

from dolmetsch.core.forecast.way import Way as CoreWay
from dolmetsch.server.batches.models import BatchWay, Entry, Weighing
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.writing.kept_answers import keep_until_write


def as_sliced_here(way: CoreWay, kitchen: Kitchen) -> CoreWay:
    """``way`` with the weight of a slice of the latest batch that was made and sliced by it; as it is where
    none was. Buying, plans and forecasts all count slices by it.
    """
    found = keep_until_write(
        kitchen, timezone.now(), ("slices", way.name), lambda: _weigh_slice(kitchen, way.name)
    )
    return way if found is None else replace(way, slice_grams=found)


def _weigh_slice(kitchen: Kitchen, name: str) -> Fraction | None:
    # of a batch whose method was changed the latest counts
    chosen = BatchWay.objects.filter(batch=OuterRef("batch")).order_by("-id").values("way__name")[:1]
    made = Entry.current.filter(batch__kitchen=kitchen, batch__ways_chosen__way__name=name)
    made = made.annotate(made_by=Subquery(chosen)).filter(made_by=name)
    slices = Weighing.objects.filter(role=Weighing.Role.MAIN, slices__isnull=False)
    latest = slices.filter(entry__in=made).order_by("-entry__happened_at", "-entry_id")
    entry = latest.values_list("entry", flat=True).first()
    if entry is None:
        return None
    sums = slices.filter(entry=entry).aggregate(grams=Sum("grams"), slices=Sum("slices"))
    return Fraction(sums["grams"]) / int(sums["slices"])
