"""Running the ledger: cost goes along the chain of weighings, exactly.

The rules are those of ``docs/ledger.md``, numbered alike: 1 cost follows weight, 2 split, 3 merge,
4 discard, 5 conservation, 6 refusals (``refusals``).
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field, replace
from fractions import Fraction
from math import gcd, lcm
from typing import Final

from dolmetsch.core.errors import LedgerError
from dolmetsch.core.findings import Finding, care
from dolmetsch.core.ledger.batch import (
    Batch,
    ByProduct,
    Discard,
    Lot,
    Main,
    Merge,
    Policy,
    Split,
    Step,
    Weigh,
)
from dolmetsch.core.ledger.bill import NOTHING, Bill, Line, added, shared_out, total_of
from dolmetsch.core.ledger.pieces import ZERO, Ledger, Piece, Stage, StepType
from dolmetsch.core.ledger.refusals import (
    refuse_bad_main,
    refuse_bad_output,
    refuse_bad_split,
    refuse_impossible_costs,
    refuse_impossible_lot,
    refuse_impossible_terms,
    refuse_missing,
    refuse_no_weight,
    refuse_same_mark,
)
from dolmetsch.core.ledger.strands import Strand, strands_together
from dolmetsch.core.numbers.exact import exact, fixed
from dolmetsch.core.numbers.quantity import Price

#: Where a step names the pieces that enter it, by its action.
FIELDS: Final = {Split: "split", Merge: "merge", Weigh: "weigh", Discard: "pieces"}
#: A weighing or merge that gains more than this percentage is allowed (brine, juice) and warned about.
GAIN_PERCENT_WARNED: Final = 125


@dataclass(slots=True)
class _Bench:
    """Where the pieces lie while the ledger runs.

    ``unit``: grams in the ledger's unit of weight, ``ratio`` the same as two integers; ``bought``: weight
    of all lots in it. ``gone``: step and act in which a piece went.
    """

    policy: Policy
    unit: Fraction
    ratio: tuple[int, int]
    bought: int = 0
    here: dict[str, Piece] = field(default_factory=dict)
    unopened: set[str] = field(default_factory=set)
    gone: dict[str, tuple[int, StepType]] = field(default_factory=dict)
    loss: Bill = NOTHING
    credit_cut: bool = False
    warnings: list[Finding] = field(default_factory=list)

    def mains(self) -> tuple[Piece, ...]:
        return tuple([piece for piece in self.here.values() if piece.is_main])

    def weight(self, grams: Fraction) -> int:
        whole, per = grams.as_integer_ratio()
        units, per_unit = self.ratio
        return whole * per_unit // (per * units)

    def warn(self, code: str, step: int, message: str, **params: str) -> None:
        self.warnings.append(care(code, message, subject=f"steps[{step}]", **params))

    def take(self, marks: Iterable[str], number: int, act: StepType) -> None:
        for mark in marks:
            del self.here[mark]
            self.gone[mark] = (number, act)


def run(batch: Batch) -> Ledger:
    """Run every step of ``batch`` in order.

    Raises:
        LedgerError: the first impossible entry, with its step and field; nothing is half-run.
        TypeError: for a binary float where an exact number belongs.
    """
    refuse_impossible_terms(batch)
    unit = _common_unit(batch)
    bench = _Bench(policy=batch.policy, unit=unit, ratio=unit.as_integer_ratio())
    for index, lot in enumerate(batch.lots):
        refuse_impossible_lot(lot, path=f"lots[{index}]", is_there=lot.id in bench.here)
        bench.here[lot.id] = Piece(
            id=lot.id,
            weight=bench.weight(lot.grams),
            unit=bench.unit,
            bill=bill_of_lot(lot),
            is_main=True,
            strands=(Strand(lot=lot.id, marks=frozenset({lot.id})),),
        )
        bench.bought += bench.here[lot.id].weight
        bench.unopened.add(lot.id)
    stages = []
    before = bench.mains()
    for number, step in enumerate(batch.steps, start=1):
        stages.append(_run_step(bench, number, step=step, before=before))
        before = stages[-1].after
    return Ledger(
        stages=tuple(stages),
        mains=before,
        by_products=tuple([piece for piece in bench.here.values() if not piece.is_main]),
        loss=bench.loss,
        credit_cut=bench.credit_cut,
        warnings=tuple(bench.warnings),
    )


def _common_unit(batch: Batch) -> Fraction:
    """The largest weight in grams of which every weight of the batch is a whole multiple."""
    whole, per = 0, 1
    for grams in _weights(batch):
        if type(grams) is not Fraction:
            exact(grams)
        mine, per_mine = grams.as_integer_ratio()
        whole = gcd(whole, mine)
        if per % per_mine:
            per = lcm(per, per_mine)
    return Fraction(whole, per) or Fraction(1)


def _weights(batch: Batch) -> Iterator[Fraction]:
    for lot in batch.lots:
        yield lot.grams
    for step in batch.steps:
        match step.action:
            case Split(into=outputs):
                yield from [out.grams for out in outputs]
            case Weigh(grams=grams):
                yield from grams.values()
            case Merge(into=main):
                yield main.grams


def bill_of_lot(lot: Lot) -> Bill:
    """What a lot costs before the first step: paid, the extras of buying, what it carried along."""
    lines: list[Line] = [("meat", exact(lot.paid).numerator, lot.paid.denominator)]
    lines += [("buying", extra.cost.numerator, extra.cost.denominator) for extra in lot.extras]
    lines += [(group, money.numerator, money.denominator) for group, money in lot.carried]
    return Bill.of_lines(lines)


def _run_step(bench: _Bench, number: int, *, step: Step, before: tuple[Piece, ...]) -> Stage:
    entered = _entering(bench, number, step)
    refuse_impossible_costs(number, step)
    if bench.unopened:
        bench.unopened.difference_update([piece.id for piece in entered])
    bills, own = _share_step_cost(bench.policy, step=step, entered=entered)
    weights = [piece.weight for piece in entered]
    if isinstance(step.action, Weigh):
        weights = _weigh(bench, number, pieces=entered, weigh=step.action)
    borne = [
        piece.through(step.kind, bill, weight, step.heated)
        for piece, bill, weight in zip(entered, bills, weights, strict=True)
    ]
    carried = ZERO
    made: list[Piece] = []
    act: StepType
    match step.action:
        case Split() as split:
            act = "split"
            made, carried = _split(bench, number, whole=borne[0], split=split)
        case Weigh():
            act = "weigh"
            made = borne
        case Merge() as merge:
            act = "merge"
            made = [_merge(bench, number, pieces=borne, merge=merge)]
        case Discard() as discard:
            act = "discard"
            _discard(bench, number, pieces=borne, discard=discard)
    for piece in made:
        bench.here[piece.id] = piece
    after = bench.mains()
    return Stage(
        step=number,
        kind=step.kind,
        act=act,
        before=before,
        after=after,
        bought=bench.bought,
        entered=tuple(entered),
        made=tuple(made),
        own=own,
        credits=carried,
    )


def _entering(bench: _Bench, number: int, step: Step) -> list[Piece]:
    name = FIELDS[type(step.action)]
    marks = step.entering
    if not marks:
        raise LedgerError("empty", step=number, field=name, text="no piece is named")
    if len(set(marks)) < len(marks):
        raise LedgerError("same_mark", step=number, field=name, text="a piece is named twice")
    for mark in marks:
        if mark not in bench.here:
            path = f"weigh.{mark}" if name == "weigh" else name
            refuse_missing(number, field=path, mark=mark, gone=bench.gone.get(mark))
    return [bench.here[mark] for mark in marks]


def _share_step_cost(policy: Policy, *, step: Step, entered: list[Piece]) -> tuple[list[Bill], Bill]:
    """Rule 1: the pieces' bills with their shares of the step's own cost, and that cost."""
    for_all, for_some = _lines_of(policy, step)
    own = Bill.of_lines(for_all) if for_all else NOTHING
    bills = [piece.bill for piece in entered]
    if for_all:
        bills = shared_out(bills, own, [piece.weight for piece in entered])
    for marks, line in for_some:
        part = Bill.of_lines([line])
        own = own.plus(part)
        bearing = sum([piece.weight for piece in entered if piece.id in marks])
        bills = [
            bill.plus(part.share(piece.weight, bearing)) if piece.id in marks else bill
            for bill, piece in zip(bills, entered, strict=True)
        ]
    return bills, own


def _lines_of(policy: Policy, step: Step) -> tuple[list[Line], list[tuple[tuple[str, ...], Line]]]:
    """The step's counted costs: those all its pieces bear, and those only some of them bear."""
    for_all: list[Line] = []
    for_some: list[tuple[tuple[str, ...], Line]] = []
    for used in step.used:
        cost, per = used.cost_parts
        if not cost or not policy.counts(used.group):
            continue
        if used.pieces:
            for_some.append((used.pieces, (used.group, cost, per)))
        else:
            for_all.append((used.group, cost, per))
    if step.minutes and policy.labour_rate:
        minutes, rate = exact(step.minutes), policy.labour_rate
        per_hours = minutes.denominator * rate.denominator * 60
        for_all.append(("labour", minutes.numerator * rate.numerator, per_hours))
    if step.overhead and policy.overhead:
        for_all.append(("overhead", exact(step.overhead).numerator, step.overhead.denominator))
    return for_all, for_some


def _weigh(bench: _Bench, number: int, *, pieces: list[Piece], weigh: Weigh) -> list[int]:
    """What the scale said of each piece, in the ledger's unit."""
    weighed = []
    for piece in pieces:
        grams = weigh.grams[piece.id]
        weight = bench.weight(grams)
        if weight <= 0:
            refuse_no_weight(grams, step=number, field=f"weigh.{piece.id}")
        if weight > piece.weight:
            _warn_of_gain(bench, number, mark=piece.id, before=piece.weight, after=weight)
        weighed.append(weight)
    return weighed


def _warn_of_gain(bench: _Bench, number: int, *, mark: str, before: int, after: int) -> None:
    if after * 100 > before * GAIN_PERCENT_WARNED:
        gain = fixed((Fraction(after, before) - 1) * 100, 0)
        said = f"“{mark}” gained {gain} % in step {number}; weighed with the tray?"
        bench.warn("gain", number, said, mark=mark, gain=gain)


def _merge(bench: _Bench, number: int, *, pieces: list[Piece], merge: Merge) -> Piece:
    """Rule 3: costs add; the merged weight is what the scale says."""
    into = merge.into
    _refuse_taken_mark(bench, number, mark=into.id, field="into.id")
    refuse_bad_main(into, number=number, path="into")
    weight = bench.weight(into.grams)
    bill = added([piece.bill for piece in pieces])
    _warn_of_gain(bench, number, mark=into.id, before=sum([p.weight for p in pieces]), after=weight)
    first, *others = pieces
    common = tuple(kind for kind in first.kinds if all(kind in piece.kinds for piece in others))
    bench.take([piece.id for piece in pieces], number, "merge")
    return Piece(
        id=into.id,
        weight=weight,
        unit=bench.unit,
        bill=bill,
        is_main=True,
        slices=into.slices,
        kinds=common,
        strands=strands_together(strand.then(mark=into.id) for piece in pieces for strand in piece.strands),
    )


def _discard(bench: _Bench, number: int, *, pieces: list[Piece], discard: Discard) -> None:
    """Rule 4: the cost goes to the other living mains by weight, or to the loss account."""
    bench.take([piece.id for piece in pieces], number, "discard")
    bill = added([piece.bill for piece in pieces])
    bearers = [piece for piece in bench.mains() if piece.id not in bench.unopened]
    if discard.charge == "loss" or not bearers:
        bench.loss = bench.loss.plus(bill)
        return
    together = sum([piece.weight for piece in bearers])
    for piece in bearers:
        share = bill.share(piece.weight, together)
        bench.here[piece.id] = replace(piece, bill=piece.bill.plus(share))


def _split(bench: _Bench, number: int, *, whole: Piece, split: Split) -> tuple[list[Piece], Fraction]:
    """Rule 2: by-products first, then the rest by weight out. Also gives what the credits carry."""
    weights = _split_weights(bench, number, whole=whole, split=split)
    credited = _credit_by_products(bench, number, whole=whole, split=split)
    carried = total_of(credited.values())
    left = (
        whole.bill.plus(Bill.of_lines([("credit", -carried.numerator, carried.denominator)]))
        if carried
        else whole.bill
    )
    sharing = sum([weight for out, weight in zip(split.into, weights, strict=True) if out.id not in credited])
    made = []
    for out, weight in zip(split.into, weights, strict=True):
        bill = credited[out.id] if out.id in credited else left.share(weight, sharing)
        if isinstance(out, Main):
            slices, name, material = out.slices, "", "lean"
        else:
            slices, name, material = None, out.name or out.id, out.material
        made.append(
            Piece(
                id=out.id,
                weight=weight,
                unit=bench.unit,
                bill=bill,
                is_main=isinstance(out, Main),
                slices=slices,
                name=name,
                material=material,
                kinds=whole.kinds,
                strands=tuple(strand.then(mark=out.id) for strand in whole.strands),
            )
        )
    bench.take([whole.id], number, "split")
    return made, carried


def _split_weights(bench: _Bench, number: int, *, whole: Piece, split: Split) -> list[int]:
    seen: set[str] = set()
    for index, out in enumerate(split.into):
        path = f"into[{index}]"
        if out.id in seen:
            refuse_same_mark(number, field=f"{path}.id", mark=out.id)
        _refuse_taken_mark(bench, number, mark=out.id, field=f"{path}.id")
        seen.add(out.id)
        refuse_bad_output(out, number=number, path=path)
    weights = [bench.weight(out.grams) for out in split.into]
    refuse_bad_split(split, number=number, whole=whole.weight, together=sum(weights))
    return weights


def _refuse_taken_mark(bench: _Bench, number: int, *, mark: str, field: str) -> None:
    if mark in bench.here or mark in bench.gone:
        refuse_same_mark(number, field=field, mark=mark)


def _credit_by_products(bench: _Bench, number: int, *, whole: Piece, split: Split) -> dict[str, Bill]:
    """What each unit-priced by-product carries; cut down in proportion where it exceeds the cost."""
    worths: dict[str, Fraction] = {}
    for out in split.into:
        if isinstance(out, ByProduct) and isinstance(out.worth, Price):
            counted = bench.policy.credit_by_products and out.worth.paid
            worths[out.id] = out.worth.cost_of(out.grams) if counted else ZERO
    wanted = sum(worths.values(), ZERO)
    if wanted and wanted > (available := whole.cost):
        said = f"what came off “{whole.id}” in step {number} is worth more than it cost; cut down to fit"
        bench.warn("credit_cut", number, said, mark=whole.id)
        bench.credit_cut = True
        worths = {mark: credit * available / wanted for mark, credit in worths.items()}
    return {
        mark: Bill({"credit": credit.numerator}, credit.denominator) if credit else NOTHING
        for mark, credit in worths.items()
    }
