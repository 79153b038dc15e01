"""Jobs counted back from a meal, and forward from a start: when each begins, and what is to spare.

Times are given, local, never read from a clock. Hands are put on inside the kitchen's day alone; what passes
by itself passes also at night, as long as it lasts, also where the clocks are changed meanwhile.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from types import MappingProxyType
from typing import Final, Literal

NO_TIME: Final = timedelta()
NOTHING: Final[Mapping[int, datetime]] = MappingProxyType({})
#: Where meat lies while a job passes by itself.
Holder = Literal["", "fridge", "smoker", "chamber"]


def pass_time(at: datetime, span: timedelta) -> datetime:
    """The local time when ``span`` has passed since ``at``; below zero: so long before it.

    Python adds to a local time what its clock shows: an hour too much or too little in a night in which the
    clocks are changed.
    """
    return (at.astimezone(UTC) + span).astimezone(at.tzinfo)


def time_between(since: datetime, until: datetime) -> timedelta:
    """How much time passes from ``since`` to ``until``."""
    return until.astimezone(UTC) - since.astimezone(UTC)


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkDay:
    """The kitchen's day: hours at which hands are put on."""

    begins: int = 7
    ends: int = 20

    @property
    def length(self) -> timedelta:
        """From its beginning to its end."""
        return timedelta(hours=self.ends - self.begins)


@dataclass(frozen=True, slots=True, kw_only=True)
class Job:
    """One job: ``hands`` on it, then at least so long (``least``) by itself before the next can begin.

    ``most``: no longer than that; None: as long as it likes. ``reserve``: kept free after it, for work that
    is known to run late. ``holder``: where the meat lies meanwhile. ``is_watched``: somebody has to be there
    while it passes, so that all of it falls into the kitchen's day, where it is no longer than one.
    ``is_followed_at_once``: the next job begins when it is over, where that is by day: nothing is left lying
    in the warm.
    """

    kind: str
    hands: timedelta = NO_TIME
    least: timedelta = NO_TIME
    most: timedelta | None = None
    reserve: timedelta = NO_TIME
    holder: Holder = ""
    is_watched: bool = False
    is_followed_at_once: bool = False

    @property
    def hands_minutes(self) -> int:
        """Whole minutes of hands on it."""
        return round(self.hands.total_seconds() / 60)

    @property
    def attended(self) -> timedelta:
        """How long somebody has to be there."""
        return self.hands + self.least if self.is_watched else self.hands


@dataclass(frozen=True, slots=True, kw_only=True)
class PlacedJob:
    """A job in its place: hands on from ``start`` to ``hands_end``, the next begins at ``end``."""

    job: Job
    start: datetime
    hands_end: datetime
    end: datetime

    @property
    def spare(self) -> timedelta:
        """How much longer than it needs it may take."""
        return time_between(self.hands_end, self.end) - self.job.least

    @property
    def is_too_long(self) -> bool:
        """Whether it lies longer than it may."""
        return self.job.most is not None and time_between(self.hands_end, self.end) > self.job.most


def latest_start(before: datetime, hands: timedelta, day: WorkDay) -> datetime:
    """The latest time at which ``hands`` can be put on so that they are off by ``before``.

    Work longer than the kitchen's day begins with one.
    """
    start = pass_time(before, -hands)
    begins = start.replace(hour=day.begins, minute=0, second=0, microsecond=0)
    last = begins + max(NO_TIME, day.length - hands)
    if start < begins:
        return last - timedelta(days=1)
    return min(start, last)


def earliest_start(after: datetime, hands: timedelta, day: WorkDay) -> datetime:
    """The earliest time from ``after`` on at which ``hands`` can be put on."""
    begins = after.replace(hour=day.begins, minute=0, second=0, microsecond=0)
    last = begins + max(NO_TIME, day.length - hands)
    if after <= begins:
        return begins
    return after if after <= last else begins + timedelta(days=1)


def count_back(jobs: Sequence[Job], ready_by: datetime, day: WorkDay) -> list[PlacedJob]:
    """Each of ``jobs``, which are in their order, at its latest, so that the last is over by ``ready_by``."""
    placed: list[PlacedJob] = []
    end = ready_by
    for job in reversed(jobs):
        over = pass_time(end, job.attended - job.hands - job.least - job.reserve)
        start = latest_start(over, job.attended, day)
        placed.append(PlacedJob(job=job, start=start, hands_end=pass_time(start, job.hands), end=end))
        end = start
    placed.reverse()
    for index in range(len(placed) - 1):
        _follow_at_once(placed, index, day)
    return placed


def _follow_at_once(placed: list[PlacedJob], index: int, day: WorkDay) -> None:
    """Begin the job after ``index`` when that one is over, if it asks for that."""
    one, following = placed[index], placed[index + 1]
    over = pass_time(one.hands_end, one.job.least)
    if one.job.is_followed_at_once and day.begins <= over.hour <= day.ends and over < following.start:
        placed[index] = replace(one, end=over)
        placed[index + 1] = replace(following, start=over, hands_end=pass_time(over, following.job.hands))


def count_forward(
    jobs: Sequence[Job], start: datetime, day: WorkDay, *, not_before: Mapping[int, datetime] = NOTHING
) -> list[PlacedJob]:
    """Each of ``jobs`` at its earliest from ``start`` on, without reserves; some ``not_before`` a time, by
    their places.
    """
    placed: list[PlacedJob] = []
    at = start
    for index, job in enumerate(jobs):
        at = earliest_start(max(at, not_before.get(index, at)), job.attended, day)
        if placed:
            placed[-1] = replace(placed[-1], end=at)
        start, hands_end = at, pass_time(at, job.hands)
        at = pass_time(hands_end, job.least)
        placed.append(PlacedJob(job=job, start=start, hands_end=hands_end, end=at))
    return placed


def ready_at(
    jobs: Sequence[Job], start: datetime, day: WorkDay, *, not_before: Mapping[int, datetime] = NOTHING
) -> datetime:
    """When it is ready if it begins at ``start`` and nothing runs late."""
    placed = count_forward(jobs, start, day, not_before=not_before)
    return placed[-1].end if placed else start
