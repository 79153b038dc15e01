"""The forecast of a batch under way: its steps to come carried on from where it stands now."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from types import MappingProxyType
from typing import Final

from dolmetsch.core.buying.offer import fry_estimate
from dolmetsch.core.forecast.forecast_comparison import (
    Basis,
    ForecastComparison,
    compare_forecast,
    price_bases,
)
from dolmetsch.core.forecast.outlook import Estimate, Outlook, Start, carry
from dolmetsch.core.forecast.way import Costs, Way, WayStep, cost_step
from dolmetsch.core.forecast.yields import Belief, History, believe
from dolmetsch.core.ledger.bill import added
from dolmetsch.core.ledger.course import Course
from dolmetsch.core.ledger.kinds import method_kind, method_kinds
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.meat.cuts import Cut, read_cut
from dolmetsch.core.reference.yields import START_FRY
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.entries.chosen_way import course_of_way, way_of
from dolmetsch.server.batches.entries.course import group_by_course
from dolmetsch.server.batches.forecast.history import list_fryings, read_history
from dolmetsch.server.batches.models import Batch, BatchWay, Entry, Forecast
from dolmetsch.server.batches.models.fire_facts import fire_facts

_ORDER = {
    kind: place
    for place, kind in enumerate(("trim", "cure", "rest", "smoke", "cook", "dry", "chill", "slice"))
}


#: Kinds of a method's steps that a fire may be for.
HEATING_KINDS: Final = frozenset({"smoke", "cook"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Forecasted:
    """A forecast: the steps to come, what they lead to, and the way it goes by.

    ``chosen`` None: the standard way. ``bases``: prices of a finished pound, portion, slice and cooked ounce;
    ``shops``: the shop's packs beside it, in their order.
    """

    steps: tuple[WayStep, ...]
    outlook: Outlook
    chosen: BatchWay | None
    way: Way
    bases: dict[Basis, Estimate]
    shops: tuple[ForecastComparison, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Ahead:
    """What is to come of a batch before anything is believed of it: steps, their costs, the start."""

    steps: tuple[WayStep, ...]
    chosen: BatchWay | None
    way: Way
    start: Start
    costs: tuple[Costs, ...]
    cut: Cut

    def carry(self, history: History, instead: Mapping[str, Belief] = MappingProxyType({})) -> Outlook:
        """Carried to the end by ``history``; of kinds of step in ``instead`` by that.

        Where one step to come heats, it is the one that a fire is for, a smoke or a cook as its program goes.
        """
        heating = [step.kind for step in self.steps if step.kind in HEATING_KINDS]
        fired = [belief for kind, belief in instead.items() if kind in HEATING_KINDS]
        if len(heating) == len(fired) == 1:
            instead = {**instead, heating[0]: fired[0]}
        beliefs = [instead.get(step.kind) or believe(step.method, self.cut, history) for step in self.steps]
        return carry(self.start, list(zip(self.costs, beliefs, strict=True)))


def look_ahead(
    batch: Batch, costed: CostedBatch, course: Course | None = None, pieces: Sequence[Piece] | None = None
) -> Ahead | None:
    """What is to come of ``batch``, which is not finished, or of some of its ``pieces``; None where nothing
    can be said or is left.

    Without a method it goes on to ``course``, else to what its pieces are to become; where nobody said that
    either, or they go different ways, nothing can be said of all of them.
    """
    mains = costed.sheet.ledger.mains if pieces is None else pieces
    if not mains or costed.strip.came_together:
        return None
    chosen = batch.chosen_way
    if course is None:
        groups = group_by_course(batch, costed)
        (course, *others) = groups
        if others:
            return None
    if chosen is None and course is None:
        return None
    if chosen is not None and course is not None and course_of_way(chosen.way) not in (None, course):
        # said since to become something else than what the method makes
        chosen = None
    way = way_of(chosen, pieces=len(mains), course=course)
    waits = [_next_step(piece, way) for piece in mains]
    first = min(waits)
    by_fire = fire_facts().methods(batch)
    steps = tuple(replace(step, method=by_fire.get(step.kind, step.method)) for step in way.steps[first:])
    if not steps:
        return None
    joining = [0.0] * (len(steps) + 1)
    for piece, wait in zip(mains, waits, strict=True):
        joining[wait - first] += float(piece.grams)
    record, bill = costed.chain.batch, added([piece.bill for piece in mains])
    begun = {kind for piece in mains for kind in method_kinds(piece.kinds)}
    return Ahead(
        steps=steps,
        chosen=chosen,
        way=way,
        start=Start(cost=float(bill.total), labour=float(bill.group("labour")), joining=joining),
        costs=tuple(cost_step(step, record.policy, is_begun=step.kind in begun) for step in steps),
        cut=read_cut(record.lots[0].cut),
    )


def forecast(
    batch: Batch, costed: CostedBatch, course: Course | None = None, pieces: Sequence[Piece] | None = None
) -> Forecasted | None:
    """What is to be expected of ``batch``, which is not finished, or of some of its ``pieces``, on the way to
    ``course`` where that is given; None where nothing can be said or is left. A fire it is in now says what
    that keeps.
    """
    ahead = look_ahead(batch, costed, course, pieces)
    if ahead is None:
        return None
    outlook = ahead.carry(read_history(batch.kitchen), fire_facts().expected(batch, course))
    bases = price_bases(outlook, ahead.way, portion=costed.chain.batch.portion, fry=_fry(batch, costed))
    worked = float(costed.sheet.minutes)
    return Forecasted(
        steps=ahead.steps,
        outlook=outlook,
        chosen=ahead.chosen,
        way=ahead.way,
        bases=bases,
        shops=tuple(compare_forecast(shop, outlook, bases, minutes=worked) for shop in costed.sheet.shop),
    )


def _fry(batch: Batch, costed: CostedBatch) -> Estimate:
    """Cooked ÷ raw weight: as this batch was fried, else as the kitchen's others were."""
    tried = costed.chain.batch.fry_yield
    if tried is not None:
        return Estimate(middle=float(tried), log_deviation=0.0)
    return fry_estimate(START_FRY["house"], list_fryings(batch.kitchen))


def _next_step(piece: Piece, way: Way) -> int:
    """The place in ``way`` of the first step the piece has still to go through: after the furthest one done.

    A kind the way does not have counts by the usual order of the work.
    """
    reached = 0
    for kind in map(method_kind, piece.kinds):
        own = [index for index, step in enumerate(way.steps) if step.kind == kind]
        if own:
            reached = max(reached, own[-1] + 1)
        elif kind in _ORDER:
            before = [
                index
                for index, step in enumerate(way.steps)
                if step.kind in _ORDER and _ORDER[step.kind] < _ORDER[kind]
            ]
            reached = max(reached, before[-1] + 1 if before else 0)
    return reached


def keep_forecast(entry: Entry, costed: CostedBatch, *, now: datetime) -> None:
    """Keep what is forecast after ``entry``, the latest of its batch, to be scored when that is finished."""
    batch = entry.batch
    coming = None if batch.is_finished else forecast(batch, costed)
    if coming is None or coming.outlook.price.middle <= 0:
        return
    columns = [column for column in costed.strip.columns if column.kept_of_step_ratio is not None]
    Forecast.objects.create(
        batch=batch,
        entry=entry,
        stage=columns[-1].kind if columns else "bought",
        way=None if coming.chosen is None else coming.chosen.way,
        made_at=now,
        price_middle=coming.outlook.price.middle,
        price_deviation=coming.outlook.price.log_deviation,
        grams_middle=coming.outlook.grams.middle,
        grams_deviation=coming.outlook.grams.log_deviation,
    )
