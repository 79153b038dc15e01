"""A batch as tables for spreadsheets."""

from decimal import Decimal
from typing import Literal

from django.utils import timezone

from dolmetsch.server.batches.show.schemas import BatchOut
from dolmetsch.server.batches.verdict.schemas import BillOut, PartOut, VerdictOut
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.schemas import UnitCost
from dolmetsch.server.quantities.units import UNITS
from dolmetsch.server.tables.writing import Cell, Row, Tables

Unit = Literal["lb", "kg"]


def build_tables(batch: BatchOut, verdict: VerdictOut, *, kitchen: Kitchen) -> Tables:
    """The tables by title: head, ledger, pieces, bill, outlay, shop; prices are of the kitchen's unit."""
    unit: Unit = "lb" if kitchen.weight_unit == "lb" else "kg"
    house = verdict.judged.house
    head: list[Row] = [
        ["batch", batch.code],
        ["name", batch.name],
        ["cut", batch.cut],
        ["currency", kitchen.currency],
        ["policy", verdict.policy_words],
        [f"price of a {UNITS[unit].word}, {house.stage}", _per(house.unit_cost, unit)],
        *_expected(verdict, unit),
        ["a portion", _decimal(house.portion)],
        ["kept of what was bought, %", Decimal(house.kept_of_bought)],
    ]
    return [
        ("Batch", head),
        ("Ledger", _ledger(batch, unit)),
        ("Pieces", _pieces(batch, unit)),
        ("Bill", _bill(verdict, unit)),
        ("Outlay", _outlay(verdict)),
        ("Shop", _shop(verdict, unit)),
    ]


def _expected(verdict: VerdictOut, unit: Unit) -> list[Row]:
    """What a finished pound is expected to cost, of a batch that is not finished."""
    ahead = verdict.judged.expected
    if ahead is None:
        return []
    return [
        [f"forecast: price of a {UNITS[unit].word}, {ahead.stage}", _per(ahead.price, unit)],
        ["forecast: 8 times out of 10 from", _per(ahead.low, unit)],
        ["forecast: to", _per(ahead.high, unit)],
    ]


def _ledger(batch: BatchOut, unit: Unit) -> list[Row]:
    rows: list[Row] = [
        [
            *("step", "day", "pieces", "weight in, lb", "weight in, kg", "weight out, lb", "weight out, kg"),
            *(
                "kept of step, %",
                "kept of bought, %",
                "spent",
                "credit for trim",
                f"a {UNITS[unit].word} after it",
                "what left",
            ),
        ]
    ]
    for column in batch.strip.columns:
        left = "; ".join(
            f"{peel.name} {'+' if peel.gain else ''}{peel.weight.say(unit)}" for peel in column.peels
        )
        rows.append(
            [
                column.label or "Step",
                timezone.localdate(column.last_at).isoformat(),
                ", ".join(column.pieces),
                *_weights(column.weight_in.lb, column.weight_in.kg),
                *_weights(column.weight_out.lb, column.weight_out.kg),
                _decimal(column.kept_of_step),
                Decimal(column.kept_of_bought),
                Decimal(column.spent),
                Decimal(column.worth_back),
                _per(column.cost, unit),
                left,
            ]
        )
    return rows


def _decimal(printed: str | None) -> Decimal | None:
    return None if printed is None else Decimal(printed)


def _per(cost: UnitCost | None, unit: Unit) -> Decimal | None:
    return None if cost is None else Decimal(cost.of(unit))


def _weights(lb: str, kg: str) -> list[Cell]:
    return [Decimal(lb), Decimal(kg)]


def _pieces(batch: BatchOut, unit: Unit) -> list[Row]:
    head: Row = ["piece", "weight, lb", "weight, kg", f"a {UNITS[unit].word}", "slices", "carries"]
    rows = [head]
    for piece in batch.pieces:
        cost = _per(piece.cost, unit)
        rows.append([piece.mark, *_weights(piece.weight.lb, piece.weight.kg), cost, piece.slices, None])
    for off in batch.by_products:
        rows.append([off.name, *_weights(off.weight.lb, off.weight.kg), None, None, Decimal(off.carried)])
    return rows


def _bill(verdict: VerdictOut, unit: Unit) -> list[Row]:
    rows: list[Row] = [["part of the bill", f"a {UNITS[unit].word}", "a portion", "on the batch"]]
    bill = verdict.judged.bill
    if bill is None:
        return rows
    lines: list[tuple[str, PartOut | BillOut]] = [(part.label, part) for part in bill.parts]
    for label, part in [*lines, ("all", bill)]:
        per = Decimal(part.per_lb if unit == "lb" else part.per_kg)
        rows.append([label, per, _decimal(part.per_portion), Decimal(part.on_batch)])
    return rows


def _outlay(verdict: VerdictOut) -> list[Row]:
    rows: list[Row] = [["paid for", "whole packs", "outlay", "charged to this batch"]]
    for line in verdict.outlay:
        rows.append([line.what, line.packs, Decimal(line.paid), Decimal(line.charged)])
    return rows


def _shop(verdict: VerdictOut, unit: Unit) -> list[Row]:
    by = " by the forecast" if verdict.judged.is_forecast else ""
    head: Row = [
        "shop pack",
        "price",
        f"a {UNITS[unit].word}",
        "a portion",
        f"saved a {UNITS[unit].word}{by}",
        f"saved on the batch{by}",
    ]
    rows: list[Row] = [[*head, "chance of beating it, %"]]
    for shop in verdict.judged.shops:
        saved = shop.saved_per_lb if unit == "lb" else shop.saved_per_kg
        figures = [_decimal(figure) for figure in (shop.portion, saved, shop.saved_on_batch)]
        rows.append([shop.name, shop.pack, _per(shop.unit_cost, unit), *figures, shop.chance])
    return rows
