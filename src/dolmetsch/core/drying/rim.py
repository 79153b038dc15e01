"""Whether a hard rim is closing a piece: it loses far less than it should while the air is dry."""

from dataclasses import replace
from fractions import Fraction
from typing import Literal

from dolmetsch.core.drying.drying_fit import days_hung, fit_drying
from dolmetsch.core.drying.drying_log import DryingLog
from dolmetsch.core.reference.drying import RIM_HUMIDITY, RIM_LOSS_RATIO, RIM_SECONDS

Rim = Literal["none", "possible", "suspected"]
#: Fewer weighings say nothing of a rim: two for the last loss, one for what to expect.
LEAST_WEIGHINGS = 3


def judge_rim(log: DryingLog) -> Rim | None:
    """The rim by the last two weighings, beside what the fit through the earlier ones gives for that time.

    None with fewer than three weighings.
    """
    if len(log.weighings) < LEAST_WEIGHINGS:
        return None
    *earlier, one, other = log.weighings
    if other.at - one.at < RIM_SECONDS:
        return "none"
    fit = fit_drying(replace(log, weighings=tuple(earlier)))
    if fit is None:
        return "none"
    expected = fit.kept_after(days_hung(log, one.at)) - fit.kept_after(days_hung(log, other.at))
    if log.loss_at(other) - log.loss_at(one) >= RIM_LOSS_RATIO * Fraction(expected):
        return "none"
    between = [
        reading.humidity
        for reading in log.chamber
        if reading.humidity is not None and one.at <= reading.at <= other.at
    ]
    if not between:
        return "possible"
    return "suspected" if sum(between) / len(between) < RIM_HUMIDITY else "none"
