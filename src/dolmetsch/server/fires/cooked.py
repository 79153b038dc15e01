"""What is kept of a fire with the event by which it ends: whether it is cooked, its peak, its hours."""

from dataclasses import replace
from datetime import datetime
from typing import Any

from dolmetsch.core.heat.cook_log import STALE_SECONDS
from dolmetsch.core.heat.follow_cook import FollowedCook, follow_cook
from dolmetsch.core.heat.inside import find_now
from dolmetsch.core.heat.moments import list_inside, list_moments
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.fires.of_batch import hours_in
from dolmetsch.server.fires.story import Story, build_log, list_readings, seconds_of


def is_cooked(followed: FollowedCook) -> bool:
    """Whether a reduction or the home rule is met."""
    lethality, home = followed.lethality, followed.home_rule
    is_met = lethality is not None and lethality.met_at_6_5 is not None
    return is_met or (home is not None and home.met_at is not None)


def inside_at(story: Story, *, at: datetime) -> str | None:
    """The coldest inside (°F) at a time; None where it was not read then."""
    log = build_log(story, [row for row in list_readings(story) if row[0] <= at])
    now = find_now(list_inside(list_moments(log)))
    return None if now is None or seconds_of(at) - now.at > STALE_SECONDS else fixed(now.fahrenheit, 1)


def how_cooked(story: Story, *, at: datetime) -> dict[str, Any]:
    """What is kept of a fire with the event by which it ends or goes on: whether it is cooked, its peak (°F)
    and its hours in the fire.
    """
    log = build_log(story, [row for row in list_readings(story) if row[0] <= at])
    followed = follow_cook(replace(log, pull_at=None))
    return {
        "cooked": is_cooked(followed),
        "peak": None if followed.peak is None else fixed(followed.peak.fahrenheit, 1),
        "hours": round(hours_in(story.fire, story.out_at or at), 2),
    }
