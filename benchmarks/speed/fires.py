"""Fires: what a collector takes in, a reading to the screens, a long live view, a year of air."""

import http.client
import json
import os
import socket
import statistics
import subprocess
import sys
import threading
import time
from datetime import UTC, datetime, timedelta
from random import Random

from benchmarks.connections import Pool
from benchmarks.sizes import of
from benchmarks.timing import timed

COOKERS, PROBES = of(20, 2), 8
SECONDS = of(20, 2)
LISTENERS = of(50, 2)
LINES = of(40, 3)
#: Nothing comes any more after so many.
MOST_LINES = 480
LONG_HOURS = of(14, 2)
#: Days of a chamber, read six times an hour.
DAYS = of(365, 3)


class TellingCooker:
    """A cooker of this process's own: it says a reading when it is told to, and notes when."""

    def __init__(self) -> None:
        self.server = socket.create_server(("127.0.0.1", 0))
        self.port = self.server.getsockname()[1]
        self.sent: dict[str, float] = {}
        self.lines: list[socket.socket] = []
        threading.Thread(target=self._take, daemon=True).start()

    def _take(self) -> None:
        while True:
            line, _ = self.server.accept()
            line.sendall(f"COOKER 1 drum probes={PROBES}\n".encode())
            self.lines.append(line)

    def say(self, at: datetime, fahrenheit: float) -> None:
        """All probes read about ``fahrenheit``."""
        read = " ".join(f"{number}={fahrenheit + number:.1f}" for number in range(1, PROBES + 1))
        self.sent[f"{fahrenheit:.0f}"] = time.time()
        for line in list(self.lines):
            try:
                line.sendall(f"R {at:%Y-%m-%dT%H:%M:%SZ} air={fahrenheit:.1f} {read}\n".encode())
            except OSError:
                self.lines.remove(line)


def measure_collector(environment: dict[str, str]) -> dict[str, float]:
    """Twenty cookers at 1 Hz for a while, each reading kept: seconds of one core a second of theirs.

    Their clocks run ten times as fast, so that as much is kept as of 200 cookers at real time.
    """
    from dolmetsch.server.fires.models import ProbeReading

    cookers = [TellingCooker() for _ in range(COOKERS)]
    named = ",".join(
        f"salt-lantern/pit{number}=line:127.0.0.1:{one.port}" for number, one in enumerate(cookers)
    )
    collector = subprocess.Popen(
        [sys.executable, "-m", "django", "collect"], env={**environment, "DOLMETSCH_COOKERS": named}
    )
    try:
        while not all(one.lines for one in cookers):
            time.sleep(0.1)
        time.sleep(2)
        before, begun = _cpu_seconds(collector.pid), time.monotonic()
        start = datetime(2026, 1, 1, tzinfo=UTC)
        for second in range(SECONDS):
            for one in cookers:
                one.say(start + timedelta(seconds=10 * second), 200 + second % 7)
            time.sleep(max(0.0, begun + second + 1 - time.monotonic()))
        time.sleep(2)
        used = _cpu_seconds(collector.pid) - before
    finally:
        collector.terminate()
        collector.wait(timeout=20)
    kept = ProbeReading.objects.filter(cooker__startswith="pit").count()
    ProbeReading.objects.filter(cooker__startswith="pit").delete()
    return {"kept": kept, "wanted": COOKERS * SECONDS, "core": used / SECONDS}


def _cpu_seconds(pid: int) -> float:
    with open(f"/proc/{pid}/stat") as stat:
        fields = stat.read().rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def measure_readings(port: int, cooker: TellingCooker) -> dict[str, float]:
    """Milliseconds from a cooker's line to fifty listeners."""
    pool = Pool(port)
    heard: list[float] = []
    lock = threading.Lock()

    def listen() -> None:
        connection = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
        while True:
            path = "/api/kitchens/salt-lantern/cookers/drum/stream"
            connection.request("GET", path, headers={"Cookie": pool.cookies})
            response = connection.getresponse()
            if response.status == 200:
                break
            response.read()
        seen = set()
        try:
            while line := response.readline():
                if line.startswith(b"data: "):
                    air = json.loads(line[6:]).get("read", {}).get("F", {}).get("air")
                    if air is not None and air not in seen and air in cooker.sent:
                        seen.add(air)
                        with lock:
                            heard.append(time.time() - cooker.sent[air])
        except (OSError, http.client.HTTPException):
            return

    for _ in range(LISTENERS):
        threading.Thread(target=listen, daemon=True).start()
    time.sleep(2)
    number = 0
    # a machine that is busy with other things hears later
    while number < LINES or (number < MOST_LINES and not heard):
        cooker.say(datetime.now(UTC), 200 + number % 300)
        time.sleep(0.25)
        number += 1
    time.sleep(0.5)
    heard.sort()
    return {
        "heard": len(heard),
        "p50": statistics.median(heard) * 1000,
        "p95": heard[int(len(heard) * 0.95)] * 1000,
    }


def fill_fire(
    slug: str = "salt-lantern", code: str = "L-01", *, hours: int = LONG_HOURS, probes: int = PROBES
) -> int:
    """A fire of so many ``hours``, its readings as a collector keeps them; its number."""
    from django.utils import timezone

    from dolmetsch.server.batches.models import Batch
    from dolmetsch.server.fires.models import Fire, FireEvent, FirePiece, ProbeReading
    from dolmetsch.server.kitchens.models import Kitchen, User

    kitchen, cook = Kitchen.objects.get(slug=slug), User.objects.get(username="maren")
    begun = timezone.now() - timedelta(hours=hours)
    stamp = {"kitchen": kitchen, "recorded_at": begun, "recorded_by": cook, "fingerprint": "bench"}
    import uuid

    fire = Fire.objects.create(
        name="Long night",
        cooker="drum",
        meat="pork",
        pull_at=200,
        begun_at=begun,
        stages=[{"kind": "cook", "air": "225", "minutes": None, "inside": None}],
        key=uuid.uuid4(),
        **stamp,
    )
    piece = FirePiece.objects.create(
        fire=fire, batch=Batch.objects.get(kitchen=kitchen, code=code), mark="A", grams=2000
    )
    for number in range(1, probes + 1):
        FireEvent.objects.create(
            fire=fire,
            at=begun,
            kind="probe",
            data={"probe": str(number), "piece": piece.label, "where": ""},
            key=uuid.uuid4(),
            **stamp,
        )
    random = Random(1)
    inside = [40.0] * probes
    rows = []
    for step in range(hours * 360):
        inside = [one + (225 - one) * (0.00014 if 150 < one < 168 else 0.0005) for one in inside]
        values = {str(at + 1): f"{one + random.gauss(0, 0.2):.1f}" for at, one in enumerate(inside)}
        values["air"] = f"{225 + random.gauss(0, 4):.1f}"
        at = begun + timedelta(seconds=10 * step)
        rows.append(ProbeReading(kitchen=kitchen, cooker="drum", at=at, values=values, heard_at=at))
    ProbeReading.objects.bulk_create(rows, batch_size=2_000, ignore_conflicts=True)
    return fire.pk


def measure_live(pool: Pool, fire: int) -> dict[str, float]:
    """Milliseconds of a long fire's live view: looked at first, again, and with a reading that is new."""
    from dolmetsch.server.fires.models import ProbeReading

    path = f"/api/kitchens/salt-lantern/fires/{fire}"
    first = [timed(lambda: pool.get(path)) for _ in range(of(12, 4))]
    last = ProbeReading.objects.filter(cooker="drum").order_by("-at").first()
    fresh = []
    for number in range(of(8, 2)):
        at = last.at + timedelta(seconds=1 + number)
        ProbeReading.objects.create(
            kitchen_id=last.kitchen_id, cooker="drum", at=at, values=last.values, heard_at=at
        )
        fresh.append(timed(lambda: pool.get(path)))
        # it is followed beside the look meanwhile
        time.sleep(of(3.0, 0.2))
    again = sorted(first)[: len(first) - 3]
    return {"first": max(first), "again": statistics.median(again), "fresh": sorted(fresh)[-2]}


def measure_ready() -> float:
    """Milliseconds of the ready range of that fire by itself."""
    from dolmetsch.core.heat.moments import count_log, list_inside, list_moments
    from dolmetsch.core.heat.ready import forecast_ready
    from dolmetsch.server.fires.models import Fire
    from dolmetsch.server.fires.story import build_log, list_readings, read_story

    story = read_story(Fire.objects.select_related("kitchen").get(name="Long night"))
    log = build_log(story, list_readings(story))
    inside = list_inside(list_moments(count_log(log)))
    times = []
    for _ in range(7):
        begun = time.perf_counter()
        forecast_ready(log, inside)
        times.append((time.perf_counter() - begun) * 1000)
    return statistics.median(times)


def measure_year(pool: Pool) -> float:
    """Milliseconds of the chamber's page with a year of readings every ten minutes behind it."""
    from django.utils import timezone

    from dolmetsch.server.fires.models import ProbeReading
    from dolmetsch.server.kitchens.models import Kitchen

    kitchen, now = Kitchen.objects.get(slug="salt-lantern"), timezone.now()
    random = Random(2)
    ProbeReading.objects.bulk_create(
        (
            ProbeReading(
                kitchen=kitchen,
                cooker="loft",
                at=now - timedelta(minutes=10 * number),
                values={"air": f"{random.gauss(55, 1):.1f}", "humidity": f"{random.gauss(75, 3):.1f}"},
                heard_at=now,
            )
            for number in range(DAYS * 144)
        ),
        batch_size=5_000,
        ignore_conflicts=True,
    )
    # the first look alone computes it: later ones get the answer that was kept
    return timed(lambda: pool.get("/api/kitchens/salt-lantern/chamber"))


def measure_fires(port: int, cooker: TellingCooker, environment: dict[str, str]) -> str:
    """All of it, as a section of docs/speed.md."""
    pool = Pool(port)
    times = sorted(timed(lambda: pool.get("/api/session/alive")) for _ in range(100))
    empty = times[95]
    readings = measure_readings(port, cooker)
    live = measure_live(pool, fill_fire())
    ready = measure_ready()
    year = measure_year(pool)
    taken = measure_collector(environment)
    core, times = f"{taken['core'] * 100:.0f} %", f"{live['again'] / empty:.0f} times"
    fresh, first = f"**{live['fresh']:.0f} ms**", f"{live['first']:.0f} ms"
    return f"""## Fires
{COOKERS} cookers of {PROBES} probes at 1 Hz, their clocks ten times as fast so that every reading is kept:
one collector took in {taken["kept"]:.0f} of {taken["wanted"]:.0f} readings with **{core}** of a core.
At real time a cooker leaves 8,640 rows a day, a chamber 144; after 30 days they are thinned.
From a cooker's line to {LISTENERS} listeners: median {readings["p50"]:.0f} ms, 95 % within
**{readings["p95"]:.0f} ms** ({readings["heard"]:.0f} events; aim: under 150).
The live view of a fire of {LONG_HOURS} hours with {PROBES} probes: {fresh} with a reading that is new (aim:
under 300; it is followed beside the look), {live["again"]:.0f} ms without one, {times} the empty
endpoint ({empty:.1f} ms); the very first look, before it was ever followed: {first}.
Its ready range alone: **{ready:.0f} ms** (aim: under 30).
The chamber's page with a year of readings behind it, looked at first: **{year:.0f} ms** (aim: under 500).
"""
