"""Chambers that are heard: their air, and what their load cells weigh."""

from collections.abc import Iterator, Sequence
from datetime import datetime, timedelta
from fractions import Fraction
from typing import Final

from django.conf import settings
from django.utils import timezone

from dolmetsch.core.drying.air import time_outside
from dolmetsch.core.drying.drying_log import ChamberReading, HookWeighing
from dolmetsch.core.heat.thinning import thin
from dolmetsch.core.numbers.moment import HOUR_SECONDS
from dolmetsch.core.numbers.temperature import TemperatureUnit, from_fahrenheit
from dolmetsch.core.reference.drying import AIR_COLDEST, AIR_DRIEST, AIR_SOURCE, AIR_WARMEST, AIR_WETTEST
from dolmetsch.devices.cooker.lines import AIR, HUMIDITY, cell
from dolmetsch.server.configured import list_names
from dolmetsch.server.fires.models import ProbeReading
from dolmetsch.server.fires.story import moment_of, seconds_of, unit_of
from dolmetsch.server.hooks import schemas as out
from dolmetsch.server.hooks.models import Hook
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import print_percent
from dolmetsch.server.quantities.temperatures import print_degrees

#: Days of the air that are shown, and points drawn of each curve.
DAYS_SHOWN, POINTS = 14, 200
#: A chamber that said nothing for so long is not heard.
HEARD_SECONDS: Final = 1_800
#: A load cell's weight is taken so often: between two, nothing tells a loss from the scale's own wander.
CELL_EVERY: Final = timedelta(hours=6)

Rows = Sequence[tuple[datetime, dict[str, str]]]


def chamber_names(kitchen: Kitchen) -> list[str]:
    """The chambers of ``kitchen`` that are heard, as configured."""
    return list_names(settings.CHAMBERS, kitchen.slug)


def list_rows(kitchen: Kitchen, chamber: str, *, since: datetime, until: datetime | None = None) -> Rows:
    """What was kept of a chamber, in order; nothing of one that is not heard."""
    if chamber not in chamber_names(kitchen):
        return []
    kept = ProbeReading.objects.filter(kitchen=kitchen, cooker=chamber, at__gte=since)
    if until is not None:
        kept = kept.filter(at__lte=until)
    return list(kept.order_by("at").values_list("at", "values"))


def list_air(rows: Rows) -> Iterator[ChamberReading]:
    """The air of a chamber for a drying log, the first reading of each hour."""
    last = None
    for at, values in rows:
        hour = at.replace(minute=0, second=0, microsecond=0)
        if hour != last and (AIR in values or HUMIDITY in values):
            last = hour
            humidity = values.get(HUMIDITY)
            yield ChamberReading(
                at=seconds_of(at),
                fahrenheit=Fraction(values[AIR]) if AIR in values else None,
                humidity=None if humidity is None else Fraction(humidity) / 100,
            )


def list_cell(hook: Hook, rows: Rows) -> Iterator[HookWeighing]:
    """What the hook's load cell weighed, every six hours, and last."""
    if not hook.cell:
        return
    weights = [(at, values[cell(hook.cell)]) for at, values in rows if cell(hook.cell) in values]
    taken: datetime | None = None
    for index, (at, grams) in enumerate(weights):
        if taken is None or at - taken >= CELL_EVERY or index == len(weights) - 1:
            if Fraction(grams) > 0:
                yield HookWeighing(at=seconds_of(at), grams=Fraction(grams))
            taken = at


def show_chambers(kitchen: Kitchen, *, now: datetime) -> list[out.HeardOut]:
    """The chambers that are heard, with their air of the last days."""
    return [_show(kitchen, name, now=now) for name in chamber_names(kitchen)]


def _show(kitchen: Kitchen, name: str, *, now: datetime) -> out.HeardOut:
    unit = unit_of(kitchen)
    latest = ProbeReading.last_heard(kitchen.pk, name)
    # by the chamber's own clock, which a simulated one may have ahead of ours
    end = now if latest is None else max(now, latest.at)
    rows = list_rows(kitchen, name, since=end - timedelta(days=DAYS_SHOWN))
    temps = [(seconds_of(at), Fraction(values[AIR])) for at, values in rows if AIR in values]
    wets = [(seconds_of(at), Fraction(values[HUMIDITY]) / 100) for at, values in rows if HUMIDITY in values]
    is_heard = latest is not None and timezone.now() - latest.heard_at < timedelta(seconds=HEARD_SECONDS)
    return out.HeardOut(
        name=name,
        is_heard=is_heard,
        temp=print_degrees(temps[-1][1], unit) if temps else None,
        humidity=print_percent(wets[-1][1]) if wets else None,
        cells=sorted({key[1:] for key in (latest.values if latest else {}) if key.startswith("w")}),
        days=DAYS_SHOWN,
        temps=_draw([(at, from_fahrenheit(value, unit)) for at, value in temps]),
        humidities=_draw([(at, value * 100) for at, value in wets]),
        outside=[
            *_say_outside(temps, AIR_COLDEST, AIR_WARMEST, unit=unit),
            *_say_outside(wets, AIR_DRIEST, AIR_WETTEST, unit=None),
        ],
        source=AIR_SOURCE,
    )


def _draw(curve: Sequence[tuple[Fraction, Fraction]]) -> list[out.AirPointOut]:
    thinned = thin([(float(at), float(value)) for at, value in curve], most=POINTS)
    return [out.AirPointOut(at=moment_of(Fraction(at)), value=round(value, 1)) for at, value in thinned]


def _say_outside(
    curve: Sequence[tuple[Fraction, Fraction]],
    lowest: Fraction,
    highest: Fraction,
    *,
    unit: TemperatureUnit | None,
) -> Iterator[str]:
    found = time_outside(curve, lowest=lowest, highest=highest)
    for seconds, word, mark in ((found.under, "under", lowest), (found.over, "over", highest)):
        if seconds:
            hours = round(float(seconds / HOUR_SECONDS), 1)
            what = "Humidity" if unit is None else "Air"
            limit = f"{mark * 100} %" if unit is None else f"{print_degrees(mark, unit)} °{unit}"
            yield f"{what} {word} {limit} for {hours:g} h."
