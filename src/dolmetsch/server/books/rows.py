"""What the books are made of: of each kind of batch, or step, the latest, with the circumstances of each."""

from collections import defaultdict
from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from fractions import Fraction
from math import exp
from typing import Final, Literal, cast

from django.db.models import Avg
from django.utils import timezone

from dolmetsch.core.ledger.course import COURSE_FACTS, Course
from dolmetsch.core.numbers.length import MM_PER
from dolmetsch.core.numbers.temperature import from_fahrenheit
from dolmetsch.core.reference.yields import METHODS
from dolmetsch.core.statistics.spread import Yielded
from dolmetsch.server.batches.forecast.history import latest_of_each
from dolmetsch.server.batches.models import BatchFacts, Entry, StepYield
from dolmetsch.server.fires.models import FireEvent, FirePiece
from dolmetsch.server.fires.story import unit_of
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.pieces.models import PieceFact
from dolmetsch.server.prices.sellers import Sellers

MM_PER_INCH: Final = float(MM_PER["in"])
Part = Literal["none", "source", "season", "cook", "thickness", "inside"]
#: Quarters of the year, beginning with December.
SEASONS: Final = ("December to February", "March to May", "June to August", "September to November")
#: Where temperatures inside (°F) and thicknesses (inches) are parted: ours, so that each part has batches.
INSIDE_STEPS: Final = (140, 145, 150, 155, 160, 170, 190)
THICKNESS_STEPS: Final = (1.0, 1.5, 2.0, 2.5, 3.0, 4.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Circumstance:
    """How a batch was made: whom the meat is from, when, by whom, how thick, how hot inside. None: unknown.

    ``days`` from buying to the last entry, ``inside`` in °F, ``thickness`` in millimeters (mean of pieces).
    """

    code: str
    name: str
    source: str
    cook: str
    started_at: datetime
    days: int
    inside: float | None
    thickness: float | None

    @property
    def season(self) -> int:
        """Its quarter of the year, 0 for the one that begins in December."""
        return timezone.localtime(self.started_at).month % 12 // 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Made:
    """One dot: what was kept, what a gram cost then (None: unknown), and how it was made."""

    batch: int
    at: datetime
    kept: Yielded
    per_gram: float | None
    how: Circumstance


@dataclass(frozen=True, slots=True, kw_only=True)
class Sort:
    """A kind of batch (cut, way, and what it becomes in words), or of step (cut and method); ``made`` oldest
    first.
    """

    cut: str
    way: str
    becomes: str
    made: list[Made]

    @property
    def yields(self) -> list[Yielded]:
        """What each kept."""
        return [one.kept for one in self.made]


_Row = tuple[int, float, float, float | None, int | None]


def list_batch_sorts(kitchen: Kitchen) -> list[Sort]:
    """The latest finished batches of each cut, way and what it became, the most numerous sort first."""
    groups = ("cut", "way", "course", "is_long")
    columns = ("batch_id", "log_yield", "scale_variance", "cost / NULLIF(final_grams, 0)", "cook_id")
    rows = latest_of_each(
        BatchFacts,
        kitchen,
        groups=groups,
        columns=(*groups, *columns),
        order="finished_at",
        index="facts_by_cut",
    )
    return _sort_out(
        kitchen,
        [
            ((cut, way, say_becomes(course, is_long=bool(is_long))), row)
            for cut, way, course, is_long, *row in rows
            if cut and row[1] is not None
        ],
    )


def list_step_sorts(kitchen: Kitchen) -> list[Sort]:
    """The latest finished batches' steps of each method and cut, in the order of the methods."""
    columns = ("cut", "method", "batch_id", "log_ratio", "scale_variance", "per_gram", "cook_id")
    rows = latest_of_each(
        StepYield,
        kitchen,
        groups=("method", "cut"),
        columns=columns,
        order="id",
        index="step_yield_latest",
    )
    order = {method: at for at, method in enumerate(METHODS)}
    sorts = _sort_out(kitchen, [((cut, method, ""), row) for cut, method, *row in rows])
    return sorted(sorts, key=lambda sort: (order.get(sort.way, len(order)), sort.cut))


def say_becomes(course: str, *, is_long: bool) -> str:
    """What batches became, in words, those cooked long apart from others; empty where it was not said."""
    if is_long and course in ("", "cooked"):
        return "long cook"
    return COURSE_FACTS[cast(Course, course)].label if course else ""


def _sort_out(kitchen: Kitchen, rows: Sequence[tuple[tuple[str, str, str], _Row]]) -> list[Sort]:
    how = _read_circumstances(kitchen, {row[0] for _, row in rows})
    names = dict(User.objects.filter(memberships__kitchen=kitchen).values_list("pk", "first_name"))
    sorts: defaultdict[tuple[str, str, str], list[Made]] = defaultdict(list)
    for key, (batch, log_ratio, variance, per_gram, cook) in rows:
        mine, ended = how[batch]
        sorts[key].append(
            Made(
                batch=batch,
                at=ended,
                kept=Yielded(ratio=exp(log_ratio), scale_variance=variance),
                per_gram=None if per_gram is None else float(per_gram),
                how=replace(mine, cook=names.get(cook or 0, "")),
            )
        )
    found = [
        Sort(cut=cut, way=way, becomes=becomes, made=sorted(made, key=lambda one: (one.at, one.batch)))
        for (cut, way, becomes), made in sorts.items()
    ]
    return sorted(found, key=lambda sort: (-len(sort.made), sort.cut, sort.way, sort.becomes))


def _read_circumstances(
    kitchen: Kitchen, batches: Collection[int]
) -> dict[int, tuple[Circumstance, datetime]]:
    """By batch: how it was made, and when it was finished."""
    inside, thickness = read_peaks(kitchen, batches), _read_thickness(batches)
    rows = BatchFacts.objects.filter(batch__in=batches).values_list(
        "batch", "batch__code", "batch__name", "source", "started_at", "finished_at"
    )
    sources = rows.exclude(source="").order_by("finished_at", "batch_id").values_list("source", flat=True)
    called = Sellers(kitchen).call(sources)
    return {
        pk: (
            Circumstance(
                code=code,
                name=name,
                source=called.get(source, ""),
                cook="",
                started_at=started_at,
                days=(timezone.localdate(ended) - timezone.localdate(started_at)).days,
                inside=inside.get(pk),
                thickness=thickness.get(pk),
            ),
            ended,
        )
        for pk, code, name, source, started_at, ended in rows
    }


def read_peaks(kitchen: Kitchen, batches: Collection[int]) -> dict[int, float]:
    """By batch: the highest the coldest inside came to in its fires, or was typed with a step (°F), of those
    whose inside was read.
    """
    fires = list_fires(batches)
    done = FireEvent.objects.filter(kitchen=kitchen, fire__in=fires, kind="done", data__peak__isnull=False)
    peaks: dict[int, float] = {}
    for fire, data in done.values_list("fire", "data"):
        for batch in fires[fire] if data.get("peak") is not None else ():
            peaks[batch] = max(peaks.get(batch, 0.0), float(data["peak"]))
    typed = Entry.current.filter(batch__in=batches, inside_fahrenheit__isnull=False)
    for batch, inside in typed.values_list("batch", "inside_fahrenheit"):
        peaks[batch] = max(peaks.get(batch, 0.0), float(inside or 0))
    return peaks


def list_fires(batches: Collection[int]) -> dict[int, list[int]]:
    """By fire: which of ``batches`` had pieces in it."""
    pieces = FirePiece.objects.filter(batch__in=batches).values_list("fire", "batch").distinct()
    fires: defaultdict[int, list[int]] = defaultdict(list)
    for fire, batch in pieces:
        fires[fire].append(batch)
    return dict(fires)


def _read_thickness(batches: Collection[int]) -> dict[int, float]:
    facts = PieceFact.objects.filter(batch__in=batches, thickness_mm__isnull=False)
    rows = facts.values("batch").annotate(mean=Avg("thickness_mm")).values_list("batch", "mean")
    return {batch: float(mean) for batch, mean in rows}


def part_of(made: Made, part: Part, kitchen: Kitchen) -> tuple[float, str] | None:
    """Where a batch belongs when they are parted by ``part``: what to order it by, and in words."""
    how = made.how
    match part:
        case "source":
            return (0, how.source) if how.source else None
        case "cook":
            return (0, how.cook) if how.cook else None
        case "season":
            return how.season, SEASONS[how.season]
        case "inside" if how.inside is not None:
            return _between(how.inside, INSIDE_STEPS, lambda edge: say_degrees(edge, kitchen))
        case "thickness" if how.thickness is not None:
            inches = how.thickness / MM_PER_INCH
            return _between(inches, THICKNESS_STEPS, lambda edge: say_thickness(edge, kitchen))
    return None


def _between(value: float, edges: tuple[float, ...], say: Callable[[float], str]) -> tuple[float, str]:
    below = [edge for edge in edges if edge <= value]
    above = [edge for edge in edges if edge > value]
    if not below:
        return 0, f"under {say(edges[0])}"
    if not above:
        return edges[-1], f"{say(edges[-1])} and more"
    return below[-1], f"{say(below[-1])} to {say(above[0])}"


def say_degrees(fahrenheit: float, kitchen: Kitchen) -> str:
    """A temperature as this kitchen reads it: "150 °F"."""
    unit = unit_of(kitchen)
    return f"{round(from_fahrenheit(Fraction(fahrenheit), unit))} °{unit}"


def say_thickness(inches: float, kitchen: Kitchen) -> str:
    """A thickness as this kitchen reads it: "1.5 in"."""
    return f"{inches:g} in" if kitchen.weight_unit == "lb" else f"{inches * 2.54:.1f} cm"
