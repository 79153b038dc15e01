"""The collector, a real cooker process and a real MariaDB: nothing acknowledged is lost."""

import os
import queue
import signal
import subprocess
import sys
import threading
import time
import types
from contextlib import closing, contextmanager
from datetime import UTC, datetime, timedelta
from itertools import pairwise

import pytest
from django.db import DatabaseError, connection

from dolmetsch.command import paths
from dolmetsch.command.database import close_scratch, open_scratch
from dolmetsch.devices.cooker.lines import CookerReading
from dolmetsch.devices.cooker.source import LineCooker
from dolmetsch.server.configured import read_configured
from dolmetsch.server.fires.models import ProbeReading
from dolmetsch.server.fires.readings import thinning
from dolmetsch.server.fires.readings.collecting import Collector, Heard, Hearing
from dolmetsch.server.fires.readings.thinning import LOOKED_AT_DAYS, WHOLE_DAYS, thin_old
from dolmetsch.server.kitchens.models import Kitchen
from tests.devices.conftest import cooker  # noqa: F401 (a fixture)
from tests.prepared import load_into
from tests.server.conftest import make_kitchen
from tests.waiting import LONGEST, wait_for

NINE = datetime(2026, 11, 26, 9, tzinfo=UTC)


@contextmanager
def collecting(port, *, kitchen="quay"):
    """The collector as ./dolmetsch start runs it, over the tests' database; killed at the end."""
    env = {
        **os.environ,
        "DOLMETSCH_DB_NAME": connection.settings_dict["NAME"],
        "DOLMETSCH_COOKERS": f"{kitchen}/drum=line:127.0.0.1:{port}",
    }
    command = [sys.executable, "-m", "django", "collect"]
    with subprocess.Popen(command, env={**env, "PYTHONPATH": "src"}) as collector:
        try:
            yield collector
        finally:
            collector.kill()


@pytest.mark.django_db(transaction=True)
def test_a_killed_collector_misses_nothing(cooker):
    """Killed in the midst of it twice: what it had not kept the cooker sends again."""
    make_kitchen("quay")
    source = LineCooker(f"127.0.0.1:{cooker}")
    for command in ("MEAT 1 40", "SPEED 60"):
        source.send(command)
    kept = ProbeReading.objects.filter(cooker="drum")
    with closing(source), collecting(cooker):
        wait_for(lambda: kept.count() >= 3, "the first readings to be kept")
    for asked in (signal.SIGKILL, signal.SIGTERM):
        before = kept.count()
        time.sleep(2.5)
        with collecting(cooker) as collector:
            wait_for(lambda before=before: kept.count() >= before + 4, "more readings to be kept")
            collector.send_signal(asked)
            assert collector.wait(timeout=LONGEST) == (-asked if asked == signal.SIGKILL else 0)
    times = list(kept.order_by("at").values_list("at", flat=True))
    # a reading a second of ours is one a minute of its own: none is missing
    assert {round((after - before).total_seconds()) for before, after in pairwise(times)} == {60}


def collector_of(slug):
    return Collector(read_configured(f"{slug}/drum=line:127.0.0.1:1,nobody/pit=line:127.0.0.1:1"))


class Source:
    """A cooker that only counts what was acknowledged."""

    def __init__(self):
        self.got = []

    def acknowledge(self, at):
        self.got.append(at)


def hear(collector, seconds, value="100"):
    (hearing,) = collector.hearings
    reading = CookerReading(at=NINE + timedelta(seconds=seconds), values={"1": value})
    collector._waiting.put(Heard(hearing, reading, NINE))


@pytest.mark.django_db(transaction=True)
def test_a_reading_is_acknowledged_once_it_is_kept_and_not_before(monkeypatch):
    make_kitchen("quay")
    collector = collector_of("quay")
    source = collector.hearings[0]._source = Source()
    hear(collector, 0)
    hear(collector, 10)
    manager = type(ProbeReading.objects)
    usual = manager.bulk_create

    def away(*_args, **_more):
        raise DatabaseError("gone")

    monkeypatch.setattr(manager, "bulk_create", away)
    assert collector.flush() == 0
    assert source.got == []
    monkeypatch.setattr(manager, "bulk_create", usual)
    hear(collector, 20)
    assert collector.flush() == 3
    assert source.got == [NINE + timedelta(seconds=20)]
    assert [row.at.second for row in ProbeReading.objects.order_by("at")] == [0, 10, 20]
    assert collector.flush() == 0


@pytest.mark.django_db(transaction=True)
def test_what_comes_twice_is_kept_once_and_a_new_collector_goes_on_from_the_last():
    make_kitchen("quay")
    collector = collector_of("quay")
    for _ in range(2):
        hear(collector, 5, "100")
        collector.flush()
    assert ProbeReading.objects.count() == 1
    (hearing,) = collector_of("quay").hearings
    assert hearing.last_kept == NINE + timedelta(seconds=5)


def test_a_reading_is_kept_every_ten_seconds_also_when_a_clock_is_set_back():
    waiting, closing = queue.Queue(), threading.Event()
    hearing = Hearing(read_configured("quay/drum=line:x:1")[0], waiting=waiting, closing=closing)

    class Talking:
        def listen(self):
            for seconds in (0, 4, 9.9, 10, 15, 20, -600, -595, -590):
                yield CookerReading(at=NINE + timedelta(seconds=seconds), values={"1": "100"})
                yield ValueError("rubbish")
                yield None

    hearing._take_all(Talking())
    kept = [int((waiting.get().reading.at - NINE).total_seconds()) for _ in range(waiting.qsize())]
    assert kept == [0, 10, 20, -600, -590]


@pytest.mark.django_db(transaction=True)
def test_a_chamber_is_kept_every_ten_minutes_of_its_clock():
    make_kitchen("quay")
    waiting: queue.Queue[Heard] = queue.Queue()
    collector = Collector(read_configured("quay/drum=line:x"), read_configured("quay/loft=line:x"))
    taken = {}
    for hearing in collector.hearings:
        hearing._waiting = waiting
        readings = [
            CookerReading(at=NINE + timedelta(seconds=10 * n), values={"air": "55"}) for n in range(121)
        ]
        hearing._take_all(types.SimpleNamespace(listen=lambda readings=readings: iter(readings)))
        taken[hearing.cooker.name] = waiting.qsize() - sum(taken.values())
    assert taken == {"drum": 121, "loft": 3}


@pytest.mark.django_db
def test_old_readings_are_thinned_and_new_ones_are_not():
    quay = Kitchen.objects.get(slug=make_kitchen("quay").slug)
    now = NINE + timedelta(days=40)
    for begun in (NINE, now - timedelta(days=2)):
        ProbeReading.objects.bulk_create(
            ProbeReading(
                kitchen=quay,
                cooker="drum",
                at=begun + timedelta(seconds=10 * number),
                values={"1": str(60 + number // 100), "air": "225"},
                heard_at=begun,
            )
            for number in range(360)
        )
    old = ProbeReading.objects.filter(at__lt=NINE + timedelta(days=1))
    assert thin_old(now) > 300
    left = [int(values["1"]) for values in old.order_by("at").values_list("values", flat=True)]
    assert (min(left), max(left), left == sorted(left)) == (60, 63, True)
    assert old.order_by("at").first().at == NINE
    assert ProbeReading.objects.exclude(pk__in=old).count() == 360
    assert thin_old(now) == 0


@pytest.mark.django_db
def test_each_device_of_each_kitchen_is_thinned_by_itself_and_within_its_days():
    quay, pier = (Kitchen.objects.get(slug=make_kitchen(name).slug) for name in ("quay", "pier"))
    midnight = datetime(2026, 3, 1, tzinfo=UTC)
    now = midnight + timedelta(days=WHOLE_DAYS, hours=5)
    whole = {midnight: True, midnight - timedelta(days=1): False}
    # the first of the days that are looked at, and the last that is not any more
    begin = midnight - timedelta(days=LOOKED_AT_DAYS)
    whole |= {begin: False, begin - timedelta(days=1): True}
    devices = ((quay, "drum", 71), (quay, "pit", 81), (pier, "drum", 91))
    for kitchen, device, warmth in devices:
        ProbeReading.objects.bulk_create(
            ProbeReading(
                kitchen=kitchen,
                cooker=device,
                at=day + timedelta(seconds=10 * number),
                values={"1": f"{warmth}.{number:02}"},
                heard_at=day,
            )
            for day in whole
            for number in range(30)
        )
    assert thin_old(now) > 0
    for kitchen, device, _ in devices:
        mine = ProbeReading.objects.filter(kitchen=kitchen, cooker=device)
        for day, is_whole in whole.items():
            rows = mine.filter(at__gte=day, at__lt=day + timedelta(days=1)).order_by("at")
            left = [values["1"].partition(".")[2] for values in rows.values_list("values", flat=True)]
            # of five minutes the first and last, here the lowest and the highest
            assert left == ([f"{number:02}" for number in range(30)] if is_whole else ["00", "29"])


def count_read(asking):
    """How many rows the record store looks at for ``asking``."""

    def read():
        with connection.cursor() as cursor:
            cursor.execute("SHOW SESSION STATUS LIKE 'Handler_read%'")
            return sum(int(count) for _, count in cursor.fetchall())

    before, asked_for = read(), read()
    asking()
    return read() - asked_for - (asked_for - before)


# the table is analyzed, which commits: what is written is taken away afterward
@pytest.mark.django_db(transaction=True)
def test_the_last_that_was_heard_is_found_without_reading_the_others(monkeypatch):
    quay, pier = (Kitchen.objects.get(slug=make_kitchen(name).slug) for name in ("quay", "pier"))
    for kitchen, device, count in ((quay, "drum", 1), (quay, "pit", 3000), (pier, "drum", 3000)):
        ProbeReading.objects.bulk_create(
            ProbeReading(
                kitchen=kitchen,
                cooker=device,
                # by a clock that runs backward: the last that is written is the last that was heard
                at=NINE - timedelta(seconds=number),
                values={"1": str(number)},
                heard_at=NINE,
            )
            for number in range(count)
        )
    with connection.cursor() as cursor:
        cursor.execute("ANALYZE TABLE fires_probereading")
        cursor.fetchall()
    found = []
    for kitchen, device in ((quay, "drum"), (quay, "pit"), (pier, "drum"), (pier, "pit")):
        where = (kitchen.pk, device)
        assert count_read(lambda where=where: found.append(ProbeReading.last_heard(*where))) < 10
    assert [one and one.values["1"] for one in found] == ["0", "2999", "2999", None]
    # what is to be thinned is looked for by device: nothing of them is old
    monkeypatch.setattr(thinning, "LOOKED_AT_DAYS", 2)
    assert count_read(lambda: thin_old(NINE)) < 50


MAKE_QUAY = "import django; django.setup(); from dolmetsch.server.kitchens.models import Kitchen; " + (
    "Kitchen.objects.create(slug='quay', name='Quay')"
)


def test_a_record_store_killed_in_mid_cook_loses_no_reading(cooker):
    """MariaDB is killed (-9) under a running collector; back again, every reading of the cook is there."""
    paths.prepare()
    database = open_scratch()
    env = {
        **os.environ,
        **database.environment(),
        "DOLMETSCH_COOKERS": f"quay/drum=line:127.0.0.1:{cooker}",
        "PYTHONPATH": "src",
        "MYSQL_PWD": database.password,
    }
    ask = [
        "mariadb",
        "--no-defaults",
        "-N",
        "-h127.0.0.1",
        f"-P{database.port}",
        "-udolmetsch",
        "dolmetsch",
        "-e",
    ]

    def times():
        query = [*ask, "SELECT UNIX_TIMESTAMP(at) FROM fires_probereading ORDER BY at"]
        answer = subprocess.run(query, env=env, capture_output=True, check=False)
        return [float(line) for line in answer.stdout.split()]

    collector = None
    try:
        database.stop()
        database.durable = True
        database.start()
        load_into(database, "tables.sql")
        subprocess.run([sys.executable, "-c", MAKE_QUAY], env=env, check=True)
        source = LineCooker(f"127.0.0.1:{cooker}")
        source.send("SPEED 60")
        source.close()
        time.sleep(1.5)
        collector = subprocess.Popen([sys.executable, "-m", "django", "collect"], env=env)
        wait_for(lambda: len(times()) >= 4, "the first readings")
        database.process.send_signal(signal.SIGKILL)
        database.process.wait()
        time.sleep(3)
        database.start()
        before = len(times())
        wait_for(lambda: len(times()) >= before + 4, "readings after the record store was killed")
    finally:
        if collector is not None:
            collector.kill()
            collector.wait()
        kept = times()
        close_scratch(database)
    # each second of ours is a minute of the cooker's: none is missing
    assert {round(other - one) for one, other in pairwise(kept)} == {60}
