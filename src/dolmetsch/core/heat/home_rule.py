"""The home rule: a temperature inside, with a rest where one belongs to it (``reference.heat``)."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog
from dolmetsch.core.heat.moments import Moment
from dolmetsch.core.reference.heat import HomeRule, home_rule_for


@dataclass(frozen=True, slots=True, kw_only=True)
class HomeRuleMet:
    """What the rule asks for, and when it was met (None: not yet)."""

    needs: str
    met_at: Fraction | None


def judge_home_rule(log: CookLog, moments: Sequence[Moment]) -> HomeRuleMet | None:
    """The rule for the meat over the whole log, by the coldest inside; None where the meat has none.

    A moment at which a piece is unread, or that has no inside temperature, is not at or above anything.
    """
    rule = home_rule_for(log.meat, ground=log.ground)
    if rule is None:
        return None
    if not moments:
        return HomeRuleMet(needs=rule.needs, met_at=None)
    warm = moments[0].scale.degrees.count(rule.fahrenheit)
    met_at = _find_rest(rule, moments, warm) if rule.rest_seconds else _find_first(moments, warm)
    return HomeRuleMet(needs=rule.needs, met_at=met_at)


def _is_warm(moment: Moment, warm: int) -> bool:
    return moment.cold is not None and moment.cold >= warm and not moment.unread


def _find_first(moments: Sequence[Moment], warm: int) -> Fraction | None:
    return next((one.at for one in moments if _is_warm(one, warm)), None)


def _find_rest(rule: HomeRule, moments: Sequence[Moment], warm: int) -> Fraction | None:
    """The end of the first rest that was watched through: every moment of it is warm, no two neighbors that
    have an inside temperature, up to the first such one at or after its end, lie further apart than a value
    counts.
    """
    clock = moments[0].scale.clock
    rest, stale = clock.count(rule.rest_seconds), clock.count(STALE_SECONDS)
    begun: int | None = None
    before: int | None = None
    for one in moments:
        if one.cold is None:
            # nobody knows what it was at that moment; after the end of the rest it does not matter
            if begun is not None and one.tick <= begun + rest:
                begun = None
            continue
        if before is not None and one.tick - before > stale:
            begun = None
        before = one.tick
        if begun is not None and one.tick > begun + rest:
            # the moments of the rest were warm enough; this one, after it, only shows that it was watched
            return clock.value(begun + rest)
        if not _is_warm(one, warm):
            begun = None
        elif begun is None:
            begun = one.tick
        elif one.tick == begun + rest:
            return one.at
    return None
