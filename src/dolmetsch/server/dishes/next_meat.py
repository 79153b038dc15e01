"""What a plate would cost with its meat made anew, at today's prices."""

from fractions import Fraction

from dolmetsch.core.dishes.plate import Plate
from dolmetsch.core.meat.cuts import read_cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB, fixed
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.entries.course import find_course_of
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.dishes import schemas
from dolmetsch.server.dishes.costing import Meat, Prices, ReadDish
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.offers.checking import check
from dolmetsch.server.offers.schemas import CaseIn, OfferIn
from dolmetsch.server.prices.queries import list_latest_quotes, price_of
from dolmetsch.server.quantities.printing import print_money


def list_next(kitchen: Kitchen, read: ReadDish, plate: Plate | None, prices: Prices) -> list[schemas.NextOut]:
    """What the plate would cost with meat made at today's prices, for each product of the larder in it."""
    found = []
    own = (None,) * len(read.parts) if plate is None else plate.parts
    for index, data in enumerate(read.data.parts[: len(read.parts)]):
        meat = prices.meats.get(same_name(data.name)) if data.sort == "larder" else None
        if meat is None:
            continue
        found.append(_show_next(data.name, own[index], plate, meat, _forecast(kitchen, meat)))
    return found


def _show_next(
    name: str, mine: Fraction | None, plate: Plate | None, meat: Meat, ahead: tuple[Fraction, Fraction] | str
) -> schemas.NextOut:
    """``mine``: what the part costs now; ``ahead``: what a gram will, or why that cannot be had."""
    whole = None if plate is None else plate.cost
    if isinstance(ahead, str) or mine is None or whole is None or not meat.per_gram:
        why = ahead if isinstance(ahead, str) else "a part has no price yet"
        return schemas.NextOut(name=name, low=None, high=None, plate_low=None, plate_high=None, why=why)
    low, high = (mine / meat.per_gram * gram for gram in ahead)
    return schemas.NextOut(
        name=name,
        low=print_money(low),
        high=print_money(high),
        plate_low=print_money(whole - mine + low),
        plate_high=print_money(whole - mine + high),
        why=None,
    )


def _forecast(kitchen: Kitchen, meat: Meat) -> tuple[Fraction, Fraction] | str:
    """What a gram of the next of its kind costs, 8 times out of 10, at the latest price of its cut; or why it
    cannot be said.
    """
    batch = Batch.objects.get(pk=meat.now.pack.batch_id)
    quotes = [quote for quote in list_latest_quotes(kitchen, "meat") if quote.grams is not None]
    cut = same_name(batch.cut)
    near = [quote for quote in quotes if same_name(quote.item.name) == cut] or [
        quote for quote in quotes if read_cut(quote.item.name).kind == read_cut(batch.cut).kind
    ]
    if not near:
        return f"no price of {batch.cut} is on the price list"
    quote = max(near, key=lambda one: (one.seen_on, one.pk))
    price = price_of(quote)
    per_lb = price.paid / price.size * GRAMS_PER_LB
    chosen = batch.chosen_way
    offer = OfferIn(id="next", cut=batch.cut, price=fixed(per_lb, 4), basis="per_lb", is_sure=True)
    course = find_course_of(batch, cost_batch(batch)) or "cooked"
    case = check(
        kitchen, CaseIn(way="" if chosen is None else chosen.way.name, course=course, offers=[offer])
    )
    if not case.assessments:
        return "no forecast can be made of it"
    range_ = case.assessments[0].outlook.price
    return Fraction(range_.low), Fraction(range_.high)
