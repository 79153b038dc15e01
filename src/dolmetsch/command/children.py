"""Child processes that end with this one, even when it is killed."""

import ctypes
import os
import signal
import time
from contextlib import suppress
from pathlib import Path
from subprocess import DEVNULL, STDOUT, Popen, TimeoutExpired
from typing import Final

#: Asks Linux to signal a child whose parent has died, however it died.
_PR_SET_PDEATHSIG: Final = 1
_libc = ctypes.CDLL(None)


def _follow_parent() -> None:
    """In the child: a terminal's Ctrl-C is the parent's affair; its death is ours too."""
    os.setsid()
    _libc.prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)


def spawn(
    command: list[str], *, log: Path, env: dict[str, str] | None = None, cwd: Path | None = None
) -> Popen[bytes]:
    """Start ``command``, its output added to ``log``."""
    with log.open("ab") as out:
        return Popen(
            command,
            stdin=DEVNULL,
            stdout=out,
            stderr=STDOUT,
            env=env,
            cwd=cwd,
            preexec_fn=_follow_parent,  # noqa: PLW1509 (nothing here runs threads)
        )


def end_orphans(*words: str) -> None:
    """End every process left of an earlier start whose command holds all of ``words``, by its own pid."""
    left = _find(words)
    for pid in left:
        _signal(pid, signal.SIGTERM)
    deadline = time.monotonic() + 2
    while left and time.monotonic() < deadline:
        time.sleep(0.05)
        left = [pid for pid in left if Path(f"/proc/{pid}").exists()]
    for pid in left:
        _signal(pid, signal.SIGKILL)


def _find(words: tuple[str, ...]) -> list[int]:
    found = []
    for folder in Path("/proc").iterdir():
        if not folder.name.isdigit() or int(folder.name) == os.getpid():
            continue
        try:
            command = (folder / "cmdline").read_bytes().decode(errors="replace")
        except OSError:
            continue
        if all(word in command for word in words):
            found.append(int(folder.name))
    return found


def _signal(pid: int, number: int) -> None:
    with suppress(ProcessLookupError, PermissionError):
        os.kill(pid, number)


def end(process: Popen[bytes], *, patience: float) -> None:
    """Ask ``process`` to end; insist after ``patience`` seconds."""
    if process.poll() is None:
        process.send_signal(signal.SIGTERM)
    try:
        process.wait(timeout=patience)
    except TimeoutExpired:
        process.kill()
        process.wait()
