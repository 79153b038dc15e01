"""What cannot have happened: rule 6 of ``docs/ledger.md``. Each refusal names the step and the field."""

from fractions import Fraction
from typing import Final

from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.batch import LEDGER_GROUPS, Batch, ByProduct, Lot, Main, Split, Step
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.quantity import Price

#: Outputs of a split may outweigh what went in by so many hundredths (two scales, a wet board), no more.
OVERWEIGHT_PERCENT: Final = 101
WAYS_GONE: Final = {"split": "split", "merge": "merged", "discard": "thrown away"}


def refuse_no_weight(grams: Fraction, *, step: int | None = None, field: str) -> None:
    """A weight of nothing or below.

    Raises:
        LedgerError: ``no_weight``.
    """
    if grams.numerator <= 0:
        raise LedgerError("no_weight", step=step, field=field, text="a weight must be above zero")


def refuse_below_zero(value: Fraction, *, step: int | None = None, field: str) -> None:
    """Money, minutes or an amount below zero.

    Raises:
        LedgerError: ``negative``.
    """
    if value.numerator < 0:
        raise LedgerError("negative", step=step, field=field, text="cannot be below zero")


def refuse_impossible_terms(batch: Batch) -> None:
    """No lots, a wage below zero, a portion or a shop pack of nothing.

    Raises:
        LedgerError: with the field of the batch.
    """
    if not batch.lots:
        raise LedgerError("no_lots", field="lots", text="a batch begins with something bought")
    if batch.policy.labour_rate is not None:
        refuse_below_zero(batch.policy.labour_rate, field="policy.labour_rate")
    _refuse_nothing(batch.fry_yield, field="fry_yield")
    if batch.portion is not None:
        _refuse_nothing(batch.portion.slices, field="portion.slices")
        _refuse_nothing(batch.portion.grams, field="portion.weight")
        _refuse_nothing(batch.portion.cooked_grams, field="portion.cooked_weight")
    for index, pack in enumerate(batch.shop):
        refuse_below_zero(pack.paid, field=f"store[{index}].paid")
        refuse_no_weight(pack.grams, field=f"store[{index}].weight")
        _refuse_nothing(pack.fry_yield, field=f"store[{index}].fry_yield")


def _refuse_nothing(value: Fraction | None, *, field: str) -> None:
    if value is not None and value.numerator <= 0:
        raise LedgerError("no_weight", field=field, text="must be above zero")


def refuse_impossible_lot(lot: Lot, *, path: str, is_there: bool) -> None:
    """A mark used twice, no weight, or a price below zero.

    Raises:
        LedgerError: with the field below ``path``.
    """
    if is_there:
        raise LedgerError("same_mark", field=f"{path}.id", text=f"“{lot.id}” is there already")
    refuse_no_weight(lot.grams, field=f"{path}.weight")
    refuse_below_zero(lot.paid, field=f"{path}.paid")
    refuse_below_zero(lot.solution, field=f"{path}.solution")
    for position, extra in enumerate(lot.extras):
        refuse_below_zero(extra.cost, field=f"{path}.extras[{position}].cost")


def refuse_impossible_costs(number: int, step: Step) -> None:
    """Costs of a step that are below zero, of the ledger's own groups, or borne by a stranger.

    Raises:
        LedgerError: with the field of the step.
    """
    refuse_below_zero(step.minutes, step=number, field="minutes")
    refuse_below_zero(step.overhead, step=number, field="overhead")
    for index, used in enumerate(step.used):
        path = f"used[{index}]"
        # asked here first: almost nothing is refused, and a refusal's words take time
        if used.price.paid.numerator < 0 or used.amount.numerator < 0:
            refuse_below_zero(used.price.paid, step=number, field=f"{path}.price")
            refuse_below_zero(used.amount, step=number, field=f"{path}.amount")
        if used.group in LEDGER_GROUPS:
            text = f"“{used.group}” is booked by the ledger itself"
            raise LedgerError("ledger_group", step=number, field=f"{path}.group", text=text)
        if used.pieces:
            _refuse_strangers(number, step, path=f"{path}.pieces", pieces=used.pieces)


def _refuse_strangers(number: int, step: Step, *, path: str, pieces: tuple[str, ...]) -> None:
    for mark in pieces:
        if mark not in step.entering:
            text = f"“{mark}” does not enter this step"
            raise LedgerError("not_entering", step=number, field=path, text=text)
    if len(set(pieces)) < len(pieces):
        raise LedgerError("same_mark", step=number, field=path, text="a piece is named twice")


def refuse_missing(number: int, *, field: str, mark: str, gone: tuple[int, str] | None) -> None:
    """A piece that is not there: gone in an earlier step (its number and act), or never known.

    Raises:
        LedgerError: always.
    """
    if gone is None:
        raise LedgerError("unknown_piece", step=number, field=field, text=f"there is no piece “{mark}”")
    text = f"“{mark}” was {WAYS_GONE[gone[1]]} in step {gone[0]} and is gone"
    raise LedgerError("piece_gone", step=number, field=field, text=text)


def refuse_same_mark(number: int, *, field: str, mark: str) -> None:
    """A mark given a second time.

    Raises:
        LedgerError: always.
    """
    text = f"“{mark}” is there already; give each piece its own mark"
    raise LedgerError("same_mark", step=number, field=field, text=text)


def refuse_bad_main(main: Main, *, number: int, path: str) -> None:
    """A main without weight, or sliced into nothing.

    Raises:
        LedgerError: with the field below ``path``.
    """
    refuse_no_weight(main.grams, step=number, field=f"{path}.weight")
    if main.slices is not None and main.slices <= 0:
        raise LedgerError("zero", step=number, field=f"{path}.slices", text="at least one slice")


def refuse_bad_output(out: Main | ByProduct, *, number: int, path: str) -> None:
    """An output of a split without weight, sliced into nothing, or worth less than nothing.

    Raises:
        LedgerError: with the field below ``path``.
    """
    if isinstance(out, Main):
        refuse_bad_main(out, number=number, path=path)
        return
    refuse_no_weight(out.grams, step=number, field=f"{path}.weight")
    if isinstance(out.worth, Price):
        refuse_below_zero(out.worth.paid, step=number, field=f"{path}.worth")


def refuse_bad_split(split: Split, *, number: int, whole: int, together: int) -> None:
    """A split that leaves no main, or weighs out more than went in (both in the ledger's unit).

    Raises:
        LedgerError: ``no_main`` or ``overweight``.
    """
    if not any(isinstance(out, Main) for out in split.into):
        raise LedgerError("no_main", step=number, field="into", text="no piece is left to go on")
    if together * 100 > whole * OVERWEIGHT_PERCENT:
        over = fixed((Fraction(together, whole) - 1) * 100, 1)
        text = f"the pieces together weigh {over} % more than “{split.piece}” did; weigh again"
        raise LedgerError("overweight", step=number, field="into", text=text)
