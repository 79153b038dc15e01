"""``test``: set up, then every check there is, then a plain summary."""

import os
import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from subprocess import DEVNULL, PIPE, STDOUT, run
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.database import close_scratch, open_scratch
from dolmetsch.command.holding import hold
from dolmetsch.command.machine import build_web, set_up
from dolmetsch.command.serving import server_environment
from dolmetsch.command.telling import TroubleError, say
from dolmetsch.command.touched import BESIDE, LATER, choose_checks, list_changed

#: Where all tests run, these do beside the core's and the server's.
APART: Final = ("tests/command", "tests/server/test_api_document.py")


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """One check: its name, its command, the folder it runs in.

    ``lane``: those of one lane run one after another, beside all else, over the lane's own test database.
    """

    name: str
    command: list[str]
    cwd: Path = paths.ROOT
    lane: str = ""


def _tool(name: str) -> str:
    return str(paths.VENV / "bin" / name)


def _npm(*words: str) -> list[str]:
    return ["npm", "run", "--silent", *words]


def list_checks(*, since: str | None = None) -> list[Check]:
    """Every check, the quick ones first; only those that the changes ``since`` a commit can touch.

    Raises:
        TroubleError: there is no such commit.
    """
    if since is None:
        return _list_all(["tests"])
    names, paths = choose_checks(list_changed(since))
    return [check for check in _list_all(paths) if check.name in names]


def _list_all(tests: list[str]) -> list[Check]:
    fresh = paths.PRIVATE / "schema.ts"
    kept = paths.WEB / "src/shared/api/schema.ts"
    pytest = [_tool("python"), "-m", "pytest"]
    # two cores have more to do than one check: some of the tests run beside the rest of them
    beside, later = [], []
    if tests == ["tests"]:
        beside = list(APART)
        later = sorted(f"tests/server/{path.name}" for path in paths.ROOT.glob("tests/server/test_[k-z]*.py"))
    ignored = [f"--ignore={path}" for path in ("tests/browser", *beside, *later)]
    return [
        Check(name="lint", command=[_tool("ruff"), "check", "."]),
        Check(name="format", command=[_tool("ruff"), "format", "--check", "--quiet", "."]),
        Check(name="types", command=[_tool("mypy")]),
        Check(name="import rules", command=[_tool("lint-imports"), "--no-cache"]),
        Check(
            name="client types are the API's",
            command=[
                "sh",
                "-c",
                f'npx --no-install openapi-typescript ../docs/openapi.json -o "{fresh}" >/dev/null '
                f'&& cmp "{fresh}" "{kept}" || {{ echo "run ./dolmetsch api"; exit 1; }}',
            ],
            cwd=paths.WEB,
        ),
        Check(name="web lint", command=_npm("lint"), cwd=paths.WEB),
        Check(name="web types", command=_npm("types"), cwd=paths.WEB),
        Check(name="web unit tests", command=_npm("test"), cwd=paths.WEB),
        Check(
            name="core and server tests",
            command=[*pytest, *tests, *ignored],
        ),
        Check(name="browser journeys", command=[*pytest, "tests/browser"], lane="browser"),
        *(
            Check(name=name, command=[*pytest, *files], lane=lane)
            # behind the browser's, which two cores with more to do at once would be too slow for
            for name, files, lane in ((BESIDE, beside, "commands"), (LATER, later, "browser"))
            if files
        ),
    ]


def check_all(*, only: str | None, since: str | None = None) -> None:
    """Run every check, those whose name contains ``only``, or those that the changes ``since`` a commit can
    touch; each is reported, and all at the end.

    Raises:
        TroubleError: where any failed.
    """
    begun = time.monotonic()
    paths.prepare()
    chosen = list_checks(since=since)
    if not chosen:
        say("Nothing has changed that a check could touch.")
        return
    with hold("test", busy="The tests are running here already (process {pid})."):
        set_up(for_tests=True)
        build_web()
        database = open_scratch()
        try:
            environment = {
                **server_environment(database),
                "DOLMETSCH_DEMO": "1",
                "CI": os.environ.get("CI", ""),
            }
            checks = [check for check in chosen if only is None or only in check.name]
            results = run_checks(checks, environment)
        finally:
            close_scratch(database)
    print()
    for name, passed, seconds in results:
        say(f"{'passed' if passed else 'FAILED'}  {seconds:6.1f} s  {name}")
    failed = sum(not passed for _, passed, _ in results)
    say(f"{time.monotonic() - begun:.0f} s in all, set-up included.")
    print(f"checks: {len(results) - failed} passed, {failed} failed", flush=True)
    if failed or not results:
        raise TroubleError("Not every check passed; see each one above.")


def run_checks(checks: list[Check], environment: dict[str, str]) -> list[tuple[str, bool, float]]:
    """Run each check: its name, success and seconds. A lane says all it has to say at the end."""
    lanes: dict[str, list[Check]] = {}
    for check in checks:
        lanes.setdefault(check.lane, []).append(check)
    here = lanes.pop("", [])
    with ThreadPoolExecutor() as pool:
        running = [
            pool.submit(_run_lane, lane, {**environment, **_of_its_own(name)}) for name, lane in lanes.items()
        ]
        results = [(check.name, *_run(check, environment)) for check in here]
        for lane in running:
            for name, passed, seconds, output in lane.result():
                print(flush=True)
                say(f"{name} …")
                print(output, flush=True)
                results.append((name, passed, seconds))
    return results


def _of_its_own(name: str) -> dict[str, str]:
    """A database, and a folder of kept answers, which each test empties."""
    return {"DOLMETSCH_DB_NAME": name, "DOLMETSCH_KEPT": str(paths.PRIVATE / "kept" / name)}


def _run(check: Check, environment: dict[str, str]) -> tuple[bool, float]:
    print(flush=True)
    say(f"{check.name} …")
    begun = time.monotonic()
    done = run(check.command, cwd=check.cwd, env=environment, stdin=DEVNULL, check=False)
    return done.returncode == 0, time.monotonic() - begun


def _run_lane(checks: list[Check], environment: dict[str, str]) -> list[tuple[str, bool, float, str]]:
    """Name, success, seconds and output of each."""
    results = []
    for check in checks:
        begun = time.monotonic()
        command, cwd = check.command, check.cwd
        done = run(command, cwd=cwd, env=environment, stdin=DEVNULL, stdout=PIPE, stderr=STDOUT, check=False)
        output = done.stdout.decode("utf-8", "replace")
        results.append((check.name, done.returncode == 0, time.monotonic() - begun, output))
    return results
