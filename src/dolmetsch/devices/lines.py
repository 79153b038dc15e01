"""The scale's line protocol, ``scale-lines/1``: text lines of UTF-8, each ended by a line feed.

From the scale, several times a second::

    SCALE 1 bench step=5 max=15000 simulated     once, on connecting: name, step and most in grams
    W 2595.0 g steady tare=190.0                  net weight, unit (g, kg, lb, oz), steady or moving, tare
    OVER                                          more on it than it can weigh

To the scale: ``TARE`` (what lies on it counts as nothing), ``CLEAR`` (no tare); a simulated one also takes
``PUT 2595``, ``TAKE``, ``SILENT 5`` and ``RUBBISH 5`` (for so many seconds). It answers ``OK`` or ``NO why``.
"""

import re
from dataclasses import dataclass
from decimal import Decimal
from typing import Final

VERSION: Final = 1
#: A line longer than this is no line of a scale.
MAX_LINE: Final = 200
GRAMS_PER: Final = {
    "g": Decimal(1),
    "kg": Decimal(1000),
    "lb": Decimal("453.59237"),
    "oz": Decimal("28.349523125"),
}
_WEIGHT = re.compile(
    r"W (-?[0-9]{1,7}(?:\.[0-9]{1,4})?) (g|kg|lb|oz) (steady|moving)(?: tare=([0-9]{1,7}(?:\.[0-9]{1,4})?))?"
)
_HELLO = re.compile(r"SCALE ([0-9]+) (\S+) step=([0-9.]+) max=([0-9.]+)( simulated)?")


class RubbishError(ValueError):
    """A line that is none of the protocol's."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Hello:
    """What a scale says of itself: its name, the step it shows and the most it weighs, in grams."""

    name: str
    step: Decimal
    most: Decimal
    is_simulated: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class ScaleReading:
    """One reading, in grams; ``is_over``: more lies on it than it can weigh, and the weight is none."""

    net: Decimal
    tare: Decimal
    is_steady: bool
    is_over: bool = False


def read_line(line: str) -> Hello | ScaleReading | None:
    """A line of a scale; None for an answer to a command.

    Raises:
        RubbishError: what is none of the protocol's lines.
    """
    bare = line.strip()
    if bare == "OVER":
        return ScaleReading(net=Decimal(0), tare=Decimal(0), is_steady=False, is_over=True)
    if bare == "OK" or bare.startswith("NO "):
        return None
    if (match := _WEIGHT.fullmatch(bare)) is not None:
        each = GRAMS_PER[match[2]]
        tare = Decimal(match[4] or 0) * each
        return ScaleReading(net=Decimal(match[1]) * each, tare=tare, is_steady=match[3] == "steady")
    if (hello := _HELLO.fullmatch(bare)) is not None and int(hello[1]) == VERSION:
        return Hello(
            name=hello[2], step=Decimal(hello[3]), most=Decimal(hello[4]), is_simulated=hello[5] is not None
        )
    raise RubbishError(bare[:60])


def write_reading(reading: ScaleReading) -> str:
    """A reading as a line, in grams."""
    if reading.is_over:
        return "OVER"
    steady = "steady" if reading.is_steady else "moving"
    return f"W {reading.net:.1f} g {steady} tare={reading.tare:.1f}"


def write_hello(hello: Hello) -> str:
    """The first line of a scale."""
    text = f"SCALE {VERSION} {hello.name} step={hello.step} max={hello.most}"
    return f"{text} simulated" if hello.is_simulated else text
