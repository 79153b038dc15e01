"""What a batch comes to, kept so that lists, books and verdicts need not work it out again.

All of it is derived from entries, never recorded by itself: every write renews what it touches, and a
program that derives otherwise renews everything when it starts (``renew_stale``).
"""

from datetime import datetime
from decimal import Decimal
from typing import Any, Final

from django.db import transaction

from dolmetsch.core.errors import LedgerError
from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.forecast.scoring import judge_forecast
from dolmetsch.server.batches.entries.chain import (
    CostedBatch,
    build_chain,
    cost_chain,
    list_entry_rows,
)
from dolmetsch.server.batches.forecast.history import read_facts, read_yields
from dolmetsch.server.batches.models import Batch, BatchFacts, Forecast, ForecastScore, ShopSaving, StepYield
from dolmetsch.server.batches.models.pack_facts import pack_facts
from dolmetsch.server.batches.show.showing import summarize
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError
from dolmetsch.server.writing.once import lock_kitchen

#: Change this when anything here is derived otherwise; a kitchen's batches are then renewed at the start.
DERIVED_EDITION: Final = "10"

Summed = StepYield | ShopSaving | BatchFacts | ForecastScore
#: What finished batches keep for the books, one or several rows each.
KEPT_SUMS: Final[tuple[type[Summed], ...]] = (StepYield, ShopSaving, BatchFacts, ForecastScore)


def renew(batch: Batch, costed: CostedBatch) -> None:
    """Renew all that ``batch`` keeps of itself, within a transaction of the caller's.

    Raises:
        DomainError: breaks_packs, where packs were made of it that cannot be of what it comes to now.
    """
    was_finished = batch.is_finished
    summarize(batch, costed)
    batch.save(force_update=True)
    if was_finished:
        for kind in KEPT_SUMS:
            kind.objects.filter(batch=batch).delete()
    if batch.is_finished:
        for kind, kept in derive_sums(batch, costed).items():
            kind.objects.bulk_create(kept)
    if batch.packs_made:
        _renew_packs(batch, costed)


def derive_sums(batch: Batch, costed: CostedBatch) -> dict[type[Summed], list[Any]]:
    """What a finished batch keeps for the books, unsaved: its yields, what it saved, what it came to."""
    yields = read_yields(batch, costed)
    facts = read_facts(batch, costed, yields)
    return {
        StepYield: yields,
        ShopSaving: _read_savings(batch, facts.finished_at),
        BatchFacts: [facts],
        ForecastScore: _score_forecasts(batch, costed),
    }


def _score_forecasts(batch: Batch, costed: CostedBatch) -> list[ForecastScore]:
    """The last forecast after each step beside what the batch came to; of nothing, none."""
    final = costed.sheet.final
    if not final.grams or final.cost <= 0:
        return []
    price, grams = float(final.cost / final.grams), float(final.grams)
    latest = {one.stage: one for one in Forecast.objects.filter(batch=batch).order_by("id")}
    scores = []
    for stage, one in latest.items():
        estimate = Estimate(middle=one.price_middle, log_deviation=one.price_deviation)
        outcome = judge_forecast(estimate, price)
        least = Estimate(middle=one.grams_middle, log_deviation=one.grams_deviation).low
        scores.append(
            ForecastScore(
                kitchen_id=batch.kitchen_id,
                batch=batch,
                forecast=one,
                stage=stage,
                came=outcome.came,
                off=outcome.off,
                true_price=price,
                is_enough=grams >= least,
            )
        )
    return scores


def _renew_packs(batch: Batch, costed: CostedBatch) -> None:
    try:
        pack_facts().renew(batch, costed.sheet.ledger.mains)
    except LedgerError as error:
        said = (
            f"This does not fit the packs made of {batch.code}: {error.text}. Correct or cancel those first."
        )
        raise DomainError("breaks_packs", 422, "Not recorded", said) from error


def _read_savings(batch: Batch, finished_at: datetime) -> list[ShopSaving]:
    return [
        ShopSaving(
            kitchen_id=batch.kitchen_id,
            batch=batch,
            name=name,
            saved=Decimal(saved),
            last_entry_at=batch.last_entry_at,
            finished_at=finished_at,
        )
        for name, saved in batch.summary["shops"]
        if saved is not None
    ]


def renew_stale() -> int:
    """Renew the batches of every kitchen whose batches another edition of the program derived; how many."""
    renewed = 0
    for kitchen in Kitchen.objects.exclude(derived_edition=DERIVED_EDITION):
        with transaction.atomic():
            # against a write that renews a batch of it meanwhile, by what it read before
            lock_kitchen(kitchen)
            renewed += renew_kitchen(kitchen)
    return renewed


def renew_kitchen(kitchen: Kitchen) -> int:
    """Renew all batches of ``kitchen``, within a transaction of the caller's that holds it; how many."""
    renewed = 0
    for kind in KEPT_SUMS:
        kind.objects.filter(kitchen=kitchen).delete()
    for batch in Batch.objects.filter(kitchen=kitchen).iterator(chunk_size=200):
        batch.kitchen, batch.is_finished = kitchen, False
        renew(batch, cost_chain(build_chain(batch, list_entry_rows(batch))))
        renewed += 1
    Kitchen.objects.filter(pk=kitchen.pk).update(derived_edition=DERIVED_EDITION)
    return renewed
