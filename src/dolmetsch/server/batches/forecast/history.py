"""What a kitchen's finished batches kept, step by step, summed up for the core."""

from collections import Counter, defaultdict
from collections.abc import Callable, Sequence
from decimal import Decimal
from fractions import Fraction
from math import log
from typing import Any, Final

from django.db import connection
from django.utils import timezone

from dolmetsch.core.costing.strip import Column
from dolmetsch.core.forecast.way import find_method
from dolmetsch.core.forecast.yields import History, Tally, start_of, tally_logs
from dolmetsch.core.ledger.kinds import method_kind
from dolmetsch.core.meat.cuts import cut_of_key, read_cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.quantity import GRAM_PLACES
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.entries.chosen_way import as_measured, methods_of
from dolmetsch.server.batches.entries.course import find_course_of
from dolmetsch.server.batches.models import Batch, BatchFacts, Entry, StepYield
from dolmetsch.server.batches.show.own_share import find_own_share
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.reader import round_decimal
from dolmetsch.server.writing.kept_answers import keep_until_write

#: So many of the latest batches of a method and cut are learned from.
YIELDS_READ: Final = 60
#: So many of the latest entries about frying are looked at.
FRYINGS_READ: Final = 60


def read_history(kitchen: Kitchen) -> History:
    """Tallies of the kitchen's finished batches by method and cut, of each the latest ``YIELDS_READ``.

    Asked for with every forecast, so it is kept until a write.
    """
    return keep_until_write(kitchen, timezone.now(), ("history",), lambda: _read_history(kitchen))


def _read_history(kitchen: Kitchen) -> History:
    kept: defaultdict[tuple[str, str], list[tuple[float, float]]] = defaultdict(list)
    for method, cut, log_ratio, scale in _read_latest(kitchen):
        kept[method, cut].append((log_ratio, scale))
    history: defaultdict[str, dict[str, Tally]] = defaultdict(dict)
    for (method, cut), logs in kept.items():
        start, _ = start_of(method, cut_of_key(cut))
        history[method][cut] = tally_logs(logs, start=start)
    return history


def _read_latest(kitchen: Kitchen) -> Sequence[tuple[str, str, float, float]]:
    """Method, cut, log ratio and variance by the scale of the latest ``YIELDS_READ`` of each."""
    columns = ("method", "cut", "log_ratio", "scale_variance")
    return latest_of_each(
        StepYield,
        kitchen,
        groups=("method", "cut"),
        columns=columns,
        order="id",
        index="step_yield_latest",
    )


def latest_of_each(
    kind: type[StepYield | BatchFacts],
    kitchen: Kitchen,
    *,
    groups: Sequence[str],
    columns: Sequence[str],
    order: str,
    index: str,
) -> Sequence[Any]:
    """``columns`` of the latest ``YIELDS_READ`` rows (by ``order``) of each of the ``groups``.

    ``index`` begins with the kitchen and the groups, and then goes by ``order``.

    A limited search of the index for each group, in one statement: numbering the rows of each would read all
    that the kitchen ever kept.
    """
    mine = kind._default_manager.filter(kitchen=kitchen).order_by(*groups)
    found = list(mine.values_list(*groups).distinct())
    if not found:
        return ()
    same = " AND ".join(f"{column} = %s" for column in groups)
    # named, for of a rare group the optimizer would rather go through all rows by their key
    latest = (
        f"(SELECT {', '.join(columns)} FROM {kind._meta.db_table} "  # noqa: S608 (names of our own columns)
        f"FORCE INDEX ({index}) WHERE kitchen_id = %s AND {same} "
        f"ORDER BY {order} DESC LIMIT {YIELDS_READ})"
    )
    with connection.cursor() as cursor:
        cursor.execute(
            " UNION ALL ".join([latest] * len(found)),
            [value for group in found for value in (kitchen.pk, *group)],
        )
        rows: Sequence[Any] = cursor.fetchall()
    return rows


def list_fryings(kitchen: Kitchen) -> list[float]:
    """Cooked ÷ raw weight of the latest fryings of the kitchen's own that count; kept until a write."""
    return keep_until_write(kitchen, timezone.now(), ("fryings",), lambda: _list_fryings(kitchen))


def _list_fryings(kitchen: Kitchen) -> list[float]:
    entries = Entry.current.filter(kitchen=kitchen, act=Entry.Act.FRY).order_by("-id")
    return [float(ratio) for ratio in entries.values_list("fry__ratio", flat=True)[:FRYINGS_READ]]


def read_yields(batch: Batch, costed: CostedBatch) -> list[StepYield]:
    """What each step of a finished batch kept; nothing of meats brought together."""
    record = costed.chain.batch
    cuts = {read_cut(lot.cut).key for lot in record.lots}
    columns = costed.strip.columns[1:]
    # of meats brought together nobody can say which kept what
    if len(cuts) != 1 or costed.strip.came_together:
        return []
    find = _find_methods(batch, costed)
    kept: dict[str, tuple[float, float]] = {}
    after: dict[str, Column] = {}
    is_aged = False
    for column in columns:
        if column.kept_of_step_ratio is None:
            continue
        # a rind cut off what was aged is the age's own loss: its start values count it too
        is_rind = method_kind(column.kind) == "trim" and is_aged
        kind = "age" if is_rind else column.kind
        is_aged = is_aged or method_kind(kind) == "age"
        method = find(column, kind)
        if method is not None:
            logs, scale = kept.get(method, (0.0, 0.0))
            kept[method] = (
                logs + log(column.kept_of_step_ratio),
                scale + _scale_variance(column, costed),
            )
            after[method] = column
    cut = cuts.pop()
    return [
        StepYield(
            kitchen_id=batch.kitchen_id,
            batch=batch,
            method=method,
            cut=cut,
            log_ratio=logs,
            scale_variance=scale,
            per_gram=None if (price := after[method].cost_per_lb) is None else float(price / GRAMS_PER_LB),
            cook_id=costed.chain.step_entries[after[method].steps[-1] - 1].entry.recorded_by_id,
        )
        for method, (logs, scale) in kept.items()
    ]


def _find_methods(batch: Batch, costed: CostedBatch) -> Callable[[Column, str], str | None]:
    """What finds the method by which a column's step, of a kind, was done; None where pieces differ in it."""
    methods = methods_of(batch)
    course = find_course_of(batch, costed)
    kinds = {column.kind for column in costed.strip.columns}
    steps = costed.chain.batch.steps

    def find(column: Column, kind: str) -> str | None:
        has_gained = column.kept_of_step_ratio is not None and column.kept_of_step_ratio > 1
        found = {
            find_method(
                kind,
                methods=methods,
                kinds=kinds,
                course=course,
                heated=as_measured(batch, steps[number - 1].heated),
                has_gained=has_gained,
            )
            for number in column.steps
        }
        return found.pop() if len(found) == 1 else None

    return find


def read_facts(batch: Batch, costed: CostedBatch, yields: Sequence[StepYield]) -> BatchFacts:
    """What a finished batch came to, of which each step kept ``yields``."""
    record, sheet = costed.chain.batch, costed.sheet
    cuts = {read_cut(lot.cut).key for lot in record.lots}
    is_one = len(cuts) == 1 and not costed.strip.came_together
    is_own = is_one and all(lot.origin is None for lot in record.lots)
    chosen = batch.chosen_way
    cooks = Counter(row.entry.recorded_by_id for row in costed.chain.step_entries)
    sources = {row.lot.bought_from for row in costed.chain.lot_entries if row.lot is not None}
    discarded = [stage.own_grams_in for stage in sheet.ledger.stages if stage.act == "discard"]
    kept = sheet.final.sliced_yield_ratio
    own = find_own_share(batch, costed)
    return BatchFacts(
        batch=batch,
        kitchen_id=batch.kitchen_id,
        cut=cuts.pop() if is_one else "",
        way="" if chosen is None else chosen.way.name,
        course=find_course_of(batch, costed) or "",
        is_long=any(one.method == "pulled" for one in yields),
        # of several butchers' meat nobody can say whose kept what
        source=sources.pop() if len(sources) == 1 else "",
        cook_id=cooks.most_common(1)[0][0] if cooks else None,
        started_at=batch.started_at,
        # what it is judged by may be recorded long after it was made
        finished_at=max(row.entry.happened_at for row in costed.chain.step_entries or costed.chain.current),
        bought_grams=_kept(sheet.bought.grams),
        own_grams=_kept(sheet.bought.own_grams),
        final_grams=_kept(sheet.final.grams),
        customers_grams=_kept(own.customers_grams),
        customers_labour=_kept(own.customers_labour),
        discarded_grams=_kept(sum(discarded, Fraction(0))),
        paid=_kept(sheet.bought.paid),
        meat=_kept(sheet.final.groups.get("meat", Fraction(0))),
        labour=_kept(sheet.final.groups.get("labour", Fraction(0))),
        cost=_kept(sheet.final.cost),
        loss=_kept(sheet.ledger.loss.total),
        minutes=round_decimal(sheet.minutes, 2),
        log_yield=log(kept) if is_own and kept > 0 else None,
        scale_variance=_final_variance(costed) if is_own and kept > 0 else 0.0,
    )


def _kept(exact: Fraction) -> Decimal:
    return round_decimal(exact, GRAM_PLACES)


def _final_variance(costed: CostedBatch) -> float:
    """Variance by the scales of ln(sliced ÷ bought): of the lots, and of the last column's pieces."""
    lots = costed.chain.batch.lots
    bought = sum([lot.resolution_grams**2 / 12 for lot in lots if lot.resolution_grams], Fraction(0))
    last = _scale_variance(costed.strip.columns[-1], costed)
    return last + float(bought / costed.sheet.bought.grams**2)


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
