"""Several machines on one: three nodes of the record store, two applications, two collectors and a proxy."""

import contextlib
import os
import shutil
import signal
import subprocess
import tempfile
import time
import urllib.request
from pathlib import Path

import pytest
from benchmarks.soak.cluster import (
    Machines,
    begin_writers,
    count_split,
    disturb,
    wait_for_all,
    write_meanwhile,
)
from benchmarks.soak.run import Writer, compare, list_refused, wait_until

from dolmetsch.command import paths
from dolmetsch.command.database import find_free_port
from dolmetsch.command.serving import gunicorn, wait_until_served
from tests.waiting import LONGEST

COUNT = 12


@pytest.fixture(scope="module")
def machines():
    shared = "/dev/shm"
    folder = Path(tempfile.mkdtemp(prefix="dolmetsch-", dir=shared if os.access(shared, os.W_OK) else None))
    # a node may be killed in any second: what it has acknowledged is to be there then, as in a real set
    found = Machines(folder)
    yield found
    found.end()
    shutil.rmtree(folder, ignore_errors=True)


@pytest.fixture(scope="module")
def writers(machines):
    return begin_writers(machines, COUNT)


def write_while(writers, act, *, more=20):
    """``act`` in mid-write; then so many records more, and each of them there once."""

    def do(total):
        before = total()
        assert wait_until(lambda: total() > before, LONGEST) < LONGEST
        act()
        seen = total()
        assert wait_until(lambda: total() > seen + more, patience=180) < 180, "it is written again"

    write_meanwhile(writers, do)
    assert compare(writers) == (0, 0)
    assert list_refused(writers) == []


def wait_for_applications(machines):
    """Until both answer, and the proxy has seen it."""
    for port in machines.facts["applications"]:
        page = f"http://127.0.0.1:{port}/"
        assert wait_until(lambda page=page: urllib.request.urlopen(page, timeout=5), LONGEST) < LONGEST
    time.sleep(2)


def test_a_node_killed_in_mid_write_loses_nothing_and_comes_back(machines, writers):
    write_while(writers, lambda: disturb(machines, "a node killed", 0))
    assert wait_for_all(machines) < 180
    assert count_split(machines) == 0
    assert machines.manage("check_records")[0] == 0


def test_an_application_killed_or_ended_leaves_the_other_serving(machines, writers):
    write_while(writers, lambda: disturb(machines, "an application killed", 0))
    wait_for_applications(machines)
    # one ended in order finishes what it has begun, and the proxy asks the other
    asked = []

    def end_and_ask():
        disturb(machines, "an application ended in order", 1)
        for _ in range(40):
            try:
                asked.append(writers[0].call("GET", f"/api/kitchens/{writers[0].slug}/today")[0])
            except ValueError as error:
                asked.append(str(error))

    write_while(writers, end_and_ask)
    assert set(asked) == {200}
    wait_for_applications(machines)


def at_port(port, writer):
    """``writer``, who is signed in, at the application of ``port``."""
    other = Writer(f"http://127.0.0.1:{port}", writer.number)
    other.jar, other.opener = writer.jar, writer.opener
    return other


def test_who_is_signed_in_is_so_whichever_application_answers(machines, writers):
    at_each = [at_port(port, writers[0]) for port in machines.facts["applications"]]
    assert [one.call("GET", "/api/session")[1]["signed_in"] for one in at_each] == [True, True]
    # what one has written the next one sees at once
    slug = writers[0].slug
    for at in range(6):
        sent, seen = at_each[at % 2], at_each[(at + 1) % 2]
        body = {"name": f"seen {at}", "bought": {"act": "bought", "cut": "jowl", "own_weight": "10 lb"}}
        body["bought"] |= {"price_basis": "pack", "price": "20.00"}
        status, made = sent.call("POST", f"/api/kitchens/{slug}/batches", body)
        assert status == 201, made
        assert seen.call("GET", f"/api/kitchens/{slug}/batches/{made['batch']['code']}")[0] == 200


@contextlib.contextmanager
def applications_of_their_own(machines):
    """One application at each of two nodes, as where a proxy fails over for some of them only."""
    started, ports = [], []
    try:
        for at in (1, 2):
            port, log = find_free_port(), machines.folder / "logs" / f"own{at}.log"
            env = {**os.environ, **machines.facts["environment"]}
            env |= {"DOLMETSCH_DB_PORT": str(machines.nodes[at].port), "PATH": os.environ["PATH"]}
            env |= {"DOLMETSCH_KEPT": str(machines.folder / f"kept-own{at}")}
            command = [*gunicorn(port), "--workers", "1"]
            with log.open("ab") as out:
                started.append(subprocess.Popen(command, env=env, cwd=paths.ROOT, stdout=out, stderr=out))
            wait_until_served(port, started[-1], log=log)
            ports.append(port)
        yield ports
    finally:
        for one in started:
            one.terminate()
            one.wait(30)


def test_writes_that_meet_on_two_nodes_are_tried_again_and_keep_their_order(machines, writers):
    """The kitchen's row is in each write: of two at once another node's is undone, and tried again."""
    with applications_of_their_own(machines) as ports:
        for at, one in enumerate(writers):
            one.base = f"http://127.0.0.1:{ports[at % 2]}"
        write_while(writers, lambda: time.sleep(3), more=10)
        for one in writers:
            one.base = f"http://127.0.0.1:{machines.port}"
    met = [machines.ask(at, "SHOW STATUS LIKE 'wsrep_local_%'") for at in (1, 2)]
    undone = [line for node in met for line in node if "failures" in line or "aborts" in line]
    assert sum(int(line.split("\t")[1]) for line in undone) > 0, "none met"
    assert count_split(machines) == 0
    # sequences that a kitchen counts go on without a gap, and rows are numbered as they were committed
    rows = machines.ask(0, "SELECT batch_id, sequence, id FROM batches_entry ORDER BY batch_id, id")
    by_batch = {}
    for batch, sequence, _ in (row.split("\t") for row in rows if row):
        by_batch.setdefault(batch, []).append(int(sequence))
    for sequences in by_batch.values():
        assert sequences == list(range(1, len(sequences) + 1))
    codes = [row for row in machines.ask(0, "SELECT kitchen_id, code FROM batches_batch") if row]
    assert len(codes) == len(set(codes)) > COUNT / 2


def test_the_standby_takes_over_where_the_collector_ends(machines):
    def holder():
        return (machines.ask(0, "SELECT holder FROM fires_collectorlease") or [""])[0]

    assert wait_until(lambda: holder() in ("collector1", "collector2"), LONGEST) < LONGEST
    first = holder()
    # ended for good while the other takes over: stopped, it can neither renew nor give up
    at = int(first[-1]) - 1
    machines.signal(signal.SIGSTOP, "collector", at)
    try:
        assert wait_until(lambda: holder() not in ("", first), LONGEST) < LONGEST
    finally:
        machines.signal(signal.SIGCONT, "collector", at)


def watch_node(machines, at, restart):
    """What ``galera-watch`` does at the node ``at``, where to start it anew is the command ``restart``."""
    client, env = machines.nodes[at].client("mariadb", "--connect-timeout=2")
    env |= {
        "DOLMETSCH_CLIENT": " ".join(client),
        "DOLMETSCH_RESTART": restart,
        "DOLMETSCH_APART_SECONDS": "1",
    }
    script = paths.ROOT / "deploy" / "cluster" / "galera-watch"
    subprocess.run([script], env=env, check=True, timeout=30)


def test_nodes_that_have_given_their_group_up_begin_again_where_none_serves(machines, writers, tmp_path):
    """Two of three run on without a group, and the third is not the greater part: nobody would ever serve."""
    restarted = tmp_path / "restarted"
    watch_node(machines, 1, f"touch {restarted}")
    assert not restarted.exists(), "it is of its group"

    def give_up():
        disturb(machines, "two nodes of three that give their group up", 1)
        assert wait_until(lambda: machines.nodes[1].find_group() == "Disconnected", LONGEST) < LONGEST
        watch_node(machines, 1, f"touch {restarted}")
        assert restarted.exists()

    write_while(writers, give_up)
    assert wait_for_all(machines) < 180
    assert count_split(machines) == 0
    assert machines.manage("check_records")[0] == 0


def test_without_the_greater_part_nothing_is_taken_and_it_goes_on_after(machines, writers):
    """Two of three nodes stopped: who writes is told so, and nothing is acknowledged."""
    for at in (0, 1):
        machines.signal(signal.SIGSTOP, "node", at)
    try:
        body = {"sort": "ingredient", "name": "none", "source": "soak", "price": "1.00", "size": "1 kg"}
        body["on"] = time.strftime("%Y-%m-%d", time.gmtime())

        def is_told():
            status, answer = writers[0].call("POST", f"/api/kitchens/{writers[0].slug}/prices", body)
            assert status != 201
            return status == 503 and answer["code"] == "database_away"

        assert wait_until(is_told, LONGEST) < LONGEST
    finally:
        for at in (0, 1):
            machines.signal(signal.SIGCONT, "node", at)
    assert wait_for_all(machines) < 180
    write_while(writers, lambda: None)
    assert count_split(machines) == 0
