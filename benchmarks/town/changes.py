"""A full record store changed beside writers, and one of its kitchens out and in again as a file."""

import itertools
import resource
import subprocess
import sys
import threading
import time
from pathlib import Path
from typing import Any, Final

from benchmarks.acts import weigh, weigh_again
from benchmarks.connections import Pool
from benchmarks.sizes import of
from dolmetsch.command.telling import say

SIZES: Final = (
    "SELECT table_name, table_rows, data_length, index_length FROM information_schema.tables "
    "WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE' ORDER BY data_length + index_length DESC"
)


def ask(query: str) -> list[tuple[Any, ...]]:
    """What the record store answers."""
    from django.db import connection

    with connection.cursor() as cursor:
        cursor.execute(query)
        return list(cursor.fetchall()) if cursor.description else []


def measure_changes(port: int) -> list[tuple[str, float, float]]:
    """Changes as a migration makes them, beside writers: seconds, and the longest without a record."""
    from django.db import connection, models

    from dolmetsch.server.batches.models import Entry
    from dolmetsch.server.fires.models import ProbeReading
    from dolmetsch.server.kitchens.models import Kitchen

    word = models.CharField(max_length=20, db_default="", blank=True)
    word.set_attributes_from_name("bench_word")
    other = models.DateTimeField(null=True)
    other.set_attributes_from_name("bench_at")
    refer = models.ForeignKey(Kitchen, on_delete=models.PROTECT, null=True, related_name="+")
    refer.set_attributes_from_name("bench_kitchen")
    index = models.Index(name="bench_index", fields=["heard_at"])
    for field in (word, refer):
        field.model = Entry
    other.model = ProbeReading
    changes = [
        ("a column with a default of the table added to entries", lambda s: s.add_field(Entry, word)),
        ("… and taken away", lambda s: s.remove_field(Entry, word)),
        ("an empty column added to readings", lambda s: s.add_field(ProbeReading, other)),
        ("… and taken away", lambda s: s.remove_field(ProbeReading, other)),
        ("an index added to readings", lambda s: s.add_index(ProbeReading, index)),
        ("… and taken away", lambda s: s.remove_index(ProbeReading, index)),
        ("a reference to another table added to entries", lambda s: s.add_field(Entry, refer)),
        ("… and taken away", lambda s: s.remove_field(Entry, refer)),
    ]
    found = []
    for name, change in changes:
        stop, written = threading.Event(), [time.monotonic()]
        writers = [threading.Thread(target=_write_on, args=(port, at, stop, written)) for at in range(4)]
        for one in writers:
            one.start()
        time.sleep(of(2.0, 0.5))
        begun = time.monotonic()
        try:
            with connection.schema_editor(atomic=False) as editor:
                change(editor)
            took = time.monotonic() - begun
            time.sleep(of(1.0, 0.5))
        finally:
            stop.set()
            for one in writers:
                one.join()
        written.append(time.monotonic())
        gaps = [later - one for one, later in itertools.pairwise(written) if later > begun]
        found.append((name, took, max(gaps)))
        say(f"{name}: {took:.1f} s, {max(gaps):.1f} s without a record")
    return found


def _write_on(port: int, number: int, stop: threading.Event, written: list[float]) -> None:
    """A weighing after another in a kitchen of its own, and when each was acknowledged."""
    from dolmetsch.server.batches.models import Batch

    slug, code = f"many-{number + 1}", "X-0001"
    batch = Batch.objects.get(kitchen__slug=slug, code=code)
    seen, weights = batch.last_sequence, weigh_again(batch)
    pool = Pool(port)
    while not stop.is_set():
        try:
            pool.post(f"/api/kitchens/{slug}/batches/{code}/entries", weigh(weights, seen))
        except RuntimeError:
            # refused while the table is copied: asked again, as a cook's device asks
            time.sleep(0.5)
            batch.refresh_from_db(fields=["last_sequence"])
            seen = batch.last_sequence
        else:
            written.append(time.monotonic())
            seen += 1


def measure_archive(folder: Path, slug: str) -> dict[str, float]:
    """A kitchen written to a file and read into an empty one: seconds, size, most memory."""
    file = folder / "kitchen.zip"
    begun = time.monotonic()
    _run("-m", "django", "export_kitchen", slug, str(file))
    out, out_memory = time.monotonic() - begun, _child_memory()
    begun = time.monotonic()
    _run(
        "-c",
        "import django, sys; django.setup()\n"
        "from dolmetsch.server.archive.reading import fill_kitchen\n"
        "from dolmetsch.server.kitchens.models import Kitchen, User\n"
        "kitchen = Kitchen.objects.create(slug=sys.argv[2], name='Back again')\n"
        "fill_kitchen(kitchen, User.objects.get(username='maren'), open(sys.argv[1], 'rb'))",
        str(file),
        f"back-{int(time.time())}",
    )
    return {
        "out": out,
        "out_memory": out_memory,
        "size": file.stat().st_size / 1e6,
        "in": time.monotonic() - begun,
        "in_memory": _child_memory(),
    }


def _run(*words: str) -> None:
    subprocess.run([sys.executable, "-W", "ignore", *words], check=True)


def _child_memory() -> float:
    """Most memory that any child had so far, in MB."""
    return resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1000
