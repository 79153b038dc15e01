"""The table of any logger as readings: times in whatever form, temperatures in either unit, rubbish named.

Rows may come in any order and a clock may jump; what cannot be read is left out and said by its row.
"""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta, tzinfo
from fractions import Fraction
from itertools import pairwise
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS
from dolmetsch.core.numbers.temperature import COLDEST_READ, HOTTEST_READ, TemperatureUnit, to_fahrenheit

#: What loggers write where nothing was read.
_NOTHING: Final = frozenset({"", "-", "--", "---", "n/a", "na", "nan", "null", "none", "open", "err"})
_NUMBER: Final = re.compile(r"(-?\d+(?:[.,]\d+)?)\s*(?:°?\s*[FC])?", re.IGNORECASE)
_EPOCH: Final = re.compile(r"\d{10}(?:\d{3})?(?:\.\d+)?")
_ISO: Final = re.compile(r"\d{4}-\d{1,2}-\d{1,2}")
#: Day, month and year in an order that is asked, then a time of day, with or without AM and PM.
_DATED: Final = re.compile(
    r"(\d{1,4})[./-](\d{1,2})[./-](\d{2,4})[ T,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*([AaPp][Mm])?"
)
#: Meat that is cooked and never comes over so many °F, or an air that never does, was logged in °C.
_COOL_FOR_F: Final = 120
_HOT_FOR_C: Final = 260


@dataclass(frozen=True, slots=True, kw_only=True)
class TableMatch:
    """How a table is to be read: which column is the time, and which probe each other column is.

    ``zone``: of times that name none. ``is_day_first``: 03/04 is the third of April.
    """

    time: int
    probes: Mapping[int, str]
    unit: TemperatureUnit
    zone: tzinfo
    is_day_first: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class FaultyReading:
    """A row, or a cell of it, that cannot be read."""

    row: int
    message: str


@dataclass(slots=True, kw_only=True)
class LoggerReadings:
    """What a table holds: °F by probe at times in order, what was left out, and what is odd."""

    readings: list[tuple[datetime, dict[str, Fraction]]] = field(default_factory=list)
    faults: list[FaultyReading] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    asks_unit: bool = False


def read_moment(text: str, *, zone: tzinfo, is_day_first: bool) -> datetime | None:
    """The time in ``text``, in UTC; None where it is none."""
    text = text.strip()
    try:
        if _EPOCH.fullmatch(text):
            seconds = Fraction(text)
            return datetime.fromtimestamp(float(seconds / 1000 if seconds >= 10**12 else seconds), tz=UTC)
        if _ISO.match(text):
            found = datetime.fromisoformat(text.replace("Z", "+00:00"))
        else:
            dated = _DATED.fullmatch(text)
            if dated is None:
                return None
            found = _date_of(dated, is_day_first=is_day_first)
        return (found if found.tzinfo else found.replace(tzinfo=zone)).astimezone(UTC)
    except (ValueError, OverflowError):
        return None


def _date_of(dated: "re.Match[str]", *, is_day_first: bool) -> datetime:
    first, second, third = (int(dated[part]) for part in (1, 2, 3))
    if len(dated[1]) == 4:
        year, month, day = first, second, third
    else:
        # with dots the day is first everywhere
        is_day_first = is_day_first or first > 12 or "." in dated[0].split()[0]
        day, month = (first, second) if is_day_first else (second, first)
        year = third + 2000 if third < 100 else third
    hour = int(dated[4])
    if dated[7]:
        hour = hour % 12 + (12 if dated[7].lower() == "pm" else 0)
    return datetime(year, month, day, hour, int(dated[5]), int(dated[6] or 0))  # noqa: DTZ001 (the zone is asked)


def read_logger(rows: Iterable[tuple[int, Sequence[str]]], match: TableMatch) -> LoggerReadings:
    """The readings of a table's ``rows``, each with its number in the file."""
    found = LoggerReadings()
    taken: dict[datetime, dict[str, Fraction]] = {}
    numbers: dict[datetime, int] = {}
    order: list[tuple[int, datetime]] = []
    for number, cells in rows:
        at = read_moment(cells[match.time], zone=match.zone, is_day_first=match.is_day_first)
        if at is None:
            found.faults.append(FaultyReading(row=number, message=f"“{cells[match.time]}” is not a time"))
            continue
        if at in taken:
            said = f"the same time as in row {numbers[at]}; that one counts"
            found.faults.append(FaultyReading(row=number, message=said))
            continue
        values = dict(_read_cells(number, cells, match, found.faults))
        if values:
            taken[at], numbers[at] = values, number
            order.append((number, at))
    found.readings = sorted(taken.items(), key=lambda one: one[0])
    found.notes = list(_find_jumps(order))
    found.asks_unit = _is_odd_unit(found.readings, match.unit)
    return found


def _read_cells(
    number: int, cells: Sequence[str], match: TableMatch, faults: list[FaultyReading]
) -> Iterable[tuple[str, Fraction]]:
    for column, probe in match.probes.items():
        text = cells[column].strip()
        if text.casefold() in _NOTHING:
            continue
        read = _NUMBER.fullmatch(text)
        if read is None:
            faults.append(FaultyReading(row=number, message=f"“{text[:40]}” is not a temperature"))
            continue
        value = to_fahrenheit(Fraction(read[1].replace(",", ".")), match.unit)
        if COLDEST_READ <= value <= HOTTEST_READ:
            yield probe, value
        else:
            faults.append(FaultyReading(row=number, message=f"{text} is not what a probe in a fire reads"))


def _find_jumps(order: Sequence[tuple[int, datetime]]) -> Iterable[str]:
    """Where the clock ran back, or left a gap that no probe's last value spans."""
    back = [number for (_, one), (number, other) in pairwise(order) if other < one]
    if back:
        rows = ", ".join(map(str, back[:5])) + (" and more" if len(back) > 5 else "")
        yield f"The clock goes back at row {rows}; readings are put in order of time."
    times = sorted(at for _, at in order)
    gaps = [(one, other) for one, other in pairwise(times) if other - one > timedelta(seconds=STALE_SECONDS)]
    if gaps:
        longest = max(other - one for one, other in gaps)
        yield f"{len(gaps)} gaps over 10 minutes, the longest of {longest.total_seconds() // 60:.0f} min."


def _is_odd_unit(readings: Sequence[tuple[datetime, Mapping[str, Fraction]]], unit: TemperatureUnit) -> bool:
    """Whether the highest value makes the other unit likelier."""
    highest = max((value for _, values in readings for value in values.values()), default=None)
    if highest is None:
        return False
    return highest < _COOL_FOR_F if unit == "F" else highest > to_fahrenheit(Fraction(_HOT_FOR_C), "C")
