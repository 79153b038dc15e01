"""Reads of the price list: lines with latest, lowest and usual price, one line whole, prices by name."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import groupby
from operator import itemgetter
from typing import Final, get_args

from django.db.models import Count, F, Max, QuerySet, Window
from django.db.models.functions import RowNumber

from dolmetsch.core.buying.price_history import (
    USUAL_SPAN,
    Seen,
    Summary,
    mean_and_spread,
    median_price,
    summarise,
)
from dolmetsch.core.costing.scale_error import square_root
from dolmetsch.core.numbers.exact import GRAMS_PER_LB, fixed
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices import schemas
from dolmetsch.server.prices.models import FryTest, PriceItem, Quote
from dolmetsch.server.prices.sellers import Sellers
from dolmetsch.server.problems import not_found
from dolmetsch.server.quantities.printing import (
    print_money,
    print_percent,
    print_unit_cost,
    print_weight,
)
from dolmetsch.server.quantities.units import UNITS
from dolmetsch.server.writing.kept import called_so

#: Lines on a page of the price list, and points drawn of a history.
PAGE: Final = 60
POINTS: Final = 24
SORTS: Final[tuple[schemas.SortKey, ...]] = get_args(schemas.SortKey)


@dataclass(frozen=True, slots=True, kw_only=True)
class Priced:
    """A line of the price list with its current prices, oldest first, of the latest one's kind of unit."""

    item: PriceItem
    quotes: Sequence[Quote]
    summary: Summary
    fryings: Sequence[Fraction]

    @property
    def latest(self) -> Quote:
        """The latest price."""
        return next(quote for quote in self.quotes if quote.pk == self.summary.latest.order)

    @property
    def price(self) -> Price:
        """The latest price, as the core reads it."""
        return price_of(self.latest)


def price_of(quote: Quote) -> Price:
    """A row as a price."""
    return Price(
        paid=Fraction(quote.paid),
        grams=None if quote.grams is None else Fraction(quote.grams),
        count=None if quote.count is None else Fraction(quote.count),
        is_pack=quote.is_pack,
    )


def current_quotes(items: Iterable[PriceItem]) -> QuerySet[Quote]:
    """Prices of ``items`` that count."""
    return Quote.counting.filter(item__in=list(items))


def price_items(items: Sequence[PriceItem]) -> list[Priced]:
    """``items`` with their prices; those of which no price counts are left out."""
    if not items:
        return []
    by_item: dict[int, list[Quote]] = {}
    for quote in current_quotes(items).order_by("seen_on", "id"):
        by_item.setdefault(quote.item_id, []).append(quote)
    fryings: dict[int, list[Fraction]] = {}
    packs = [item for item in items if item.sort == "shop_pack"]
    for test in FryTest.objects.filter(item__in=packs) if packs else ():
        fryings.setdefault(test.item_id, []).append(Fraction(test.cooked_grams) / Fraction(test.raw_grams))
    priced = []
    for item in items:
        quotes = by_item.get(item.pk, [])
        alike = [quote for quote in quotes if (quote.grams is None) == (quotes[-1].grams is None)]
        summary = summarise([seen_of(quote) for quote in alike])
        if summary is not None:
            tests = fryings.get(item.pk, ())
            priced.append(Priced(item=item, quotes=alike, summary=summary, fryings=tests))
    return priced


def seen_of(quote: Quote) -> Seen:
    """A row as a price of one unit, seen on its day."""
    price = price_of(quote)
    return Seen(on=quote.seen_on, order=quote.pk, each=price.paid / price.size)


def list_priced(kitchen: Kitchen, sort: schemas.SortKey) -> list[Priced]:
    """Every line of a sort, by name."""
    return price_items(list(PriceItem.objects.filter(kitchen=kitchen, sort=sort).order_by("name")))


def list_latest_quotes(kitchen: Kitchen, sort: schemas.SortKey) -> list[Quote]:
    """The latest price of every line of a sort, with its line, by name; their past is not read."""
    newest_first = Window(
        RowNumber(), partition_by=F("item_id"), order_by=[F("seen_on").desc(), F("id").desc()]
    )
    quotes = Quote.counting.filter(item__kitchen=kitchen, item__sort=sort).annotate(rank=newest_first)
    return list(quotes.filter(rank=1).select_related("item").order_by("item__name"))


def find_usual(kitchen: Kitchen, sort: schemas.SortKey) -> dict[str, Fraction]:
    """What a gram of every line of a sort usually costs, by its name; prices by count are left out.

    As ``price_items`` finds it, but of columns: a long list has tens of thousands of prices.
    """
    rows = (
        Quote.counting.filter(item__kitchen=kitchen, item__sort=sort, grams__isnull=False)
        .order_by("item_id", "seen_on", "id")
        .values_list("item__name", "seen_on", "paid", "grams")
    )
    found = {}
    for name, group in groupby(rows, key=itemgetter(0)):
        seen = list(group)
        since = seen[-1][1] - USUAL_SPAN
        year = [(paid, grams) for _, on, paid, grams in seen if on > since and grams is not None]
        found[name] = median_price(year)
    return found


def find_used(kitchen: Kitchen, names: Iterable[str]) -> dict[str, Priced]:
    """Of ``names`` those used up in the work (no meat, no shop pack) with a price, by ``same_name``."""
    items = called_so(PriceItem.objects.filter(kitchen=kitchen), list(names))
    used = items.exclude(sort__in=["meat", "shop_pack"]).order_by("-id")
    return {same_name(priced.item.name): priced for priced in price_items(list(used))}


def read_prices(kitchen: Kitchen, *, sort: schemas.SortKey | None, find: str, page: int) -> schemas.PricesOut:
    """A page (from 0) of the price list, by name."""
    mine = PriceItem.objects.filter(kitchen=kitchen)
    counts = {row["sort"]: row["lines"] for row in mine.values("sort").annotate(lines=Count("id"))}
    wanted = mine.filter(name__icontains=find) if find else mine
    if sort is not None:
        wanted = wanted.filter(sort=sort)
    shown = list(wanted.order_by("name")[page * PAGE : (page + 1) * PAGE])
    sources = Quote.objects.filter(kitchen=kitchen).values_list("source", flat=True).annotate(last=Max("id"))
    called = Sellers(kitchen).call(sources.order_by("last"))
    return schemas.PricesOut(
        items=[show_item(priced) for priced in price_items(shown)],
        total=wanted.count(),
        counts=counts,
        sources=sorted(set(called.values()))[:50],
    )


def get_item(kitchen: Kitchen, item_id: int) -> PriceItem:
    """The line ``item_id``.

    Raises:
        DomainError: not_found.
    """
    item = PriceItem.objects.filter(kitchen=kitchen, pk=item_id).first()
    if item is None:
        raise not_found("such line of the price list")
    return item


def read_item(kitchen: Kitchen, item_id: int) -> schemas.ItemWholeOut:
    """One line, with every price ever noted of it, newest first.

    Raises:
        DomainError: not_found.
    """
    item = get_item(kitchen, item_id)
    priced = price_items([item])
    if not priced:
        raise not_found("price that counts for this")
    every = list(
        Quote.objects.filter(item=item, is_withdrawal=False)
        .select_related("recorded_by")
        .prefetch_related("corrections")
        .order_by("-seen_on", "-id")[:500]
    )
    twice = find_twice(every, Sellers(kitchen))
    tests = FryTest.objects.filter(item=item).select_related("recorded_by").order_by("-tested_on", "-id")
    return schemas.ItemWholeOut(
        item=show_item(priced[0]),
        quotes=[_show_quote(quote, twice) for quote in every],
        fryings=[
            schemas.FryTestOut(
                on=test.tested_on,
                raw=test.raw_typed,
                cooked=test.cooked_typed,
                kept=print_percent(Fraction(test.cooked_grams) / Fraction(test.raw_grams)),
                by=test.recorded_by.called,
            )
            for test in tests
        ],
    )


def find_twice(quotes: Iterable[Quote], sellers: Sellers) -> set[int]:
    """Ids of prices that are one of several of one line, seller and day, all of which count."""
    by_day: dict[tuple[int, str, object], list[int]] = {}
    for quote in quotes:
        if not quote.corrections.all():
            by_day.setdefault((quote.item_id, sellers.key(quote.source), quote.seen_on), []).append(quote.pk)
    return {pk for same in by_day.values() if len(same) > 1 for pk in same}


def show_per(each: Fraction, *, is_weighed: bool) -> schemas.PerUnit:
    """A price of one unit: ``each`` is money a gram, or for one."""
    if is_weighed:
        return schemas.PerUnit(weight=print_unit_cost(each * GRAMS_PER_LB))
    return schemas.PerUnit(each=fixed(each, 4 if each < 1 else 2))


def price_text(each: Fraction, *, is_weighed: bool, unit: str) -> str:
    """A price of one unit in words, by weight in the kitchen's: "2.85 a pound", "0.36 each"."""
    if not is_weighed:
        return f"{print_money(each)} each"
    of = UNITS[unit]
    return f"{print_money(each * of.grams)} a {of.word}"


def show_item(priced: Priced) -> schemas.ItemOut:
    """A line of the price list."""
    item, latest, summary = priced.item, priced.latest, priced.summary
    is_weighed = latest.grams is not None
    points = [seen_of(quote) for quote in priced.quotes[-POINTS:]]
    unit = GRAMS_PER_LB if is_weighed else 1
    return schemas.ItemOut(
        id=item.pk,
        sort=_sort_of(item),
        name=item.name,
        kind=item.kind,
        latest=show_per(summary.latest.each, is_weighed=is_weighed),
        latest_typed=latest.typed,
        latest_on=latest.seen_on,
        source=latest.source,
        lowest=show_per(summary.lowest.each, is_weighed=is_weighed),
        lowest_on=summary.lowest.on,
        usual=show_per(summary.usual, is_weighed=is_weighed),
        quotes=len(priced.quotes),
        history=[schemas.PointOut(on=point.on, each=fixed(point.each * unit, 4)) for point in points],
        pack=print_weight(Fraction(latest.grams)) if latest.is_pack and latest.grams else None,
        slices=latest.slices,
        solution=None if latest.solution_ratio is None else print_percent(Fraction(latest.solution_ratio)),
        fry=show_fry(priced.fryings) if item.sort == "shop_pack" else None,
    )


def _sort_of(item: PriceItem) -> schemas.SortKey:
    return next(sort for sort in SORTS if sort == item.sort)


def show_fry(ratios: Sequence[Fraction]) -> schemas.FryOut:
    """Fryings, mean and spread."""
    mean, variance = mean_and_spread(ratios)
    return schemas.FryOut(
        tests=len(ratios),
        mean=None if mean is None else print_percent(mean),
        spread=None if variance is None else print_percent(square_root(variance)),
    )


def _show_quote(quote: Quote, twice: set[int]) -> schemas.QuoteOut:
    price = price_of(quote)
    corrections = list(quote.corrections.all())
    return schemas.QuoteOut(
        id=quote.pk,
        source=quote.source,
        on=quote.seen_on,
        typed=quote.typed,
        per=show_per(price.paid / price.size, is_weighed=price.grams is not None),
        pack=print_weight(price.grams) if price.is_pack and price.grams else None,
        slices=quote.slices,
        solution=None if quote.solution_ratio is None else print_percent(Fraction(quote.solution_ratio)),
        by=quote.recorded_by.called,
        overruled=bool(corrections),
        reason=corrections[0].reason if corrections else "",
        same_day=quote.pk in twice,
    )


def print_price(quote: Quote) -> str:
    """What was paid for what, in few words."""
    return f"{print_money(Fraction(quote.paid))} ({quote.typed})"
