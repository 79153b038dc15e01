"""One at a time: locks that the system releases when their process ends, however it ends."""

import fcntl
import json
import os
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from dolmetsch.command.paths import PRIVATE
from dolmetsch.command.telling import TroubleError, say


@contextmanager
def hold(name: str, *, busy: str) -> Iterator[None]:
    """Hold lock ``name``.

    Raises:
        TroubleError: saying ``busy``, where another process holds it.
    """
    with (PRIVATE / f"{name}.lock").open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as error:
            raise TroubleError(busy.format(**find_holder(name))) from error
        note_holder(name, pid=os.getpid())
        yield


@contextmanager
def wait_for(name: str) -> Iterator[None]:
    """Hold lock ``name``, waiting for it where need be."""
    with (PRIVATE / f"{name}.lock").open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            say("Another ./dolmetsch is setting up here; waiting for it …")
            fcntl.flock(lock, fcntl.LOCK_EX)
        yield


def is_held(name: str) -> bool:
    """Whether any process holds lock ``name``."""
    with (PRIVATE / f"{name}.lock").open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            return True
        return False


def note_holder(name: str, **facts: Any) -> None:
    """Leave ``facts`` about the holder of lock ``name`` for others to read."""
    path = PRIVATE / f"{name}.json"
    fresh = path.with_suffix(f".{os.getpid()}")
    fresh.write_text(json.dumps(facts))
    os.replace(fresh, path)


def find_holder(name: str) -> dict[str, Any]:
    """What the holder of lock ``name`` left; its process id at least, 0 if not even that."""
    try:
        facts: dict[str, Any] = json.loads((PRIVATE / f"{name}.json").read_text())
    except (OSError, ValueError):
        facts = {}
    return {"pid": 0, "address": "its address", **facts}
