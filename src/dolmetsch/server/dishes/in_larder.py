"""What of a dish's meat is in the larder: past its date, and for how many plates there is enough."""

from collections.abc import Mapping
from datetime import date
from fractions import Fraction

from django.utils import timezone

from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.dishes import schemas
from dolmetsch.server.dishes.costing import ReadDish, list_needs
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.here import is_past_use, list_usable
from dolmetsch.server.larder.queries import find_paces, list_lying
from dolmetsch.server.quantities.printing import print_weight


def list_past(kitchen: Kitchen, read: ReadDish, dishes: Mapping[str, ReadDish]) -> list[schemas.PastPackOut]:
    """Packs of the meat of a dish that are past their use-by date: they do not count for it."""
    today = timezone.localdate()
    names = {same_name(need.product) for need in list_needs(read, dishes, Fraction(1))}
    return [
        schemas.PastPackOut(
            code=now.code,
            mark=now.mark,
            product=now.product,
            left=print_weight(Fraction(now.left_grams)),
            keep_until=now.keep_until,
        )
        for now in (list_lying(kitchen) if names else ())
        if not now.owner and same_name(now.product) in names and is_past_use(now, today)
    ]


def find_how_long(
    kitchen: Kitchen, read: ReadDish, dishes: Mapping[str, ReadDish]
) -> tuple[int | None, date | None]:
    """For how many plates the larder has enough, and until when at the pace of late; None: no meat in it."""
    needs = list_needs(read, dishes, Fraction(1))
    if not needs:
        return None, None
    today = timezone.localdate()
    here = list_usable([now for now in list_lying(kitchen) if not now.owner], today)
    paces = find_paces(kitchen, today)
    plates: list[int] = []
    days: list[date] = []
    for need in needs:
        name = same_name(need.product)
        packs = [now for now in here if same_name(now.product) == name]
        have = sum((Fraction(now.left_grams) for now in packs), Fraction(0))
        counted = Fraction(sum(now.left_slices or 0 for now in packs))
        if need.slices:
            plates.append(int(counted / need.slices))
        elif need.grams:
            plates.append(int(have / need.grams))
        if name in paces:
            days.append(paces[name].runs_out(have, today))
    return min(plates, default=0), min(days, default=None)
