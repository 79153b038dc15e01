"""What asks for the cook now: an alarm stays until it is over; quieted, it only makes no sound."""

from collections.abc import Callable, Iterator, Sequence
from datetime import datetime
from fractions import Fraction
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS
from dolmetsch.core.numbers.span import REACHED
from dolmetsch.core.reference.fire import (
    COLD_AIR_SECONDS,
    FIRE_LOW_DROP,
    HOT_AIR_OVER,
    HOT_AIR_SECONDS,
)
from dolmetsch.core.reference.heat import CURED_COOLING, PLAIN_COOLING
from dolmetsch.devices.cooker.lines import AIR
from dolmetsch.server.fires import schemas as out
from dolmetsch.server.fires.followed import FollowedFire, is_on, list_troubles
from dolmetsch.server.fires.models import FirePiece
from dolmetsch.server.fires.story import air_asked, seconds_of, unit_of
from dolmetsch.server.fires.words import say_next
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.temperatures import print_degrees
from dolmetsch.server.upward import Upward

#: A leg of cooling that has used up so much of its time is called out before it fails.
_NEARLY_UP: Final = Fraction(4, 5)


#: How many pieces hang in chambers.
hanging: Final = Upward[Callable[[Kitchen], int]]("hooks")


def read_alarms(kitchen: Kitchen, burning: Sequence[FollowedFire]) -> out.AlarmsOut:
    """The alarms of ``burning``, the fires not done yet, and how many pieces hang in fires and chambers."""
    fires = [followed.story.fire for followed in burning]
    return out.AlarmsOut(
        alarms=[alarm for followed in burning for alarm in list_alarms(followed)],
        pieces=FirePiece.objects.filter(fire__in=fires).count() + hanging()(kitchen),
    )


def list_alarms(followed: FollowedFire) -> list[out.AlarmOut]:
    """The alarms of a fire."""
    story = followed.story
    if story.done_at is not None:
        return []
    quiet = {event.data["text"] for event in story.events if event.kind == "quiet"}
    return [
        out.AlarmOut(fire=story.fire.pk, name=story.fire.name, key=key, text=text, is_quiet=key in quiet)
        for key, text in _find(followed)
    ]


def _find(followed: FollowedFire) -> Iterator[tuple[str, str]]:
    story, cook = followed.story, followed.cook
    last = cook.moments[-1].at if cook.moments else None
    for one in list_troubles(cook):
        if is_on(one, cook):
            yield f"{one.code} {one.probe or ''} {int(one.start)}", one.text
    if story.out_at is None:
        yield from _find_burning(followed)
    if (
        story.fire.cooker
        and seconds_of(followed.now) - (last or seconds_of(story.fire.begun_at)) > STALE_SECONDS
    ):
        yield (
            f"silent {int(last or 0)}",
            f"Nothing has been heard of {story.fire.cooker} for over 10 minutes.",
        )
    yield from _find_cooling(followed)


def _find_burning(followed: FollowedFire) -> Iterator[tuple[str, str]]:
    story, cook = followed.story, followed.cook
    fire, unit = story.fire, unit_of(story.fire.kitchen)
    yield from _find_cold_air(followed)
    due = say_next(story, cook, now=followed.now)
    if due is not None and " now" in due:
        yield f"stage {len(story.stages)}", f"Next stage is due: {due}."
    else:
        yield from _find_hot_air(followed)
    ready = cook.ready
    if ready is None or ready.span is None or fire.pull_at is None:
        return
    if ready.why == REACHED:
        yield "pull", f"{print_degrees(Fraction(fire.pull_at), unit)} °{unit} is reached: pull it."
    elif fire.meal_at is not None and ready.span.likely > seconds_of(fire.meal_at):
        yield "late", "It is likely to be ready after the meal: cook hotter, wrap it, or move the meal."


def _find_cold_air(followed: FollowedFire) -> Iterator[tuple[str, str]]:
    """An air that has long been far under what the stage asks for, which a change of stage hides from the
    trouble of a low fire: that is measured by the air of the same stage before.
    """
    story, cook = followed.story, followed.cook
    index, begun = story.stages[-1]
    wanted = air_asked(story)
    if wanted is None or any(one.code == "fire_low" and is_on(one, cook) for one in cook.troubles):
        return
    limit = wanted - FIRE_LOW_DROP
    now = _air_beyond(followed, begun, lambda air: air < limit, COLD_AIR_SECONDS)
    if now is not None:
        unit = unit_of(story.fire.kitchen)
        goal = print_degrees(wanted, unit)
        air = print_degrees(now, unit)
        yield f"cold {index}", f"The air is at {air} °{unit}, the program wants {goal}: look at the fire."


def _find_hot_air(followed: FollowedFire) -> Iterator[tuple[str, str]]:
    """An air far over what the stage asks for; a cold smoke that is too warm is a trouble of its own."""
    story = followed.story
    index, begun = story.stages[-1]
    wanted = air_asked(story)
    if wanted is None or story.fire.stages[index]["kind"] == "cold_smoke":
        return
    limit = wanted + HOT_AIR_OVER
    now = _air_beyond(followed, begun, lambda air: air > limit, HOT_AIR_SECONDS)
    if now is not None:
        unit = unit_of(story.fire.kitchen)
        goal = print_degrees(wanted, unit)
        yield (
            f"hot {index}",
            f"The air is at {print_degrees(now, unit)} °{unit}, the stage asks for {goal}: bank the fire, "
            "or go on to the stage it is at.",
        )


def _air_beyond(
    followed: FollowedFire, begun: datetime, is_beyond: Callable[[Fraction], bool], seconds: int
) -> Fraction | None:
    """The air now, where it was beyond a limit in this stage for at least so long; else None."""
    readings, now = followed.cook.log.readings, None
    since: Fraction | None = None
    for reading in reversed(readings):
        air = reading.values.get(AIR)
        if air is None:
            continue
        if not is_beyond(air) or reading.at < seconds_of(begun):
            break
        since, now = reading.at, air if now is None else now
    return now if since is not None and readings[-1].at - since >= seconds else None


def _find_cooling(followed: FollowedFire) -> Iterator[tuple[str, str]]:
    cooling, unit = followed.cook.cooling, unit_of(followed.story.fire.kitchen)
    for legs, table in ((cooling.plain, PLAIN_COOLING), (cooling.cured, CURED_COOLING)):
        for row in table if legs is not None else ():
            leg = legs and legs[row.name]
            goal = f"{print_degrees(row.end, unit)} °{unit}"
            if leg and leg.state == "failed" and leg.end is None:
                yield (
                    f"cooling {row.name} failed",
                    f"Too slow to {goal}: see what the rule says.",
                )
            elif leg and leg.state == "running" and leg.seconds > _NEARLY_UP * row.seconds:
                left = int(row.seconds - leg.seconds) // 60
                yield f"cooling {row.name}", f"{left} min left to {goal}: more ice, thinner pieces, more air."
