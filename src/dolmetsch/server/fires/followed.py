"""A fire followed to its last reading, kept while nothing new is heard of it: many look, one computes."""

import threading
from collections import OrderedDict
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from dolmetsch.core.heat.follow_cook import FollowedCook, follow_cook
from dolmetsch.server.fires.models import Fire, ProbeReading
from dolmetsch.server.fires.story import (
    Story,
    build_log,
    clock_of,
    list_readings,
    plan_air,
    read_story,
    unit_of,
)

#: So many fires are kept by each worker; a long one takes some ten megabytes.
_MOST_KEPT: Final = 12
_kept: OrderedDict[int, tuple[tuple[Any, ...], FollowedCook]] = OrderedDict()
_lock = threading.Lock()


@dataclass(frozen=True, slots=True, kw_only=True)
class FollowedFire:
    """A fire's story, what follows from its readings, and the time it is there."""

    story: Story
    cook: FollowedCook
    now: datetime


def follow_fire(fire: Fire) -> FollowedFire:
    """``fire`` as it is now."""
    story = read_story(fire)
    now = story.done_at or clock_of(fire)
    last = None
    if fire.cooker:
        heard = ProbeReading.objects.filter(kitchen=fire.kitchen_id, cooker=fire.cooker)
        last = heard.order_by("-id").values_list("id", flat=True).first()
    # the air to come is planned from now on, so a minute later it is another
    minute = now.replace(second=0, microsecond=0)
    key = (last, len(story.events), unit_of(fire.kitchen), minute)
    with _lock:
        kept = _kept.get(fire.pk)
    if kept is not None and kept[0] == key:
        return FollowedFire(story=story, cook=kept[1], now=now)
    log = build_log(story, list_readings(story))
    cook = follow_cook(log, program=plan_air(story, now=now))
    with _lock:
        _kept[fire.pk] = (key, cook)
        _kept.move_to_end(fire.pk)
        while len(_kept) > _MOST_KEPT:
            _kept.popitem(last=False)
    return FollowedFire(story=story, cook=cook, now=now)
