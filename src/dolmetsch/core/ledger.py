"""Running the ledger: cost goes along the chain of weighings, exactly.

The rules are those of ``docs/ledger.md``, numbered alike: 1 cost follows weight, 2 split,
5 conservation, 6 refusals.
"""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from fractions import Fraction
from typing import Final

from dolmetsch.core.batch import LEDGER_GROUPS, Batch, ByProduct, Lot, Main, Policy, Split, Step, Used, Weigh
from dolmetsch.core.errors import LedgerError
from dolmetsch.core.exact import exact, fixed
from dolmetsch.core.quantity import Price

#: Outputs of a split may outweigh what went in by this ratio (two scales, a wet board), no more.
OVERWEIGHT_RATIO: Final = Fraction(101, 100)
#: A weighing that gains more than this is allowed (brine, juice) and warned about.
GAIN_RATIO_WARNED: Final = Fraction(125, 100)
ZERO: Final = Fraction(0)

Costs = dict[str, Fraction]


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """A piece as it stands: grams, and its cost by group (money, exact).

    ``name`` and ``material`` say what a by-product is; several may share a name, never an id.
    ``kinds`` are the kinds of step it has been through, its forebears' included, in order.
    """

    id: str
    grams: Fraction
    costs: Costs
    is_main: bool
    slices: int | None = None
    name: str = ""
    material: str = "lean"
    kinds: tuple[str, ...] = ()

    @property
    def cost(self) -> Fraction:
        """Everything this piece carries."""
        return sum(self.costs.values(), ZERO)


@dataclass(frozen=True, slots=True, kw_only=True)
class Stage:
    """What one step did. Weights and price are over all living mains, before and after it.

    Attributes:
        step: counted from 1.
        kind: the step's own word.
        grams_in, grams_out: living mains before and after.
        own_grams_in, own_main_grams_out: the step's own pieces entering, and mains leaving it.
        lost_grams: what entered the step and was not weighed out of it; negative for a gain.
        cost_added: the step's own cost, as the policy counts it.
        credits: what its unit-priced by-products carry.
        cost_out: cost of the living mains after it.
        cut_off: the by-products it made.
        pieces_in, pieces_out: ids entering, and mains leaving.
    """

    step: int
    kind: str
    grams_in: Fraction
    grams_out: Fraction
    own_grams_in: Fraction
    own_main_grams_out: Fraction
    lost_grams: Fraction
    cost_added: Fraction
    credits: Fraction
    cost_out: Fraction
    cut_off: tuple[Piece, ...]
    pieces_in: tuple[str, ...]
    pieces_out: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Warned:
    """Something allowed but worth saying. ``step`` counted from 1."""

    code: str
    step: int
    message: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Ledger:
    """The run chain: its stages, what lives at the end (mains), what was cut off and kept."""

    stages: tuple[Stage, ...]
    mains: tuple[Piece, ...]
    by_products: tuple[Piece, ...]
    warnings: tuple[Warned, ...]


@dataclass(slots=True)
class _Bench:
    """Where the pieces lie while the ledger runs."""

    policy: Policy
    here: dict[str, Piece] = field(default_factory=dict)
    gone: dict[str, int] = field(default_factory=dict)
    warnings: list[Warned] = field(default_factory=list)

    def mains(self) -> list[Piece]:
        return [piece for piece in self.here.values() if piece.is_main]


def run(batch: Batch) -> Ledger:
    """Run every step of ``batch`` in order.

    Raises:
        LedgerError: the first impossible entry, with its step and field; nothing is half-run.
    """
    bench = _Bench(policy=batch.policy)
    _open_lots(bench, batch.lots)
    stages = [_run_step(bench, number, step) for number, step in enumerate(batch.steps, start=1)]
    return Ledger(
        stages=tuple(stages),
        mains=tuple(bench.mains()),
        by_products=tuple(piece for piece in bench.here.values() if not piece.is_main),
        warnings=tuple(bench.warnings),
    )


def _open_lots(bench: _Bench, lots: tuple[Lot, ...]) -> None:
    if not lots:
        raise LedgerError("no_lots", field="lots", told="a batch begins with something bought")
    for index, lot in enumerate(lots):
        place = f"lots[{index}]"
        if lot.id in bench.here:
            raise LedgerError("same_mark", field=f"{place}.id", told=f"“{lot.id}” is there already")
        _refuse_no_weight(lot.grams, step=None, field=f"{place}.weight")
        _refuse_below_zero(lot.paid, step=None, field=f"{place}.paid")
        costs = {"meat": lot.paid}
        for position, extra in enumerate(lot.extras):
            _refuse_below_zero(extra.cost, step=None, field=f"{place}.extras[{position}].cost")
            costs["buying"] = costs.get("buying", ZERO) + extra.cost
        bench.here[lot.id] = Piece(id=lot.id, grams=lot.grams, costs=costs, is_main=True)


def _run_step(bench: _Bench, number: int, step: Step) -> Stage:
    grams_in = sum((piece.grams for piece in bench.mains()), ZERO)
    entering = _take_entering(bench, number, step)
    own_in = sum((piece.grams for piece in entering), ZERO)
    borne, cost_added = _share_step_cost(bench.policy, number, step=step, entering=entering)
    if isinstance(step.action, Split):
        outputs, credited = _split(bench, number, whole=borne[0], split=step.action)
    else:
        outputs, credited = _weigh(bench, number, pieces=borne, weigh=step.action), ZERO
    bench.here.update((piece.id, piece) for piece in outputs)
    mains = bench.mains()
    own_mains_out = [piece for piece in outputs if piece.is_main]
    return Stage(
        step=number,
        kind=step.kind,
        grams_in=grams_in,
        grams_out=sum((piece.grams for piece in mains), ZERO),
        own_grams_in=own_in,
        own_main_grams_out=sum((piece.grams for piece in own_mains_out), ZERO),
        lost_grams=own_in - sum((piece.grams for piece in outputs), ZERO),
        cost_added=cost_added,
        credits=credited,
        cost_out=sum((piece.cost for piece in mains), ZERO),
        cut_off=tuple(p for p in outputs if not p.is_main) if isinstance(step.action, Split) else (),
        pieces_in=step.entering,
        pieces_out=tuple(piece.id for piece in own_mains_out),
    )


def _take_entering(bench: _Bench, number: int, step: Step) -> list[Piece]:
    if not step.entering:
        raise LedgerError("empty", step=number, field="weigh", told="no piece is named")
    for mark in step.entering:
        named = "split" if isinstance(step.action, Split) else f"weigh.{mark}"
        if mark in bench.gone:
            told = f"“{mark}” was split in step {bench.gone[mark]} and is gone"
            raise LedgerError("piece_gone", step=number, field=named, told=told)
        if mark not in bench.here:
            raise LedgerError("unknown_piece", step=number, field=named, told=f"there is no piece “{mark}”")
    return [bench.here[mark] for mark in step.entering]


def _share_step_cost(
    policy: Policy, number: int, *, step: Step, entering: list[Piece]
) -> tuple[list[Piece], Fraction]:
    """Rule 1: the pieces with their shares of the step's own cost, and that cost."""
    everyone = tuple(piece.id for piece in entering)
    lines = [(used.group, used.cost, used.pieces or everyone) for used in _checked_used(number, step)]
    for name, value in (("minutes", step.minutes), ("overhead", step.overhead)):
        _refuse_below_zero(value, step=number, field=name)
    if policy.labour_rate is not None:
        lines.append(("labour", step.minutes * policy.labour_rate / 60, everyone))
    lines.append(("overhead", step.overhead, everyone))
    counted = [line for line in lines if line[1] and policy.counts(line[0])]
    borne = {piece.id: dict(piece.costs) for piece in entering}
    grams = {piece.id: piece.grams for piece in entering}
    for group, cost, bearers in counted:
        together = sum((grams[mark] for mark in bearers), ZERO)
        for mark in bearers:
            borne[mark][group] = borne[mark].get(group, ZERO) + cost * grams[mark] / together
    pieces = [replace(piece, costs=borne[piece.id], kinds=(*piece.kinds, step.kind)) for piece in entering]
    return pieces, sum((cost for _, cost, _ in counted), ZERO)


def _checked_used(number: int, step: Step) -> Iterable[Used]:
    for index, used in enumerate(step.used):
        place = f"used[{index}]"
        _refuse_below_zero(used.price.paid, step=number, field=f"{place}.price")
        _refuse_below_zero(used.amount, step=number, field=f"{place}.amount")
        if used.group in LEDGER_GROUPS:
            told = f"“{used.group}” is booked by the ledger itself"
            raise LedgerError("ledger_group", step=number, field=f"{place}.group", told=told)
        for mark in used.pieces:
            if mark not in step.entering:
                told = f"“{mark}” does not enter this step"
                raise LedgerError("not_entering", step=number, field=f"{place}.pieces", told=told)
        if len(set(used.pieces)) < len(used.pieces):
            raise LedgerError(
                "same_mark", step=number, field=f"{place}.pieces", told="a piece is named twice"
            )
        yield used


def _weigh(bench: _Bench, number: int, *, pieces: list[Piece], weigh: Weigh) -> list[Piece]:
    weighed = []
    for piece in pieces:
        grams = weigh.grams[piece.id]
        _refuse_no_weight(grams, step=number, field=f"weigh.{piece.id}")
        if grams > piece.grams * GAIN_RATIO_WARNED:
            gain = fixed((grams / piece.grams - 1) * 100, 0)
            said = f"“{piece.id}” gained {gain} % in step {number}; weighed with the tray?"
            bench.warnings.append(Warned(code="gain", step=number, message=said))
        weighed.append(replace(piece, grams=grams))
    return weighed


def _split(bench: _Bench, number: int, *, whole: Piece, split: Split) -> tuple[list[Piece], Fraction]:
    """Rule 2: by-products first by their worth, the rest by weight out among the mains."""
    _refuse_impossible_split(bench, number, whole=whole, split=split)
    worths = _credit_by_products(bench, number, whole=whole, split=split)
    carried = sum(worths.values(), ZERO)
    left = dict(whole.costs)
    if carried:
        left["credit"] = left.get("credit", ZERO) - carried
    sharing = sum((out.grams for out in split.into if out.id not in worths), ZERO)
    outputs = []
    for out in split.into:
        if out.id in worths:
            costs = {"credit": worths[out.id]} if worths[out.id] else {}
        else:
            costs = {group: cost * out.grams / sharing for group, cost in left.items()}
        outputs.append(_made(out, costs, whole.kinds))
    del bench.here[whole.id]
    bench.gone[whole.id] = number
    return outputs, carried


def _made(out: Main | ByProduct, costs: Costs, kinds: tuple[str, ...]) -> Piece:
    if isinstance(out, Main):
        return Piece(id=out.id, grams=out.grams, costs=costs, is_main=True, slices=out.slices, kinds=kinds)
    return Piece(
        id=out.id,
        grams=out.grams,
        costs=costs,
        is_main=False,
        name=out.name or out.id,
        material=out.material,
        kinds=kinds,
    )


def _credit_by_products(bench: _Bench, number: int, *, whole: Piece, split: Split) -> dict[str, Fraction]:
    """What each unit-priced by-product carries; cut down in proportion where it exceeds the cost."""
    worths = {}
    for out in split.into:
        if isinstance(out, ByProduct) and isinstance(out.worth, Price):
            worths[out.id] = out.worth.cost_of(out.grams) if bench.policy.credit_by_products else ZERO
    wanted, available = sum(worths.values(), ZERO), whole.cost
    if wanted > available:
        said = f"what came off “{whole.id}” in step {number} is worth more than it cost; cut down to fit"
        bench.warnings.append(Warned(code="credit_cut", step=number, message=said))
        worths = {mark: credit * available / wanted for mark, credit in worths.items()}
    return worths


def _refuse_impossible_split(bench: _Bench, number: int, *, whole: Piece, split: Split) -> None:
    if not any(isinstance(out, Main) for out in split.into):
        raise LedgerError("no_main", step=number, field="into", told="no piece is left to go on")
    seen = {*bench.here, *bench.gone}
    for index, out in enumerate(split.into):
        place = f"into[{index}]"
        if out.id in seen:
            told = f"“{out.id}” is there already; give each piece its own mark"
            raise LedgerError("same_mark", step=number, field=f"{place}.id", told=told)
        seen.add(out.id)
        _refuse_no_weight(out.grams, step=number, field=f"{place}.weight")
        if isinstance(out, Main) and out.slices is not None and out.slices < 1:
            raise LedgerError("zero", step=number, field=f"{place}.slices", told="at least one slice")
        if isinstance(out, ByProduct) and isinstance(out.worth, Price):
            _refuse_below_zero(out.worth.paid, step=number, field=f"{place}.worth")
    together = sum((out.grams for out in split.into), ZERO)
    if together > whole.grams * OVERWEIGHT_RATIO:
        over = fixed((together / whole.grams - 1) * 100, 1)
        told = f"the pieces together weigh {over} % more than “{whole.id}” did; weigh again"
        raise LedgerError("overweight", step=number, field="into", told=told)


def _refuse_no_weight(grams: Fraction, *, step: int | None, field: str) -> None:
    if exact(grams) <= 0:
        raise LedgerError("no_weight", step=step, field=field, told="a weight must be above zero")


def _refuse_below_zero(value: Fraction, *, step: int | None, field: str) -> None:
    if exact(value) < 0:
        raise LedgerError("negative", step=step, field=field, told="cannot be below zero")
