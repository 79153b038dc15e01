"""What lies on a simulated scale."""

from fractions import Fraction
from typing import Final

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.batches.show.queries import cost_batch, get_batch, get_piece
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError, refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.scales import schemas
from dolmetsch.server.scales.hub import Scale
from dolmetsch.server.scales.meaning import find_belief

#: How long a trouble lasts, and what is too much for any kitchen scale.
TROUBLE_SECONDS: Final = 6
TOO_MUCH: Final = Fraction(400_000)


def lay(kitchen: Kitchen, scale: Scale, data: schemas.LayIn) -> schemas.LoadOut:
    """Lay something on a simulated scale; a real one is laid upon by hand.

    Raises:
        DomainError: not_simulated, not_found, bad_fields, scale_away.
    """
    if scale.hello is not None and not scale.hello.is_simulated:
        raise DomainError("not_simulated", 409, "Not here", "This is a real scale: put the meat on it.")
    if data.trouble == "over":
        grams = TOO_MUCH
    elif data.trouble:
        scale.send(f"{data.trouble.upper()} {TROUBLE_SECONDS}")
        return schemas.LoadOut(grams="0")
    else:
        grams = _grams(kitchen, data)
    scale.send("TAKE" if grams == 0 else f"PUT {fixed(grams, 1)}")
    return schemas.LoadOut(grams=fixed(grams, 1))


def _grams(kitchen: Kitchen, data: schemas.LayIn) -> Fraction:
    if data.weight:
        reader = Reader.of(kitchen)
        grams = reader.weight("weight", data.weight)
        if reader.problems:
            raise refuse_fields(reader.problems)
        return Fraction(grams or 0)
    if not data.code:
        return Fraction(0)
    batch = get_batch(kitchen, data.code)
    costed = cost_batch(batch)
    piece = get_piece(costed, data.mark)
    belief = find_belief(batch, costed, kind=data.kind, piece=piece)
    return piece.grams * (Fraction(1) if belief is None else Fraction(belief.ratio))
