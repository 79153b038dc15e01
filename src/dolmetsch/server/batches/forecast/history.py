"""What a kitchen's finished batches kept, step by step, summed up for the core."""

from collections import defaultdict
from collections.abc import Sequence
from fractions import Fraction
from math import log
from typing import Final

from django.db import connection

from dolmetsch.core.costing.strip import Column
from dolmetsch.core.forecast.way import plain_method
from dolmetsch.core.forecast.yields import History, Tally, start_of, tally_logs
from dolmetsch.core.ledger.kinds import method_kind
from dolmetsch.core.meat.cuts import cut_of_key, read_cut
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.entries.chosen_way import methods_of
from dolmetsch.server.batches.models import Batch, Entry, StepYield
from dolmetsch.server.kitchens.models import Kitchen

#: So many of the latest batches of a method and cut are learned from.
YIELDS_READ: Final = 60
#: So many of the latest entries about frying are looked at.
FRYINGS_READ: Final = 60


def read_history(kitchen: Kitchen) -> History:
    """Tallies of the kitchen's finished batches by method and cut, of each the latest ``YIELDS_READ``."""
    kept: defaultdict[tuple[str, str], list[tuple[float, float]]] = defaultdict(list)
    for method, cut, log_ratio, scale in _read_latest(kitchen):
        kept[method, cut].append((log_ratio, scale))
    history: defaultdict[str, dict[str, Tally]] = defaultdict(dict)
    for (method, cut), logs in kept.items():
        start, _ = start_of(method, cut_of_key(cut))
        history[method][cut] = tally_logs(logs, start=start)
    return history


def _read_latest(kitchen: Kitchen) -> Sequence[tuple[str, str, float, float]]:
    """Method, cut, log ratio and variance by the scale of the latest ``YIELDS_READ`` of each method and cut.

    A limited search of the index for each pair, in one statement: numbering the rows of each pair would read
    all that the kitchen ever kept.
    """
    mine = StepYield.objects.filter(kitchen=kitchen).order_by("method", "cut")
    pairs = list(mine.values_list("method", "cut").distinct())
    if not pairs:
        return ()
    latest = (
        f"(SELECT method, cut, log_ratio, scale_variance FROM {StepYield._meta.db_table} "  # noqa: S608
        f"WHERE kitchen_id = %s AND method = %s AND cut = %s ORDER BY id DESC LIMIT {YIELDS_READ})"
    )
    with connection.cursor() as cursor:
        cursor.execute(
            " UNION ALL ".join([latest] * len(pairs)),
            [value for method, cut in pairs for value in (kitchen.pk, method, cut)],
        )
        rows: Sequence[tuple[str, str, float, float]] = cursor.fetchall()
    return rows


def list_fryings(kitchen: Kitchen) -> list[float]:
    """Cooked ÷ raw weight of the kitchen's latest fryings of its own, those that count."""
    acts = (Entry.Act.FRY, Entry.Act.WITHDRAW)
    entries = Entry.objects.filter(kitchen=kitchen, act__in=acts).select_related("fry").order_by("-id")
    latest: dict[int, Entry] = {}
    for entry in entries[:FRYINGS_READ]:
        latest.setdefault(entry.corrects_id or entry.pk, entry)
    return [float(entry.fry.ratio) for entry in latest.values() if entry.act == Entry.Act.FRY]


def read_yields(batch: Batch, costed: CostedBatch) -> list[StepYield]:
    """What each step of a finished batch kept; nothing of meats brought together."""
    record = costed.chain.batch
    cuts = {read_cut(lot.cut).key for lot in record.lots}
    columns = costed.strip.columns[1:]
    # of meats brought together nobody can say which kept what
    if len(cuts) != 1 or costed.strip.came_together:
        return []
    methods = methods_of(batch)
    kept: dict[str, tuple[float, float]] = {}
    is_aged = False
    for column in columns:
        if column.kept_of_step_ratio is None:
            continue
        gained = column.kept_of_step_ratio > 1
        # a rind cut off what was aged is the age's own loss: its start values count it too
        is_rind = method_kind(column.kind) == "trim" and is_aged
        kind = "age" if is_rind else column.kind
        is_aged = is_aged or method_kind(kind) == "age"
        method = methods.get(method_kind(kind)) or plain_method(kind, has_gained=gained)
        if method is not None:
            logs, scale = kept.get(method, (0.0, 0.0))
            kept[method] = (
                logs + log(column.kept_of_step_ratio),
                scale + _scale_variance(column, costed),
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


def _scale_variance(column: Column, costed: CostedBatch) -> float:
    """Variance of ln(ratio) by the scale: d² ÷ 12 for each weighing that makes up the weight out."""
    steps = costed.chain.batch.steps
    variance = Fraction(0)
    for number in column.steps:
        resolution = steps[number - 1].resolution_grams
        if resolution is not None:
            stage = costed.sheet.ledger.stages[number - 1]
            variance += resolution**2 / 12 * max(len(stage.pieces_out), 1)
    return float(variance / column.grams_out**2) if column.grams_out else 0.0
