"""Stages and events in words."""

from fractions import Fraction
from typing import Any, Final

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.temperature import TemperatureUnit, from_fahrenheit
from dolmetsch.server.fires.models import Fire, FireEvent

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
            return f"{data['piece']} by hand: {print_degrees(Fraction(data['fahrenheit']), unit)} °{unit}"
        case "tender":
            return _TENDER[data["text"]]
        case "fuel":
            return "fuel: " + " ".join(filter(None, (data["text"], data.get("amount"), _in_brackets(data))))
        case "note":
            return str(data["text"])
    text = data.get("text", "")
    return f"{_EVENTS[event.kind]}: {text}" if text else _EVENTS[event.kind]


def print_degrees(fahrenheit: Fraction, unit: TemperatureUnit) -> str:
    """A temperature in ``unit``, to a whole °F or a tenth of a °C."""
    return fixed(from_fahrenheit(fahrenheit, unit), 0 if unit == "F" else 1)


def _in_brackets(data: dict[str, Any]) -> str:
    return f"({data['price']})" if data.get("price") else ""
