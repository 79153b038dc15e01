"""A town's worth of kitchens on one machine: `./dolmetsch bench --town [KITCHENS [FOLDER]]`.

A kitchen of 200 batches is filled and copied; it is measured alone, and one of the copies the same way. Then
the sizes of the tables, people at work in a hundred kitchens at once, a kitchen out and in again as a file,
and changes of tables beside writers: a part of docs/scale.md. The records are on the disk, every commit too.
They are kept in FOLDER, where one is named, to be measured again.
"""

import json
import os
import shutil
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Final

import django
from django.core.management import call_command
from django.db import connections

from benchmarks.acts import weigh, weigh_again
from benchmarks.application import load_demo, served
from benchmarks.connections import Pool
from benchmarks.filling import copy_batch, fill_prices, fill_readings
from benchmarks.parts import put_part
from benchmarks.sizes import IN_MEMORY, IS_SMALL, PAGES, of
from benchmarks.speed.fires import fill_fire
from benchmarks.speed.larder import fill_dishes
from benchmarks.speed.scale_delay import TellingScale
from benchmarks.town.changes import SIZES, ask, measure_archive, measure_changes
from benchmarks.town.pages import measure_kitchen
from benchmarks.town.people import KITCHENS, LEVELS, look_around, measure_people, sign_in_people
from benchmarks.town.report import (
    describe_archive,
    describe_changes,
    describe_pages,
    describe_people,
    describe_rows,
    describe_sizes,
)
from dolmetsch.command import paths
from dolmetsch.command.checks.prepared import VARIABLE, load_into
from dolmetsch.command.database import Database, find_free_port
from dolmetsch.command.serving import UNHURRIED, server_environment
from dolmetsch.command.telling import say

PAGE: Final = PAGES / "scale.md"
HEAD: Final = "## A town on one machine"
BATCHES, ENTRIES, WEEKS = of((200, 50, 52), (10, 20, 2))
#: A year of a chamber, and of so many fires of so many hours.
DAYS, FIRES, HOURS = of((365, 20, 10), (2, 1, 1))
POOL: Final = of("4G", "256M")
LOG_FILE: Final = of("1G", "64M")
#: What is known of a town that is filled.
FILLED: Final = "filled.json"


class Store(Database):
    """A record store on the disk, every commit too, with the memory of a machine for a town."""

    def _server(self) -> list[str]:
        return [*super()._server(), f"--innodb-buffer-pool-size={POOL}", f"--innodb-log-file-size={LOG_FILE}"]

    @contextmanager
    def opened(self) -> Iterator[None]:
        """Started, for so long."""
        self.start()
        try:
            yield
        except Exception:
            say((self.folder / "error.log").read_text(errors="replace")[-4000:])
            raise
        finally:
            connections.close_all()
            self.stop()

    @contextmanager
    def up_to_date(self) -> Iterator[None]:
        """Opened, with what this program's migrations add to one that an older program filled."""
        with self.opened():
            call_command("migrate", verbosity=0)
            yield


def fill_first(port: int) -> str:
    """The demo's kitchen with 200 batches of 50 entries, their packs, a year of prices and readings."""
    from django.utils import timezone

    from dolmetsch.server.batches.models import Batch
    from dolmetsch.server.kitchens.models import Kitchen

    pool, kitchen = Pool(port), Kitchen.objects.get(slug="salt-lantern")
    pattern = Batch.objects.get(code="J-01")
    for seen in range(pattern.last_sequence, ENTRIES):
        pool.post("/api/kitchens/salt-lantern/batches/J-01/entries", weigh(weigh_again(pattern), seen))
    copy_batch("J-01", BATCHES, with_packs=True)
    fill_prices(WEEKS)
    stamp = {"kitchen": kitchen, "recorded_at": timezone.now(), "recorded_by_id": 1, "fingerprint": "-"}
    fill_dishes(stamp)
    fill_fire()
    read, kept = fill_readings(timezone.now(), days=DAYS, fires=FIRES, hours=HOURS)
    ask("ANALYZE TABLE " + ", ".join(name for name, *_ in ask(SIZES)))
    said = f"a year of a chamber and {FIRES} fires of {HOURS} hours, {read:,} readings"
    return f"{said}, {kept:,} of them kept"


def copy_town(kitchens: int) -> float:
    """So many copies; seconds."""
    begun = time.monotonic()
    call_command("copy_kitchen", str(kitchens), owner="maren")
    return time.monotonic() - begun


def nearest_copy() -> str:
    """The copy whose days lie nearest to what it was copied from."""
    latest = ask(
        "SELECT k.slug FROM kitchens_kitchen k JOIN batches_batchfacts f ON f.kitchen_id = k.id "
        "WHERE k.slug LIKE 'many-%%' GROUP BY k.slug ORDER BY MAX(f.finished_at) DESC LIMIT 1"
    )
    return str(latest[0][0])


def main() -> None:
    kitchens = int(sys.argv[1]) if len(sys.argv) > 1 else of(500, 4)
    is_kept = len(sys.argv) > 2
    folder = Path(
        sys.argv[2] if is_kept else tempfile.mkdtemp(prefix="dolmetsch-town-", dir=IN_MEMORY)
    ).resolve()
    town = Town(folder)
    try:
        if not (folder / FILLED).exists():
            town.fill(kitchens)
        part = HEAD
        for said in town.measure():
            # each as soon as it is known: all of it takes half an hour
            part += f"\n{said}"
            put_part(PAGE, HEAD, part, before="## From there on")
    finally:
        if not is_kept:
            shutil.rmtree(folder, ignore_errors=True)
    say(f"written: {HEAD.removeprefix('## ').lower()}, in docs/scale.md")


class Town:
    """The kitchen alone and the town of its copies, each in a record store of its own below ``folder``.

    One of them runs at a time, at the same port.
    """

    def __init__(self, folder: Path) -> None:
        self.folder, self.port = folder, find_free_port()
        port, password = find_free_port(), paths.get_secret("database")
        self.alone, self.town = (
            Store(folder / name, port=port, password=password, durable=not IS_SMALL)
            for name in ("alone", "town")
        )
        os.environ |= server_environment(self.alone) | {
            name: str(folder / word)
            for name, word in (("DOLMETSCH_PHOTOS", "photos"), ("DOLMETSCH_KEPT", "kept"))
        }
        os.environ |= {"DOLMETSCH_DEMO": "1", **UNHURRIED}
        django.setup()

    def fill(self, kitchens: int) -> None:
        """One kitchen, then so many copies of it; what there is of them is noted beside."""
        with self.alone.opened():
            if VARIABLE in os.environ:
                # as a run of the tests has it: made by code it would take most of a small run
                for name in ("tables.sql", "demo.sql"):
                    load_into(self.alone, Path(os.environ[VARIABLE]), name)
            load_demo(self.folder)
            with served(self.port, self.folder, {}):
                readings = fill_first(self.port)
        say(f"one kitchen is filled: {readings}; copying …")
        shutil.copytree(self.alone.folder, self.town.folder)
        with self.town.opened():
            seconds = copy_town(kitchens)
        say(f"{kitchens} kitchens copied: {seconds:.0f} s")
        facts = {"kitchens": kitchens, "readings": readings, "seconds": seconds}
        (self.folder / FILLED).write_text(json.dumps(facts))

    def measure(self) -> Iterator[str]:
        """All of it, as the paragraphs of a part of docs/scale.md."""
        facts, scale = json.loads((self.folder / FILLED).read_text()), TellingScale()
        kitchens = facts["kitchens"]
        slugs = [f"many-{number}" for number in range(1, min(kitchens, KITCHENS) + 1)]
        heard = {
            "DOLMETSCH_SCALES": ",".join(f"{slug}/bench=line:127.0.0.1:{scale.port}" for slug in slugs),
            # the application is as impatient as ever
            "DOLMETSCH_STATEMENT_SECONDS": "10",
        }
        codes = [f"X-{number:04d}" for number in range(1, BATCHES) if number % 8][:16]
        say("measuring one kitchen alone …")
        with self.alone.up_to_date(), served(self.port, self.folder, heard):
            few = measure_kitchen(Pool(self.port), "salt-lantern", codes)
        say(f"measuring one of {kitchens} …")
        with self.town.up_to_date(), served(self.port, self.folder, heard):
            slug = nearest_copy()
            many = measure_kitchen(Pool(self.port), slug, codes)
            sizes = ask(SIZES)
            readings, seconds = facts["readings"], facts["seconds"]
            yield describe_rows(kitchens, BATCHES, readings=readings, seconds=seconds, sizes=sizes)
            yield describe_pages(kitchens, few, many)
            yield describe_sizes(kitchens, BATCHES, sizes)
            if kitchens >= KITCHENS:
                crowd, people = sign_in_people(), []
                look_around(self.port, crowd)
                for count in LEVELS:
                    people.append(measure_people(self.port, crowd, count))
                    say(f"people: {people[-1]}")
                yield describe_people(people)
            yield describe_archive(measure_archive(self.folder, slug))
            yield describe_changes(measure_changes(self.port))


if __name__ == "__main__":
    main()
