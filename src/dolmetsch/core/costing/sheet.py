"""The sheet: what a batch came to, and how it stands beside the shop.

All figures are exact rationals; a figure that cannot be had is None. Prices of a pound are always
of the living mains of a *named* stage: as purchased, after each step, and sliced at the end.
"""

from dataclasses import dataclass, replace
from fractions import Fraction

from dolmetsch.core.ledger.batch import Batch, Lot, Portion, ShopPack
from dolmetsch.core.ledger.bill import Bill, added
from dolmetsch.core.ledger.pieces import ZERO, Ledger, Piece, grams_of
from dolmetsch.core.ledger.run_ledger import bill_of_lot, run
from dolmetsch.core.numbers.exact import GRAMS_PER_LB


@dataclass(frozen=True, slots=True, kw_only=True)
class Bought:
    """All lots together: grams, cost (paid, extras, and what linked lots brought along), price per pound.

    ``paid`` is what was paid for the meat alone, ``own_grams`` the weight it was paid for: linked lots apart.
    ``meat_cost_per_lb`` counts the meat without added
    solution: cost ÷ Σ weight ÷ (1 + solution).
    """

    grams: Fraction
    paid: Fraction
    own_grams: Fraction
    cost: Fraction
    cost_per_lb: Fraction
    meat_cost_per_lb: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class Sliced:
    """The final mains that have slices, whatever else was cut: what a slice and a portion of them cost."""

    grams: Fraction
    cost: Fraction
    slices: int | Fraction
    cost_per_slice: Fraction
    cost_per_lb: Fraction
    portion: Fraction | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Final:
    """The living mains at the end.

    ``sliced_yield_ratio`` is their weight over the lots' weight. ``slices`` and ``cost_per_slice``
    only where every piece's slices were counted. ``groups`` sum to ``cost``; groups of nothing are
    left out. ``is_sliced``: every piece has been through slicing, so its price is of the sliced stage.
    ``cost_per_cooked_lb``: cost_per_lb ÷ fry yield, None where it was not tried. ``sliced``: of those with
    slices alone, None where none has any.
    """

    grams: Fraction
    is_sliced: bool
    cost: Fraction
    cost_per_lb: Fraction | None
    sliced_yield_ratio: Fraction
    slices: int | Fraction | None
    cost_per_slice: Fraction | None
    cost_per_cooked_lb: Fraction | None
    portion: Fraction | None
    groups: dict[str, Fraction]
    sliced: Sliced | None

    @property
    def portion_served(self) -> Fraction | None:
        """Price of a portion as it is served: of the slices alone where dice or ends were cut besides."""
        return self.portion if self.portion is not None or self.sliced is None else self.sliced.portion

    @property
    def cost_per_kg(self) -> Fraction | None:
        """Price of a kilogram."""
        return None if self.cost_per_lb is None else self.cost_per_lb * 1000 / GRAMS_PER_LB


@dataclass(frozen=True, slots=True, kw_only=True)
class Comparison:
    """One shop pack beside the house. Saved is shop − house: negative where the house is dearer.

    ``break_even_paid_per_lb``: the price of a pound as purchased at which house and shop cost the
    same per sliced pound; may be negative; None where it cannot be had. ``earned_per_hour``: what
    an hour of the work earns if the batch is worth what the shop asks; None without minutes.
    """

    name: str
    cost_per_lb: Fraction
    cost_per_slice: Fraction | None
    cost_per_cooked_lb: Fraction | None
    portion: Fraction | None
    saved_per_lb: Fraction | None
    saved_per_portion: Fraction | None
    saved_on_batch: Fraction | None
    break_even_paid_per_lb: Fraction | None
    earned_per_hour: Fraction | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """Everything computed from one batch; ``ledger`` holds stages, pieces and warnings.

    ``minutes``: hands-on minutes of all steps, counted by the policy or not.
    """

    bought: Bought
    ledger: Ledger
    final: Final
    shop: tuple[Comparison, ...]
    minutes: Fraction


def compute_sheet(batch: Batch) -> Sheet:
    """The sheet of ``batch``, a pure function of its records.

    Raises:
        LedgerError: where an entry is impossible.
    """
    ledger = run(batch)
    bought = _compute_bought(batch.lots)
    final = _compute_final(ledger.mains, bought=bought, portion=batch.portion, fry_yield=batch.fry_yield)
    minutes = sum([step.minutes for step in batch.steps], ZERO)
    house = _House(final, ledger, bought, minutes, _meat_in_final(batch, ledger, final))
    shop = tuple([_compare(pack, house, batch.portion) for pack in batch.shop])
    return Sheet(bought=bought, ledger=ledger, final=final, shop=shop, minutes=minutes)


def cost_per_lb(cost: Fraction, grams: Fraction) -> Fraction | None:
    """Price of a pound: cost ÷ weight; None where nothing is left."""
    return cost * GRAMS_PER_LB / grams if grams else None


def _compute_bought(lots: tuple[Lot, ...]) -> Bought:
    grams = sum([lot.grams for lot in lots], ZERO)
    meat_grams = sum([lot.grams / (1 + lot.solution) if lot.solution else lot.grams for lot in lots], ZERO)
    cost = sum([bill_of_lot(lot).total for lot in lots], ZERO)
    return Bought(
        grams=grams,
        paid=sum([lot.paid for lot in lots], ZERO),
        own_grams=sum([lot.grams for lot in lots if lot.origin is None], ZERO),
        cost=cost,
        cost_per_lb=cost * GRAMS_PER_LB / grams,
        meat_cost_per_lb=cost * GRAMS_PER_LB / meat_grams,
    )


def _compute_final(
    mains: tuple[Piece, ...], *, bought: Bought, portion: Portion | None, fry_yield: Fraction | None
) -> Final:
    grams, together = grams_of(mains), added([piece.bill for piece in mains])
    counts = [piece.slices for piece in mains if piece.slices is not None]
    slices = sum(counts) if counts and len(counts) == len(mains) else None
    per_lb = cost_per_lb(together.total, grams)
    per_slice = None if slices is None else together.total / slices
    per_cooked = None if per_lb is None or fry_yield is None else per_lb / fry_yield
    return Final(
        grams=grams,
        is_sliced=bool(mains) and all("slice" in piece.kinds for piece in mains),
        cost=together.total,
        cost_per_lb=per_lb,
        sliced_yield_ratio=grams / bought.grams,
        slices=slices,
        cost_per_slice=per_slice,
        cost_per_cooked_lb=per_cooked,
        portion=_price_portion(portion, per_lb=per_lb, per_slice=per_slice, per_cooked=per_cooked),
        groups={group: money for group, money in together.costs.items() if money},
        sliced=_compute_sliced(mains, portion=portion, fry_yield=fry_yield),
    )


def _compute_sliced(
    mains: tuple[Piece, ...], *, portion: Portion | None, fry_yield: Fraction | None
) -> Sliced | None:
    pieces = [piece for piece in mains if piece.slices is not None]
    slices = sum([piece.slices for piece in pieces if piece.slices is not None])
    grams, cost = grams_of(pieces), added([piece.bill for piece in pieces]).total
    per_lb = cost_per_lb(cost, grams)
    if not slices or per_lb is None:
        return None
    per_cooked = None if fry_yield is None else per_lb / fry_yield
    return Sliced(
        grams=grams,
        cost=cost,
        slices=slices,
        cost_per_slice=cost / slices,
        cost_per_lb=per_lb,
        portion=_price_portion(portion, per_lb=per_lb, per_slice=cost / slices, per_cooked=per_cooked),
    )


def _price_portion(
    portion: Portion | None,
    *,
    per_lb: Fraction | None,
    per_slice: Fraction | None,
    per_cooked: Fraction | None,
) -> Fraction | None:
    if portion is None:
        return None
    if portion.slices is not None:
        return None if per_slice is None else portion.slices * per_slice
    grams, per = (portion.grams, per_lb) if portion.grams is not None else (portion.cooked_grams, per_cooked)
    return None if grams is None or per is None else grams / GRAMS_PER_LB * per


@dataclass(frozen=True, slots=True)
class _House:
    """What a shop pack is compared with. ``meat``: own meat as paid that reached the final mains."""

    final: Final
    ledger: Ledger
    bought: Bought
    minutes: Fraction
    meat: Fraction


def _meat_in_final(batch: Batch, ledger: Ledger, final: Final) -> Fraction:
    """How much of ``paid`` the final mains carry; what linked lots brought along is not of it."""
    meat = final.groups.get("meat", ZERO)
    if not any(group == "meat" and money for lot in batch.lots for group, money in lot.carried):
        return meat
    unpaid = replace(batch, lots=tuple(replace(lot, paid=ZERO) for lot in batch.lots), shop=())
    return meat - sum([piece.bill.group("meat") for piece in run(unpaid).mains], ZERO)


def _compare(pack: ShopPack, house: _House, portion: Portion | None) -> Comparison:
    final = house.final
    per_lb = pack.paid * GRAMS_PER_LB / pack.grams
    per_slice = None if pack.slices is None else pack.paid / pack.slices
    per_cooked = None if pack.fry_yield is None else per_lb / pack.fry_yield
    of_portion = _price_portion(portion, per_lb=per_lb, per_slice=per_slice, per_cooked=per_cooked)
    saved = None if final.cost_per_lb is None else per_lb - final.cost_per_lb
    house_portion = final.portion_served
    target = per_lb * final.grams / GRAMS_PER_LB
    return Comparison(
        name=pack.name,
        cost_per_lb=per_lb,
        cost_per_slice=per_slice,
        cost_per_cooked_lb=per_cooked,
        portion=of_portion,
        saved_per_lb=saved,
        saved_per_portion=None if of_portion is None or house_portion is None else of_portion - house_portion,
        saved_on_batch=None if saved is None else saved * final.grams / GRAMS_PER_LB,
        break_even_paid_per_lb=_break_even(house, target),
        earned_per_hour=_earned_per_hour(house, target),
    )


def _break_even(house: _House, target: Fraction) -> Fraction | None:
    """Σ paid ÷ Σ weight of what was paid for, scaled so that the final mains cost ``target``; the credits as
    they were. What other batches brought along was not paid for here.
    """
    if house.ledger.credit_cut or not house.meat or not house.bought.own_grams:
        return None
    factor = (target - (house.final.cost - house.meat)) / house.meat
    return house.bought.paid * factor * GRAMS_PER_LB / house.bought.own_grams


def _earned_per_hour(house: _House, target: Fraction) -> Fraction | None:
    """(Shop's worth of the final weight − its cost without labour) ÷ hours of all steps.

    Nothing left: minus the whole cost without labour, the loss account's too.
    """
    if not house.minutes:
        return None
    spent = house.final.cost - house.final.groups.get("labour", ZERO)
    if not house.final.grams:
        spent += _without_labour(house.ledger.loss)
    return (target - spent) * 60 / house.minutes


def _without_labour(bill: Bill) -> Fraction:
    return bill.total - bill.group("labour")
