"""Every list as a table: batches, yields, savings, prices, packs, tasks, notes, tastings, dishes, methods."""

import json
from collections.abc import Callable, Iterable
from decimal import Decimal
from fractions import Fraction
from math import exp
from typing import Final, Literal, get_args

from django.utils import timezone

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.batches.models import Batch, BatchFacts, Entry, ShopSaving, StepYield
from dolmetsch.server.cures.models import CureRecipe
from dolmetsch.server.diary.models import Note
from dolmetsch.server.dishes.models import Dish, StockNote
from dolmetsch.server.fires.models import Fire
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import PackNow, TakenNow
from dolmetsch.server.meals.models import Meal
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.prices.exporting import HEADS as PRICE_HEADS
from dolmetsch.server.prices.exporting import list_rows
from dolmetsch.server.quantities.printing import add_up, print_percent, print_weight
from dolmetsch.server.tables.writing import Row, Tables, write_tables
from dolmetsch.server.tastings.models import TastingSheet
from dolmetsch.server.ways.models import Way

ListName = Literal[
    "batches",
    "entries",
    "yields",
    "savings",
    "prices",
    "packs",
    "takings",
    "tasks",
    "notes",
    "fires",
    "tastings",
    "methods",
    "recipes",
    "dishes",
    "plans",
    "cupboard",
]
Form = Literal["csv", "xlsx"]
LISTS: Final[tuple[ListName, ...]] = get_args(ListName)


def write_list(kitchen: Kitchen, name: ListName, form: Form) -> bytes:
    """The list ``name`` as a file."""
    heads, rows = _LISTS[name](kitchen)
    tables: Tables = [(name.capitalize(), [list(heads), *rows])]
    return write_tables(tables, form)


Listed = tuple[Iterable[str], Iterable[Row]]


def _weight(grams: Decimal, kitchen: Kitchen) -> Decimal:
    return Decimal(print_weight(Fraction(grams)).of(kitchen.weight_unit))


def _batches(kitchen: Kitchen) -> Listed:
    unit = kitchen.weight_unit
    heads = (
        *("code", "name", "cut", "method", "bought from", "started", "finished", f"bought, {unit}"),
        *(f"finished, {unit}", "kept, %", "paid", "cost", "work in it", "minutes"),
    )
    facts = {one.batch_id: one for one in BatchFacts.objects.filter(kitchen=kitchen)}
    batches = Batch.objects.filter(kitchen=kitchen).only("code", "name", "cut", "started_at").order_by("pk")
    rows = [_batch_row(batch, facts.get(batch.pk), kitchen) for batch in batches]
    add_up(rows, *(heads.index(head) for head in ("paid", "cost", "work in it")))
    return heads, rows


def _batch_row(batch: Batch, facts: BatchFacts | None, kitchen: Kitchen) -> Row:
    first: Row = [batch.code, batch.name, batch.cut]
    started = timezone.localdate(batch.started_at).isoformat()
    if facts is None:
        return [*first, "", "", started, *[""] * 8]
    kept = Fraction(facts.final_grams) / Fraction(facts.bought_grams)
    return [
        *first,
        facts.way,
        facts.source,
        started,
        timezone.localdate(facts.finished_at).isoformat(),
        _weight(facts.bought_grams, kitchen),
        _weight(facts.final_grams, kitchen),
        Decimal(print_percent(kept)),
        facts.paid,
        facts.cost,
        facts.labour,
        facts.minutes,
    ]


def _entries(kitchen: Kitchen) -> Listed:
    rows = (
        Entry.objects.filter(kitchen=kitchen)
        .order_by("batch", "sequence")
        .values_list(
            *("batch__code", "sequence", "act", "kind", "happened_at", "recorded_at"),
            *("recorded_by__first_name", "minutes", "corrects__sequence", "reason"),
        )
    )
    heads = (
        *("batch", "entry", "what", "kind", "happened", "recorded", "by", "minutes"),
        *("corrects entry", "reason"),
    )
    return heads, [
        [code, number, act, kind, at.isoformat(), kept.isoformat(), by, minutes, corrects, reason]
        for code, number, act, kind, at, kept, by, minutes, corrects, reason in rows
    ]


def _yields(kitchen: Kitchen) -> Listed:
    rows = StepYield.objects.filter(kitchen=kitchen).order_by("batch", "id")
    return ("batch", "cut", "step", "kept, %"), [
        [code, cut, method.replace("_", " "), Decimal(fixed(Fraction(exp(ratio) * 100), 2))]
        for code, cut, method, ratio in rows.values_list("batch__code", "cut", "method", "log_ratio")
    ]


def _savings(kitchen: Kitchen) -> Listed:
    rows = ShopSaving.objects.filter(kitchen=kitchen).order_by("batch__facts__finished_at", "id")
    return ("batch", "finished", "shop pack", "saved"), [
        [code, timezone.localdate(at).isoformat(), name, saved]
        for code, at, name, saved in rows.values_list(
            "batch__code", "batch__facts__finished_at", "name", "saved"
        )
    ]


def _prices(kitchen: Kitchen) -> Listed:
    return PRICE_HEADS, [list(row) for row in list_rows(kitchen)]


def _packs(kitchen: Kitchen) -> Listed:
    unit = kitchen.weight_unit
    rows = PackNow.objects.filter(kitchen=kitchen).order_by("pack")
    heads = (
        *("batch", "pack", "piece", "product", f"weight, {unit}", "slices", "cost", f"left, {unit}"),
        *("state", "place", "keep until"),
    )
    listed: list[Row] = [
        [
            *(code, mark, piece, product, _weight(grams, kitchen), slices, cost),
            *(_weight(left, kitchen), state, store, until.isoformat() if until else ""),
        ]
        for code, mark, piece, product, grams, slices, cost, left, state, store, until in rows.values_list(
            *("pack__batch__code", "pack__mark", "pack__piece", "pack__product", "pack__grams"),
            *("pack__slices", "cost", "left_grams", "state", "store", "keep_until"),
        )
    ]
    add_up(listed, heads.index("cost"))
    return heads, listed


def _takings(kitchen: Kitchen) -> Listed:
    unit = kitchen.weight_unit
    rows = TakenNow.objects.filter(kitchen=kitchen).order_by("taken")
    heads = ("day", "batch", "pack", "product", "gone as", f"weight, {unit}", "cost", "income")
    listed: list[Row] = [
        [day.isoformat(), code, mark, product, fate, _weight(grams, kitchen), cost, income]
        for day, code, mark, product, fate, grams, cost, income in rows.values_list(
            *("day", "taken__pack__batch__code", "taken__pack__mark", "product", "fate"),
            *("grams", "cost", "income"),
        )
    ]
    add_up(listed, heads.index("cost"), heads.index("income"))
    return heads, listed


def _tasks(kitchen: Kitchen) -> Listed:
    rows = PlannedTask.objects.filter(kitchen=kitchen).order_by("pk")
    return ("batch", "pieces", "what", "due", "state"), [
        [code, ", ".join(marks), kind, due.isoformat(), state]
        for code, marks, kind, due, state in rows.values_list(
            "batch__code", "marks", "kind", "due_at", "state"
        )
    ]


def _notes(kitchen: Kitchen) -> Listed:
    rows = Note.objects.filter(kitchen=kitchen).order_by("pk")
    return ("batch", "piece", "when", "by", "note"), [
        [code, mark, at.isoformat(), by, text]
        for code, mark, at, by, text in rows.values_list(
            "batch__code", "mark", "happened_at", "recorded_by__first_name", "text"
        )
    ]


def _fires(kitchen: Kitchen) -> Listed:
    rows = Fire.objects.filter(kitchen=kitchen).order_by("pk").prefetch_related("pieces__batch")
    return ("fire", "cooker", "begun", "wood", "program", "pieces"), [
        [
            *(fire.name, fire.cooker, fire.begun_at.isoformat(), fire.wood, fire.program),
            ", ".join(piece.label for piece in fire.pieces.all()),
        ]
        for fire in rows
    ]


def _tastings(kitchen: Kitchen) -> Listed:
    heads = ("trial", "taster", "when", "plate", "salt", "smoke", "sweetness", "texture", "color", "again")
    sheets = TastingSheet.objects.filter(kitchen=kitchen).select_related("tasting__trial").order_by("pk")
    return heads, [
        [
            sheet.tasting.trial.name,
            sheet.taster,
            sheet.recorded_at.isoformat(),
            letter,
            *(scores.get(scale) for scale in heads[4:9]),
            "yes" if sheet.again == letter else "",
        ]
        for sheet in sheets
        for letter, scores in sorted(sheet.scores.items())
    ]


def _versions(kind: type[Way | CureRecipe | Dish | Meal]) -> Callable[[Kitchen], Listed]:
    """What is saved under a name, version by version, as it was typed."""

    def rows(kitchen: Kitchen) -> Listed:
        saved = kind._default_manager.filter(kitchen=kitchen).order_by("name", "version")
        return ("name", "version", "saved", "put away", "as typed (JSON)"), [
            [name, version, at.isoformat(), "yes" if is_away else "", json.dumps(typed, ensure_ascii=False)]
            for name, version, at, is_away, typed in saved.values_list(
                "name", "version", "recorded_at", "is_put_away", "input"
            )
        ]

    return rows


def _cupboard(kitchen: Kitchen) -> Listed:
    notes = StockNote.objects.filter(kitchen=kitchen).order_by("pk")
    return ("what", "bought or counted", "how much", "when", "by"), [
        [what, sort, typed, at.isoformat(), by]
        for what, sort, typed, at, by in notes.values_list(
            "what", "sort", "typed", "at", "recorded_by__first_name"
        )
    ]


_LISTS: Final[dict[ListName, Callable[[Kitchen], Listed]]] = {
    "batches": _batches,
    "entries": _entries,
    "yields": _yields,
    "savings": _savings,
    "prices": _prices,
    "packs": _packs,
    "takings": _takings,
    "tasks": _tasks,
    "notes": _notes,
    "fires": _fires,
    "tastings": _tastings,
    "methods": _versions(Way),
    "recipes": _versions(CureRecipe),
    "dishes": _versions(Dish),
    "plans": _versions(Meal),
    "cupboard": _cupboard,
}
