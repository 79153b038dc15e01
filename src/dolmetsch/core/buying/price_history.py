"""Reading a history of prices: the latest, the lowest, the usual one."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Final

#: A price so many times the usual one, or so small a part of it, is asked about.
ODD_AT: Final = 3
#: The usual price is the median of so long before the latest one.
USUAL_SPAN: Final = timedelta(days=365)


@dataclass(frozen=True, slots=True, kw_only=True)
class Seen:
    """A price of one unit (a gram, or one piece) seen on a day; ``order`` parts those of one day."""

    on: date
    order: int
    each: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class Summary:
    """What a history comes to. ``usual``: median of the year up to the latest; mean of the middle two."""

    latest: Seen
    lowest: Seen
    usual: Fraction


def summarise(history: Sequence[Seen]) -> Summary | None:
    """Latest (the last noted of its day), lowest (the latest of equals) and usual price; None of nothing."""
    if not history:
        return None
    latest = max(history, key=lambda seen: (seen.on, seen.order))
    lowest = min(history, key=lambda seen: (seen.each, -seen.on.toordinal(), -seen.order))
    year = sorted(seen.each for seen in history if seen.on > latest.on - USUAL_SPAN)
    return Summary(latest=latest, lowest=lowest, usual=_middle(year))


def median_price(bought: Sequence[tuple[Decimal, Decimal]]) -> Fraction:
    """The median of prices given as money and what it bought, not empty; mean of the middle two.

    Put in order as decimals of 28 digits, which is quicker than exactly; only the middle ones are exact.
    """
    ordered = sorted(bought, key=lambda one: one[0] / one[1])
    ends = (ordered[(len(ordered) - 1) // 2], ordered[len(ordered) // 2])
    return _middle([Fraction(paid) / Fraction(size) for paid, size in ends])


def _middle(ordered: Sequence[Fraction]) -> Fraction:
    """The median of values in order; mean of the middle two."""
    return (ordered[(len(ordered) - 1) // 2] + ordered[len(ordered) // 2]) / 2


def is_odd(each: Fraction, usual: Fraction) -> bool:
    """Whether a price is so far off the usual one that it may be for something else: a pack, a kilogram."""
    return usual > 0 and not usual / ODD_AT <= each <= usual * ODD_AT


def mean_and_spread(ratios: Sequence[Fraction]) -> tuple[Fraction | None, Fraction | None]:
    """Mean of ratios, and their sample variance from two on; None where there are too few."""
    if not ratios:
        return None, None
    mean = sum(ratios, Fraction(0)) / len(ratios)
    if len(ratios) < 2:
        return mean, None
    return mean, sum([(one - mean) ** 2 for one in ratios], Fraction(0)) / (len(ratios) - 1)
