"""Nitrite that a piece carries from earlier cures, its own and those of the meat it was made of.

What went in counts whole: none is taken as used up or dripped away (ingoing nitrite, FSIS Directive 7620.3),
so that a second cure is judged on the safe side.
"""

from collections.abc import Mapping, Sequence
from fractions import Fraction

from dolmetsch.core.ledger.pieces import Stage

#: Grams of pure nitrite by mark; None: some went in, and how much is not known.
Nitrite = Mapping[str, Fraction | None]


def carry_nitrite(stages: Sequence[Stage], put_in: Nitrite) -> dict[str, Fraction | None]:
    """Grams of nitrite by mark after all ``stages``.

    ``put_in``: what each mark was given while it was that piece, lots of cured meat included. A split shares
    by weight out, a merge adds.
    """
    held: dict[str, Fraction | None] = dict(put_in)
    for stage in stages:
        if stage.act == "split":
            together = sum(piece.weight for piece in stage.made)
            mine = held.get(stage.entered[0].id, Fraction(0))
            for piece in stage.made:
                part = None if mine is None else mine * piece.weight / together
                held[piece.id] = _add(held.get(piece.id, Fraction(0)), part)
        elif stage.act == "merge":
            (into,) = stage.made
            for piece in stage.entered:
                held[into.id] = _add(held.get(into.id, Fraction(0)), held.get(piece.id, Fraction(0)))
    return held


def _add(one: Fraction | None, other: Fraction | None) -> Fraction | None:
    return None if one is None or other is None else one + other
