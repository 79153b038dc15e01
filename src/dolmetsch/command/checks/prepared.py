"""Tables and the demo, made once for a run of tests, as dumps that each of its processes loads."""

import shutil
import time
from pathlib import Path
from subprocess import DEVNULL, run
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.database import USER, Database
from dolmetsch.command.serving import migrate, server_environment
from dolmetsch.command.telling import TroubleError, say

#: Where the environment of the tests says that the dumps lie.
VARIABLE: Final = "DOLMETSCH_PREPARED"
#: Rows that Django itself puts into new tables.
OWN: Final = ("django_migrations", "django_content_type", "auth_permission")


def prepare_dumps(database: Database) -> Path:
    """The folder of tables.sql and demo.sql, made by way of ``database`` where code or day changed.

    Raises:
        TroubleError: they could not be made.
    """
    sources = [*(paths.ROOT / "src").rglob("*.py"), paths.ROOT / "requirements.txt"]
    # the demo moves with the day
    folder = paths.PRIVATE / "prepared" / paths.fingerprint(sources, time.strftime("%Y-%m-%d"))
    if folder.is_dir():
        return folder
    begun = time.monotonic()
    migrate(paths.LOGS, server_environment(database), has_demo=True)
    shutil.rmtree(folder.parent, ignore_errors=True)
    fresh = folder.with_suffix(".new")
    fresh.mkdir(parents=True)
    _dump(database, fresh / "tables.sql", [["--no-data", USER], ["--no-create-info", USER, *OWN]])
    others = [f"--ignore-table={USER}.{table}" for table in OWN]
    _dump(database, fresh / "demo.sql", [["--no-create-info", *others, USER]])
    fresh.rename(folder)
    say(f"Tables and demo for the tests made in {time.monotonic() - begun:.1f} s.")
    return folder


def load_into(database: Database, folder: Path, name: str) -> None:
    """Load tables.sql or demo.sql of ``folder`` into the records of ``database``."""
    command, env = database.client("mariadb", USER)
    load(folder / name, command, env)


def load(dump: Path, command: list[str], env: dict[str, str]) -> None:
    """Load ``dump`` by ``command``, a client of a record store.

    Raises:
        CalledProcessError: it was refused.
    """
    with dump.open("rb") as content:
        run([*command, "--default-character-set=utf8mb4"], stdin=content, env=env, check=True)


def _dump(database: Database, into: Path, parts: list[list[str]]) -> None:
    form = ("--default-character-set=utf8mb4", "--hex-blob", "--no-tablespaces", "--skip-dump-date")
    with into.open("wb") as out:
        for words in parts:
            # rows are loaded beneath the guards of their tables, which tables.sql makes
            guards = "--skip-triggers" if "--no-create-info" in words else "--triggers"
            command, env = database.client("mariadb-dump", *form, guards, *words)
            if run(command, stdin=DEVNULL, stdout=out, env=env, check=False).returncode:
                raise TroubleError(f"mariadb-dump of {into.name} failed.")
