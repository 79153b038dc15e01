"""A plan of three dishes over four weeks against sixty pieces under way: worked out, and moved by a day."""

import statistics
import uuid
from datetime import timedelta

from benchmarks.connections import Pool
from benchmarks.sizes import of
from benchmarks.timing import timed

PIECES_EACH, BATCHES, ROUNDS = of((6, 10, 40), (2, 2, 2))
WEEKS = 4


def fill_kitchen() -> None:
    """Ten batches of six pieces in the fridges, under way, each with a week of turns on the list."""
    from django.utils import timezone

    from dolmetsch.server.batches.models import Batch
    from dolmetsch.server.pieces.models import PieceFact, Store
    from dolmetsch.server.plans.models import PlannedTask

    pattern = Batch.objects.get(code="B-02")
    now = timezone.now()
    stamp = {"kitchen": pattern.kitchen, "recorded_at": now, "recorded_by_id": 1, "fingerprint": "-"}
    Store.objects.create(name="Walk-in", sort="fridge", levels=20, slots=6, key=uuid.uuid4(), **stamp)
    for number in range(BATCHES):
        marks = [f"A{place + 1}" for place in range(PIECES_EACH)]
        batch = Batch.objects.get(pk=pattern.pk)
        batch.pk, batch.code, batch._state.adding = 700_000 + number, f"Z-{number:02d}", True
        batch.summary = {**batch.summary, "mains": [{**batch.summary["mains"][0], "mark": m} for m in marks]}
        batch.save(force_insert=True)
        for mark in marks:
            place = {"store": "Walk-in", "level": number + 1, "slot": 1}
            PieceFact.objects.create(batch=batch, mark=mark, key=uuid.uuid4(), **place, **stamp)
        for day in range(1, 9):
            due = now + timedelta(days=day)
            kind = "out" if day == 8 else "turn"
            PlannedTask.objects.create(
                batch=batch,
                uid=uuid.uuid4(),
                follows=uuid.uuid4(),
                kind=kind,
                marks=marks,
                due_at=due,
                until_at=due,
                changed_at=now,
                key=uuid.uuid4(),
                **stamp,
            )


def measure_plan(port: int) -> dict[str, float]:
    """Milliseconds: a plan worked out, and the same moved by a day."""
    from django.utils import timezone

    fill_kitchen()
    pool = Pool(port)
    path = "/api/kitchens/salt-lantern/previews/meals"
    dishes = ("Harbor roll", "Jowl and eggs", "Rye loaf")
    first = timezone.localdate() + timedelta(weeks=WEEKS)

    def ask(day: int) -> None:
        wants = [{"sort": "dish", "name": name, "amount": "20"} for name in dishes]
        make = {"way": "Dry cure, cherry smoke", "meat": "jowl, skin on", "piece": "3 lb", "pack": "6 lb"}
        day_of = (first + timedelta(days=day)).isoformat()
        pool.post(path, {"day": day_of, "wants": wants, "makes": [make]})

    empty = [timed(lambda: pool.get("/api/session/alive")) for _ in range(ROUNDS)]
    whole = sorted(timed(lambda: ask(0)) for _ in range(ROUNDS))
    moved = sorted(timed(lambda day=day: ask(day % 7)) for day in range(ROUNDS))
    return {
        "empty": statistics.median(empty),
        "p50": statistics.median(whole),
        "p95": whole[int(ROUNDS * 0.95)],
        "moved": statistics.median(moved),
        "moved_p95": moved[int(ROUNDS * 0.95)],
    }


def describe_plan(measured: dict[str, float]) -> str:
    times = measured["p50"] / measured["empty"]
    return f"""## A plan
Three dishes four weeks ahead, beside {PIECES_EACH * BATCHES} more pieces under way: worked out in
{measured["p50"]:.0f} ms, 95 % within **{measured["p95"]:.0f} ms** (aim: under 300), {times:.0f} times the
empty endpoint ({measured["empty"]:.1f} ms). Moved by a day: **{measured["moved"]:.0f} ms**, 95 % within
{measured["moved_p95"]:.0f} ms (aim: under 150).
"""
