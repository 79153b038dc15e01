"""What simulated devices have in common: a clock, a memory, commands, silence and rubbish."""

from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from random import Random
from typing import Final

from dolmetsch.devices.cooker.lines import CookerReading, read_time

#: It remembers so many readings that nobody said they have.
MEMORY: Final = 50_000
FASTEST: Final = 600.0

Commands = dict[tuple[str, int], Callable[..., None]]


@dataclass(slots=True, kw_only=True)
class Simulation:
    """A simulated device at its own clock ``now``; a sort of device says what it reads and what it can do."""

    now: datetime
    random: Random
    speed: float = 1.0
    kept: deque[CookerReading] = field(default_factory=lambda: deque(maxlen=MEMORY))
    silent_until: datetime | None = None
    rubbish_until: datetime | None = None

    def is_silent(self) -> bool:
        """Whether it says nothing now."""
        return self.silent_until is not None and self.now < self.silent_until

    def is_rubbish(self) -> bool:
        """Whether it sends rubbish now."""
        return self.rubbish_until is not None and self.now < self.rubbish_until

    def list_since(self, after: datetime) -> list[CookerReading]:
        """What it remembers of the time after ``after``."""
        return [one for one in self.kept if one.at > after]

    def forget(self, until: datetime) -> None:
        """Forget what is kept elsewhere."""
        while self.kept and self.kept[0].at <= until:
            self.kept.popleft()

    def do(self, words: list[str]) -> str:
        """Do a command; its answer."""
        name, *rest = words or [""]
        act = self._find(name.upper(), rest)
        if act is None:
            return "NO such command"
        try:
            act(*rest)
        except KeyError as error:
            return f"NO there is no {error.args[0]} here"
        except ValueError as error:
            return f"NO {error}"
        return "OK"

    def _find(self, name: str, rest: list[str]) -> Callable[..., None] | None:
        return (self._common() | self._commands()).get((name, len(rest)))

    def _common(self) -> Commands:
        return {
            ("SPEED", 1): self._set_speed,
            ("SILENT", 1): lambda seconds: self._until("silent_until", seconds),
            ("RUBBISH", 1): lambda seconds: self._until("rubbish_until", seconds),
            ("GOT", 1): lambda at: self.forget(read_time(at)),
        }

    def _commands(self) -> Commands:
        """What this sort of device can do besides."""
        raise NotImplementedError

    def _set_speed(self, times: str) -> None:
        speed = float(times)
        if not 1 <= speed <= FASTEST:
            raise ValueError(f"it runs at 1 to {FASTEST:.0f} times real time")
        self.speed = speed

    def _until(self, what: str, seconds: str) -> None:
        setattr(self, what, self.now + timedelta(seconds=float(seconds)))

    def _remember(self, values: dict[str, str]) -> CookerReading:
        reading = CookerReading(at=self.now.replace(microsecond=0), values=values)
        self.kept.append(reading)
        return reading


def this_moment() -> datetime:
    """The time at which a simulation begins."""
    return datetime.now(UTC)
