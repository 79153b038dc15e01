"""Cooling followed against both rules, by the warmest inside; legs and times in ``reference.heat``."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise
from typing import Literal

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog, Phase
from dolmetsch.core.heat.moments import InsideMoment, Moment, list_inside, within
from dolmetsch.core.reference.heat import CURED_COOLING, PLAIN_COOLING, CoolingLeg

LegState = Literal["waiting", "running", "met", "failed"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Leg:
    """How a leg went: ``start`` and ``end`` are the crossings of its marks (None: not crossed yet).

    ``seconds`` from the first mark to the last, or to the last reading.
    """

    state: LegState
    seconds: Fraction
    start: Fraction | None = None
    end: Fraction | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Cooling:
    """Legs by name, by the rule for cooked and for cured meat; None where the rule does not apply.

    A leg is None where the phase began below its first mark.
    """

    plain: dict[str, Leg | None] | None
    cured: dict[str, Leg | None] | None


def follow_cooling(log: CookLog, moments: Sequence[Moment]) -> Cooling:
    """The last cool phase against both rules."""
    phases = log.list_phases("cool")
    if not phases:
        return Cooling(plain=None, cured=None)
    # of phases that begin together the one recorded last
    phase = max(reversed(phases), key=lambda phase: phase.start)
    curve = _cut_out(list_inside(moments), phase)
    # time goes on where nothing is read inside any more
    last = max((one.at for one in moments if phase.holds(one.at)), default=phase.start)
    return Cooling(
        plain={leg.name: _follow(leg, curve, last) for leg in PLAIN_COOLING},
        cured={leg.name: _follow(leg, curve, last) for leg in CURED_COOLING} if log.is_cured else None,
    )


def _cut_out(inside: Sequence[InsideMoment], phase: Phase) -> list[InsideMoment]:
    """The moments of ``phase``, and the last one at or before its beginning, if that is not stale; none where
    none of the phase has an inside temperature.
    """
    before = [one for one in inside if phase.start - STALE_SECONDS <= one.at < phase.start]
    curve = list(within(inside, (phase.start, phase.end)))
    if not curve:
        return []
    is_begun = curve[0].at == phase.start
    return curve if is_begun else [*before[-1:], *curve]


def _follow(leg: CoolingLeg, curve: Sequence[InsideMoment], last: Fraction) -> Leg | None:
    """The leg along ``curve``; ``last`` is the last moment of the phase."""
    if not curve:
        return Leg(state="waiting", seconds=Fraction(0))
    if curve[0].warmest < leg.start:
        return None
    starts = _crossings(curve, leg.start)
    if not starts:
        return Leg(state="waiting", seconds=Fraction(0))
    start = starts[0]
    ends = _crossings(curve, leg.end)
    end = ends[-1] if ends and curve[-1].warmest <= leg.end else None
    seconds = (last if end is None else end) - start
    state: LegState = "failed" if seconds > leg.seconds else "running" if end is None else "met"
    return Leg(state=state, seconds=seconds, start=start, end=end)


def _crossings(curve: Sequence[InsideMoment], mark: Fraction) -> list[Fraction]:
    """When the warmest came down to ``mark``, by straight line between neighbours."""
    found = [curve[0].at] if curve[0].warmest == mark else []
    for one, other in pairwise(curve):
        if one.warmest > mark >= other.warmest:
            part = (one.warmest - mark) / (one.warmest - other.warmest)
            found.append(one.at + part * (other.at - one.at))
    return found
