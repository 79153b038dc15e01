"""The answer of ``dry``, as ``dolmetsch-drying-answer/1``."""

from fractions import Fraction
from typing import Final

from dolmetsch.core.documents.cook_writing import moment_or_none, write_span
from dolmetsch.core.drying.drying_fit import DryingFit
from dolmetsch.core.drying.fermentation import Fermentation
from dolmetsch.core.drying.follow_drying import FollowedDrying
from dolmetsch.core.numbers.exact import fixed

FORMAT: Final = "dolmetsch-drying-answer/1"
RATIO_PLACES, GRAM_PLACES, HOUR_PLACES = 6, 2, 1


def write_drying(followed: FollowedDrying) -> dict[str, object]:
    """The answer, ready for JSON."""
    return {
        "format": FORMAT,
        "loss": _ratio(followed.loss_ratio),
        "loss_per_day": _ratio(followed.loss_per_day),
        "weight_at_target_g": fixed(followed.grams_at_target, GRAM_PLACES),
        "ready": write_span(followed.dry.span),
        "ready_why": followed.dry.why,
        "fit": _write_fit(followed.fit),
        "ferment": _write_ferment(followed.fermentation),
        "rim": followed.rim,
        "warnings": [finding.message for finding in followed.warnings],
    }


def _ratio(value: Fraction | None) -> str | None:
    return None if value is None else fixed(value, RATIO_PLACES)


def _write_fit(fit: DryingFit | None) -> dict[str, object] | None:
    if fit is None:
        return None
    return {
        "m_inf_ratio": fixed(Fraction(fit.m_inf_ratio), RATIO_PLACES),
        "k_per_day": fixed(Fraction(fit.k_per_day), RATIO_PLACES),
    }


def _write_ferment(fermentation: Fermentation | None) -> dict[str, object] | None:
    if fermentation is None:
        return None
    return {
        "degree_hours": fixed(fermentation.degree_hours, HOUR_PLACES),
        "limit": fixed(fermentation.limit, 0),
        "ph_reached_at": moment_or_none(fermentation.ph_reached_at),
        "state": fermentation.state,
    }
