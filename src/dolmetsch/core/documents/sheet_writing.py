"""The answer of ``cost``: a sheet as ``dolmetsch-sheet/1``, rounded once, half to even, from exact values."""

from fractions import Fraction
from typing import Final

from dolmetsch.core.costing.sheet import Comparison, Sheet, Sliced, cost_per_lb
from dolmetsch.core.costing.sheet import Final as FinalFigures
from dolmetsch.core.documents.batch_reading import BatchDocument
from dolmetsch.core.ledger.batch import Batch
from dolmetsch.core.ledger.pieces import Piece, Stage
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.slicing.packs import PackNow, Share, follow_packs

FORMAT: Final = "dolmetsch-sheet/1"
GRAM_PLACES, MONEY_PLACES, RATIO_PLACES = 2, 4, 6

Answer = dict[str, object]


def write_sheet(document: BatchDocument, sheet: Sheet) -> Answer:
    """The answer, ready for JSON: every quantity a string, counts numbers, what cannot be had null.

    Raises:
        LedgerError: packs that cannot have been made, or gone.
    """
    bought = sheet.bought
    answer: Answer = {
        "format": FORMAT,
        "currency": document.currency,
        "bought": {
            "weight_g": _grams(bought.grams),
            "cost": _money(bought.cost),
            "cost_per_lb": _money(bought.cost_per_lb),
            "meat_cost_per_lb": _money(bought.meat_cost_per_lb),
        },
        "stages": [_stage(stage) for stage in sheet.ledger.stages],
        "pieces": {piece.id: _piece(piece) for piece in sheet.ledger.mains},
        "by_products": {
            piece.id: {"weight_g": _grams(piece.grams), "carried": _money(piece.cost)}
            for piece in sheet.ledger.by_products
        },
        "loss_account": _money(sheet.ledger.loss.total),
        "final": _final(sheet.final),
        "store": [_compared(shop, sheet.final) for shop in sheet.shop],
        "warnings": [found.message for found in sheet.ledger.warnings],
    }
    answer |= _packed(document, sheet)
    if lineage := _lineage(document.batch):
        answer["lineage"] = lineage
    return answer


def _packed(document: BatchDocument, sheet: Sheet) -> Answer:
    """Packs and where they went; null where there are none."""
    stowed = follow_packs(sheet.ledger.mains, document.packs, document.gone)
    if not document.packs:
        return dict.fromkeys(("packs", "unpacked", "gone", "on_hand"))
    return {
        "packs": {mark: _pack(now) for mark, now in stowed.packs.items()},
        "unpacked": {mark: _share(share) for mark, share in stowed.unpacked.items()},
        "gone": {
            fate: _share(share) | {"income": _money(share.income)} for fate, share in stowed.gone.items()
        },
        "on_hand": _share(stowed.on_hand),
    }


def _pack(now: PackNow) -> Answer:
    return {
        "weight_g": _grams(now.pack.grams),
        "cost": _money(now.cost),
        "slices": now.pack.slices,
        "left_g": _grams(now.left_grams),
        "left_cost": _money(now.left_cost),
        "left_slices": now.left_slices,
    }


def _share(share: Share) -> Answer:
    return {"weight_g": _grams(share.grams), "cost": _money(share.cost)}


def _stage(stage: Stage) -> Answer:
    return {
        "step": stage.step,
        "kind": stage.kind or None,
        "weight_in_g": _grams(stage.grams_in),
        "weight_out_g": _grams(stage.grams_out),
        "yield_of_step": _ratio(stage.yield_ratio),
        "yield_of_bought": _ratio(stage.kept_of_bought_ratio),
        "cost_added": _money(stage.cost_added),
        "credits": _money(stage.credits),
        "cost_per_lb": _money(stage.cost_per_lb),
    }


def _piece(piece: Piece) -> Answer:
    return {
        "weight_g": _grams(piece.grams),
        "cost": _money(piece.cost),
        "cost_per_lb": _money(cost_per_lb(piece.cost, piece.grams)),
        "slices": piece.slices,
    }


def _final(final: FinalFigures) -> Answer:
    return {
        "weight_g": _grams(final.grams),
        "cost": _money(final.cost),
        "cost_per_lb": _money(final.cost_per_lb),
        "cost_per_kg": _money(final.cost_per_kg),
        "sliced_yield": _ratio(final.sliced_yield_ratio),
        "slices": final.slices,
        "cost_per_slice": _money(final.cost_per_slice),
        "groups": {group: _money(cost) for group, cost in final.groups.items()},
        "cost_per_cooked_lb": _money(final.cost_per_cooked_lb),
        "portion": _money(final.portion),
        "sliced": None if final.sliced is None else _sliced(final.sliced),
    }


def _sliced(sliced: Sliced) -> Answer:
    return {
        "weight_g": _grams(sliced.grams),
        "cost": _money(sliced.cost),
        "slices": sliced.slices,
        "cost_per_slice": _money(sliced.cost_per_slice),
        "cost_per_lb": _money(sliced.cost_per_lb),
        "portion": _money(sliced.portion),
    }


def _compared(shop: Comparison, final: FinalFigures) -> Answer:
    return {
        "name": shop.name or None,
        "cost_per_lb": _money(shop.cost_per_lb),
        "cost_per_slice": _money(shop.cost_per_slice),
        "cost_per_cooked_lb": _money(shop.cost_per_cooked_lb),
        "portion": _money(shop.portion),
        "saved_per_lb": _money(shop.saved_per_lb),
        # the document compares portions of all that is left; null where those have no price
        "saved_per_portion": None if final.portion is None else _money(shop.saved_per_portion),
        "saved_on_batch": _money(shop.saved_on_batch),
        "break_even_paid_per_lb": _money(shop.break_even_paid_per_lb),
        "earned_per_hour": _money(shop.earned_per_hour),
    }


def _lineage(batch: Batch) -> list[Answer]:
    return [
        {
            "lot": lot.id,
            "batch": lot.origin.batch,
            "piece": lot.origin.piece,
            "weight_g": _grams(lot.grams),
            "carried": _money(sum((money for _, money in lot.carried), Fraction(0))),
        }
        for lot in batch.lots
        if lot.origin is not None
    ]


def _grams(value: Fraction) -> str:
    return fixed(value, GRAM_PLACES)


def _money(value: Fraction | None) -> str | None:
    return None if value is None else fixed(value, MONEY_PLACES)


def _ratio(value: Fraction | None) -> str | None:
    return None if value is None else fixed(value, RATIO_PLACES)
