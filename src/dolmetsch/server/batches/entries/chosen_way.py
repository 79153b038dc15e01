"""The way a batch is made by, as chosen; the standard one where nobody said."""

from dolmetsch.core.costing.strip import USUAL_KINDS
from dolmetsch.core.forecast.way import Way, plain_way
from dolmetsch.server.batches.models import Batch, BatchWay
from dolmetsch.server.ways.queries import core_of


def find_way(batch: Batch) -> BatchWay | None:
    """The way the batch is made by; None where nobody said."""
    return BatchWay.objects.filter(batch=batch).select_related("way__kitchen").order_by("-id").first()


def way_of(chosen: BatchWay | None, *, pieces: int = 1) -> Way:
    """The chosen way as the core reads it; the standard one, for so many ``pieces``, where nobody said."""
    return plain_way(USUAL_KINDS, pieces=pieces) if chosen is None else core_of(chosen.way)


def methods_of(batch: Batch) -> dict[str, str]:
    """The method of each kind of step by the way the batch is made by; none where nobody said."""
    chosen = find_way(batch)
    return {} if chosen is None else {step.kind: step.method for step in way_of(chosen).steps}
