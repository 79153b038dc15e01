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
        common = gcd(part, whole)
        part //= common
        return Bill({group: money * part for group, money in self.of.items()}, self.over * (whole // common))

    def plus(self, other: "Bill") -> "Bill":
        """Both together, in lowest terms."""
        if not other.of:
            return self
        if not self.of:
            return other
        common = gcd(self.over, other.over)
        mine, theirs = other.over // common, self.over // common
        of = {group: money * mine for group, money in self.of.items()}
        for group, money in other.of.items():
            of[group] = of.get(group, 0) + money * theirs
        over = self.over * mine
        lower = gcd(over, *of.values())
        if lower > 1:
            of = {group: money // lower for group, money in of.items()}
            over //= lower
        return Bill(of, over)

    @property
    def total(self) -> Fraction:
        """All groups together."""
        return Fraction(sum(self.of.values()), self.over)

    @property
    def costs(self) -> dict[str, Fraction]:
        """Money by group."""
        return {group: Fraction(money, self.over) for group, money in self.of.items()}

    def group(self, name: str) -> Fraction:
        """Money of one group; zero where there is none."""
        return Fraction(self.of.get(name, 0), self.over)


NOTHING: Final = Bill({}, 1)


def total_of(bills: Iterable[Bill]) -> Fraction:
    """The sum of whole bills."""
    over, money = 1, 0
    for bill in bills:
        if bill.over == over:
            money += sum(bill.of.values())
            continue
        common = gcd(over, bill.over)
        money = money * (bill.over // common) + sum(bill.of.values()) * (over // common)
        over *= bill.over // common
    return Fraction(money, over)
