"""The collector: hears every cooker whether or not anyone looks, and keeps what it reads.

A reading is acknowledged once it is in the record store; what is not, a cooker with a memory sends again.
While the record store is away, readings wait here.
"""

import queue
import threading
import time
from collections.abc import Callable, Sequence
from datetime import datetime
from typing import Final

from django.db import DatabaseError, close_old_connections, transaction
from django.utils import timezone

from dolmetsch.devices.cooker.lines import CookerReading
from dolmetsch.devices.cooker.source import COOKER_SOURCES, CookerSource
from dolmetsch.server.configured import ConfiguredDevice
from dolmetsch.server.fires.models import ProbeReading
from dolmetsch.server.fires.readings.thinning import thin_old
from dolmetsch.server.kitchens.models import Kitchen

#: A reading is kept where the last kept one is so many seconds of the cooker's clock older.
KEPT_EVERY: Final = 10
#: A chamber changes slowly.
CHAMBER_KEPT_EVERY: Final = 600
#: Seconds between two writes.
FLUSH_EVERY: Final = 1.0
#: So many readings wait for the record store; more are left to the cooker's memory.
MOST_WAITING: Final = 200_000
#: Of a cooker that is gone: so long until it is tried again.
RETRY_SECONDS: Final = 1.0
#: Old readings are thinned once a day.
THIN_EVERY: Final = 86_400


class Hearing:
    """One cooker, heard by a thread of its own."""

    def __init__(
        self,
        cooker: ConfiguredDevice,
        *,
        waiting: "queue.Queue[Heard]",
        closing: threading.Event,
        kept_every: int = KEPT_EVERY,
    ) -> None:
        self.cooker, self._waiting, self._closing = cooker, waiting, closing
        self._kept_every = kept_every
        self.last_kept: datetime | None = None
        self._source: CookerSource | None = None
        self._thread = threading.Thread(target=self._hear, name=f"cooker {cooker.name}", daemon=True)

    def start(self) -> None:
        """Begin to listen."""
        self._thread.start()

    def acknowledge(self, at: datetime) -> None:
        """All up to ``at`` is kept."""
        self.last_kept = at
        source = self._source
        if source is not None:
            try:
                source.acknowledge(at)
            except OSError:
                # it is gone; asked again when it is back
                return

    def _hear(self) -> None:
        while not self._closing.is_set():
            try:
                self._source = COOKER_SOURCES[self.cooker.kind](self.cooker.address)
                if self.last_kept is not None:
                    self._source.ask_since(self.last_kept)
                self._take_all(self._source)
            except OSError:
                self._closing.wait(RETRY_SECONDS)
            finally:
                if self._source is not None:
                    self._source.close()
                    self._source = None

    def _take_all(self, source: CookerSource) -> None:
        taken: datetime | None = None
        for heard in source.listen():
            if self._closing.is_set():
                return
            if not isinstance(heard, CookerReading):
                continue
            # a clock that was set back begins anew
            is_due = taken is None or abs((heard.at - taken).total_seconds()) >= self._kept_every
            if is_due and self._waiting.qsize() < MOST_WAITING:
                taken = heard.at
                self._waiting.put(Heard(self, heard, timezone.now()))


class Heard:
    """A reading that waits to be kept."""

    __slots__ = ("at", "hearing", "reading")

    def __init__(self, hearing: Hearing, reading: CookerReading, at: datetime) -> None:
        self.hearing, self.reading, self.at = hearing, reading, at


class Collector:
    """All cookers and chambers of all kitchens."""

    def __init__(self, cookers: list[ConfiguredDevice], chambers: Sequence[ConfiguredDevice] = ()) -> None:
        self.closing = threading.Event()
        self._waiting: queue.Queue[Heard] = queue.Queue()
        self._kitchens = dict(Kitchen.objects.values_list("slug", "pk"))
        self._held: list[Heard] = []
        every = [(one, KEPT_EVERY) for one in cookers] + [(one, CHAMBER_KEPT_EVERY) for one in chambers]
        self.hearings = [
            Hearing(one, waiting=self._waiting, closing=self.closing, kept_every=kept_every)
            for one, kept_every in every
            if one.kind in COOKER_SOURCES and one.kitchen in self._kitchens
        ]
        for hearing in self.hearings:
            hearing.last_kept = self._find_last(hearing.cooker)

    def _find_last(self, cooker: ConfiguredDevice) -> datetime | None:
        # the last that was written: a cooker whose clock was set back goes on from there
        last = ProbeReading.last_heard(self._kitchens[cooker.kitchen], cooker.name)
        return None if last is None else last.at

    def run(self, *, is_done: Callable[[], bool] = lambda: False) -> None:
        """Hear and keep until asked to stop."""
        for hearing in self.hearings:
            hearing.start()
        thinned = float("-inf")
        while not (self.closing.is_set() or is_done()):
            time.sleep(FLUSH_EVERY)
            self.flush()
            if time.monotonic() - thinned > THIN_EVERY:
                thinned = time.monotonic()
                self._thin()
        self.flush()

    @staticmethod
    def _thin() -> None:
        try:
            thin_old(timezone.now())
        except DatabaseError:
            # it is away; tomorrow is soon enough
            return

    def flush(self) -> int:
        """Keep what waits, in one write; how many readings that were. What cannot be kept now waits on."""
        while True:
            try:
                self._held.append(self._waiting.get_nowait())
            except queue.Empty:
                break
        if not self._held:
            return 0
        close_old_connections()
        try:
            with transaction.atomic():
                ProbeReading.objects.bulk_create(
                    [self._row(heard) for heard in self._held], ignore_conflicts=True, batch_size=2_000
                )
        except DatabaseError:
            return 0
        latest = {id(heard.hearing): heard for heard in self._held}
        count = len(self._held)
        self._held = []
        for heard in latest.values():
            heard.hearing.acknowledge(heard.reading.at)
        return count

    def _row(self, heard: Heard) -> ProbeReading:
        cooker = heard.hearing.cooker
        return ProbeReading(
            kitchen_id=self._kitchens[cooker.kitchen],
            cooker=cooker.name,
            at=heard.reading.at,
            values=dict(heard.reading.values),
            heard_at=heard.at,
        )
