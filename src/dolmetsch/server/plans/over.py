"""Tasks a weighing shows to be over: the piece was weighed after a later step, cut up, or thrown away."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime

from dolmetsch.core.planning.plan import TaskKind, is_behind
from dolmetsch.server.batches.models import Entry, Weighing
from dolmetsch.server.plans.models import PlannedTask

Act = Entry.Act
_STEPS = (Act.SPLIT, Act.WEIGH, Act.MERGE, Act.DISCARD)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Done:
    """A step that counts: what was done, to which pieces, recorded when; what a split made of its piece."""

    act: str
    kind: str
    marks: frozenset[str]
    made: frozenset[str]
    recorded_at: datetime


def find_over(tasks: Sequence[PlannedTask]) -> set[int]:
    """Keys of the open ones among ``tasks`` that every one of their pieces has behind it."""
    open_tasks = [task for task in tasks if task.state == PlannedTask.State.OPEN]
    steps = _list_steps({task.batch_id for task in open_tasks})
    return {task.pk for task in open_tasks if _is_over(task, steps.get(task.batch_id, []))}


def _is_over(task: PlannedTask, steps: Iterable[_Done]) -> bool:
    kind: TaskKind = task.kind  # type: ignore[assignment]
    waiting = set(task.marks)
    for step in steps:
        touched = waiting & step.marks
        if not touched or step.recorded_at <= task.recorded_at:
            continue
        if step.act == Act.DISCARD or is_behind(kind, step.kind):
            waiting -= touched
        elif step.act in (Act.SPLIT, Act.MERGE):
            # cut once more, or mixed: what came of it goes on
            waiting = (waiting - touched) | step.made
    return not waiting and bool(task.marks)


def _list_steps(batches: set[int]) -> dict[int, list[_Done]]:
    """The steps of each batch that count, in order: corrections applied, what was taken back left out."""
    counting = Entry.current.filter(batch_id__in=batches, act__in=_STEPS).select_related("corrects")
    # a correction counts in the place of the first of its line, and was known since then
    entries = sorted(((entry.corrects or entry, entry) for entry in counting), key=lambda pair: pair[0].pk)
    weighed: dict[int, list[Weighing]] = {}
    lines_of = Weighing.objects.filter(entry__in=[entry.pk for _, entry in entries])
    for line in lines_of.only("entry_id", "mark", "role"):
        weighed.setdefault(line.entry_id, []).append(line)
    steps: dict[int, list[_Done]] = {}
    for first, entry in entries:
        lines = weighed.get(entry.pk, [])
        made = frozenset(line.mark for line in lines if line.role == Weighing.Role.MAIN)
        same = frozenset(line.mark for line in lines if line.role == Weighing.Role.SAME)
        entered = {entry.from_mark} if entry.act == Act.SPLIT else set(entry.marks) | same
        steps.setdefault(entry.batch_id, []).append(
            _Done(
                act=entry.act,
                kind=entry.kind,
                marks=frozenset(entered),
                made=made,
                recorded_at=first.recorded_at,
            )
        )
    return steps
