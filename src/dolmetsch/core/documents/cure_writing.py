"""The answer of ``cure``: what to weigh out, as ``dolmetsch-cure-answer/1``."""

from fractions import Fraction
from typing import Final

from dolmetsch.core.curing.cure import Mix
from dolmetsch.core.numbers.exact import fixed

FORMAT: Final = "dolmetsch-cure-answer/1"
GRAM_PLACES, PPM_PLACES, ERROR_PLACES = 2, 1, 4


def write_mix(mix: Mix) -> dict[str, object]:
    """The answer, ready for JSON."""
    return {
        "format": FORMAT,
        "agent_g": _fixed(mix.agent, GRAM_PLACES),
        "salt_g": _fixed(mix.salt, GRAM_PLACES),
        "sugar_g": _fixed(mix.sugar, GRAM_PLACES),
        "water_g": _fixed(mix.water, GRAM_PLACES),
        "brine_g": _fixed(mix.brine, GRAM_PLACES),
        "pump_g": _fixed(mix.pump, GRAM_PLACES),
        "ppm": _fixed(mix.ppm, PPM_PLACES),
        "ppm_pick_up": _fixed(mix.ppm_pick_up, PPM_PLACES),
        "ppm_one_system": _fixed(mix.ppm_one_system, PPM_PLACES),
        "limit_ppm": _fixed(mix.limit_ppm, PPM_PLACES),
        "over_limit": mix.over_limit,
        "agent_error": _fixed(mix.agent_error, ERROR_PLACES),
        "scale_too_coarse": mix.scale_too_coarse,
        "warnings": [found.message for found in mix.warnings],
    }


def _fixed(value: Fraction | None, places: int) -> str | None:
    return None if value is None else fixed(value, places)
