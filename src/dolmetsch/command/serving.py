"""``start`` and ``stop``: MariaDB and the application, watched over until Ctrl-C."""

import os
import shutil
import signal
import time
from http.client import HTTPConnection, HTTPException
from pathlib import Path
from subprocess import Popen
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.addresses import Address
from dolmetsch.command.children import end, end_orphans, spawn
from dolmetsch.command.database import Database, refuse_taken_port
from dolmetsch.command.devices import Devices
from dolmetsch.command.holding import find_holder, hold, is_held, note_holder
from dolmetsch.command.machine import build_web, set_up
from dolmetsch.command.telling import TroubleError, must, say, step
from dolmetsch.command.watching import Watched, look_after

READY_SECONDS: Final = 30
LOOPBACK: Final = "127.0.0.1"
WORKERS: Final = 2
#: Of one worker: each screen that listens to a scale takes one, and some stay free for all else.
THREADS: Final = 64


class _StopAskedError(Exception):
    """Ctrl-C, or ./dolmetsch stop."""


def start(*, port: int, db_port: int, address: Address | None = None, demo_everywhere: bool = False) -> None:
    """Set up, start everything, say where it is, and watch over it until asked to stop.

    ``address``: by which other devices open it; without one it listens to this machine alone.
    ``demo_everywhere``: the demo's sign-in is shown and taken there too.

    Raises:
        TroubleError: with what to do.
    """
    begun = time.monotonic()
    paths.prepare()
    busy = "Dolmetsch is running here already, at {address} (process {pid}). ./dolmetsch stop ends it."
    with hold("start", busy=busy):
        note_holder("start", pid=os.getpid(), address=f"http://127.0.0.1:{port}/", db_port=db_port)
        for asked in (signal.SIGINT, signal.SIGTERM):
            signal.signal(asked, _ask_to_stop)
        house = House(port=port, db_port=db_port, opened_by=address, demo_everywhere=demo_everywhere)
        try:
            refuse_taken_port(port, flag="./dolmetsch start --port")
            set_up(for_tests=False)
            build_web()
            house.open()
            say(f"Ready after {time.monotonic() - begun:.1f} s.")
            say(f"Open {house.address}")
            house.leave_note()
            say(f"Demo sign-in: {house.demo_sign_in()}.  Ctrl-C stops everything.")
            house.watch()
        except _StopAskedError:
            say("Stopping …")
        finally:
            if house.close():
                say("Stopped; all records are saved.")


def stop() -> None:
    """End a running start, and wait until it has."""
    paths.prepare()
    if not is_held("start"):
        say("Nothing is running here.")
        return
    os.kill(find_holder("start")["pid"], signal.SIGTERM)
    deadline = time.monotonic() + 90
    while is_held("start"):
        if time.monotonic() > deadline:
            raise TroubleError("It did not stop within 90 s; see .dolmetsch/logs.")
        time.sleep(0.1)
    say("Stopped; all records are saved.")


def _ask_to_stop(*_args: object) -> None:
    for asked in (signal.SIGINT, signal.SIGTERM):
        signal.signal(asked, signal.SIG_IGN)
    raise _StopAskedError


class House:
    """MariaDB, application, collector and devices, as one thing that opens, is watched, and closes."""

    def __init__(
        self, *, port: int, db_port: int, opened_by: Address | None, demo_everywhere: bool = False
    ) -> None:
        self.port, self.opened_by, self.demo_everywhere = port, opened_by, demo_everywhere
        self.address = f"http://127.0.0.1:{port}/"
        self.database = Database(
            paths.PRIVATE / "mariadb", port=db_port, password=paths.get_secret("database"), durable=True
        )
        self.devices = Devices()
        self.application: Popen[bytes] | None = None
        self.collector: Popen[bytes] | None = None

    def environment(self) -> dict[str, str]:
        """Environment variables of the application."""
        hosts = ["127.0.0.1", "localhost", *([self.opened_by.host] if self.opened_by else [])]
        return {
            **server_environment(self.database),
            **self.devices.environment(),
            "DOLMETSCH_DEMO": "1",
            "DOLMETSCH_HOSTS": ",".join(hosts),
            "DOLMETSCH_ADDRESS": self.opened_by.url if self.opened_by else "",
            "DOLMETSCH_DEMO_EVERYWHERE": "1" if self.demo_everywhere else "0",
        }

    def leave_note(self) -> None:
        """Say how other devices reach it, and what that means."""
        if self.opened_by is None:
            say("For phones and tablets: ./dolmetsch start --address http://ADDRESS-OF-THIS-MACHINE")
            return
        say(f"On phones and tablets: {self.opened_by.url}")
        if self.demo_everywhere:
            say("The demo's sign-in is open to everyone who reaches that address.")
        else:
            say("The demo's sign-in works on this machine only; --demo-sign-in opens it there too.")

    def open(self) -> None:
        """Start all of it, the tables up to date."""
        with step("Starting MariaDB"):
            self.database.start()
        self._bring_up_to_date()
        self.devices.start()
        # kept answers may be of an older program, or of records since restored
        shutil.rmtree(paths.PRIVATE / "kept", ignore_errors=True)
        with step("Starting the application"):
            self._start_application()
        self._start_collector()

    def _bring_up_to_date(self) -> None:
        """Migrate, and load the demo into empty tables; skipped where nothing changed since last time."""
        migrations = (paths.ROOT / "src/dolmetsch/server").glob("*/migrations/*.py")
        mark = paths.fingerprint([*migrations, paths.ROOT / "requirements.txt"])
        stamp = self.database.folder / "up-to-date"
        if stamp.is_file() and stamp.read_text() == mark:
            return
        with step("Bringing the tables up to date, loading the demo if they are empty"):
            prepare = [str(paths.PYTHON), "-m", "django", "load_demo", "--migrate"]
            log = paths.LOGS / "migrate.log"
            must(prepare, doing="Bringing the tables up to date", log=log, env=self.environment())
        stamp.write_text(mark)

    def _start_application(self) -> None:
        if self.application is not None:
            end(self.application, patience=5)
        # workers whose master was killed would hold the port, and answer in the new one's place
        end_orphans(f":{self.port}", "dolmetsch.server.config.wsgi")
        self.application = spawn(
            [
                *gunicorn(self.port, on=self.listens_on()),
                *("--workers", str(WORKERS), "--preload"),
                *("--timeout", "60", "--graceful-timeout", "15", "--log-level", "warning"),
            ],
            log=paths.LOGS / "application.log",
            env=self.environment(),
            cwd=paths.ROOT,
        )
        wait_until_served(self.port, self.application, log=paths.LOGS / "application.log")

    def _start_collector(self) -> None:
        """The collector of probe readings hears the cookers from now on."""
        if self.collector is not None:
            end(self.collector, patience=5)
        command = [str(paths.PYTHON), "-m", "django", "collect"]
        self.collector = spawn(
            command, log=paths.LOGS / "collector.log", env=self.environment(), cwd=paths.ROOT
        )

    def listens_on(self) -> str:
        """The network address the application is bound to."""
        is_open = self.opened_by is not None and not self.opened_by.is_proxied
        return "0.0.0.0" if is_open else LOOPBACK  # noqa: S104 (only where an address was asked for)

    def demo_sign_in(self) -> str:
        """The demo cook's name and password, from where the server keeps them."""
        source = (paths.ROOT / "src/dolmetsch/server/access/demo_sign_in.py").read_text()
        words = [line.split('"')[1] for line in source.splitlines() if line.startswith("DEMO_")]
        return f"{words[0]}, password {words[1]}"

    def watch(self) -> None:
        """Start again what ends, until asked to stop. The record store comes first: the rest needs it."""
        watched = [
            Watched(name="MariaDB", has_ended=self.database.has_ended, start=self.database.start),
            Watched(name="The application", has_ended=self._is_away, start=self._start_application),
            Watched(
                name="The collector",
                has_ended=lambda: self.collector is None or self.collector.poll() is not None,
                start=self._start_collector,
            ),
            Watched(
                name="A device",
                has_ended=lambda: self.devices.find_ended() is not None,
                start=self.devices.start,
            ),
        ]
        while True:
            time.sleep(0.5)
            look_after(watched)

    def _is_away(self) -> bool:
        return self.application is None or self.application.poll() is not None

    def close(self) -> bool:
        """Stop what runs; whether anything did."""
        ran = self.database.process is not None
        if self.collector is not None:
            end(self.collector, patience=10)
        if self.application is not None:
            end(self.application, patience=20)
        self.devices.stop()
        self.database.stop()
        return ran


def gunicorn(port: int, *, on: str = LOOPBACK) -> list[str]:
    """The application server's command, as every start of it has it; ``on``: the address it listens on."""
    served = [str(paths.PYTHON), "-m", "gunicorn", "dolmetsch.server.config.wsgi", "--no-control-socket"]
    config = ["--config", "python:dolmetsch.server.config.workers"]
    return [*served, *config, "--bind", f"{on}:{port}", "--threads", str(THREADS)]


def server_environment(database: Database) -> dict[str, str]:
    """What the server needs to know of this machine."""
    folder = paths.PRIVATE if database.durable else database.folder
    return {
        **os.environ,
        **database.environment(),
        "DOLMETSCH_PHOTOS": str(folder / "photos"),
        "DOLMETSCH_KEPT": str(folder / "kept"),
        "DOLMETSCH_SECRET_KEY": paths.get_secret("django"),
        "DJANGO_SETTINGS_MODULE": "dolmetsch.server.config.settings",
        "PYTHONPATH": str(paths.ROOT / "src"),
    }


def wait_until_served(port: int, process: Popen[bytes], *, log: Path) -> None:
    """Wait until the application answers.

    Raises:
        TroubleError: where it ends or stays silent.
    """
    deadline = time.monotonic() + READY_SECONDS
    while time.monotonic() < deadline and process.poll() is None:
        connection = HTTPConnection("127.0.0.1", port, timeout=5)
        try:
            connection.request("GET", "/api/session")
            if connection.getresponse().status == 200 and process.poll() is None:
                return
        except (OSError, HTTPException):
            pass
        finally:
            connection.close()
        time.sleep(0.1)
    tail = "\n".join(f"    {line}" for line in log.read_text(errors="replace").splitlines()[-8:])
    raise TroubleError(f"The application did not come up (the whole log is in {log}):\n{tail}")
