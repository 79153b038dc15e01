"""How thick: what a millimeter does to slices, their price and packs."""

from fractions import Fraction
from typing import Final

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.slicing.thickness import compare_thicknesses, grams_per_mm
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch, get_piece
from dolmetsch.server.larder import schemas
from dolmetsch.server.pieces.queries import Facts, gather_facts
from dolmetsch.server.quantities.printing import print_money_or_none, print_weight
from dolmetsch.server.quantities.reader import MAX_SLICES, Reader

#: Slices thinner than a millimetre and thicker than a hand are slips.
MOST_MM: Final = Fraction(100)


def read_thickness(batch: Batch, data: schemas.ThicknessIn) -> schemas.ThicknessOut:
    """What a millimetre does to slices, their price and packs; nothing is written.

    Raises:
        DomainError: not_found.
    """
    piece = get_piece(cost_batch(batch), data.mark)
    reader = Reader.of(batch.kitchen)
    millimetres = reader.number(
        "millimetres", data.millimetres, what="thickness in mm", limit=MOST_MM, places=2
    )
    counted = reader.slices("count", data.count)
    of_slices = sum(
        (
            Fraction(reader.weight(f"of_slices[{index}]", text) or 0)
            for index, text in enumerate(data.of_slices)
        ),
        Fraction(0),
    )
    in_pack = reader.slices("in_pack", data.in_pack)
    portion = reader.number(
        "in_portion", data.in_portion, what="slices in a portion", limit=MAX_SLICES, places=2
    )
    length = gather_facts([batch]).get((batch.pk, piece.id), Facts()).length_mm
    weighed = None
    if of_slices and counted and millimetres:
        weighed = (of_slices, counted, Fraction(millimetres))
    per_mm = grams_per_mm(
        weighed=weighed, grams=piece.grams, length_mm=None if length is None else Fraction(length)
    )
    if per_mm is None or reader.problems:
        missing = None
        if per_mm is None:
            missing = "Cut ten slices and weigh them, or measure the piece's length on the bench."
        return schemas.ThicknessOut(points=[], missing=missing, problems=reader.problems)
    points = compare_thicknesses(
        per_mm,
        grams=piece.grams,
        cost=piece.cost,
        in_portion=Fraction(portion) if portion else None,
        in_pack=in_pack or 10,
    )
    return schemas.ThicknessOut(
        points=[
            schemas.ThicknessPoint(
                millimetres=fixed(one.millimetres, 1),
                slices=one.slices,
                slice_weight=print_weight(one.slice_grams),
                slice_cost=fixed(one.slice_cost, 4),
                portion_cost=print_money_or_none(one.portion_cost),
                packs=one.packs,
                over=one.over,
            )
            for one in points
        ],
        missing=None,
        problems=[],
    )
