"""The verdict's first page: what finished batches came to, newest first, and what is under way by
forecast.
"""

from fractions import Fraction
from typing import Final

from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.server.batches.entries.chain import build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.forecast.forecasting import forecast
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import page_of, show_summary
from dolmetsch.server.batches.show.schemas import UnderWayOut, VerdictsOut
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import print_price_of_gram, print_unit_cost

#: Each costs a forecast; the others are found under Today.
UNDER_WAY_SHOWN: Final = 20


def read_verdicts(kitchen: Kitchen, *, page: int) -> VerdictsOut:
    """A page of the finished batches, and on the first one the latest under way."""
    mine = Batch.objects.filter(kitchen=kitchen).defer("page").order_by("-last_entry_at", "-id")
    finished = page_of(mine.filter(is_finished=True), page)
    at = finished.number
    under_way = mine.filter(is_finished=False)
    shown = list(under_way[:UNDER_WAY_SHOWN]) if at == 1 else []
    return VerdictsOut(
        finished=[show_summary(batch) for batch in finished],
        under_way=[_show_under_way(batch, kitchen) for batch in shown],
        page=at,
        pages=finished.paginator.num_pages,
        more_under_way=max(0, under_way.count() - UNDER_WAY_SHOWN) if at == 1 else 0,
    )


def _show_under_way(batch: Batch, kitchen: Kitchen) -> UnderWayOut:
    batch.kitchen = kitchen
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
