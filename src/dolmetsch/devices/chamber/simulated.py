"""A simulated chamber: its air, its humidity, and what hangs on the hooks of its load cells.

It speaks the cooker's lines (``dolmetsch.devices.cooker.lines``) with ``air``, ``humidity`` and ``w1`` to
``w8``. Commands: ``SPEED 60`` (times real time, 1 to 600), ``SET 55`` (air, °F), ``HUMIDITY 76`` (per cent),
``HANG 1 1640`` (a piece of so many grams on load cell 1), ``OFF 1``, ``DOOR open|closed``, ``FAN on|off``,
``HUMIDIFIER on|out``, ``SILENT 30`` and ``RUBBISH 30`` (seconds of its own clock), ``GOT`` a time.
"""

from dataclasses import dataclass, field
from datetime import timedelta
from math import exp
from random import Random
from typing import Final

from dolmetsch.devices.cooker.lines import AIR, HUMIDITY, MOST_PROBES, CookerReading, cell
from dolmetsch.devices.cooker.simulation import Commands, Simulation, this_moment

#: The room outside: °F and per cent.
_ROOM, _ROOM_HUMIDITY = 68.0, 45.0
#: What would be left of a piece if it hung for ever, and its rate of drying a day in still air of 76 %.
_LEFT, _RATE = 0.50, 0.035
#: How fast air and humidity follow, in 1/h.
_FOLLOWS: Final = 2.0
#: The door lets the room in so much faster.
_DOOR: Final = 8.0


@dataclass(slots=True)
class Hanging:
    """A piece on a load cell: its weight now, and what would be left for ever, in grams."""

    grams: float
    left: float


@dataclass(slots=True, kw_only=True)
class SimulatedChamber(Simulation):
    """Its air, and what hangs on its load cells."""

    goal: float = 55.0
    humidity_goal: float = 76.0
    air: float = 55.0
    humidity: float = 76.0
    has_fan: bool = True
    has_humidifier: bool = True
    is_open: bool = False
    cells: dict[str, Hanging] = field(default_factory=dict)

    def go_on(self, seconds: float) -> CookerReading:
        """Let so much time of its own pass; what is read then. It is remembered."""
        self.now += timedelta(seconds=seconds)
        hours = seconds / 3600
        self.air = self._follow(self.air, self.goal, _ROOM, hours)
        wet = self.humidity_goal if self.has_humidifier else _ROOM_HUMIDITY
        self.humidity = min(self._follow(self.humidity, wet, _ROOM_HUMIDITY, hours), 99.0)
        for one in self.cells.values():
            one.grams = one.left + (one.grams - one.left) * exp(-self._rate() * hours / 24)
        values = {
            AIR: f"{self.air + self.random.gauss(0, 0.2):.1f}",
            HUMIDITY: f"{min(max(self.humidity + self.random.gauss(0, 0.5), 0.0), 100.0):.1f}",
        }
        for name in sorted(self.cells):
            values[cell(name)] = f"{max(self.cells[name].grams + self.random.gauss(0, 1.0), 0.0):.1f}"
        return self._remember(values)

    def _follow(self, value: float, goal: float, room: float, hours: float) -> float:
        value = goal + (value - goal) * exp(-_FOLLOWS * hours)
        return room + (value - room) * exp(-_DOOR * hours) if self.is_open else value

    def _rate(self) -> float:
        """Drying a day: drier air and a fan dry faster."""
        return _RATE * (100 - self.humidity) / 24 * (1.15 if self.has_fan else 0.85)

    def _commands(self) -> Commands:
        return {
            ("SET", 1): lambda text: self._set("goal", text, 30, 100),
            ("HUMIDITY", 1): lambda text: self._set("humidity_goal", text, 20, 99),
            ("HANG", 2): self._hang,
            ("OFF", 1): self._take_off,
            ("DOOR", 1): lambda how: self._switch("is_open", how, "open", "closed"),
            ("FAN", 1): lambda how: self._switch("has_fan", how, "on", "off"),
            ("HUMIDIFIER", 1): lambda how: self._switch("has_humidifier", how, "on", "out"),
        }

    def _set(self, what: str, text: str, least: float, most: float) -> None:
        value = float(text)
        if not least <= value <= most:
            raise ValueError(f"from {least:.0f} to {most:.0f}")
        setattr(self, what, value)

    def _switch(self, what: str, how: str, yes: str, no: str) -> None:
        if how.lower() not in (yes, no):
            raise ValueError(f"{yes} or {no}")
        setattr(self, what, how.lower() == yes)

    def _hang(self, name: str, grams: str) -> None:
        weight = float(grams)
        if name not in {str(number) for number in range(1, MOST_PROBES + 1)}:
            raise ValueError(f"its load cells are 1 to {MOST_PROBES}")
        if not 10 <= weight <= 50_000:
            raise ValueError("a piece weighs 10 g to 50 kg")
        self.cells[name] = Hanging(grams=weight, left=weight * _LEFT)

    def _take_off(self, name: str) -> None:
        del self.cells[name]


def open_chamber(seed: int | None) -> SimulatedChamber:
    """A chamber with nothing in it, at the time it is."""
    return SimulatedChamber(now=this_moment(), random=Random(seed))  # noqa: S311 (no secret)
