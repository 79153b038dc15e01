"""The sheet: what a batch came to, and how it stands beside the shop.

All figures are exact rationals; a figure that cannot be had is None. Prices of a pound are always
of the living mains of a *named* stage: as purchased, after each step, and sliced at the end.
"""

from dataclasses import dataclass
from fractions import Fraction

from dolmetsch.core.batch import Batch, Portion, ShopPack
from dolmetsch.core.exact import GRAMS_PER_LB
from dolmetsch.core.ledger import ZERO, Costs, Ledger, Piece, run


@dataclass(frozen=True, slots=True, kw_only=True)
class Bought:
    """All lots together: grams, cost (paid and extras), and price per pound as purchased.

    ``meat_cost_per_lb`` counts the meat without added solution: cost ÷ Σ weight ÷ (1 + solution).
    """

    grams: Fraction
    cost: Fraction
    cost_per_lb: Fraction
    meat_cost_per_lb: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class Final:
    """The living mains at the end.

    ``sliced_yield_ratio`` is their weight over the lots' weight. ``slices`` and ``cost_per_slice``
    only where every piece's slices were counted. ``groups`` sum to ``cost``; groups of nothing are
    left out. ``is_sliced``: every piece has been through slicing, so its price is of the sliced stage.
    """

    grams: Fraction
    is_sliced: bool
    cost: Fraction
    cost_per_lb: Fraction | None
    sliced_yield_ratio: Fraction
    slices: int | None
    cost_per_slice: Fraction | None
    portion: Fraction | None
    groups: Costs


@dataclass(frozen=True, slots=True, kw_only=True)
class Comparison:
    """One shop pack beside the house. Saved is shop − house: negative where the house is dearer."""

    name: str
    cost_per_lb: Fraction
    cost_per_slice: Fraction | None
    portion: Fraction | None
    saved_per_lb: Fraction | None
    saved_per_portion: Fraction | None
    saved_on_batch: Fraction | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """Everything computed from one batch; ``ledger`` holds stages, pieces and warnings."""

    bought: Bought
    ledger: Ledger
    final: Final
    shop: tuple[Comparison, ...]


def compute_sheet(batch: Batch) -> Sheet:
    """The sheet of ``batch``, a pure function of its records.

    Raises:
        LedgerError: where an entry is impossible.
    """
    ledger = run(batch)
    bought = _compute_bought(batch)
    final = _compute_final(ledger.mains, bought=bought, portion=batch.portion)
    shop = tuple(_compare(pack, final, batch.portion) for pack in batch.shop)
    return Sheet(bought=bought, ledger=ledger, final=final, shop=shop)


def cost_per_lb(cost: Fraction, grams: Fraction) -> Fraction | None:
    """Price of a pound: cost ÷ weight; None where nothing is left."""
    return cost * GRAMS_PER_LB / grams if grams else None


def _compute_bought(batch: Batch) -> Bought:
    grams = sum((lot.grams for lot in batch.lots), ZERO)
    meat_grams = sum((lot.grams / (1 + lot.solution) for lot in batch.lots), ZERO)
    cost = sum((lot.paid + sum((extra.cost for extra in lot.extras), ZERO) for lot in batch.lots), ZERO)
    return Bought(
        grams=grams,
        cost=cost,
        cost_per_lb=cost * GRAMS_PER_LB / grams,
        meat_cost_per_lb=cost * GRAMS_PER_LB / meat_grams,
    )


def _compute_final(mains: tuple[Piece, ...], *, bought: Bought, portion: Portion | None) -> Final:
    grams = sum((piece.grams for piece in mains), ZERO)
    cost = sum((piece.cost for piece in mains), ZERO)
    counts = [piece.slices for piece in mains if piece.slices is not None]
    slices = sum(counts) if counts and len(counts) == len(mains) else None
    groups: Costs = {}
    for piece in mains:
        for group, money in piece.costs.items():
            groups[group] = groups.get(group, ZERO) + money
    per_lb = cost_per_lb(cost, grams)
    per_slice = None if slices is None else cost / slices
    return Final(
        grams=grams,
        is_sliced=bool(mains) and all("slice" in piece.kinds for piece in mains),
        cost=cost,
        cost_per_lb=per_lb,
        sliced_yield_ratio=grams / bought.grams,
        slices=slices,
        cost_per_slice=per_slice,
        portion=_price_portion(portion, per_lb=per_lb, per_slice=per_slice),
        groups={group: money for group, money in groups.items() if money},
    )


def _price_portion(
    portion: Portion | None, *, per_lb: Fraction | None, per_slice: Fraction | None
) -> Fraction | None:
    if portion is None:
        return None
    if portion.slices is not None:
        return None if per_slice is None else portion.slices * per_slice
    if portion.grams is None or per_lb is None:
        return None
    return portion.grams / GRAMS_PER_LB * per_lb


def _compare(pack: ShopPack, house: Final, portion: Portion | None) -> Comparison:
    per_lb = pack.paid * GRAMS_PER_LB / pack.grams
    per_slice = None if pack.slices is None else pack.paid / pack.slices
    shop_portion = _price_portion(portion, per_lb=per_lb, per_slice=per_slice)
    saved = None if house.cost_per_lb is None else per_lb - house.cost_per_lb
    both = shop_portion is not None and house.portion is not None
    return Comparison(
        name=pack.name,
        cost_per_lb=per_lb,
        cost_per_slice=per_slice,
        portion=shop_portion,
        saved_per_lb=saved,
        saved_per_portion=shop_portion - house.portion if both else None,  # type: ignore[operator]
        saved_on_batch=None if saved is None else saved * house.grams / GRAMS_PER_LB,
    )
