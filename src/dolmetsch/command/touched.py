"""``test --changed``: which checks a change can touch, by the files in it."""

from pathlib import PurePosixPath
from subprocess import run

from dolmetsch.command import paths
from dolmetsch.command.telling import TroubleError

#: Every check of the Python code that runs no test.
PYTHON = frozenset({"lint", "format", "types", "import rules"})
WEB = frozenset({"client types are the API's", "web lint", "web types", "web unit tests"})
TESTS = "core and server tests"
JOURNEYS = "browser journeys"
#: Where all tests run, those of the commands and of the API's document do beside the others.
BESIDE = "commands and API document"
#: … and the later half of the server's behind the journeys.
LATER = "server tests from K on"
#: Tests that read the documents and the code as a whole.
ALWAYS = ("tests/test_docs.py",)


def list_changed(since: str) -> list[str]:
    """Files that differ from the commit ``since``, those not yet known to git among them.

    Raises:
        TroubleError: there is no such commit.
    """
    found: list[str] = []
    for words in (["diff", "--name-only", since], ["ls-files", "--others", "--exclude-standard"]):
        done = run(["git", *words], cwd=paths.ROOT, capture_output=True, check=False, text=True)
        if done.returncode != 0:
            raise TroubleError(f"git knows no commit {since}: {done.stderr.strip()}")
        found += done.stdout.split()
    return found


def choose_checks(files: list[str]) -> tuple[set[str], list[str]]:
    """Names of the checks that ``files`` can touch, and the paths of the tests to run of Python's.

    The core is below everything, so a change in it runs every test; one in a layer of the server runs the
    server's, and what reaches a screen the journeys.
    """
    checks: set[str] = set()
    tests: set[str] = set(ALWAYS) if files else set()
    for file in files:
        parts = PurePosixPath(file).parts
        if parts[0] == "web":
            checks |= WEB | {JOURNEYS}
        elif parts[:2] == ("tests", "browser"):
            checks |= PYTHON | {JOURNEYS}
        elif parts[0] == "docs" and not file.endswith((".py", ".json")):
            pass
        elif parts[0] == "tests" and parts[-1].startswith("test_"):
            checks |= PYTHON
            tests.add(file)
        elif parts[:3] == ("src", "dolmetsch", "command"):
            checks |= PYTHON
            tests.add("tests/command")
        elif parts[:3] == ("src", "dolmetsch", "server"):
            checks |= PYTHON | {JOURNEYS, "client types are the API's"}
            tests.add("tests/server")
        elif parts[0] == "benchmarks":
            checks |= PYTHON
        else:
            # the core, the devices, what tests share, examples, and what sets everything up
            checks |= PYTHON | WEB | {JOURNEYS}
            tests.add("tests")
    if tests:
        checks |= {TESTS, BESIDE, LATER} if "tests" in tests else {TESTS}
    return checks, ["tests"] if "tests" in tests else sorted(tests)
