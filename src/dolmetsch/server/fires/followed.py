"""A fire followed to its last reading, kept while nothing new is heard of it: many look, one computes."""

import logging
import threading
import time
from collections import OrderedDict
from collections.abc import Iterator, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from datetime import datetime, timedelta
from fractions import Fraction
from typing import Any, Final

from django.db import connection

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog
from dolmetsch.core.heat.follow_cook import FollowedCook, follow_cook
from dolmetsch.core.heat.moments import list_inside
from dolmetsch.core.heat.ready import forecast_ready
from dolmetsch.core.heat.thinning import thin
from dolmetsch.core.heat.troubles import Trouble
from dolmetsch.core.numbers.span import TimeForecast
from dolmetsch.core.numbers.temperature import TemperatureUnit, from_fahrenheit
from dolmetsch.core.reference.fire import FIRE_LOW_DROP
from dolmetsch.devices.cooker.lines import AIR
from dolmetsch.server.fires.models import Fire, ProbeReading
from dolmetsch.server.fires.schemas import Point
from dolmetsch.server.fires.story import (
    Story,
    air_asked,
    build_log,
    clock_by,
    last_reading,
    list_readings,
    plan_air,
    read_story,
    seconds_of,
    unit_of,
)

_log = logging.getLogger(__name__)
#: Fires of so many readings together are kept by each worker: a reading takes one to two kilobytes.
_MOST_READINGS: Final = 150_000
#: A long fire takes a second to follow: whoever looks meanwhile sees it as it was, at most so long ago by the
#: fire's own clock.
BEHIND = timedelta(seconds=30)
#: Following a fire takes each worker at most one part in so many of its time, however often it is heard.
_SHARE: Final = 20
#: Of a fire that is heard no more, what is to come is worked out anew so seldom.
_SILENT_MINUTES: Final = 5
#: Points of a curve that are drawn.
POINTS: Final = 240


@dataclass(frozen=True, slots=True, kw_only=True)
class FollowedFire:
    """A fire's story, what follows from its readings, the time there, and each probe's curve as drawn.

    ``up_to``: the fire and what it was followed up to; the same wherever ``cook`` is.
    """

    story: Story
    cook: FollowedCook
    now: datetime
    curves: Mapping[str, list[Point | None]]
    up_to: tuple[Any, ...]
    lost: "LostFire | None" = None


@dataclass(frozen=True, slots=True, kw_only=True)
class LostFire:
    """A fire whose ``air`` is far under what its stage asks for (°F), and when it were ready if it were back.

    What the cook is forecast by then is the air as it is, not the program to come.
    """

    air: Fraction
    asked: Fraction
    if_back: TimeForecast | None


@dataclass(frozen=True, slots=True, kw_only=True)
class _Kept:
    """A fire as followed: ``acts`` are its events and unit, ``heard`` its last reading and the minute.

    ``made``: when, by this process's own clock, and how many seconds of a core it ``took``.
    """

    acts: tuple[Any, ...]
    heard: tuple[Any, ...]
    made: float
    took: float
    now: datetime
    cook: FollowedCook
    curves: Mapping[str, list[Point | None]]
    lost: LostFire | None


_kept: OrderedDict[int, _Kept] = OrderedDict()
_renewing: set[int] = set()
_lock = threading.Lock()
_renewer = ThreadPoolExecutor(max_workers=1, thread_name_prefix="follow")


def is_on(trouble: Trouble, cook: FollowedCook) -> bool:
    """Whether a trouble of ``cook`` goes on at its last moment."""
    return trouble.end >= cook.moments[-1].at


def list_troubles(cook: FollowedCook) -> list[Trouble]:
    """The troubles of ``cook``; time between readings by hand alone is none."""
    inside = {one.id for one in cook.log.inside}
    is_probed = any(not inside.isdisjoint(reading.values) for reading in cook.log.readings)
    return [one for one in cook.troubles if one.code != "gap" or is_probed]


def follow_fire(fire: Fire) -> FollowedFire:
    """``fire`` as it is now; where only readings are new, as it was up to ``BEHIND`` ago, while what
    they change is worked out beside it.
    """
    story, now, acts, heard = _look(fire)
    with _lock:
        kept = _kept.get(fire.pk)
    is_far_behind = kept is not None and kept.heard != heard and now - kept.now > BEHIND
    if kept is None or kept.acts != acts or is_far_behind:
        kept = _follow(story, now=now, acts=acts, heard=heard)
    elif kept.heard != heard and time.monotonic() - kept.made >= _SHARE * kept.took:
        _renew_beside(fire)
    up_to = (fire.pk, *kept.acts, *kept.heard)
    return FollowedFire(story=story, cook=kept.cook, now=now, curves=kept.curves, up_to=up_to, lost=kept.lost)


def _look(fire: Fire) -> tuple[Story, datetime, tuple[Any, ...], tuple[Any, ...]]:
    """The story of ``fire``, the time there, its acts, and what was heard: whether anything is new."""
    story, last = read_story(fire), last_reading(fire)
    now = story.done_at or clock_by(last)
    heard = (None if last is None else last.pk, _minute(now, last))
    return story, now, (len(story.events), unit_of(fire.kitchen)), heard


def _minute(now: datetime, last: ProbeReading | None) -> datetime:
    # the air to come is planned from now on, so a minute later it is another
    minute = now.replace(second=0, microsecond=0)
    if last is not None and (now - last.at).total_seconds() <= STALE_SECONDS:
        return minute
    return minute - timedelta(minutes=minute.minute % _SILENT_MINUTES)


def _follow(story: Story, *, now: datetime, acts: tuple[Any, ...], heard: tuple[Any, ...]) -> _Kept:
    fire, begun = story.fire, time.thread_time()
    log, program = build_log(story, list_readings(story)), plan_air(story, now=now)
    air, asked = last_air(log), air_asked(story)
    is_lost = air is not None and asked is not None and air < asked - FIRE_LOW_DROP
    cook = follow_cook(log, program=() if is_lost else program)
    lost = None
    if is_lost and air is not None and asked is not None:
        back = [(seconds_of(now), float(asked)), *program]
        if_back = forecast_ready(cook.log, list_inside(cook.moments), program=back)
        lost = LostFire(air=air, asked=asked, if_back=if_back)
    curves = draw_curves(cook, fire.begun_at)
    made = time.monotonic()
    kept = _Kept(
        acts=acts,
        heard=heard,
        made=made,
        took=time.thread_time() - begun,
        now=now,
        cook=cook,
        curves=curves,
        lost=lost,
    )
    with _lock:
        _kept[fire.pk] = kept
        _kept.move_to_end(fire.pk)
        while len(_kept) > 1 and _count_readings() > _MOST_READINGS:
            _kept.popitem(last=False)
    return kept


def last_air(log: CookLog) -> Fraction | None:
    """The air at the last reading of ``log``; None where it was not read then or shortly before."""
    for reading in reversed(log.readings):
        if reading.at < log.readings[-1].at - STALE_SECONDS:
            return None
        if AIR in reading.values:
            return reading.values[AIR]
    return None


def _count_readings() -> int:
    return sum(len(one.cook.log.readings) for one in _kept.values())


def forget() -> None:
    """Follow every fire anew when it is next looked at."""
    with _lock:
        _kept.clear()


def _renew_beside(fire: Fire) -> None:
    """Follow ``fire`` anew in a thread of its own, unless that is being done."""
    with _lock:
        if fire.pk in _renewing:
            return
        _renewing.add(fire.pk)
    _renewer.submit(_renew, fire)


def _renew(fire: Fire) -> None:
    try:
        story, now, acts, heard = _look(fire)
        _follow(story, now=now, acts=acts, heard=heard)
    except Exception:
        _log.exception("fire %s could not be followed", fire.pk)
    finally:
        connection.close()
        with _lock:
            _renewing.discard(fire.pk)


def draw_curves(cook: FollowedCook, begun_at: datetime) -> dict[str, list[Point | None]]:
    """Each probe's curve by its id, thinned, a None in each gap: seconds since ``begun_at``, and degrees."""
    start, unit = float(seconds_of(begun_at)), cook.log.unit
    curves: dict[str, list[tuple[float, float]]] = {}
    # by identity: of thousands of values most are the same few objects
    values = {id(value): value for reading in cook.log.readings for value in reading.values.values()}
    degrees = {name: float(value) for name, value in values.items()}
    for reading in cook.log.readings:
        at = float(reading.at) - start
        for probe, value in reading.values.items():
            curves.setdefault(probe, []).append((at, degrees[id(value)]))
    return {probe: list(_part(thin(curve, most=POINTS), unit)) for probe, curve in curves.items()}


def _part(curve: Sequence[tuple[float, float]], unit: TemperatureUnit) -> Iterator[Point | None]:
    before: float | None = None
    for at, fahrenheit in curve:
        if before is not None and at - before > STALE_SECONDS:
            yield None
        yield [round(at), round(float(from_fahrenheit(Fraction(fahrenheit), unit)), 1)]
        before = at
