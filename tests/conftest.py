"""What every test goes by."""

from contextlib import suppress
from datetime import timedelta

import pytest
from django.core.cache.backends.dummy import DummyCache
from hypothesis import HealthCheck, settings

from tests.prepared import make_tables

# how fast examples come and run tells how busy the machine is; speed is measured in benchmarks/
settings.register_profile(
    "ours", max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("ours")


def empty_by_truncating() -> None:
    """Let Django empty the test database table by table, of those that hold a row: a row of a record cannot
    be deleted, by trigger.
    """
    from django.db.backends.mysql.operations import DatabaseOperations

    usual = DatabaseOperations.sql_flush

    def sql_flush(self, style, tables, **_options):
        asked = " UNION ALL ".join(f"(SELECT '{table}' FROM {table} LIMIT 1)" for table in tables)
        with self.connection.cursor() as cursor:
            cursor.execute(asked)
            filled = [table for (table,) in cursor.fetchall()]
        return usual(self, style, filled, reset_sequences=True)

    DatabaseOperations.sql_flush = sql_flush


empty_by_truncating()


#: Files that take longest: begun first, so that no process is left with one at the end.
LONG = (
    "tests/command/test_benchmarks.py",
    "tests/server/test_api_document.py",
    "tests/server/test_meals_following.py",
    "tests/server/test_larder.py",
    "tests/command/test_backup.py",
    "tests/server/test_dishes.py",
    "tests/browser/test_access.py",
    "tests/browser/test_fire.py",
    "tests/browser/test_bench.py",
)


def pytest_collection_modifyitems(items):
    order = {file: at for at, file in enumerate(LONG)}
    items.sort(key=lambda item: order.get(item.nodeid.partition("::")[0], len(LONG)))


@pytest.fixture(scope="session")
def django_db_setup(request, django_test_environment, django_db_blocker, django_db_modify_db_settings):
    """The test database of this process, as pytest-django makes one, its tables from the dump of the run."""
    from django.db import connection

    with django_db_blocker.unblock():
        before = make_tables()
    yield
    with django_db_blocker.unblock():
        connection.creation.destroy_test_db(before, verbosity=0)


@pytest.fixture(scope="session", autouse=True)
def answers_are_kept_apart(worker_id):
    """By each process of a run: a test empties the folder."""
    from django.conf import settings
    from django.core.cache import caches

    settings.CACHES["default"]["LOCATION"] += f"-{worker_id}"
    with suppress(AttributeError):
        del caches["default"]


@pytest.fixture(autouse=True)
def passwords_are_hashed_quickly(monkeypatch):
    """As in use, but for the time that guessing is to cost."""
    from django.contrib.auth.hashers import Argon2PasswordHasher

    for name, cost in (("time_cost", 1), ("memory_cost", 8), ("parallelism", 1)):
        monkeypatch.setattr(Argon2PasswordHasher, name, cost)


@pytest.fixture(autouse=True)
def answers_are_worked_out(request, monkeypatch):
    """Tests change rows beside the one way to write, which a kept answer would not know of."""
    from dolmetsch.server.writing import kept_answers

    kept_answers.cache.clear()
    if request.node.get_closest_marker("kept_answers") is None:
        monkeypatch.setattr(kept_answers, "cache", DummyCache("", {}))


@pytest.fixture(autouse=True)
def fires_are_followed_at_once(request, monkeypatch):
    """What is followed beside a look would not see the rows of a test that takes them back."""
    from dolmetsch.server.fires import followed

    followed.forget()
    if request.node.get_closest_marker("followed_beside") is None:
        monkeypatch.setattr(followed, "BEHIND", timedelta(-1))
