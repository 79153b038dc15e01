"""Scale error: how far off the figures may be because every scale shows steps, not weights.

A scale of resolution d is off by anything from −d/2 to d/2 alike, a standard deviation of d ÷ √12
(uniform error). Carried on to first order: variance of a figure = Σ (∂figure/∂weighing)² · d² ÷ 12 over
all weighings, each counted once however many figures it touches (law of propagation of uncertainty,
JCGM 100:2008, 5.1.2, independent inputs). The derivatives are exact difference quotients of the ledger.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from decimal import Decimal, localcontext
from fractions import Fraction
from functools import partial
from typing import Final

from dolmetsch.core.costing.sheet import Sheet, compute_sheet
from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.batch import Action, Batch, Discard, Merge, Split, Weigh

#: Difference quotients are taken over this part of the scale's resolution.
PART: Final = Fraction(1, 100_000)
#: House and shop count as different where they differ by at least so many standard deviations.
TOLD_APART_AT: Final = 2


@dataclass(frozen=True, slots=True, kw_only=True)
class Spread:
    """Standard deviations of a sheet's figures from scale error alone; None where the figure is.

    ``yields``: of each stage's own yield. ``saved_on_batch``: one a shop pack. ``saved_per_lb`` has
    the deviation of ``cost_per_lb``, for the shop's pack is taken as labelled. ``is_known`` is false
    where no weighing names its scale.
    """

    is_known: bool
    sliced_yield: Fraction | None
    yields: tuple[Fraction | None, ...]
    cost_per_lb: Fraction | None
    cost_per_slice: Fraction | None
    portion: Fraction | None
    saved_on_batch: tuple[Fraction | None, ...]


def no_spread(sheet: Sheet) -> Spread:
    """Of what nobody weighed: a trial has no scale, so no figure of it has a spread."""
    return Spread(
        is_known=False,
        sliced_yield=None,
        yields=(None,) * len(sheet.ledger.stages),
        cost_per_lb=None,
        cost_per_slice=None,
        portion=None,
        saved_on_batch=(None,) * len(sheet.shop),
    )


Figures = tuple[Fraction | None, ...]


def compute_spread(batch: Batch, sheet: Sheet) -> Spread:
    """The spread of ``sheet``, which is that of ``batch``."""
    base = _figures(sheet, batch)
    variances: list[Fraction] = [Fraction(0)] * len(base)
    is_known = False
    # the shop's packs stay as they are: no need to compare with them anew each time
    alone = replace(batch, shop=())
    for resolution, nudge in _weighings(alone):
        is_known = True
        for index, slope in enumerate(_slopes(base, nudge, resolution * PART, batch)):
            variances[index] += slope * slope * resolution * resolution / 12
    roots = [
        None if figure is None else square_root(variance)
        for figure, variance in zip(base, variances, strict=True)
    ]
    stages = len(sheet.ledger.stages)
    sliced_yield, per_lb, per_slice, portion = roots[:4]
    return Spread(
        is_known=is_known,
        sliced_yield=sliced_yield,
        yields=tuple(roots[4 : 4 + stages]),
        cost_per_lb=per_lb,
        cost_per_slice=per_slice,
        portion=portion,
        saved_on_batch=tuple(roots[4 + stages :]),
    )


def square_root(value: Fraction) -> Fraction:
    """To 28 digits."""
    with localcontext() as context:
        context.prec = 28
        return Fraction((Decimal(value.numerator) / Decimal(value.denominator)).sqrt())


def _figures(sheet: Sheet, batch: Batch) -> Figures:
    """The figures that have a spread; ``batch`` tells the shop's packs, which have none."""
    final = sheet.final
    return (
        final.sliced_yield_ratio,
        final.cost_per_lb,
        final.cost_per_slice,
        final.portion,
        *(stage.yield_ratio for stage in sheet.ledger.stages),
        *(pack.paid / pack.grams * final.grams - final.cost if final.grams else None for pack in batch.shop),
    )


Nudge = Callable[[Fraction], Batch]


def _slopes(base: Figures, nudge: Nudge, step: Fraction, batch: Batch) -> list[Fraction]:
    """Change of each figure for a gram more on one weighing; downward where upward is impossible."""
    try:
        near = _figures(compute_sheet(nudge(step)), batch)
    except LedgerError:
        step = -step
        near = _figures(compute_sheet(nudge(step)), batch)
    return [
        Fraction(0) if was is None or now is None else (now - was) / step
        for was, now in zip(base, near, strict=True)
    ]


def _weighings(batch: Batch) -> Iterator[tuple[Fraction, Nudge]]:
    """Every weighing whose scale is known: its resolution, and the batch with so many grams more on it."""
    for index, lot in enumerate(batch.lots):
        if lot.resolution_grams:
            yield lot.resolution_grams, _lot_nudge(batch, index)
    for index, step in enumerate(batch.steps):
        if step.resolution_grams:
            for nudged in _action_nudges(step.action):
                yield step.resolution_grams, _step_nudge(batch, index, nudged)


def _lot_nudge(batch: Batch, index: int) -> Nudge:
    def nudge(more: Fraction) -> Batch:
        lots = list(batch.lots)
        lots[index] = replace(lots[index], grams=lots[index].grams + more)
        return replace(batch, lots=tuple(lots))

    return nudge


def _step_nudge(batch: Batch, index: int, nudged: Callable[[Fraction], Action]) -> Nudge:
    def nudge(more: Fraction) -> Batch:
        steps = list(batch.steps)
        steps[index] = replace(steps[index], action=nudged(more))
        return replace(batch, steps=tuple(steps))

    return nudge


def _action_nudges(action: Action) -> Iterator[Callable[[Fraction], Action]]:
    match action:
        case Split(into=into):
            for index in range(len(into)):
                yield partial(_nudge_output, action, index)
        case Weigh(grams=grams):
            for mark in grams:
                yield partial(_nudge_piece, action, mark)
        case Merge():
            yield partial(_nudge_merged, action)
        case Discard():
            return


def _nudge_output(split: Split, index: int, more: Fraction) -> Split:
    into = list(split.into)
    into[index] = replace(into[index], grams=into[index].grams + more)
    return replace(split, into=tuple(into))


def _nudge_piece(weigh: Weigh, mark: str, more: Fraction) -> Weigh:
    return Weigh(grams={**weigh.grams, mark: weigh.grams[mark] + more})


def _nudge_merged(merge: Merge, more: Fraction) -> Merge:
    return replace(merge, into=replace(merge.into, grams=merge.into.grams + more))
