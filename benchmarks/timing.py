"""How long something takes, in milliseconds."""

import time
from collections.abc import Callable
from typing import Any


def timed(act: Callable[[], Any]) -> float:
    """Milliseconds of one call."""
    begun = time.perf_counter()
    act()
    return (time.perf_counter() - begun) * 1000


def percentile(times: list[float], part: int) -> float:
    """The time that ``part`` of a hundred stay within."""
    return sorted(times)[min(len(times) - 1, len(times) * part // 100)]
