"""Judging a batch: its sheet beside the shop on every basis, with range, parts, year and size."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from fractions import Fraction
from typing import Final

from dolmetsch.core.costing.batch_size import SizeModel, model_size
from dolmetsch.core.costing.parts import PricePart, compute_parts
from dolmetsch.core.costing.scale_error import TOLD_APART_AT, Spread, no_spread
from dolmetsch.core.costing.sheet import Comparison
from dolmetsch.core.costing.strip import label_kind
from dolmetsch.core.costing.trial import Lever
from dolmetsch.core.forecast.forecast_comparison import SURE_AT
from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.numbers.exact import apportion, fixed
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.forecast.forecasting import Forecasted
from dolmetsch.server.batches.show.schemas import HouseOut, ShopOut
from dolmetsch.server.batches.show.showing import show_house, show_shops
from dolmetsch.server.batches.verdict import schemas as out
from dolmetsch.server.batches.verdict.pace import Pace
from dolmetsch.server.quantities.printing import (
    per_kg,
    print_money,
    print_money_or_none,
    print_percent,
    print_price_of_gram,
    print_unit_cost,
    print_weight,
)
from dolmetsch.server.quantities.units import WeightUnit

GROUP_LABELS: Final = {
    "labour": "work",
    "credit": "credit for trim",
    "other": "other things used",
    "buying": "buying it",
}
#: What a shrink is called, by the kind of step: "lost in the smoke", or "gained" where weight came on.
SHRINK_PLACES: Final = {
    "trim": "in the trim",
    "cure": "in the cure",
    "rest": "in the rest",
    "smoke": "in the smoke",
    "chill": "in the chill",
    "slice": "in slicing",
    "mix": "in the mixing",
    "stuff": "in the stuffing",
    "ferment": "in the fermentation",
    "hang": "while hanging",
    "dry": "in the drying",
    "age": "in the aging",
    "cook": "in the cooking",
    "pump": "in the pumping",
    "pull": "in the pulling",
    "dice": "in the dicing",
    "steam": "in the steaming",
    "dry-age": "in the aging",
    "wash": "in the washing",
}
KEPT: Final = "10 % less kept when"
#: So many slabs are drawn where no wall is known.
SIZES_DRAWN: Final = 12
#: Fewer batches say too little of a year.
YEAR_FROM: Final = 3
NO_FORECAST: Final = (
    "No forecast can be made of this batch, so it is compared with the shop once it is finished."
)


def judge(
    costed: CostedBatch,
    pace: Pace,
    *,
    unit: WeightUnit,
    is_done: bool,
    ahead: Forecasted | None,
    spread: Spread | None = None,
) -> out.JudgedOut:
    """Everything the verdict shows of a costed batch, by the kitchen's ``unit``; one that is only tried
    has no ``spread``: it was never on a scale.

    Of a batch that is not done every comparison is of the forecast ``ahead``, and there is none without it.
    """
    record, sheet = costed.chain.batch, costed.sheet
    spread = spread or no_spread(sheet)
    house = show_house(costed, is_finished=is_done)
    shops = show_shops(costed, is_finished=is_done, ahead=() if ahead is None else ahead.shops)
    return out.JudgedOut(
        house=house,
        shops=shops,
        is_forecast=not is_done,
        expected=None if ahead is None else show_expected(ahead),
        spread=out.SpreadOut(
            is_known=spread.is_known,
            unit_cost=print_unit_cost(spread.cost_per_lb),
            portion=print_money_or_none(spread.portion),
            kept=None if spread.sliced_yield is None else print_percent(spread.sliced_yield),
            saved_on_batch=[print_money_or_none(saved) for saved in spread.saved_on_batch],
        ),
        bases=_show_bases(costed, spread, house, unit)
        if is_done
        else _forecast_bases(costed, ahead, house, unit),
        bill=_show_bill(costed),
        year=_show_year(pace, shops),
        size=_show_size(model_size(record, sheet, pace.work), pace, sheet.shop) if is_done else None,
    )


def show_expected(ahead: Forecasted) -> out.ExpectedOut:
    """What a finished pound is expected to cost, and what it is called."""
    price = ahead.outlook.price
    return out.ExpectedOut(
        stage=label_kind(ahead.steps[-1].kind).lower(),
        price=print_price_of_gram(price.middle),
        low=print_price_of_gram(price.low),
        high=print_price_of_gram(price.high),
        grams=print_weight(Fraction(ahead.outlook.grams.middle)),
    )


def _show_year(pace: Pace, shops: Sequence[ShopOut]) -> out.YearOut:
    """What the finished batches of the past year saved beside each of these packs, summed up, never
    scaled.
    """
    saved = [pace.saved.get(shop.name, (0, Fraction(0))) for shop in shops]
    return out.YearOut(
        batches=pace.finished,
        compared=[batches for batches, _ in saved],
        saved=[print_money(money) if batches >= YEAR_FROM else None for batches, money in saved],
    )


def _show_bases(costed: CostedBatch, spread: Spread, house: HouseOut, unit: WeightUnit) -> list[out.BasisOut]:
    final, shops = costed.sheet.final, costed.sheet.shop
    fry = costed.chain.batch.fry_yield
    cooked_spread = spread.cost_per_lb / fry if fry and spread.cost_per_lb is not None else None
    sliced = final.sliced
    prices: dict[out.BasisKey, tuple[Fraction | None, Fraction | None]] = {
        "pound": (_of(unit.price, final.cost_per_lb), _of(unit.price, spread.cost_per_lb)),
        "portion": (final.portion_served, spread.portion),
        "slice": (None if sliced is None else sliced.cost_per_slice, spread.cost_per_slice),
        "cooked": (_of(unit.price_cooked, final.cost_per_cooked_lb), _of(unit.price_cooked, cooked_spread)),
    }
    labels = _label_bases(house.stage, house.portion_label, unit)
    return [
        _basis(
            (key, *labels[key]),
            price=price,
            deviation=deviation,
            shops=[(shop.name, _shop_price(shop, key, unit)) for shop in shops],
        )
        for key, (price, deviation) in prices.items()
    ]


def _label_bases(stage: str, portion: str | None, unit: WeightUnit) -> dict[out.BasisKey, tuple[str, str]]:
    """Label of each basis, and what to record where it cannot be had."""
    return {
        "pound": (f"a {unit.word}, {stage}", "Nothing is left of this batch."),
        "portion": (
            f"a portion of {portion}" if portion else "a portion",
            "Say what a portion is; one in slices needs the slices counted, or what a slice weighs.",
        ),
        "slice": ("a slice", "Count the slices, or say in the method what one weighs."),
        "cooked": (f"{unit.cooked_word}, cooked", "Fry some, and weigh it before and after."),
    }


def _shop_price(shop: Comparison, key: out.BasisKey, unit: WeightUnit) -> Fraction | None:
    return {
        "pound": unit.price(shop.cost_per_lb),
        "portion": shop.portion,
        "slice": shop.cost_per_slice,
        "cooked": _of(unit.price_cooked, shop.cost_per_cooked_lb),
    }[key]


def _forecast_bases(
    costed: CostedBatch, ahead: Forecasted | None, house: HouseOut, unit: WeightUnit
) -> list[out.BasisOut]:
    """House and shop on each basis, by the forecast with its 80 % range."""
    stage = "finished" if ahead is None else label_kind(ahead.steps[-1].kind).lower()
    shown = []
    for key, (label, missing) in _label_bases(stage, house.portion_label, unit).items():
        expected = None if ahead is None else _expect(ahead, key, unit)
        rungs = [_forecast_rung(shop, key, expected, unit) for shop in costed.sheet.shop]
        shown.append(
            out.BasisOut(
                key=key,
                label=f"{label}, by the forecast",
                price=None if expected is None else print_money(Fraction(expected.middle)),
                low=None if expected is None else print_money(Fraction(expected.low)),
                high=None if expected is None else print_money(Fraction(expected.high)),
                shops=rungs,
                missing=None if expected is not None else NO_FORECAST if ahead is None else missing,
            )
        )
    return shown


def _expect(ahead: Forecasted, key: out.BasisKey, unit: WeightUnit) -> Estimate | None:
    """The forecast on one basis; the core gives it of a pound and of a cooked ounce."""
    expected = ahead.bases.get(key)
    if expected is None or key not in ("pound", "cooked"):
        return expected
    times = unit.price(Fraction(1)) if key == "pound" else unit.price_cooked(Fraction(16))
    return replace(expected, middle=expected.middle * float(times))


def _forecast_rung(
    shop: Comparison, key: out.BasisKey, expected: Estimate | None, unit: WeightUnit
) -> out.RungOut:
    theirs = _shop_price(shop, key, unit)
    chance = None if theirs is None or expected is None else expected.chance_below(float(theirs))
    saved = None if theirs is None or expected is None else theirs - Fraction(expected.middle)
    return out.RungOut(
        name=shop.name or "a pack",
        price=print_money_or_none(theirs),
        saved=print_money_or_none(saved),
        apart=chance is not None and not 1 - SURE_AT < chance < SURE_AT,
        chance=None if chance is None else round(100 * chance),
    )


def _of(convert: Callable[[Fraction], Fraction], per_lb: Fraction | None) -> Fraction | None:
    return None if per_lb is None else convert(per_lb)


def _basis(
    basis: tuple[out.BasisKey, str, str],
    *,
    price: Fraction | None,
    deviation: Fraction | None,
    shops: Sequence[tuple[str, Fraction | None]],
) -> out.BasisOut:
    """One basis: ``basis`` is its key, its label, and what to record where it cannot be had."""
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
    key, label, missing = basis
    return out.BasisOut(
        key=key,
        label=label,
        price=print_money_or_none(price),
        low=None if price is None else print_money(price - reach),
        high=None if price is None else print_money(price + reach),
        shops=rungs,
        missing=missing if price is None else None,
    )


def _show_bill(costed: CostedBatch) -> out.BillOut | None:
    sheet = costed.sheet
    parts = compute_parts(sheet)
    final = sheet.final
    if not parts or final.cost_per_lb is None:
        return None
    per_lb = apportion([part.per_lb for part in parts], places=2)
    of_kg = apportion([per_kg(part.per_lb) for part in parts], places=2)
    on_batch = apportion([part.on_batch for part in parts], places=2)
    portions = [part.per_portion for part in parts if part.per_portion is not None]
    per_portion = apportion(portions, places=2) if portions else [None] * len(parts)
    return out.BillOut(
        parts=[
            out.PartOut(
                sort=part.sort,
                name=part.name,
                label=_label_part(part),
                per_lb=per_lb[index],
                per_kg=of_kg[index],
                per_portion=per_portion[index],
                on_batch=on_batch[index],
                entries=entries_of(costed, part.steps),
            )
            for index, part in enumerate(parts)
        ],
        per_lb=print_money(final.cost_per_lb),
        per_kg=print_money(per_kg(final.cost_per_lb)),
        per_portion=print_money_or_none(final.portion),
        on_batch=print_money(final.cost),
    )


def _label_part(part: PricePart) -> str:
    if part.sort == "meat":
        return "meat as bought"
    if part.sort == "shrink":
        if part.name == "discard":
            return "thrown away"
        place = SHRINK_PLACES.get(part.name, f"in “{part.name}”" if part.name else "in a step")
        return f"{'lost' if part.per_lb >= 0 else 'gained'} {place}"
    return GROUP_LABELS.get(part.name, part.name)


def entries_of(costed: CostedBatch, steps: Sequence[int]) -> list[int]:
    """Ids of the entries behind steps (from 1); 0 stands for what was bought."""
    chain = costed.chain
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
    based_on = "start values of common practice, fitted to this batch"
    if work.is_own:
        based_on = f"your own {work.batches} finished batches"
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
        work=f"{fixed_part} minutes a batch and {slab_part} a slab, based on {based_on}",
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
    """What gets 10 % worse."""
    if lever.sort == "tag":
        return "meat costs 10 % more"
    if lever.sort == "minutes":
        return "10 % more work"
    if lever.sort == "group":
        name = GROUP_LABELS.get(lever.kind, lever.kind)
        return "10 % less credit for trim" if lever.kind == "credit" else f"{name} costs 10 % more"
    return f"{KEPT} {label_kind(lever.kind).lower() or 'in a step'}"
