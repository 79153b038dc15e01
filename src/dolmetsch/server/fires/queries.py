"""Reads: fires, cookers."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import asdict
from datetime import timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Any, Final

from django.conf import settings
from django.utils import timezone

from dolmetsch.core.heat.program_course import fits_course
from dolmetsch.core.ledger.course import COURSES, Course
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.core.reference.programs import PROGRAMS, PROGRAMS_SOURCE
from dolmetsch.core.reference.programs import Program as StartProgram
from dolmetsch.devices.cooker.lines import AIR
from dolmetsch.devices.cooker.source import COOKER_SOURCES, CookerSource
from dolmetsch.server.batches.models import BatchWay
from dolmetsch.server.configured import ConfiguredDevice, find_configured, list_names
from dolmetsch.server.fires import schemas as out
from dolmetsch.server.fires.models import Fire, FirePiece, ProbeReading, Program
from dolmetsch.server.fires.of_batch import kinds_of_stages
from dolmetsch.server.fires.story import Story, read_stories, unit_of
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError, not_found
from dolmetsch.server.quantities.temperatures import print_degrees
from dolmetsch.server.writing.kept import latest_by_name

#: Fires lately done that are listed.
DONE_SHOWN: Final = 12
#: A cooker that said nothing for so long is not heard.
HEARD_SECONDS: Final = 30


def get_fire(kitchen: Kitchen, fire_id: int) -> Fire:
    """The fire ``fire_id``.

    Raises:
        DomainError: not_found.
    """
    fire = Fire.objects.filter(kitchen=kitchen, pk=fire_id).first()
    if fire is None:
        raise not_found("such fire")
    fire.kitchen = kitchen
    return fire


def list_open(kitchen: Kitchen) -> list[Fire]:
    """Fires that are not done, the latest first."""
    fires = list(Fire.objects.filter(kitchen=kitchen).exclude(events__kind="done").order_by("-id"))
    for fire in fires:
        fire.kitchen = kitchen
    return fires


def find_last_heard(kitchen: Kitchen) -> list[int | None]:
    """The numbers of the last readings of a kitchen's cookers, and of those of its open fires."""
    names = sorted({*cooker_names(kitchen), *(fire.cooker for fire in list_open(kitchen))} - {""})
    return [ProbeReading.last_id(kitchen.pk, name) for name in names]


def read_fires(kitchen: Kitchen) -> out.FiresOut:
    """Fires and cookers."""
    burning = read_stories(list_open(kitchen))
    done = Fire.objects.filter(kitchen=kitchen, events__kind="done").order_by("-id").distinct()[:DONE_SHOWN]
    in_use = {story.fire.cooker: story.fire.pk for story in reversed(burning) if story.out_at is None}
    return out.FiresOut(
        unit=unit_of(kitchen),
        burning=_show_fires(burning),
        done=_show_fires(read_stories(list(done))),
        programs=list(_show_programs(kitchen)),
        methods=_list_methods(kitchen),
        programs_source=PROGRAMS_SOURCE,
        cookers=[show_cooker(kitchen, name, in_use.get(name)) for name in cooker_names(kitchen)],
    )


def _show_fires(stories: Sequence[Story]) -> list[out.FireOut]:
    pieces: dict[int, list[str]] = {story.fire.pk: [] for story in stories}
    for piece in FirePiece.objects.filter(fire__in=pieces).select_related("batch").order_by("id"):
        pieces[piece.fire_id].append(piece.label)
    return [
        out.FireOut(
            id=story.fire.pk,
            name=story.fire.name,
            cooker=story.fire.cooker,
            begun_at=story.fire.begun_at,
            done_at=story.done_at,
            pieces=pieces[story.fire.pk],
        )
        for story in stories
    ]


def list_programs(kitchen: Kitchen) -> list[Program]:
    """The latest version of each program of the kitchen's own that is not put away."""
    return latest_by_name(Program.objects.filter(kitchen=kitchen).order_by("name", "version"))


def _list_methods(kitchen: Kitchen) -> dict[str, str]:
    chosen = BatchWay.objects.filter(batch__kitchen=kitchen, batch__is_finished=False).order_by("id")
    return dict(chosen.values_list("batch__code", "way__name"))


def _show_programs(kitchen: Kitchen) -> Iterator[out.ProgramOut]:
    """The kitchen's own, then those of common practice that it has none of by that name."""
    unit = unit_of(kitchen)
    own = list_programs(kitchen)
    for program in own:
        yield out.ProgramOut(
            name=program.name,
            version=program.version,
            stages=[_show_stage(stage, unit) for stage in program.stages],
            pull_at=_degrees(program.pull_at, unit),
            wood=program.wood,
            way=program.way,
            courses=_list_courses(kinds_of_stages(program.stages), program.pull_at),
        )
    names = {same_name(program.name) for program in own}
    yield from (_show_start(one, unit) for one in PROGRAMS if same_name(one.name) not in names)


def _list_courses(kinds: Collection[str], pull_at: Decimal | int | None) -> list[Course]:
    inside = None if pull_at is None else Fraction(pull_at)
    return [course for course in COURSES if fits_course(kinds, inside, course)]


def _degrees(fahrenheit: Decimal | str | int | None, unit: TemperatureUnit) -> str:
    return "" if fahrenheit is None else print_degrees(Fraction(fahrenheit), unit)


def _show_stage(stage: Mapping[str, Any], unit: TemperatureUnit) -> out.StageIn:
    """A stage as it would be typed."""
    return out.StageIn(
        kind=stage["kind"],
        air=_degrees(stage["air"], unit),
        minutes="" if stage["minutes"] is None else str(stage["minutes"]),
        inside=_degrees(stage["inside"], unit),
    )


def _show_start(program: StartProgram, unit: TemperatureUnit) -> out.ProgramOut:
    return out.ProgramOut(
        name=program.name,
        version=None,
        stages=[_show_stage(asdict(stage), unit) for stage in program.stages],
        pull_at=_degrees(program.pull_at, unit),
        wood="",
        way="",
        courses=_list_courses({stage.kind for stage in program.stages}, program.pull_at),
    )


def cooker_names(kitchen: Kitchen) -> list[str]:
    """The cookers of ``kitchen``, as configured."""
    return list_names(settings.COOKERS, kitchen.slug)


def show_cooker(kitchen: Kitchen, name: str, fire: int | None) -> out.CookerOut:
    """A cooker with what it read last."""
    row = ProbeReading.last_heard(kitchen.pk, name)
    unit = unit_of(kitchen)
    values = (
        {} if row is None else {key: print_degrees(Fraction(text), unit) for key, text in row.values.items()}
    )
    is_heard = row is not None and timezone.now() - row.heard_at < timedelta(seconds=HEARD_SECONDS)
    return out.CookerOut(
        name=name,
        air=values.pop(AIR, None) if is_heard else None,
        probes={key: value for key, value in sorted(values.items()) if key != AIR} if is_heard else {},
        at=None if row is None else row.at,
        is_heard=is_heard,
        fire=fire,
    )


def open_cooker(kitchen: Kitchen, name: str) -> CookerSource:
    """A connection to a cooker of ``kitchen``.

    Raises:
        DomainError: not_found, cooker_away.
    """
    one = find_cooker(kitchen, name)
    try:
        return COOKER_SOURCES[one.kind](one.address)
    except OSError:
        said = f"The cooker “{name}” does not answer. Readings can be typed in meanwhile."
        raise DomainError("cooker_away", 503, "Cooker away", said) from None


def find_cooker(kitchen: Kitchen, name: str) -> ConfiguredDevice:
    """The cooker ``name`` of ``kitchen``, as configured.

    Raises:
        DomainError: not_found.
    """
    found = find_configured(settings.COOKERS, kitchen.slug, name, kinds=COOKER_SOURCES)
    if found is None:
        raise not_found(f"cooker “{name}”")
    return found
