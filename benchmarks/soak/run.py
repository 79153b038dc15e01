"""A soak of a machine of its own: 50 writers while processes are killed and stopped, the disk fills up, the
clock jumps by more than a year each way and copies are taken as a power cut leaves them.
`./dolmetsch soak [ROUNDS] [SEED]`; ends with figures.

Every record has a key that its writer repeats until it is acknowledged. At the end each acknowledged record
has to be there once, and every sheet has to come to what its entries come to (`check_records`).
"""

import contextlib
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
import urllib.error
import urllib.request
import uuid
from http.client import HTTPException
from http.cookiejar import CookieJar
from pathlib import Path

from benchmarks.sizes import IN_MEMORY, of
from dolmetsch.command import holding, paths
from dolmetsch.command.database import Database, find_free_port

WRITERS = of(50, 4)
PATIENCE = 120.0
#: Also on a busy machine its tables are made by then.
START = 600.0
ROOM = "1200m"
BOUGHT = {"act": "bought", "cut": "jowl", "own_weight": "10 lb", "price_basis": "pack", "price": "20.00"}
FAULTS = (
    *("database", "master", "worker", "master and database"),
    *("stopped", "stopped server", "full disk", "power", "clock"),
)
#: By how many seconds the application's clock jumps, there and back.
JUMPS = (400 * 86400, -400 * 86400, 0)
SETTLED = 20.0
#: What the check rightly says of what was recorded while the clock was ahead.
AHEAD = "are of a time to come"


class Machine:
    """A machine of its own: its private folder on a small disk, served in a process group of its own."""

    def __init__(self, folder):
        self.folder, self.port, self.db_port = folder, find_free_port(), find_free_port()
        paths.PRIVATE = holding.PRIVATE = folder
        paths.LOGS = folder / "logs"
        paths.prepare()
        self.process = subprocess.Popen(
            [sys.executable, "-m", __spec__.name, "serve", str(folder), str(self.port), str(self.db_port)]
        )

    def database(self, folder):
        return Database(folder, port=self.db_port, password=paths.get_secret("database"), durable=True)

    def find(self, words):
        """Process numbers of this machine's server and database: master, workers, database."""
        found = {"master": [], "worker": [], "database": []}
        parents = {}
        for one in Path("/proc").glob("[0-9]*"):
            with contextlib.suppress(OSError, IndexError):
                command = (one / "cmdline").read_bytes().decode(errors="replace")
                parent = int((one / "stat").read_text().rsplit(")", 1)[1].split()[1])
                if "gunicorn" in command and f":{self.port}" in command:
                    parents[int(one.name)] = parent
                elif "mariadbd" in command.split("\0")[0] and str(self.folder) in command:
                    found["database"].append(int(one.name))
        for pid, parent in parents.items():
            found["worker" if parent in parents else "master"].append(pid)
        return [pid for word in words for pid in found[word]]

    def signal(self, words, number):
        for pid in self.find(words):
            with contextlib.suppress(ProcessLookupError):
                os.kill(pid, number)

    def end(self):
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(timeout=120)


class Writer:
    """Someone who signs in and writes: prices, or entries of a batch of their own.

    ``acknowledged``: names of prices, numbers of entries; ``batches``: of each batch its entries among them;
    ``refused``: answers that nothing here explains.
    """

    #: Today's date may be one that is still to come for the machine, which refuses it then.
    is_clock_off = False

    def __init__(self, base, number):
        self.base, self.number, self.jar = base, number, CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.acknowledged, self.batches, self.sent, self.slug = [], {}, 0, "soak"
        self.password, self.refused = "", []

    def call(self, method, path, body=None, key=None):
        token = next((one.value for one in self.jar if one.name == "csrftoken"), "")
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(self.base + path, data=data, method=method)
        for name, value in (("X-CSRFToken", token), ("Content-Type", "application/json")):
            request.add_header(name, value)
        request.add_header("Idempotency-Key", key or str(uuid.uuid4()))
        try:
            with self.opener.open(request, timeout=20) as answer:
                return answer.status, json.loads(answer.read())
        except urllib.error.HTTPError as error:
            return error.code, json.loads(error.read() or b"{}")

    def sign_in(self, password):
        self.password = password
        self.call("GET", "/api/session")
        status, answer = self.call("POST", "/api/session", {"username": "soak", "password": password})
        assert status == 200, answer
        self.slug = answer["kitchens"][0]["slug"]

    def until(self, path, body, stop):
        """The answer of what is sent with one key until it is acknowledged; None where it is to stop."""
        key = str(uuid.uuid4())
        while not stop.is_set():
            with contextlib.suppress(OSError, ValueError, HTTPException):
                status, answer = self.call("POST", f"/api/kitchens/{self.slug}{path}", body, key)
                if status in (200, 201):
                    return answer
                if status == 401:
                    # by the machine's clock nobody was here for a year
                    with contextlib.suppress(AssertionError):
                        self.sign_in(self.password)
                elif status < 500 and status != 429 and not Writer.is_clock_off:
                    self.refused.append((status, answer))
                    return None
            time.sleep(0.2)
        return None

    def go_on(self, stop):
        code = ""
        if self.number % 2 == 0:
            answer = self.until("/batches", {"name": f"soak {self.number}", "bought": BOUGHT}, stop)
            code = answer["batch"]["code"] if answer else ""
            if code:
                self.batches[code] = []
        while not stop.is_set() and not self.refused:
            self.write_price(stop) if self.number % 2 else self.write_weight(code, stop)

    def write_price(self, stop):
        self.sent += 1
        name = f"soak {self.number} {self.sent}"
        body = {"sort": "ingredient", "name": name, "source": "soak", "price": "1.00", "size": "1 kg"}
        body["on"] = time.strftime("%Y-%m-%d", time.gmtime())
        if self.until("/prices", body, stop):
            self.acknowledged.append(name)

    def write_weight(self, code, stop):
        count = len(self.batches[code])
        weights = [{"mark": "lot", "weight": f"{10 - count / 1000:.3f} lb"}]
        content = {"act": "weigh", "kind": f"step {count}", "weights": weights}
        body = {"content": content, "seen": count + 1}
        answer = self.until(f"/batches/{code}/entries", body, stop)
        if answer:
            self.batches[code].append(answer["entry"])
            self.acknowledged.append(answer["entry"])


def wait_until(check, patience=PATIENCE):
    begun = time.monotonic()
    while time.monotonic() - begun < patience:
        with contextlib.suppress(OSError, ValueError, HTTPException, AssertionError):
            if check():
                return time.monotonic() - begun
        time.sleep(0.1)
    return patience


def disturb(machine, fault, count, copies):
    """One fault; what a power cut would leave goes to ``copies`` with what was acknowledged by then."""
    if fault == "stopped":
        machine.signal(["database"], signal.SIGSTOP)
        time.sleep(5)
        machine.signal(["database"], signal.SIGCONT)
    elif fault == "stopped server":
        machine.signal(["master", "worker"], signal.SIGSTOP)
        time.sleep(5)
        machine.signal(["master", "worker"], signal.SIGCONT)
    elif fault == "full disk":
        filler = machine.folder / "filler"
        with contextlib.suppress(OSError), filler.open("wb") as out:
            while True:
                out.write(b"\0" * (1 << 20))
        time.sleep(4)
        filler.unlink()
    elif fault == "clock":
        Writer.is_clock_off = True
        for jump in JUMPS:
            (machine.folder / "clock").write_text(str(jump))
            time.sleep(4)
        # what was asked before is answered by then
        time.sleep(SETTLED)
        Writer.is_clock_off = False
    elif fault == "power":
        known = count()
        machine.signal(["database"], signal.SIGSTOP)
        into = copies / f"copy-{time.monotonic_ns()}"
        shutil.copytree(machine.folder / "mariadb", into, ignore=shutil.ignore_patterns("*.sock"))
        machine.signal(["database"], signal.SIGCONT)
        (into / "known").write_text(json.dumps(known))
    else:
        machine.signal(fault.split(" and "), signal.SIGKILL)


def run_rounds(machine, rounds, dice, password, copies):
    base = f"http://127.0.0.1:{machine.port}"
    writers = [Writer(base, number) for number in range(WRITERS)]
    for one in writers:
        one.sign_in(password)
    stop = threading.Event()
    threads = [threading.Thread(target=one.go_on, args=(stop,)) for one in writers]
    for one in threads:
        one.start()
    # a batch bought by a clock that is off takes nothing that is weighed before that day
    wait_until(lambda: all(one.batches or one.number % 2 for one in writers))

    def total():
        return sum(len(one.acknowledged) for one in writers)

    def known():
        return {str(one.number): list(one.acknowledged) for one in writers}

    back = []
    for number in range(rounds):
        time.sleep(dice.uniform(1, 3))
        fault = FAULTS[number % len(FAULTS)]
        disturb(machine, fault, known, copies)
        time.sleep(0.3)
        before = total()
        back.append(wait_until(lambda before=before: total() > before))
        print(
            f"round {number + 1}: {fault}, writing again after {back[-1]:.1f} s, {total()} records",
            flush=True,
        )
    stop.set()
    for one in threads:
        one.join(timeout=60)
    return writers, back


def compare(writers):
    """Acknowledged records that are lost, and records that are there twice."""
    lost = doubled = 0
    asking = writers[0]
    asking.sign_in(asking.password)
    for one in writers:
        if one.number % 2:
            counted, page = {}, 0
            while True:
                path = (
                    f"/api/kitchens/{one.slug}/prices?sort=ingredient&find=soak%20{one.number}%20&page={page}"
                )
                items = asking.call("GET", path)[1]["items"]
                if not items:
                    break
                counted.update({item["name"]: item["quotes"] for item in items})
                page += 1
            lost += sum(not counted.get(name) for name in one.acknowledged)
            doubled += sum(times > 1 for times in counted.values())
        for code, entries in one.batches.items():
            log = asking.call("GET", f"/api/kitchens/{one.slug}/batches/{code}")[1]["log"]
            steps = [line["id"] for line in log]
            lost += sum(entry not in steps for entry in entries)
            # one may have been written whose answer nobody heard
            doubled += max(len(steps) - len(entries) - 2, 0)
    return lost, doubled


def list_refused(writers):
    """Answers that nothing here explains; each is printed."""
    refused = [one for writer in writers for one in writer.refused]
    for one in refused:
        print(f"refused: {one}")
    return refused


def ask_rows(database, query):
    command, env = database.client("mariadb", "-N", "dolmetsch", "-e", query)
    done = subprocess.run(command, env=env, capture_output=True, text=True, check=True)
    return set(done.stdout.splitlines())


def lost_in_copies(machine, copies):
    """Acknowledged records that a copy, as a power cut leaves it, does not hold once it is started."""
    lost = count = 0
    for folder in sorted(copies.glob("copy-*")):
        known = json.loads((folder / "known").read_text())
        database = machine.database(folder)
        database.port = find_free_port()
        database.start()
        try:
            names = ask_rows(database, "SELECT name FROM prices_priceitem WHERE name LIKE 'soak %'")
            entries = ask_rows(database, "SELECT id FROM batches_entry")
        finally:
            database.stop()
        count += 1
        for records in known.values():
            lost += sum(str(one) not in entries and str(one) not in names for one in records)
    return count, lost


def manage(machine, *words):
    env = {**os.environ, **machine.database(machine.folder / "mariadb").environment()}
    env |= {
        "DOLMETSCH_PHOTOS": str(machine.folder / "photos"),
        "DOLMETSCH_SECRET_KEY": paths.get_secret("django"),
    }
    env["DOLMETSCH_DB_NAME"] = "dolmetsch"
    command = [str(paths.PYTHON), "-W", "ignore", "-m", "django", *words]
    done = subprocess.run(command, env=env, capture_output=True, text=True, check=False)
    return done.returncode, (done.stdout + done.stderr).strip()


def soak(rounds, seed):
    dice, password = random.Random(seed), uuid.uuid4().hex
    base = Path(tempfile.mkdtemp(prefix="dolmetsch-soak-", dir=IN_MEMORY))
    small = base / "disk"
    small.mkdir()
    is_small = (
        os.geteuid() == 0
        and not subprocess.run(
            ["mount", "-t", "tmpfs", "-o", f"size={ROOM}", "tmpfs", str(small)],
            check=False,
            capture_output=True,
        ).returncode
    )
    global FAULTS  # noqa: PLW0603 (a disk that may not be mounted can't be filled)
    if not is_small:
        print("no disk of its own could be mounted here: the disk is not filled up")
        FAULTS = tuple(one for one in FAULTS if one != "full disk")
    machine = Machine(small)
    try:
        served = f"http://127.0.0.1:{machine.port}/healthz"
        took = wait_until(lambda: urllib.request.urlopen(served, timeout=5), START)
        assert took < START, f"not served within {START:g} s"
        status, said = manage(machine, "kitchen", "new", "Soak", "--owner", "soak")
        assert status == 0, said
        code = said.split("/password/")[1].strip()
        first = Writer(f"http://127.0.0.1:{machine.port}", 0)
        first.call("GET", "/api/session")
        assert first.call("POST", f"/api/password-links/{code}", {"new": password})[0] == 200
        writers, back = run_rounds(machine, rounds, dice, password, base)
        lost, doubled = compare(writers)
        _, said = manage(machine, "check_records")
        copies, cut = lost_in_copies(machine, base)
    finally:
        machine.end()
        if is_small:
            subprocess.run(["umount", "-l", str(small)], check=False)
        shutil.rmtree(base, ignore_errors=True)
    total, failed = sum(len(one.acknowledged) for one in writers), sum(took >= PATIENCE for took in back)
    back.sort()
    refused = list_refused(writers)
    print(said)
    *wrong, summary = [line for line in said.splitlines() if AHEAD not in line]
    is_looked_over = "looked over" in summary
    print(
        f"{rounds} rounds, {WRITERS} writers, {total} acknowledged: {lost} lost, {doubled} doubled, "
        f"{len(wrong) if is_looked_over else 'some'} half-written; "
        f"{copies} copies as of a power cut, {cut} lost in them; "
        f"back after {back[len(back) // 2]:.1f} s (median), {back[-1]:.1f} s at most, {failed} not back"
    )
    return int(bool(lost or doubled or cut or failed or wrong or refused or not is_looked_over))


def build_clock(folder):
    """What gives the application's processes a clock that goes by the file ``clock`` of ``folder``."""
    made, source = folder / "clock.so", Path(__file__).with_name("clock.c")
    subprocess.run(["cc", "-shared", "-fPIC", "-O1", "-o", str(made), str(source)], check=True)
    return {"LD_PRELOAD": str(made), "DOLMETSCH_CLOCK": str(folder / "clock")}


def serve(folder, port, db_port):
    """The machine itself: what ``./dolmetsch start`` runs, over another private folder."""
    paths.PRIVATE = holding.PRIVATE = Path(folder)
    paths.LOGS = paths.PRIVATE / "logs"
    from dolmetsch.command import serving

    plain, clock = serving.server_environment, build_clock(Path(folder))
    serving.server_environment = lambda database: {**plain(database), **clock}
    serving.set_up = lambda *, meanwhile, **_: meanwhile()
    serving.start(serving.Wanted(port=int(port), db_port=int(db_port), has_demo=False, backups=0))


if __name__ == "__main__":
    if sys.argv[1:2] == ["serve"]:
        serve(*sys.argv[2:])
    else:
        numbers = [int(word) for word in sys.argv[1:]]
        sys.exit(soak(*(numbers + [20, 1][len(numbers) :])))
