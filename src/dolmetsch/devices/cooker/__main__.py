"""Run a simulated cooker: ``python -m dolmetsch.devices.cooker --port 7402``."""

import argparse
import asyncio
import contextlib

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
from dolmetsch.devices.cooker.simulated import SimulatedCooker, open_cooker

#: Seconds of real time from one reading to the next.
EVERY = 1.0


class CookerServer:
    """The cooker on a port: everyone who connects hears the same fire."""

    def __init__(self, cooker: SimulatedCooker, *, name: str) -> None:
        self.cooker, self.name = cooker, name
        self.listeners: set[asyncio.StreamWriter] = set()

    async def serve(self, port: int) -> asyncio.Server:
        """Listen on loopback."""
        return await asyncio.start_server(self._talk, "127.0.0.1", port, limit=MAX_LINE)

    async def burn(self) -> None:
        """Go on for ever, and say what is read."""
        while True:
            await asyncio.sleep(EVERY)
            reading = self.cooker.go_on(EVERY * self.cooker.speed)
            if self.cooker.is_silent():
                continue
            line = "#?&R 12:99" if self.cooker.is_rubbish() else write_reading(reading)
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
            return [self.cooker.do(words)]
        try:
            missed: list[CookerReading] = self.cooker.list_since(read_time(" ".join(words[1:])))
        except RubbishError:
            return ["NO that is not a time"]
        return [*(write_reading(one) for one in missed), "OK"]


async def _run(name: str, port: int, seed: int | None) -> None:
    server = CookerServer(open_cooker(seed), name=name)
    async with await server.serve(port) as listening:
        await asyncio.gather(server.burn(), listening.serve_forever())


def main() -> None:
    """Run a cooker until it is stopped."""
    parser = argparse.ArgumentParser(description="A simulated cooker.")
    parser.add_argument("--name", default="drum")
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--seed", type=int, default=None)
    options = parser.parse_args()
    with contextlib.suppress(KeyboardInterrupt):
        asyncio.run(_run(options.name, options.port, options.seed))


if __name__ == "__main__":
    main()
