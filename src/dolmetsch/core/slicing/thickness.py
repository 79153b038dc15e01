"""What a millimetre does: slices, their price, that of a portion, and packs, by thickness.

A slice weighs in proportion to its thickness. What a millimetre weighs follows from slices that were counted
and weighed, else from the piece's length.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction

#: Thicknesses (mm) that are compared.
THICKNESSES = tuple(Fraction(step, 2) for step in range(3, 25))


@dataclass(frozen=True, slots=True, kw_only=True)
class AtThickness:
    """Slices of a thickness: how many, what one weighs and costs; whole packs, and slices ``over``."""

    millimetres: Fraction
    slices: int
    slice_grams: Fraction
    slice_cost: Fraction
    portion_cost: Fraction | None
    packs: int
    over: int


def grams_per_mm(
    *, weighed: tuple[Fraction, int, Fraction] | None, grams: Fraction, length_mm: Fraction | None
) -> Fraction | None:
    """What a millimetre weighs: of ``weighed`` slices (grams, how many, thickness in mm), else of the whole
    piece's length; None where neither is known.
    """
    if weighed is not None:
        of_slices, count, thickness = weighed
        return of_slices / count / thickness
    return None if length_mm is None else grams / length_mm


def compare_thicknesses(
    per_mm: Fraction,
    *,
    grams: Fraction,
    cost: Fraction,
    in_portion: Fraction | None,
    in_pack: int,
    thicknesses: Iterable[Fraction] = THICKNESSES,
) -> list[AtThickness]:
    """Each thickness of which at least one slice comes of ``grams``."""
    found = []
    for millimetres in thicknesses:
        of_slice = per_mm * millimetres
        slices = int(grams / of_slice)
        if not slices:
            continue
        each = cost / slices
        packs, over = divmod(slices, in_pack)
        found.append(
            AtThickness(
                millimetres=millimetres,
                slices=slices,
                slice_grams=of_slice,
                slice_cost=each,
                portion_cost=None if in_portion is None else each * in_portion,
                packs=packs,
                over=over,
            )
        )
    return found
