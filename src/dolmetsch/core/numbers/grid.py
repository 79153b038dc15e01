"""Exact numbers as whole ones of a common part: a thousand of them are compared as quickly as integers."""

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction
from math import lcm


@dataclass(frozen=True, slots=True)
class Grid:
    """Parts of which every number of a set is a whole count: ``parts`` to one."""

    parts: int

    @classmethod
    def of(cls, values: Iterable[Fraction]) -> "Grid":
        """The coarsest grid on which all of ``values`` lie."""
        return cls(lcm(*{value.denominator for value in values}))

    def count(self, value: Fraction | int) -> int:
        """A number that lies on the grid, in parts."""
        return value.numerator * (self.parts // value.denominator)

    def value(self, count: int) -> Fraction:
        """So many parts as a number."""
        return Fraction(count, self.parts)
