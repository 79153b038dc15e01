"""How fast something is eaten of late, and when it runs out at that pace."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from fractions import Fraction

#: The pace is that of so many days; of fewer than ``LEAST_DAYS`` nothing is said.
PACE_DAYS, LEAST_DAYS = 14, 3
#: Takings of fewer days than this say nothing of a pace.
LEAST_TAKINGS = 2


@dataclass(frozen=True, slots=True, kw_only=True)
class Pace:
    """So many grams a day of late."""

    grams_a_day: Fraction

    def lasts_days(self, grams: Fraction) -> Fraction:
        """How many days ``grams`` last."""
        return grams / self.grams_a_day

    def runs_out(self, grams: Fraction, today: date) -> date:
        """The day on which ``grams`` are gone."""
        return today + timedelta(days=int(self.lasts_days(grams)))


def find_pace(takings: Iterable[tuple[date, Fraction]], *, since: date, today: date) -> Pace | None:
    """The pace of what was taken (day and grams) in the last two weeks; None where too little was.

    ``since``: the day the first of it lay in the larder; what has been there for three days is judged by
    those.
    """
    start = max(since, today - timedelta(days=PACE_DAYS - 1))
    days = (today - start).days + 1
    taken = [(day, grams) for day, grams in takings if start <= day <= today]
    together = sum((grams for _, grams in taken), Fraction(0))
    if days < LEAST_DAYS or len({day for day, _ in taken}) < LEAST_TAKINGS or not together:
        return None
    return Pace(grams_a_day=together / days)
