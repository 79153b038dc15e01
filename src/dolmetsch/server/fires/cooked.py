"""What is kept of a fire with the event by which it ends: whether it is cooked, its peak, its hours."""

from datetime import datetime
from typing import Any

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog
from dolmetsch.core.heat.home_rule import HomeRuleMet, judge_home_rule
from dolmetsch.core.heat.inside import find_now, find_peak
from dolmetsch.core.heat.lethality import Lethality, compute_lethality
from dolmetsch.core.heat.moments import count_log, list_inside, list_moments
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.fires.of_batch import hours_in
from dolmetsch.server.fires.story import Story, build_log, list_readings, seconds_of


def is_cooked(lethality: Lethality | None, home_rule: HomeRuleMet | None) -> bool:
    """Whether a reduction or the home rule is met."""
    is_met = lethality is not None and lethality.met_at_6_5 is not None
    return is_met or (home_rule is not None and home_rule.met_at is not None)


def is_log_cooked(log: CookLog) -> bool:
    """Whether what ``log`` read cooked the meat."""
    counted = count_log(log)
    moments = list_moments(counted)
    return is_cooked(compute_lethality(counted, moments), judge_home_rule(log, moments))


def inside_at(story: Story, *, at: datetime) -> str | None:
    """The coldest inside (°F) at a time; None where it was not read then."""
    counted = count_log(_log_until(story, at))
    now = find_now(counted, list_inside(list_moments(counted)))
    return None if now is None or seconds_of(at) - now.at > STALE_SECONDS else fixed(now.fahrenheit, 1)


def how_cooked(story: Story, *, at: datetime) -> dict[str, Any]:
    """What is kept of a fire with the event by which it ends or goes on: whether it is cooked, its peak (°F)
    and its hours in the fire. Nothing else is followed: the kitchen is locked meanwhile.
    """
    log = _log_until(story, at)
    peak = find_peak(log, list_inside(list_moments(count_log(log))))
    return {
        "cooked": is_log_cooked(log),
        "peak": None if peak is None else fixed(peak.fahrenheit, 1),
        "hours": round(hours_in(story.fire, story.out_at or at), 2),
    }


def _log_until(story: Story, at: datetime) -> CookLog:
    """The log of a fire with the readings up to ``at``."""
    return build_log(story, [row for row in list_readings(story) if row[0] <= at])
