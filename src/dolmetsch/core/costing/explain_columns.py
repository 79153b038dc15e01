"""Derivations of the strip's columns and of the bill's parts."""

from collections.abc import Iterator
from fractions import Fraction

from dolmetsch.core.costing.derivation import Derivation, Input
from dolmetsch.core.costing.parts import compute_parts, meat_per_lb
from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.costing.strip import Column
from dolmetsch.core.ledger.bill import added
from dolmetsch.core.ledger.pieces import per_lb_of
from dolmetsch.core.numbers.exact import GRAMS_PER_LB


def explain_column(sheet: Sheet, column: Column, index: int) -> Iterator[Derivation]:
    """Price after it, kept of its own pieces, spent in it: ``column_0_price`` and so on."""
    stages = [sheet.ledger.stages[step - 1] for step in column.steps]
    if not stages:
        return
    before = per_lb_of(stages[0].before)
    if column.cost_per_lb is not None and before is not None:
        yield Derivation(
            figure=f"column_{index}_price",
            title="A pound after this step",
            formula=(
                "(price before × weight before + spent − credit for trim) ÷ weight after; a piece split off "
                "or thrown away takes its share of the cost with it"
            ),
            inputs=(
                Input(label="a pound before it", value=before, unit="unit_cost"),
                Input(label="weight before it", value=column.grams_in, unit="weight"),
                Input(label="spent", value=column.spent, unit="money", steps=column.steps),
                Input(label="credit for trim", value=column.worth_back, unit="money", steps=column.steps),
                Input(label="weight after it", value=column.grams_out, unit="weight", steps=column.steps),
            ),
            value=column.cost_per_lb,
            unit="unit_cost",
        )
    if column.kept_of_step_ratio is not None:
        weighed = [stage for stage in stages if stage.act != "discard"]
        out = sum([stage.own_main_grams_out for stage in weighed], Fraction(0))
        into = sum([stage.own_grams_in for stage in weighed], Fraction(0))
        yield Derivation(
            figure=f"column_{index}_kept",
            title="Kept of this step",
            formula="weight of its pieces that go on ÷ weight of its pieces before",
            inputs=(
                Input(label="that go on", value=out, unit="weight", steps=column.steps),
                Input(label="before", value=into, unit="weight", steps=column.steps),
            ),
            value=column.kept_of_step_ratio,
            unit="ratio",
        )
    if column.spent:
        own = added([stage.own for stage in stages])
        yield Derivation(
            figure=f"column_{index}_spent",
            title="Spent in this step",
            formula="what was used × its price, and work by the hour, as the policy counts them",
            inputs=tuple(
                Input(label=group, value=money, unit="money", steps=column.steps)
                for group, money in own.costs.items()
            ),
            value=column.spent,
            unit="money",
        )


def explain_parts(sheet: Sheet) -> Iterator[Derivation]:
    """The parts of the bill, a pound: ``part_meat_meat``, ``part_shrink_smoke``, ``part_group_fuel``, …"""
    final = sheet.final
    for part in compute_parts(sheet):
        name = f"part_{part.sort}_{part.name}"
        if part.sort == "shrink":
            stages = [sheet.ledger.stages[step - 1] for step in part.steps]
            yield Derivation(
                figure=name,
                title="What shrink in this step costs",
                formula="price of a pound of meat after it − before it: fewer pounds carry the same cost",
                inputs=tuple(
                    Input(label=f"a pound of meat {word}", value=price, unit="unit_cost", steps=(stage.step,))
                    for stage in stages
                    for word, price in (
                        ("before", meat_per_lb(stage.before)),
                        ("after", meat_per_lb(stage.after)),
                    )
                ),
                value=part.per_lb,
                unit="unit_cost",
            )
        elif part.sort == "group":
            yield Derivation(
                figure=name,
                title="A part of the bill",
                formula="what of it the final pieces carry ÷ their weight",
                inputs=(
                    Input(label=part.name, value=part.on_batch, unit="money", steps=part.steps),
                    Input(label="what is left", value=final.grams, unit="weight", steps=last_steps(sheet)),
                ),
                value=part.per_lb,
                unit="unit_cost",
            )
        else:
            yield Derivation(
                figure=name,
                title="Meat as bought",
                formula="paid for the meat, extras included ÷ weight bought",
                inputs=(
                    Input(label="weight bought", value=sheet.bought.grams, unit="weight", steps=(0,)),
                    Input(
                        label="paid for meat",
                        value=part.per_lb * sheet.bought.grams / GRAMS_PER_LB,
                        unit="money",
                        steps=(0,),
                    ),
                ),
                value=part.per_lb,
                unit="unit_cost",
            )


def last_steps(sheet: Sheet) -> tuple[int, ...]:
    """The steps that weighed what is left: of each final main the last."""
    last: dict[str, int] = {}
    for stage in sheet.ledger.stages:
        last.update((piece.id, stage.step) for piece in stage.made)
    return tuple(sorted({last.get(main.id, 0) for main in sheet.ledger.mains}))
