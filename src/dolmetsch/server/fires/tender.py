"""When what is steamed or wrapped will be tender, planned back from the meal."""

from dataclasses import replace
from fractions import Fraction
from typing import Final

from dolmetsch.core.heat.follow_cook import FollowedCook
from dolmetsch.core.heat.moments import list_inside
from dolmetsch.core.heat.ready import forecast_ready
from dolmetsch.core.reference.cook_shrink import TENDER_INSIDE
from dolmetsch.core.reference.yields import PRIOR_BATCHES
from dolmetsch.server.fires import schemas as out
from dolmetsch.server.fires.models import Fire, FireEvent
from dolmetsch.server.fires.story import Story, moment_of, plan_air, unit_of
from dolmetsch.server.quantities.temperatures import print_degrees

#: Stages that go on until it is tender, and the own cooks that say when that is.
_TENDER_STAGES: Final = frozenset({"steam", "wrap"})
TENDER_READ: Final = 30


def show_tender(story: Story, followed: FollowedCook) -> out.TenderOut | None:
    """When what is steamed or wrapped will be tender: at the inside at which the kitchen's own were."""
    fire = story.fire
    is_tender = any(event.kind == "tender" and event.data["text"] == "yes" for event in story.events)
    if story.out_at is not None or is_tender or not _TENDER_STAGES & {one["kind"] for one in fire.stages}:
        return None
    own = _own_tender(fire)
    start = TENDER_INSIDE if fire.pull_at is None else float(fire.pull_at)
    goal = Fraction(round((PRIOR_BATCHES * start + sum(own)) / (PRIOR_BATCHES + len(own)), 1))
    program = plan_air(story, now=moment_of(followed.moments[-1].at)) if followed.moments else ()
    inside = list_inside(followed.moments)
    ready = forecast_ready(replace(followed.log, pull_at=goal), inside, program=program)
    if ready is None or ready.span is None:
        return None
    likely = moment_of(ready.span.likely)
    over = None if fire.meal_at is None else int((likely - fire.meal_at).total_seconds())
    at = print_degrees(goal, unit_of(fire.kitchen))
    return out.TenderOut(likely=likely, over_seconds=over, inside=at, cooks=len(own))


def _own_tender(fire: Fire) -> list[float]:
    """The inside (°F) at which the kitchen's latest cooks of this meat were said to be tender."""
    said = FireEvent.objects.filter(
        kitchen=fire.kitchen_id, kind="tender", data__text="yes", fire__meat=fire.meat
    ).order_by("-id")[:TENDER_READ]
    return [float(event.data["inside"]) for event in said if event.data.get("inside")]
