"""Linked batches: a finished piece of one batch is a lot of another, and brings its cost along."""

from dataclasses import dataclass
from fractions import Fraction

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.ledger.refusals import OVERWEIGHT_PERCENT


@dataclass(frozen=True, slots=True, kw_only=True)
class Taken:
    """What goes over: grams, the ``part`` of the piece they are, and money by group.

    ``too_much``: more was wanted than there is.
    """

    grams: Fraction
    part: Fraction
    carried: tuple[tuple[str, Fraction], ...]
    too_much: bool


def take_piece(sheet: Sheet, mark: str, grams: Fraction | None) -> Taken | None:
    """``grams`` (None: all) of a living main or an unused by-product, with their part of its bill by weight.

    Up to 1 % more than the piece weighed counts as all of it: another scale. None where there is no
    such piece.
    """
    pieces = {piece.id: piece for piece in (*sheet.ledger.mains, *sheet.ledger.by_products)}
    piece = pieces.get(mark)
    if piece is None:
        return None
    whole = piece.grams
    wanted = whole if grams is None else grams
    part = min(wanted / whole, Fraction(1))
    return Taken(
        grams=wanted,
        part=wanted / whole,
        carried=tuple((group, money * part) for group, money in piece.costs.items()),
        too_much=wanted * 100 > whole * OVERWEIGHT_PERCENT,
    )
