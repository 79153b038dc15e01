"""Each benchmark, soak and script runs to its end, over so little that it says nothing of speed."""

import re
import shutil
import subprocess
import sys

import pytest

from dolmetsch.command import paths
from dolmetsch.command.children import end, spawn
from dolmetsch.command.database import close_scratch, find_free_port, open_scratch
from dolmetsch.command.serving import gunicorn, server_environment, wait_until_served
from tests.prepared import load_into


@pytest.fixture(scope="module")
def records():
    """The environment of a record store with the demo."""
    database = open_scratch()
    try:
        for dump in ("tables.sql", "demo.sql"):
            load_into(database, dump)
        env = {**server_environment(database), "DOLMETSCH_DEMO": "1"}
        yield {**env, "PYTHONPATH": f"{env['PYTHONPATH']}:{paths.ROOT}"}
    finally:
        close_scratch(database)


@pytest.fixture
def ran(records, tmp_path):
    """Run a module or a script, which is to end well and writes into a folder of the test's; what it said."""
    for page in ("speed.md", "scale.md"):
        shutil.copy(paths.ROOT / "docs" / page, tmp_path)

    def run(*words):
        named = words if words[0].endswith(".py") else ("-m", *words)
        env = {**records, "DOLMETSCH_PAGES": str(tmp_path)}
        command = [sys.executable, *named]
        done = subprocess.run(command, env=env, cwd=paths.ROOT, capture_output=True, text=True, check=False)
        assert done.returncode == 0, done.stdout[-3000:] + done.stderr[-3000:]
        return done.stdout

    return run


def heads(page):
    return re.findall(r"^## (.+)$", page.read_text(), re.MULTILINE)


def test_a_town_is_filled_and_measured_to_the_end(ran, tmp_path):
    assert "kitchens copied" in ran("benchmarks.town.run")
    assert heads(tmp_path / "scale.md") == heads(paths.ROOT / "docs" / "scale.md")


def test_a_soak_of_one_fault_loses_nothing(ran):
    said = ran("benchmarks.soak.run", "1")
    assert "0 lost, 0 doubled" in said


def test_attacks_are_withstood(ran, records, tmp_path):
    port, log = find_free_port(), tmp_path / "log"
    process = spawn(gunicorn(port), log=log, env=records)
    try:
        wait_until_served(port, process, log=log)
        assert "40 requests, 0 bad" in ran(
            "benchmarks.soak.attacks", "fuzz", "40", "--base", f"http://127.0.0.1:{port}"
        )
    finally:
        end(process, patience=10)


def test_pictures_and_licenses_are_written(ran, tmp_path):
    ran("docs/screenshots/make.py", "first")
    assert (tmp_path / "first.png").stat().st_size > 10_000
    ran("docs/materials/make.py")
    assert (tmp_path / "licenses.md").read_text() == (paths.ROOT / "docs/materials/licenses.md").read_text()


# the last: what it fills the records with is no kitchen that anyone could look at
def test_speed_is_measured_to_the_end(ran, tmp_path):
    ran("benchmarks.speed.run", "--no-starts")
    whole = tmp_path / "speed.md"
    assert heads(whole) == heads(paths.ROOT / "docs" / "speed.md")
    assert "**Not met**" in whole.read_text()
