"""A fire's rows as the core's log of a cook: which probe was where when, which stage ran, what was read."""

from bisect import bisect_right
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from fractions import Fraction
from functools import lru_cache
from itertools import pairwise
from typing import Any, Final

from django.utils import timezone

from dolmetsch.core.heat.cook_log import CookLog, InstantReading, Phase, PhaseKind, Probe, Reading
from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.core.reference.heat import Meat
from dolmetsch.devices.cooker.lines import AIR
from dolmetsch.server.fires.models import Fire, FireEvent, ProbeReading
from dolmetsch.server.kitchens.models import Kitchen

EPOCH: Final = datetime(1970, 1, 1, tzinfo=UTC)
_PHASES: Final[dict[str, PhaseKind]] = {"cold_smoke": "cold_smoke", "hold": "hold"}
#: Events by which a fire ends, or that come after it did.
OUT_KINDS: Final = ("rest", "hold", "cool", "done")
_AFTER: Final[dict[str, PhaseKind]] = {"rest": "rest", "hold": "hold", "cool": "cool"}
#: A fire is looked at for so long after it was done, and no longer.
MOST_DAYS: Final = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class Placed:
    """A probe in a piece from a time on; ``id`` names it in the log: its number, marked if it moved."""

    id: str
    probe: str
    piece: str
    where: str
    start: datetime


@dataclass(slots=True, kw_only=True)
class Story:
    """What the events of a fire come to."""

    fire: Fire
    events: list[FireEvent]
    placed: list[Placed] = field(default_factory=list)
    stages: list[tuple[int, datetime]] = field(default_factory=list)
    after: list[tuple[PhaseKind, datetime]] = field(default_factory=list)
    done_at: datetime | None = None

    @property
    def out_at(self) -> datetime | None:
        """When it came out of the fire."""
        return self.after[0][1] if self.after else self.done_at

    def placed_now(self, probe: str) -> Placed | None:
        """Where ``probe`` is now."""
        return next((one for one in reversed(self.placed) if one.probe == probe), None)


def pull_at_of(fire: Fire) -> Fraction | None:
    """The inside temperature (°F) at which it is to come out; None: it has none."""
    return None if fire.pull_at is None else Fraction(fire.pull_at)


def unit_of(kitchen: Kitchen) -> TemperatureUnit:
    """The unit of a kitchen's temperatures."""
    return "F" if kitchen.temperature_unit == Kitchen.TemperatureUnit.FAHRENHEIT else "C"


def seconds_of(at: datetime) -> Fraction:
    """Seconds since 1970."""
    passed = at - EPOCH
    return Fraction(passed // timedelta(microseconds=1), 1_000_000)


def moment_of(seconds: Fraction) -> datetime:
    """Seconds since 1970 as a time."""
    return EPOCH + timedelta(microseconds=int(seconds * 1_000_000))


def read_story(fire: Fire) -> Story:
    """The story of a fire, by its events in order of time."""
    return read_stories([fire])[0]


def read_stories(fires: Sequence[Fire]) -> list[Story]:
    """The story of each of ``fires``, their events read at once."""
    events: dict[int, list[FireEvent]] = {fire.pk: [] for fire in fires}
    for event in FireEvent.objects.filter(fire__in=fires).select_related("recorded_by").order_by("at", "id"):
        events[event.fire_id].append(event)
    return [build_story(fire, events[fire.pk]) for fire in fires]


def build_story(fire: Fire, events: list[FireEvent]) -> Story:
    """The story that ``events``, in order of time, make of a fire."""
    story = Story(fire=fire, events=events)
    story.stages.append((0, fire.begun_at))
    for event in story.events:
        if event.kind == "probe":
            _place(story, event.data["probe"], event.data["piece"], event.data.get("where", ""), event.at)
        elif event.kind == "swap":
            _swap(story, event)
        elif event.kind == "stage":
            story.stages.append((event.data["stage"], event.at))
        elif event.kind in _AFTER:
            story.after.append((_AFTER[event.kind], event.at))
        elif event.kind == "done":
            story.done_at = event.at
    return story


def _place(story: Story, probe: str, piece: str, where: str, at: datetime) -> None:
    count = sum(one.probe == probe for one in story.placed)
    name = probe if not count else f"{probe}/{count + 1}"
    story.placed.append(Placed(id=name, probe=probe, piece=piece, where=where, start=at))


def _swap(story: Story, event: FireEvent) -> None:
    one, other = (story.placed_now(event.data[name]) for name in ("probe", "other"))
    if one is not None and other is not None:
        _place(story, one.probe, other.piece, other.where, event.at)
        _place(story, other.probe, one.piece, one.where, event.at)


def plan_air(story: Story, *, now: datetime) -> list[tuple[Fraction, float]]:
    """The air of stages to come, from when they are due by the program: now, where one is overdue.

    What comes after a stage that ends at an inside temperature or by the cook's word cannot be dated.
    """
    index, due = story.stages[-1]
    planned = []
    for stage, following in pairwise(story.fire.stages[index:] if story.out_at is None else []):
        if stage["minutes"] is None:
            break
        due = max(now, due + timedelta(minutes=float(stage["minutes"])))
        if following["air"] is not None:
            planned.append((seconds_of(due), float(following["air"])))
    return planned


def air_asked(story: Story) -> Fraction | None:
    """The air (°F) that the stage of now asks for; None where it asks for none, or it is out."""
    wanted = story.fire.stages[story.stages[-1][0]].get("air")
    return None if wanted is None or story.out_at is not None else Fraction(wanted)


def clock_of(fire: Fire) -> datetime:
    """The time it is at the fire: a simulated cooker may run ahead of ours."""
    return clock_by(last_reading(fire))


def last_reading(fire: Fire) -> ProbeReading | None:
    """The last that was heard of its cooker: a clock that had run ahead may have been set back."""
    return ProbeReading.last_heard(fire.kitchen_id, fire.cooker) if fire.cooker else None


def clock_by(last: ProbeReading | None) -> datetime:
    """The time it is where ``last`` was the last that was heard."""
    now = timezone.now()
    return now if last is None else max(now, last.at)


def imported_name(fire: Fire) -> str:
    """The name under which readings of logs that were taken into ``fire`` are kept; no cooker bears it."""
    return f"log:{fire.pk}"


def list_readings(story: Story) -> list[tuple[datetime, dict[str, str]]]:
    """What the fire's cooker, and logs taken in, read from its beginning until it was done."""
    fire = story.fire
    end = story.done_at or fire.begun_at + timedelta(days=MOST_DAYS)
    names = [name for name in (fire.cooker, imported_name(fire)) if name]
    kept = ProbeReading.objects.filter(
        kitchen=fire.kitchen_id, cooker__in=names, at__gte=fire.begun_at, at__lte=end
    )
    # what was heard before it was recorded and is dated after that is of a clock that had run ahead
    mine = kept.exclude(heard_at__lt=fire.recorded_at, at__gt=fire.recorded_at)
    rows: dict[datetime, dict[str, str]] = {}
    for at, values in mine.order_by("at").values_list("at", "values"):
        # a log and a cooker may have read at one time
        rows[at] = rows[at] | values if at in rows else values
    return list(rows.items())


def build_log(story: Story, rows: Iterable[tuple[datetime, dict[str, Any]]]) -> CookLog:
    """The log of the cook: readings by where each probe was at their time."""
    fire = story.fire
    by_probe: dict[str, list[Placed]] = {}
    for placed in story.placed:
        by_probe.setdefault(placed.probe, []).append(placed)
    readings = []
    for at, values in rows:
        named = {}
        for probe, text in values.items():
            name = AIR if probe == AIR else _name_at(by_probe.get(probe, ()), at)
            if name is not None:
                named[name] = _degrees(text)
        if named:
            readings.append(Reading(at=seconds_of(at), values=named))
    probes = [Probe(id=one.id, piece=one.piece, where=one.where) for one in story.placed]
    return CookLog(
        unit=unit_of(fire.kitchen),
        probes=(*probes, Probe(id=AIR, role="air")),
        readings=tuple(readings),
        instant=tuple(
            InstantReading(
                at=seconds_of(event.at),
                piece=event.data["piece"],
                fahrenheit=Fraction(event.data["fahrenheit"]),
                where=event.data.get("where", ""),
            )
            for event in story.events
            if event.kind == "instant"
        ),
        named=_list_pieces(story),
        phases=tuple(_phases(story)),
        meat=_meat(fire),
        ground=fire.is_ground,
        pull_at=pull_at_of(fire),
        nitrite_ppm=None if fire.nitrite_ppm is None else Fraction(fire.nitrite_ppm),
    )


def _list_pieces(story: Story) -> tuple[str, ...]:
    """Every piece that lies in the fire, and any other that was read in it."""
    lying = [piece.label for piece in story.fire.pieces.select_related("batch").order_by("id")]
    read = [one.piece for one in story.placed]
    read += [event.data["piece"] for event in story.events if event.kind == "instant"]
    return tuple(dict.fromkeys([*lying, *(piece for piece in read if piece)]))


@lru_cache(maxsize=16_384)
def _degrees(text: str) -> Fraction:
    """A reading's text as a number; of thousands of readings most texts are alike."""
    return Fraction(text)


def _meat(fire: Fire) -> Meat:
    return fire.meat  # type: ignore[return-value]


def _name_at(placed: Sequence[Placed], at: datetime) -> str | None:
    if len(placed) == 1:
        # of thousands of readings nearly all: a probe that was never moved
        return placed[0].id if placed[0].start <= at else None
    index = bisect_right(placed, at, key=lambda one: one.start) - 1
    return None if index < 0 else placed[index].id


def _phases(story: Story) -> Iterable[Phase]:
    """Stages until it came out, then rest, hold and cooling; each ends where the next begins."""
    kinds: list[tuple[PhaseKind, datetime]] = [
        (_PHASES.get(story.fire.stages[index]["kind"], "cook"), at) for index, at in story.stages
    ]
    every = [*kinds, *story.after]
    for index, (kind, at) in enumerate(every):
        end = every[index + 1][1] if index + 1 < len(every) else story.done_at
        yield Phase(kind=kind, start=seconds_of(at), end=None if end is None else seconds_of(max(end, at)))
