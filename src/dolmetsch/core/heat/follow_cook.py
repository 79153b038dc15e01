"""All that is answered of a cook: what the command prints and the live view shows."""

from dataclasses import dataclass
from fractions import Fraction

from dolmetsch.core.heat.cook_log import CookLog
from dolmetsch.core.heat.cooling import Cooling, follow_cooling
from dolmetsch.core.heat.home_rule import HomeRuleMet, judge_home_rule
from dolmetsch.core.heat.inside import InsideNow, Peak, find_now, find_peak
from dolmetsch.core.heat.lethality import Lethality, compute_lethality
from dolmetsch.core.heat.moments import Moment, count_log, list_inside, list_moments
from dolmetsch.core.heat.ready import Program, forecast_ready
from dolmetsch.core.heat.troubles import Trouble, list_troubles
from dolmetsch.core.numbers.span import TimeForecast


@dataclass(frozen=True, slots=True, kw_only=True)
class FollowedCook:
    """A cook's answer; what does not apply is None."""

    log: CookLog
    moments: tuple[Moment, ...]
    inside: InsideNow | None
    lethality: Lethality | None
    home_rule: HomeRuleMet | None
    cooling: Cooling
    ready: TimeForecast | None
    peak: Peak | None
    troubles: tuple[Trouble, ...]


def follow_cook(log: CookLog, *, until: Fraction | None = None, program: Program = ()) -> FollowedCook:
    """The answer to ``log`` as it was known at ``until``, in the air that ``program`` plans from then on."""
    known = log if until is None else log.cut_at(until)
    counted = count_log(known)
    moments = list_moments(counted)
    inside = list_inside(moments)
    return FollowedCook(
        log=known,
        moments=tuple(moments),
        inside=find_now(counted, inside),
        lethality=compute_lethality(counted, moments),
        home_rule=judge_home_rule(known, moments),
        cooling=follow_cooling(known, moments),
        ready=forecast_ready(known, inside, program=program),
        peak=find_peak(known, inside),
        troubles=tuple(list_troubles(counted, moments, inside)),
    )
