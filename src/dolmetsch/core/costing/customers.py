"""A batch shared with customers: what of it is the kitchen's own, at what price, and what that saved."""

from collections.abc import Collection
from dataclasses import dataclass
from fractions import Fraction

from dolmetsch.core.costing.sheet import Sheet, cost_per_lb
from dolmetsch.core.numbers.exact import GRAMS_PER_LB


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnShare:
    """The finished pieces by whose they are; weights in grams.

    ``pieces`` and ``customers_pieces`` count them. ``labour`` is the customers' part of the work.
    ``saved``: beside each shop pack, in the order of the sheet, what the kitchen's own pieces saved; None
    where nothing is compared, or nothing is its own.
    """

    pieces: int
    grams: Fraction
    cost: Fraction
    customers_pieces: int
    customers_grams: Fraction
    customers_labour: Fraction
    saved: tuple[Fraction | None, ...]

    @property
    def cost_per_lb(self) -> Fraction | None:
        """Price of a pound of the kitchen's own; None where nothing is."""
        return cost_per_lb(self.cost, self.grams)


def share_with_customers(sheet: Sheet, customers: Collection[str]) -> OwnShare:
    """What of a costed batch is the kitchen's own, where the pieces ``customers`` are someone else's.

    Each piece has the cost that the ledger gave it; saved is shop price × weight − cost, so that it is the
    sheet's own ``saved_on_batch`` where no piece is a customer's.
    """
    mains = sheet.ledger.mains
    own = [piece for piece in mains if piece.id not in customers]
    others = [piece for piece in mains if piece.id in customers]
    grams = sum((piece.grams for piece in own), Fraction(0))
    cost = sum((piece.cost for piece in own), Fraction(0))
    return OwnShare(
        pieces=len(own),
        grams=grams,
        cost=cost,
        customers_pieces=len(others),
        customers_grams=sum((piece.grams for piece in others), Fraction(0)),
        customers_labour=sum((piece.bill.group("labour") for piece in others), Fraction(0)),
        saved=tuple(
            None if shop.saved_per_lb is None or not own else shop.cost_per_lb * grams / GRAMS_PER_LB - cost
            for shop in sheet.shop
        ),
    )
