"""The jobs of a method for so much meat: hands-on minutes, and how long each passes by itself."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import timedelta
from fractions import Fraction
from typing import Final

from dolmetsch.core.forecast.way import WayStep
from dolmetsch.core.planning.count_back import NO_TIME, Holder, Job, WorkDay
from dolmetsch.core.planning.plan import DAY_BEGINS, DAY_ENDS
from dolmetsch.server.meals.inputs.record import OwnRecord

#: The hours at which hands are put on.
DAY: Final = WorkDay(begins=DAY_BEGINS, ends=DAY_ENDS)
#: Steps nobody knows the length of unless the method says it.
DAYS_NEEDED: Final = frozenset({"cure", "dry", "age"})
#: A step of so many days is over when its last night is: so much less than whole days.
NIGHT: Final = timedelta(hours=12)
#: Hours in the smoke until the kitchen's own fires say better (start values of ours).
SMOKE_HOURS: Final[dict[str, int]] = {"hot_smoke": 6, "stepped_smoke": 6, "cold_smoke": 10, "pulled": 12}
#: A fire somebody stays at (ours); a long cook and a cold smoke go on through the night.
WATCHED: Final = ("hot_smoke", "stepped_smoke")
#: Steps that are done in the smoker.
SMOKED: Final = ("smoke", "cook")
#: A measured cure may go on for twice as long (common practice); what else waits may wait.
MOST_TIMES: Final = 2
#: Kept free after a long cook, before it is served (common practice).
PULLED_RESERVE: Final = timedelta(hours=4)
_HOLDERS: Final[dict[str, Holder]] = {
    **dict.fromkeys(("cure", "rest", "chill", "age"), "fridge"),
    **dict.fromkeys(SMOKED, "smoker"),
    "dry": "chamber",
}
_WORDS: Final = {
    "trim": "Trim",
    "cure": "Into the cure",
    "rest": "Rinse, and dry the surface",
    "smoke": "Into the smoke",
    "cook": "Into the smoke",
    "chill": "Chill",
    "slice": "Slice and pack",
    "dry": "Hang to dry",
    "age": "Hang to age",
}


def words_of(kind: str) -> str:
    """What a job is called."""
    return _WORDS.get(kind, kind[:1].upper() + kind[1:])


def in_loads(step: WayStep, loads: int) -> WayStep:
    """``step`` done in so many ``loads`` of the smoker: each takes its minutes and its fuel."""
    if step.kind not in SMOKED or loads == 1:
        return step
    used = tuple(replace(use, amount=use.amount * loads) if use.per == "batch" else use for use in step.used)
    return replace(step, batch_minutes=step.batch_minutes * loads, used=used)


def list_jobs(steps: Sequence[WayStep], grams: float, *, own: OwnRecord, loads: int = 1) -> list[Job]:
    """The jobs of ``steps`` for so many raw grams; hours of ``own`` fires go before the start values, and
    ``loads`` of the smoker go one after the other.
    """
    jobs = []
    for step in steps:
        minutes = step.batch_minutes + step.kilo_minutes * Fraction(grams) / 1000
        hands = timedelta(minutes=round(float(minutes)))
        least = _least(step, own, loads)
        jobs.append(
            Job(
                kind=step.kind,
                hands=hands,
                least=least,
                most=least * MOST_TIMES if step.kind == "cure" else None,
                reserve=_reserve(step, own),
                holder=_HOLDERS.get(step.kind, ""),
                is_watched=step.method in WATCHED,
                is_followed_at_once=step.kind == "smoke",
            )
        )
    return jobs


def _least(step: WayStep, own: OwnRecord, loads: int) -> timedelta:
    fires = own.fires.get(step.method)
    hours = SMOKE_HOURS.get(step.method) if fires is None else fires.hours
    if hours is not None:
        return timedelta(hours=hours) * loads
    if step.days:
        return timedelta(days=step.days) - NIGHT
    return NIGHT if step.kind == "chill" else NO_TIME


def _reserve(step: WayStep, own: OwnRecord) -> timedelta:
    """Kept free where it is known to run late: by own fires, else after a long cook."""
    fires = own.fires.get(step.method)
    if fires is not None and fires.late_hours is not None:
        return timedelta(hours=fires.late_hours)
    return PULLED_RESERVE if step.method == "pulled" else NO_TIME
