"""How a cooker is reached: one small class for each way. A real logger's own line is another one."""

from collections.abc import Callable, Iterator
from datetime import datetime
from typing import Final, Protocol

from dolmetsch.devices.cooker.lines import MAX_LINE, CookerHello, CookerReading, read_line, write_time
from dolmetsch.devices.sources import LineSocket


class CookerSource(Protocol):
    """A connection to a cooker."""

    def listen(self) -> Iterator[CookerHello | CookerReading | ValueError | None]:
        """What it says, one after another, until the connection ends.

        None where nothing came for a while; a ``ValueError`` (not raised) for what cannot be read.

        Raises:
            OSError: it cannot be reached, or is gone.
        """

    def ask_since(self, at: datetime) -> None:
        """Ask for what was read after ``at`` once more; one without a memory need do nothing."""

    def acknowledge(self, at: datetime) -> None:
        """Say that all up to ``at`` is kept; one without a memory need do nothing."""

    def send(self, command: str) -> None:
        """Send it a command."""

    def close(self) -> None:
        """Release it."""


class LineCooker:
    """A cooker that speaks ``cooker-lines/1`` over TCP, simulated or not."""

    def __init__(self, address: str) -> None:
        self._line = LineSocket(address, most=MAX_LINE)

    def listen(self) -> Iterator[CookerHello | CookerReading | ValueError | None]:
        """See ``CookerSource``."""
        for line in self._line.lines():
            yield line if line is None or isinstance(line, ValueError) else _read(line)

    def ask_since(self, at: datetime) -> None:
        """See ``CookerSource``."""
        self.send(f"SINCE {write_time(at)}")

    def acknowledge(self, at: datetime) -> None:
        """See ``CookerSource``."""
        self.send(f"GOT {write_time(at)}")

    def send(self, command: str) -> None:
        """See ``CookerSource``."""
        self._line.send(command)

    def close(self) -> None:
        """See ``CookerSource``."""
        self._line.close()


def _read(line: bytes) -> CookerHello | CookerReading | ValueError | None:
    try:
        return read_line(line.decode())
    except ValueError as error:
        return error


#: Ways to reach a cooker by the word before its address: ``drum=line:127.0.0.1:7402``.
COOKER_SOURCES: Final[dict[str, Callable[[str], CookerSource]]] = {"line": LineCooker}
