"""How a scale is reached: one small class for each way. A real scale's own line is another one."""

import contextlib
import socket
import time
from collections.abc import Callable, Iterator
from typing import Final, Protocol

from dolmetsch.devices.lines import MAX_LINE, Hello, ScaleReading, read_line

#: A line that does not come within this is no reason to hang: the caller looks at its watch again.
PATIENCE: Final = 0.25
#: So long a device may take to read the last line it was sent, in seconds.
CLOSING_SECONDS: Final = 2


class ScaleSource(Protocol):
    """A connection to a scale."""

    def listen(self) -> Iterator[Hello | ScaleReading | ValueError | None]:
        """What it says, one after another, until the connection ends.

        None where nothing came for a while; a ``ValueError`` (not raised) for what cannot be read.

        Raises:
            OSError: it cannot be reached, or is gone.
        """

    def send(self, command: str) -> None:
        """Send it a command: TARE, CLEAR.

        Raises:
            OSError: it is gone.
        """

    def close(self) -> None:
        """Release it."""


class LineSocket:
    """Lines of text over TCP, at most ``most`` bytes each."""

    def __init__(self, address: str, *, most: int) -> None:
        host, _, port = address.rpartition(":")
        self._most = most
        self._socket = socket.create_connection((host, int(port)), timeout=2)
        self._socket.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)

    def lines(self) -> Iterator[bytes | ValueError | None]:
        """Lines as they come; None where nothing came for a while.

        Raises:
            ConnectionError: the device closed the connection.
        """
        self._socket.settimeout(PATIENCE)
        held = b""
        while True:
            try:
                more = self._socket.recv(65_536)
            except TimeoutError:
                yield None
                continue
            if not more:
                raise ConnectionError("the device closed the connection")
            *lines, held = (held + more).split(b"\n")
            yield from lines
            if len(held) > self._most:
                held = b""
                yield ValueError("a line without end")

    def send(self, command: str) -> None:
        """Send a line.

        Raises:
            OSError: the device is gone.
        """
        self._socket.sendall(f"{command}\n".encode())

    def close(self) -> None:
        """Release it, once the device has read what it was sent, or has had its time for it."""
        # A connection closed with lines of the device unread is reset, and a command under way is lost.
        deadline = time.monotonic() + CLOSING_SECONDS
        with contextlib.suppress(OSError):
            self._socket.shutdown(socket.SHUT_WR)
            self._socket.settimeout(CLOSING_SECONDS)
            while self._socket.recv(65_536) and time.monotonic() < deadline:
                pass
        self._socket.close()


class LineScale(LineSocket):
    """A scale that speaks ``scale-lines/1`` over TCP, simulated or not."""

    def __init__(self, address: str) -> None:
        super().__init__(address, most=MAX_LINE)

    def listen(self) -> Iterator[Hello | ScaleReading | ValueError | None]:
        """See ``ScaleSource``."""
        for line in self.lines():
            yield line if line is None or isinstance(line, ValueError) else _read(line)


def _read(line: bytes) -> Hello | ScaleReading | ValueError | None:
    try:
        return read_line(line.decode())
    except ValueError as error:
        return error


#: Ways to reach a scale by the word before its address: ``bench=line:127.0.0.1:7401``.
SOURCES: Final[dict[str, Callable[[str], ScaleSource]]] = {"line": LineScale}
