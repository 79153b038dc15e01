"""The hub of what this process hears: scales, and whatever else is held here.

A listener costs a thread of the worker's pool and no connection to the record store. So that ordinary
requests never wait for listeners, a worker takes no more of them than leaves SPARE_THREADS free.
"""

import json
import threading
import time
from collections.abc import Callable, Generator
from decimal import Decimal
from fractions import Fraction
from typing import Any, Final, TypeVar

from django.conf import settings

from dolmetsch.devices.lines import Hello, ScaleReading
from dolmetsch.devices.sources import SOURCES, ScaleSource
from dolmetsch.server.configured import ConfiguredDevice, find_configured, list_names
from dolmetsch.server.problems import DomainError, not_found
from dolmetsch.server.quantities.printing import print_weight
from dolmetsch.server.scales.listening import HeardDevice

Held = TypeVar("Held", bound=HeardDevice)
#: A scale that says nothing readable for so long is silent.
SILENT_SECONDS: Final = 1.2
#: Listeners of one worker process.
MAX_LISTENERS: Final = 56


class Scale(HeardDevice):
    """One scale as heard by this process."""

    def __init__(self, name: str, kind: str, address: str) -> None:
        self.kind = kind
        self.hello: Hello | None = None
        self._heard = float("-inf")
        super().__init__(name, address)

    def send(self, command: str) -> None:
        """Send the scale a command.

        Raises:
            DomainError: scale_away.
        """
        try:
            # the thread that listens may let go of its connection at any moment
            if (listening := self._source) is not None:
                listening.send(command)
                return
            source = self._open()
            try:
                source.send(command)
            finally:
                source.close()
        except OSError:
            said = f"The scale “{self.name}” does not answer. The number pad is there."
            raise DomainError("scale_away", 503, "Scale away", said) from None

    def _open(self) -> ScaleSource:
        return SOURCES[self.kind](self.address)

    def _take(self, heard: Hello | ScaleReading | ValueError | None) -> None:
        now = time.monotonic()
        if isinstance(heard, Hello):
            self.hello = heard
        elif isinstance(heard, ScaleReading):
            self._heard = now
            self._publish(self._event_of("over" if heard.is_over else "live", heard))
        elif now - self._heard > SILENT_SECONDS:
            self._publish(self._event_of("rubbish" if isinstance(heard, ValueError) else "silent", None))

    def _say_away(self) -> bytes:
        return self._event_of("away", None)

    def _event_of(self, state: str, reading: ScaleReading | None) -> bytes:
        event: dict[str, Any] = {"scale": self.name, "state": state, "at": time.time()}
        if self.hello is not None:
            event["step"] = str(self.hello.step)
            event["simulated"] = self.hello.is_simulated
        if reading is not None and not reading.is_over:
            event |= {
                "grams": f"{reading.net:f}",
                "net": print_weight(_exact(reading.net)).model_dump(),
                "tare": print_weight(_exact(reading.tare)).model_dump() if reading.tare else None,
                "steady": reading.is_steady,
                "below": reading.net < 0,
            }
        return f"data: {json.dumps(event)}\n\n".encode()


def _exact(grams: Decimal) -> Fraction:
    return Fraction(grams)


class Stream:
    """The events for one listener; closed once, whether or not any was taken."""

    def __init__(self, events: Generator[bytes, None, None], let_go: Callable[[], None]) -> None:
        self._events, self._let_go = events, let_go
        self._is_open = True

    def __iter__(self) -> "Stream":
        return self

    def __next__(self) -> bytes:
        return next(self._events)

    def close(self) -> None:
        """The listener is gone."""
        if self._is_open:
            self._is_open = False
            self._events.close()
            self._let_go()


class Hub:
    """All scales of this process, and what else it hears."""

    def __init__(self) -> None:
        self._held: dict[tuple[str, str, str], HeardDevice] = {}
        self._lock = threading.Lock()
        self._listening = 0
        self.closing = threading.Event()

    def names(self, kitchen: str) -> list[str]:
        """The scales of ``kitchen`` (its slug), as configured:
        ``quay/bench=line:127.0.0.1:7401,quay/floor=…``.
        """
        return list_names(settings.SCALES, kitchen)

    def get(self, kitchen: str, name: str) -> Scale:
        """The scale ``name`` of ``kitchen`` (its slug): no other kitchen hears or tares it.

        Raises:
            DomainError: not_found.
        """
        one = find_configured(settings.SCALES, kitchen, name, kinds=SOURCES)
        if one is None:
            raise not_found(f"scale “{name}”")
        return self.hold("scale", one, Scale)

    def hold(self, sort: str, one: ConfiguredDevice, make: Callable[[str, str, str], Held]) -> Held:
        """The device ``one`` as this process hears it, made where it is not yet, or is elsewhere now."""
        key = (sort, one.kitchen, one.name)
        with self._lock:
            held = self._held.get(key)
            if held is None or held.address != one.address:
                self._held[key] = held = make(one.name, one.kind, one.address)
            return held  # type: ignore[return-value]

    def stream(self, device: HeardDevice) -> Stream:
        """Events of a device for one more listener.

        Raises:
            DomainError: too_many (this worker has all the listeners it takes).
        """
        with self._lock:
            if self._listening >= MAX_LISTENERS:
                said = "Too many screens listen already. What it reads can be typed in."
                raise DomainError("too_many", 503, "Too many listen", said)
            self._listening += 1
        return Stream(device.listen(closing=self.closing), self._let_go)

    def _let_go(self) -> None:
        with self._lock:
            self._listening -= 1

    def close(self) -> None:
        """End every stream, so that the process can stop."""
        self.closing.set()
        for device in list(self._held.values()):
            device.wake()


hub: Final = Hub()
