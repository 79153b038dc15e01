"""A kitchen filled with copies of one batch, and a year of what probes read in it."""

import random
import uuid
from datetime import timedelta
from typing import Any, Final

from django.db import models

#: Every so many batches one is under way.
UNDER_WAY_EACH: Final = 8
FIRST_BATCH: Final = 1_000
READ_EACH: Final = timedelta(minutes=10)
FIRE_READ_EACH: Final = timedelta(seconds=10)


def copy_batch(code: str, count: int, *, with_packs: bool) -> None:
    """``count`` copies X-0000, X-0001 … of a finished batch with its entries and all that is of it; after
    those that are there.
    """
    from dolmetsch.server.batches.models import Batch, BatchFacts, ForecastScore, ShopSaving, StepYield

    pattern = Batch.objects.get(code=code)
    paths = _paths(with_packs=with_packs)
    rows = {model: list(model._default_manager.filter(**{path: pattern.pk})) for model, path in paths.items()}
    free = {model: _first_free(model) for model in paths}
    fresh: dict[Any, list[Any]] = {model: [] for model in paths}
    there = Batch.objects.filter(code__startswith="X-").count()
    for number in range(there, there + count):
        is_finished = number % UNDER_WAY_EACH != 0
        keys: dict[Any, dict[Any, Any]] = {model: {} for model in paths}
        for model, olds in rows.items():
            if not is_finished and model in (StepYield, ShopSaving, BatchFacts, ForecastScore):
                continue
            for old in olds:
                own = _copy_row(old, keys, free)
                if model is Batch:
                    own |= {"code": f"X-{number:04d}", "is_finished": is_finished}
                    own |= {} if with_packs else {"packs_made": 0}
                fresh[model].append(model(**own))
    for model, made in fresh.items():
        model._default_manager.bulk_create(made, batch_size=500)


def _copy_row(old: Any, keys: dict[Any, dict[Any, Any]], free: dict[Any, int]) -> dict[str, Any]:
    """A row's values under a key of its own, noted in ``keys``; what it refers to by the keys noted there."""
    model = type(old)
    own = {field.attname: getattr(old, field.attname) for field in model._meta.concrete_fields}
    for field in model._meta.concrete_fields:
        if isinstance(field, models.ForeignKey) and field.related_model in keys:
            known = keys[field.related_model]
            own[field.attname] = known.get(own[field.attname], own[field.attname])
        elif field.primary_key:
            own[field.attname] = keys[model][old.pk] = free[model]
            free[model] += 1
        elif isinstance(field, models.UUIDField) and own[field.attname] is not None:
            own[field.attname] = uuid.uuid4()
    return own


def _paths(*, with_packs: bool) -> dict[Any, str]:
    """Each table of a batch's own rows, after those it refers to, with the look-up of that batch."""
    from dolmetsch.server.archive.tables import DERIVED, list_tables
    from dolmetsch.server.batches.models import Batch

    paths: dict[Any, str] = {Batch: "pk"}
    for model in [*list_tables(), *sorted(DERIVED, key=lambda one: one.__name__)]:
        if model is Batch or model._meta.app_label not in ("batches", "larder" if with_packs else ""):
            continue
        for field in model._meta.concrete_fields:
            if isinstance(field, models.ForeignKey) and not field.null and field.related_model in paths:
                above = paths[field.related_model]
                paths[model] = field.name if above == "pk" else f"{field.name}__{above}"
                break
    return paths


def _first_free(model: Any) -> int:
    most = model._default_manager.aggregate(most=models.Max("pk"))["most"]
    return max(FIRST_BATCH, int(most or 0) + 1)


def fill_prices(weeks: int) -> None:
    """The first price of each thing again in each of so many weeks before it."""
    from dolmetsch.server.prices.models import PriceItem, Quote

    dice, made = random.Random(3), []
    for item in PriceItem.objects.filter(kitchen__slug="salt-lantern"):
        first = item.quotes.order_by("seen_on", "pk").first()
        for week in range(1, weeks + 1):
            own = {field.attname: getattr(first, field.attname) for field in Quote._meta.concrete_fields}
            own |= {"id": None, "key": uuid.uuid4(), "seen_on": first.seen_on - timedelta(weeks=week)}
            own["paid"] = (first.paid * dice.randrange(90, 111) / 100).quantize(first.paid)
            made.append(Quote(**own))
    Quote.objects.bulk_create(made, batch_size=500)


def fill_readings(now: Any, *, days: int, fires: int, hours: int) -> tuple[int, int]:
    """Readings of a chamber all through ``days``, and of so many fires of ``hours`` with three probes.

    Thinned as the collector thins them; how many were read and how many are kept.
    """
    from dolmetsch.server.fires.models import ProbeReading
    from dolmetsch.server.fires.readings.thinning import LOOKED_AT_DAYS, thin_old
    from dolmetsch.server.kitchens.models import Kitchen

    kitchen, dice = Kitchen.objects.get(slug="salt-lantern"), random.Random(4)
    read = 0

    def add(cooker: str, rows: list[tuple[Any, dict[str, str]]]) -> None:
        nonlocal read
        kept = [
            ProbeReading(kitchen=kitchen, cooker=cooker, at=at, values=values, heard_at=at)
            for at, values in rows
        ]
        read += len(ProbeReading.objects.bulk_create(kept, batch_size=2_000, ignore_conflicts=True))

    chamber = []
    for number in range(days * 144):
        values = {"air": f"{dice.gauss(55, 1):.1f}", "humidity": f"{dice.gauss(75, 3):.1f}"}
        chamber.append((now - number * READ_EACH, values))
    add("loft", chamber)
    for number in range(fires):
        begun = now - timedelta(days=number * days / fires, hours=hours + 1)
        inside, rows = [40.0] * 3, []
        for step in range(hours * 360):
            inside = [one + (225 - one) * (0.00014 if 150 < one < 168 else 0.0005) for one in inside]
            values = {str(at + 1): f"{one + dice.gauss(0, 0.2):.1f}" for at, one in enumerate(inside)}
            values["air"] = f"{dice.gauss(225, 4):.1f}"
            rows.append((begun + step * FIRE_READ_EACH, values))
        add("pit", rows)
    for back in range(0, days, LOOKED_AT_DAYS):
        thin_old(now - timedelta(days=back))
    return read, ProbeReading.objects.filter(kitchen=kitchen, cooker__in=("loft", "pit")).count()
