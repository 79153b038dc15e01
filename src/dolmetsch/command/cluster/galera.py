"""One node of a record store of several: MariaDB with Galera, both from Debian's packages."""

import re
import shutil
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from subprocess import DEVNULL, STDOUT, TimeoutExpired, run
from typing import Final

from dolmetsch.command.database import READY_SECONDS, Database, find_free_port
from dolmetsch.command.telling import TroubleError

PROVIDER: Final = Path("/usr/lib/galera/libgalera_smm.so")
CLUSTER: Final = "dolmetsch"
#: Writes kept for nodes that were away a while; longer, and they are sent all records.
KEPT_WRITES: Final = "128M"


@dataclass(frozen=True, slots=True, kw_only=True)
class Ports:
    """Where a node listens on loopback: for the application, the other nodes, and both state transfers."""

    sql: int
    nodes: int
    writes: int
    records: int

    @classmethod
    def find(cls) -> "Ports":
        """Free ones."""
        return cls(
            sql=find_free_port(),
            nodes=find_free_port(),
            writes=find_free_port(),
            records=find_free_port(),
        )


class Node(Database):
    """One node over one folder; ``members`` are all nodes of its cluster."""

    def __init__(self, folder: Path, *, ports: Ports, password: str, durable: bool) -> None:
        super().__init__(folder, port=ports.sql, password=password, durable=durable)
        self.ports = ports
        self.members: list[Node] = [self]
        self._is_first = False

    def begin_cluster(self) -> None:
        """Start it as the first one: the others join it.

        Raises:
            TroubleError: it does not come up.
        """
        if self._state.is_file():
            # it has been asked which of the nodes was the last to write (``find_position``)
            found = self._state.read_text()
            self._state.write_text(re.sub(r"safe_to_bootstrap: \d", "safe_to_bootstrap: 1", found))
        self._is_first = True
        try:
            self.start()
        finally:
            self._is_first = False

    def make_records(self, fill: Callable[[Database], None]) -> None:
        """The record store, its users and its cluster's name: what other nodes begin as copies of; ``fill``
        makes its tables while it is no cluster yet, which is quicker.

        Raises:
            TroubleError: it does not come up.
        """
        alone = Database(self.folder, port=self.port, password=self.password, durable=self.durable)
        alone.start()
        try:
            fill(alone)
        finally:
            alone.stop()
        self.begin_cluster()
        self.stop()

    def copy_from(self, other: "Node") -> None:
        """Begin as a copy of ``other``, which does not run."""
        shutil.rmtree(self.folder, ignore_errors=True)
        shutil.copytree(other.folder, self.folder, ignore=shutil.ignore_patterns("*.sock", "*.log", "*.pid"))

    @property
    def is_made(self) -> bool:
        """Whether it holds records."""
        return (self.folder / "made").exists()

    def find_position(self) -> tuple[str, int]:
        """The cluster it was of and the number of its last write; nothing and -1 where it was in none.

        Raises:
            TroubleError: its records cannot be read.
        """
        if not self._state.is_file():
            return "", -1
        words = dict(re.findall(r"^(\w+):\s*(\S+)", self._state.read_text(), re.MULTILINE))
        if int(words.get("seqno", "-1")) >= 0:
            return words["uuid"], int(words["seqno"])
        # it was killed: its own log knows
        log = self.folder / "recover.log"
        log.unlink(missing_ok=True)
        command = [*self._server(), *self._of_cluster(), "--wsrep-recover", f"--log-error={log}"]
        try:
            done = run(
                command, stdin=DEVNULL, stdout=DEVNULL, stderr=STDOUT, check=False, timeout=READY_SECONDS
            )
        except TimeoutExpired as error:
            raise TroubleError(
                f"The last write of {self.folder} was not found within {READY_SECONDS} s."
            ) from error
        found = re.search(r"Recovered position:? ([0-9a-f-]+):(-?\d+)", log.read_text(errors="replace"))
        if found is None:
            raise TroubleError(f"The last write of {self.folder} is not known ({done.returncode}, {log}).")
        return found[1], int(found[2])

    @property
    def _state(self) -> Path:
        return self.folder / "data" / "grastate.dat"

    def _server(self) -> list[str]:
        """The server's command; what the state transfer says stays in the folder, not in the system's log."""
        program, _, *more = super()._server()
        # of the command line the state transfer would pass it on to mariadb-backup, which does not take it
        size = next(word for word in more if word.startswith("--innodb-buffer-pool-size"))
        options = self.folder / "node.cnf"
        options.write_text(f"[mysqld]\n{size.removeprefix('--')}\n[sst]\nsst-syslog=-1\n")
        return [program, f"--defaults-file={options}", *(word for word in more if word != size)]

    def _more(self) -> list[str]:
        uuid, last = self.find_position()
        begun = [] if not uuid or last < 0 else [f"--wsrep-start-position={uuid}:{last}"]
        return [*self._of_cluster(), *begun, *(["--wsrep-new-cluster"] if self._is_first else [])]

    def _of_cluster(self) -> list[str]:
        nodes = ",".join(f"127.0.0.1:{one.ports.nodes}" for one in self.members)
        options = {
            "gmcast.listen_addr": f"tcp://127.0.0.1:{self.ports.nodes}",
            "ist.recv_addr": f"127.0.0.1:{self.ports.writes}",
            "gcache.size": KEPT_WRITES,
            # a node that says nothing for so long is taken for gone
            "evs.suspect_timeout": "PT4S",
            "evs.inactive_timeout": "PT8S",
            "evs.install_timeout": "PT8S",
        }
        return [
            "--wsrep-on=ON",
            f"--wsrep-provider={PROVIDER}",
            f"--wsrep-cluster-name={CLUSTER}",
            f"--wsrep-cluster-address=gcomm://{nodes}",
            f"--wsrep-node-name={self.folder.name}",
            f"--wsrep-node-address=127.0.0.1:{self.ports.nodes}",
            "--wsrep-sst-method=mariabackup",
            f"--wsrep-sst-receive-address=127.0.0.1:{self.ports.records}",
            "--wsrep-sst-auth=root:",
            "--binlog-format=ROW",
            "--innodb-autoinc-lock-mode=2",
            # the audit is guarded by triggers, which every node runs alike
            "--log-bin-trust-function-creators=ON",
            "--wsrep-provider-options=" + ";".join(f"{name}={value}" for name, value in options.items()),
        ]

    def find_group(self) -> str | None:
        """What it says of the group it is in: ``Primary``, ``non-Primary`` or ``Disconnected``; None where it
        does not answer within two seconds.
        """
        command, _ = self.client(
            "mariadb", "--connect-timeout=2", "-Ne", "SHOW STATUS LIKE 'wsrep_cluster_status'"
        )
        return (self._answer_of(command) or "").removeprefix("wsrep_cluster_status").strip() or None

    def kill(self) -> None:
        """End it at once, as one that may not answer any more; who watches over it sees that it has ended."""
        if self.process is not None:
            self.process.kill()
            self.process.wait()

    def is_ready(self) -> bool:
        """Whether it serves: it runs, and is of the greater part of its cluster."""
        command, _ = self.client("mariadb", "-Ne", "SHOW STATUS LIKE 'wsrep_ready'")
        return "ON" in (self._answer_of(command) or "")
