"""How long a chamber's air lay outside of what dries well."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise
from typing import Final

#: Two readings further apart have a gap between them, which counts for nothing.
GAP_SECONDS: Final = 3_600


@dataclass(frozen=True, slots=True, kw_only=True)
class TimeOutside:
    """Seconds under the lowest and over the highest value that is wanted."""

    under: Fraction
    over: Fraction


def time_outside(
    readings: Sequence[tuple[Fraction, Fraction]], *, lowest: Fraction, highest: Fraction
) -> TimeOutside:
    """How long ``readings`` (seconds and value, in order) lay outside; an interval counts where both its ends
    lie on the same side, and neither is further from the other than ``GAP_SECONDS``.
    """
    under = over = Fraction(0)
    for (start, one), (end, other) in pairwise(readings):
        passed = end - start
        if passed > GAP_SECONDS:
            continue
        if max(one, other) < lowest:
            under += passed
        elif min(one, other) > highest:
            over += passed
    return TimeOutside(under=under, over=over)
