"""The tables and the demo of this run, loaded from the dumps it was given."""

import os
from pathlib import Path

from django.conf import settings
from django.db import connection

from dolmetsch.command.checks import prepared
from dolmetsch.command.database import Database


def load_dump(name: str) -> None:
    """Load tables.sql or demo.sql into the test database."""
    found = settings.DATABASES["default"]
    command = ["mariadb", "--no-defaults", f"-h{found['HOST']}", f"-P{found['PORT']}", f"-u{found['USER']}"]
    env = {**os.environ, "MYSQL_PWD": found["PASSWORD"]}
    prepared.load(_folder() / name, [*command, found["NAME"]], env)


def load_into(database: Database, name: str) -> None:
    """Load tables.sql or demo.sql into the records of ``database``."""
    prepared.load_into(database, _folder(), name)


def _folder() -> Path:
    return Path(os.environ[prepared.VARIABLE])


def make_tables() -> str:
    """A test database with its tables; gives the name of the database it takes the place of."""
    before = connection.settings_dict["NAME"]
    name = connection.creation._create_test_db(verbosity=0, autoclobber=True)
    connection.close()
    settings.DATABASES["default"]["NAME"] = connection.settings_dict["NAME"] = name
    load_dump("tables.sql")
    return before
