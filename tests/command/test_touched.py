"""What a change can touch: too much runs longer than needed, too little would miss a fault."""

import json
import sys
from pathlib import Path

import pytest

from dolmetsch.command import paths
from dolmetsch.command.checking import Check, list_checks, run_checks
from dolmetsch.command.telling import TroubleError
from dolmetsch.command.touched import BESIDE, JOURNEYS, LATER, PYTHON, TESTS, WEB, choose_checks, list_changed

EVERYTHING = {check.name for check in list_checks()}
DOCS = "tests/test_docs.py"


def test_the_checks_named_here_are_those_there_are():
    assert PYTHON | WEB | {TESTS, JOURNEYS, BESIDE, LATER} == EVERYTHING


@pytest.mark.parametrize(
    ("file", "left_out", "tests"),
    [
        ("src/dolmetsch/core/ledger/bill.py", set(), ["tests"]),
        ("src/dolmetsch/devices/scale.py", set(), ["tests"]),
        ("tests/strategies.py", set(), ["tests"]),
        ("pyproject.toml", set(), ["tests"]),
        ("docs/examples/jowl.json", set(), ["tests"]),
        (
            "src/dolmetsch/server/plans/over.py",
            {"web lint", "web types", "web unit tests"},
            ["tests/server", DOCS],
        ),
        ("src/dolmetsch/command/paths.py", {*WEB, JOURNEYS}, ["tests/command", DOCS]),
        ("tests/core/meat/test_cuts.py", {*WEB, JOURNEYS}, ["tests/core/meat/test_cuts.py", DOCS]),
        ("tests/browser/test_buy.py", WEB, [DOCS]),
        ("web/src/App.vue", PYTHON, [DOCS]),
        ("docs/ledger.md", {*PYTHON, *WEB, JOURNEYS}, [DOCS]),
    ],
)
def test_a_change_runs_what_it_can_touch(file, left_out, tests):
    checks, chosen = choose_checks([file])
    beside = set() if tests == ["tests"] else {BESIDE, LATER}
    assert checks == EVERYTHING - left_out - beside
    assert chosen == tests


def is_run_by(check, file):
    words = [word for word in check.command if word.startswith(("tests", "--ignore=tests"))]
    left_out = [word.removeprefix("--ignore=") for word in words if word.startswith("--")]
    return any(file.startswith(word) for word in words) and not any(map(file.startswith, left_out))


def test_every_test_is_run_by_one_check():
    files = sorted(str(path.relative_to(paths.ROOT)) for path in (paths.ROOT / "tests").rglob("test_*.py"))
    assert len(files) > 100
    for file in files:
        assert sum(is_run_by(check, file) for check in list_checks()) == 1, file


def test_nothing_changed_runs_nothing():
    assert choose_checks([]) == (set(), [])


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
    here = Check(name="here", command=[sys.executable, "-c", NOTES, *names])
    results = run_checks([*checks, wrong, here], {"DOLMETSCH_DB_NAME": "main", "DOLMETSCH_KEPT": "kept"})
    assert [(name, passed) for name, passed, _ in results] == [
        ("here", True),
        ("one 0", True),
        ("one 1", True),
        ("two 0", True),
        ("two 1", True),
        ("wrong", False),
    ]
    said = [json.loads(line) for line in capfd.readouterr().out.splitlines() if line.startswith("{")]
    assert [one["DOLMETSCH_DB_NAME"] for one in said] == ["main", "one", "one", "two", "two"]
    assert [Path(one["DOLMETSCH_KEPT"]).name for one in said] == ["kept", "one", "one", "two", "two"]
