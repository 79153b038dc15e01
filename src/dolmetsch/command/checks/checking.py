"""``test``: set up, then every check there is, then a plain summary."""

import os
import signal
import time
from concurrent.futures import ThreadPoolExecutor
from contextlib import ExitStack, suppress
from dataclasses import dataclass
from pathlib import Path
from subprocess import DEVNULL, PIPE, STDOUT, Popen
from threading import Lock
from typing import Final, Self

from dolmetsch.command import paths
from dolmetsch.command.checks.prepared import VARIABLE, prepare_dumps
from dolmetsch.command.checks.touched import JOURNEYS, MACHINES, TESTS, choose_checks, list_changed
from dolmetsch.command.database import close_scratch, open_scratch
from dolmetsch.command.holding import hold
from dolmetsch.command.machine import set_up
from dolmetsch.command.serving import server_environment
from dolmetsch.command.telling import TroubleError, say
from dolmetsch.command.watching import heed_stop

#: Of pytest's processes for each lane of tests: two cores have no more to do than two at once.
PROCESSES: Final = 2


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """One check: its name, its command, the folder it runs in.

    ``lane``: those of one lane run one after another, beside all else; a named one needs tables and the demo.
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
    names, tests = choose_checks(list_changed(since))
    return [check for check in _list_all(tests) if check.name in names]


def _list_all(tests: list[str]) -> list[Check]:
    fresh = paths.PRIVATE / "schema.ts"
    kept = paths.WEB / "src/shared/api/schema.ts"
    # files go to whichever process is free; each process has a database and an application of its own
    spread = [_tool("python"), "-m", "pytest", "--dist=loadfile", "--no-loadscope-reorder"]
    spread += [f"--numprocesses={PROCESSES}"]
    apart = ["--ignore=tests/browser", "--ignore=tests/cluster"]
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
        Check(name=TESTS, command=[*spread, *tests, *apart], lane="tests"),
        Check(name=JOURNEYS, command=[*spread, "tests/browser"], lane="browser"),
        # it waits more than it computes, and minds a busy machine most: last, beside one other lane
        Check(name=MACHINES, command=[_tool("python"), "-m", "pytest", "tests/cluster"], lane="browser"),
    ]


def check_all(*, only: str | None, since: str | None = None) -> None:
    """Run every check, those whose name contains ``only``, or those nearest to what changed ``since`` a
    commit; each is reported, and all at the end.

    Raises:
        TroubleError: any failed, or none has such a name.
    """
    begun = time.monotonic()
    paths.prepare()
    chosen = list_checks(since=since)
    if not chosen:
        say("Nothing has changed that a check could touch.")
        return
    chosen = [check for check in chosen if only is None or only in check.name]
    if not chosen:
        raise TroubleError(f"No check to run has “{only}” in its name.")
    with hold("test", busy="The tests are running here already (process {pid})."), ExitStack() as until_done:
        environment: dict[str, str] = {}
        heed_stop()

        def prepare() -> None:
            database = open_scratch()
            until_done.callback(close_scratch, database)
            environment.update(server_environment(database), DOLMETSCH_DEMO="1")
            if any(check.lane for check in chosen):
                environment[VARIABLE] = str(prepare_dumps(database))

        set_up(for_tests=True, meanwhile=prepare)
        results = [("set-up", True, time.monotonic() - begun), *run_checks(chosen, environment)]
    print()
    for name, passed, seconds in results:
        say(f"{'passed' if passed else 'FAILED'}  {seconds:6.1f} s  {name}")
    failed = sum(not passed for _, passed, _ in results)
    say(f"{time.monotonic() - begun:.0f} s in all.")
    print(f"checks: {len(results) - failed} passed, {failed} failed", flush=True)
    if failed:
        raise TroubleError("Not every check passed; see each one above.")


def run_checks(checks: list[Check], environment: dict[str, str]) -> list[tuple[str, bool, float]]:
    """Run each check: its name, success and seconds; what it has to say is said when it has ended.

    Those of a lane run one after another, the lanes beside each other.
    """
    lanes: dict[str, list[Check]] = {}
    for check in checks:
        lanes.setdefault(check.lane, []).append(check)
    # left in this order: what runs is ended before its threads are waited for, whenever the stop comes
    with ThreadPoolExecutor() as pool, Running() as running:
        asked = [
            pool.submit(_run_lane, lane, {**environment, **_of_its_own(name)}, running)
            for name, lane in lanes.items()
        ]
        return [result for lane in asked for result in lane.result()]


def _of_its_own(name: str) -> dict[str, str]:
    """A database, and a folder of kept answers, which each test empties."""
    return {"DOLMETSCH_DB_NAME": name, "DOLMETSCH_KEPT": str(paths.PRIVATE / "kept" / name)}


class Running:
    """The checks that run, each with all it begins; where it is left by an error or a stop, they end."""

    def __init__(self) -> None:
        self._processes: list[Popen[bytes]] = []
        # against a check begun while all are being ended: it would be waited for to its own end
        self._lock = Lock()
        self._is_ending = False

    def __enter__(self) -> Self:
        return self

    def __exit__(self, kind: type[BaseException] | None, *_more: object) -> None:
        if kind is None:
            return
        with self._lock:
            self._is_ending = True
            for process in self._processes:
                with suppress(ProcessLookupError):
                    os.killpg(process.pid, signal.SIGTERM)

    def begin(self, check: Check, environment: dict[str, str]) -> Popen[bytes] | None:
        """Start ``check``, as the leader of a group of processes; None where all are being ended."""
        with self._lock:
            if self._is_ending:
                return None
            process = Popen(
                check.command,
                cwd=check.cwd,
                env=environment,
                stdin=DEVNULL,
                stdout=PIPE,
                stderr=STDOUT,
                start_new_session=True,
            )
            self._processes.append(process)
        return process


def _run_lane(
    checks: list[Check], environment: dict[str, str], running: Running
) -> list[tuple[str, bool, float]]:
    results = []
    for check in checks:
        begun = time.monotonic()
        process = running.begin(check, environment)
        if process is None:
            break
        output = process.communicate()[0].decode("utf-8", "replace")
        seconds, passed = time.monotonic() - begun, process.returncode == 0
        say(f"{check.name}: {'passed' if passed else 'FAILED'} in {seconds:.1f} s\n{output}")
        results.append((check.name, passed, seconds))
    return results
