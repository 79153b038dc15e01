"""The tables and the demo of this run, loaded from the dumps it was given."""

import os
import subprocess
from pathlib import Path

from django.conf import settings
from django.db import connection

from dolmetsch.command.checks.prepared import VARIABLE
from dolmetsch.command.database import USER, Database


def load_dump(name: str) -> None:
    """Load tables.sql or demo.sql into the test database."""
    found = settings.DATABASES["default"]
    command = ["mariadb", "--no-defaults", f"-h{found['HOST']}", f"-P{found['PORT']}", f"-u{found['USER']}"]
    _load(name, [*command, found["NAME"]], {**os.environ, "MYSQL_PWD": found["PASSWORD"]})


def load_into(database: Database, name: str) -> None:
    """Load tables.sql or demo.sql into the records of ``database``."""
    _load(name, *database.client("mariadb", USER))


def _load(name: str, command: list[str], env: dict[str, str]) -> None:
    with (Path(os.environ[VARIABLE]) / name).open("rb") as content:
        subprocess.run([*command, "--default-character-set=utf8mb4"], stdin=content, env=env, check=True)


def make_tables() -> str:
    """A test database with its tables; gives the name of the database it takes the place of."""
    before = connection.settings_dict["NAME"]
    name = connection.creation._create_test_db(verbosity=0, autoclobber=True)
    connection.close()
    settings.DATABASES["default"]["NAME"] = connection.settings_dict["NAME"] = name
    load_dump("tables.sql")
    return before
