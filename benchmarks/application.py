"""The application over a record store that holds the demo, as it is measured."""

import os
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from pathlib import Path

from dolmetsch.command.children import end, spawn
from dolmetsch.command.serving import WORKERS, gunicorn, migrate, wait_until_served
from dolmetsch.command.telling import say


def load_demo(folder: Path) -> None:
    """The tables and the demo, in the record store of this process's environment."""
    migrate(folder, dict(os.environ), has_demo=True)


@contextmanager
def served(port: int, folder: Path, env: Mapping[str, str]) -> Iterator[None]:
    """The application at ``port`` for so long, with ``env`` besides this process's own."""
    log = folder / "application.log"
    command = [*gunicorn(port), "--workers", str(WORKERS), "--preload"]
    process = spawn(command, log=log, env={**os.environ, **env})
    try:
        wait_until_served(port, process, log=log)
        yield
    except Exception:
        say(log.read_text(errors="replace")[-4000:])
        raise
    finally:
        end(process, patience=10)
