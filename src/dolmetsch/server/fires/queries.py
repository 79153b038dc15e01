"""Reads: fires, cookers."""

from datetime import timedelta
from fractions import Fraction
from typing import Final

from django.conf import settings
from django.utils import timezone

from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.core.reference.programs import PROGRAMS, PROGRAMS_SOURCE, Program
from dolmetsch.devices.cooker.lines import AIR
from dolmetsch.devices.cooker.source import COOKER_SOURCES, CookerSource
from dolmetsch.server.configured import read_configured
from dolmetsch.server.fires import schemas as out
from dolmetsch.server.fires.models import Fire, ProbeReading
from dolmetsch.server.fires.story import Story, read_story, unit_of
from dolmetsch.server.fires.words import print_degrees
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError, not_found

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


def read_fires(kitchen: Kitchen) -> out.FiresOut:
    """Fires and cookers."""
    burning = [read_story(fire) for fire in list_open(kitchen)]
    done = Fire.objects.filter(kitchen=kitchen, events__kind="done").order_by("-id").distinct()[:DONE_SHOWN]
    in_use = {story.fire.cooker: story.fire.pk for story in reversed(burning) if story.out_at is None}
    return out.FiresOut(
        unit=unit_of(kitchen),
        burning=[_show_fire(story) for story in burning],
        done=[_show_fire(read_story(fire)) for fire in done],
        programs=[_show_program(program, unit_of(kitchen)) for program in PROGRAMS],
        programs_source=PROGRAMS_SOURCE,
        cookers=[show_cooker(kitchen, name, in_use.get(name)) for name in cooker_names(kitchen)],
    )


def _show_fire(story: Story) -> out.FireOut:
    fire = story.fire
    return out.FireOut(
        id=fire.pk,
        name=fire.name,
        cooker=fire.cooker,
        begun_at=fire.begun_at,
        done_at=story.done_at,
        pieces=[piece.label for piece in fire.pieces.select_related("batch").order_by("id")],
    )


def _show_program(program: Program, unit: TemperatureUnit) -> out.ProgramOut:
    def degrees(fahrenheit: int | None) -> str:
        return "" if fahrenheit is None else print_degrees(Fraction(fahrenheit), unit)

    stages = [
        out.StageIn(
            kind=stage.kind,
            air=degrees(stage.air),
            minutes="" if stage.minutes is None else str(stage.minutes),
            inside=degrees(stage.inside),
        )
        for stage in program.stages
    ]
    return out.ProgramOut(name=program.name, stages=stages, pull_at=degrees(program.pull_at))


def cooker_names(kitchen: Kitchen) -> list[str]:
    """The cookers of ``kitchen``, as configured."""
    return [one.name for one in read_configured(settings.COOKERS) if one.kitchen == kitchen.slug]


def show_cooker(kitchen: Kitchen, name: str, fire: int | None) -> out.CookerOut:
    """A cooker with what it read last."""
    row = ProbeReading.objects.filter(kitchen=kitchen, cooker=name).order_by("-id").first()
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
    for one in read_configured(settings.COOKERS):
        if (one.kitchen, one.name) == (kitchen.slug, name) and one.kind in COOKER_SOURCES:
            try:
                return COOKER_SOURCES[one.kind](one.address)
            except OSError:
                said = f"The cooker “{name}” does not answer. Readings can be typed in meanwhile."
                raise DomainError("cooker_away", 503, "Cooker away", said) from None
    raise not_found(f"cooker “{name}”")
