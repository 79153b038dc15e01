"""The days in between: what is done with a piece from the cure to the smoke or the hook, and when.

Times are given, never read from a clock, and local: tasks fall into the working day. How long things
take is common practice: uncovered in the fridge 1 to 24 hours until tacky, soaked 20 to 60 minutes.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final, Literal

from dolmetsch.core.curing.curing_time import Window
from dolmetsch.core.ledger.course import COURSE_FACTS, Course

TaskKind = Literal[
    "turn",
    "check",
    "spice",
    "out",
    "rinse",
    "taste",
    "soak",
    "dry",
    "reseason",
    "smoke",
    "hang",
    "weigh",
    "other",
]
#: What each task is called.
TASK_WORDS: Final[dict[TaskKind, str]] = {
    "turn": "Turn and rub",
    "check": "Feel how firm it is",
    "spice": "Wipe off, rub on the spices",
    "out": "Out of the cure",
    "rinse": "Rinse",
    "taste": "Taste: fry a sliver",
    "soak": "Soak in cold water",
    "dry": "Dry uncovered in the fridge",
    "reseason": "Re-season, no salt",
    "smoke": "Into the smoke",
    "hang": "Hang to dry",
    "weigh": "Weigh",
    "other": "To do",
}
#: Steps that show, once weighed, that a task is behind its pieces: the first step it comes before, and all
#: later ones. What is not named here ends only with the piece.
_ORDER: Final = {
    **dict.fromkeys(("cure", "pump"), 1),
    **dict.fromkeys(("rinse", "wash", "soak"), 2),
    **dict.fromkeys(("rest",), 3),
    **dict.fromkeys(("stuff", "ferment", "smoke", "cook", "steam", "hang", "dry", "pull"), 4),
    **dict.fromkeys(("chill", "press"), 5),
    **dict.fromkeys(("slice", "pack"), 6),
}
_OVER_FROM: Final[dict[str, int]] = {
    **dict.fromkeys(("turn", "check", "spice", "out"), 1),
    "rinse": 2,
    **dict.fromkeys(("taste", "soak", "dry", "reseason"), 3),
    **dict.fromkeys(("smoke", "hang"), 4),
    **dict.fromkeys(("weigh", "other"), 6),
}
#: The working day: a task outside of it is moved to its morning, or to the evening before.
DAY_BEGINS, DAY_ENDS, USUAL_HOUR, LAST_HOUR = 7, 20, 9, 18
#: A task without a window counts as late so long after it is due.
GRACE: Final = timedelta(hours=12)
Taste = Literal["salty", "right", "flat"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Task:
    """Something to do: from ``due``, late after ``until``; ``minutes`` it takes where that is known."""

    kind: TaskKind
    due: datetime
    until: datetime
    minutes: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Wishes:
    """How the cook wants the days: turned every so many days (0: never), out on which day, dried how long.

    ``spice_day``: the day the second stage goes on; None: one stage. ``course``: what it is to become.
    """

    turn_days: int
    out_day: int
    dry_hours: int
    soak_minutes: int | None = None
    reseason: bool = False
    spice_day: int | None = None
    course: Course | None = None


def is_behind(task: TaskKind, step: str) -> bool:
    """Whether a piece that was weighed after ``step`` has a task of that kind behind it."""
    return _ORDER.get(step, 0) >= _OVER_FROM[task]


def at_work(moment: datetime, *, is_after: bool = False) -> datetime:
    """``moment`` to the quarter hour, inside the working day; ``is_after``: never earlier than it was.

    What falls before the day begins is done in its morning, what falls after its end before the end, or the
    next morning.
    """
    quarter = (moment + timedelta(minutes=7)).replace(second=0, microsecond=0)
    quarter -= timedelta(minutes=quarter.minute % 15)
    if quarter.hour < DAY_BEGINS:
        return quarter.replace(hour=USUAL_HOUR, minute=0)
    if quarter.hour < DAY_ENDS:
        return quarter
    if is_after:
        return (quarter + timedelta(days=1)).replace(hour=USUAL_HOUR, minute=0)
    return quarter.replace(hour=LAST_HOUR, minute=0)


def plan_days(put_in: datetime, window: Window, wishes: Wishes) -> list[Task]:
    """The tasks from the cure to the smoke, or the hook, in the order of their days.

    ``put_in`` in local time, in which the working day is meant.
    """
    tasks = [*_in_the_cure(put_in, window, wishes), *_after_it(put_in, wishes)]
    return sorted(tasks, key=lambda task: task.due)


def _in_the_cure(put_in: datetime, window: Window, wishes: Wishes) -> Iterator[Task]:
    def on(day: int) -> datetime:
        return at_work(put_in + timedelta(days=day))

    if wishes.turn_days:
        for day in range(wishes.turn_days, wishes.out_day, wishes.turn_days):
            yield task_at("turn", on(day))
    if wishes.spice_day is not None:
        yield task_at("spice", on(wishes.spice_day))
    if window.first < wishes.out_day:
        yield task_at("check", on(window.first))
    out = on(wishes.out_day)
    yield Task(kind="out", due=out, until=max(out + GRACE, put_in + timedelta(days=window.last)))


def _after_it(put_in: datetime, wishes: Wishes) -> Iterator[Task]:
    at = at_work(put_in + timedelta(days=wishes.out_day))
    is_dried = wishes.course is not None and COURSE_FACTS[wishes.course].is_dried
    if not is_dried:
        at += timedelta(minutes=15)
        yield task_at("rinse", at)
        at += timedelta(minutes=15)
        yield task_at("taste", at)
        if wishes.soak_minutes:
            yield task_at("soak", at, minutes=wishes.soak_minutes)
            at = at_work(at + timedelta(minutes=wishes.soak_minutes), is_after=True)
            yield task_at("taste", at)
    at += timedelta(minutes=15)
    if wishes.reseason:
        yield task_at("reseason", at)
    yield task_at("dry", at, minutes=wishes.dry_hours * 60)
    if wishes.course == "cured_raw":
        # nothing is smoked: it is sliced as it is
        return
    last: TaskKind = "hang" if is_dried else "smoke"
    yield task_at(last, at_work(at + timedelta(hours=wishes.dry_hours), is_after=True))


def task_at(kind: TaskKind, due: datetime, *, minutes: int | None = None) -> Task:
    """A task due at a moment, late half a day after it."""
    return Task(kind=kind, due=due, until=due + GRACE, minutes=minutes)


def follow_taste(taste: Taste, *, tasted: datetime, soak_minutes: int) -> list[Task]:
    """What a tasting asks for: a soak and another tasting where it was too salty, else nothing more."""
    if taste != "salty":
        return []
    soak = task_at("soak", tasted, minutes=soak_minutes)
    return [soak, task_at("taste", tasted + timedelta(minutes=soak_minutes))]
