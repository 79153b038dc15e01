"""Watching over what ``start`` runs: what ends is started again, for as long as it takes.

Nothing that is watched can end the watch: a start that fails is reported and tried again, later each time.
"""

import signal
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Final

from dolmetsch.command.telling import TroubleError, say

#: Seconds until a failed start is tried again: doubled each time, up to the most.
FIRST_PAUSE: Final = 1.0
LONGEST_PAUSE: Final = 60.0
#: The longest rest of what comes up well and is ended again and again.
LONGEST_REST: Final = 4.0
#: What has run so long is taken to be well again.
WELL_AFTER: Final = 60.0


class StopAskedError(Exception):
    """Ctrl-C, or ./dolmetsch stop."""


def heed_stop() -> None:
    """From now on, being asked to stop raises StopAskedError, once."""
    for asked in (signal.SIGINT, signal.SIGTERM):
        signal.signal(asked, _ask_to_stop)


def _ask_to_stop(*_args: object) -> None:
    for asked in (signal.SIGINT, signal.SIGTERM):
        signal.signal(asked, signal.SIG_IGN)
    raise StopAskedError


@dataclass(slots=True, kw_only=True)
class Watched:
    """Something that is to run: whether it has ended, and how it is started again.

    ``pause``: how long the next failure waits; ``due``: when it may be tried again; ``up_since``: since when
    it has run without ending.
    """

    name: str
    has_ended: Callable[[], bool]
    start: Callable[[], None]
    pause: float = FIRST_PAUSE
    due: float = 0.0
    up_since: float = field(default_factory=time.monotonic)


def look_after(all_watched: Sequence[Watched], *, now: Callable[[], float] = time.monotonic) -> None:
    """One look: start again what has ended and is due, the first named first."""
    for one in all_watched:
        if not one.has_ended():
            if now() - one.up_since > WELL_AFTER:
                one.pause = FIRST_PAUSE
            continue
        if now() < one.due:
            continue
        say(f"{one.name} has ended; starting it again …")
        try:
            one.start()
        except (TroubleError, OSError) as error:
            say(f"{one.name} did not come up; trying again in {one.pause:.0f} s. {error}")
            one.due = now() + one.pause
            one.pause = min(one.pause * 2, LONGEST_PAUSE)
            continue
        one.up_since = now()
        # one that keeps coming up and ending at once waits longer too, but a kitchen waits for it
        one.pause = min(one.pause, LONGEST_REST)
        one.due = now() + one.pause
        one.pause = min(one.pause * 2, LONGEST_REST)
        say(f"{one.name} is back.")
