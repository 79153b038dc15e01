"""A simulated scale: ``python -m dolmetsch.devices.scale --port 7401``.

It settles, drifts, trembles, is tared, overloaded, falls silent and sends rubbish as real ones do.
"""

import argparse
import asyncio
import contextlib
import random
import time
from decimal import Decimal
from math import cos, exp
from typing import Final

from dolmetsch.devices.lines import MAX_LINE, Hello, ScaleReading, write_hello, write_reading

RATE: Final = 10
#: How fast it settles (seconds), how it trembles and drifts at most (grams): a load that lies on a step of
#: 5 g is shown as that step, one that lies between two wavers.
SETTLING: Final = 0.28
NOISE: Final = 0.4
DRIFT: Final = 1.0
#: Steady at the earliest after so many seconds, and once the swing has died down to so many grams.
STEADY_AFTER: Final = 1.0
STEADY_SWING: Final = 1.0


class Platform:
    """What lies on the scale and what it shows. Times in seconds from any one clock; weights in grams."""

    def __init__(self, *, step: Decimal, most: Decimal, seed: int | None = None) -> None:
        self.step, self.most = step, most
        self.tare = Decimal(0)
        self._chance = random.Random(seed)  # noqa: S311 (a scale's trembling, nothing secret)
        self._load = self._before = 0.0
        self._since = float("-inf")
        self._drift = 0.0

    def put(self, grams: float, *, now: float) -> None:
        """Lay ``grams`` on it, in place of what lay there."""
        self._before = self._at(now)
        self._load, self._since = grams, now

    def set_tare(self, *, now: float) -> None:
        """What lies on it counts as nothing from now on."""
        self.tare = self._rounded(self._at(now))

    def clear_tare(self) -> None:
        """No tare."""
        self.tare = Decimal(0)

    def read(self, now: float) -> ScaleReading:
        """What it shows now."""
        shown = self._at(now) + self._tremble()
        if shown > self.most:
            return ScaleReading(net=Decimal(0), tare=self.tare, is_steady=False, is_over=True)
        passed = now - self._since
        swing = abs(self._before - self._load) * exp(-min(passed / SETTLING, 99))
        is_steady = passed > STEADY_AFTER and swing < STEADY_SWING
        return ScaleReading(net=self._rounded(shown) - self.tare, tare=self.tare, is_steady=is_steady)

    def _at(self, now: float) -> float:
        """The load as the spring has it: swinging in from what lay there before."""
        passed = now - self._since
        if passed > 20 * SETTLING:
            return self._load
        return self._load + (self._before - self._load) * exp(-passed / SETTLING) * cos(6 * passed)

    def _tremble(self) -> float:
        self._drift = max(-DRIFT, min(DRIFT, self._drift + self._chance.gauss(0, 0.02)))
        return self._chance.gauss(0, NOISE) + (self._drift if self._load else 0.0)

    def _rounded(self, grams: float) -> Decimal:
        return round(Decimal(grams) / self.step) * self.step


class ScaleServer:
    """The scale on a port: everyone who connects hears the same platform."""

    def __init__(self, platform: Platform, *, name: str) -> None:
        self.platform, self.name = platform, name
        self.silent_until = self.rubbish_until = 0.0

    async def serve(self, port: int) -> asyncio.Server:
        """Listen on loopback."""
        return await asyncio.start_server(self._talk, "127.0.0.1", port, limit=MAX_LINE)

    async def _talk(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        hello = Hello(name=self.name, step=self.platform.step, most=self.platform.most, is_simulated=True)
        writer.write(f"{write_hello(hello)}\n".encode())
        telling = asyncio.create_task(self._send(writer))
        try:
            while line := await reader.readline():
                answer = self._do(line.decode("utf-8", "replace").split())
                writer.write(f"{answer}\n".encode())
        except (ConnectionError, ValueError):
            pass
        finally:
            telling.cancel()
            writer.close()
            with contextlib.suppress(ConnectionError):
                await writer.wait_closed()

    async def _send(self, writer: asyncio.StreamWriter) -> None:
        with contextlib.suppress(ConnectionError):
            while True:
                now = time.monotonic()
                if now >= self.silent_until:
                    line = "#?%&W 12" if now < self.rubbish_until else write_reading(self.platform.read(now))
                    writer.write(f"{line}\n".encode())
                    await writer.drain()
                await asyncio.sleep(1 / RATE)

    def _do(self, words: list[str]) -> str:
        now = time.monotonic()
        try:
            match words:
                case ["TARE"]:
                    self.platform.set_tare(now=now)
                case ["CLEAR"]:
                    self.platform.clear_tare()
                case ["TAKE"]:
                    self.platform.put(0, now=now)
                case ["PUT", grams]:
                    self.platform.put(float(Decimal(grams)), now=now)
                case ["SILENT", seconds]:
                    self.silent_until = now + float(Decimal(seconds))
                case ["RUBBISH", seconds]:
                    self.rubbish_until = now + float(Decimal(seconds))
                case _:
                    return "NO such command"
        except ArithmeticError:
            return "NO that is not a number"
        return "OK"


async def _run(name: str, port: int, step: str, most: str) -> None:
    platform = Platform(step=Decimal(step), most=Decimal(most))
    server = await ScaleServer(platform, name=name).serve(port)
    async with server:
        await server.serve_forever()


def main() -> None:
    """Run a scale until it is stopped."""
    parser = argparse.ArgumentParser(description="A simulated scale.")
    parser.add_argument("--name", default="bench")
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--step", default="5", help="what it shows steps of, in grams")
    parser.add_argument("--most", default="15000", help="the most it weighs, in grams")
    options = parser.parse_args()
    with contextlib.suppress(KeyboardInterrupt):
        asyncio.run(_run(options.name, options.port, options.step, options.most))


if __name__ == "__main__":
    main()
