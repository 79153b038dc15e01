"""Carrying meat through the steps to come: expected weight and price after each, with the 80 % range.

Each step keeps exp(y) of what enters it, y normal as believed (``yields.py``). Steps multiply, so their
variances of ln add; that the same batch may run wet or dry all along (a correlation) is left out. The price
after a step is worked out at the middle yields, which is exact, and its spread to first order in ln:
var ln P = Σ (∂ ln P ÷ ∂ y)² var y (law of propagation of uncertainty, JCGM 100:2008, 5.1.2).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log, sqrt

from dolmetsch.core.forecast.way import Costs
from dolmetsch.core.forecast.yields import NORMAL, RANGE_80, Belief

#: The step by which a yield is nudged to see how the price follows, in ln.
_NUDGE = 1e-4


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """A quantity above zero whose ln is normal: the middle value and the deviation of its ln."""

    middle: float
    log_deviation: float

    @property
    def low(self) -> float:
        """Nine times in ten it is more."""
        return self.middle * exp(-RANGE_80 * self.log_deviation)

    @property
    def high(self) -> float:
        """Nine times in ten it is less."""
        return self.middle * exp(RANGE_80 * self.log_deviation)

    def chance_below(self, other: float) -> float:
        """The chance, 0–1, that it is below ``other``."""
        if self.middle <= 0:
            return 1.0 if other > 0 else 0.0
        if other <= 0:
            return 0.0
        if self.log_deviation <= 0:
            return 1.0 if self.middle < other else 0.0
        return NORMAL.cdf((log(other) - log(self.middle)) / self.log_deviation)


@dataclass(frozen=True, slots=True, kw_only=True)
class Milestone:
    """How things stand after a step to come. Weights in grams of all that lives, price a gram.

    ``kept``: of what enters the step. ``spent`` and ``worth_back``: money of this step.
    """

    belief: Belief
    grams: Estimate
    price: Estimate
    spent: float
    worth_back: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Outlook:
    """What becomes of the meat: after each step, and at the end.

    ``cost`` is the whole cost at the end, of which ``labour``; ``minutes`` are those to come.
    """

    milestones: tuple[Milestone, ...]
    grams: Estimate
    price: Estimate
    cost: float
    labour: float
    minutes: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Start:
    """Where it starts: money spent so far, of which labour, and grams that join before each step to come.

    ``joining`` has one more entry than there are steps: the last is what is finished already.
    """

    cost: float
    labour: float
    joining: Sequence[float]


@dataclass(slots=True)
class _Run:
    grams: list[float]
    costs: list[float]
    spent: list[float]
    credits: list[float]
    labour: float
    minutes: float


def carry(start: Start, steps: Sequence[tuple[Costs, Belief]]) -> Outlook:
    """Carry what stands through ``steps``.

    Raises:
        ValueError: ``joining`` does not fit the steps, or there is no meat.
    """
    if len(start.joining) != len(steps) + 1 or sum(start.joining) <= 0:
        raise ValueError("one weight before each step, and one at the end, some of them above nothing")
    costs = [one for one, _ in steps]
    logs = [belief.log_mean for _, belief in steps]
    middle = _run(start, costs, logs)
    weight_variance = [0.0] * len(steps)
    price_variance = [0.0] * len(steps)
    for index, (_, belief) in enumerate(steps):
        nudged = _run(start, costs, [*logs[:index], logs[index] + _NUDGE, *logs[index + 1 :]])
        variance = belief.log_deviation**2 / _NUDGE**2
        for at in range(index, len(steps)):
            weight_variance[at] += (log(nudged.grams[at] / middle.grams[at])) ** 2 * variance
            if middle.costs[at] > 0 and nudged.costs[at] > 0:
                apart = log(nudged.costs[at] / middle.costs[at] * middle.grams[at] / nudged.grams[at])
                price_variance[at] += apart * apart * variance
    milestones = tuple(
        Milestone(
            belief=belief,
            grams=Estimate(middle=middle.grams[at], log_deviation=sqrt(weight_variance[at])),
            price=Estimate(
                middle=middle.costs[at] / middle.grams[at], log_deviation=sqrt(price_variance[at])
            ),
            spent=middle.spent[at],
            worth_back=middle.credits[at],
        )
        for at, (_, belief) in enumerate(steps)
    )
    total = sum(start.joining)
    now = Estimate(middle=total, log_deviation=0.0), Estimate(middle=start.cost / total, log_deviation=0.0)
    last = (milestones[-1].grams, milestones[-1].price) if milestones else now
    return Outlook(
        milestones=milestones,
        grams=last[0],
        price=last[1],
        cost=middle.costs[-1] if milestones else start.cost,
        labour=middle.labour,
        minutes=middle.minutes,
    )


def _run(start: Start, costs: Sequence[Costs], logs: Sequence[float]) -> _Run:
    """One pass at given ln yields. Credits are cut down to the cost there is, as in the ledger."""
    waiting = sum(start.joining)
    cost, labour, minutes, moving = start.cost, start.labour, 0.0, 0.0
    run = _Run(grams=[], costs=[], spent=[], credits=[], labour=0.0, minutes=0.0)
    for at, step in enumerate(costs):
        waiting -= start.joining[at]
        entering = moving + start.joining[at]
        moving = entering * exp(logs[at])
        # a step that nothing enters is not done
        worked = step.minutes + step.gram_minutes * entering if entering > 0 else 0.0
        wage = worked * step.wage
        spent = wage + step.gram * entering + (step.batch if entering > 0 else 0.0)
        credit = min(max(entering - moving, 0.0) * step.worth, cost + spent)
        cost += spent - credit
        labour += wage
        minutes += worked
        run.grams.append(moving + waiting)
        run.costs.append(cost)
        run.spent.append(spent)
        run.credits.append(credit)
    run.labour, run.minutes = labour, minutes
    return run
