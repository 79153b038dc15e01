"""Attacks on a running `./dolmetsch start` of the demo: `attacks.py kill 30`, `attacks.py fuzz 10000`.

Both end with figures; exit 1 where an acknowledged record is lost or doubled, the server does not come back
within two minutes, an answer is a server error, or a refusal is no problem document.
"""

import argparse
import collections
import contextlib
import http.client
import itertools
import json
import os
import random
import signal
import sys
import threading
import time
import urllib.error
import urllib.request
import uuid
from http.cookiejar import CookieJar
from pathlib import Path

from benchmarks.sizes import ROOT, of
from dolmetsch.server.access.demo_sign_in import DEMO_PASSWORD, DEMO_USERNAME

WRITERS, STREAMS = of((20, 4), (3, 1))
#: It has to be back after so many seconds.
PATIENCE = 120.0


class Cook:
    """A signed-in client of the API."""

    def __init__(self, base):
        self.base, self.jar = base, CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.call("GET", "/api/session")
        body = {"username": DEMO_USERNAME, "password": DEMO_PASSWORD}
        _, answer = self.call("POST", "/api/session", body)
        self.kitchen = f"/api/kitchens/{answer['kitchens'][0]['slug']}"

    def send(self, method, path, data=None, headers=(), timeout=30):
        token = next((one.value for one in self.jar if one.name == "csrftoken"), "")
        request = urllib.request.Request(self.base + path, data=data, method=method)
        for name, value in {
            "X-CSRFToken": token,
            "Content-Type": "application/json",
            **dict(headers),
        }.items():
            request.add_header(name, value)
        try:
            with self.opener.open(request, timeout=timeout) as answer:
                return answer.status, answer.headers.get_content_type(), answer.read()
        except urllib.error.HTTPError as error:
            return error.code, error.headers.get_content_type(), error.read()

    def call(self, method, path, body=None, key=None):
        headers = {} if key is None else {"Idempotency-Key": key}
        data = None if body is None else json.dumps(body).encode()
        status, _, answer = self.send(method, path, data, headers)
        return status, json.loads(answer or b"null")


def processes():
    """Process numbers of this folder's server and database: master, workers, database."""
    found = {"master": [], "worker": [], "database": []}
    parents = {}
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            words = (folder / "cmdline").read_bytes().decode(errors="replace")
            parent = int((folder / "stat").read_text().rsplit(")", 1)[1].split()[1])
        except OSError:
            continue
        if str(ROOT) not in words:
            continue
        if "gunicorn" in words:
            parents[int(folder.name)] = parent
        elif "mariadbd" in words.split("\0")[0]:
            found["database"].append(int(folder.name))
    for pid, parent in parents.items():
        found["worker" if parent in parents else "master"].append(pid)
    return found


class Load:
    """Writers and listeners that go on through every kill; each record has a name of its own."""

    def __init__(self, cook):
        self.cook, self.stop = cook, threading.Event()
        self.sent, self.acknowledged = itertools.count(), []
        self.threads = [threading.Thread(target=self.write) for _ in range(WRITERS)]
        self.threads += [threading.Thread(target=self.listen) for _ in range(STREAMS)]
        for thread in self.threads:
            thread.start()

    def write(self):
        while not self.stop.is_set():
            name, key = f"attack {uuid.uuid4().hex[:6]} {next(self.sent)}", str(uuid.uuid4())
            body = {
                "sort": "ingredient",
                "name": name,
                "source": "kill round",
                "price": "1.00",
                "size": "1 kg",
            }
            body["on"] = time.strftime("%Y-%m-%d", time.gmtime())
            while not self.stop.is_set() and not self.write_once(name, body, key):
                time.sleep(0.2)

    def write_once(self, name, body, key):
        """The same key until it is acknowledged."""
        try:
            status, _ = self.cook.call("POST", f"{self.cook.kitchen}/prices", body, key)
        except (OSError, ValueError, http.client.HTTPException):
            return False
        if status in (200, 201):
            self.acknowledged.append(name)
        return status in (200, 201)

    def listen(self):
        address = f"{self.cook.base}{self.cook.kitchen}/scales/bench/stream"
        while not self.stop.is_set():
            try:
                with self.cook.opener.open(address, timeout=10) as stream:
                    while not self.stop.is_set() and stream.readline():
                        pass
            except (OSError, http.client.HTTPException):
                time.sleep(0.5)

    def end(self):
        self.stop.set()
        for thread in self.threads:
            thread.join(timeout=40)


def count_quotes(cook):
    """How often each record of this run is in the price list."""
    counted, page = {}, 0
    while True:
        _, answer = cook.call("GET", f"{cook.kitchen}/prices?sort=ingredient&find=attack&page={page}")
        if not answer["items"]:
            break
        counted.update({line["name"]: line["quotes"] for line in answer["items"]})
        page += 1
    return counted


def kill_once(dice, load):
    """End one kind of process or two, without warning; seconds until a record is acknowledged again."""
    time.sleep(dice.uniform(0.5, 2.5))
    choices = [["master"], ["worker"], ["database"], ["master", "worker"], ["master", "database"]]
    kinds = dice.choice(choices)
    running = processes()
    for pid in (pid for kind in kinds for pid in running[kind]):
        with contextlib.suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
    # what was acknowledged on its way out does not count as back
    time.sleep(0.3)
    begun, before = time.monotonic(), len(load.acknowledged)
    while len(load.acknowledged) == before and time.monotonic() - begun < PATIENCE:
        time.sleep(0.05)
    took = time.monotonic() - begun
    print(f"{' and '.join(kinds)} killed, writing again after {took:.1f} s", flush=True)
    return took


def kill_rounds(base, rounds, seed):
    dice, load = random.Random(seed), Load(Cook(base))
    back = sorted(kill_once(dice, load) for _ in range(rounds))
    load.end()
    counted = count_quotes(load.cook)
    lost = [name for name in load.acknowledged if not counted.get(name)]
    doubled = [name for name, times in counted.items() if times > 1]
    failed = sum(took >= PATIENCE for took in back)
    print(
        f"{rounds} rounds, {len(load.acknowledged)} acknowledged, {len(lost)} lost, {len(doubled)} doubled, "
        f"back after {back[len(back) // 2]:.1f} s (median), {back[-1]:.1f} s at most, {failed} not back"
    )
    return bool(lost or doubled or failed)


ODD_TEXTS = [
    "",
    " ",
    "\u200b",
    "x" * 61,
    "x" * 5000,
    "\x00",
    "½",
    "-1",
    "1e9",
    "4 lb 6",
    "2,5 %",
    "€8.90",
    "🐖",
    "NaN",
]


def make(schema, schemas, dice, depth=0):
    """A value of ``schema``, or now and then of none."""
    if "$ref" in schema:
        schema = schemas[schema["$ref"].rsplit("/", 1)[1]]
    for word in ("anyOf", "oneOf", "allOf"):
        if word in schema:
            return make(dice.choice(schema[word]), schemas, dice, depth)
    if dice.random() < 0.05 or depth > 6:
        return dice.choice([None, [], {}, -1, 2**70, *ODD_TEXTS])
    if "enum" in schema or "const" in schema:
        return dice.choice(schema.get("enum") or [schema["const"]])
    kind = schema.get("type")
    if kind == "object" or "properties" in schema:
        needed = set(schema.get("required", ()))
        return {
            name: make(part, schemas, dice, depth + 1)
            for name, part in schema.get("properties", {}).items()
            if (name in needed and dice.random() > 0.03) or dice.random() < 0.6
        }
    if kind == "array":
        return [make(schema["items"], schemas, dice, depth + 1) for _ in range(dice.randint(0, 3))]
    if kind in ("integer", "number"):
        return dice.choice([0, 1, 2, -1, 120, 10**6, 2**63])
    if kind == "boolean":
        return dice.random() < 0.5
    plain = ["4 lb", "2.5 %", "salt", "B-01", "A", "2026-01-02", "2026-01-02T10:00:00Z", "1.20/kg", "smoke"]
    return dice.choice([*plain, *ODD_TEXTS])


def fuzz(base, count, seed):
    dice, cook = random.Random(seed), Cook(base)
    document = json.loads((ROOT / "docs/openapi.json").read_text())
    schemas = document["components"]["schemas"]
    operations = [
        (path, method.upper(), result)
        for path, methods in document["paths"].items()
        for method, result in methods.items()
        if "/stream" not in path and path != "/api/session"
    ]
    statuses, bad = collections.Counter(), []
    slug = cook.kitchen.rsplit("/", 1)[1]
    for _ in range(count):
        path, method, result = dice.choice(operations)
        address, query = path, []
        for part in result.get("parameters", ()):
            known = {
                "kitchen_slug": [slug],
                "code": ["B-01", "J-01", "L-01", "Z-99"],
                "mark": ["A", "B", "lot"],
            }
            value = dice.choice(known.get(part["name"], ["1", "2", "0", "x", "-1", "%00", "bench", "csv"]))
            if part["in"] == "path":
                address = address.replace("{" + part["name"] + "}", value)
            elif part["in"] == "query" and dice.random() < 0.7:
                query.append(f"{part['name']}={value}")
        media = result.get("requestBody", {}).get("content", {}).get("application/json")
        data = None
        if media is not None:
            data = json.dumps(make(media["schema"], schemas, dice)).encode()
        elif method != "GET":
            data = dice.choice([b"", b"{", b"\x00", b"--x"])
        headers = {"Idempotency-Key": str(uuid.uuid4())}
        if dice.random() < 0.03:
            headers["Content-Type"] = dice.choice(["multipart/form-data", "text/plain", "application/xml"])
        address += ("?" + "&".join(query)) if query else ""
        status, kind, answer = cook.send(method, address, data, headers)
        statuses[status] += 1
        is_known_away = status == 503 and kind == "application/problem+json"
        if (status >= 500 and not is_known_away) or (status >= 400 and kind != "application/problem+json"):
            bad.append((method, address, status, kind, (data or b"")[:300], answer[:200]))
            print("BAD", *bad[-1], flush=True)
    print(
        f"{count} requests, {len(bad)} bad; " + ", ".join(f"{n} × {s}" for s, n in sorted(statuses.items()))
    )
    return bool(bad)


def main():
    words = argparse.ArgumentParser(description=__doc__)
    words.add_argument("attack", choices=["kill", "fuzz"])
    words.add_argument("count", type=int)
    words.add_argument("--base", default="http://127.0.0.1:8137")
    words.add_argument("--seed", type=int, default=1)
    answer = words.parse_args()
    sys.exit({"kill": kill_rounds, "fuzz": fuzz}[answer.attack](answer.base, answer.count, answer.seed))


if __name__ == "__main__":
    main()
