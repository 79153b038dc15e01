"""What was done for a plan: by its jobs as they were ticked off, and by the batches that are made for it."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from django.utils import timezone

from dolmetsch.core.ledger.kinds import method_kind
from dolmetsch.core.planning.count_back import Job, WorkDay, ready_at
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.fires.models import FirePiece
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals.inputs.begins import list_begins, places_of
from dolmetsch.server.meals.inputs.listed import is_done, latest_news, list_made
from dolmetsch.server.meals.models import MealJob

_STEPS = (Entry.Act.BOUGHT, Entry.Act.SPLIT, Entry.Act.WEIGH, Entry.Act.MERGE, Entry.Act.WITHDRAW)


@dataclass(frozen=True, slots=True, kw_only=True)
class Fact:
    """When a job was done; ``is_over``: what passes by itself after it had passed by then."""

    at: datetime
    is_over: bool = False
    by_batch: bool = False


def find_facts(kitchen: Kitchen, jobs: Sequence[MealJob]) -> dict[int, Fact]:
    """Which of ``jobs`` are done, by their keys: those ticked off, and those the batch named for them shows.

    A job before one that is done is done too.
    """
    news = latest_news(jobs)
    facts: dict[int, Fact] = {
        job.pk: Fact(at=news[job.pk].happened_at) for job in jobs if is_done(news.get(job.pk))
    }
    made = list_made(kitchen) if jobs else {}
    for key, mine in _by_make(jobs).items():
        batch = made.get(key)
        if batch is not None:
            facts |= _follow_batch(batch, mine)
    return facts


def _by_make(jobs: Iterable[MealJob]) -> Mapping[tuple[str, tuple[str, ...]], list[MealJob]]:
    found: dict[tuple[str, tuple[str, ...]], list[MealJob]] = {}
    for job in jobs:
        found.setdefault((job.meal.name, tuple(job.products)), []).append(job)
    return found


def _follow_batch(batch: Batch, jobs: Sequence[MealJob]) -> dict[int, Fact]:
    """Jobs that ``batch`` shows to be done."""
    seen = _list_steps(batch)
    found: dict[int, Fact] = {}
    later: Fact | None = None
    for job in reversed(jobs):
        later = seen.get(job.kind, later)
        if later is not None:
            found[job.pk] = later
    return found


def _list_steps(batch: Batch) -> dict[str, Fact]:
    """When each kind of step was done first; a cure and a smoke begin before they are weighed."""
    seen: dict[str, Fact] = {}
    for entry in Entry.current.filter(batch=batch, act__in=_STEPS):
        kind = "buy" if entry.act == Entry.Act.BOUGHT else method_kind(entry.kind)
        at = entry.happened_at
        if kind not in seen or at < seen[kind].at:
            seen[kind] = Fact(at=at, is_over=True, by_batch=True)
    cured = PieceCure.objects.filter(batch=batch, taken_back__isnull=True).order_by("in_at").first()
    if cured is not None and "cure" not in seen:
        seen["cure"] = Fact(at=cured.in_at, by_batch=True)
    burnt = FirePiece.objects.filter(batch=batch).select_related("fire").order_by("fire__begun_at").first()
    if burnt is not None and "smoke" not in seen:
        seen["smoke"] = seen["cook"] = Fact(at=burnt.fire.begun_at, by_batch=True)
    return seen


def find_ready(
    jobs: Sequence[MealJob], facts: Mapping[int, Fact], now: datetime, day: WorkDay
) -> datetime | None:
    """When all is ready by what was done so far; None where nothing is on the list.

    What is not done is done as soon as it can be, but not before now, nor before the tasks of its batch say.
    A job that is done has its wait behind it from then on, or from when those tasks say that it is over.
    """
    if not jobs:
        return None
    made = list_made(jobs[0].kitchen)
    return max(
        _ready(mine, facts, now, day, list_begins(made[key]) if key in made else {})
        for key, mine in _by_make(jobs).items()
    )


def _ready(
    jobs: Sequence[MealJob],
    facts: Mapping[int, Fact],
    now: datetime,
    day: WorkDay,
    begins: dict[str, datetime],
) -> datetime:
    done = [place for place, job in enumerate(jobs) if job.pk in facts]
    first = done[-1] + 1 if done else 0
    left = jobs[first:]
    at = timezone.localtime(now)
    not_before = {
        place - first: timezone.localtime(moment)
        for place, moment in places_of([job.kind for job in jobs], begins).items()
        if place >= first
    }
    if done:
        last, fact = jobs[done[-1]], facts[jobs[done[-1]].pk]
        wait = timedelta() if fact.is_over or 0 in not_before else timedelta(minutes=last.wait_minutes)
        over = fact.at + wait
        at = timezone.localtime(max(over, now) if left else over)
    remaining = [
        Job(
            kind=job.kind,
            hands=timedelta(minutes=job.minutes),
            least=timedelta(minutes=job.wait_minutes),
        )
        for job in left
    ]
    return ready_at(remaining, at, day, not_before=not_before)
