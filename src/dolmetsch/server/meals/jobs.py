"""The jobs of a method for so much meat: hands-on minutes, and how long each passes by itself."""

from collections.abc import Mapping
from datetime import timedelta
from fractions import Fraction
from statistics import median
from typing import Final

from dolmetsch.core.forecast.way import Way, WayStep
from dolmetsch.core.planning.count_back import NO_TIME, Holder, Job
from dolmetsch.server.fires.models import Fire, FireEvent
from dolmetsch.server.fires.story import OUT_KINDS
from dolmetsch.server.kitchens.models import Kitchen

#: A step of so many days is over when its last night is: so much less than whole days.
NIGHT: Final = timedelta(hours=12)
#: Hours in the smoke until the kitchen's own fires say better (start values of ours).
SMOKE_HOURS: Final[dict[str, int]] = {"hot_smoke": 6, "stepped_smoke": 6, "cold_smoke": 10, "pulled": 12}
#: A fire somebody stays at (ours); a long cook and a cold smoke go on through the night.
WATCHED: Final = ("hot_smoke", "stepped_smoke")
#: A measured cure may go on for twice as long (common practice); what else waits may wait.
MOST_TIMES: Final = 2
#: Kept free after a long cook, before it is served (common practice).
PULLED_RESERVE: Final = timedelta(hours=4)
#: So many of the latest fires are looked at.
FIRES_READ: Final = 30
_HOLDERS: Final[dict[str, Holder]] = {
    **dict.fromkeys(("cure", "rest", "chill", "age"), "fridge"),
    **dict.fromkeys(("smoke", "cook"), "smoker"),
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


def list_jobs(way: Way, grams: float, *, own_hours: Mapping[str, float], loads: int = 1) -> list[Job]:
    """The jobs of ``way`` for so many raw grams; ``own_hours``: in the smoke, by method, of own fires."""
    jobs = []
    for step in way.steps:
        minutes = step.batch_minutes + step.kilo_minutes * Fraction(grams) / 1000
        hands = timedelta(minutes=round(float(minutes) * (loads if step.kind in ("smoke", "cook") else 1)))
        least = _least(step, own_hours, loads)
        jobs.append(
            Job(
                kind=step.kind,
                hands=hands,
                least=least,
                most=least * MOST_TIMES if step.kind == "cure" else None,
                reserve=PULLED_RESERVE if step.method == "pulled" else NO_TIME,
                holder=_HOLDERS.get(step.kind, ""),
                is_watched=step.method in WATCHED,
                is_followed_at_once=step.kind == "smoke",
            )
        )
    return jobs


def _least(step: WayStep, own_hours: Mapping[str, float], loads: int) -> timedelta:
    hours = own_hours.get(step.method, SMOKE_HOURS.get(step.method))
    if hours is not None:
        return timedelta(hours=hours) * loads
    if step.days:
        return timedelta(days=step.days) - NIGHT
    return NIGHT if step.kind == "chill" else NO_TIME


def find_own_hours(kitchen: Kitchen) -> dict[str, float]:
    """Hours from into the smoke to out of it, the median of the latest fires, by the method they were."""
    fires = list(Fire.objects.filter(kitchen=kitchen).order_by("-id")[:FIRES_READ])
    begun = {fire.pk: fire.begun_at for fire in fires}
    hours: dict[int, float] = {}
    for event in FireEvent.objects.filter(fire__in=fires, kind__in=OUT_KINDS).order_by("-at", "-id"):
        hours[event.fire_id] = (event.at - begun[event.fire_id]).total_seconds() / 3600
    found: dict[str, list[float]] = {}
    for fire in fires:
        if fire.pk in hours:
            found.setdefault(_method_of(fire), []).append(hours[fire.pk])
    return {method: median(own) for method, own in found.items()}


def _method_of(fire: Fire) -> str:
    kinds = {stage["kind"] for stage in fire.stages}
    if kinds <= {"dry", "cold_smoke"}:
        return "cold_smoke"
    if fire.pull_at is not None and fire.pull_at > 185:
        return "pulled"
    return "stepped_smoke" if len(fire.stages) > 2 else "hot_smoke"
