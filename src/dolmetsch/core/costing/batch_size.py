"""Batch size and pay-back: what more slabs at once, or a machine, would do to the price.

Work has a part a batch and a part a slab; fuel and overhead are paid once a batch, meat, cure and packing
by the slab. A price of a sliced pound is then (batch part ÷ slabs + slab part) ÷ weight of a sliced slab.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import ceil
from typing import Final

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.ledger.batch import Batch, Step
from dolmetsch.core.ledger.pieces import ZERO
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.reference.work import WORK_STARTS

#: Groups that are paid once a batch, however many slabs hang in it.
ONCE_GROUPS: Final = frozenset({"fuel", "overhead"})
#: So many own batches of differing size, and the kitchen's own log takes over from the start values.
OWN_LOG_BATCHES: Final = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Work:
    """Hands-on minutes: so many a batch and so many a slab. ``is_own``: from the kitchen's own log."""

    batch_minutes: Fraction
    slab_minutes: Fraction
    is_own: bool = False
    batches: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class SizeModel:
    """The price of a final pound against the number of slabs.

    ``slabs``: as recorded. ``once`` and ``per_slab``: money; ``slab_grams``: final weight of one slab.
    """

    slabs: int
    once: Fraction
    per_slab: Fraction
    slab_grams: Fraction
    work: Work

    def price_per_lb(self, slabs: int) -> Fraction:
        """Price of a final pound with so many slabs at once (at least one)."""
        return (self.once / slabs + self.per_slab) * GRAMS_PER_LB / self.slab_grams

    def crossing(self, shop_per_lb: Fraction) -> int | None:
        """The fewest slabs at which the house is no dearer than the shop; None where it never is."""
        room = shop_per_lb * self.slab_grams / GRAMS_PER_LB - self.per_slab
        if self.once <= 0:
            return 1 if self.once <= room else None
        return None if room <= 0 else max(1, ceil(self.once / room))


def count_slabs(sheet: Sheet) -> int:
    """Slabs of a batch: the most mains that went through one kind of step, slicing apart."""
    by_kind: dict[str, set[str]] = {}
    for stage in sheet.ledger.stages:
        if stage.kind not in ("slice", "pack", "mix"):
            by_kind.setdefault(stage.kind, set()).update(stage.pieces_out)
    return max([len(marks) for marks in by_kind.values()], default=0) or max(len(sheet.ledger.mains), 1)


def fit_work(log: Sequence[tuple[int, Fraction]]) -> Work | None:
    """Least squares of minutes on slabs over finished batches; None where they tell nothing.

    ``log``: slabs and hands-on minutes of each. At least ``OWN_LOG_BATCHES`` of differing size are
    needed; a part below zero is taken as zero and the other as the mean says.
    """
    if len(log) < OWN_LOG_BATCHES or len({slabs for slabs, _ in log}) < 2:
        return None
    count = len(log)
    mean_slabs = Fraction(sum(slabs for slabs, _ in log), count)
    mean_minutes = sum([minutes for _, minutes in log], ZERO) / count
    along = sum([(slabs - mean_slabs) * (minutes - mean_minutes) for slabs, minutes in log], ZERO)
    spread = sum([(slabs - mean_slabs) ** 2 for slabs, _ in log], ZERO)
    slope = max(along / spread, ZERO)
    fixed = mean_minutes - slope * mean_slabs
    if fixed < 0:
        fixed, slope = ZERO, mean_minutes / mean_slabs
    return Work(batch_minutes=fixed, slab_minutes=slope, is_own=True, batches=count)


def start_work(batch: Batch, sheet: Sheet, slabs: int) -> Work:
    """This batch's minutes, those of each kind of step parted as its start values part them.

    Of a kind without start values all are taken to be by the slab, so that no saving is made up.
    """
    pounds = sheet.final.grams / GRAMS_PER_LB / slabs
    minutes: dict[str, Fraction] = {}
    for step in batch.steps:
        minutes[step.kind] = minutes.get(step.kind, ZERO) + step.minutes
    once = each = ZERO
    for kind, worked in minutes.items():
        start = WORK_STARTS.get(kind)
        fixed = ZERO if start is None else start.fixed_minutes
        by_slab = Fraction(1) if start is None else start.piece_minutes + start.pound_minutes * pounds
        part = fixed / (fixed + by_slab * slabs)
        once += worked * part
        each += worked * (1 - part) / slabs
    return Work(batch_minutes=once, slab_minutes=each)


def _paid_for_work(step: Step) -> Fraction:
    """Money entered as work, beside the minutes."""
    return sum([Fraction(*used.cost_parts) for used in step.used if used.group == "labour"], ZERO)


def model_size(batch: Batch, sheet: Sheet, own: Work | None) -> SizeModel | None:
    """The model calibrated to this batch; None where nothing is left of it."""
    final = sheet.final
    if not final.grams:
        return None
    slabs = count_slabs(sheet)
    work = own or start_work(batch, sheet, slabs)
    once = sum([money for group, money in final.groups.items() if group in ONCE_GROUPS], ZERO)
    hourly = batch.policy.labour_rate or ZERO
    by_minutes = sheet.minutes * hourly / 60
    paid = sum([_paid_for_work(step) for step in batch.steps], ZERO)
    # what of its work was paid by the minute: what was paid in a sum stays with the slabs
    labour = final.groups.get("labour", ZERO) * by_minutes / ((by_minutes + paid) or 1)
    # what a minute costs the final mains: trim valued as the meat bears its share of the wage
    rate = labour / sheet.minutes if sheet.minutes else hourly / 60
    rest = final.cost - once - labour
    return SizeModel(
        slabs=slabs,
        once=once + work.batch_minutes * rate,
        per_slab=rest / slabs + work.slab_minutes * rate,
        slab_grams=final.grams / slabs,
        work=work,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class PayBack:
    """What a machine saves a batch, and after how many batches it is paid; None: never."""

    saved_by_minutes: Fraction
    saved_by_loss: Fraction
    batches: int | None

    @property
    def saved(self) -> Fraction:
        """Saved a batch."""
        return self.saved_by_minutes + self.saved_by_loss


def compute_pay_back(
    sheet: Sheet, *, price: Fraction, minutes: Fraction, kept_more_ratio: Fraction, hourly: Fraction
) -> PayBack:
    """Batches until a slicer or sealer is paid.

    ``price`` of the machine, ``minutes`` it saves a batch at ``hourly`` money an hour, and
    ``kept_more_ratio`` of the final weight that is no longer lost, worth the price of a final pound.
    """
    by_minutes = minutes * hourly / 60
    by_loss = kept_more_ratio * sheet.final.cost
    saved = by_minutes + by_loss
    return PayBack(
        saved_by_minutes=by_minutes,
        saved_by_loss=by_loss,
        batches=ceil(price / saved) if saved > 0 else None,
    )
