"""Stages and events in words."""

from datetime import datetime
from fractions import Fraction
from typing import Any, Final

from dolmetsch.core.heat.follow_cook import FollowedCook
from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.server.fires.models import Fire, FireEvent
from dolmetsch.server.fires.story import Story, unit_of
from dolmetsch.server.quantities.spoken import say_amount
from dolmetsch.server.quantities.temperatures import print_degrees

STAGES: Final = {
    "dry": "Dry",
    "cold_smoke": "Cold smoke",
    "smoke": "Smoke",
    "cook": "Cook",
    "steam": "Steam",
    "wrap": "Wrapped",
    "hold": "Hold",
}
_TENDER: Final = {"no": "not tender yet", "nearly": "nearly tender", "yes": "tender"}
_EVENTS: Final = {
    "wrap": "wrapped",
    "spritz": "spritzed",
    "taste": "tasted",
    "rest": "out of the fire, resting",
    "hold": "held warm",
    "cool": "cooling began",
    "done": "done",
    "quiet": "an alarm quieted",
    "import": "log taken in",
}


def label_stage(stage: dict[str, Any], unit: TemperatureUnit) -> str:
    """A stage in two words: "Smoke 180"."""
    air = stage["air"]
    return (
        STAGES[stage["kind"]]
        if air is None
        else f"{STAGES[stage['kind']]} {print_degrees(Fraction(air), unit)}"
    )


def describe_event(event: FireEvent, fire: Fire, unit: TemperatureUnit) -> str:
    """What happened, in a few words."""
    data = event.data
    match event.kind:
        case "probe":
            where = f", {data['where']}" if data.get("where") else ""
            return f"probe {data['probe']} in {data['piece']}{where}"
        case "swap":
            return f"probes {data['probe']} and {data['other']} were mixed up: swapped from here on"
        case "stage":
            return label_stage(fire.stages[data["stage"]], unit)
        case "instant":
            where = f", {data['where']}" if data.get("where") else ""
            read = f"{print_degrees(Fraction(data['fahrenheit']), unit)} °{unit}"
            return f"{data['piece']}{where} by hand: {read}"
        case "tender":
            return _TENDER[data["text"]]
        case "fuel":
            at = f" at {say_amount(data['price'])}" if data.get("price") else ""
            parts = [part for part in (data["text"], data.get("amount")) if part]
            return f"fuel: {', '.join(parts)}{at}" if parts else "fuel"
        case "note":
            return str(data["text"])
    # an alarm is named by its key, which is no word
    text = "" if event.kind == "quiet" else data.get("text", "")
    return f"{_EVENTS[event.kind]}: {text}" if text else _EVENTS[event.kind]


def say_next(story: Story, followed: FollowedCook, *, now: datetime) -> str | None:
    """When the next stage is due; None where it is the last, or it has no end that can be foreseen."""
    index, begun = story.stages[-1]
    if story.out_at is not None or index + 1 >= len(story.fire.stages):
        return None
    stage, unit = story.fire.stages[index], unit_of(story.fire.kitchen)
    name = label_stage(story.fire.stages[index + 1], unit)
    if stage["minutes"] is not None:
        left = int(Fraction(stage["minutes"]) - Fraction((now - begun).total_seconds()) / 60)
        return f"{name} in {left} min" if left > 0 else f"{name} now: {-left} min over"
    inside = followed.inside
    if stage["inside"] is not None:
        goal = print_degrees(Fraction(stage["inside"]), unit)
        is_there = inside is not None and inside.fahrenheit >= Fraction(stage["inside"])
        return f"{name} now: {goal} °{unit} is reached" if is_there else f"{name} at {goal} °{unit} inside"
    return f"{name} when you say so"
