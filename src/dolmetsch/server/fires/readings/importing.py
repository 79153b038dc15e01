"""Bringing in the log of any logger, or a cook log document: looked over with nothing written, then kept."""

import json
import re
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from fractions import Fraction
from typing import Final
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from django.utils import timezone

from dolmetsch.core.documents.cook_reading import read_cook
from dolmetsch.core.documents.strict import parse
from dolmetsch.core.errors import DocumentError
from dolmetsch.core.heat.cook_log import CookLog
from dolmetsch.core.heat.logger_table import LoggerReadings, TableMatch, read_logger
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.temperature import from_fahrenheit
from dolmetsch.devices.cooker.lines import AIR, MOST_PROBES
from dolmetsch.server.fires import schemas as out
from dolmetsch.server.fires.models import Fire, FireEvent, ProbeReading
from dolmetsch.server.fires.story import (
    MOST_DAYS,
    Story,
    clock_of,
    imported_name,
    moment_of,
    read_story,
    unit_of,
)
from dolmetsch.server.problems import DomainError, FieldProblem, refuse_fields
from dolmetsch.server.quantities.lengths import WORD_LENGTH
from dolmetsch.server.tables.reading import read_table
from dolmetsch.server.writing.once import Write, keep_once

SAMPLE: Final = 4
FAULTS_SHOWN: Final = 50
#: Readings are kept as often as a cooker's are.
KEPT_EVERY: Final = timedelta(seconds=10)
_TIME_WORDS: Final = re.compile(r"time|date|zeit|stamp|at$", re.IGNORECASE)
_AIR_WORDS: Final = re.compile(r"air|ambient|pit|grill|oven|chamber|smoker", re.IGNORECASE)


@dataclass(frozen=True, slots=True, kw_only=True)
class Log:
    """An uploaded log as a table; ``document``: the cook log it came as, if it was one."""

    name: str
    heads: list[str]
    rows: list[tuple[int, list[str]]]
    document: CookLog | None


def read_log(name: str, content: bytes) -> Log:
    """The log in an uploaded file: CSV, XLSX, or a cook log document.

    Raises:
        DomainError: bad_file, too_large.
    """
    if content.lstrip()[:1] != b"{":
        table = read_table(name, content)
        rows = [(int(row[0]), [str(cell) for cell in row[1:]]) for row in table.rows]
        return Log(name=name, heads=table.heads, rows=rows, document=None)
    try:
        log = read_cook(parse(content)).log
    except DocumentError as error:
        raise DomainError("bad_file", 422, "Not a log", f"“{name}”: {error}") from None
    heads = ["time", *(probe.id for probe in log.probes)]
    rows = [
        (
            number,
            [
                moment_of(reading.at).isoformat(),
                *(
                    fixed(from_fahrenheit(reading.values[probe.id], log.unit), 4)
                    if probe.id in reading.values
                    else ""
                    for probe in log.probes
                ),
            ],
        )
        for number, reading in enumerate(log.readings, start=1)
    ]
    return Log(name=name, heads=heads, rows=rows, document=log)


def look_at(fire: Fire, log: Log, match: out.LogMatchIn | None) -> out.LogPreviewOut:
    """What taking in ``log`` by ``match`` (None: as guessed) would do; nothing is written."""
    match = match or guess_match(fire, log)
    problems = list(_find_problems(fire, log, match))
    read = LoggerReadings() if problems else _read(log, match)
    story = read_story(fire)
    inside = _within(story, read)
    notes = list(read.notes)
    if len(inside) < len(read.readings):
        said = f"{len(read.readings) - len(inside)} readings lie outside of this fire and are left out"
        notes.append(f"{said}: is the time zone right?" if not inside else f"{said}.")
    if read.asks_unit:
        other = "°C" if match.unit == "F" else "°F"
        notes.append(f"Nothing like a fire in °{match.unit}: was the log in {other}?")
    return out.LogPreviewOut(
        heads=log.heads,
        first=[cells for _, cells in log.rows[:SAMPLE]],
        rows=len(log.rows),
        match=match,
        problems=problems,
        readings=len(inside),
        first_at=inside[0][0] if inside else None,
        last_at=inside[-1][0] if inside else None,
        faults=[f"row {one.row}: {one.message}" for one in read.faults[:FAULTS_SHOWN]],
        faulty=len(read.faults),
        notes=notes,
        asks_unit=read.asks_unit,
    )


def guess_match(fire: Fire, log: Log) -> out.LogMatchIn:
    """The likely match by the words of the heads: a time, the air, and probes by their numbers."""
    unit = log.document.unit if log.document else unit_of(fire.kitchen)
    time = next((at for at, head in enumerate(log.heads) if _TIME_WORDS.search(head)), 0)
    columns = {}
    free = iter(range(1, MOST_PROBES + 1))
    for at, head in enumerate(log.heads):
        if at == time or all(not cells[at].strip() for _, cells in log.rows[:50]):
            continue
        columns[str(at)] = AIR if _AIR_WORDS.search(head) else str(next(free, ""))
    return out.LogMatchIn(
        time=time,
        columns=columns,
        unit=unit,
        zone=timezone.get_current_timezone_name(),
        day_first=unit == "C",
    )


def _find_problems(fire: Fire, log: Log, match: out.LogMatchIn) -> Iterator[FieldProblem]:
    wide = len(log.heads)
    if match.time >= wide:
        yield FieldProblem(path="time", code="unknown", message="There is no such column.")
    pieces = {piece.label for piece in fire.pieces.select_related("batch")}
    probes = [probe for probe in match.columns.values() if probe]
    for column, probe in match.columns.items():
        at = f"columns.{column}"
        if not column.isdecimal() or int(column) >= wide:
            yield FieldProblem(path=at, code="unknown", message="There is no such column.")
        elif probe and probes.count(probe) > 1:
            yield FieldProblem(path=at, code="twice", message="Two columns cannot be one probe.")
        elif probe and probe != AIR and not _is_probe(probe):
            yield FieldProblem(path=at, code="unknown", message="Choose air or a probe from 1 to 8.")
    if not probes:
        yield FieldProblem(path="columns", code="missing", message="Say which column is which probe.")
    for probe, piece in match.places.items():
        if not _is_probe(probe) or piece not in pieces:
            said = "Choose a piece of this fire."
            yield FieldProblem(path=f"places.{probe}", code="unknown", message=said)
    try:
        ZoneInfo(match.zone)
    except (ZoneInfoNotFoundError, ValueError, OSError):
        yield FieldProblem(path="zone", code="unknown", message=f"There is no time zone “{match.zone}”.")


def _is_probe(probe: str) -> bool:
    return probe in {str(number) for number in range(1, MOST_PROBES + 1)}


def _read(log: Log, match: out.LogMatchIn) -> LoggerReadings:
    return read_logger(
        log.rows,
        TableMatch(
            time=match.time,
            probes={int(column): probe for column, probe in match.columns.items() if probe},
            unit=match.unit,
            zone=ZoneInfo(match.zone),
            is_day_first=match.day_first,
        ),
    )


def _within(story: Story, read: LoggerReadings) -> list[tuple[datetime, dict[str, Fraction]]]:
    """The readings from its beginning until it was done, or now."""
    fire = story.fire
    end = story.done_at or min(clock_of(fire), fire.begun_at + timedelta(days=MOST_DAYS))
    return [one for one in read.readings if fire.begun_at <= one[0] <= end]


def take_in(write: Write, fire: Fire, log: Log, match: out.LogMatchIn) -> FireEvent:
    """Keep the readings of ``log`` within ``fire``; once, and a second time adds none.

    Raises:
        DomainError: bad_fields, key_reused, no_readings.
    """

    def take() -> FireEvent:
        problems = list(_find_problems(fire, log, match))
        if problems:
            raise refuse_fields(problems)
        story = read_story(fire)
        inside = _within(story, _read(log, match))
        if not inside:
            said = "None of its readings lies within this fire: look at time zone, day and month."
            raise DomainError("no_readings", 422, "Nothing to take in", said)
        kept: list[ProbeReading] = []
        for at, values in inside:
            if not kept or at - kept[-1].at >= KEPT_EVERY:
                kept.append(
                    ProbeReading(
                        kitchen=write.kitchen,
                        cooker=imported_name(fire),
                        at=at,
                        values={probe: fixed(value, 2) for probe, value in values.items()},
                        heard_at=write.now,
                    )
                )
        ProbeReading.objects.bulk_create(kept, ignore_conflicts=True, batch_size=2_000)
        _place_probes(write, fire, match)
        missed = _take_instants(write, fire, log, story)
        text = f"{log.name[:60]}: {len(kept)} readings{missed}"
        return FireEvent.objects.create(
            fire=fire, at=inside[-1][0], kind="import", data={"text": text}, **write.stamp
        )

    return keep_once(write, FireEvent, take)


def _place_probes(write: Write, fire: Fire, match: out.LogMatchIn) -> None:
    for probe, piece in match.places.items():
        FireEvent.objects.create(
            fire=fire,
            at=fire.begun_at,
            kind="probe",
            data={"probe": probe, "piece": piece, "where": ""},
            **{**write.stamp, "key": uuid.uuid5(write.key, f"place {probe}")},
        )


def _take_instants(write: Write, fire: Fire, log: Log, story: Story) -> str:
    """Keep what a cook log document read by hand; what was left out, in words."""
    if log.document is None:
        return ""
    labels = [piece.label for piece in fire.pieces.select_related("batch").order_by("id")]
    marks = {label.split()[-1]: label for label in labels}
    missed = 0
    for index, one in enumerate(log.document.instant):
        piece = one.piece if one.piece in labels else marks.get(one.piece)
        at = moment_of(one.at)
        if piece is None or not fire.begun_at <= at <= clock_of(fire):
            missed += 1
            continue
        FireEvent.objects.create(
            fire=fire,
            at=at,
            kind="instant",
            data={
                "piece": piece,
                "fahrenheit": str(Fraction(one.fahrenheit)),
                "where": one.where[:WORD_LENGTH],
            },
            **{**write.stamp, "key": uuid.uuid5(write.key, f"instant {index}")},
        )
    return f", {missed} instant readings left out" if missed else ""


def parse_match(text: str) -> out.LogMatchIn | None:
    """The match that came beside a file; empty: none.

    Raises:
        DomainError: bad_fields.
    """
    if not text:
        return None
    try:
        return out.LogMatchIn.model_validate(json.loads(text))
    except ValueError:
        raise refuse_fields(
            [FieldProblem(path="match", code="unreadable", message="The match cannot be read.")]
        ) from None
