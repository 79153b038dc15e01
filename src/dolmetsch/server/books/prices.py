"""The price book: raw meat and the shop's packs over time, and where the house would be at today's prices."""

from collections import Counter, defaultdict
from datetime import date, datetime, timedelta
from fractions import Fraction
from typing import Final

from dolmetsch.core.meat.cuts import cut_of_key, read_cut
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.models import BatchFacts, Entry, LotLine, ShopPackLine
from dolmetsch.server.books import schemas as out
from dolmetsch.server.books.rows import say_becomes
from dolmetsch.server.books.yields import say_made
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import Quote, Sort
from dolmetsch.server.prices.sellers import Sellers
from dolmetsch.server.quantities.printing import print_percent, print_price_of_gram

#: So many things are shown, those with most prices first; of each so many prices a source, the latest.
ITEMS_SHOWN: Final = 24
POINTS_SHOWN: Final = 120
#: Sorts of batches shown at today's prices.
HOUSE_SHOWN: Final = 12
YEAR: Final = timedelta(days=365)

_Seen = tuple[date, Fraction, str]


def read_price_book(kitchen: Kitchen, now: datetime) -> out.PriceBookOut:
    """Prices by thing and source, and the house at today's."""
    seen = _read_prices(kitchen)
    ordered = sorted(seen.items(), key=lambda item: (item[0][0] != Sort.MEAT, -len(item[1]), item[0][1]))
    return out.PriceBookOut(
        items=[_show_item(*key, prices, now) for key, prices in ordered[:ITEMS_SHOWN]],
        house=_list_house(kitchen, seen),
        sellers=_list_sellers(kitchen),
    )


def _list_sellers(kitchen: Kitchen) -> list[out.SellerOut]:
    """Every name that a price or a purchase is from, one for all of its spellings, and what it goes by."""
    quoted = Quote.counting.filter(kitchen=kitchen).order_by("id").values_list("source", flat=True)
    lots = LotLine.objects.filter(entry__in=Entry.current.filter(kitchen=kitchen)).exclude(bought_from="")
    bought = list(lots.order_by("id").values_list("bought_from", "entry__batch"))
    prices = Counter(map(same_name, quoted))
    # a batch of several lots from one seller is one batch
    batches = Counter(key for key, _ in {(same_name(name), batch) for name, batch in bought})
    written = {same_name(name): name for name in (*quoted, *(name for name, _ in bought))}
    called = Sellers(kitchen).call(written.values())
    return [
        out.SellerOut(name=name, called=called[name], prices=prices[key], batches=batches[key])
        for key, name in sorted(written.items())
    ]


_Key = tuple[str, str, str]


def _read_prices(kitchen: Kitchen) -> dict[_Key, list[_Seen]]:
    """By sort, name and kind: day, price of a gram and source, oldest first."""
    quotes = Quote.counting.filter(
        kitchen=kitchen, item__sort__in=[Sort.MEAT, Sort.SHOP_PACK], grams__isnull=False
    ).order_by("seen_on", "id")
    found: defaultdict[_Key, list[_Seen]] = defaultdict(list)
    columns = ("item__sort", "item__name", "item__kind", "seen_on", "paid", "grams", "source")
    rows = list(quotes.values_list(*columns))
    called = Sellers(kitchen).call(row[-1] for row in rows)
    for sort, name, kind, on, paid, grams, source in rows:
        found[sort, name, kind].append((on, Fraction(paid) / Fraction(grams or 1), called[source]))
    return dict(found)


def _show_item(sort: str, name: str, kind: str, prices: list[_Seen], now: datetime) -> out.PriceBookItemOut:
    by_source: defaultdict[str, list[_Seen]] = defaultdict(list)
    for seen in prices:
        by_source[seen[2]].append(seen)
    return out.PriceBookItemOut(
        name=name,
        sort="meat" if sort == Sort.MEAT else "shop_pack",
        kind=kind,
        lines=[
            out.PriceLineOut(
                source=source,
                points=[
                    out.PricePointOut(on=on, price=print_price_of_gram(each))
                    for on, each, _ in mine[-POINTS_SHOWN:]
                ],
                latest=print_price_of_gram(mine[-1][1]),
            )
            for source, mine in by_source.items()
        ],
        change=_find_change(prices, now),
    )


def _find_change(prices: list[_Seen], now: datetime) -> str | None:
    """The latest price against the one that counted a year before it; None where there was none."""
    latest_on, latest, _ = prices[-1]
    before = [each for on, each, _ in prices if on <= latest_on - YEAR]
    if not before:
        first_on, first, _ = prices[0]
        # of less than half a year nothing is said of a year
        if latest_on - first_on < YEAR / 2:
            return None
        before = [first]
    return print_percent(latest / before[-1] - 1)


def _list_house(kitchen: Kitchen, seen: dict[_Key, list[_Seen]]) -> list[out.TodaysHouseOut]:
    """The last batch of each sort, with its meat at the latest price of its cut."""
    latest: dict[tuple[object, ...], BatchFacts] = {}
    facts = BatchFacts.objects.filter(kitchen=kitchen).exclude(cut="").exclude(final_grams=0)
    sort = ("cut", "way", "course", "is_long")
    for like in facts.values_list(*sort).order_by(*sort).distinct():
        mine = facts.filter(**dict(zip(sort, like, strict=True))).select_related("batch")
        newest = mine.order_by("-finished_at").first()
        if newest is not None:
            latest[like] = newest
    ordered = sorted(latest.values(), key=lambda one: (one.finished_at, one.pk), reverse=True)[:HOUSE_SHOWN]
    shops = _list_shops(ordered)
    return [_show_house(one, seen, shops.get(one.pk)) for one in ordered]


def _list_shops(facts: list[BatchFacts]) -> dict[int, str]:
    """By batch: the first of the shop's packs it was judged by."""
    lines = ShopPackLine.objects.filter(
        entry__in=Entry.current.filter(batch__in=[one.pk for one in facts], act=Entry.Act.SHOP_PACK)
    ).order_by("-entry__sequence")
    return dict(lines.values_list("entry__batch", "name"))


def _show_house(
    facts: BatchFacts, seen: dict[_Key, list[_Seen]], shop_name: str | None
) -> out.TodaysHouseOut:
    grams, cost, meat = Fraction(facts.final_grams), Fraction(facts.cost), Fraction(facts.meat)
    then = cost / grams
    found = _find_meat(facts.cut, seen)
    now = None
    if found is not None and facts.paid and facts.own_grams:
        paid_each = Fraction(facts.paid) / Fraction(facts.own_grams)
        now = (cost - meat + meat * found[1] / paid_each) / grams
    shop = next(
        (
            prices[-1][1]
            for (sort, name, _), prices in seen.items()
            if sort == Sort.SHOP_PACK and shop_name is not None and same_name(name) == same_name(shop_name)
        ),
        None,
    )
    return out.TodaysHouseOut(
        code=facts.batch.code,
        label=say_made(facts.cut, facts.way, say_becomes(facts.course, is_long=facts.is_long)),
        then=print_price_of_gram(then),
        meat_item=None if found is None else found[0],
        now=None if now is None else print_price_of_gram(now),
        shop_name=shop_name,
        shop=None if shop is None else print_price_of_gram(shop),
        saved=None if shop is None or now is None else print_price_of_gram(shop - now),
    )


def _find_meat(cut: str, seen: dict[_Key, list[_Seen]]) -> tuple[str, Fraction] | None:
    """The price list's meat that is this cut, and the latest price of a gram of it."""
    wanted = cut_of_key(cut)
    found = [
        (prices[-1][0], name, prices[-1][1])
        for (sort, name, _), prices in seen.items()
        if sort == Sort.MEAT and wanted.is_like(read_cut(name))
    ]
    if not found:
        return None
    _, name, each = max(found)
    return name, each
