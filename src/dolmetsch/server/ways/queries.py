"""Reads of ways: the latest version of each, as typed and as the core reads it."""

from fractions import Fraction

from django.utils import timezone

from dolmetsch.core.forecast.way import Way as CoreWay
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.reference.yields import METHODS
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import not_found
from dolmetsch.server.quantities.printing import print_money, print_unit_cost, print_weight
from dolmetsch.server.ways import schemas
from dolmetsch.server.ways.models import Way
from dolmetsch.server.ways.reading import ReadWay, read_way
from dolmetsch.server.writing.kept import latest_by_name
from dolmetsch.server.writing.kept_answers import keep_until_write


def list_latest(kitchen: Kitchen) -> list[Way]:
    """The latest version of each way that is not put away, by name."""
    ways = Way.objects.filter(kitchen=kitchen).select_related("recorded_by").order_by("name", "version")
    return latest_by_name(ways)


def get_way(kitchen: Kitchen, name: str) -> Way:
    """The latest version of the way ``name``.

    Raises:
        DomainError: not_found.
    """
    way = Way.objects.filter(kitchen=kitchen, name=name).order_by("-version").first()
    if way is None or way.is_put_away:
        raise not_found(f"method “{name}”")
    return way


def read_kept(way: Way) -> ReadWay:
    """A kept way as the core reads it, at the prices of today."""
    return read_way(way.kitchen, schemas.WayIn.model_validate(way.input))


def core_of(way: Way) -> CoreWay:
    """A kept way for the core; many batches of a kitchen are made by one, so it is kept until a write.

    Raises:
        ValueError: it was read when it was kept, and cannot be now.
    """
    about = ("way", way.pk)
    return keep_until_write(way.kitchen, timezone.now(), about, lambda: _must(read_kept(way), way))


def _must(read: ReadWay, way: Way) -> CoreWay:
    if read.way is None:
        raise ValueError(f"{way} cannot be read: {read.reader.problems}")
    return read.way


def read_ways(kitchen: Kitchen) -> schemas.WaysOut:
    """Every way with what its things cost today."""
    return schemas.WaysOut(
        ways=[show_way(way) for way in list_latest(kitchen)],
        methods=[
            schemas.MethodOut.model_validate({"key": one.key, "kind": one.kind, "label": one.label})
            for one in METHODS.values()
        ],
    )


def show_way(way: Way) -> schemas.WayOut:
    """One way."""
    data = schemas.WayIn.model_validate(way.input)
    read = read_kept(way)
    core = _must(read, way)
    origin = list(read.origin.values())
    uses = [use for step in core.steps for use in step.used]
    return schemas.WayOut(
        name=way.name,
        version=way.version,
        input=data,
        days=core.days,
        recorded_at=way.recorded_at,
        by=way.recorded_by.called,
        priced=[
            schemas.UsePricedOut(
                what=use.what,
                cost=print_unit_cost(use.cost * GRAMS_PER_LB / 1000) if use.per == "kg" else None,
                batch=print_money(use.cost) if use.per == "batch" else None,
                origin=from_where,
            )
            for use, from_where in zip(uses, origin, strict=True)
        ],
        missing=read.missing,
        portion=label_portion(data),
        slice_weight=None if core.slice_grams is None else print_weight(Fraction(core.slice_grams)),
    )


def label_portion(data: schemas.WayIn) -> str | None:
    """What is served, in words."""
    if data.portion_slices:
        return "1 slice" if data.portion_slices == "1" else f"{data.portion_slices} slices"
    if data.portion_weight:
        return data.portion_weight
    return f"{data.portion_cooked} cooked" if data.portion_cooked else None
