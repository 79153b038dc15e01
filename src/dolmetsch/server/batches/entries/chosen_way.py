"""The way a batch is made by, as chosen; the standard one where nobody said."""

from collections.abc import Sequence
from dataclasses import replace

from dolmetsch.core.forecast.way import Way as CoreWay
from dolmetsch.core.forecast.way import plain_way
from dolmetsch.core.ledger.course import COURSE_FACTS, Course, infer_course
from dolmetsch.core.ledger.kinds import method_kind
from dolmetsch.core.ledger.strands import Heated
from dolmetsch.core.reference.yields import METHODS
from dolmetsch.server.batches.entries.own_slices import as_sliced_here
from dolmetsch.server.batches.models import Batch, BatchWay
from dolmetsch.server.batches.models.cure_facts import cure_methods
from dolmetsch.server.batches.models.fire_facts import fire_facts
from dolmetsch.server.ways.models import Way
from dolmetsch.server.ways.queries import core_of


def way_of(chosen: BatchWay | None, *, pieces: int = 1, course: Course | None = None) -> CoreWay:
    """The chosen way as the core reads it, at the prices of today; where nobody chose one the standard one to
    ``course``, for so many ``pieces``.
    """
    if chosen is not None:
        return as_sliced_here(core_of(chosen.way), chosen.way.kitchen)
    facts = COURSE_FACTS[course or "cooked"]
    return plain_way(facts.steps, pieces=pieces, is_smoked_cold=facts.is_smoked_cold)


def fetch_ways(batches: Sequence[Batch]) -> None:
    """Read at once the ways that ``batches`` are made by, where those of several are asked for."""
    rows = BatchWay.objects.filter(batch__in=batches).select_related("way").order_by("id")
    latest = {row.batch_id: row for row in rows}
    for batch in batches:
        chosen = latest.get(batch.pk)
        if chosen is not None:
            chosen.way.kitchen = batch.kitchen
        batch.chosen_way = chosen


def kinds_of(chosen: BatchWay) -> list[str]:
    """The kinds of its steps, in order. Needs no prices, so none are read."""
    return [METHODS[step["method"]].kind for step in chosen.way.input["steps"]]


def course_of_way(way: Way) -> Course | None:
    """What the way leads to; None where it could lead to several things."""
    methods = _methods_of(way)
    return infer_course((), methods=[*methods.values()], is_cold=methods.get("smoke") == "cold_smoke")


def methods_of_way(chosen: BatchWay | None) -> dict[str, str]:
    """The method of each kind of its steps; none where no way was chosen."""
    return {} if chosen is None else _methods_of(chosen.way)


def _methods_of(way: Way) -> dict[str, str]:
    return {METHODS[step["method"]].kind: step["method"] for step in way.input["steps"]}


def methods_of(batch: Batch) -> dict[str, str]:
    """The method of each kind of step by the way the batch is made by, the cure it was in and the fire it was
    in; none where nobody said.
    """
    return {**methods_but_cure(batch), **cure_methods(batch)}


def methods_but_cure(batch: Batch) -> dict[str, str]:
    """The same, of the cure by the way alone: what is raw, and what it becomes, does not ask the desk."""
    return {**methods_of_way(batch.chosen_way), **fire_facts().methods(batch)}


def as_measured(batch: Batch, heated: Heated | None) -> Heated | None:
    """How something was heated, with the inside temperature of the batch's fire where none was typed."""
    if heated is None or heated.inside_fahrenheit is not None:
        return heated
    return replace(heated, inside_fahrenheit=fire_facts().inside(batch).get(method_kind(heated.kind)))
