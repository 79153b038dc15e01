"""A typed price as a row: what was paid for what."""

from datetime import date, timedelta
from fractions import Fraction
from typing import Final

from dolmetsch.core.buying.offer import MAX_SOLUTION
from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.numerals import tidy
from dolmetsch.core.numbers.quantity import (
    GRAM_PLACES,
    MAX_GRAMS,
    MAX_MONEY,
    MONEY_PLACES,
    Price,
    match_count,
    read_count,
    read_money,
    read_price,
    read_weight,
)
from dolmetsch.server.prices.models import Quote
from dolmetsch.server.prices.schemas import QuoteIn
from dolmetsch.server.quantities.reader import Reader, as_decimal, round_decimal

#: A price of before is a slip of the year.
EARLIEST: Final = date(2000, 1, 1)
#: Sorts whose price alone is taken for one unit of weight, the kitchen's.
BY_WEIGHT: Final = frozenset({"meat", "by_product"})


def combine_price(price: str, size: str, *, unit: str | None, sign: str = "") -> Price:
    """What was paid for how much: "3.49/lb", "5.00 for 8 oz", or a bare sum for ``size``, or one ``unit``.

    Raises:
        QuantityError: unreadable, in money other than ``sign``, or a sum for nothing named.
    """
    bare = _bare_money(price, sign)
    if bare is None:
        read = read_price(price, sign=sign)
        if not size or read.is_pack:
            return read
        pack = read_size(size)
        if (pack.grams is None) != (read.grams is None):
            raise QuantityError("unreadable", size, f"“{size}” does not go with “{price}”")
        return Price(paid=read.cost_of(pack.size), grams=pack.grams, count=pack.count, is_pack=True)
    if size:
        pack = read_size(size)
        return Price(paid=bare, grams=pack.grams, count=pack.count, is_pack=True)
    if unit is None:
        raise QuantityError(
            "missing", price, f"“{price}” for how much? Write it like 3.49/lb or give a pack size"
        )
    return read_price(price, default_unit=unit, sign=sign)


def read_size(size: str) -> Price:
    """A pack's size, by weight or count, as a price of nothing.

    Raises:
        QuantityError: unreadable, or nothing.
    """
    if match_count(tidy(size)) is not None:
        return Price(paid=Fraction(0), count=read_count(size), is_pack=True)
    return Price(paid=Fraction(0), grams=read_weight(size), is_pack=True)


def _bare_money(price: str, sign: str) -> Fraction | None:
    try:
        return read_money(price, sign=sign)
    except QuantityError as error:
        if error.reason != "unreadable":
            raise
        return None


def read_quote(reader: Reader, data: QuoteIn, *, today: date) -> Quote:
    """A price as a row without its item, faults noted in ``reader``."""
    reader.need("name", data.name, "Say what it is the price of.")
    reader.need("source", data.source, "Say where the price is from.")
    if not EARLIEST <= data.on <= today + timedelta(days=1):
        reader.refuse("on", "odd_time", "That day is in the future, or before the year 2000.")
    quote = Quote(source=data.source, seen_on=data.on, typed=data.price)
    if reader.need("price", data.price, "A price is missing."):
        _read_price(reader, quote, data)
    quote.slices = reader.slices("slices", data.slices)
    quote.solution_ratio = reader.percent("solution", data.solution, what="solution")
    if quote.solution_ratio is not None and quote.solution_ratio > MAX_SOLUTION:
        said = f"“{data.solution}” % of water is more than any label says; check it"
        reader.refuse("solution", "too_large", said)
    return quote


def _read_price(reader: Reader, quote: Quote, data: QuoteIn) -> None:
    unit = reader.unit if data.sort in (*BY_WEIGHT, "shop_pack") else None
    try:
        price = combine_price(data.price, data.size, unit=unit, sign=reader.sign)
    except QuantityError as error:
        path = "size" if data.size and error.found == data.size.strip() else "price"
        reader.refuse(path, error.reason, str(error))
        return
    if data.sort == "shop_pack" and not (price.is_pack and price.grams is not None):
        reader.refuse("size", "missing", "Give the weight of the pack.")
        return
    if data.sort in BY_WEIGHT and price.grams is None:
        reader.refuse("price", "unreadable", "This has a price by weight, like 3.49/lb.")
        return
    put_price(quote, price)
    if data.size:
        quote.typed = f"{data.price} for {data.size}"


def put_price(quote: Quote, price: Price) -> None:
    """Put a price into a row, money to the place it is kept at."""
    quote.paid = round_decimal(min(price.paid, MAX_MONEY), MONEY_PLACES)
    quote.is_pack = price.is_pack
    if price.grams is not None:
        quote.grams = as_decimal(min(price.grams, MAX_GRAMS), GRAM_PLACES)
    elif price.count is not None:
        quote.count = as_decimal(price.count, MONEY_PLACES)
