"""All that is answered of a hanging piece: what the command prints and the chamber shows."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from dolmetsch.core.drying.drying_fit import DryingFit, fit_drying, forecast_dry
from dolmetsch.core.drying.drying_log import DryingLog, HookWeighing, kept_by
from dolmetsch.core.drying.fermentation import Fermentation, follow_fermentation
from dolmetsch.core.drying.rim import Rim, judge_rim
from dolmetsch.core.findings import Finding, question
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.moment import DAY_SECONDS
from dolmetsch.core.numbers.span import TimeForecast
from dolmetsch.core.reference.drying import HEAVIER_RATIO


@dataclass(frozen=True, slots=True, kw_only=True)
class FollowedDrying:
    """A hanging piece's answer; what does not apply is None.

    ``grams_at_target``: what still hangs, once it has lost its target. ``loss_per_day`` between the last two
    weighings, the green weight being the first.
    """

    loss_ratio: Fraction | None
    loss_per_day: Fraction | None
    grams_at_target: Fraction
    dry: TimeForecast
    fit: DryingFit | None
    fermentation: Fermentation | None
    rim: Rim | None
    warnings: tuple[Finding, ...]


def follow_drying(log: DryingLog, *, until: Fraction | None = None) -> FollowedDrying:
    """The answer to ``log`` as it was known at ``until``."""
    known = log if until is None else log.cut_at(until)
    fit = fit_drying(known)
    losses = [(known.hung_at, Fraction(0)), *((one.at, known.loss_at(one)) for one in known.weighings)]
    hangs = known.green * kept_by(known.cuts)
    return FollowedDrying(
        loss_ratio=losses[-1][1] if known.weighings else None,
        loss_per_day=_per_day(losses),
        grams_at_target=hangs * (1 - known.target_loss),
        dry=forecast_dry(known, fit),
        fit=fit,
        fermentation=follow_fermentation(known),
        rim=judge_rim(known),
        warnings=tuple(_list_heavier(known)),
    )


def _per_day(losses: list[tuple[Fraction, Fraction]]) -> Fraction | None:
    if len(losses) < 2:
        return None
    (start, first), (end, last) = losses[-2:]
    return (last - first) / (end - start) * DAY_SECONDS if end > start else None


def _list_heavier(log: DryingLog) -> Iterator[Finding]:
    before = HookWeighing(at=log.hung_at, grams=log.green)
    for index, one in enumerate(log.weighings):
        # a cut at the time of the first weighing was before it, whenever it was hung
        since = None if index == 0 else before.at
        cuts = (cut for cut in log.cuts if cut.at <= one.at and (since is None or cut.at > since))
        expected = before.grams * kept_by(cuts)
        if one.grams > expected * HEAVIER_RATIO:
            more = fixed((one.grams / expected - 1) * 100, 1)
            text = (
                f"weighings[{index}]: {fixed(one.grams, 0)} g is {more} % more than before"
                f" ({fixed(expected, 0)} g): kept as it is. Was it the same piece, and the same hook?"
            )
            yield question(f"weighings[{index}]", text)
        before = one
