"""Measures and writes docs/speed.md: ./dolmetsch bench. Ratios in one run; nothing passes or fails."""

import argparse
import os
import random
import re
import shutil
import signal
import statistics
import subprocess
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import django

from benchmarks.acts import CASE, TRIAL, weigh
from benchmarks.application import load_demo, served
from benchmarks.connections import Pool
from benchmarks.filling import UNDER_WAY_EACH, copy_batch
from benchmarks.parts import put_part
from benchmarks.sizes import LONGEST_MS, PAGES, ROOT, of
from benchmarks.speed.books import describe_books, measure_books, spread_out
from benchmarks.speed.core import measure_core
from benchmarks.speed.fires import TellingCooker, measure_fires
from benchmarks.speed.larder import describe_larder, measure_larder
from benchmarks.speed.large_batch import describe_large, measure_large
from benchmarks.speed.outlooks import measure_import, measure_outlooks
from benchmarks.speed.plan import describe_plan, measure_plan
from benchmarks.speed.scale_delay import TellingScale, measure_delay
from benchmarks.timing import timed
from dolmetsch.command.database import find_free_port
from dolmetsch.command.paths import BROWSER
from dolmetsch.command.serving import THREADS, WORKERS
from dolmetsch.command.telling import must, say

BATCHES = of(2_000, 32)
ENTRIES = 16
#: Batches of the kitchen whose books are measured.
IN_BOOKS = of(11_500, 40)
REQUESTS = of(400, 8)
#: The same measured before lists, map and verdict read what is kept.
BEFORE = {
    "recording a weighing": 11.5,
    "verdict": 20.4,
    "what-if": 8.3,
    "today": 4.4,
    "case check of 12 offers": 14.6,
    "forecast": 6.8,
}
CLIENTS = 4
#: At most so many times the empty endpoint, by 95th percentile.
AIMS = {
    "recording a weighing": 4,
    "batch view": 2,
    "verdict": 5,
    "what-if": 5,
    **dict.fromkeys(("today", "plan", "map", "diary"), 4),
}


def measure(name: str, acts) -> dict:
    """Half of ``acts`` one at a time, for their times; the rest by CLIENTS at once, for the rate."""
    half = len(acts) // 2
    times = sorted(timed(act) for act in acts[:half])
    begun = time.perf_counter()
    with ThreadPoolExecutor(CLIENTS) as clients:
        list(clients.map(timed, acts[half:]))
    whole = time.perf_counter() - begun
    say(f"{name}: measured")
    return {
        "name": name,
        "rate": (len(acts) - half) / whole,
        "p50": statistics.median(times),
        "p95": times[int(len(times) * 0.95)],
    }


def measure_server(port: int, codes: list[str]) -> list[dict]:
    """What cooks ask for of the batches ``codes``, beside an empty signed-in endpoint, in one run."""
    pool = Pool(port)
    kitchen = "/api/kitchens/salt-lantern/"
    view = f"{kitchen}batches/"

    def record(code: str):
        weights = [{"mark": mark, "weight": "4 lb"} for mark in ("A1", "B1", "C1")]
        return lambda: pool.post(f"{view}{code}/entries", weigh(weights, ENTRIES))

    def try_out(code: str):
        return lambda: pool.post(f"{view}{code}/trial", TRIAL)

    def empty(count: int):
        return [lambda: pool.get("/api/session/alive")] * count

    under_way = [f"X-{number:04d}" for number in range(0, BATCHES, UNDER_WAY_EACH)]
    measure("warm-up", empty(REQUESTS))
    return [
        measure("empty signed-in endpoint", empty(REQUESTS)),
        measure("batch view, first read", [lambda c=c: pool.get(view + c) for c in codes]),
        measure("batch view", [lambda c=c: pool.get(view + c) for c in codes]),
        measure("verdict, first read", [lambda c=c: pool.get(f"{view}{c}/verdict") for c in codes[:100]]),
        measure("verdict", [lambda c=c: pool.get(f"{view}{c}/verdict") for c in codes[:100]]),
        measure("what-if", [try_out(code) for code in codes[:100]]),
        measure("today", [lambda: pool.get(f"{kitchen}today")] * (REQUESTS // 2)),
        measure("plan", [lambda: pool.get(f"{kitchen}plan")] * (REQUESTS // 2)),
        measure("map", [lambda: pool.get(f"{kitchen}map")] * (REQUESTS // 2)),
        measure("diary", [lambda c=c: pool.get(f"{view}{c}/diary") for c in codes[:200]]),
        measure("a batch found by its name", [lambda: pool.get(f"{kitchen}batches?words=jowl")] * 100),
        measure(
            "case check of 12 offers",
            [lambda: pool.post(f"{kitchen}case", CASE)] * 100,
        ),
        measure("forecast", [lambda c=c: pool.get(f"{view}{c}/forecast") for c in under_way[:100]]),
        measure("recording a weighing", [record(code) for code in codes]),
        measure("empty signed-in endpoint, again", empty(REQUESTS)),
    ]


def measure_script(port: int) -> dict[str, int]:
    """Bytes of compressed JavaScript before the first view, and of the font and styles."""
    from playwright.sync_api import sync_playwright

    sizes = {"js": 0, "css": 0, "woff2": 0}
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=BROWSER, args=["--no-sandbox"])
        page = browser.new_page()
        page.set_default_timeout(LONGEST_MS)
        done = []
        page.on("requestfinished", lambda request: done.append(request))  # noqa: PLW0108 (it is set upon)
        page.goto(f"http://127.0.0.1:{port}/")
        page.get_by_label("Name").fill("maren")
        page.get_by_label("Password").fill("salt-lantern")
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("heading", name="Recently finished").wait_for()
        page.wait_for_timeout(500)
        for request in done:
            kind = request.url.rsplit(".", 1)[-1]
            if kind in sizes:
                sizes[kind] += request.sizes()["responseBodySize"]
        browser.close()
    return sizes


def measure_starts() -> dict[str, float]:
    """A fresh clone to serving (Debian's packages installed already), and a second start."""
    folder = Path(tempfile.mkdtemp(prefix="dolmetsch-clone-"))
    must(["git", "clone", "-q", str(ROOT), str(folder)], doing="git clone", log=folder.with_suffix(".log"))
    found = {}
    try:
        for name in ("fresh clone to serving", "second start"):
            # as from a fresh shell, not from inside this run's own environment
            ours = ("DOLMETSCH_", "DJANGO_", "PYTHONPATH")
            clean = {name: value for name, value in os.environ.items() if not name.startswith(ours)}
            ports = ["--port", str(find_free_port()), "--db-port", str(find_free_port())]
            process = subprocess.Popen(
                [str(folder / "dolmetsch"), "start", *ports], stdout=subprocess.PIPE, text=True, env=clean
            )
            answer = ""
            for line in process.stdout or ():
                answer += line
                if "Ctrl-C" in line:
                    break
            ready = re.search(r"Ready after ([0-9.]+) s", answer)
            if ready is None:
                raise SystemExit(f"the clone did not start:\n{answer}")
            found[name] = float(ready[1])
            process.send_signal(signal.SIGINT)
            process.communicate(timeout=90)
            say(f"{name}: measured")
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    return found


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--no-starts", action="store_true", help="leave out the fresh clone")
    parser.add_argument("--fires", action="store_true", help="measure fires alone, and write that part anew")
    parser.add_argument("--books", action="store_true", help="the same of the books")
    parser.add_argument("--larder", action="store_true", help="the same of the larder")
    parser.add_argument("--plan", action="store_true", help="the same of a plan")
    answer = parser.parse_args()
    if answer.fires:
        write_part("## Fires", measure_fires)
        return
    if answer.books:
        write_part("## Books", lambda port, _cooker, _heard: books(port))
        return
    if answer.larder:
        write_part("## The larder", lambda port, _cooker, _heard: describe_larder(measure_larder(port)))
        return
    if answer.plan:
        write_part("## A plan", lambda port, _cooker, _heard: describe_plan(measure_plan(port)))
        return
    core = measure_core() | measure_outlooks()
    port = find_free_port()
    with tempfile.TemporaryDirectory() as folder:
        load_demo(Path(folder))
        say(f"filling the record store with {BATCHES} batches …")
        django.setup()
        copy_batch("J-01", BATCHES, with_packs=False)
        scale, cooker = TellingScale(), TellingCooker()
        heard = {
            "DOLMETSCH_SCALES": f"salt-lantern/bench=line:127.0.0.1:{scale.port}",
            **name_devices(cooker),
        }
        with served(port, Path(folder), heard):
            sample = random.Random(7).sample(range(BATCHES), REQUESTS)
            codes = [f"X-{number:04d}" for number in sample]
            answered = measure_server(port, codes)
            large = describe_large(measure_large(port))
            say("a large batch: measured")
            sizes = measure_script(port)
            delay = measure_delay(port, scale)
            core |= {f"import_{name}": value for name, value in measure_import().items()}
            fires = measure_fires(port, cooker, {**os.environ, **heard})
            larder = describe_larder(measure_larder(port))
            plan = describe_plan(measure_plan(port))
            in_books = books(port)
    starts = {} if answer.no_starts else measure_starts()
    server = f"{describe_server(answered)}\n{large}\n{fires}\n{larder}\n{plan}\n{in_books}"
    (PAGES / "speed.md").write_text(write(core, server, sizes, starts, delay))
    say("written: docs/speed.md")


def books(port: int) -> str:
    """The part on the books, over a kitchen filled for it."""
    copy_batch("J-01", IN_BOOKS, with_packs=False)
    batches = spread_out()
    return describe_books(measure_books(port), batches)


def name_devices(cooker: TellingCooker) -> dict[str, str]:
    """A cooker that is told what to say, and a chamber that nobody hears: its readings are filled in."""
    return {
        "DOLMETSCH_COOKERS": f"salt-lantern/drum=line:127.0.0.1:{cooker.port}",
        "DOLMETSCH_CHAMBERS": "salt-lantern/loft=line:127.0.0.1:1",
    }


def write_part(head: str, measure) -> None:
    """Measure one part alone, over the demo's own batches, and write it anew in docs/speed.md."""
    django.setup()
    port = find_free_port()
    with tempfile.TemporaryDirectory() as folder:
        load_demo(Path(folder))
        cooker = TellingCooker()
        heard = name_devices(cooker)
        with served(port, Path(folder), heard):
            part = measure(port, cooker, {**os.environ, **heard})
    put_part(PAGES / "speed.md", head, part, before="## From the scale")
    say(f"written: the part of docs/speed.md on {head.removeprefix('## ').lower()}")


def describe_delay(delay: dict[str, float]) -> str:
    return f"""## From the scale to the screen
{delay["listeners"]} listeners at two workers, and one weigh view in a real browser beside them. From a line
of the scale until a listener has its event: median {delay["p50"]:.0f} ms, 95 % within
**{delay["p95"]:.0f} ms** ({delay["heard"]} events). Until the browser has drawn it: median
{delay["screen_p50"]:.0f} ms, 95 % within **{delay["screen_p95"]:.0f} ms** ({delay["seen"]} weights; aim:
under 150).
"""


def _empty(served: list[dict], part: str) -> float:
    return statistics.mean(row[part] for row in served if row["name"].startswith("empty"))


def describe_aims(served: list[dict]) -> str:
    """Which aims are met and which are not, by the figures of this run."""
    empty = _empty(served, "p95")
    ratios = {row["name"]: row["p95"] / empty for row in served if row["name"] in AIMS}
    met = [f"{name} {ratios[name]:.1f} (aim {aim})" for name, aim in AIMS.items() if ratios[name] <= aim]
    missed = [f"{name} {ratios[name]:.1f} (aim {aim})" for name, aim in AIMS.items() if ratios[name] > aim]
    return f"""Aims met, by 95th percentile: {", ".join(met) or "none"}.
**Not met**: {", ".join(missed) or "none"}.
What is left is mostly Django's own work: a query costs about a millisecond of Python to put together and to
read; recording makes 20 of them, a verdict 14."""


def describe_server(served: list[dict]) -> str:
    rows = "\n".join(
        f"| {row['name']} | {row['rate']:.0f} | {row['p50']:.1f} | {row['p95']:.1f} "
        f"| {row['p50'] / _empty(served, 'p50'):.1f} | {row['p95'] / _empty(served, 'p95'):.1f} |"
        for row in served
    )
    return f"""## The server
{BATCHES:,} batches of {ENTRIES} entries in the record store, {BATCHES // UNDER_WAY_EACH} of them under
way; {WORKERS} workers of {THREADS} threads. Times are of one client, one request after another; the rate is
that of {CLIENTS} clients at once. The last columns are median and 95th percentile over those of the empty
endpoint (mean of its two runs). The same with 500 kitchens: [scale.md](scale.md).
Writes of this run go to a scratch store in memory; the real one also waits for the disk.

{describe_aims(served)}

A batch is computed from its entries by who reads it first, and answered as it was until the next write in
the kitchen. A write locks the kitchen, reads the batch's entries, computes the whole chain and writes about
ten rows: most of its time is spent in Python. The first read of a verdict computes the scale error of its
figures too, 54 runs of the ledger.

What was done, and where the time went before (times the empty endpoint, 95th percentile, with 40 batches
under way): recording {BEFORE["recording a weighing"]}, of it a quarter reading the method and its prices
twice, a tenth looking for linked batches among all of the kitchen; verdict {BEFORE["verdict"]}, of it two
fifths decoding what every batch of the year had saved and a third its scale error; what-if
{BEFORE["what-if"]}; today {BEFORE["today"]}; case check {BEFORE["case check of 12 offers"]}; forecast
{BEFORE["forecast"]}. The map computed every batch from its entries: 5.3 s with 252 of them. A batch's entries
were joined to the cooks, so that MariaDB read all that a cook had ever recorded; what steps keep was numbered
row by row over the kitchen's whole past. Both are read by an index now, and do not grow with the kitchen.

| | a second | median ms | 95 % ms | median, times empty | 95 %, times empty |
|---|---|---|---|---|---|
{rows}
"""


def write(
    core: dict, server: str, sizes: dict[str, int], starts: dict[str, float], delay: dict[str, float]
) -> str:
    begun = "\n".join(f"| {name} | {seconds:.0f} s |" for name, seconds in starts.items())
    return f"""# Speed

Written by `./dolmetsch bench` on {os.cpu_count()} cores, all in one run; compare ratios, not seconds.

## The core
A sheet of 12 steps and 4 pieces: **{core["sheet"]:.2f} ms**, {core["times_floats"]:.1f} times the same
sums in plain floats (`benchmarks/speed/float_ledger.py`); with every figure of its stages worked out too
{core["all"]:.2f} ms, {core["all_times_floats"]:.1f} times the floats (aim: 2.5). Least of many rounds that
take turns, in processor time. A chain twice as long takes {core["twice_as_long"]:.1f} times as long.
{core["report"]:,} such sheets, stages and all: {core["report_s"]:.1f} s on one core (aim: under 20).
Laying out the strip takes {core["strip"]:.1f} ms, carrying scale error through its 54 weighings
{core["spread"]:.0f} ms.

## Forecasts
12 offers carried through 9 steps, each with its range: **{core["offers"]:.1f} ms** (aim: under 20).
A history of 5,000 batches of 9 steps summed up: {core["gather"]:.0f} ms (aim: under 200); the database
does it as a sum of rows that are kept as batches finish. What 9 methods keep of 6 cuts, believed from the
sums: {core["believe"]:.1f} ms; one batch added to them: {core["one_more"] * 1000:.0f} µs. In processor time.

## A price list brought in
{core["import_rows"]:,} rows of CSV: read and kept {core["import_read"]:.1f} s, checked
{core["import_preview"]:.1f} s, written {core["import_write"]:.1f} s (aim: all in under a minute).

{server}
{describe_delay(delay)}
## The web client
Before the first view, compressed as served: {sizes["js"] / 1000:.0f} kB of JavaScript (aim: under 300),
{sizes["css"] / 1000:.0f} kB of styles, {sizes["woff2"] / 1000:.0f} kB of the typeface.

## Starting
With Debian's packages installed already:

| | |
|---|---|
{begun}
"""


if __name__ == "__main__":
    main()
