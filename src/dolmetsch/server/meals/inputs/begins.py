"""When the list of tasks of a batch says that its steps begin."""

from datetime import datetime
from typing import Final

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.meals.inputs.jobs import SMOKED
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.plans.over import find_over

#: Tasks that begin a kind of step; the one that ends the cure begins what comes after it.
AFTER_CURE: Final = "after cure"
_BEGINS: Final = {"out": AFTER_CURE, "smoke": "smoke", "hang": "dry"}


def list_begins(batch: Batch) -> dict[str, datetime]:
    """When each kind of step begins by the open tasks of ``batch``, for the last of its pieces."""
    mine = PlannedTask.objects.filter(batch=batch, state="open", kind__in=_BEGINS)
    tasks = list(mine.order_by("due_at"))
    over = find_over(tasks)
    return {_BEGINS[task.kind]: task.due_at for task in tasks if task.pk not in over}


def places_of(kinds: list[str], begins: dict[str, datetime]) -> dict[int, datetime]:
    """The positions of those steps of these ``kinds`` that begin at a time the list says."""
    found = {}
    for kind, at in begins.items():
        if kind == AFTER_CURE and "cure" in kinds[:-1]:
            found[kinds.index("cure") + 1] = at
        elif kind == "smoke" and (smoked := [place for place, one in enumerate(kinds) if one in SMOKED]):
            found[smoked[0]] = max(at, found.get(smoked[0], at))
        elif kind in kinds:
            found[kinds.index(kind)] = at
    return found
