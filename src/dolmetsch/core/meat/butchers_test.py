"""The butcher's test: what a pound that can be used costs, of what a pound bought costs.

The cost factor (price of usable ÷ price as purchased) carries next week's price over at once: the standard
yield test of kitchen costing, in which the worth of what is cut off moves with the price of the meat.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class CutPart:
    """A part of what was cut: grams, its share of what was bought, and what it is worth in all."""

    name: str
    is_usable: bool
    grams: Fraction
    share: Fraction
    worth: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class ButchersTest:
    """A yield test. Weights in grams, money in all, prices a gram.

    ``factor`` is None where the meat cost nothing; ``lost`` what nobody weighed.
    """

    bought: Fraction
    cost: Fraction
    parts: tuple[CutPart, ...]
    lost: Fraction
    usable: Fraction
    usable_cost: Fraction

    @property
    def price(self) -> Fraction:
        """A gram as purchased."""
        return self.cost / self.bought

    @property
    def usable_price(self) -> Fraction:
        """A usable gram."""
        return self.usable_cost / self.usable

    @property
    def factor(self) -> Fraction | None:
        """Price of usable ÷ price as purchased."""
        return self.usable_price / self.price if self.cost else None

    def price_usable(self, price: Fraction) -> Fraction | None:
        """A usable gram at another ``price`` of a gram as purchased, by the factor."""
        return None if self.factor is None else price * self.factor

    def price_usable_with_same_worth(self, price: Fraction) -> Fraction:
        """The same, what was cut off being worth what it is worth now."""
        carried = self.cost - self.usable_cost
        return (price * self.bought - carried) / self.usable


def judge_cutting(
    *,
    bought: Fraction,
    cost: Fraction,
    usable: Sequence[tuple[str, Fraction]],
    cut_off: Sequence[tuple[str, Fraction, Fraction]],
) -> ButchersTest:
    """A yield test of ``bought`` grams that cost ``cost``.

    ``usable`` are names and grams of what stays; ``cut_off`` names, grams and the money each carries away.

    Raises:
        ValueError: nothing bought, or nothing that can be used.
    """
    kept = sum((grams for _, grams in usable), Fraction(0))
    if bought <= 0 or kept <= 0:
        raise ValueError("a test needs something bought and something that can be used")
    parts = [
        CutPart(name=name, is_usable=True, grams=grams, share=grams / bought, worth=Fraction(0))
        for name, grams in usable
    ]
    parts += [
        CutPart(name=name, is_usable=False, grams=grams, share=grams / bought, worth=worth)
        for name, grams, worth in cut_off
    ]
    off = sum((grams for _, grams, _ in cut_off), Fraction(0))
    return ButchersTest(
        bought=bought,
        cost=cost,
        parts=tuple(parts),
        lost=bought - kept - off,
        usable=kept,
        usable_cost=cost - sum((worth for _, _, worth in cut_off), Fraction(0)),
    )
