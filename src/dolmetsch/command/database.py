"""A MariaDB of the project's own, on loopback, from Debian's packages; never the system service."""

import os
import random
import shutil
import signal
import socket
import tempfile
import time
from contextlib import suppress
from pathlib import Path
from subprocess import Popen
from typing import ClassVar, Final

from dolmetsch.command import paths
from dolmetsch.command.children import end, spawn
from dolmetsch.command.telling import TroubleError, answer_of, must

USER: Final = "dolmetsch"
#: Until what was started answers: a busy machine takes far longer than an idle one, and what ends is seen at
#: once.
READY_SECONDS: Final = 120
#: Where free ports are looked for: below those that the system gives to outgoing connections, any of which
#: may be taken between being found free and being listened on.
PORTS: Final = range(10_000, 32_000)
SAFE: Final = ("--innodb-flush-log-at-trx-commit=1", "--innodb-buffer-pool-size=256M")
FAST: Final = (
    "--innodb-flush-log-at-trx-commit=0",
    "--innodb-doublewrite=0",
    "--innodb-buffer-pool-size=128M",
)


class Database:
    """One server over one data folder.

    ``durable``: every commit reaches the disk. Otherwise fast settings, for tests.
    """

    ready_seconds: ClassVar = READY_SECONDS

    def __init__(self, folder: Path, *, port: int, password: str, durable: bool) -> None:
        self.folder = folder
        self.port = port
        self.password = password
        self.durable = durable
        self.process: Popen[bytes] | None = None

    def start(self) -> None:
        """Make the data folder if need be, start the server, wait until it answers.

        Raises:
            TroubleError: a tool is missing, the port is taken, or it does not come up; says what to do.
        """
        self.launch()
        self.wait_until_ready()

    def launch(self) -> None:
        """Start the server, and do not wait for its answer.

        Raises:
            TroubleError: a tool is missing, or the port is taken.
        """
        if shutil.which("mariadbd") is None:
            raise TroubleError("mariadbd is missing; install Debian's mariadb-server.")
        self._end_left_over()
        refuse_taken_port(self.port, flag="--db-port")
        self._make_data()
        self.process = spawn([*self._server(), *self._more()], log=self.folder / "output.log")

    def _server(self) -> list[str]:
        """The server's command, over this folder."""
        return [
            "mariadbd",
            "--no-defaults",
            *_as_root(),
            f"--datadir={self.folder / 'data'}",
            f"--tmpdir={self.folder / 'tmp'}",
            "--bind-address=127.0.0.1",
            f"--port={self.port}",
            f"--socket={self.socket_path()}",
            f"--pid-file={self.folder / 'mariadbd.pid'}",
            f"--log-error={self.folder / 'error.log'}",
            "--character-set-server=utf8mb4",
            "--collation-server=utf8mb4_unicode_ci",
            "--sql-mode=STRICT_ALL_TABLES",
            "--skip-name-resolve",
            "--skip-log-bin",
            *(SAFE if self.durable else FAST),
        ]

    def _more(self) -> list[str]:
        """Options of a start alone."""
        return [f"--init-file={self._write_init()}"]

    def has_ended(self) -> bool:
        """Whether it was started and runs no more."""
        return self.process is not None and self.process.poll() is not None

    def stop(self) -> None:
        """Shut it down cleanly."""
        if self.process is not None:
            end(self.process, patience=60)
            self.process = None

    def client(self, program: str, *words: str) -> tuple[list[str], dict[str, str]]:
        """The command and environment of MariaDB's ``program``, such as mariadb-dump, for this server."""
        command = [program, "--no-defaults", "-h127.0.0.1", f"-P{self.port}", f"-u{USER}", *words]
        return command, {**os.environ, "MYSQL_PWD": self.password}

    def empty(self) -> None:
        """Remove every table of the application.

        Raises:
            TroubleError: it could not be done.
        """
        again = (
            f"DROP DATABASE {USER}; CREATE DATABASE {USER} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci"
        )
        command, env = self.client("mariadb", "-e", again)
        must(command, doing="Emptying the record store", log=self.folder / "empty.log", env=env)

    def environment(self) -> dict[str, str]:
        """The DOLMETSCH_DB_… variables that lead the server here."""
        return {
            "DOLMETSCH_DB_HOST": "127.0.0.1",
            "DOLMETSCH_DB_PORT": str(self.port),
            "DOLMETSCH_DB_NAME": USER,
            "DOLMETSCH_DB_USER": USER,
            "DOLMETSCH_DB_PASSWORD": self.password,
        }

    def socket_path(self) -> Path:
        """Beside the data, or below the temporary folder where that path would be too long for one."""
        path = self.folder / "mariadbd.sock"
        return path if len(str(path)) < 90 else Path(tempfile.gettempdir()) / f"dolmetsch-{self.port}.sock"

    def _make_data(self) -> None:
        for name in ("tmp", "data"):
            (self.folder / name).mkdir(parents=True, exist_ok=True)
        if (self.folder / "made").exists():
            return
        shutil.rmtree(self.folder / "data")
        command = [
            "mariadb-install-db",
            "--no-defaults",
            *_as_root(),
            f"--datadir={self.folder / 'data'}",
            "--auth-root-authentication-method=socket",
            "--skip-test-db",
        ]
        must(command, doing="mariadb-install-db", log=self.folder / "install.log")
        (self.folder / "made").touch()

    def _write_init(self) -> Path:
        """What the server does for itself at each start: the database, its user, and the tests' right."""
        init = self.folder / "init.sql"
        init.touch(mode=0o600)
        init.write_text(
            f"CREATE DATABASE IF NOT EXISTS {USER} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;\n"
            f"CREATE OR REPLACE USER '{USER}'@'127.0.0.1' IDENTIFIED BY '{self.password}';\n"
            f"GRANT ALL ON {USER}.* TO '{USER}'@'127.0.0.1';\n"
            f"GRANT ALL ON `test\\_%`.* TO '{USER}'@'127.0.0.1';\n"
        )
        return init

    def wait_until_ready(self) -> None:
        """Wait until it answers.

        Raises:
            TroubleError: it does not come up.
        """
        deadline = time.monotonic() + self.ready_seconds
        while time.monotonic() < deadline and self.process is not None and not self.has_ended():
            if self.is_ready():
                return
            time.sleep(0.1)
        log = self.folder / "error.log"
        tail = "\n".join(f"    {line}" for line in log.read_text(errors="replace").splitlines()[-8:])
        if self.process is not None:
            # kept, so that whoever watches it sees that it has ended
            end(self.process, patience=60)
        raise TroubleError(f"MariaDB did not come up (the whole log is in {log}):\n{tail}")

    def is_ready(self) -> bool:
        """Whether it answers."""
        ping, _ = self.client("mariadb-admin", "ping")
        return self._answer_of(ping) is not None

    def _answer_of(self, command: list[str]) -> str | None:
        os.environ["MYSQL_PWD"] = self.password
        return answer_of(command)

    def _end_left_over(self) -> None:
        """End a server that an earlier, killed command left on this folder."""
        try:
            pid = int((self.folder / "mariadbd.pid").read_text())
            command = Path(f"/proc/{pid}/cmdline").read_bytes().decode(errors="replace")
        except (OSError, ValueError):
            return
        if str(self.folder / "data") not in command:
            return
        os.kill(pid, signal.SIGTERM)
        deadline = time.monotonic() + 30
        while Path(f"/proc/{pid}").exists():
            if time.monotonic() > deadline:
                os.kill(pid, signal.SIGKILL)
            time.sleep(0.1)


def _as_root() -> list[str]:
    """MariaDB refuses to run as root unless an option says so."""
    return ["--user=root"] if os.geteuid() == 0 else []


def refuse_taken_port(port: int, *, flag: str) -> None:
    """Raise TroubleError where something listens on ``port`` already."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError as error:
            said = f"Port {port} is taken by another program. Choose another, such as: {flag} {port + 1}"
            raise TroubleError(said) from error


def find_free_port() -> int:
    """A port of loopback that nothing listens on now.

    Raises:
        TroubleError: none was found.
    """
    for port in random.sample(PORTS, 100):
        with socket.socket() as probe, suppress(OSError):
            probe.bind(("127.0.0.1", port))
            return port
    raise TroubleError("No free port was found on loopback.")


def open_scratch() -> Database:
    """A started server with fast settings on a throw-away folder, in memory where that can be."""
    shared = Path("/dev/shm")  # noqa: S108 (a folder of its own is made in it)
    base = shared if os.access(shared, os.W_OK) else None
    folder = Path(tempfile.mkdtemp(prefix="dolmetsch-", dir=base))
    database = Database(folder, port=find_free_port(), password=paths.get_secret("database"), durable=False)
    database.start()
    return database


def close_scratch(database: Database) -> None:
    """Stop a scratch server and remove its folder."""
    database.stop()
    shutil.rmtree(database.folder, ignore_errors=True)
