"""What to weigh out for a cure, and how much nitrite goes in.

Sources: FSIS Processing Inspectors' Calculations Handbook (Directive 7620.3) for ingoing nitrite by
dry rub, pump, pick-up and equilibrium. All weights in grams, shares as ratios 0–1, exact.

With n and t the agent's shares of nitrite and nitrate, e = n + t and k = 1 − e the salt in it; M meat,
W water, A agent, S salt to add, G sugar, B = W + A + S + G the brine, s and g the salt and sugar wanted.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Final, Literal, get_args

from dolmetsch.core.errors import CureError
from dolmetsch.core.findings import Finding, care, note
from dolmetsch.core.numbers.exact import fixed, text_beside
from dolmetsch.core.reference.nitrite import (
    COARSE_SCALE_RATIO,
    INSPECTED_PLANTS,
    NITRITE_LIMITS,
    PICK_UP_RATIO,
    QUARTER_OUNCE_PPM,
    RULE_LIMIT_PPM,
    SOLUBLE_RATIO,
    SOLUBLE_SOURCE,
    Limits,
    NitriteLimit,
    limit_for,
)

MILLION: Final = 10**6
ZERO: Final = Fraction(0)

UNDISSOLVED: Final = "so much cannot be dissolved: salt, sugar and agent would be the whole brine"

Method = Literal["dry", "brine", "pump", "pump_and_brine"]
Product = Literal["bacon", "whole_muscle", "comminuted"]
PRODUCTS: Final[tuple[Product, ...]] = get_args(Product)


@dataclass(frozen=True, slots=True, kw_only=True)
class Cure:
    """A cure as wanted.

    Attributes:
        method: dry rub, brine (immersion), pump, or pumped and covered.
        meat: green weight in grams.
        water: in grams; the wet methods need it.
        pump: weight gained ÷ green weight; the pumped methods need it.
        pick_up: the same for immersion alone.
        nitrite, nitrate: shares of the curing agent; ``nitrite`` None: not known.
        target_ppm, agent_amount: just one of them.
        salt, sugar: shares wanted.
        scale: resolution of the scale in grams; None: not known.
        product: whose limit counts; None: no limit.
    """

    method: Method
    meat: Fraction
    water: Fraction = ZERO
    pump: Fraction | None = None
    pick_up: Fraction = PICK_UP_RATIO
    nitrite: Fraction | None
    nitrate: Fraction = ZERO
    target_ppm: Fraction | None = None
    agent_amount: Fraction | None = None
    salt: Fraction = ZERO
    sugar: Fraction = ZERO
    scale: Fraction | None = None
    product: Product | None = None
    skin_on: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Mix:
    """What to weigh out (grams) and what it brings (parts per million). None: does not apply, or unknown."""

    agent: Fraction
    salt: Fraction
    sugar: Fraction
    water: Fraction | None
    brine: Fraction | None
    pump: Fraction | None
    ppm: Fraction | None
    ppm_pick_up: Fraction | None
    ppm_one_system: Fraction | None
    limit_ppm: Fraction | None
    limit_source: str | None
    limit_name: str | None
    agent_error: Fraction | None
    warnings: tuple[Finding, ...]

    @property
    def over_limit(self) -> bool | None:
        """Whether the exact figure is above the limit; at the limit is not over."""
        return None if self.ppm is None or self.limit_ppm is None else self.ppm > self.limit_ppm

    @property
    def scale_too_coarse(self) -> bool | None:
        """Whether half the scale's resolution is too large a part of the agent."""
        return None if self.agent_error is None else self.agent_error > COARSE_SCALE_RATIO


@dataclass(frozen=True, slots=True)
class _Solved:
    agent: Fraction
    salt: Fraction
    sugar: Fraction
    brine: Fraction | None
    salt_cut: bool


def mix_cure(cure: Cure, *, limits: Limits = NITRITE_LIMITS) -> Mix:
    """Solve a cure exactly, judged by ``limits``.

    Raises:
        CureError: what cannot be mixed, with the field to blame.
    """
    _refuse_impossible(cure)
    solved = _SOLVERS[cure.method](cure)
    if solved.brine is not None:
        _refuse_undissolved(cure, solved)
    pick_up, one_system = _ppm_of_brine(cure, solved) if cure.method == "brine" else (None, None)
    ppm = _ppm(cure, solved, pick_up=pick_up, one_system=one_system)
    limit: NitriteLimit | None = None
    if cure.product is not None:
        limit = limit_for(product=cure.product, method=cure.method, skin_on=cure.skin_on, limits=limits)
    mix = Mix(
        agent=solved.agent,
        salt=solved.salt,
        sugar=solved.sugar,
        water=None if cure.method == "dry" else cure.water,
        brine=solved.brine,
        pump=None if cure.pump is None or "pump" not in cure.method else cure.pump * cure.meat,
        ppm=ppm,
        ppm_pick_up=pick_up,
        ppm_one_system=one_system,
        limit_ppm=None if limit is None else limit.ppm,
        limit_source=None if limit is None else limit.source,
        limit_name=None if limit is None else limit.name,
        agent_error=cure.scale / 2 / solved.agent if cure.scale is not None and solved.agent else None,
        warnings=(),
    )
    return _with_warnings(cure, mix, salt_cut=solved.salt_cut)


def _refuse_impossible(cure: Cure) -> None:
    if (cure.target_ppm is None) == (cure.agent_amount is None):
        raise CureError("target_ppm", "give either target_ppm or agent_amount, and not both")
    if cure.nitrite is None and cure.target_ppm is not None:
        raise CureError(
            "agent.nitrite", "is not known, so no amount can be worked out for a target; give agent_amount"
        )
    if _n(cure) + cure.nitrate > 1:
        raise CureError("agent", "nitrite and nitrate together are more than the whole of it")
    if cure.target_ppm and not cure.nitrite:
        raise CureError("agent.nitrite", "there is none in it, so a target cannot be met")
    if cure.method != "dry" and not cure.water:
        raise CureError("water", "is needed for a brine")
    if "pump" in cure.method and not cure.pump:
        raise CureError("pump", "is needed: weight gained ÷ green weight, above zero")


def _n(cure: Cure) -> Fraction:
    return ZERO if cure.nitrite is None else cure.nitrite


def _k(cure: Cure) -> Fraction:
    """Salt in the agent."""
    return 1 - _n(cure) - cure.nitrate


def _agent(cure: Cure, base: Fraction, per: Fraction) -> Fraction:
    """The amount entered, or what a target needs: target × base ÷ per."""
    if cure.agent_amount is not None:
        return cure.agent_amount
    assert cure.target_ppm is not None
    if not cure.target_ppm:
        return ZERO
    if per <= 0:
        raise CureError(
            "target_ppm", "cannot be reached: no amount of this agent in this brine gives so much"
        )
    return cure.target_ppm * base / per


def _solve_dry(cure: Cure) -> _Solved:
    agent = _agent(cure, cure.meat, _n(cure) * MILLION)
    salt = cure.salt * cure.meat - agent * _k(cure)
    return _Solved(agent, max(salt, ZERO), cure.sugar * cure.meat, None, salt < 0)


def _solve_covered(cure: Cure) -> _Solved:
    """``brine`` and ``pump_and_brine``: salt and sugar wanted in meat and water together.

    B = C + A·e with C = W + (M+W)(s+g). One system: T = A·n·10⁶ ÷ (M+B), so A = T(M+C) ÷ (n·10⁶ − T·e).
    Pumped and covered: T = A·n·10⁶·(1+P) ÷ (M+B). Where the agent alone brings too much salt, S = 0
    and B = W + G + A, so A = T(M+W+G) ÷ (n·10⁶·(1+P) − T).
    """
    meat, water = cure.meat, cure.water
    sugar = cure.sugar * (meat + water)
    pumped = cure.pump or ZERO if cure.method == "pump_and_brine" else ZERO
    full = _n(cure) * MILLION * (1 + pumped)
    target = cure.target_ppm or ZERO
    wanted = cure.salt * (meat + water)
    agent = _agent(cure, meat + water + sugar + wanted, full - target * (1 - _k(cure)))
    salt = wanted - agent * _k(cure)
    if salt >= 0:
        return _Solved(agent, salt, sugar, water + agent + salt + sugar, False)
    agent = _agent(cure, meat + water + sugar, full - target)
    return _Solved(agent, ZERO, sugar, water + agent + sugar, True)


def _solve_pump(cure: Cure) -> _Solved:
    """``pump``: s and g wanted in the meat's green weight: S + A·k = (s÷P)·B, G = (g÷P)·B.

    B = W + A·e + B(s+g)/P. With a target, A = a·B with a = T ÷ (n·P·10⁶), so B = W ÷ (1 − (s+g)/P − a·e).
    S = 0: B = (W+A) ÷ (1 − g/P), or with a target W ÷ (1 − g/P − a).
    """
    assert cure.pump is not None
    s, g = cure.salt / cure.pump, cure.sugar / cure.pump
    e, n = 1 - _k(cure), _n(cure)
    share = cure.target_ppm / (n * cure.pump * MILLION) if cure.target_ppm else ZERO
    given_agent = cure.agent_amount or ZERO
    # each of them in parts of the brine; the agent's own salt counts for the salt wanted
    salt_cut = s < share * _k(cure)
    if not salt_cut:
        brine = _brine(cure, given_agent * e, s + g + share * e)
        salt_cut = s * brine < given_agent * _k(cure)
    if salt_cut:
        brine = _brine(cure, given_agent, g + share)
    agent = given_agent if cure.agent_amount is not None else share * brine
    salt = ZERO if salt_cut else s * brine - agent * _k(cure)
    return _Solved(agent, salt, g * brine, brine, salt_cut)


def _brine(cure: Cure, agent: Fraction, dissolved: Fraction) -> Fraction:
    """The brine of water and ``agent`` grams, of which a share of ``dissolved`` is something else."""
    if dissolved >= 1:
        raise CureError("salt", UNDISSOLVED)
    return (cure.water + agent) / (1 - dissolved)


_SOLVERS: Final[dict[Method, Callable[[Cure], _Solved]]] = {
    "dry": _solve_dry,
    "brine": _solve_covered,
    "pump": _solve_pump,
    "pump_and_brine": _solve_covered,
}


def _refuse_undissolved(cure: Cure, solved: _Solved) -> None:
    assert solved.brine is not None
    if solved.salt + solved.sugar + solved.agent >= solved.brine:
        raise CureError("salt", UNDISSOLVED)
    if cure.pump is not None and "pump" in cure.method and cure.pump * cure.meat > solved.brine:
        wanted, made = fixed(cure.pump * cure.meat, 0), fixed(solved.brine, 0)
        raise CureError("pump", f"takes {wanted} g, but only {made} g of brine is made; take more water")


def _ppm_of_brine(cure: Cure, solved: _Solved) -> tuple[Fraction | None, Fraction | None]:
    """By pick-up, and as one system."""
    if cure.nitrite is None or solved.brine is None:
        return None, None
    pure = solved.agent * cure.nitrite * MILLION
    return pure / solved.brine * cure.pick_up, pure / (cure.meat + solved.brine)


def _ppm(
    cure: Cure, solved: _Solved, *, pick_up: Fraction | None, one_system: Fraction | None
) -> Fraction | None:
    if cure.nitrite is None:
        return None
    pure = solved.agent * cure.nitrite * MILLION
    if solved.brine is None:
        return pure / cure.meat
    if pick_up is not None and one_system is not None:
        return max(pick_up, one_system)
    assert cure.pump is not None
    pumped = pure / solved.brine * cure.pump
    if cure.method == "pump":
        return pumped
    rest = pure * (1 - cure.pump * cure.meat / solved.brine)
    return pumped + rest / (cure.meat + solved.brine)


def brine_strength(cure: Cure, mix: Mix) -> Fraction:
    """Salt ÷ (salt + water) of a brine, the agent's own salt counted: 0–1."""
    salt = mix.salt + mix.agent * _k(cure)
    return salt / (salt + cure.water)


def is_at_rule(ppm: Fraction, mix: Mix) -> bool:
    """Whether ``ppm`` is over a limit printed as 156 by no more than the rule behind that limit gives."""
    if mix.limit_ppm != RULE_LIMIT_PPM or mix.limit_source != INSPECTED_PLANTS:
        return False
    return mix.limit_ppm < ppm <= QUARTER_OUNCE_PPM


def say_limit(mix: Mix) -> str:
    """The limit of a mix in words: "156 ppm for sausage"."""
    return "" if mix.limit_ppm is None else f"{fixed(mix.limit_ppm, 0)} ppm for {mix.limit_name}"


def judge_limit(ppm: Fraction, mix: Mix) -> Finding | None:
    """The one sentence on ``ppm`` over the limit of ``mix``, wherever it is said; None where it is not over.

    ``ppm`` may count more than the mix brings: what the meat carries from earlier cures.
    """
    if mix.limit_ppm is None or mix.limit_source is None or ppm <= mix.limit_ppm:
        return None
    found, limit = text_beside(ppm, mix.limit_ppm), say_limit(mix)
    if is_at_rule(ppm, mix):
        text = (
            f"{found} ppm beside a limit printed as {limit}: both are the rule of ¼ oz of nitrite to 100 lb "
            f"of meat, which is {fixed(QUARTER_OUNCE_PPM, 2)} ppm. Nothing to change."
        )
        return note("at_rule", text, source=mix.limit_source)
    text = f"{found} ppm of nitrite is over the limit of {limit}. Use less."
    return care("over_limit", text, source=mix.limit_source)


def _with_warnings(cure: Cure, mix: Mix, *, salt_cut: bool) -> Mix:
    found: list[Finding] = []
    if salt_cut:
        found.append(care("salt_cut", "the agent alone brings more salt than wanted; no other salt is added"))
    if cure.nitrite is None:
        said = "how much nitrite is in this agent is not known, so neither are its parts per million"
        found.append(care("unknown", said))
    if mix.ppm is not None and (over := judge_limit(mix.ppm, mix)) is not None:
        # an answer has no place beside it for the source
        said = f"{over.message} {over.source}; ask the local food authority what holds for you"
        found.append(replace(over, message=said))
    if mix.brine is not None and brine_strength(cure, mix) > SOLUBLE_RATIO:
        strength = fixed(brine_strength(cure, mix) * 100, 0)
        said = f"this brine would be {strength} % salt, which does not all dissolve ({SOLUBLE_SOURCE})"
        found.append(care("insoluble", said, source=SOLUBLE_SOURCE, strength=strength))
    if mix.scale_too_coarse and mix.agent_error is not None:
        off = fixed(mix.agent_error * 100, 0)
        found.append(
            care(
                "coarse", f"the scale is too coarse: it may be {off} % off on this much curing agent", off=off
            )
        )
    if cure.product == "bacon" and cure.nitrate:
        said = "nitrate is not allowed in bacon in US inspected plants; use an agent without it"
        found.append(care("nitrate_in_bacon", said, source=INSPECTED_PLANTS))
    if cure.target_ppm is not None and mix.ppm is not None and mix.ppm > cure.target_ppm:
        ppm = fixed(mix.ppm, 1)
        found.append(
            care("over_target", f"by the other method it comes to {ppm} ppm, more than the target", ppm=ppm)
        )
    return replace(mix, warnings=tuple(found))
