"""A recorded log that is played back: the CSV in which a fire's readings go out (``time,1,2,air``, °F)."""

import csv
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from dolmetsch.devices.cooker.lines import AIR, MOST_PROBES, read_time

_NAMES = frozenset({AIR, *(str(number) for number in range(1, MOST_PROBES + 1))})


@dataclass(slots=True)
class Recording:
    """Readings by their seconds from the first, and how far it has been played."""

    readings: list[tuple[float, dict[str, str]]]
    passed: float = 0.0

    def go_on(self, seconds: float) -> dict[str, str] | None:
        """What was read last after so much more time; None: it is over."""
        self.passed += seconds
        if self.passed > self.readings[-1][0]:
            return None
        return dict(next(values for at, values in reversed(self.readings) if at <= self.passed))


def read_recording(path: str) -> Recording:
    """The log in a file.

    Raises:
        ValueError: it cannot be read, or holds nothing to play.
    """
    try:
        with Path(path).open(encoding="utf-8", newline="") as file:
            rows = list(csv.DictReader(file))
    except OSError:
        raise ValueError(f"there is no file {path}") from None
    except UnicodeDecodeError:
        raise ValueError("it is no CSV") from None
    first: datetime | None = None
    found: list[tuple[float, dict[str, str]]] = []
    for row in rows:
        values = {name: text for name, text in row.items() if name in _NAMES and text and _is_number(text)}
        at = read_time(row.get("time") or "")
        first = first or at
        if values:
            found.append(((at - first).total_seconds(), values))
    if len(found) < 2 or found != sorted(found, key=lambda one: one[0]):
        raise ValueError("it holds no readings in order of time")
    return Recording(readings=found)


def _is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True
