"""What the cure desk answers: what is weighed out, the brine, and the sums of both."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from dolmetsch.core.curing.cure import Mix, is_at_rule
from dolmetsch.core.curing.recipe import Ingredient

#: What something weighed out is for.
Role = Literal["salt", "agent", "sugar", "extra", "water", "box"]


@dataclass(frozen=True, slots=True, kw_only=True)
class WeighOut:
    """One thing to weigh out: grams, and its share of the meat. ``ingredient`` None for water."""

    name: str
    role: Role
    grams: Fraction
    share: Fraction
    ingredient: Ingredient | None = None
    stage: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Brine:
    """A brine: grams in all, into the injector, over the meat in a tub, to spare for hoses and needles.

    Its strength is salt ÷ (salt + water).
    """

    grams: Fraction
    injector: Fraction
    tub: Fraction
    spare: Fraction
    strength: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class SpoonsOfAgent:
    """Curing agent measured by level teaspoons, rounded down to the smallest spoon.

    Attributes:
        teaspoons: to be measured out; 0: the smallest spoon holds more than is wanted.
        grams: what they hold; ``wanted``: what the recipe asks for.
        smallest: grams of it in the smallest spoon.
        fits_from_grams: the lightest piece that takes a smallest spoon of it.
    """

    teaspoons: Fraction
    grams: Fraction
    wanted: Fraction
    smallest: Fraction
    fits_from_grams: Fraction

    @property
    def is_too_coarse(self) -> bool:
        """Whether not even the smallest spoon fits."""
        return not self.teaspoons


@dataclass(frozen=True, slots=True, kw_only=True)
class Desk:
    """What the desk answers for one piece.

    Attributes:
        lines: what to weigh out, in the order of the work.
        ppm: ingoing nitrite, by this cure and what the piece carries from earlier ones; None: not known.
        ppm_low, ppm_high: by half a step of the scale, or by what spoons differ; None where not known.
        spoons: the agent as measured, where it is measured by the spoon.
        smallest_grams: the lightest piece the scale is fine enough for; None without a scale or an agent.
        salt_low, salt_high: salt in the cured meat, of its weight, before it shrinks; None: not known.
    """

    lines: tuple[WeighOut, ...]
    mix: Mix
    brine: Brine | None
    ppm: Fraction | None
    ppm_low: Fraction | None
    ppm_high: Fraction | None
    spoons: SpoonsOfAgent | None
    smallest_grams: Fraction | None
    salt_low: Fraction | None
    salt_high: Fraction | None

    @property
    def is_at_rule(self) -> bool:
        """Whether it is over a limit printed as 156 by no more than the rule behind that limit gives."""
        return self.ppm is not None and is_at_rule(self.ppm, self.mix)

    @property
    def is_over(self) -> bool:
        """Whether the nitrite is above the limit; at the limit, or at the rule behind it, is not over."""
        limit = self.mix.limit_ppm
        return self.ppm is not None and limit is not None and self.ppm > limit and not self.is_at_rule
