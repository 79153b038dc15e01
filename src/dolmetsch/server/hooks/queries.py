"""Reads: what hangs."""

from datetime import UTC, datetime

from django.db.models import QuerySet

from dolmetsch.server.fires.story import unit_of
from dolmetsch.server.hooks import schemas as out
from dolmetsch.server.hooks.chambers import show_chambers
from dolmetsch.server.hooks.drying import read_hook, show_air
from dolmetsch.server.hooks.models import Hook, HookNote
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import not_found

#: Hooks that were taken down lately, and notes of the air, that are shown.
DOWN_SHOWN, AIR_SHOWN = 12, 200


def get_hook(kitchen: Kitchen, hook_id: int) -> Hook:
    """The hook ``hook_id``.

    Raises:
        DomainError: not_found.
    """
    hook = Hook.objects.filter(kitchen=kitchen, pk=hook_id).select_related("batch").first()
    if hook is None:
        raise not_found("such hook")
    hook.batch.kitchen = kitchen
    return hook


def list_hanging(kitchen: Kitchen) -> list[Hook]:
    """Hooks that were not taken down, as they were hung."""
    hooks = _find_hanging(kitchen).select_related("batch")
    return _with_kitchen(kitchen, list(hooks.order_by("hung_at", "id")))


def count_hanging(kitchen: Kitchen) -> int:
    """How many pieces hang to dry."""
    return _find_hanging(kitchen).count()


def _find_hanging(kitchen: Kitchen) -> QuerySet[Hook]:
    return Hook.objects.filter(kitchen=kitchen).exclude(notes__kind="down")


def _with_kitchen(kitchen: Kitchen, hooks: list[Hook]) -> list[Hook]:
    for hook in hooks:
        hook.batch.kitchen = kitchen
    return hooks


def read_chamber(kitchen: Kitchen, *, now: datetime) -> out.ChamberOut:
    """What hangs, the next ready first."""
    hanging = [read_hook(hook, now=now) for hook in list_hanging(kitchen)]
    last = datetime.max.replace(tzinfo=UTC)
    down = Hook.objects.filter(kitchen=kitchen, notes__kind="down").select_related("batch")
    latest = _with_kitchen(kitchen, list(down.order_by("-id").distinct()[:DOWN_SHOWN]))
    air = HookNote.objects.filter(kitchen=kitchen, kind="air").order_by("-at", "-id")[:AIR_SHOWN]
    unit = unit_of(kitchen)
    return out.ChamberOut(
        unit=unit,
        hanging=sorted(hanging, key=lambda one: one.likely or last),
        down=[read_hook(hook, now=now) for hook in latest],
        air=show_air(list(reversed(air)), unit),
        chambers=show_chambers(kitchen, now=now),
    )
