"""A way as typed, read into the core's record; prices that were not typed come from the price list."""

from dataclasses import dataclass, field
from fractions import Fraction
from typing import Final

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.forecast.way import Way, WayStep, WayUse
from dolmetsch.core.ledger.batch import Portion
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.quantity import Price, read_count, read_price, read_weight
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.queries import Priced, find_used
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.ways.schemas import WayIn, WayStepIn, WayUseIn

MAX_MINUTES: Final = Fraction(10_000)


@dataclass(slots=True, kw_only=True)
class ReadWay:
    """A way as the core reads it, its faults, where each price is from, and what has none.

    What has no price is left out of ``way`` and named in ``missing``; ``listed`` is what the price list has.
    """

    way: Way | None
    reader: Reader
    listed: dict[str, Priced]
    origin: dict[tuple[int, int], str] = field(default_factory=dict)
    missing: list[str] = field(default_factory=list)


def read_way(kitchen: Kitchen, data: WayIn) -> ReadWay:
    """Read a way with the prices of today."""
    unpriced = {use.what for step in data.steps for use in step.used if use.what and not use.price}
    listed = find_used(kitchen, unpriced) if unpriced else {}
    read = ReadWay(way=None, reader=Reader.of(kitchen), listed=listed)
    reader = read.reader
    reader.need("name", data.name, "Give the method a name.")
    steps = tuple(_read_step(read, step, at) for at, step in enumerate(data.steps))
    portion, slice_grams = _read_portion(reader, data)
    if not reader.problems:
        read.way = Way(name=data.name, steps=steps, portion=portion, slice_grams=slice_grams)
    return read


def _read_step(read: ReadWay, step: WayStepIn, at: int) -> WayStep:
    path, reader = f"steps[{at}]", read.reader
    a_batch = reader.number(
        f"{path}.batch_minutes", step.batch_minutes, what="number of minutes", limit=MAX_MINUTES, places=2
    )
    a_pound = reader.number(
        f"{path}.pound_minutes", step.pound_minutes, what="number of minutes", limit=MAX_MINUTES, places=2
    )
    a_kilo = reader.number(
        f"{path}.kilo_minutes", step.kilo_minutes, what="number of minutes", limit=MAX_MINUTES, places=2
    )
    if a_pound and a_kilo:
        said = "Give the minutes per pound or per kilogram, not both."
        reader.refuse(f"{path}.kilo_minutes", "one_of", said)
    used = [_read_use(read, use, (at, index)) for index, use in enumerate(step.used)]
    worth = reader.price_by_weight(f"{path}.worth", step.worth) if step.worth else None
    return WayStep(
        method=step.method,
        batch_minutes=Fraction(a_batch or 0),
        kilo_minutes=Fraction(a_kilo or 0) or Fraction(a_pound or 0) * 1000 / GRAMS_PER_LB,
        days=step.days,
        used=tuple(use for use in used if use is not None),
        worth=worth,
    )


def _read_use(read: ReadWay, use: WayUseIn, at: tuple[int, int]) -> WayUse | None:
    path, reader = f"steps[{at[0]}].used[{at[1]}]", read.reader
    reader.need(f"{path}.what", use.what, "Say what is used.")
    if not reader.need(f"{path}.amount", use.amount, "Say how much of it."):
        return None
    amount = _read_amount(use, path, reader)
    price = _find_price(read, use, at)
    if amount is None or price is None:
        return None
    grams, count = amount
    if (price.grams is None) != (grams is None):
        if not use.price:
            # the price list has it by another unit now: no price that fits
            read.missing.append(use.what)
            del read.origin[at]
            return None
        said = f"“{use.amount}” does not go with its price: one is by weight, the other counted."
        reader.refuse(f"{path}.amount", "unreadable", said)
        return None
    each = grams if grams is not None else count
    assert each is not None
    if use.per == "lb":
        each = each * 1000 / GRAMS_PER_LB
    return WayUse(
        what=use.what,
        group=use.group or "other",
        amount=each,
        per="batch" if use.per == "batch" else "kg",
        price=price,
    )


def _read_amount(use: WayUseIn, path: str, reader: Reader) -> tuple[Fraction | None, Fraction | None] | None:
    """Grams or a count; "2.5 %" of the meat is grams for a kilogram of it."""
    if use.amount.endswith("%"):
        share = reader.percent(f"{path}.amount", use.amount, what="share")
        if share is None:
            return None
        if use.per == "batch":
            reader.refuse(f"{path}.amount", "unreadable", "A share is of the meat, not of a batch.")
            return None
        return Fraction(share) * (1000 if use.per == "kg" else GRAMS_PER_LB), None
    try:
        return None, read_count(use.amount)
    except QuantityError:
        pass
    try:
        return read_weight(use.amount), None
    except QuantityError as error:
        reader.refuse(f"{path}.amount", error.reason, str(error))
        return None


def _find_price(read: ReadWay, use: WayUseIn, at: tuple[int, int]) -> Price | None:
    path = f"steps[{at[0]}].used[{at[1]}].price"
    if use.price:
        try:
            price = read_price(use.price, sign=read.reader.sign)
        except QuantityError as error:
            read.reader.refuse(path, error.reason, str(error))
            return None
        read.origin[at] = "as typed here"
        return price
    priced = read.listed.get(same_name(use.what))
    if priced is None:
        if use.what and use.what not in read.missing:
            read.missing.append(use.what)
        return None
    read.origin[at] = f"price list, {priced.latest.source} on {priced.latest.seen_on.isoformat()}"
    return priced.price


def _read_portion(reader: Reader, data: WayIn) -> tuple[Portion | None, Fraction | None]:
    slice_grams = reader.weight("slice_weight", data.slice_weight) if data.slice_weight else None
    grams = None if slice_grams is None else Fraction(slice_grams)
    given = [bool(data.portion_slices), bool(data.portion_weight), bool(data.portion_cooked)]
    if sum(given) > 1:
        reader.refuse("portion_weight", "one_of", "Give a portion in one way only.")
        return None, grams
    if data.portion_slices:
        slices = reader.number(
            "portion_slices", data.portion_slices, what="count", limit=Fraction(1000), places=2
        )
        if slices is not None and slices <= 0:
            reader.refuse("portion_slices", "zero", "A portion is more than nothing.")
        return (None if not slices else Portion(slices=Fraction(slices))), grams
    if data.portion_weight:
        raw = reader.weight("portion_weight", data.portion_weight)
        return (None if raw is None else Portion(grams=Fraction(raw))), grams
    if data.portion_cooked:
        cooked = reader.weight("portion_cooked", data.portion_cooked)
        return (None if cooked is None else Portion(cooked_grams=Fraction(cooked))), grams
    return None, grams
