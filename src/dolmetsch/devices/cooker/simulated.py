"""A simulated cooker: its fire, what hangs in it, its probes, and what can go wrong with each.

Commands, beside those of ``lines``: ``SPEED 60`` (times real time, 1 to 600), ``SET 225`` (air, °F),
``PROGRAM 130/60 180/90 225`` (air for so many minutes, the last without end), ``MEAT 1 45`` (a piece of so
many millimeters, with probe 1 in its middle), ``THIN 2 1`` (probe 2 in the thin end of probe 1's piece),
``TAKE 1`` (out, at room air), ``WRAP 1``, ``ICE 1``, ``FRIDGE 1``, ``BACK 1`` (into the cooker again),
``FIRE good|low|out``, ``DOOR open|closed``, ``WIND 0.5``, ``PULL 1`` and ``PUSH 1`` (the probe out of its
piece, and back), ``FAT 1`` (it sits in fat near the surface), ``SWAP 1 2`` (the two plugs), ``OFFSET 1
3.5`` (°F it reads too much), ``SILENT 30`` (seconds of its own clock without a line), ``RUBBISH 30``,
``CLEAR`` (nothing in it), ``PLAY FILE`` (say what a recorded log holds, a CSV of ``time,1,2,air`` in °F, from
now on at its own pace; then the fire goes on).
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import timedelta
from random import Random
from typing import Final

from dolmetsch.devices.cooker.fire import Fire, FireKind
from dolmetsch.devices.cooker.lines import AIR, MOST_PROBES, CookerReading
from dolmetsch.devices.cooker.meat import Cut, Slab
from dolmetsch.devices.cooker.recording import Recording, read_recording
from dolmetsch.devices.cooker.simulation import Commands, Simulation, this_moment

_ROOM, _FRIDGE, _START = 21.0, 3.0, 4.0
_STRENGTHS: Final = {"good": 1.0, "low": 0.45, "out": 0.0}
#: How far in a probe sits: the middle, and where there is fat.
_MIDDLE, _IN_FAT = 1.0, 0.35


def to_celsius(fahrenheit: float) -> float:
    """°F as °C."""
    return (fahrenheit - 32) / 1.8


def to_fahrenheit(celsius: float) -> float:
    """°C as °F."""
    return celsius * 1.8 + 32


@dataclass(slots=True)
class Piece:
    """A slab and where it is: ``fire``, ``room``, ``ice`` or ``fridge``."""

    slab: Slab
    where: str = "fire"


@dataclass(slots=True)
class Plug:
    """A probe: in which piece (by its key), how deep, how far off; ``is_out``: it hangs in the air."""

    piece: str
    depth: float = _MIDDLE
    offset: float = 0.0
    is_out: bool = False


@dataclass(slots=True, kw_only=True)
class SimulatedCooker(Simulation):
    """A fire, what hangs in it, and probes."""

    fire: Fire = field(init=False)
    pieces: dict[str, Piece] = field(default_factory=dict)
    plugs: dict[str, Plug] = field(default_factory=dict)
    stages: list[tuple[float, float]] = field(default_factory=list)
    played: Recording | None = None

    def __post_init__(self) -> None:
        kind = FireKind()
        self.fire = Fire(kind=kind, random=self.random, air=kind.outside, goal=to_celsius(225))

    def go_on(self, seconds: float) -> CookerReading:
        """Let so much time of its own pass; what the probes read then. It is remembered."""
        self.now += timedelta(seconds=seconds)
        if self.played is not None:
            values = self.played.go_on(seconds)
            if values is not None:
                return self._remember(values)
            self.played = None
        self._follow_program(seconds)
        air = self.fire.burn(seconds)
        for piece in self.pieces.values():
            piece.slab.in_ice = piece.where == "ice"
            around = {"fire": air, "room": _ROOM, "fridge": _FRIDGE}.get(piece.where, 0.0)
            piece.slab.warm(seconds, air=around, vapor=3500.0 if piece.where == "fire" else 900.0)
        values = {AIR: self._print(air + self.random.gauss(0, 0.4))}
        for name in sorted(self.plugs):
            values[name] = self._print(self._read(self.plugs[name], air))
        return self._remember(values)

    def _follow_program(self, seconds: float) -> None:
        if not self.stages:
            return
        goal, minutes = self.stages[0]
        self.fire.goal = to_celsius(goal)
        if len(self.stages) > 1:
            left = minutes - seconds / 60
            self.stages[0] = (goal, left)
            if left <= 0:
                del self.stages[0]

    def _read(self, plug: Plug, air: float) -> float:
        piece = self.pieces.get(plug.piece)
        inside = air if plug.is_out or piece is None else piece.slab.read_at(plug.depth)
        return inside + self.random.gauss(0, 0.1) + plug.offset / 1.8

    @staticmethod
    def _print(celsius: float) -> str:
        return f"{min(max(to_fahrenheit(celsius), -40.0), 999.0):.1f}"

    def _find(self, name: str, rest: list[str]) -> Callable[..., None] | None:
        if name == "PROGRAM" and rest:
            return self._set_program
        # called by name: a dataclass with slots is made anew, which super() alone would not find
        return Simulation._find(self, name, rest)

    def _commands(self) -> Commands:
        return {
            ("SET", 1): self._set_air,
            ("MEAT", 2): self._put_meat,
            ("THIN", 2): self._put_thin,
            ("TAKE", 1): lambda probe: self._move(probe, "room"),
            ("ICE", 1): lambda probe: self._move(probe, "ice"),
            ("FRIDGE", 1): lambda probe: self._move(probe, "fridge"),
            ("BACK", 1): lambda probe: self._move(probe, "fire"),
            ("WRAP", 1): self._wrap,
            ("FIRE", 1): self._set_fire,
            ("DOOR", 1): self._set_door,
            ("WIND", 1): self._set_wind,
            ("PULL", 1): lambda probe: setattr(self.plugs[probe], "is_out", True),
            ("PUSH", 1): lambda probe: setattr(self.plugs[probe], "is_out", False),
            ("FAT", 1): lambda probe: setattr(self.plugs[probe], "depth", _IN_FAT),
            ("SWAP", 2): self._swap,
            ("OFFSET", 2): self._set_offset,
            ("CLEAR", 0): self._clear,
            ("PLAY", 1): self._play,
        }

    def _set_air(self, fahrenheit: str) -> None:
        self.stages = [(_air(fahrenheit), 0.0)]

    def _set_program(self, *stages: str) -> None:
        parts = [stage.partition("/") for stage in stages]
        self.stages = [(_air(air), float(minutes or 0)) for air, _, minutes in parts]

    def _put_meat(self, probe: str, millimeters: str) -> None:
        thickness = float(millimeters)
        if probe not in {str(number) for number in range(1, MOST_PROBES + 1)}:
            raise ValueError(f"its probes are 1 to {MOST_PROBES}")
        if not 10 <= thickness <= 250:
            raise ValueError("a piece is 10 to 250 mm thick")
        self.pieces[probe] = Piece(slab=Slab.at(_START, Cut(thickness=thickness / 1000)))
        self.plugs[probe] = Plug(piece=probe)

    def _put_thin(self, probe: str, beside: str) -> None:
        thick = self.pieces[beside].slab.cut
        self._put_meat(probe, str(thick.thickness * 1000 * 0.7))

    def _move(self, probe: str, where: str) -> None:
        self.pieces[self.plugs[probe].piece].where = where

    def _wrap(self, probe: str) -> None:
        self.pieces[self.plugs[probe].piece].slab.is_wrapped = True

    def _set_fire(self, how: str) -> None:
        self.fire.strength = _STRENGTHS[how.lower()]

    def _set_door(self, how: str) -> None:
        if how.lower() not in ("open", "closed"):
            raise ValueError("a door is open or closed")
        self.fire.door_open = how.lower() == "open"

    def _set_wind(self, how: str) -> None:
        self.fire.wind = min(max(float(how), 0.0), 1.0)

    def _swap(self, one: str, other: str) -> None:
        self.plugs[one], self.plugs[other] = self.plugs[other], self.plugs[one]

    def _set_offset(self, probe: str, fahrenheit: str) -> None:
        self.plugs[probe].offset = float(fahrenheit)

    def _play(self, path: str) -> None:
        self.played = read_recording(path)

    def _clear(self) -> None:
        self.pieces.clear()
        self.plugs.clear()


def _air(text: str) -> float:
    fahrenheit = float(text)
    if not 50 <= fahrenheit <= 600:
        raise ValueError("a cooker holds 50 to 600 °F")
    return fahrenheit


def open_cooker(seed: int | None) -> SimulatedCooker:
    """A cold cooker with nothing in it, at the time it is."""
    return SimulatedCooker(now=this_moment(), random=Random(seed))  # noqa: S311 (no secret)
