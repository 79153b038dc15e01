"""The cooker's line protocol, ``cooker-lines/1``: text lines of UTF-8, each ended by a line feed.

From the cooker::

    COOKER 1 drum probes=4 simulated                     once, on connecting: its name, how many probes
    R 2026-11-26T09:00:10Z air=181.4 1=41.5 2=40.9       a reading: its time, and °F by probe
    OK, NO why                                           a command was done, or why not

A drying chamber speaks the same: ``humidity`` in per cent beside ``air``, and ``w1`` to ``w8`` in grams where
its hooks have load cells.

To the cooker: ``SINCE 2026-11-26T09:00:00Z`` (send again what was read after that time, then go on) and
``GOT 2026-11-26T09:00:10Z`` (all up to that time is kept: it need not be remembered). One without a memory
answers ``NO``. What else a simulated one takes: ``dolmetsch.devices.cooker.simulated``.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Final

VERSION: Final = 1
#: A line longer than this is no line of a cooker.
MAX_LINE: Final = 400
MOST_PROBES: Final = 8
AIR: Final = "air"
HUMIDITY: Final = "humidity"
#: °F that a probe can read; beyond, it is rubbish.
COLDEST, HOTTEST = -40.0, 1000.0
#: Per cent, and grams, beyond which it is rubbish.
MOST_HUMIDITY, HEAVIEST = 100.0, 100_000.0
_HELLO = re.compile(r"COOKER ([0-9]+) (\S{1,40}) probes=([0-9])( simulated)?")
_READING = re.compile(r"R (\S{20,27})((?: (?:air|humidity|w?[1-8])=-?[0-9]{1,6}(?:\.[0-9]{1,3})?)+)")


class RubbishError(ValueError):
    """A line that is none of the protocol's."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CookerHello:
    """What a cooker says of itself."""

    name: str
    probes: int
    is_simulated: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class CookerReading:
    """What was read at a time, as text by name: °F of ``air`` or a probe's number, and what a chamber has."""

    at: datetime
    values: Mapping[str, str]


def read_line(line: str) -> CookerHello | CookerReading | None:
    """A line of a cooker; None for an answer to a command.

    Raises:
        RubbishError: what is none of the protocol's lines, or a temperature that cannot be.
    """
    bare = line.strip()
    if bare == "OK" or bare.startswith("NO "):
        return None
    if (hello := _HELLO.fullmatch(bare)) is not None and int(hello[1]) == VERSION:
        return CookerHello(name=hello[2], probes=int(hello[3]), is_simulated=hello[4] is not None)
    if (match := _READING.fullmatch(bare)) is not None:
        pairs = [one.partition("=") for one in match[2].split()]
        values = {probe: text for probe, _, text in pairs}
        if len(values) == len(pairs) and all(_can_be(*one) for one in values.items()):
            return CookerReading(at=read_time(match[1]), values=values)
    raise RubbishError(bare[:60])


def cell(number: str) -> str:
    """The name of a load cell's weight."""
    return f"w{number}"


def _can_be(name: str, text: str) -> bool:
    if name == HUMIDITY:
        return 0 <= float(text) <= MOST_HUMIDITY
    if name.startswith("w"):
        return 0 <= float(text) <= HEAVIEST
    return COLDEST <= float(text) <= HOTTEST


def read_time(text: str) -> datetime:
    """A time of the protocol.

    Raises:
        RubbishError: it is none, or without an offset.
    """
    try:
        found = datetime.fromisoformat(text)
    except ValueError:
        raise RubbishError(text[:60]) from None
    if found.tzinfo is None:
        raise RubbishError(text[:60])
    return found.astimezone(UTC)


def write_time(at: datetime) -> str:
    """A time of the protocol, to the second."""
    return at.astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%SZ")


def write_reading(reading: CookerReading) -> str:
    """A reading as a line."""
    return " ".join(
        ["R", write_time(reading.at), *(f"{probe}={text}" for probe, text in reading.values.items())]
    )


def write_hello(hello: CookerHello) -> str:
    """The first line of a cooker."""
    text = f"COOKER {VERSION} {hello.name} probes={hello.probes}"
    return f"{text} simulated" if hello.is_simulated else text
