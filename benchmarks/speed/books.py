"""The books over a filled kitchen: each book asked right after a write, and a recount beside what is kept."""

import statistics

from benchmarks.connections import Pool
from benchmarks.sizes import of
from benchmarks.timing import timed

ROUNDS = of(20, 2)
BOOKS = {
    "yields, by cut and method": "books/yields",
    "yields, by step": "books/yields?by=step",
    "yields, by step and source": "books/yields?by=step&part=source",
    "yields, by inside temperature": "books/yields?part=inside",
    "out of the usual": "books/unusual",
    "money, a year": "books/money",
    "prices over time": "books/prices",
    "forecasts by kind": "books/forecasts",
    "forecasts by step": "calibration",
    "all batches": "batches",
    "found by a word": "find?words=jowl",
    "found by a code": "find?words=X-0100",
    "found by a day": "find?words=2026-02-03",
}


def spread_out() -> int:
    """Give the copied batches days over three years, yields that differ, two sources; how many there are."""
    from django.db import connection

    from dolmetsch.server.batches.models import Batch

    with connection.cursor() as cursor:
        cursor.execute(
            "UPDATE batches_batchfacts SET finished_at = DATE_SUB(NOW(), INTERVAL (batch_id % 1000) DAY), "
            "log_yield = log_yield + (RAND(1) - 0.5) / 8, source = ELT(1 + batch_id % 2, 'Quay', 'Tidewell') "
            "WHERE batch_id >= 1000"
        )
        cursor.execute(
            "UPDATE batches_stepyield SET log_ratio = log_ratio + (RAND(2) - 0.5) / 16 WHERE batch_id >= 1000"
        )
        cursor.execute(
            "UPDATE batches_shopsaving SET finished_at = DATE_SUB(NOW(), INTERVAL (batch_id % 1000) DAY) "
            "WHERE batch_id >= 1000"
        )
        cursor.execute(
            "ANALYZE TABLE batches_batchfacts, batches_stepyield, batches_shopsaving, batches_forecastscore"
        )
    return Batch.objects.filter(is_finished=True).count()


def measure_books(port: int) -> dict[str, dict[str, float]]:
    """Milliseconds of each book, median and 95th percentile, nothing kept from before."""
    from django.db.models import F

    from dolmetsch.server.kitchens.models import Kitchen

    pool = Pool(port)
    mine = Kitchen.objects.filter(slug="salt-lantern")
    found = {}
    for name, path in BOOKS.items():
        took = []
        for _ in range(ROUNDS):
            # as after a write: what was kept is as of before
            mine.update(writes=F("writes") + 1)
            took.append(timed(lambda: pool.get(f"/api/kitchens/salt-lantern/{path}")))  # noqa: B023 (at once)
        took.sort()
        found[name] = {"p50": statistics.median(took), "p95": took[int(ROUNDS * 0.95)]}
    empty = [timed(lambda: pool.get("/api/session/alive")) for _ in range(ROUNDS)]
    found["empty endpoint"] = {"p50": statistics.median(empty), "p95": sorted(empty)[int(ROUNDS * 0.95)]}
    return found


def describe_books(found: dict[str, dict[str, float]], batches: int) -> str:
    """The figures as a part of docs/speed.md."""
    empty = found["empty endpoint"]["p50"]
    rows = "\n".join(
        f"| {name} | {one['p50']:.0f} | {one['p95']:.0f} | {one['p50'] / empty:.1f} |"
        for name, one in found.items()
    )
    return f"""## Books
{batches} finished batches of 16 entries in one kitchen, each book asked right after a write, so that nothing
is kept from before (aim: under 400 ms at 95 %; finding under 200 ms).

| book | ms | ms, 95 % | times the empty endpoint |
|---|---|---|---|
{rows}
"""
