"""What a kitchen's finished batches kept, step by step: written as they finish, summed up for the core.

A yield is derived from entries, never recorded by itself, so it is written anew whenever they change.
"""

from collections import defaultdict
from fractions import Fraction
from math import log
from typing import Final

from django.db import transaction
from django.db.models import F, Window
from django.db.models.functions import RowNumber

from dolmetsch.core.costing.strip import Column
from dolmetsch.core.forecast.way import plain_method
from dolmetsch.core.forecast.yields import History, Tally, start_of, tally_logs
from dolmetsch.core.meat.cuts import cut_of_key, read_cut
from dolmetsch.server.batches.entries.chain import Reckoning, build_chain, list_entry_rows, reckon
from dolmetsch.server.batches.entries.chosen_way import methods_of
from dolmetsch.server.batches.models import Batch, Entry, StepYield
from dolmetsch.server.batches.show.showing import STANDING_FIELDS, stand
from dolmetsch.server.kitchens.models import Kitchen

#: Change this when yields are derived otherwise; a kitchen's finished batches are then read anew.
YIELDS_EDITION: Final = "2"
#: So many of the latest batches of a method and cut are learned from.
YIELDS_READ: Final = 60
#: So many of the latest entries about frying are looked at.
FRYINGS_READ: Final = 60


def read_history(kitchen: Kitchen) -> History:
    """Tallies of the kitchen's finished batches by method and cut, of each the latest ``YIELDS_READ``."""
    _renew_stale(kitchen)
    place = Window(RowNumber(), partition_by=[F("method"), F("cut")], order_by=F("id").desc())
    rows = StepYield.objects.filter(kitchen=kitchen).annotate(place=place).filter(place__lte=YIELDS_READ)
    kept: defaultdict[tuple[str, str], list[tuple[float, float]]] = defaultdict(list)
    for method, cut, log_ratio, scale in rows.values_list("method", "cut", "log_ratio", "scale_variance"):
        kept[method, cut].append((log_ratio, scale))
    history: defaultdict[str, dict[str, Tally]] = defaultdict(dict)
    for (method, cut), logs in kept.items():
        start, _ = start_of(method, cut_of_key(cut))
        history[method][cut] = tally_logs(logs, start=start)
    return history


def list_fryings(kitchen: Kitchen) -> list[float]:
    """Cooked ÷ raw weight of the kitchen's latest fryings of its own, those that count."""
    acts = (Entry.Act.FRY, Entry.Act.WITHDRAW)
    told = Entry.objects.filter(kitchen=kitchen, act__in=acts).select_related("fry").order_by("-id")
    latest: dict[int, Entry] = {}
    for entry in told[:FRYINGS_READ]:
        latest.setdefault(entry.corrects_id or entry.pk, entry)
    return [float(entry.fry.ratio) for entry in latest.values() if entry.act == Entry.Act.FRY]


def _renew_stale(kitchen: Kitchen) -> None:
    """Read the batches anew where an older program derived what they came to, or none did."""
    if kitchen.yields_edition == YIELDS_EDITION:
        return
    with transaction.atomic():
        for batch in Batch.objects.filter(kitchen=kitchen).defer("page"):
            batch.kitchen = kitchen
            reckoning = reckon(build_chain(batch, list_entry_rows(batch)))
            stand(batch, reckoning)
            batch.save(update_fields=STANDING_FIELDS)
            keep_yields(batch, reckoning)
        kitchen.yields_edition = YIELDS_EDITION
        Kitchen.objects.filter(pk=kitchen.pk).update(yields_edition=YIELDS_EDITION)


def keep_yields(batch: Batch, reckoning: Reckoning) -> None:
    """Write what a batch's steps kept, if it is finished; take it back if no longer in use."""
    StepYield.objects.filter(batch=batch).delete()
    if batch.is_finished:
        StepYield.objects.bulk_create(_read_yields(batch, reckoning))


def _read_yields(batch: Batch, reckoning: Reckoning) -> list[StepYield]:
    record = reckoning.chain.batch
    cuts = {read_cut(lot.cut).key for lot in record.lots}
    columns = reckoning.strip.columns[1:]
    # of meats brought together nobody can say which kept what
    if len(cuts) != 1 or reckoning.strip.came_together:
        return []
    methods = methods_of(batch)
    kept: dict[str, tuple[float, float]] = {}
    for column in columns:
        if column.kept_of_step_ratio is None:
            continue
        gained = column.kept_of_step_ratio > 1
        method = methods.get(column.kind) or plain_method(column.kind, has_gained=gained)
        if method is not None:
            logs, scale = kept.get(method, (0.0, 0.0))
            kept[method] = (
                logs + log(column.kept_of_step_ratio),
                scale + _scale_variance(column, reckoning),
            )
    cut = cuts.pop()
    return [
        StepYield(
            kitchen_id=batch.kitchen_id,
            batch=batch,
            method=method,
            cut=cut,
            log_ratio=logs,
            scale_variance=scale,
        )
        for method, (logs, scale) in kept.items()
    ]


def _scale_variance(column: Column, reckoning: Reckoning) -> float:
    """Variance of ln(ratio) by the scale: d² ÷ 12 for each weighing that makes up the weight out."""
    steps = reckoning.chain.batch.steps
    variance = Fraction(0)
    for number in column.steps:
        resolution = steps[number - 1].resolution_grams
        if resolution is not None:
            stage = reckoning.sheet.ledger.stages[number - 1]
            variance += resolution**2 / 12 * max(len(stage.pieces_out), 1)
    return float(variance / column.grams_out**2) if column.grams_out else 0.0
