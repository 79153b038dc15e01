"""Offers as typed, read into the core's records."""

from dataclasses import dataclass, replace
from fractions import Fraction

from dolmetsch.core.buying.offer import MAX_SOLUTION, Offer
from dolmetsch.core.meat.cuts import read_cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.server.offers.schemas import OfferIn
from dolmetsch.server.quantities.reader import Reader


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadOffer:
    """An offer as typed and as the core reads it."""

    input: OfferIn
    offer: Offer


def read_offer(reader: Reader, data: OfferIn, at: int) -> ReadOffer | None:
    """An offer, or None with faults noted at ``offers[at]``."""
    path = f"offers[{at}]"
    before = len(reader.problems)
    reader.need(f"{path}.cut", data.cut, "Say which cut it is.")
    price = reader.money(f"{path}.price", data.price)
    weight = reader.weight(f"{path}.pack_weight", data.pack_weight) if data.pack_weight else None
    if data.basis == "pack" and not data.pack_weight:
        reader.refuse(f"{path}.pack_weight", "missing", "The pack's weight is missing; it is on the tag.")
    solution = reader.percent(f"{path}.solution", data.solution, what="solution", most=1000)
    if solution is not None and solution > MAX_SOLUTION:
        said = (
            f"“{data.solution}” % of water is more than any label says; "
            "it reads like “up to 12 % solution”. Check it."
        )
        reader.refuse(f"{path}.solution", "too_large", said)
    if price == 0:
        reader.refuse(f"{path}.price", "zero", "A price of 0 is not an offer; leave it out.")
    if len(reader.problems) > before or price is None:
        return None
    cut = read_cut(data.cut)
    cut = replace(
        cut,
        skin=data.skin or cut.skin,
        bone=data.bone or cut.bone,
        is_trimmed=data.trimmed or cut.is_trimmed,
    )
    pack = None if weight is None else Fraction(weight)
    grams = {"per_lb": GRAMS_PER_LB, "per_kg": Fraction(1000)}.get(data.basis) or pack
    assert grams is not None
    offer = Offer(
        cut=cut,
        price=Fraction(price) / grams,
        pack_grams=pack,
        solution=Fraction(solution or 0),
        is_enhanced=data.enhanced,
    )
    return ReadOffer(input=data, offer=offer)
