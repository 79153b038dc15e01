"""A statement has ten seconds where someone waits for the answer, and a day where a table is changed."""

import os
import subprocess
from contextlib import nullcontext

import pytest

from dolmetsch.command import managing, paths, serving

ASKED = "from django.conf import settings as s; print(s.DATABASES['default']['OPTIONS']['read_timeout'])"


@pytest.mark.parametrize(("more", "seconds"), [({}, "10"), (serving.UNHURRIED, "86400")])
def test_a_statement_has_so_many_seconds(more, seconds):
    own = {"DOLMETSCH_SECRET_KEY": "x", "DOLMETSCH_DB_PORT": "1", "DOLMETSCH_DB_PASSWORD": "x"}
    settings = {
        "DJANGO_SETTINGS_MODULE": "dolmetsch.server.config.settings",
        "PYTHONPATH": str(paths.ROOT / "src"),
    }
    plain = {name: value for name, value in os.environ.items() if name not in serving.UNHURRIED}
    command = [str(paths.PYTHON), "-c", ASKED]
    done = subprocess.run(
        command, env={**plain, **own, **settings, **more}, capture_output=True, text=True, check=True
    )
    assert done.stdout.strip() == seconds


def test_tables_are_changed_without_hurry(monkeypatch, tmp_path):
    asked = []
    monkeypatch.setattr(serving, "must", lambda _command, **how: asked.append(how["env"]))
    serving.migrate(tmp_path, {"A": "b"}, has_demo=False)
    assert asked == [{"A": "b", **serving.UNHURRIED}]


def test_commands_over_all_records_have_no_hurry(monkeypatch, tmp_path):
    """As ``check`` and ``many`` are."""
    asked = []

    def run(_command, **how):
        asked.append(how["env"])
        return subprocess.CompletedProcess([], 0, stdout="")

    (tmp_path / "mariadb").mkdir()
    (tmp_path / "mariadb" / "up-to-date").touch()
    monkeypatch.setattr(managing.paths, "PRIVATE", tmp_path)
    monkeypatch.setattr(managing.paths, "prepare", lambda: None)
    monkeypatch.setattr(managing, "running_database", lambda _port: nullcontext())
    monkeypatch.setattr(managing, "server_environment", lambda _database: {})
    monkeypatch.setattr(managing, "run", run)
    managing.manage("check_records", db_port=1)
    assert asked[0].items() >= serving.UNHURRIED.items()
