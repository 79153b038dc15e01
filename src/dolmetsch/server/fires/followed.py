"""A fire followed to its last reading, kept while nothing new is heard of it: many look, one computes."""

import threading
from collections import OrderedDict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from fractions import Fraction
from typing import Any, Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS
from dolmetsch.core.heat.follow_cook import FollowedCook, follow_cook
from dolmetsch.core.heat.thinning import thin
from dolmetsch.core.heat.troubles import Trouble
from dolmetsch.core.numbers.temperature import TemperatureUnit, from_fahrenheit
from dolmetsch.server.fires.models import Fire, ProbeReading
from dolmetsch.server.fires.schemas import Point
from dolmetsch.server.fires.story import (
    Story,
    build_log,
    clock_of,
    list_readings,
    plan_air,
    read_story,
    seconds_of,
    unit_of,
)

#: So many fires are kept by each worker; a long one takes some ten megabytes.
_MOST_KEPT: Final = 12
#: Points of a curve that are drawn.
POINTS: Final = 240
_kept: OrderedDict[int, tuple[tuple[Any, ...], FollowedCook, Mapping[str, list[Point | None]]]] = (
    OrderedDict()
)
_lock = threading.Lock()


@dataclass(frozen=True, slots=True, kw_only=True)
class FollowedFire:
    """A fire's story, what follows from its readings, the time there, and each probe's curve as drawn."""

    story: Story
    cook: FollowedCook
    now: datetime
    curves: Mapping[str, list[Point | None]]


def is_on(trouble: Trouble, cook: FollowedCook) -> bool:
    """Whether a trouble of ``cook`` goes on at its last moment."""
    return trouble.end >= cook.moments[-1].at


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
        return FollowedFire(story=story, cook=kept[1], now=now, curves=kept[2])
    log = build_log(story, list_readings(story))
    cook = follow_cook(log, program=plan_air(story, now=now))
    curves = draw_curves(cook, fire.begun_at)
    with _lock:
        _kept[fire.pk] = (key, cook, curves)
        _kept.move_to_end(fire.pk)
        while len(_kept) > _MOST_KEPT:
            _kept.popitem(last=False)
    return FollowedFire(story=story, cook=cook, now=now, curves=curves)


def draw_curves(cook: FollowedCook, begun_at: datetime) -> dict[str, list[Point | None]]:
    """Each probe's curve by its id, thinned, a None in each gap: seconds since ``begun_at``, and degrees."""
    start, unit = float(seconds_of(begun_at)), cook.log.unit
    curves: dict[str, list[tuple[float, float]]] = {}
    for reading in cook.log.readings:
        at = float(reading.at) - start
        for probe, value in reading.values.items():
            curves.setdefault(probe, []).append((at, float(value)))
    return {probe: list(_part(thin(curve, most=POINTS), unit)) for probe, curve in curves.items()}


def _part(curve: Sequence[tuple[float, float]], unit: TemperatureUnit) -> Iterator[Point | None]:
    before: float | None = None
    for at, fahrenheit in curve:
        if before is not None and at - before > STALE_SECONDS:
            yield None
        yield [round(at), round(float(from_fahrenheit(Fraction(fahrenheit), unit)), 1)]
        before = at
