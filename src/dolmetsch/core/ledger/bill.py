"""A bill: what a piece, a step or an account carries, by group, exactly.

Every group is an integer over one common denominator, so that sharing by weight is a few integer
products. The ledger's inner currency; everyone else reads ``costs`` and ``total`` as ``Fraction``.
"""

from collections.abc import Iterable
from fractions import Fraction
from math import gcd
from typing import Final, Self

#: Group, numerator, denominator (above zero).
Line = tuple[str, int, int]
#: A denominator above this is brought to lowest terms.
LONG: Final = 1 << 2000


class Bill:
    """Costs by group: ``of[group] / over``. Never changed once made."""

    __slots__ = ("of", "over")

    def __init__(self, of: dict[str, int], over: int) -> None:
        self.of = of
        self.over = over

    @classmethod
    def of_lines(cls, lines: Iterable[Line]) -> Self:
        """The sum of ``lines``."""
        of: dict[str, int] = {}
        over = 1
        for group, money, per in lines:
            if per != over:
                common = gcd(per, over)
                wider = per // common
                of = {name: mine * wider for name, mine in of.items()}
                over *= wider
            of[group] = of.get(group, 0) + money * (over // per)
        return cls(of, over)

    def share(self, part: int, whole: int) -> "Bill":
        """The ``part`` of ``whole`` that falls to one bearer."""
        return Bill({group: money * part for group, money in self.of.items()}, self.over * whole)

    def plus(self, other: "Bill") -> "Bill":
        """Both together."""
        if not other.of:
            return self
        if not self.of:
            return other
        common = gcd(self.over, other.over)
        mine, theirs = other.over // common, self.over // common
        of = {group: money * mine for group, money in self.of.items()}
        for group, money in other.of.items():
            of[group] = of.get(group, 0) + money * theirs
        return Bill(of, self.over * mine).lowered()

    def lowered(self) -> "Bill":
        """The same in lowest terms where its numbers are long; long ones are slow, and so is lowering."""
        if self.over <= LONG or (lower := gcd(self.over, *self.of.values())) == 1:
            return self
        return Bill({group: money // lower for group, money in self.of.items()}, self.over // lower)

    @property
    def money(self) -> int:
        """All groups together, over ``over``."""
        return sum(self.of.values())

    @property
    def total(self) -> Fraction:
        """All groups together."""
        return Fraction(self.money, self.over)

    @property
    def costs(self) -> dict[str, Fraction]:
        """Money by group."""
        return {group: Fraction(money, self.over) for group, money in self.of.items()}

    def group(self, name: str) -> Fraction:
        """Money of one group; zero where there is none."""
        return Fraction(self.of.get(name, 0), self.over)


NOTHING: Final = Bill({}, 1)


def shared_out(bills: list[Bill], cost: Bill, weights: list[int]) -> list[Bill]:
    """Each bill with its share, by weight, of ``cost``.

    Pieces that went the same way have bills over the same denominator: then what both are widened by is
    worked out once for all.
    """
    together = sum(weights)
    over = bills[0].over
    if any(bill.over != over for bill in bills):
        return [bill.plus(cost.share(part, together)) for bill, part in zip(bills, weights, strict=True)]
    per = cost.over * together
    common = gcd(over, per)
    mine, theirs = per // common, over // common
    found = []
    for bill, part in zip(bills, weights, strict=True):
        of = {group: money * mine for group, money in bill.of.items()}
        for group, money in cost.of.items():
            of[group] = of.get(group, 0) + money * part * theirs
        found.append(Bill(of, over * mine))
    return found


def added(bills: Iterable[Bill]) -> Bill:
    """All of them together, group by group."""
    together = NOTHING
    for bill in bills:
        together = together.plus(bill)
    return together


def sum_of(bills: Iterable[Bill]) -> tuple[int, int]:
    """The sum of whole bills as numerator and denominator, not in lowest terms."""
    over, money = 1, 0
    for bill in bills:
        if bill.over == over:
            money += bill.money
            continue
        common = gcd(over, bill.over)
        money = money * (bill.over // common) + bill.money * (over // common)
        over *= bill.over // common
    return money, over


def total_of(bills: Iterable[Bill]) -> Fraction:
    """The sum of whole bills."""
    return Fraction(*sum_of(bills))
