"""What the larder knows of a batch and of whose it is, for those who renew, judge and export it."""

from collections.abc import Sequence
from fractions import Fraction
from typing import Any, Final, Protocol

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.ledger.batch import Batch as CoreBatch
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.slicing.packs import Pack, Stowed, Taking
from dolmetsch.server.batches.models.batch import Batch
from dolmetsch.server.upward import Upward
from dolmetsch.server.writing.once import Write

Json = dict[str, Any]


class PackFacts(Protocol):
    """What is asked of the larder."""

    def renew(self, batch: Batch, mains: Sequence[Piece]) -> None:
        """Follow the packs of ``batch`` anew, whose final pieces are ``mains`` now.

        Raises:
            LedgerError: the packs cannot have been made of them, or what left cannot have.
        """

    def follow(self, batch: Batch, mains: Sequence[Piece]) -> Stowed:
        """What became of ``mains``."""

    def packed(self, batch: Batch, mark: str) -> Fraction:
        """How many grams of the piece ``mark`` are in packs."""

    def customers(self, batch: Batch, record: CoreBatch, sheet: Sheet) -> frozenset[str]:
        """The final pieces of ``batch`` that are customers'; ``record`` and ``sheet`` are its own."""

    def write(self, batch: Batch) -> Json:
        """``packs`` and ``gone`` of the batch's document; nothing where there are none."""

    def read(
        self, write: Write, batch: Batch, document: Json, packs: Sequence[Pack], gone: Sequence[Taking]
    ) -> None:
        """Record the packs of a document and what left them."""


pack_facts: Final = Upward[PackFacts]("the larder")
