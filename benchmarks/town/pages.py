"""Every page and the writes of one kitchen, beside the empty endpoint, each asked when nothing is kept."""

import json
import re
import statistics
import time
from collections.abc import Callable
from typing import Any, Final

from benchmarks.acts import CASE, TRIAL, weigh, weigh_again
from benchmarks.connections import Pool
from benchmarks.sizes import ROOT, of
from benchmarks.timing import percentile, timed
from dolmetsch.command.telling import say

DOCUMENT: Final = ROOT / "docs" / "openapi.json"
ROUNDS: Final = of(15, 2)
#: Of what is slow fewer rounds do: no less than so many, and no longer than so many seconds.
FEWEST, PATIENCE = 5, 4.0
#: Milliseconds from which a page is named while it runs.
SLOW: Final = 300
#: Streams have no end; the whole archive and the audit are not of a kitchen's day.
_LEFT_OUT: Final = ("stream", "everything", "audit", "/people/")
_BATCH: Final = "X-0009"


def list_pages(slug: str) -> dict[str, str]:
    """Addresses of all that is read in a kitchen, by the address as the API document has it."""
    found = {}
    for path, methods in json.loads(DOCUMENT.read_text())["paths"].items():
        if "{kitchen_slug}" not in path or "get" not in methods or any(word in path for word in _LEFT_OUT):
            continue
        ids = _ids(path, slug)
        parts = re.findall(r"{(\w+)}", path.replace("{kitchen_slug}", ""))
        if all(ids.get(part) for part in parts):
            address = path.replace("{kitchen_slug}", slug)
            for part in parts:
                address = address.replace("{" + part + "}", str(ids[part]).replace(" ", "%20"))
            short = path.removeprefix("/api/kitchens/{kitchen_slug}/")
            found[short] = address + ("?owner=Ibba" if path.endswith("owner-page") else "")
    return found


def _ids(path: str, slug: str) -> dict[str, Any]:
    """What stands for the parts of an address, of this kitchen."""
    from dolmetsch.server.dishes.models import Dish
    from dolmetsch.server.fires.models import Fire
    from dolmetsch.server.meals.models import Meal
    from dolmetsch.server.prices.models import PriceItem

    def first(model: Any, column: str = "pk") -> Any:
        return model.objects.filter(kitchen__slug=slug).order_by("pk").values_list(column, flat=True).first()

    names = {"dishes": first(Dish, "name"), "meals": first(Meal, "name"), "archive": "batches"}
    return {
        "code": _BATCH,
        "mark": "P9" if "/packs/" in path else "A1",
        "item_id": first(PriceItem),
        "fire_id": first(Fire),
        "form": "csv",
        "size": "large",
        "name": next((name for word, name in names.items() if f"/{word}/" in path), None),
    }


def measure_kitchen(pool: Pool, slug: str, codes: list[str]) -> dict[str, tuple[float, float]]:
    """Of each page and write: median and 95th percentile, over the empty endpoint's of the same minute."""
    from django.db.models import F

    from dolmetsch.server.kitchens.models import Kitchen

    mine = Kitchen.objects.filter(slug=slug)
    kitchen = f"/api/kitchens/{slug}/"

    def as_after_a_write() -> None:
        mine.update(writes=F("writes") + 1)

    def nothing() -> None:
        return None

    addresses = list_pages(slug)
    for name in ("books/yields?by=step&part=source", "find?words=jowl", "batches?words=jowl"):
        addresses[name] = kitchen + name
    found = {}
    for name, address in list(addresses.items())[:: of(1, 6)]:
        found[name] = _measure(pool, name, [lambda a=address: pool.get(a)] * ROUNDS, as_after_a_write)
    for name, turns in _writes(pool, kitchen, codes).items():
        found[name] = _measure(pool, name, turns, nothing)
    return {name: one for name, one in found.items() if one is not None}


def _measure(
    pool: Pool, name: str, turns: list[Callable[[], Any]], before: Callable[[], None]
) -> tuple[float, float] | None:
    """Median and 95th percentile over the empty endpoint's; None where there is no such page here."""
    took: list[float] = []
    empty: list[float] = []
    try:
        turns[0]()
    except RuntimeError as refused:
        say(f"left out: {str(refused)[:110]}")
        return None
    begun = time.monotonic()
    for turn in turns[1:]:
        if len(took) >= FEWEST and time.monotonic() - begun > PATIENCE:
            break
        empty.append(timed(lambda: pool.get("/api/session/alive")))
        before()
        took.append(timed(turn))
    if statistics.median(took) > SLOW:
        say(f"{name}: {statistics.median(took):.0f} ms")
    return (
        statistics.median(took) / statistics.median(empty),
        percentile(took, 95) / percentile(empty, 95),
    )


def _writes(pool: Pool, kitchen: str, codes: list[str]) -> dict[str, list[Callable[[], Any]]]:
    """The writes of a day, each of another batch."""
    from dolmetsch.server.batches.models import Batch

    slug = kitchen.rstrip("/").rsplit("/", 1)[1]
    seen = dict(Batch.objects.filter(kitchen__slug=slug, code__in=codes).values_list("code", "last_sequence"))

    weights = weigh_again(Batch.objects.get(kitchen__slug=slug, code=_BATCH))

    def record(code: str) -> None:
        pool.post(f"{kitchen}batches/{code}/entries", weigh(weights, seen[code]))

    def take(code: str) -> None:
        pool.post(f"{kitchen}packs/{code}/P10/takings", {"fate": "eaten", "slices": "1"})

    def place(code: str) -> None:
        pool.post(f"{kitchen}packs/{code}/P11/moves", {"sort": "placed", "store": "Fridge 1"})

    def quote(code: str) -> None:
        body = {"sort": "ingredient", "name": f"bench {code}", "source": "Quay", "price": "1.00"}
        pool.post(f"{kitchen}prices", {**body, "size": "1 kg", "on": time.strftime("%Y-%m-%d")})

    def try_out(code: str) -> None:
        pool.post(f"{kitchen}batches/{code}/trial", TRIAL)

    def check_case(_code: str) -> None:
        pool.post(f"{kitchen}case", CASE)

    named = {
        "weighing recorded": record,
        "taken from a pack": take,
        "pack placed": place,
        "price recorded": quote,
        "what-if": try_out,
        "case check of 12 offers": check_case,
    }
    return {name: [lambda c=code, a=act: a(c) for code in codes] for name, act in named.items()}
