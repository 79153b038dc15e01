"""Telling the user what goes on, with times, and what to do when it does not."""

import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from subprocess import DEVNULL, PIPE, STDOUT, Popen, run


class TroubleError(Exception):
    """Something the user must know or do; printed plainly, exit status 1."""


class RefusedError(Exception):
    """Input that is refused; reported in one line on standard error, exit status 2."""


def say(words: str) -> None:
    """A line to the user, at once."""
    print(f"dolmetsch  {words}", flush=True)


@contextmanager
def step(words: str) -> Iterator[None]:
    """Say what begins, and how long it took."""
    say(f"{words} …")
    begun = time.monotonic()
    yield
    say(f"{words}: done in {time.monotonic() - begun:.1f} s")


def must(
    command: list[str], *, doing: str, log: Path, cwd: Path | None = None, env: dict[str, str] | None = None
) -> None:
    """Run ``command`` with its output in ``log``.

    Raises:
        TroubleError: where it fails, with the last lines and the log's place.
    """
    with log.open("w") as out:
        done = run(command, cwd=cwd, env=env, stdin=DEVNULL, stdout=out, stderr=STDOUT, check=False)
    if done.returncode:
        tail = "\n".join(f"    {line}" for line in log.read_text(errors="replace").splitlines()[-12:])
        raise TroubleError(f"{doing} failed (the whole output is in {log}):\n{tail}")


def answer_of(command: list[str]) -> str | None:
    """What ``command`` prints; None where it is missing or fails."""
    try:
        process = Popen(command, stdin=DEVNULL, stdout=PIPE, stderr=DEVNULL, text=True)
    except OSError:
        return None
    output, _ = process.communicate()
    return output.strip() if process.returncode == 0 else None
