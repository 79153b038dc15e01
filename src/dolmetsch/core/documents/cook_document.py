"""A cook's log as a ``dolmetsch-cook/1`` document, and its readings as plain CSV."""

import csv
import io
from fractions import Fraction
from typing import Final

from dolmetsch.core.documents.cook_reading import FORMAT
from dolmetsch.core.heat.cook_log import CookLog, Phase, Probe, Reading
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.moment import print_moment
from dolmetsch.core.numbers.temperature import TemperatureUnit, from_fahrenheit

#: Degrees that came by way of the other unit are printed to so many places.
_MOST_PLACES: Final = 4


def write_cook_document(log: CookLog) -> dict[str, object]:
    """The document of ``log``; read again it gives the same log, times to the second."""
    unit = log.unit
    # a document has at least one reading: of a fire read by hand, those of no probe at the same times
    by_hand = sorted({one.at for one in log.instant}) if not log.readings else []
    document: dict[str, object] = {
        "format": FORMAT,
        "unit": unit,
        "meat": log.meat,
        "ground": log.ground,
        "probes": [_probe(probe) for probe in log.probes],
        "readings": [
            {
                "at": print_moment(reading.at),
                **{probe: _degrees(value, unit) for probe, value in reading.values.items()},
            }
            for reading in (*log.readings, *(Reading(at=at, values={}) for at in by_hand))
        ],
        "instant": [
            {"at": print_moment(one.at), "piece": one.piece, "temp": _degrees(one.fahrenheit, unit)}
            | ({"where": one.where} if one.where else {})
            for one in log.instant
        ],
        "pieces": None if log.named is None else list(log.named),
        "phases": None if log.phases is None else [_phase(phase) for phase in log.phases],
        "pull_at": None if log.pull_at is None else _degrees(log.pull_at, unit),
        "nitrite_ppm": None if log.nitrite_ppm is None else _plain(log.nitrite_ppm),
    }
    return {key: value for key, value in document.items() if value is not None}


def write_readings_csv(log: CookLog) -> str:
    """Readings as CSV: ``time`` and a column a probe, an empty cell where it read nothing."""
    columns = [probe.id for probe in log.probes]
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["time", *columns])
    for reading in log.readings:
        cells = [
            _degrees(reading.values[probe], log.unit) if probe in reading.values else "" for probe in columns
        ]
        writer.writerow([print_moment(reading.at), *cells])
    return out.getvalue()


def _probe(probe: Probe) -> dict[str, str]:
    facts = {"id": probe.id, "role": probe.role, "piece": probe.piece, "where": probe.where}
    return {key: value for key, value in facts.items() if value}


def _phase(phase: Phase) -> dict[str, str]:
    span = {"kind": phase.kind, "from": print_moment(phase.start)}
    return span if phase.end is None else {**span, "to": print_moment(phase.end)}


def _degrees(fahrenheit: Fraction, unit: TemperatureUnit) -> str:
    return _plain(from_fahrenheit(fahrenheit, unit))


def _plain(value: Fraction) -> str:
    """As few places as it takes, four at the most."""
    text = fixed(value, _MOST_PLACES).rstrip("0").rstrip(".")
    return "0" if text == "-0" else text
