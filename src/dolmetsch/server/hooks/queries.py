"""Reads: what hangs."""

from datetime import UTC, datetime

from dolmetsch.core.ledger.course import COURSE_FACTS, COURSES, Course
from dolmetsch.core.reference.drying import TARGET_PERCENT
from dolmetsch.server.batches.entries.chain import list_current, list_entry_rows
from dolmetsch.server.batches.entries.chosen_way import fetch_ways
from dolmetsch.server.batches.entries.course import course_said
from dolmetsch.server.fires.story import unit_of
from dolmetsch.server.hooks import schemas as out
from dolmetsch.server.hooks.chambers import show_chambers
from dolmetsch.server.hooks.drying import find_down, follow_hook, list_loose, read_hook, show_air
from dolmetsch.server.hooks.models import Hook, HookNote
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import not_found

#: Hooks that were taken down lately, and notes of the air, that are shown.
DOWN_SHOWN, AIR_SHOWN = 12, 200
#: So many of the latest hooks say what pieces are to lose.
HUNG_READ = 12


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
    """Hooks whose piece was neither taken down nor sliced, combined or thrown away, as they were hung."""
    hooks = Hook.objects.filter(kitchen=kitchen).exclude(notes__kind="down").select_related("batch")
    mine = _with_kitchen(kitchen, list(hooks.order_by("hung_at", "id")))
    return [hook for hook in mine if find_down(hook, ()) is None]


def count_hanging(kitchen: Kitchen) -> int:
    """How many pieces hang to dry."""
    return len(list_hanging(kitchen))


def find_targets(kitchen: Kitchen) -> dict[Course, str]:
    """What a piece is to lose, in per cent, by what it is to become: as hung here last, else as usual."""
    targets = {course: str(TARGET_PERCENT) for course in COURSES if COURSE_FACTS[course].is_dried}
    hooks = Hook.objects.filter(kitchen=kitchen).select_related("batch")
    latest = _with_kitchen(kitchen, list(hooks.order_by("-id")[:HUNG_READ]))
    fetch_ways([hook.batch for hook in latest])
    for hook in reversed(latest):
        course = course_said(hook.batch, hook.mark, list_current(list_entry_rows(hook.batch)))
        if course in targets:
            targets[course] = f"{(hook.target_loss * 100).normalize():f}"
    return targets


def _with_kitchen(kitchen: Kitchen, hooks: list[Hook]) -> list[Hook]:
    for hook in hooks:
        hook.batch.kitchen = kitchen
    return hooks


def read_chamber(kitchen: Kitchen, *, now: datetime) -> out.ChamberOut:
    """What hangs, the next ready first."""
    hooks = list_hanging(kitchen)
    hanging = [read_hook(hook, now=now) for hook in hooks]
    last = datetime.max.replace(tzinfo=UTC)
    down = Hook.objects.filter(kitchen=kitchen).exclude(pk__in=[hook.pk for hook in hooks])
    latest = _with_kitchen(kitchen, list(down.select_related("batch").order_by("-id")[:DOWN_SHOWN]))
    air = HookNote.objects.filter(kitchen=kitchen, kind="air").order_by("-at", "-id")[:AIR_SHOWN]
    unit = unit_of(kitchen)
    return out.ChamberOut(
        unit=unit,
        hanging=sorted(hanging, key=lambda one: one.likely or last),
        loose=list(list_loose(kitchen, {(hook.batch_id, follow_hook(hook).mark) for hook in hooks})),
        targets=find_targets(kitchen),
        down=[read_hook(hook, now=now) for hook in latest],
        air=show_air(list(reversed(air)), unit),
        chambers=show_chambers(kitchen, now=now),
    )
