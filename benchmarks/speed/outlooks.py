"""Forecasts and price lists: offers carried through a way, a long history, a long list brought in."""

import random
import time
import uuid
from fractions import Fraction

from benchmarks.sizes import of
from dolmetsch.core.buying.offer import Offer, Plan, ShopKind, assess
from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.forecast.way import Way, WayStep, WayUse
from dolmetsch.core.forecast.yields import Tally, believe, tally
from dolmetsch.core.ledger.batch import Policy
from dolmetsch.core.meat.cuts import read_cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.quantity import read_price

METHODS = (*("dry_age", "trim", "dry_cure", "rest", "cold_smoke", "hot_smoke", "chill", "air_dry", "slice"),)
CUTS = ("jowl, skin on", "belly, skin on", "belly, skinless", "loin", "shoulder, bone in", "goose")
OFFERS, BATCHES, ROUNDS = of((12, 5_000, 40), (12, 50, 1))
ROWS = of(20_000, 50)


def least(act, rounds=ROUNDS) -> float:
    """Milliseconds of processor time, the least of many rounds."""
    times = []
    for _ in range(rounds):
        begun = time.process_time()
        act()
        times.append((time.process_time() - begun) * 1000)
    return min(times)


def measure_outlooks() -> dict[str, float]:
    """12 offers through 9 steps; a history of 5 000 batches summed up and believed, and one batch added."""
    draw = random.Random(3)
    keys = [read_cut(words) for words in CUTS]
    records = [
        (method, draw.choice(keys).key, draw.uniform(0.8, 1.0)) for _ in range(BATCHES) for method in METHODS
    ]

    def gather() -> dict[str, dict[str, Tally]]:
        ratios: dict[tuple[str, str], list[float]] = {}
        for method, key, ratio in records:
            ratios.setdefault((method, key), []).append(ratio)
        history: dict[str, dict[str, Tally]] = {}
        for (method, key), kept in ratios.items():
            history.setdefault(method, {})[key] = tally(kept, scale_variance=1e-6)
        return history

    history = gather()

    def believe_all() -> None:
        for method in METHODS:
            for cut in keys:
                believe(method, cut, history)

    salt = WayUse(what="salt", group="cure", amount=Fraction(25), per="kg", price=read_price("1.20/kg"))
    way = Way(
        name="long",
        steps=tuple(WayStep(method=method, batch_minutes=Fraction(10), used=(salt,)) for method in METHODS),
    )
    fry = Estimate(middle=0.42, log_deviation=0.1)
    plan = Plan(grams=20 * GRAMS_PER_LB, portions=None, fry=fry)
    shop = ShopKind(name="good", price=0.018, fry=fry)
    offers = [
        Offer(cut=keys[number % len(keys)], price=Fraction(300 + 10 * number, 100) / GRAMS_PER_LB)
        for number in range(OFFERS)
    ]

    def check() -> None:
        for offer in offers:
            assess(
                offer, way, history=history, policy=Policy(labour_rate=Fraction(18)), plan=plan, against=shop
            )

    return {
        "offers": least(check),
        "gather": least(gather, 5),
        "believe": least(believe_all),
        "one_more": least(lambda: history["trim"][keys[0].key] + tally([0.9])),
    }


def measure_import() -> dict[str, float]:
    """Seconds to read, preview and write a list of 20 000 rows, over MariaDB."""
    from django.utils import timezone

    from dolmetsch.server.kitchens.models import Kitchen, User
    from dolmetsch.server.prices import importing
    from dolmetsch.server.tables.uploading import get_uploaded, write_piece
    from dolmetsch.server.writing.once import Write

    rows = [
        f"ware {at % 4_000},{1 + at % 90}.{at % 90 + 10},kg,2025-{at % 12 + 1:02d}-{at % 28 + 1:02d}"
        for at in range(ROWS)
    ]
    content = "\n".join(["item,price,unit,date", *rows]).encode()
    now = timezone.now()
    kitchen, user = Kitchen.objects.get(slug="salt-lantern"), User.objects.get(username="maren")

    def write() -> Write:
        return Write(kitchen=kitchen, user=user, now=now, key=uuid.uuid4(), fingerprint="")

    begun = time.perf_counter()
    answer = importing.upload(write(), name="long.csv", source="the long list", content=content)
    read = time.perf_counter()
    kept = get_uploaded(kitchen, importing.PRICE_LIST, answer.id)
    importing.preview(kept, answer.match, today=now.date())
    seen = time.perf_counter()
    while kept.next_row < kept.rows_count:
        ahead = {"from_row": kept.next_row, "match": answer.match}
        kept = write_piece(write(), importing.PRICE_LIST, answer.id, **ahead)
    done = time.perf_counter()
    return {"read": read - begun, "preview": seen - read, "write": done - seen, "rows": ROWS}
