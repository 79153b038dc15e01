"""``cluster``: the set of several machines on one, on loopback, for trying and tests.

Three nodes of the record store, two application servers with one worker each, a collector and its standby,
and HAProxy before all of them with the file that a real set has (``deploy/cluster``).
"""

import os
import shutil
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path
from subprocess import Popen
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.children import end, end_orphans, spawn
from dolmetsch.command.cluster.galera import Node, Ports
from dolmetsch.command.cluster.rejoining import Rejoining
from dolmetsch.command.database import READY_SECONDS, USER, Database, find_free_port, refuse_taken_port
from dolmetsch.command.devices import Devices
from dolmetsch.command.holding import hold
from dolmetsch.command.machine import set_up
from dolmetsch.command.serving import (
    PATIENT,
    gunicorn,
    migrate,
    server_environment,
    spawn_collector,
    wait_until_served,
)
from dolmetsch.command.telling import TroubleError, say, step
from dolmetsch.command.watching import StopAskedError, Watched, heed_stop, look_after

FILES: Final = paths.ROOT / "deploy" / "cluster"
FOLDER: Final = paths.PRIVATE / "cluster"
NODES: Final = 3
APPLICATIONS: Final = 2
COLLECTORS: Final = 2


def start_cluster(port: int) -> None:
    """Start the whole set, say where it is, and watch over it until asked to stop.

    Raises:
        TroubleError: with what to do.
    """
    paths.prepare()
    with hold("cluster", busy="A cluster is running here already (process {pid})."):
        heed_stop()
        cluster = Cluster(FOLDER, port=port, durable=True)
        try:
            refuse_taken_port(port, flag="./dolmetsch cluster start --port")
            set_up(for_tests=False, clustered=True)
            cluster.open()
            say(f"Open http://127.0.0.1:{port}/")
            say("Ctrl-C stops everything.")
            cluster.watch()
        except StopAskedError:
            say("Stopping …")
        finally:
            cluster.close()


class Cluster:
    """All of it over one folder; ``port`` is the proxy's. ``durable`` as of a ``Database``."""

    def __init__(self, folder: Path, *, port: int, durable: bool, has_demo: bool = True) -> None:
        self.folder, self.port, self.durable, self.has_demo = folder, port, durable, has_demo
        self.password = paths.get_secret("database")
        self.nodes = [
            Node(folder / f"node{at}", ports=Ports.find(), password=self.password, durable=durable)
            for at in range(1, NODES + 1)
        ]
        for node in self.nodes:
            node.members = self.nodes
        self.application_ports = [find_free_port() for _ in range(APPLICATIONS)]
        self.records = Database(folder, port=find_free_port(), password=self.password, durable=durable)
        self.applications: list[Popen[bytes] | None] = [None] * APPLICATIONS
        self.collectors: list[Popen[bytes] | None] = [None] * COLLECTORS
        self.proxy: Popen[bytes] | None = None
        self.devices = Devices()

    @property
    def logs(self) -> Path:
        """Where what runs writes what it says."""
        return self.folder / "logs"

    def open(self) -> None:
        """Start all of it, the tables up to date.

        Raises:
            TroubleError: something does not come up.
        """
        for name in ("logs", "photos", "kept", "metrics"):
            (self.folder / name).mkdir(parents=True, exist_ok=True)
        with step("Starting the record store's three nodes"):
            is_fresh = self.open_records()
        with step("Starting the proxy"):
            self.start_proxy()
            self._wait_for_records()
        if not is_fresh:
            with step("Bringing the tables up to date, once"):
                self._fill(self.records)
        self.devices.start()
        with step("Starting the applications"):
            for at in range(APPLICATIONS):
                self.launch_application(at)
            for at in range(APPLICATIONS):
                self.wait_for_application(at)
        for at in range(COLLECTORS):
            self.start_collector(at)

    def open_records(self) -> bool:
        """Start the nodes and wait for all; whether they are new.

        Raises:
            TroubleError: one does not come up.
        """
        first, *others = self.nodes
        is_fresh = not all(node.is_made for node in self.nodes)
        if is_fresh:
            first.make_records(self._fill)
            for node in others:
                node.copy_from(first)
        self.begin_records()
        for node in self.nodes:
            node.wait_until_ready()
        return is_fresh

    def begin_records(self) -> None:
        """Start the nodes, none of which runs; the others join the one that wrote last.

        Raises:
            TroubleError: that one does not come up.
        """
        latest = max(self.nodes, key=lambda node: node.find_position()[1])
        latest.begin_cluster()
        for node in self.nodes:
            if node is not latest:
                node.launch()

    def start_proxy(self) -> None:
        """The way in, and the applications' way to the record store."""
        login = self.folder / "check.cnf"
        login.touch(mode=0o600)
        login.write_text(f"[client]\nuser=dolmetsch\npassword={self.password}\nconnect-timeout=2\n")
        shutil.copy(FILES / "galera-check", self.folder)
        places = {
            "BIND": self.port,
            **{f"APP{at}": port for at, port in enumerate(self.application_ports, start=1)},
            "RECORDS": self.records.port,
            **{f"NODE{at}": node.port for at, node in enumerate(self.nodes, start=1)},
        }
        env = {
            **os.environ,
            **{f"DOLMETSCH_{name}": f"127.0.0.1:{port}" for name, port in places.items()},
            "DOLMETSCH_PROXY_SOCKET": str(self.folder / "proxy.sock"),
            "DOLMETSCH_GALERA_CHECK": str(self.folder / "galera-check"),
        }
        end_orphans("haproxy", str(FILES / "haproxy.cfg"), str(self.folder))
        command = ["haproxy", "-db", "-f", str(FILES / "haproxy.cfg"), "-L", str(self.folder)]
        self.proxy = spawn(command, log=self.logs / "proxy.log", env=env)

    def environment(self, name: str, store: Database | None = None) -> dict[str, str]:
        """Of a process called ``name`` among the others, which asks the record store by the proxy unless by
        ``store``.
        """
        for part in ("kept", "metrics"):
            (self.folder / part / name).mkdir(parents=True, exist_ok=True)
        return {
            **server_environment(store or self.records),
            **self.devices.environment(),
            "DOLMETSCH_DB_NAME": USER,
            "DOLMETSCH_CLUSTER": "1",
            "DOLMETSCH_NODE": name,
            "DOLMETSCH_DEMO": "1" if self.has_demo else "0",
            "DOLMETSCH_HOSTS": "127.0.0.1,localhost",
            "DOLMETSCH_LOGS": "json",
            # what applications share: in a real set, a folder of a file server
            "DOLMETSCH_PHOTOS": str(self.folder / "photos"),
            "DOLMETSCH_KEPT": str(self.folder / "kept" / name),
            "PROMETHEUS_MULTIPROC_DIR": str(self.folder / "metrics" / name),
        }

    def _fill(self, store: Database) -> None:
        env = {**self.environment("migrate", store), "DOLMETSCH_CLUSTER": "0"}
        migrate(self.logs, env, has_demo=self.has_demo)

    def _wait_for_records(self) -> None:
        """Until the proxy has found the nodes."""
        deadline = time.monotonic() + READY_SECONDS
        while not self.records.is_ready():
            if time.monotonic() > deadline:
                raise TroubleError(f"The proxy found no node that serves (see {self.logs / 'proxy.log'}).")
            time.sleep(0.2)

    def start_application(self, at: int) -> None:
        """One of the applications, again.

        Raises:
            TroubleError: it does not come up.
        """
        self.launch_application(at)
        self.wait_for_application(at)

    def launch_application(self, at: int) -> None:
        """Start one, and do not wait for it."""
        port, name = self.application_ports[at], f"app{at + 1}"
        end_orphans(f":{port}", "dolmetsch.server.config.wsgi")
        log = self.logs / f"{name}.log"
        command = [*gunicorn(port), "--workers", "1", *PATIENT]
        self.applications[at] = spawn(command, log=log, env=self.environment(name), cwd=paths.ROOT)

    def wait_for_application(self, at: int) -> None:
        """Wait until it answers.

        Raises:
            TroubleError: it does not come up.
        """
        process = self.applications[at]
        if process is not None:
            wait_until_served(self.application_ports[at], process, log=self.logs / f"app{at + 1}.log")

    def start_collector(self, at: int) -> None:
        """One of the collectors: the first hears the devices, the other stands by."""
        name = f"collector{at + 1}"
        self.collectors[at] = spawn_collector(self.logs / f"{name}.log", self.environment(name))

    def watch(self, ending: Callable[[], bool] = lambda: False) -> None:
        """Start again what ends and lead back who is apart, until asked to stop or ``ending``."""
        watched, rejoining = self._list_watched(), Rejoining(self.nodes, self.begin_records)
        while not ending():
            time.sleep(0.2)
            look_after(watched)
            rejoining.look()

    def _list_watched(self) -> list[Watched]:
        """What is started again where it ends."""
        proxy = Watched(
            name="The proxy",
            has_ended=lambda: self.proxy is None or self.proxy.poll() is not None,
            start=self.start_proxy,
        )
        nodes = [
            Watched(name=f"Node {at}", has_ended=node.has_ended, start=node.launch)
            for at, node in enumerate(self.nodes, start=1)
        ]
        return [
            *nodes,
            proxy,
            *_watch_each("Application", self.applications, self.start_application),
            *_watch_each("Collector", self.collectors, self.start_collector),
        ]

    def close(self) -> None:
        """Stop what runs, the node that stops last writes last."""
        for process in (*self.collectors, *self.applications, self.proxy):
            if process is not None:
                end(process, patience=20)
        self.devices.stop()
        for node in reversed(self.nodes):
            node.stop()


def _watch_each(
    name: str, processes: list[Popen[bytes] | None], start: Callable[[int], None]
) -> list[Watched]:
    """All of ``processes``, as they are by then."""

    def has_ended(at: int) -> bool:
        process = processes[at]
        return process is None or process.poll() is not None

    return [
        Watched(name=f"{name} {at + 1}", has_ended=partial(has_ended, at), start=partial(start, at))
        for at in range(len(processes))
    ]
