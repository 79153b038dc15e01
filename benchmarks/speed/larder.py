"""The larder with much in it: 5,000 packs and 500 dishes, read, taken from, and costed again."""

import statistics
import uuid
from datetime import timedelta

from benchmarks.connections import Pool
from benchmarks.sizes import of
from benchmarks.timing import timed

PACKS, DISHES, ROUNDS = of((5_000, 500, 20), (200, 4, 2))
PER_BATCH, PRODUCTS = 50, 40


def fill_larder() -> list[tuple[str, str]]:
    """Packs of the demo's finished jowl, and dishes of them; codes and marks of packs to take from."""
    from django.utils import timezone

    from dolmetsch.server.batches.models import Batch

    pattern = Batch.objects.get(code="J-01")
    now = timezone.now()
    stamp = {"kitchen": pattern.kitchen, "recorded_at": now, "recorded_by_id": 1, "fingerprint": "-"}
    made = [fill_batch(pattern.pk, number, stamp) for number in range(PACKS // PER_BATCH)]
    fill_dishes(stamp)
    return made


def fill_batch(pattern: int, number: int, stamp: dict) -> tuple[str, str]:
    """A copy of the batch ``pattern`` with its packs; its code and the mark of the first."""
    from dolmetsch.server.batches.models import Batch
    from dolmetsch.server.larder.models import Pack, Packing, PackNow

    now, kitchen = stamp["recorded_at"], stamp["kitchen"]
    batch = Batch.objects.get(pk=pattern)
    batch.pk, batch.code, batch._state.adding = 500_000 + number, f"Y-{number:04d}", True
    batch.save(force_insert=True)
    packing = Packing.objects.create(batch=batch, key=uuid.uuid4(), **stamp)
    Pack.objects.bulk_create(
        Pack(
            kitchen=kitchen,
            packing=packing,
            batch=batch,
            number=place + 1,
            mark=f"P{place + 1}",
            piece="A1",
            product=f"Product {number % PRODUCTS}",
            form="slices",
            grams=260,
            typed="260 g",
            slices=10,
            store="Freezer" if place % 3 else "Fridge 1",
            packed_at=now - timedelta(days=number % 60),
        )
        for place in range(PER_BATCH)
    )
    PackNow.objects.bulk_create(
        PackNow(
            pack=pack,
            kitchen=kitchen,
            cost=4,
            book_grams=260,
            left_grams=260,
            left_slices=10,
            left_cost=4,
            state="frozen" if pack.store == "Freezer" else "chilled",
            store=pack.store,
            keeps="bacon",
            is_raw=False,
            keep_until=(now + timedelta(days=20)).date(),
            is_gone=False,
        )
        for pack in Pack.objects.filter(packing=packing).order_by("number")
    )
    return batch.code, "P1"


def fill_dishes(stamp: dict) -> None:
    """Dishes of three parts each, the meat of one product after another."""
    from dolmetsch.server.dishes.models import Dish

    flour = {"sort": "price", "name": "rye flour", "amount": "40 g"}
    dressing = {"sort": "own", "name": "dressing", "amount": "", "cost": "0.20"}
    Dish.objects.bulk_create(
        Dish(
            name=f"Dish {number}",
            version=1,
            input={
                "name": f"Dish {number}",
                "parts": [
                    {"sort": "larder", "name": f"Product {number % PRODUCTS}", "amount": "3 slices"},
                    flour,
                    dressing,
                ],
                "price": "9.00",
            },
            cost_then=2,
            key=uuid.uuid4(),
            **stamp,
        )
        for number in range(DISHES)
    )


def measure_larder(port: int) -> dict[str, float]:
    """Milliseconds, medians: an empty endpoint, the larder and the dishes first asked for, a pack taken."""
    made = fill_larder()
    pool = Pool(port)
    kitchen = "/api/kitchens/salt-lantern/"

    def take(code: str, mark: str):
        return lambda: pool.post(f"{kitchen}packs/{code}/{mark}/takings", {"fate": "eaten", "slices": "3"})

    empty, taken, larders, dishes = [], [], [], []
    # an empty endpoint before each taking, so that both meet the same moments of the machine
    for code, mark in made[ROUNDS:]:
        empty.append(timed(lambda: pool.get("/api/session/alive")))
        taken.append(timed(take(code, mark)))
    for code, mark in made[:ROUNDS]:
        # after a write nothing kept is good: each is worked out anew
        take(code, mark)()
        larders.append(timed(lambda: pool.get(f"{kitchen}larder")))
        dishes.append(timed(lambda: pool.get(f"{kitchen}dishes")))
    return {
        "empty": statistics.median(empty),
        "taken": statistics.median(taken),
        "larder": statistics.median(larders),
        "dishes": statistics.median(dishes),
    }


def describe_larder(times: dict[str, float]) -> str:
    """The part of docs/speed.md on the larder."""
    ratio = times["taken"] / times["empty"]
    larder, dishes = f"**{times['larder']:.0f} ms**", f"**{times['dishes']:.0f} ms**"
    return f"""## The larder
{PACKS:,} packs and {DISHES} dishes, each asked for right after a write: the larder {larder} (aim: under 500),
all dishes costed again {dishes} (aim: under 1 s), a pack taken **{ratio:.1f} times** the empty endpoint
({times["empty"]:.1f} ms; aim: 3).
"""
