"""What fires know of a batch, for those who forecast and print it."""

from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Final, Protocol

from dolmetsch.core.forecast.yields import Belief
from dolmetsch.core.ledger.course import Course
from dolmetsch.server.batches.models.batch import Batch
from dolmetsch.server.upward import Upward


class FireFacts(Protocol):
    """What is asked of fires."""

    def look_up(self, batches: Sequence[Batch]) -> None:
        """Look up at once what is going to be asked of each of ``batches``, all of one kitchen."""

    def cooked(self, batch: Batch) -> Mapping[str, bool]:
        """By kind of step: whether the fires ``batch`` was in heated it enough to be cooked."""

    def inside(self, batch: Batch) -> Mapping[str, Fraction]:
        """By kind of step: the highest the coldest inside (°F) came to in fires ``batch`` was in, if read."""

    def expected(self, batch: Batch, course: Course | None) -> Mapping[str, Belief]:
        """By kind of step: what the fire ``batch`` is in now is expected to keep of what is to become
        ``course``; nothing where it leads elsewhere, so that other pieces are in it.
        """

    def methods(self, batch: Batch) -> Mapping[str, str]:
        """By kind of step: the method the fire says it was done by, whatever the batch's own is."""


fire_facts: Final = Upward[FireFacts]("fires")
