"""A backup a day while Dolmetsch runs, the latest of them kept."""

import shutil
import sys
import time
from collections.abc import Callable
from pathlib import Path
from subprocess import Popen
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.backups.backup_file import FOLDER, name_backup
from dolmetsch.command.children import spawn
from dolmetsch.command.telling import say

#: A daily backup is due so long after the last, and not before a start has run this long.
DAY: Final = 24 * 3600.0
FIRST_AFTER: Final = 600.0
LOOK_EVERY: Final = 60.0
#: With less room than this no daily backup is made, and it is said.
LEAST_ROOM: Final = 500_000_000


class Daily:
    """Makes a backup when one is due, in a process of its own; ``keep``: how many stay, 0: none are made."""

    def __init__(self, *, keep: int, clock: Callable[[], float] = time.time) -> None:
        self.keep, self.clock = keep, clock
        self.begun = self.looked = clock()
        self.running: Popen[bytes] | None = None

    def look(self) -> None:
        """Begin a backup where one is due; remove the oldest once one has ended."""
        if self.running is not None and self.running.poll() is not None:
            if self.running.returncode:
                say(f"The daily backup failed; see {paths.LOGS / 'backup.log'}.")
            self.running = None
            prune(self.keep)
        if self.keep and self.running is None and self._is_due():
            self._begin()

    def _is_due(self) -> bool:
        now = self.clock()
        if abs(now - self.looked) < LOOK_EVERY:
            return False
        self.looked = now
        if 0 <= now - self.begun < FIRST_AFTER:
            return False
        daily = list_daily()
        # one of the future was made by a clock that has been set right since
        return not daily or abs(now - daily[-1].stat().st_mtime) >= DAY

    def _begin(self) -> None:
        into = name_backup("daily")
        if shutil.disk_usage(FOLDER).free < LEAST_ROOM:
            say("The disk is nearly full: no daily backup is made.")
            self.begun = self.clock()
            return
        command = [sys.executable, str(paths.ROOT / "dolmetsch"), "backup", str(into)]
        self.running = spawn(command, log=paths.LOGS / "backup.log")


def list_daily() -> list[Path]:
    """The daily backups there are, the oldest first."""
    found = FOLDER.glob("*-daily.tar") if FOLDER.is_dir() else []
    return sorted(found, key=lambda path: path.stat().st_mtime)


def prune(keep: int) -> None:
    """Remove the oldest daily backups, so that ``keep`` stay."""
    daily = list_daily()
    for old in daily[: max(len(daily) - keep, 0)]:
        old.unlink(missing_ok=True)
