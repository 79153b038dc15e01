"""The verdict's first page: what finished batches came to, newest first, and what is under way by
forecast.
"""

from collections.abc import Sequence
from fractions import Fraction
from functools import partial
from typing import Final

from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.server.batches.entries.chain import KEPT_SECONDS, build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.entries.chosen_way import fetch_ways, way_of
from dolmetsch.server.batches.forecast.forecasting import forecast
from dolmetsch.server.batches.forecast.history import list_fryings, read_history
from dolmetsch.server.batches.models import Batch, Entry, LotLine
from dolmetsch.server.batches.models.fire_facts import fire_facts
from dolmetsch.server.batches.show.queries import page_of, show_summary
from dolmetsch.server.batches.show.schemas import UnderWayOut, VerdictsOut
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import print_price_of_gram, print_unit_cost
from dolmetsch.server.writing.kept_answers import keep

#: Each costs a forecast; the others are found under Today.
UNDER_WAY_SHOWN: Final = 20


def read_verdicts(kitchen: Kitchen, *, page: int) -> VerdictsOut:
    """A page of the finished batches, and on the first one the latest under way."""
    mine = Batch.objects.filter(kitchen=kitchen).order_by("-last_entry_at", "-id")
    finished = page_of(mine.filter(is_finished=True), page)
    at = finished.number
    under_way = mine.filter(is_finished=False)
    shown = list(under_way[:UNDER_WAY_SHOWN]) if at == 1 else []
    return VerdictsOut(
        finished=[show_summary(batch) for batch in finished],
        under_way=_show_under_way(shown, kitchen),
        page=at,
        pages=finished.paginator.num_pages,
        more_under_way=max(0, under_way.count() - UNDER_WAY_SHOWN) if at == 1 else 0,
    )


def _show_under_way(batches: Sequence[Batch], kitchen: Kitchen) -> list[UnderWayOut]:
    for batch in batches:
        batch.kitchen = kitchen
    fetch_ways(batches)
    facts = fire_facts()
    facts.look_up(batches)
    # the entries of one that is taken from another do not say what that one comes to
    counting = Entry.current.filter(batch__in=batches)
    taken = LotLine.objects.filter(entry__in=counting, from_batch__isnull=False)
    linked = set(taken.values_list("entry__batch", flat=True))
    learned = repr((sorted(read_history(kitchen).items()), list_fryings(kitchen)))
    ways: dict[int | None, str] = {}
    shown = []
    for batch in batches:
        chosen = batch.chosen_way
        way_id = None if chosen is None else chosen.way_id
        if way_id not in ways:
            ways[way_id] = repr(way_of(chosen))
        # all that is shown is made of these (``forecasting.forecast``)
        made_of = (ways[way_id], facts.methods(batch), facts.expected(batch, None), learned)
        about = ("under way", batch.pk, batch.last_sequence, batch.name, batch.summary, *made_of)
        make = partial(_show_one, batch)
        shown.append(make() if batch.pk in linked else keep(about, make, seconds=KEPT_SECONDS))
    return shown


def _show_one(batch: Batch) -> UnderWayOut:
    costed = cost_chain(build_chain(batch, list_entry_rows(batch)))
    ahead = forecast(batch, costed)
    shop = next(iter(costed.sheet.shop), None)
    price = None if ahead is None else ahead.outlook.price
    chance = None
    if shop is not None and price is not None:
        chance = round(100 * price.chance_below(float(Fraction(shop.cost_per_lb) / GRAMS_PER_LB)))
    return UnderWayOut(
        code=batch.code,
        name=batch.name,
        cut=batch.summary["cut"],
        stage=batch.summary["stage"],
        last_at=batch.last_entry_at,
        so_far=print_unit_cost(costed.sheet.final.cost_per_lb),
        price=None if price is None else print_price_of_gram(price.middle),
        low=None if price is None else print_price_of_gram(price.low),
        high=None if price is None else print_price_of_gram(price.high),
        shop_name=None if shop is None else (shop.name or "a pack"),
        chance=chance,
    )
