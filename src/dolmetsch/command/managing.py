"""Commands over the records kept here: the recount of the books, and a kitchen written as one ZIP."""

import os

from dolmetsch.command import paths
from dolmetsch.command.database import Database
from dolmetsch.command.holding import find_holder, hold, is_held
from dolmetsch.command.machine import set_up
from dolmetsch.command.serving import server_environment
from dolmetsch.command.telling import must, say


def manage(*words: str, db_port: int) -> None:
    """Run a command of the application over the records here, and print what it says.

    Those of a start that runs, whose MariaDB is asked; else MariaDB is started for it, on ``db_port``.

    Raises:
        TroubleError: it failed, or there are no records here.
    """
    paths.prepare()
    running = is_held("start")
    port = int(find_holder("start").get("db_port", db_port)) if running else db_port
    database = Database(
        paths.PRIVATE / "mariadb", port=port, password=paths.get_secret("database"), durable=True
    )
    if running:
        _run(words, database)
        return
    set_up(for_tests=False)
    with hold("start", busy="Dolmetsch is being started here; try again."):
        database.start()
        try:
            _run(words, database)
        finally:
            database.stop()


def _run(words: tuple[str, ...], database: Database) -> None:
    log = paths.LOGS / "manage.log"
    env = {**os.environ, **server_environment(database)}
    must([str(paths.PYTHON), "-W", "ignore", "-m", "django", *words], doing=words[0], log=log, env=env)
    for line in log.read_text().splitlines():
        say(line)
