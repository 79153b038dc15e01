"""What is nearest to a change, what every check runs, and how the checks end."""

import json
import os
import signal
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from dolmetsch.command import paths
from dolmetsch.command.checks import checking
from dolmetsch.command.checks.checking import Check, check_all, list_checks, run_checks
from dolmetsch.command.checks.touched import (
    JOURNEYS,
    MACHINES,
    PYTHON,
    TESTS,
    WEB,
    choose_checks,
    list_changed,
)
from dolmetsch.command.telling import TroubleError
from dolmetsch.command.watching import StopAskedError
from tests.waiting import LONGEST, wait_for

EVERYTHING = {check.name for check in list_checks()}
DOCS = "tests/test_docs.py"


def test_the_checks_named_here_are_those_there_are():
    assert PYTHON | WEB | {TESTS, JOURNEYS, MACHINES} == EVERYTHING


LEDGER = ["tests/core/documents", "tests/core/ledger", DOCS]


@pytest.mark.parametrize(
    ("file", "checks", "tests"),
    [
        ("src/dolmetsch/core/ledger/bill.py", PYTHON, LEDGER),
        ("src/dolmetsch/core/errors.py", EVERYTHING, ["tests"]),
        ("src/dolmetsch/devices/scale.py", EVERYTHING, ["tests"]),
        ("tests/strategies.py", EVERYTHING, ["tests"]),
        ("pyproject.toml", EVERYTHING, ["tests"]),
        ("docs/examples/jowl.json", EVERYTHING, ["tests"]),
        ("src/dolmetsch/command/paths.py", PYTHON, ["tests/command", DOCS]),
        ("tests/core/meat/test_cuts.py", PYTHON, ["tests/core/meat/test_cuts.py", DOCS]),
        ("tests/browser/test_buy.py", PYTHON | {JOURNEYS}, [DOCS]),
        ("tests/cluster/test_cluster.py", PYTHON | {MACHINES}, [DOCS]),
        ("src/dolmetsch/command/cluster/galera.py", PYTHON | {MACHINES}, ["tests/command", DOCS]),
        ("benchmarks/speed/run.py", PYTHON, ["tests/command", DOCS]),
        ("benchmarks/soak/cluster.py", PYTHON | {MACHINES}, ["tests/command", DOCS]),
        ("web/src/App.vue", WEB, [DOCS]),
        ("docs/ledger.md", set(), [DOCS]),
    ],
)
def test_a_change_runs_what_is_nearest(file, checks, tests):
    assert choose_checks([file]) == ({*checks, TESTS}, tests)


def test_a_change_of_a_feature_runs_the_tests_that_import_it():
    checks, tests = choose_checks(["src/dolmetsch/server/plans/over.py"])
    assert checks == {*PYTHON, TESTS, "client types are the API's"}
    assert {"tests/server/test_bench_days.py", "tests/server/test_guards.py", DOCS} <= set(tests)
    assert "tests/server/test_tastings.py" not in tests
    assert len(tests) < 20


def is_run_by(check, file):
    words = [word for word in check.command if word.startswith(("tests", "--ignore=tests"))]
    left_out = [word.removeprefix("--ignore=") for word in words if word.startswith("--")]
    return any(file.startswith(word) for word in words) and not any(map(file.startswith, left_out))


def test_every_test_is_run_by_one_check():
    files = sorted(str(path.relative_to(paths.ROOT)) for path in (paths.ROOT / "tests").rglob("test_*.py"))
    assert len(files) > 100
    for file in files:
        assert sum(is_run_by(check, file) for check in list_checks()) == 1, file


def test_a_word_that_no_check_has_is_said():
    with pytest.raises(TroubleError, match="No check to run has “no such check” in its name"):
        check_all(only="no such check")


def test_nothing_changed_runs_nothing():
    assert choose_checks([]) == (set(), [])


def test_what_differs_from_a_commit_is_listed_new_files_too(tmp_path, monkeypatch):
    def git(*words):
        who = ["-c", "user.name=x", "-c", "user.email=x@example.org"]
        subprocess.run(["git", *who, *words], cwd=tmp_path, check=True)

    (tmp_path / "same.py").write_text("")
    (tmp_path / "other.py").write_text("")
    git("init", "--quiet")
    git("add", ".")
    git("commit", "--quiet", "--message", "first")
    (tmp_path / "other.py").write_text("changed")
    (tmp_path / "new.py").write_text("")
    monkeypatch.setattr(paths, "ROOT", tmp_path)
    assert list_changed("HEAD") == ["other.py", "new.py"]


def test_a_commit_that_is_not_there_is_said():
    with pytest.raises(TroubleError, match="git knows no commit nowhere"):
        list_changed("nowhere")


NOTES = "import json, os, sys; print(json.dumps({name: os.environ.get(name) for name in sys.argv[1:]}))"


def test_each_lane_has_a_database_and_kept_answers_of_its_own(capfd):
    """Those of one lane run one after another and share them; a check that fails is said so."""
    names = ("DOLMETSCH_DB_NAME", "DOLMETSCH_KEPT")
    checks = [
        Check(name=f"{lane} {at}", command=[sys.executable, "-c", NOTES, *names], lane=lane)
        for lane in ("one", "two")
        for at in range(2)
    ]
    wrong = Check(name="wrong", command=[sys.executable, "-c", "raise SystemExit(3)"], lane="two")
    results = run_checks([*checks, wrong], {"DOLMETSCH_DB_NAME": "main", "DOLMETSCH_KEPT": "kept"})
    assert [(name, passed) for name, passed, _ in results] == [
        ("one 0", True),
        ("one 1", True),
        ("two 0", True),
        ("two 1", True),
        ("wrong", False),
    ]
    said = [json.loads(line) for line in capfd.readouterr().out.splitlines() if line.startswith("{")]
    assert sorted(one["DOLMETSCH_DB_NAME"] for one in said) == ["one", "one", "two", "two"]
    assert sorted(Path(one["DOLMETSCH_KEPT"]).name for one in said) == ["one", "one", "two", "two"]


def test_what_runs_ends_with_it(monkeypatch):
    """Asked to stop, it ends what it had begun, and what that had begun."""
    code = "import subprocess, sys; subprocess.run([sys.executable, '-c', 'import time; time.sleep(99)'])"
    lasting = Check(name="lasting", command=[sys.executable, "-c", code], lane="one")
    begun = []
    usual = checking.Popen

    def spawn(*words, **more):
        begun.append(usual(*words, **more))
        signal.pthread_kill(threading.main_thread().ident, signal.SIGALRM)
        return begun[0]

    def stop(*_args):
        raise StopAskedError

    monkeypatch.setattr(checking, "Popen", spawn)
    before = signal.signal(signal.SIGALRM, stop)
    try:
        with pytest.raises(StopAskedError):
            run_checks([lasting], dict(os.environ))
    finally:
        signal.signal(signal.SIGALRM, before)
    assert begun[0].wait(timeout=LONGEST) == -signal.SIGTERM
    wait_for(lambda: not alive_in(begun[0].pid), "its own child to end")


def alive_in(group):
    try:
        os.killpg(group, 0)
    except ProcessLookupError:
        return False
    return True
