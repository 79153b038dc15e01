"""A soak of a set of several machines on loopback: 50 writers while one part after another fails.
`./dolmetsch soak --cluster [ROUNDS] [SEED]`; ends with figures.

Records are written and compared as in `soak.py`: each acknowledged one has to be there once, on every node.
"""

import contextlib
import dataclasses
import json
import os
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
import uuid
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from benchmarks.soak.run import WRITERS, Writer, compare, list_refused, wait_until
from dolmetsch.command import holding, paths
from dolmetsch.command.cluster.galera import Node, Ports
from dolmetsch.command.cluster.machines import Cluster
from dolmetsch.command.database import find_free_port

#: Seconds that are watched after a fault, longer than the 4 that a node is waited for.
AFTER = 6
#: Each fault: whom it meets, and for how many seconds they are away.
FAULTS = {
    "a node killed": ("node", 0),
    "a node stopped": ("node", 10),
    "a node cut off": ("node", 10),
    "a node that gives its group up": ("node", 0),
    "a node without its records": ("node", 0),
    "an application killed": ("application", 0),
    "an application ended in order": ("application", 0),
    "the collector killed": ("collector", 0),
    "the proxy killed": ("proxy", 0),
    "two nodes of three stopped": ("node", 12),
    "two nodes of three killed": ("node", 0),
    "two nodes of three that give their group up": ("node", 0),
}


class Machines:
    """The set, served by a process of its own over ``folder``."""

    def __init__(self, folder):
        self.folder, self.port = folder, find_free_port()
        words = [str(folder), str(self.port)]
        with (folder / "serve.log").open("wb") as log:
            self.process = subprocess.Popen(
                [sys.executable, "-m", __spec__.name, "serve", *words], stdout=log, stderr=subprocess.STDOUT
            )
        wait_until(lambda: (folder / "open").is_file() or self.process.poll() is not None, patience=900)
        if not (folder / "open").is_file():
            self.end()
            said = (folder / "serve.log").read_text()
            shutil.rmtree(folder, ignore_errors=True)
            raise RuntimeError(f"The set of machines did not come up:\n{said}")
        self.facts = json.loads((folder / "open").read_text())
        self.nodes = [
            Node(folder / f"node{at}", ports=Ports(**ports), password=self.facts["password"], durable=True)
            for at, ports in enumerate(self.facts["nodes"], start=1)
        ]

    def find(self, sort, at=0):
        """Process numbers of the node, application, collector or proxy ``at``."""
        words = {
            "node": ("mariadbd", f"{self.folder}/node{at + 1}/data"),
            "application": ("gunicorn", f"127.0.0.1:{(self.facts['applications'] * 2)[at]}"),
            "collector": ("django", "collect"),
            "proxy": ("haproxy", str(self.folder)),
        }[sort]
        found = []
        for one in Path("/proc").glob("[0-9]*"):
            with contextlib.suppress(OSError):
                command = (one / "cmdline").read_bytes().decode(errors="replace")
                is_ours = sort != "collector" or f"DOLMETSCH_NODE=collector{at + 1}" in (
                    one / "environ"
                ).read_bytes().decode(errors="replace").split("\0")
                if all(word in command for word in words) and "sh\0" not in command[:8] and is_ours:
                    found.append(int(one.name))
        return found

    def signal(self, number, sort, at=0):
        for pid in self.find(sort, at):
            with contextlib.suppress(ProcessLookupError):
                os.kill(pid, number)

    def ask(self, at, query):
        command, env = self.nodes[at].client("mariadb", "-N", "dolmetsch", "-e", query)
        done = subprocess.run(command, env=env, capture_output=True, text=True, check=False, timeout=30)
        return done.stdout.split("\n") if done.returncode == 0 else None

    def isolate(self, at, how):
        """Cut the node ``at`` off from the others (1), let it come back (0), or have its group communication
        end with an error while it runs on (2).
        """
        query = f"SET GLOBAL wsrep_provider_options = 'gmcast.isolate={how}'"
        # the application's user may not do that
        command = [*([] if os.geteuid() == 0 else ["sudo"]), "mariadb", "--no-defaults", "-uroot"]
        command += [f"-S{self.nodes[at].socket_path()}", "-e", query]
        subprocess.run(command, check=True, capture_output=True, timeout=30)

    def manage(self, *words):
        env = {**os.environ, **self.facts["environment"]}
        command = [str(paths.PYTHON), "-W", "ignore", "-m", "django", *words]
        done = subprocess.run(command, env=env, capture_output=True, text=True, check=False)
        return done.returncode, (done.stdout + done.stderr).strip()

    def end(self):
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(timeout=120)


def disturb(machines, fault, at):
    """One fault of part ``at``; what is stopped or cut off comes back after its time."""
    sort, seconds = FAULTS[fault]
    parts = [at % 3, (at + 1) % 3] if fault.startswith("two") else [at % {"node": 3}.get(sort, 2)]
    if fault == "a node cut off":
        machines.isolate(parts[0], 1)
        time.sleep(seconds)
        machines.isolate(parts[0], 0)
    elif "group up" in fault:
        for part in parts:
            machines.isolate(part, 2)
    elif seconds:
        for part in parts:
            machines.signal(signal.SIGSTOP, sort, part)
        time.sleep(seconds)
        for part in parts:
            machines.signal(signal.SIGCONT, sort, part)
    elif fault == "a node without its records":
        machines.signal(signal.SIGKILL, sort, parts[0])
        # what it held is gone: the others send it all
        (machines.nodes[parts[0]].folder / "data" / "grastate.dat").write_text(
            "# GALERA saved state\nversion: 2.1\nuuid:    00000000-0000-0000-0000-000000000000\n"
            "seqno:   -1\nsafe_to_bootstrap: 0\n"
        )
    else:
        for part in parts:
            if fault.endswith("in order"):
                # its master ends the rest
                os.kill(min(machines.find(sort, part)), signal.SIGTERM)
            else:
                machines.signal(signal.SIGKILL, sort, 0 if sort == "proxy" else part)


def begin_writers(machines, count=WRITERS):
    """Writers of a new kitchen, signed in."""
    base, password = f"http://127.0.0.1:{machines.port}", uuid.uuid4().hex
    status, said = machines.manage("kitchen", "new", "Soak", "--owner", "soak")
    assert status == 0, said
    first = Writer(base, 0)
    # the proxy has to have found the applications first
    wait_until(lambda: first.call("GET", "/api/session")[0] == 200)
    code = said.split("/password/")[1].strip()
    assert first.call("POST", f"/api/password-links/{code}", {"new": password})[0] == 200
    writers = [Writer(base, number) for number in range(count)]
    for one in writers:
        one.sign_in(password)
    return writers


def write_meanwhile(writers, act):
    """``act`` while all write; it is given how many records are acknowledged by now."""
    stop = threading.Event()
    threads = [threading.Thread(target=one.go_on, args=(stop,)) for one in writers]
    for one in threads:
        one.start()
    try:
        return act(lambda: sum(len(one.acknowledged) for one in writers))
    finally:
        stop.set()
        for one in threads:
            one.join(timeout=60)


def wait_for_all(machines, patience=180):
    """Seconds until all nodes are of one cluster again."""
    wanted = ["wsrep_cluster_size\t3", "wsrep_local_state_comment\tSynced"]
    query = "SHOW STATUS WHERE Variable_name IN ('wsrep_cluster_size', 'wsrep_local_state_comment')"

    def is_whole():
        return all(sorted(filter(None, machines.ask(at, query) or [])) == wanted for at in range(3))

    return wait_until(is_whole, patience)


def count_split(machines):
    """Tables of records that are not the same on all nodes."""
    tables = ("batches_entry", "prices_priceitem", "prices_quote", "audit_auditrow", "kitchens_kitchen")
    names = [name for name in tables if machines.ask(0, f"SELECT 1 FROM {name} LIMIT 1") is not None]
    split = 0
    for name in names:
        sums = {tuple(machines.ask(at, f"CHECKSUM TABLE {name}") or ["away"]) for at in range(3)}
        split += len(sums) > 1
    return split


def run_rounds(machines, writers, rounds, dice):
    def disturb_all(total):
        away = {fault: [] for fault in FAULTS}
        for number in range(rounds):
            for at, fault in enumerate(FAULTS):
                time.sleep(dice.uniform(0.5, 2))
                longest = watch_service(
                    total, lambda fault=fault, at=at + number: disturb(machines, fault, at)
                )
                whole = wait_for_all(machines)
                away[fault].append(longest)
                print(
                    f"round {number + 1}, {fault}: {longest:.1f} s without a record, whole again after "
                    f"{whole:.1f} s, {total()} records",
                    flush=True,
                )
        return away

    return write_meanwhile(writers, disturb_all)


def watch_service(total, act):
    """The longest time without an acknowledged record from before ``act`` until ``AFTER`` it, or until it
    goes on."""
    begun = last = time.monotonic()
    seen, longest, after = total(), 0.0, None
    fault = ThreadPoolExecutor(1).submit(act)
    while True:
        time.sleep(0.05)
        now = time.monotonic()
        if total() > seen:
            longest, last, seen = max(longest, now - last), now, total()
        if after is None and fault.done():
            # raises what went wrong with it
            fault.result()
            after = now
        if after is not None and now - after > AFTER and (last > after or now - begun > 180):
            return max(longest, now - last)


def soak(rounds, seed):
    dice, only = random.Random(seed), os.environ.get("ONLY", "")
    for fault in [one for one in FAULTS if only not in one]:
        del FAULTS[fault]
    folder = Path(tempfile.mkdtemp(prefix="dolmetsch-cluster-"))
    machines = Machines(folder)
    try:
        writers = begin_writers(machines)
        away = run_rounds(machines, writers, rounds, dice)
        lost, doubled = compare(writers)
        split = count_split(machines)
        status, said = machines.manage("check_records")
    finally:
        machines.end()
        shutil.rmtree(folder, ignore_errors=True)
    refused = list_refused(writers)
    print(said)
    for fault, ordered in ((fault, sorted(seconds)) for fault, seconds in away.items() if seconds):
        print(
            f"{fault}: {ordered[len(ordered) // 2]:.1f} s without a record (median), "
            f"{ordered[-1]:.1f} at most"
        )
    total = sum(len(one.acknowledged) for one in writers)
    print(
        f"{rounds} rounds of {len(FAULTS)} faults, {WRITERS} writers, {total} acknowledged: {lost} lost, "
        f"{doubled} doubled, {split} tables split, {'0' if status == 0 else 'some'} half-written"
    )
    return int(bool(lost or doubled or split or status or refused))


def serve(folder, port):
    """The set itself, over another folder than ``./dolmetsch cluster start`` has."""
    os.environ["PATH"] += ":/usr/sbin:/sbin"
    paths.PRIVATE = holding.PRIVATE = Path(folder)
    paths.LOGS = paths.PRIVATE / "logs"
    paths.prepare()
    cluster = Cluster(Path(folder), port=int(port), durable=True, has_demo=False)
    ending = threading.Event()
    signal.signal(signal.SIGTERM, lambda *_: ending.set())
    try:
        cluster.open()
        facts = {
            "password": cluster.password,
            "applications": cluster.application_ports,
            "nodes": [dataclasses.asdict(one.ports) for one in cluster.nodes],
            "environment": {
                name: value for name, value in cluster.environment("manage").items() if "DOLMETSCH" in name
            },
        }
        facts["environment"] |= {"DJANGO_SETTINGS_MODULE": "dolmetsch.server.config.settings"}
        facts["environment"] |= {"PYTHONPATH": str(paths.ROOT / "src")}
        (Path(folder) / "open.new").write_text(json.dumps(facts))
        (Path(folder) / "open.new").rename(Path(folder) / "open")
        cluster.watch(ending.is_set)
    finally:
        cluster.close()


if __name__ == "__main__":
    if sys.argv[1:2] == ["serve"]:
        serve(*sys.argv[2:])
    else:
        numbers = [int(word) for word in sys.argv[1:]]
        sys.exit(soak(*(numbers + [10, 1][len(numbers) :])))
