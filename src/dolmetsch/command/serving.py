"""``start`` and ``stop``: MariaDB and the application, watched over until Ctrl-C."""

import os
import shutil
import signal
import ssl
import time
from dataclasses import dataclass
from http.client import HTTPConnection, HTTPException, HTTPSConnection
from pathlib import Path
from subprocess import Popen
from typing import Final

from dolmetsch.command import certificate, paths
from dolmetsch.command.addresses import Address
from dolmetsch.command.backups.backup_file import (
    RECORDS,
    list_migrations,
    load_dump,
    name_backup,
    opened,
    write_backup,
)
from dolmetsch.command.backups.daily import Daily
from dolmetsch.command.children import end, end_orphans, spawn
from dolmetsch.command.database import READY_SECONDS, Database, refuse_taken_port
from dolmetsch.command.devices import Devices
from dolmetsch.command.editions import refuse_other_editions
from dolmetsch.command.holding import find_holder, hold, is_held, note_holder
from dolmetsch.command.machine import set_up
from dolmetsch.command.telling import TroubleError, must, say, step
from dolmetsch.command.watching import StopAskedError, Watched, heed_stop, look_after

LOOPBACK: Final = "127.0.0.1"
WORKERS: Final = 2
#: For what changes full tables or looks over all records: a statement may take a day.
UNHURRIED: Final = {"DOLMETSCH_STATEMENT_SECONDS": "86400"}
#: A log larger than this is put aside at the next start.
MOST_LOG: Final = 20_000_000
#: How long an answer may take, and what it has begun when it ends.
PATIENT: Final = ("--timeout", "60", "--graceful-timeout", "15", "--log-level", "warning")
#: Of one worker: each screen that listens to a scale takes one, and some stay free for all else.
THREADS: Final = 64
#: Seconds that a connection stays open without a request: screens ask every few seconds, and a worker that
#: computes is slow to take new ones.
KEEP_OPEN: Final = 30


@dataclass(frozen=True, slots=True, kw_only=True)
class Wanted:
    """What a start was asked for.

    ``address``: by which other devices open it; without one it listens to this machine alone.
    ``own_certificate``: it speaks HTTPS there itself. ``has_demo``: the demo is loaded and shown;
    ``demo_everywhere``: its sign-in is shown and taken at that address too. ``backups``: how many daily ones
    are kept; 0: none are made.
    """

    port: int
    db_port: int
    address: Address | None = None
    own_certificate: bool = False
    has_demo: bool = True
    demo_everywhere: bool = False
    backups: int = 7


def start(wanted: Wanted) -> None:
    """Set up, start everything, say where it is, and watch over it until asked to stop.

    Raises:
        TroubleError: with what to do.
    """
    begun = time.monotonic()
    paths.prepare()
    busy = "Dolmetsch is running here already, at {address} (process {pid}). ./dolmetsch stop ends it."
    with hold("start", busy=busy):
        house = House(wanted)
        note_holder("start", pid=os.getpid(), address=house.address, db_port=wanted.db_port)
        heed_stop()
        try:
            refuse_taken_port(wanted.port, flag="./dolmetsch start --port")
            set_up(for_tests=False, meanwhile=house.open_records)
            house.open()
            say(f"Ready after {time.monotonic() - begun:.1f} s.")
            say(f"Open {house.address}")
            house.leave_note()
            if wanted.has_demo:
                say(f"Demo sign-in: {house.demo_sign_in()}.")
            say("Ctrl-C stops everything.")
            house.watch()
        except StopAskedError:
            say("Stopping …")
        finally:
            if house.close():
                say("Stopped; all records are saved.")


def stop() -> None:
    """End a running start, and wait until it has.

    Raises:
        TroubleError: it did not stop within 90 s.
    """
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


class House:
    """MariaDB, application, collector and devices, as one thing that opens, is watched, and closes."""

    def __init__(self, wanted: Wanted) -> None:
        self.wanted, self.port, self.opened_by = wanted, wanted.port, wanted.address
        self.address = f"{self.scheme}://127.0.0.1:{self.port}/"
        self.database = Database(
            paths.PRIVATE / "mariadb",
            port=wanted.db_port,
            password=paths.get_secret("database"),
            durable=True,
        )
        self.devices = Devices()
        self.application: Popen[bytes] | None = None
        self.collector: Popen[bytes] | None = None
        self.daily = Daily(keep=wanted.backups)

    @property
    def scheme(self) -> str:
        """What it speaks itself."""
        return "https" if self.wanted.own_certificate else "http"

    def environment(self) -> dict[str, str]:
        """Environment variables of the application."""
        hosts = ["127.0.0.1", "localhost", *([self.opened_by.host] if self.opened_by else [])]
        return {
            **server_environment(self.database),
            **self.devices.environment(),
            "DOLMETSCH_DEMO": "1" if self.wanted.has_demo else "0",
            "DOLMETSCH_HOSTS": ",".join(hosts),
            "DOLMETSCH_ADDRESS": self.opened_by.url if self.opened_by else "",
            "DOLMETSCH_DEMO_EVERYWHERE": "1" if self.wanted.demo_everywhere else "0",
            "DOLMETSCH_LOGS": "json",
            "PROMETHEUS_MULTIPROC_DIR": str(paths.PRIVATE / "metrics"),
            "DOLMETSCH_OWN_CERTIFICATE": str(certificate.AUTHORITY) if self.wanted.own_certificate else "",
        }

    def leave_note(self) -> None:
        """Say how other devices reach it, and what that means."""
        if self.opened_by is None:
            say("For phones and tablets: ./dolmetsch start --address http://ADDRESS-OF-THIS-MACHINE")
            return
        say(f"On phones and tablets: {self.opened_by.url}")
        if self.wanted.own_certificate:
            say(f"Once on each of them: open {self.opened_by.url}/certificate.crt and trust it.")
        if not self.wanted.has_demo:
            return
        if self.wanted.demo_everywhere:
            say("The demo's sign-in is open to everyone who reaches that address.")
        else:
            say("The demo's sign-in works on this machine only; --demo-sign-in opens it there too.")

    def open_records(self) -> None:
        """Start MariaDB, its tables up to date."""
        with step("Starting MariaDB"):
            self.database.start()
        self._bring_up_to_date()

    def open(self) -> None:
        """Start all that needs the records."""
        self.devices.start()
        # kept answers may be of an older program, or of records since restored
        shutil.rmtree(paths.PRIVATE / "kept", ignore_errors=True)
        shutil.rmtree(paths.PRIVATE / "metrics", ignore_errors=True)
        (paths.PRIVATE / "metrics").mkdir()
        rotate_logs()
        with step("Starting the application"):
            self._start_application()
        self._start_collector()

    def _bring_up_to_date(self) -> None:
        """Migrate, and load the demo into empty tables; skipped where nothing changed since last time.

        Records of an older program are backed up first, and brought back as they were where that fails.
        """
        migrations = (paths.ROOT / "src/dolmetsch/server").glob("*/migrations/*.py")
        mark = paths.fingerprint([*migrations, paths.ROOT / "requirements.txt"], str(self.wanted.has_demo))
        stamp = self.database.folder / "up-to-date"
        if stamp.is_file() and stamp.read_text() == mark:
            return
        refuse_other_editions(list_migrations(self.database))
        before = self._back_up_first() if stamp.is_file() else None
        with step("Bringing the tables up to date"):
            try:
                migrate(paths.LOGS, self.environment(), has_demo=self.wanted.has_demo)
            except TroubleError:
                if before is not None:
                    self._bring_back(before)
                raise
        stamp.write_text(mark)

    def _back_up_first(self) -> Path:
        into = name_backup("before-upgrade")
        with step(f"Backing up before the upgrade, into {into}"):
            write_backup(into, self.database)
        return into

    def _bring_back(self, backup: Path) -> None:
        """The records as they were before an upgrade that failed: the older program goes on with them."""
        with step("The upgrade failed; bringing the records back as they were"), opened(backup) as (tar, _):
            self.database.empty()
            packed = tar.extractfile(RECORDS)
            if packed is not None:
                load_dump(self.database, packed)
        say("Start the older program again: its records are as before the upgrade.")

    def _start_application(self) -> None:
        if self.application is not None:
            end(self.application, patience=5)
        # workers whose master was killed would hold the port, and answer in the new one's place
        end_orphans(f":{self.port}", "dolmetsch.server.config.wsgi")
        self.application = spawn(
            [
                *gunicorn(self.port, on=self.listens_on()),
                *self._certificate(),
                *("--workers", str(WORKERS), "--preload"),
                *PATIENT,
            ],
            log=paths.LOGS / "application.log",
            env=self.environment(),
            cwd=paths.ROOT,
        )
        log = paths.LOGS / "application.log"
        wait_until_served(self.port, self.application, log=log, is_secure=self.wanted.own_certificate)

    def _certificate(self) -> list[str]:
        if not self.wanted.own_certificate or self.opened_by is None:
            return []
        certificate.make_certificate(self.opened_by.host)
        return ["--certfile", str(certificate.CERTIFICATE), "--keyfile", str(certificate.KEY)]

    def _start_collector(self) -> None:
        """The collector of probe readings hears the cookers from now on."""
        if self.collector is not None:
            end(self.collector, patience=5)
        self.collector = spawn_collector(paths.LOGS / "collector.log", self.environment())

    def listens_on(self) -> str:
        """The network address the application is bound to."""
        is_proxied = self.opened_by is not None and self.opened_by.is_proxied
        is_open = self.opened_by is not None and (self.wanted.own_certificate or not is_proxied)
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
            self.daily.look()

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


def migrate(logs: Path, env: dict[str, str], *, has_demo: bool) -> None:
    """Bring the tables up to date, and load the demo into empty ones where it is wanted.

    Raises:
        TroubleError: it failed.
    """
    command = [str(paths.PYTHON), "-m", "django", "load_demo", "--migrate"]
    command += [] if has_demo else ["--no-demo"]
    must(command, doing="Bringing the tables up to date", log=logs / "migrate.log", env={**env, **UNHURRIED})


def spawn_collector(log: Path, env: dict[str, str]) -> Popen[bytes]:
    """Start a collector of probe readings."""
    return spawn([str(paths.PYTHON), "-m", "django", "collect"], log=log, env=env, cwd=paths.ROOT)


def rotate_logs() -> None:
    """Put logs that have grown aside, one of each; as a server's own log rotation does where there is one."""
    for log in paths.LOGS.glob("*.log"):
        if log.stat().st_size > MOST_LOG:
            os.replace(log, log.with_suffix(".log.1"))


def gunicorn(port: int, *, on: str = LOOPBACK) -> list[str]:
    """The application server's command, as every start of it has it; ``on``: the address it listens on."""
    served = [str(paths.PYTHON), "-m", "gunicorn", "dolmetsch.server.config.wsgi", "--no-control-socket"]
    config = ["--config", "python:dolmetsch.server.config.workers"]
    held = ["--threads", str(THREADS), "--keep-alive", str(KEEP_OPEN)]
    return [*served, *config, "--bind", f"{on}:{port}", *held]


def server_environment(database: Database) -> dict[str, str]:
    """What the server needs to know of this machine."""
    folder = paths.PRIVATE if database.durable else database.folder
    own = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    return {
        **own,
        # compiled once, and not beside the sources: every process starts some seconds sooner
        "PYTHONPYCACHEPREFIX": str(paths.PRIVATE / "bytecode"),
        **database.environment(),
        "DOLMETSCH_PHOTOS": str(folder / "photos"),
        "DOLMETSCH_KEPT": str(folder / "kept"),
        "DOLMETSCH_MAILS": str(folder / "mails"),
        "DOLMETSCH_BACKUPS": str(folder / "backups"),
        "DOLMETSCH_SECRET_KEY": paths.get_secret("django"),
        "DJANGO_SETTINGS_MODULE": "dolmetsch.server.config.settings",
        "PYTHONPATH": str(paths.ROOT / "src"),
    }


def wait_until_served(port: int, process: Popen[bytes], *, log: Path, is_secure: bool = False) -> None:
    """Wait until the application answers; ``is_secure``: by a certificate made here.

    Raises:
        TroubleError: where it ends or stays silent.
    """
    deadline = time.monotonic() + READY_SECONDS
    while time.monotonic() < deadline and process.poll() is None:
        connection = HTTPConnection("127.0.0.1", port, timeout=5)
        if is_secure:
            trusted = ssl.create_default_context(cafile=str(certificate.AUTHORITY))
            connection = HTTPSConnection("127.0.0.1", port, timeout=5, context=trusted)
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
