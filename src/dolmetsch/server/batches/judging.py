"""Judging a batch: its sheet beside the shop on every basis, with range, parts, year and size."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from fractions import Fraction
from typing import Final

from dolmetsch.core.exact import apportion, fixed
from dolmetsch.core.parts import Part, compute_parts
from dolmetsch.core.scale import TOLD_APART_AT, Spread, compute_spread, no_spread
from dolmetsch.core.sheet import Comparison
from dolmetsch.core.size import SizeModel, Work, fit_work, model_size
from dolmetsch.core.strip import label_kind
from dolmetsch.core.trial import Lever
from dolmetsch.server.batches import verdict_schemas as out
from dolmetsch.server.batches.chain import Reckoning
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.schemas import HouseOut
from dolmetsch.server.batches.showing import show_house, show_shops
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import (
    per_kg,
    print_money,
    print_money_or_none,
    print_percent,
    print_unit_cost,
)

GROUP_LABELS: Final = {
    "labour": "work",
    "credit": "worth back",
    "other": "other things used",
    "buying": "buying it",
}
SHRINK_LABELS: Final = {
    "trim": "lost to the trim",
    "cure": "lost in the cure",
    "rest": "lost in the rest",
    "smoke": "lost in the smoke",
    "chill": "lost in the chill",
    "slice": "lost to slicing",
    "mix": "lost in the mixing",
    "stuff": "lost in the stuffing",
    "ferment": "lost in the ferment",
    "hang": "lost while it hung",
    "dry": "lost in the drying",
    "age": "lost while it aged",
    "cook": "lost in the cooking",
    "discard": "thrown away",
}
KEPT: Final = "keep a tenth less when"
#: So many slabs are drawn where no wall is known.
SIZES_DRAWN: Final = 12
#: So many of the latest finished batches tell how the kitchen works.
LOG_READ: Final = 50
YEAR: Final = timedelta(days=365)
#: A kitchen that began lately is taken to have worked at least so long.
LEAST_SPAN: Final = timedelta(days=30)


@dataclass(frozen=True, slots=True, kw_only=True)
class Pace:
    """How a kitchen works: finished batches a year, and hands-on work by its own log (None: too little)."""

    batches_a_year: Fraction
    work: Work | None
    fridge_slabs: int | None
    smoker_slabs: int | None


def find_pace(kitchen: Kitchen, now: datetime) -> Pace:
    """The pace of ``kitchen`` over the last 365 days, or since it began."""
    finished = Batch.objects.filter(kitchen=kitchen, is_finished=True, last_entry_at__gt=now - YEAR)
    standings = finished.order_by("-last_entry_at").values_list("standing", flat=True)[:LOG_READ]
    first = (
        Batch.objects.filter(kitchen=kitchen).order_by("started_at").values_list("started_at", flat=True)[:1]
    )
    span = YEAR
    for started_at in first:
        span = min(YEAR, max(LEAST_SPAN, now - started_at))
    log = [
        (int(standing["slabs"]), Fraction(standing["minutes"]))
        for standing in standings
        if standing.get("slabs") and Fraction(standing.get("minutes", "0"))
    ]
    return Pace(
        batches_a_year=finished.count() * Fraction(YEAR.days) / max(span.days, 1),
        work=fit_work(log),
        fridge_slabs=kitchen.fridge_slabs,
        smoker_slabs=kitchen.smoker_slabs,
    )


def judge(reckoning: Reckoning, pace: Pace, *, is_tried: bool = False) -> out.JudgedOut:
    """Everything the verdict shows of a reckoned batch; one that ``is_tried`` was never on a scale."""
    record, sheet = reckoning.chain.batch, reckoning.sheet
    spread = no_spread(sheet) if is_tried else compute_spread(record, sheet)
    a_year = pace.batches_a_year
    house = show_house(reckoning)
    return out.JudgedOut(
        house=house,
        shops=show_shops(reckoning),
        spread=out.SpreadOut(
            is_known=spread.is_known,
            unit_cost=print_unit_cost(spread.cost_per_lb),
            portion=print_money_or_none(spread.portion),
            kept=None if spread.sliced_yield is None else print_percent(spread.sliced_yield),
            saved_on_batch=[print_money_or_none(saved) for saved in spread.saved_on_batch],
        ),
        bases=_show_bases(reckoning, spread, house),
        bill=_show_bill(reckoning),
        year=out.YearOut(
            batches=fixed(pace.batches_a_year, 1),
            saved=[
                None if shop.saved_on_batch is None else print_money(shop.saved_on_batch * a_year)
                for shop in sheet.shop
            ],
        ),
        size=_show_size(model_size(record, sheet, pace.work), pace, sheet.shop),
    )


def _show_bases(reckoning: Reckoning, spread: Spread, house: HouseOut) -> list[out.BasisOut]:
    final, shops = reckoning.sheet.final, reckoning.sheet.shop
    fry = reckoning.chain.batch.fry_yield
    cooked_spread = spread.cost_per_lb / fry / 16 if fry and spread.cost_per_lb is not None else None
    pound = _basis(
        ("pound", f"a pound, {house.stage}", "Nothing is left of this batch."),
        price=final.cost_per_lb,
        deviation=spread.cost_per_lb,
        shops=[(shop.name, shop.cost_per_lb) for shop in shops],
    )
    portion = _basis(
        (
            "portion",
            f"a portion, {house.portion_label or 'not told yet'}",
            "Say what a portion is; one in slices needs every piece's slices counted.",
        ),
        price=final.portion,
        deviation=spread.portion,
        shops=[(shop.name, shop.portion) for shop in shops],
    )
    piece = _basis(
        ("slice", "a slice", "Count the slices of every piece."),
        price=final.cost_per_slice,
        deviation=spread.cost_per_slice,
        shops=[(shop.name, shop.cost_per_slice) for shop in shops],
    )
    cooked = _basis(
        ("cooked", "an ounce, cooked", "Fry some, and weigh it before and after."),
        price=_ounce(final.cost_per_cooked_lb),
        deviation=cooked_spread,
        shops=[(shop.name, _ounce(shop.cost_per_cooked_lb)) for shop in shops],
    )
    return [pound, portion, piece, cooked]


def _ounce(per_lb: Fraction | None) -> Fraction | None:
    return None if per_lb is None else per_lb / 16


def _basis(
    told: tuple[out.BasisKey, str, str],
    *,
    price: Fraction | None,
    deviation: Fraction | None,
    shops: Sequence[tuple[str, Fraction | None]],
) -> out.BasisOut:
    """One basis: ``told`` is its key, its label, and what to record where it cannot be had."""
    reach = TOLD_APART_AT * (deviation or Fraction(0))
    rungs = []
    for name, theirs in shops:
        saved = None if theirs is None or price is None else theirs - price
        rungs.append(
            out.RungOut(
                name=name or "a pack",
                price=print_money_or_none(theirs),
                saved=print_money_or_none(saved),
                apart=saved is not None and abs(saved) >= reach,
            )
        )
    key, label, missing = told
    return out.BasisOut(
        key=key,
        label=label,
        price=print_money_or_none(price),
        low=None if price is None else print_money(price - reach),
        high=None if price is None else print_money(price + reach),
        shops=rungs,
        missing=missing if price is None else None,
    )


def _show_bill(reckoning: Reckoning) -> out.BillOut | None:
    sheet = reckoning.sheet
    parts = compute_parts(sheet)
    final = sheet.final
    if not parts or final.cost_per_lb is None:
        return None
    per_lb = apportion([part.per_lb for part in parts], places=2)
    on_batch = apportion([part.on_batch for part in parts], places=2)
    portions = [part.per_portion for part in parts if part.per_portion is not None]
    per_portion = apportion(portions, places=2) if portions else [None] * len(parts)
    return out.BillOut(
        parts=[
            out.PartOut(
                sort=part.sort,
                name=part.name,
                label=_label_part(part),
                per_lb=per_lb[place],
                per_portion=per_portion[place],
                on_batch=on_batch[place],
                entries=entries_of(reckoning, part.steps),
            )
            for place, part in enumerate(parts)
        ],
        per_lb=print_money(final.cost_per_lb),
        per_portion=print_money_or_none(final.portion),
        on_batch=print_money(final.cost),
    )


def _label_part(part: Part) -> str:
    if part.sort == "meat":
        return "meat as bought"
    if part.sort == "shrink":
        return SHRINK_LABELS.get(part.name, f"lost in “{part.name}”" if part.name else "lost in a step")
    return GROUP_LABELS.get(part.name, part.name)


def entries_of(reckoning: Reckoning, steps: Sequence[int]) -> list[int]:
    """Ids of the entries behind steps (from 1); 0 stands for what was bought."""
    chain = reckoning.chain
    found: list[int] = []
    for step in steps:
        rows = chain.lot_entries if step == 0 else (chain.step_entries[step - 1],)
        found += [row.entry.id or 0 for row in rows]
    return found


def _show_size(model: SizeModel | None, pace: Pace, shops: Sequence[Comparison]) -> out.SizeOut | None:
    if model is None:
        return None
    walls = [(pace.fridge_slabs, "the fridge"), (pace.smoker_slabs, "the smoker")]
    known = [(slabs, what) for slabs, what in walls if slabs]
    wall, wall_is = min(known, default=(None, None))
    most = max(wall or SIZES_DRAWN, model.slabs)
    work = model.work
    fixed_part, slab_part = fixed(work.batch_minutes, 0), fixed(work.slab_minutes, 0)
    whence = "start values of common practice, fitted to this batch"
    if work.is_own:
        whence = f"your own {work.batches} finished batches"
    points = []
    for slabs in range(1, most + 1):
        unit_cost = print_unit_cost(model.price_per_lb(slabs))
        assert unit_cost is not None
        points.append(out.SizePointOut(slabs=slabs, unit_cost=unit_cost))
    return out.SizeOut(
        slabs=model.slabs,
        wall=wall,
        wall_is=wall_is,
        points=points,
        crossings=[model.crossing(shop.cost_per_lb) for shop in shops],
        work=f"{fixed_part} minutes a batch and {slab_part} a slab, by {whence}",
    )


def show_levers(levers: Sequence[Lever]) -> list[out.LeverOut]:
    """The levers as ranked; yields that move the price alike stand in one line."""
    shown: list[out.LeverOut] = []
    alike: dict[str, list[str]] = {}
    for lever in levers:
        change = print_money(lever.change)
        if lever.sort == "yield":
            alike.setdefault(change, []).append(label_kind(lever.kind).lower() or "in a step")
            if len(alike[change]) > 1:
                line = next(
                    one for one in shown if one.label.startswith(KEPT) and one.change_per_lb == change
                )
                line.label = f"{KEPT} {_listed(alike[change])}"
                continue
        shown.append(
            out.LeverOut(
                label=_label_lever(lever),
                change_per_lb=change,
                change_per_kg=print_money(per_kg(lever.change)),
            )
        )
    return shown


def _listed(words: Sequence[str]) -> str:
    *most, last = words
    return f"{', '.join(most)} or {last}" if most else last


def _label_lever(lever: Lever) -> str:
    """What gets a tenth worse."""
    if lever.sort == "tag":
        return "pay a tenth more for the meat"
    if lever.sort == "minutes":
        return "work a tenth longer"
    if lever.sort == "group":
        name = GROUP_LABELS.get(lever.kind, lever.kind)
        return "what came off worth a tenth less" if lever.kind == "credit" else f"{name} a tenth dearer"
    return f"{KEPT} {label_kind(lever.kind).lower() or 'in a step'}"
