"""Where a linked lot comes from."""

from dolmetsch.server.batches.models import Batch, LotLine
from dolmetsch.server.quantities.reader import Reader


def find_source(reader: Reader, batch: Batch, code: str) -> Batch | None:
    """The batch a lot is taken from; a fault where it is not there, or comes from this one itself."""
    source = Batch.objects.filter(kitchen=batch.kitchen, code=code).select_related("kitchen").first()
    if source is None:
        reader.refuse("source.batch", "not_found", f"There is no batch “{code}” in this kitchen.")
        return None
    if batch.pk is not None and (source.pk == batch.pk or batch.pk in _upstream_ids(source)):
        reader.refuse("source.batch", "circle", f"“{code}” is made of this batch itself.")
        return None
    return source


def _upstream_ids(batch: Batch) -> set[int]:
    found: set[int] = set()
    new = {batch.pk}
    while new:
        lines = LotLine.objects.filter(entry__batch_id__in=new, from_batch__isnull=False)
        new = set(lines.values_list("from_batch_id", flat=True)) - found
        found |= new
    return found
