"""Writes to the price list: noting a price, correcting one, a frying of a shop pack. Append-only."""

from django.db.models import QuerySet

from dolmetsch.core.buying.price_history import is_odd, summarise
from dolmetsch.server.prices import schemas
from dolmetsch.server.prices.models import FryTest, PriceItem, Quote
from dolmetsch.server.prices.queries import (
    current_quotes,
    get_item,
    price_items,
    price_of,
    price_text,
    print_price,
    seen_of,
    show_item,
)
from dolmetsch.server.prices.reading import read_quote
from dolmetsch.server.prices.sellers import Sellers
from dolmetsch.server.problems import DomainError, FieldProblem, not_found, refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.kept import called_so
from dolmetsch.server.writing.once import Write, find_kept, keep_once, once


def note_price(write: Write, data: schemas.QuoteIn) -> schemas.NotedOut:
    """Add a price, or correct one. A resend of the same key writes nothing.

    Raises:
        DomainError: bad_fields, not_found (the price to correct), key_reused.
    """
    return once(write, lambda: _find_noted(write), lambda: _note(write, data))


def _find_noted(write: Write) -> schemas.NotedOut | None:
    quote = find_kept(write, Quote)
    return None if quote is None else _answer(quote, [])


def _note(write: Write, data: schemas.QuoteIn) -> schemas.NotedOut:
    reader = Reader.of(write.kitchen)
    quote = read_quote(reader, data, today=write.today)
    wrong = _find_wrong(write, data, reader)
    if reader.problems:
        raise refuse_fields(reader.problems)
    item = find_or_make_item(write, data.sort, data.name, data.kind if data.sort == "shop_pack" else "")
    if wrong is not None and wrong.item_id != item.pk:
        said = "A correction stays on the same item; to move a price, remove it and add it there."
        raise refuse_fields([FieldProblem(path="name", code="bad_correction", message=said)])
    same = _find_same(item, quote) if wrong is None else None
    if same is not None:
        return _answer(same, ["This price is saved already; nothing was changed."])
    if not (data.withdraw or data.is_sure):
        _ask_where_odd(item, quote, wrong)
    quote.kitchen, quote.item, quote.replaces = write.kitchen, item, wrong
    quote.is_withdrawal, quote.reason = data.withdraw, data.reason
    quote.recorded_at, quote.recorded_by = write.now, write.user
    quote.key, quote.fingerprint = write.key, write.fingerprint
    earlier = [] if data.withdraw else _on_same_day(item, quote)
    quote.save(force_insert=True)
    return _answer(quote, [_describe_twice(quote, other) for other in earlier])


def _find_wrong(write: Write, data: schemas.QuoteIn, reader: Reader) -> Quote | None:
    if data.corrects is None:
        if data.withdraw or data.reason:
            reader.refuse("reason", "no_correction", "Only a correction carries a reason.")
        return None
    wrong = Quote.objects.filter(kitchen=write.kitchen, pk=data.corrects).first()
    if wrong is None or wrong.is_withdrawal:
        raise not_found("such price")
    if wrong.corrections.exists():
        said = "Someone has corrected this price already. Look at it again."
        raise DomainError("moved_on", 409, "The price has moved on", said)
    reader.need("reason", data.reason, "Give a reason: the wrong price stays in the list beside it.")
    return wrong


def find_or_make_item(write: Write, sort: str, name: str, kind: str) -> PriceItem:
    """The line of that name, made where there is none; a kind given now replaces the one before."""
    mine = PriceItem.objects.filter(kitchen=write.kitchen, sort=sort)
    # by the index where it is written as before; else all lines are looked through
    item = mine.filter(name=name).first() or called_so(mine, [name]).order_by("id").first()
    if item is None:
        return PriceItem.objects.create(kitchen=write.kitchen, sort=sort, name=name, kind=kind)
    if kind and item.kind != kind:
        item.kind = kind
        item.save(update_fields=["kind"])
    return item


def _find_same(item: PriceItem, quote: Quote) -> Quote | None:
    alike = current_quotes([item]).filter(paid=quote.paid, grams=quote.grams, count=quote.count)
    return next(iter(_of_that_day(item, alike.select_related("item"), quote)), None)


def _ask_where_odd(item: PriceItem, quote: Quote, wrong: Quote | None) -> None:
    """Refuse a price far off the usual one until it is said to be right.

    Raises:
        DomainError: odd_price.
    """
    history = [
        seen_of(other)
        for other in current_quotes([item])
        if (other.grams is None) == (quote.grams is None) and other != wrong
    ]
    summary = summarise(history)
    price = price_of(quote)
    each = price.paid / price.size
    if summary is None or not is_odd(each, summary.usual):
        return
    unit, is_weighed = item.kitchen.weight_unit, price.grams is not None
    now, usual = (price_text(one, is_weighed=is_weighed, unit=unit) for one in (each, summary.usual))
    said = f"{now} is far off the usual {usual}. If it is for a pack, give the pack's size."
    fault = FieldProblem(path="price", code="odd_price", message=said)
    raise DomainError("odd_price", 422, "Is that right?", said, [fault])


def _on_same_day(item: PriceItem, quote: Quote) -> list[Quote]:
    return [one for one in _of_that_day(item, current_quotes([item]), quote) if one.pk != quote.replaces_id]


def _of_that_day(item: PriceItem, quotes: "QuerySet[Quote]", quote: Quote) -> list[Quote]:
    """Those of ``quotes``, all of ``item``, of the day and the seller of ``quote``."""
    sellers = Sellers(item.kitchen)
    seller = sellers.key(quote.source)
    return [one for one in quotes.filter(seen_on=quote.seen_on) if sellers.key(one.source) == seller]


def _describe_twice(quote: Quote, other: Quote) -> str:
    return (
        f"{quote.source} has two prices on {quote.seen_on.isoformat()}: {print_price(other)} before, "
        f"{print_price(quote)} now. Both are saved and the later one counts; remove the wrong one."
    )


def _answer(quote: Quote, notes: list[str]) -> schemas.NotedOut:
    shown = [show_item(priced) for priced in price_items([quote.item])]
    return schemas.NotedOut(quote=quote.pk, item=shown[0] if shown else None, notes=notes)


def note_frying(write: Write, item_id: int, data: schemas.FryTestIn) -> FryTest:
    """Note a frying of a shop pack.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """
    return keep_once(write, FryTest, lambda: _note_frying(write, item_id, data))


def _note_frying(write: Write, item_id: int, data: schemas.FryTestIn) -> FryTest:
    item = get_item(write.kitchen, item_id)
    reader = Reader.of(write.kitchen)
    weighed = reader.frying(data.raw, data.cooked)
    if item.sort != "shop_pack":
        reader.refuse("raw", "not_a_pack", "Only a shop pack is fried here; house batches on their bench.")
    if reader.problems or weighed is None:
        raise refuse_fields(reader.problems)
    raw, cooked = weighed
    return FryTest.objects.create(
        kitchen=write.kitchen,
        item=item,
        raw_grams=raw,
        raw_typed=data.raw,
        cooked_grams=cooked,
        cooked_typed=data.cooked,
        tested_on=data.on,
        recorded_at=write.now,
        recorded_by=write.user,
        key=write.key,
        fingerprint=write.fingerprint,
    )
