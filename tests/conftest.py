"""What every test goes by."""

from datetime import timedelta

import pytest
from django.core.cache.backends.dummy import DummyCache
from hypothesis import HealthCheck, settings

# how fast examples come and run tells how busy the machine is; speed is measured in benchmarks/
settings.register_profile("ours", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("ours")


def empty_by_truncating() -> None:
    """Let Django empty the test database table by table: a row of a record cannot be deleted, by trigger."""
    from django.db.backends.mysql.operations import DatabaseOperations

    usual = DatabaseOperations.sql_flush

    def sql_flush(self, style, tables, **_options):
        return usual(self, style, tables, reset_sequences=True)

    DatabaseOperations.sql_flush = sql_flush


empty_by_truncating()


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
