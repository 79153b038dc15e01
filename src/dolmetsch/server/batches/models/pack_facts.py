"""What the larder knows of a batch and of whose it is, for those who renew, judge and export it.

The larder stands above batches and knows them; so that batches need not know the larder, this is put in place
when the application starts (``use_packs``).
"""

from collections.abc import Sequence
from fractions import Fraction
from typing import Any, Protocol

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.ledger.batch import Batch as CoreBatch
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.slicing.packs import Pack, Stowed, Taking
from dolmetsch.server.batches.models.batch import Batch
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


class NoPacks:
    """A kitchen without a larder."""

    def renew(self, batch: Batch, mains: Sequence[Piece]) -> None:
        """Nothing is packed."""

    def follow(self, batch: Batch, mains: Sequence[Piece]) -> Stowed:
        """Nothing is packed."""
        return Stowed(packs={}, unpacked={}, gone={}, takings=())

    def packed(self, batch: Batch, mark: str) -> Fraction:
        """Nothing is packed."""
        return Fraction(0)

    def customers(self, batch: Batch, record: CoreBatch, sheet: Sheet) -> frozenset[str]:
        """Nobody's."""
        return frozenset()

    def write(self, batch: Batch) -> Json:
        """Nothing is packed."""
        return {}

    def read(
        self, write: Write, batch: Batch, document: Json, packs: Sequence[Pack], gone: Sequence[Taking]
    ) -> None:
        """Nothing is kept."""


_facts: list[PackFacts] = [NoPacks()]


def use_packs(facts: PackFacts) -> None:
    """Ask ``facts`` from now on."""
    _facts[0] = facts


def pack_facts() -> PackFacts:
    """Whoever knows of packs."""
    return _facts[0]
