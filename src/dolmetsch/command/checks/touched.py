"""``test --changed``: the checks nearest to a change, by the files in it."""

from pathlib import PurePosixPath
from subprocess import run

from dolmetsch.command import paths
from dolmetsch.command.telling import TroubleError

#: Every check of the Python code that runs no test.
PYTHON = frozenset({"lint", "format", "types", "import rules"})
WEB = frozenset({"client types are the API's", "web lint", "web types", "web unit tests"})
TESTS = "tests"
JOURNEYS = "browser journeys"
MACHINES = "several machines"
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
    """Names of the checks nearest to ``files``, and the paths of the tests to run of Python's.

    A quick look while one works: of a subject of the core its own tests and those of the documents, of a
    feature of the server the tests that import it, of the web client its own checks. What a change does
    elsewhere the whole run finds. What all tests share runs all of them.
    """
    checks: set[str] = set()
    tests: set[str] = set(ALWAYS) if files else set()
    for file in files:
        more, paths_of_tests = _choose(PurePosixPath(file))
        checks |= more
        tests |= paths_of_tests
    if tests:
        checks.add(TESTS)
    return checks, ["tests"] if "tests" in tests else sorted(tests)


def _choose(file: PurePosixPath) -> tuple[frozenset[str], set[str]]:
    """The checks and tests of one file."""
    match file.parts:
        case ("web", *_):
            return WEB, set()
        case ("docs", *_) if file.suffix not in (".py", ".json"):
            return frozenset(), set()
        case ("tests", "browser" | "cluster" as apart, *_):
            return PYTHON | {JOURNEYS if apart == "browser" else MACHINES}, set()
        case ("tests", *_, name) if name.startswith("test_"):
            return PYTHON, {str(file)}
        case ("src", "dolmetsch", "command", *_) | ("benchmarks", *_):
            of_machines = "cluster" in (file.parent.name, file.stem)
            return PYTHON | ({MACHINES} if of_machines else set()), {"tests/command"}
        case ("src", "dolmetsch", "core", subject, _, *_):
            return PYTHON, {f"tests/core/{subject}", "tests/core/documents"} & _list_folders()
        case ("src", "dolmetsch", "server", feature, _, *_):
            return PYTHON | {"client types are the API's"}, _list_importers(f"dolmetsch.server.{feature}")
    # the devices, what tests share, examples, and what sets everything up
    return PYTHON | WEB | {JOURNEYS, MACHINES}, {"tests"}


def _list_folders() -> set[str]:
    return {str(path.relative_to(paths.ROOT)) for path in (paths.ROOT / "tests/core").iterdir()}


def _list_importers(module: str) -> set[str]:
    """Files of the server's tests that import ``module``, and those that look at the server as a whole."""
    found = {"tests/server/test_guards.py", "tests/server/test_rules.py"}
    for path in (paths.ROOT / "tests/server").glob("test_*.py"):
        if f"from {module}." in path.read_text():
            found.add(str(path.relative_to(paths.ROOT)))
    return found
