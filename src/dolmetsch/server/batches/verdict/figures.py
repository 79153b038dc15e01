"""What of a verdict takes long to compute and follows from the batch's entries alone: kept once computed."""

from pydantic import BaseModel

from dolmetsch.core.costing.scale_error import Spread, compute_spread
from dolmetsch.core.costing.trial import rank_levers
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.verdict.schemas import LeverOut
from dolmetsch.server.batches.verdict.sections import show_levers


class Figures(BaseModel):
    """The spread of a batch's figures by its scale, to 28 digits, and its levers as shown."""

    spread: Spread
    levers: list[LeverOut]


def find_figures(batch: Batch, costed: CostedBatch) -> Figures:
    """The figures of ``batch`` as kept, else computed and kept."""
    if batch.figures:
        return Figures.model_validate_json(batch.figures)
    record, sheet = costed.chain.batch, costed.sheet
    levers = show_levers(rank_levers(record, sheet))
    figures = Figures(spread=compute_spread(record, sheet), levers=levers)
    # whoever recorded meanwhile has made them out of date
    Batch.objects.filter(pk=batch.pk, renewals=batch.renewals).update(figures=figures.model_dump_json())
    return figures
