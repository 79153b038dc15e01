"""Where the bill went: the price of a pound, a portion and the batch, in parts that add up.

Meat as bought costs p₀ a pound (paid and extras ÷ weight bought). Each step leaves fewer pounds to bear
the same meat: the cost of its shrink is the change of (meat and buying) ÷ weight of all living mains, so
that p₀ and all shrinks together make up what meat is of a final pound. The other groups stand as they are.
"""

from dataclasses import dataclass
from fractions import Fraction
from math import ceil
from typing import Final

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.ledger.batch import Batch
from dolmetsch.core.ledger.pieces import ZERO, Piece, grams_of
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.quantity import Price

#: What counts as meat: what was paid for it, and getting it.
MEAT_GROUPS: Final = ("meat", "buying")


@dataclass(frozen=True, slots=True, kw_only=True)
class PricePart:
    """A part of the final price. ``name``: "meat", a kind of step (for a shrink), or a group of cost.

    ``per_portion`` is None where a portion has no price. ``steps`` are those it comes from.
    """

    sort: str
    name: str
    per_lb: Fraction
    per_portion: Fraction | None
    on_batch: Fraction
    steps: tuple[int, ...] = ()


def compute_parts(sheet: Sheet) -> tuple[PricePart, ...]:
    """The parts of the final price, meat first; none where nothing is left to bear it."""
    final = sheet.final
    if not final.grams or final.cost_per_lb is None:
        return ()
    pounds = final.grams / GRAMS_PER_LB
    portions = None if final.portion is None or not final.cost else final.portion / final.cost

    def part(sort: str, name: str, per_lb: Fraction, steps: tuple[int, ...] = ()) -> PricePart:
        money = per_lb * pounds
        per_portion = None if portions is None else money * portions
        return PricePart(
            sort=sort, name=name, per_lb=per_lb, per_portion=per_portion, on_batch=money, steps=steps
        )

    price, shrinks = _shrinks(sheet)
    parts = [part("meat", "meat", price, (0,))]
    parts += [part("shrink", kind, change, steps) for kind, (change, steps) in shrinks.items() if change]
    parts += [
        part("group", group, money / pounds, steps_of(sheet, group))
        for group, money in final.groups.items()
        if group not in MEAT_GROUPS
    ]
    return tuple(parts)


def _shrinks(sheet: Sheet) -> tuple[Fraction, dict[str, tuple[Fraction, tuple[int, ...]]]]:
    """Price of a pound of meat as bought, and by kind of step what its shrink adds to it."""
    stages = sheet.ledger.stages
    first = stages[0].before if stages else sheet.ledger.mains
    price = before = meat_per_lb(first)
    found: dict[str, tuple[Fraction, tuple[int, ...]]] = {}
    for stage in stages:
        after = meat_per_lb(stage.after)
        change, steps = found.get(stage.kind, (ZERO, ()))
        found[stage.kind] = (change + after - before, (*steps, stage.step))
        before = after
    return price, found


def meat_per_lb(pieces: tuple[Piece, ...]) -> Fraction:
    """What meat, and buying it, is of a pound of ``pieces``; nothing where there are none."""
    grams = grams_of(pieces)
    meat = sum([piece.bill.group(group) for piece in pieces for group in MEAT_GROUPS], ZERO)
    return meat * GRAMS_PER_LB / grams if grams else ZERO


def steps_of(sheet: Sheet, group: str) -> tuple[int, ...]:
    """Steps that booked something in a group, or gave credit; 0 stands for what was bought."""
    bought = (0,) if group in MEAT_GROUPS else ()
    return bought + tuple(
        stage.step
        for stage in sheet.ledger.stages
        if stage.own.of.get(group) or (group == "credit" and stage.credits)
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Outlay:
    """What left the till for one thing beside what this batch is charged for it.

    A jar is paid once and charged by the gram: ``paid`` is for whole ``packs``. Without a pack size
    both are the same and ``packs`` is None.
    """

    what: str
    packs: int | None
    paid: Fraction
    charged: Fraction


def compute_outlay(batch: Batch) -> tuple[Outlay, ...]:
    """Outlay beside cost of everything used, same things at the same price together; meat first."""
    meat = sum([lot.paid + sum([extra.cost for extra in lot.extras], ZERO) for lot in batch.lots], ZERO)
    amounts: dict[tuple[str, Price], Fraction] = {}
    for step in batch.steps:
        for used in step.used:
            amounts[used.what, used.price] = amounts.get((used.what, used.price), ZERO) + used.amount
    lines = [Outlay(what="meat and buying it", packs=None, paid=meat, charged=meat)]
    for (what, price), amount in amounts.items():
        packs = ceil(amount / price.size) if price.is_pack else None
        charged = price.cost_of(amount)
        lines.append(
            Outlay(
                what=what,
                packs=packs,
                paid=charged if packs is None else packs * price.paid,
                charged=charged,
            )
        )
    return tuple(lines)
