"""Something that is heard by one thread of this process, all listeners getting its events.

The thread starts with the first listener and ends some time after the last.
"""

import threading
import time
from collections.abc import Generator
from typing import Any, Final

#: So long nobody need listen until its thread ends.
IDLE_SECONDS: Final = 20
#: A stream is begun anew after so long, so that none is held by a page long gone.
STREAM_SECONDS: Final = 300


class HeardDevice:
    """A device as heard by this process. A sort of device says how it is opened, and what its events are."""

    def __init__(self, name: str, address: str) -> None:
        self.name, self.address = name, address
        self._source: Any = None
        self._news = threading.Condition()
        self._number = 0
        self._event = self._say_away()
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

    def wake(self) -> None:
        """Wake every listener."""
        with self._news:
            self._news.notify_all()

    def _start(self) -> None:
        if self._thread is None or not self._thread.is_alive():
            self._thread = threading.Thread(target=self._hear, name=f"hears {self.name}", daemon=True)
            self._thread.start()

    def _hear(self) -> None:
        while not self._is_idle():
            try:
                self._source = self._open()
                for heard in self._source.listen():
                    self._take(heard)
                    if self._is_idle():
                        break
            except OSError:
                self._publish(self._say_away())
                time.sleep(0.4)
            finally:
                if self._source is not None:
                    self._source.close()
                    self._source = None

    def _is_idle(self) -> bool:
        with self._news:
            return not self._listeners and time.monotonic() - self._left > IDLE_SECONDS

    def _publish(self, event: bytes) -> None:
        with self._news:
            self._number += 1
            self._event = event
            self._news.notify_all()

    def _open(self) -> Any:
        """A connection to it.

        Raises:
            OSError: it cannot be reached.
        """
        raise NotImplementedError

    def _take(self, heard: Any) -> None:
        """Publish what follows from what it said."""
        raise NotImplementedError

    def _say_away(self) -> bytes:
        """The event of one that cannot be reached."""
        raise NotImplementedError
