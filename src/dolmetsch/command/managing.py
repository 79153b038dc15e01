"""Commands over the records kept here, beside a running start or without one."""

from collections.abc import Iterator
from contextlib import contextmanager
from subprocess import DEVNULL, PIPE, STDOUT, run
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.database import Database
from dolmetsch.command.holding import find_holder, hold, is_held
from dolmetsch.command.machine import set_up
from dolmetsch.command.serving import UNHURRIED, server_environment
from dolmetsch.command.telling import TroubleError, say

#: How Django begins the line that says why a command failed.
_SAID: Final = "CommandError: "


@contextmanager
def running_database(db_port: int) -> Iterator[Database]:
    """The MariaDB over the records here: that of a start that runs, or one started for it on ``db_port``.

    Raises:
        TroubleError: it does not come up, or a start begins just now.
    """
    running = is_held("start")
    port = int(find_holder("start").get("db_port", db_port)) if running else db_port
    database = Database(
        paths.PRIVATE / "mariadb", port=port, password=paths.get_secret("database"), durable=True
    )
    if running:
        yield database
        return
    set_up(for_tests=False)
    with hold("start", busy="Dolmetsch is being started here; try again."):
        database.start()
        try:
            yield database
        finally:
            database.stop()


def manage(*words: str, db_port: int) -> None:
    """Run a command of the application over the records here, and print what it says.

    Raises:
        TroubleError: it failed, or there are no records here.
    """
    paths.prepare()
    if not (paths.PRIVATE / "mariadb" / "up-to-date").is_file():
        raise TroubleError("There are no records here yet; ./dolmetsch start makes them.")
    with running_database(db_port) as database:
        env = {**server_environment(database), **UNHURRIED}
        command = [str(paths.PYTHON), "-W", "ignore", "-m", "django", *words]
        done = run(command, env=env, stdin=DEVNULL, stdout=PIPE, stderr=STDOUT, text=True, check=False)
    lines = done.stdout.splitlines()
    if done.returncode:
        (paths.LOGS / "manage.log").write_text(done.stdout)
        *before, last = lines or ["it said nothing"]
        for line in before if last.startswith(_SAID) else []:
            say(line)
        raise TroubleError(last.removeprefix(_SAID))
    for line in lines:
        say(line)
