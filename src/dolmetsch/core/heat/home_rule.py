"""The home rule: a temperature inside, with a rest where one belongs to it (``reference.heat``)."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog
from dolmetsch.core.heat.moments import InsideMoment
from dolmetsch.core.reference.heat import HomeRule, home_rule_for


@dataclass(frozen=True, slots=True, kw_only=True)
class HomeRuleMet:
    """What the rule asks for, and when it was met (None: not yet)."""

    needs: str
    met_at: Fraction | None


def judge_home_rule(log: CookLog, inside: Sequence[InsideMoment]) -> HomeRuleMet | None:
    """The rule for the meat over the whole log, by the coldest inside; None where the meat has none."""
    rule = home_rule_for(log.meat, ground=log.ground)
    if rule is None:
        return None
    met_at = _find_rest(rule, inside) if rule.rest_seconds else _find_first(rule, inside)
    return HomeRuleMet(needs=rule.needs, met_at=met_at)


def _find_first(rule: HomeRule, inside: Sequence[InsideMoment]) -> Fraction | None:
    return next((one.at for one in inside if one.cold >= one.scale.degrees.count(rule.fahrenheit)), None)


def _find_rest(rule: HomeRule, inside: Sequence[InsideMoment]) -> Fraction | None:
    """The end of the first rest that was watched through: no moment of it falls under the temperature, no
    two neighbours up to the first one at or after its end lie further apart than a value counts.
    """
    if not inside:
        return None
    clock, degrees = inside[0].scale.clock, inside[0].scale.degrees
    warm, rest, stale = (
        degrees.count(rule.fahrenheit),
        clock.count(rule.rest_seconds),
        clock.count(STALE_SECONDS),
    )
    begun: int | None = None
    before: int | None = None
    for one in inside:
        if before is not None and one.tick - before > stale:
            begun = None
        before = one.tick
        if begun is not None and one.tick > begun + rest:
            # the moments of the rest were warm enough; this one, after it, only shows that it was watched
            return clock.value(begun + rest)
        if one.cold < warm:
            begun = None
        elif begun is None:
            begun = one.tick
        elif one.tick == begun + rest:
            return one.at
    return None
