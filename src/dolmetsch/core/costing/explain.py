"""Every figure's derivation: its inputs, the formula in words, and the entries they come from."""

from collections.abc import Iterator
from fractions import Fraction

from dolmetsch.core.costing.derivation import Derivation, Input
from dolmetsch.core.costing.explain_columns import explain_column, explain_parts, last_steps
from dolmetsch.core.costing.parts import steps_of
from dolmetsch.core.costing.sheet import Comparison, Sheet
from dolmetsch.core.costing.strip import Strip
from dolmetsch.core.ledger.batch import Batch
from dolmetsch.core.numbers.exact import GRAMS_PER_LB


def explain(batch: Batch, sheet: Sheet, strip: Strip) -> tuple[Derivation, ...]:
    """All figures of the sheet and of its strip that can be had, each with its derivation."""
    columns = [
        line for index, column in enumerate(strip.columns) for line in explain_column(sheet, column, index)
    ]
    return (
        *_of_bought(sheet),
        *_of_final(batch, sheet),
        *columns,
        *explain_parts(sheet),
        *_of_shop(batch, sheet),
    )


def _of_bought(sheet: Sheet) -> Iterator[Derivation]:
    final, bought = sheet.final, sheet.bought
    weight = Input(label="what is left", value=final.grams, unit="weight", steps=last_steps(sheet))
    yield Derivation(
        figure="bought",
        title="A pound as bought",
        formula="what was paid, extras included ÷ weight bought",
        inputs=(
            Input(label="paid, extras included", value=bought.cost, unit="money", steps=(0,)),
            Input(label="weight bought", value=bought.grams, unit="weight", steps=(0,)),
        ),
        value=bought.cost_per_lb,
        unit="unit_cost",
    )
    yield Derivation(
        figure="kept",
        title="Kept of what was bought",
        formula="what is left ÷ weight bought",
        inputs=(weight, Input(label="weight bought", value=bought.grams, unit="weight", steps=(0,))),
        value=final.sliced_yield_ratio,
        unit="ratio",
    )


def _of_final(batch: Batch, sheet: Sheet) -> Iterator[Derivation]:
    final = sheet.final
    every = tuple(range(len(sheet.ledger.stages) + 1))
    makers = last_steps(sheet)
    weight = Input(label="what is left", value=final.grams, unit="weight", steps=makers)
    if final.cost_per_lb is None:
        return
    yield Derivation(
        figure="cost_per_lb",
        title="A pound of what is left",
        formula="(everything paid and used − credit for trim) ÷ weight of what is left",
        inputs=(
            *(
                Input(label=group, value=money, unit="money", steps=steps_of(sheet, group))
                for group, money in final.groups.items()
            ),
            weight,
        ),
        value=final.cost_per_lb,
        unit="unit_cost",
    )
    yield Derivation(
        figure="cost",
        title="All that is left",
        formula="everything paid and used that it carries, group by group",
        inputs=tuple(
            Input(label=group, value=money, unit="money", steps=steps_of(sheet, group))
            for group, money in final.groups.items()
        ),
        value=final.cost,
        unit="money",
    )
    parts = (_of_slice(sheet, every), _of_cooked(batch, sheet), _of_portion(batch, sheet, makers))
    yield from (part for part in parts if part is not None)


def _of_slice(sheet: Sheet, every: tuple[int, ...]) -> Derivation | None:
    final = sheet.final
    if final.sliced is None:
        return None
    # where dice or ends were cut besides, a slice costs what the slices carry
    is_all = final.slices is not None
    label = "everything paid and used, minus the credit for trim" if is_all else "what the slices carry"
    carried = final.cost if is_all else final.sliced.cost
    count = Fraction(final.sliced.slices)
    return Derivation(
        figure="cost_per_slice",
        title="A slice",
        formula="cost of the slices ÷ slices",
        inputs=(
            Input(label=label, value=carried, unit="money", steps=every),
            Input(label="slices", value=count, unit="count", steps=last_steps(sheet)),
        ),
        value=final.sliced.cost_per_slice,
        unit="money",
    )


def _of_cooked(batch: Batch, sheet: Sheet) -> Derivation | None:
    final = sheet.final
    if final.cost_per_lb is None or final.cost_per_cooked_lb is None or batch.fry_yield is None:
        return None
    raw = Input(
        label="a pound of what is left", value=final.cost_per_lb, unit="unit_cost", steps=last_steps(sheet)
    )
    return Derivation(
        figure="cost_per_cooked_lb",
        title="A pound cooked",
        formula="price of a pound of what is left ÷ what is left of it after frying",
        inputs=(raw, Input(label="cooked ÷ raw", value=batch.fry_yield, unit="ratio")),
        value=final.cost_per_cooked_lb,
        unit="unit_cost",
    )


def _of_portion(batch: Batch, sheet: Sheet, makers: tuple[int, ...]) -> Derivation | None:
    final, portion = sheet.final, batch.portion
    if portion is None or final.portion_served is None:
        return None
    if portion.slices is not None and final.sliced is not None:
        formula = "price of a slice × slices of a portion"
        per = Input(label="a slice", value=final.sliced.cost_per_slice, unit="money", steps=makers)
        much = Input(label="slices of a portion", value=portion.slices, unit="plain")
    elif portion.grams is not None and final.cost_per_lb is not None:
        formula = "price of a pound of what is left × weight of a portion"
        per = Input(label="a pound of what is left", value=final.cost_per_lb, unit="unit_cost", steps=makers)
        much = Input(label="a portion", value=portion.grams, unit="weight")
    elif portion.cooked_grams is not None and final.cost_per_cooked_lb is not None:
        formula = "price of a pound cooked × cooked weight of a portion"
        per = Input(label="a pound cooked", value=final.cost_per_cooked_lb, unit="unit_cost", steps=makers)
        much = Input(label="a portion, cooked", value=portion.cooked_grams, unit="weight")
    else:
        return None
    return Derivation(
        figure="portion",
        title="A portion",
        formula=formula,
        inputs=(per, much),
        value=final.portion_served,
        unit="money",
    )


def _of_shop(batch: Batch, sheet: Sheet) -> Iterator[Derivation]:
    for index, (pack, shop) in enumerate(zip(batch.shop, sheet.shop, strict=True)):
        yield Derivation(
            figure="shop_per_lb",
            title=f"A pound of “{pack.name}”",
            formula="price of the pack ÷ its weight",
            inputs=(
                Input(label="price of the pack", value=pack.paid, unit="money"),
                Input(label="weight of the pack", value=pack.grams, unit="weight"),
            ),
            value=shop.cost_per_lb,
            unit="unit_cost",
            shop=index,
        )
        yield from _of_saving(sheet, shop, index)


def _of_saving(sheet: Sheet, shop: Comparison, index: int) -> Iterator[Derivation]:
    final = sheet.final
    theirs = Input(label=f"a pound of “{shop.name}”", value=shop.cost_per_lb, unit="unit_cost")
    if final.cost_per_lb is not None and shop.saved_on_batch is not None:
        yield Derivation(
            figure="saved_on_batch",
            title="Saved on the batch",
            formula="(shop's pound − house's pound) × weight of what is left",
            inputs=(
                theirs,
                Input(label="a pound of the house's", value=final.cost_per_lb, unit="unit_cost"),
                Input(label="what is left", value=final.grams, unit="weight", steps=last_steps(sheet)),
            ),
            value=shop.saved_on_batch,
            unit="money",
            shop=index,
        )
    if final.cost_per_lb is not None and shop.saved_per_lb is not None:
        yield Derivation(
            figure="saved_per_lb",
            title="Saved a pound",
            formula="shop's pound − house's pound; below zero the house costs more",
            inputs=(
                theirs,
                Input(label="a pound of the house's", value=final.cost_per_lb, unit="unit_cost"),
            ),
            value=shop.saved_per_lb,
            unit="unit_cost",
            shop=index,
        )
    served = final.portion_served
    if served is not None and shop.portion is not None and shop.saved_per_portion is not None:
        yield Derivation(
            figure="saved_per_portion",
            title="Saved a portion",
            formula="shop's portion − house's portion, of the same size",
            inputs=(
                Input(label=f"a portion of “{shop.name}”", value=shop.portion, unit="money"),
                Input(label="a portion of the house's", value=served, unit="money"),
            ),
            value=shop.saved_per_portion,
            unit="money",
            shop=index,
        )
    yield from _of_worth(sheet, shop, index)


def _of_worth(sheet: Sheet, shop: Comparison, index: int) -> Iterator[Derivation]:
    """Where it stops paying, and what an hour earned: both from what the shop asks for as much."""
    final = sheet.final
    worth = Input(
        label="what the shop asks for as much",
        value=shop.cost_per_lb * final.grams / GRAMS_PER_LB,
        unit="money",
    )
    if shop.break_even_paid_per_lb is not None:
        meat = final.groups.get("meat", Fraction(0))
        yield Derivation(
            figure="break_even",
            title="Where it stops paying",
            formula=(
                "price paid for a pound as bought × (what the shop asks for as much − everything but meat) "
                "÷ what meat is of the house's cost"
            ),
            inputs=(
                Input(
                    label="paid for a pound as bought",
                    value=sheet.bought.paid * GRAMS_PER_LB / sheet.bought.own_grams,
                    unit="unit_cost",
                    steps=(0,),
                ),
                worth,
                Input(label="everything but meat", value=final.cost - meat, unit="money"),
                Input(label="meat", value=meat, unit="money", steps=(0,)),
            ),
            value=shop.break_even_paid_per_lb,
            unit="unit_cost",
            shop=index,
        )
    if shop.earned_per_hour is not None:
        labour = final.groups.get("labour", Fraction(0))
        yield Derivation(
            figure="earned_per_hour",
            title="What an hour of this work earned",
            formula="(what the shop asks for as much − the house's cost without work) ÷ hours",
            inputs=(
                worth,
                Input(label="cost without work", value=final.cost - labour, unit="money"),
                Input(
                    label="hands-on minutes",
                    value=sheet.minutes,
                    unit="minutes",
                    steps=steps_of(sheet, "labour"),
                ),
            ),
            value=shop.earned_per_hour,
            unit="money",
            shop=index,
        )
