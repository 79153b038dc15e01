"""The hub: one thread reads a scale, all listeners get its events. It starts with a worker's first listener.

A listener costs a thread of the worker's pool and no connection to the record store. So that ordinary
requests never wait for listeners, a worker takes no more of them than leaves SPARE_THREADS free.
"""

import json
import threading
import time
from collections.abc import Callable, Generator
from decimal import Decimal
from fractions import Fraction
from typing import Any, Final

from django.conf import settings

from dolmetsch.devices.lines import Hello, ScaleReading
from dolmetsch.devices.sources import SOURCES, ScaleSource
from dolmetsch.server.configured import read_configured
from dolmetsch.server.problems import DomainError, not_found
from dolmetsch.server.quantities.printing import print_weight

#: A scale that says nothing readable for so long is silent.
SILENT_SECONDS: Final = 1.2
#: So long nobody need listen until its thread ends.
IDLE_SECONDS: Final = 20
#: Listeners of one worker process.
MAX_LISTENERS: Final = 56
#: A stream is begun anew after so long, so that none is held by a page long gone.
STREAM_SECONDS: Final = 300


class Scale:
    """One scale as heard by this process."""

    def __init__(self, name: str, kind: str, address: str) -> None:
        self.name, self.kind, self.address = name, kind, address
        self.hello: Hello | None = None
        self._source: ScaleSource | None = None
        self._news = threading.Condition()
        self._number = 0
        self._event = self._event_of("away", None)
        self._heard = float("-inf")
        self._listeners = 0
        self._left = 0.0
        self._thread: threading.Thread | None = None

    def listen(self, *, closing: threading.Event) -> Generator[bytes, None, None]:
        """Events for one listener, the latest first of all; a fresh one at least twice a second."""
        with self._news:
            self._listeners += 1
            self._start()
            seen = -1
        begun = time.monotonic()
        try:
            while not closing.is_set() and time.monotonic() - begun < STREAM_SECONDS:
                with self._news:
                    if self._number == seen:
                        self._news.wait(timeout=0.5)
                    seen, event = self._number, self._event
                yield event
        finally:
            with self._news:
                self._listeners -= 1
                self._left = time.monotonic()

    def send(self, command: str) -> None:
        """Send the scale a command.

        Raises:
            DomainError: scale_away.
        """
        try:
            if self._source is None:
                source = SOURCES[self.kind](self.address)
                try:
                    source.send(command)
                finally:
                    source.close()
            else:
                self._source.send(command)
        except OSError:
            said = f"The scale “{self.name}” does not answer. The number pad is there."
            raise DomainError("scale_away", 503, "Scale away", said) from None

    def wake(self) -> None:
        """Wake every listener."""
        with self._news:
            self._news.notify_all()

    def _start(self) -> None:
        if self._thread is None or not self._thread.is_alive():
            self._thread = threading.Thread(target=self._hear, name=f"scale {self.name}", daemon=True)
            self._thread.start()

    def _hear(self) -> None:
        while not self._is_idle():
            try:
                self._source = SOURCES[self.kind](self.address)
                for heard in self._source.listen():
                    self._take(heard)
                    if self._is_idle():
                        break
            except OSError:
                self._publish("away", None)
                time.sleep(0.4)
            finally:
                if self._source is not None:
                    self._source.close()
                    self._source = None

    def _is_idle(self) -> bool:
        with self._news:
            return not self._listeners and time.monotonic() - self._left > IDLE_SECONDS

    def _take(self, heard: Hello | ScaleReading | ValueError | None) -> None:
        now = time.monotonic()
        if isinstance(heard, Hello):
            self.hello = heard
        elif isinstance(heard, ScaleReading):
            self._heard = now
            self._publish("over" if heard.is_over else "live", heard)
        elif now - self._heard > SILENT_SECONDS:
            self._publish("rubbish" if isinstance(heard, ValueError) else "silent", None)

    def _publish(self, state: str, reading: ScaleReading | None) -> None:
        event = self._event_of(state, reading)
        with self._news:
            self._number += 1
            self._event = event
            self._news.notify_all()

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
    """All scales of this process."""

    def __init__(self) -> None:
        self._scales: dict[tuple[str, str], Scale] = {}
        self._lock = threading.Lock()
        self._listening = 0
        self.closing = threading.Event()

    def names(self, kitchen: str) -> list[str]:
        """The scales of ``kitchen`` (its slug), as configured:
        ``quay/bench=line:127.0.0.1:7401,quay/floor=…``.
        """
        return [one.name for one in read_configured(settings.SCALES) if one.kitchen == kitchen]

    def get(self, kitchen: str, name: str) -> Scale:
        """The scale ``name`` of ``kitchen`` (its slug): no other kitchen hears or tares it.

        Raises:
            DomainError: not_found.
        """
        for one in read_configured(settings.SCALES):
            if (one.kitchen, one.name) == (kitchen, name) and one.kind in SOURCES:
                with self._lock:
                    held = self._scales.get((kitchen, name))
                    if held is None or held.address != one.address:
                        self._scales[kitchen, name] = held = Scale(name, one.kind, one.address)
                    return held
        raise not_found(f"scale “{name}”")

    def stream(self, kitchen: str, name: str) -> Stream:
        """Events of a scale for one more listener.

        Raises:
            DomainError: not_found, too_many (this worker has all the listeners it takes).
        """
        scale = self.get(kitchen, name)
        with self._lock:
            if self._listening >= MAX_LISTENERS:
                said = "Too many screens listen to the scale. The number pad is there."
                raise DomainError("too_many", 503, "Scale busy", said)
            self._listening += 1
        return Stream(scale.listen(closing=self.closing), self._let_go)

    def _let_go(self) -> None:
        with self._lock:
            self._listening -= 1

    def close(self) -> None:
        """End every stream, so that the process can stop."""
        self.closing.set()
        for scale in list(self._scales.values()):
            scale.wake()


hub: Final = Hub()
