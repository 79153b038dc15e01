"""What was used in a step, from what was typed to rows."""

from collections.abc import Sequence
from fractions import Fraction

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.quantity import (
    GRAM_PLACES,
    MAX_MONEY,
    MONEY_PLACES,
    Price,
    read_count,
    read_money,
    read_price,
    read_weight,
)
from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.entries.chain import used_record
from dolmetsch.server.batches.models import Entry, UsedLine
from dolmetsch.server.quantities.printing import print_money
from dolmetsch.server.quantities.reader import Reader, as_decimal
from dolmetsch.server.quantities.schemas import ReadQuantity


def read_used(reader: Reader, entry: Entry, index: int, used: typed.UsedIn) -> UsedLine | None:
    """A used line as a row, or None with faults noted."""
    path = f"used[{index}]"
    reader.need(f"{path}.what", used.what, "Say what was used.")
    if not reader.need(f"{path}.price", used.price, "Say what it cost."):
        return None
    try:
        price, amount = _price_and_amount(used, sign=reader.sign)
    except QuantityError as error:
        at_amount = error.reason == "missing" or (used.amount and error.found == used.amount)
        reader.refuse(f"{path}.{'amount' if at_amount else 'price'}", error.reason, str(error))
        return None
    line = UsedLine(
        entry=entry,
        position=index,
        what=used.what,
        cost_group=used.group or "other",
        amount_typed=used.amount,
        price_typed=used.price,
        price_paid=as_decimal(price.paid, MONEY_PLACES),
        is_pack=price.is_pack,
        marks=list(used.pieces),
    )
    if price.grams is not None:
        line.amount_grams = as_decimal(amount, GRAM_PLACES)
        line.price_grams = as_decimal(price.grams, GRAM_PLACES)
    elif price.count is not None:
        line.amount_count = as_decimal(amount, MONEY_PLACES)
        line.price_count = as_decimal(price.count, MONEY_PLACES)
    cost = used_record(line).cost
    if cost > MAX_MONEY:
        reader.refuse(f"{path}.price", "too_large", f"That comes to {print_money(cost)}; check the units.")
        return None
    reader.readings.append(ReadQuantity(path=f"{path}.price", money=print_money(cost)))
    return line


def ask_sums(lines: Sequence[UsedLine]) -> list[str]:
    """The question about each line of ``lines`` with a weight beside a bare sum: of that, or of the jar?"""
    return [
        f"{line.what}: is {line.price_typed} what {line.amount_typed} cost, or the price of the whole jar? "
        f"Of a jar say how much is in it: {line.price_typed} for 500 g."
        for line in lines
        if line.amount_grams is not None and _is_bare(line.price_typed)
    ]


def _price_and_amount(used: typed.UsedIn, *, sign: str) -> tuple[Price, Fraction]:
    """Unit price and amount; a bare sum is for all of it, be it 95 g, 3 bags or nothing said."""
    if _is_bare(used.price):
        paid = read_money(used.price, sign=sign)
        if not used.amount:
            return Price(paid=paid, count=Fraction(1)), Fraction(1)
        if _is_counted(used.amount):
            amount = read_count(used.amount)
            return Price(paid=paid, count=amount), amount
        amount = read_weight(used.amount)
        return Price(paid=paid, grams=amount), amount
    price = read_price(used.price, sign=sign)
    if not used.amount:
        raise QuantityError("missing", used.price, "Say how much of it was used, or give one sum for all.")
    if price.count is not None:
        return price, read_count(used.amount, zero=True)
    return price, read_weight(used.amount)


def _is_bare(price: str) -> bool:
    try:
        read_money(price)
    except QuantityError as error:
        return error.reason != "unreadable"
    return True


def _is_counted(amount: str) -> bool:
    try:
        read_count(amount)
    except QuantityError as error:
        return error.reason != "unreadable"
    return True
