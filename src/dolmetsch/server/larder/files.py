"""The larder as a file to take away: every pack with what is left of it, and everything that left."""

import json
from decimal import Decimal
from fractions import Fraction
from typing import Any, Final

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import PackNow, TakenNow
from dolmetsch.server.quantities.printing import add_up, print_weight
from dolmetsch.server.tables.writing import Row, TableForm, Tables, write_tables

FORMAT: Final = "dolmetsch-larder/1"
PACK_HEADS: Final = (
    "batch",
    "pack",
    "piece",
    "product",
    "form",
    "packed",
    "weight",
    "slices",
    "cost",
    "left",
    "left slices",
)
MORE_HEADS: Final = ("left cost", "place", "state", "keep until")
TAKEN_HEADS: Final = ("day", "batch", "pack", "product", "gone as", "weight", "cost", "income", "why")


def write_larder(kitchen: Kitchen, form: TableForm) -> bytes:
    """All packs and all takings of ``kitchen`` that count, in order."""
    unit = kitchen.weight_unit
    packs = [_pack_row(now, unit) for now in _packs(kitchen)]
    taken = [_taken_row(now, unit) for now in _taken(kitchen)]
    heads = (*PACK_HEADS, *MORE_HEADS)
    add_up(packs, heads.index("cost"), heads.index("left cost"))
    add_up(taken, TAKEN_HEADS.index("cost"), TAKEN_HEADS.index("income"))
    if form == "json":
        document = {
            "format": FORMAT,
            "currency": kitchen.currency,
            "unit": unit,
            "packs": [dict(zip(_keys(heads), row, strict=True)) for row in packs],
            "gone": [dict(zip(_keys(TAKEN_HEADS), row, strict=True)) for row in taken],
        }
        return (json.dumps(document, ensure_ascii=False, indent=1, default=str) + "\n").encode()
    tables: Tables = [("Packs", [list(heads), *packs]), ("Gone", [list(TAKEN_HEADS), *taken])]
    return write_tables(tables, form)


def _keys(heads: tuple[str, ...]) -> list[str]:
    return [head.replace(" ", "_") for head in heads]


def _packs(kitchen: Kitchen) -> Any:
    rows = PackNow.objects.filter(kitchen=kitchen).select_related("pack__batch")
    return rows.order_by("pack_id")


def _taken(kitchen: Kitchen) -> Any:
    rows = TakenNow.objects.filter(kitchen=kitchen).select_related("taken__pack__batch")
    return rows.order_by("taken_id")


def _pack_row(now: PackNow, unit: str) -> Row:
    pack = now.pack
    return [
        pack.batch.code,
        pack.mark,
        pack.piece,
        pack.product,
        pack.form,
        pack.packed_at.date().isoformat(),
        Decimal(print_weight(Fraction(pack.grams)).of(unit)),
        pack.slices,
        now.cost,
        Decimal(print_weight(Fraction(now.left_grams)).of(unit)),
        now.left_slices,
        now.left_cost,
        now.store,
        now.state,
        None if now.keep_until is None else now.keep_until.isoformat(),
    ]


def _taken_row(now: TakenNow, unit: str) -> Row:
    taken = now.taken
    return [
        now.day.isoformat(),
        taken.pack.batch.code,
        taken.pack.mark,
        now.product,
        now.fate,
        Decimal(print_weight(Fraction(now.grams)).of(unit)),
        now.cost,
        now.income,
        taken.why,
    ]
