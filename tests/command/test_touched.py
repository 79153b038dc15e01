"""What a change can touch: too much runs longer than needed, too little would miss a fault."""

import pytest

from dolmetsch.command import paths
from dolmetsch.command.checking import list_checks
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
