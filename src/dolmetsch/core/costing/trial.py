"""What if: the same batch with something changed, the record untouched.

A changed yield scales the mains of its kind of step, and everything that comes of them; what comes off in
that step, and what is lost in it, shrinks or grows to fill the rest.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction
from typing import Final

from dolmetsch.core.costing.sheet import Sheet, compute_sheet
from dolmetsch.core.ledger.batch import (
    AS_MAIN,
    Action,
    Batch,
    ByProduct,
    Discard,
    Main,
    Merge,
    Portion,
    Split,
    Step,
    Weigh,
)
from dolmetsch.core.ledger.pieces import ZERO
from dolmetsch.core.numbers.exact import GRAMS_PER_LB

#: The size of change by which levers are compared.
TENTH: Final = Fraction(1, 10)
#: Of a cut that leaves something off, no more than this stays on.
MOST_KEPT: Final = Fraction(999, 1000)


@dataclass(frozen=True, slots=True, kw_only=True)
class Changes:
    """What is tried. None, or a kind that is not named: as it was.

    Attributes:
        tag_per_lb: paid for a pound as purchased, extras apart.
        yields: kept of each kind of step, mains out ÷ pieces in, above 0.
        minutes: hands-on minutes on the whole batch.
        portion: what is served.
        shop_paid: what the shop asks for a pack, by the pack's position.
        is_lost: what is no longer kept of a cut is lost, with what is valued like the meat; else it comes off
            like the rest, with its worth.
    """

    tag_per_lb: Fraction | None = None
    yields: Mapping[str, Fraction] = field(default_factory=dict)
    minutes: Fraction | None = None
    portion: Portion | None = None
    shop_paid: Mapping[int, Fraction] = field(default_factory=dict)
    is_lost: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Lever:
    """How much the price of a final pound changes if one thing gets ten percent worse.

    ``sort``: tag, yield, minutes or group; ``kind``: of step for a yield, the group's name for a group
    (of "credit": what came off is worth a tenth less). ``change``: money a pound, up is dearer.
    """

    sort: str
    kind: str
    change: Fraction


def yields_by_kind(sheet: Sheet) -> dict[str, Fraction]:
    """Mains out ÷ pieces in of every kind of step that weighs, in the order of the work."""
    grams: dict[str, list[Fraction]] = {}
    for stage in sheet.ledger.stages:
        if stage.act != "discard":
            pair = grams.setdefault(stage.kind, [ZERO, ZERO])
            pair[0] += stage.own_main_grams_out
            pair[1] += stage.own_grams_in
    return {kind: out / into for kind, (out, into) in grams.items() if out}


def tag_per_lb(batch: Batch) -> Fraction:
    """What was paid for a pound as purchased, extras apart."""
    return sum([lot.paid for lot in batch.lots], ZERO) * GRAMS_PER_LB / sum([lot.grams for lot in batch.lots])


def apply_changes(batch: Batch, sheet: Sheet, changes: Changes) -> Batch:
    """``batch`` with ``changes``; ``sheet`` is that of ``batch``."""
    tried = batch
    now = tag_per_lb(batch)
    if changes.tag_per_lb is not None and now:
        factor = changes.tag_per_lb / now
        tried = replace(tried, lots=tuple(replace(lot, paid=lot.paid * factor) for lot in tried.lots))
    if changes.yields:
        tried = replace(tried, steps=_with_yields(tried, sheet, changes))
    if changes.minutes is not None:
        tried = replace(tried, steps=_with_minutes(tried.steps, sheet.minutes, changes.minutes))
    if changes.portion is not None:
        tried = replace(tried, portion=changes.portion)
    if changes.shop_paid:
        shop = [
            replace(pack, paid=changes.shop_paid.get(index, pack.paid))
            for index, pack in enumerate(tried.shop)
        ]
        tried = replace(tried, shop=tuple(shop))
    return tried


def rank_levers(batch: Batch, sheet: Sheet) -> tuple[Lever, ...]:
    """Each lever ten percent worse, the one that moves the price of a final pound most first.

    A tenth less kept is a tenth lost: credited as trim it would look like a gain wherever trim is worth more
    than the meat.
    """
    price = sheet.final.cost_per_lb
    if price is None:
        return ()
    tries: list[tuple[str, str, Changes]] = []
    if tag := tag_per_lb(batch):
        tries.append(("tag", "", Changes(tag_per_lb=tag * (1 + TENTH))))
    for kind, kept in yields_by_kind(sheet).items():
        tries.append(("yield", kind, Changes(yields={kind: kept * (1 - TENTH)}, is_lost=True)))
    if sheet.minutes and batch.policy.labour_rate:
        tries.append(("minutes", "", Changes(minutes=sheet.minutes * (1 + TENTH))))
    levers = []
    for sort, kind, changes in tries:
        after = compute_sheet(apply_changes(batch, sheet, changes)).final.cost_per_lb
        if after is not None:
            levers.append(Lever(sort=sort, kind=kind, change=after - price))
    pounds = sheet.final.grams / GRAMS_PER_LB
    levers += [
        Lever(sort="group", kind=group, change=abs(money) * TENTH / pounds)
        for group, money in sheet.final.groups.items()
        if group not in ("meat", "labour")
    ]
    return tuple(sorted(levers, key=lambda lever: -abs(lever.change)))


def _with_minutes(steps: tuple[Step, ...], was: Fraction, now: Fraction) -> tuple[Step, ...]:
    if was:
        return tuple(replace(step, minutes=step.minutes * now / was) for step in steps)
    first, *rest = steps or (None,)
    return steps if first is None else (replace(first, minutes=now), *[step for step in rest if step])


def _with_yields(batch: Batch, sheet: Sheet, changes: Changes) -> tuple[Step, ...]:
    were = yields_by_kind(sheet)
    factors = {kind: kept / were[kind] for kind, kept in changes.yields.items() if kind in were}
    grown: dict[str, Fraction] = {}
    grams = {lot.id: lot.grams for lot in batch.lots}
    steps = []
    for step in batch.steps:
        factor = factors.get(step.kind, Fraction(1))
        action = _grow(step.action, factor, grown=grown, grams=grams, is_lost=changes.is_lost)
        steps.append(replace(step, action=action))
    return tuple(steps)


def _grow(
    action: Action,
    factor: Fraction,
    *,
    grown: dict[str, Fraction],
    grams: dict[str, Fraction],
    is_lost: bool,
) -> Action:
    """The action with its weights as they would be. ``grown``: by what each piece has grown so far;
    ``grams``: what each piece weighed in the record; ``is_lost``: see ``Changes``.
    """
    match action:
        case Split():
            return _grow_split(action, factor, grown=grown, grams=grams, is_lost=is_lost)
        case Weigh():
            tried = {
                mark: weight * grown.get(mark, Fraction(1)) * factor for mark, weight in action.grams.items()
            }
            for mark, weight in action.grams.items():
                grown[mark], grams[mark] = grown.get(mark, Fraction(1)) * factor, weight
            return Weigh(grams=tried)
        case Merge(into=into):
            were = sum([grams[mark] for mark in action.pieces], ZERO)
            now = sum([grams[mark] * grown.get(mark, Fraction(1)) for mark in action.pieces], ZERO)
            grown[into.id], grams[into.id] = now / were * factor, into.grams
            return replace(action, into=_main_grown(into, grown[into.id]))
        case Discard():
            return action


def _grow_split(
    split: Split,
    factor: Fraction,
    *,
    grown: dict[str, Fraction],
    grams: dict[str, Fraction],
    is_lost: bool,
) -> Split:
    whole = grams[split.piece]
    kept = sum([out.grams for out in split.into if isinstance(out, Main)], ZERO) / whole
    comes_off = any(isinstance(out, ByProduct) for out in split.into)
    most = max(kept, MOST_KEPT if comes_off else Fraction(1))
    tried = min(kept * factor, most)
    of_whole = grown.get(split.piece, Fraction(1))
    rest = (1 - tried) / (1 - kept) if kept < 1 and factor != 1 else Fraction(1)
    into: list[Main | ByProduct] = []
    for out in split.into:
        if isinstance(out, Main) or (is_lost and out.worth is AS_MAIN):
            by = tried / kept
        else:
            by = Fraction(1) if is_lost else rest
        grown[out.id] = of_whole * by
        grams[out.id] = out.grams
        if isinstance(out, Main):
            into.append(_main_grown(out, grown[out.id]))
        else:
            into.append(replace(out, grams=out.grams * grown[out.id]))
    return replace(split, into=tuple(into))


def _main_grown(main: Main, by: Fraction) -> Main:
    slices = None if main.slices is None else main.slices * by
    return replace(main, grams=main.grams * by, slices=slices)
