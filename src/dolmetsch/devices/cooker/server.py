"""A simulated device on a port: everyone who connects hears the same readings."""

import asyncio
import contextlib
from datetime import datetime
from typing import Final, Protocol

from dolmetsch.devices.cooker.lines import (
    MAX_LINE,
    MOST_PROBES,
    CookerHello,
    CookerReading,
    RubbishError,
    read_time,
    write_hello,
    write_reading,
)

#: Seconds of real time from one reading to the next.
EVERY: Final = 1.0


class Simulated(Protocol):
    """A cooker or a chamber that goes on by itself and takes commands."""

    speed: float

    def go_on(self, seconds: float) -> CookerReading:
        """Let so much time of its own pass; what is read then."""

    def is_silent(self) -> bool:
        """Whether it says nothing now."""

    def is_rubbish(self) -> bool:
        """Whether it sends rubbish now."""

    def list_since(self, after: datetime) -> list[CookerReading]:
        """What it remembers of the time after ``after``."""

    def do(self, words: list[str]) -> str:
        """Do a command; its answer."""


class DeviceServer:
    """A device on a port of loopback."""

    def __init__(self, device: Simulated, *, name: str) -> None:
        self.device, self.name = device, name
        self.listeners: set[asyncio.StreamWriter] = set()

    async def serve(self, port: int) -> asyncio.Server:
        """Listen on loopback."""
        return await asyncio.start_server(self._talk, "127.0.0.1", port, limit=MAX_LINE)

    async def run(self) -> None:
        """Go on for ever, and say what is read."""
        while True:
            await asyncio.sleep(EVERY)
            reading = self.device.go_on(EVERY * self.device.speed)
            if self.device.is_silent():
                continue
            line = "#?&R 12:99" if self.device.is_rubbish() else write_reading(reading)
            for writer in list(self.listeners):
                with contextlib.suppress(ConnectionError):
                    writer.write(f"{line}\n".encode())

    async def _talk(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        hello = CookerHello(name=self.name, probes=MOST_PROBES, is_simulated=True)
        writer.write(f"{write_hello(hello)}\n".encode())
        self.listeners.add(writer)
        try:
            while line := await reader.readline():
                for said in self._answer(line.decode("utf-8", "replace").split()):
                    writer.write(f"{said}\n".encode())
                await writer.drain()
        except (ConnectionError, ValueError):
            pass
        finally:
            self.listeners.discard(writer)
            writer.close()

    def _answer(self, words: list[str]) -> list[str]:
        if words[:1] != ["SINCE"]:
            return [self.device.do(words)]
        try:
            missed: list[CookerReading] = self.device.list_since(read_time(" ".join(words[1:])))
        except RubbishError:
            return ["NO that is not a time"]
        return [*(write_reading(one) for one in missed), "OK"]


async def serve(device: Simulated, name: str, port: int) -> None:
    """Let ``device`` run on ``port`` until it is stopped."""
    server = DeviceServer(device, name=name)
    async with await server.serve(port) as listening:
        await asyncio.gather(server.run(), listening.serve_forever())
