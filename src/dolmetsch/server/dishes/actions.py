"""Writes: dishes saved in versions, plates served out of the larder, the cupboard stocked and counted."""

import uuid
from collections.abc import Sequence
from dataclasses import replace
from decimal import Decimal
from fractions import Fraction
from typing import Final, NoReturn

from django.utils import timezone

from dolmetsch.core.numbers.quantity import MONEY_PLACES
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.slicing.packs import SLACK_GRAMS
from dolmetsch.server.dishes import schemas
from dolmetsch.server.dishes.costing import Need, ReadDish, cost_needs, is_count, list_needs
from dolmetsch.server.dishes.files import read_file
from dolmetsch.server.dishes.models import Dish, DishAims, Plating, PlatingCanceled, StockNote
from dolmetsch.server.dishes.queries import draft_dish, get_dish, read_all
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.actions import cancel_all, take_oldest
from dolmetsch.server.larder.here import is_past_use, list_usable
from dolmetsch.server.larder.models import Pack, PackNow, Taken
from dolmetsch.server.larder.queries import list_here
from dolmetsch.server.problems import DomainError, not_found, refuse_fields
from dolmetsch.server.quantities.printing import print_weight
from dolmetsch.server.quantities.reader import MAX_SLICES, Reader, round_decimal
from dolmetsch.server.writing.kept import next_version
from dolmetsch.server.writing.once import Write, keep_once

#: The cost of a plate is kept finer than it is shown, so that a hundred plates cost a hundred times as much.
COST_PLACES: Final = 8
MOST_PLATES: Final = Fraction(10_000)
#: What is noted of meat that left past its use-by date.
PAST_WORDS: Final = "past its use-by date"


def save_dish(write: Write, data: schemas.DishIn) -> Dish:
    """Save a dish as its next version.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def save() -> Dish:
        read, plate, faults = draft_dish(write.kitchen, data)
        reader = Reader.of(write.kitchen)
        if reader.need("name", data.name, "Give the dish a name.") and "/" in data.name:
            reader.refuse("name", "unreadable", "Leave out “/”: the name is part of an address.")
        if not data.parts:
            reader.refuse("parts", "empty", "A dish has at least one part.")
        problems = [*reader.problems, *faults]
        if problems:
            raise refuse_fields(problems)
        cost = None if plate is None else plate.cost
        return _write_version(write, read, cost)

    return keep_once(write, Dish, save)


def import_dishes(write: Write, name: str, content: bytes) -> Dish:
    """Save every dish of a file as its next version, all of them or none; the last one saved.

    Raises:
        DomainError: bad_document, bad_file, too_large, key_reused.
    """

    def save() -> Dish:
        dishes = read_file(name, content)
        if not dishes:
            raise DomainError("bad_document", 422, "Not imported", "The file has no dish in it.")
        saved = []
        for index, data in enumerate(_parts_first(dishes)):
            one = replace(write, key=write.key if index == 0 else uuid.uuid5(write.key, f"dish {index}"))
            read, plate, faults = draft_dish(write.kitchen, data)
            if faults or not data.name or not data.parts:
                said = faults[0].message if faults else "a dish has a name and at least one part"
                path = faults[0].path if faults else "parts"
                raise DomainError("bad_document", 422, "Not imported", f"“{data.name}”, {path}: {said}")
            saved.append(_write_version(one, read, None if plate is None else plate.cost))
        return saved[0]

    return keep_once(write, Dish, save)


def _parts_first(dishes: Sequence[schemas.DishIn]) -> list[schemas.DishIn]:
    """Dishes that are parts of others before those; circles stay as they are and are refused then."""
    by_name = {same_name(dish.name): dish for dish in dishes}
    ordered: dict[str, schemas.DishIn] = {}

    def visit(dish: schemas.DishIn, within: tuple[str, ...]) -> None:
        name = same_name(dish.name)
        if name in ordered or name in within:
            return
        for part in dish.parts:
            if part.sort == "dish" and same_name(part.name) in by_name:
                visit(by_name[same_name(part.name)], (*within, name))
        ordered[name] = dish

    for dish in dishes:
        visit(dish, ())
    return list(ordered.values())


def _write_version(write: Write, read: ReadDish, cost: Fraction | None) -> Dish:
    data = read.data
    name, version = next_version(write, Dish, data.name)
    return Dish.objects.create(
        name=name,
        version=version,
        input=data.model_dump(mode="json"),
        words=data.words,
        cost_then=None if cost is None else round_decimal(cost, COST_PLACES),
        is_put_away=data.put_away,
        **write.stamp,
    )


def look_at_cost(write: Write, name: str) -> Dish:
    """The cook has seen what a plate costs now: from here on it is compared with that.

    Raises:
        DomainError: not_found, key_reused.
    """

    def look() -> Dish:
        dish = get_dish(write.kitchen, name)
        _rows, read, plates, _prices = read_all(write.kitchen)
        plate = plates.get(same_name(dish.name))
        return _write_version(write, read[same_name(dish.name)], None if plate is None else plate.cost)

    return keep_once(write, Dish, look)


def set_aims(write: Write, data: schemas.AimsIn) -> DishAims:
    """Set what the kitchen aims at.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def keep() -> DishAims:
        reader = Reader.of(write.kitchen)
        found: dict[str, Decimal] = {}
        for name in ("low", "high", "threshold"):
            typed = getattr(data, name)
            value = reader.percent(name, typed, what="percentage")
            if value is None and not any(one.path == name for one in reader.problems):
                reader.refuse(name, "missing", "Give a percentage.")
            elif value is not None and value <= 0:
                reader.refuse(name, "zero", "More than 0 %.")
            elif value is not None:
                found[name] = value
        if not reader.problems and found["low"] > found["high"]:
            reader.refuse("high", "order", "The upper end is not below the lower one.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        return DishAims.objects.create(**found, **write.stamp)

    return keep_once(write, DishAims, keep)


def serve_plates(write: Write, name: str, data: schemas.PlatesIn) -> Plating:
    """Plates are served: what they take leaves the larder, oldest first.

    Raises:
        DomainError: not_found, bad_fields, not_enough, key_reused.
    """

    def serve() -> Plating:
        dish = get_dish(write.kitchen, name)
        reader = Reader.of(write.kitchen)
        plates = reader.number("plates", data.plates, what="number of plates", limit=MOST_PLATES, places=0)
        if plates is None or plates < 1:
            if not reader.problems:
                reader.refuse("plates", "zero", "At least one plate.")
            raise refuse_fields(reader.problems)
        at = data.at or write.now
        reader.happened("at", at, now=write.now)
        price = reader.money("price", data.price) if data.price else None
        if reader.problems:
            raise refuse_fields(reader.problems)
        _rows, dishes, costed, prices = read_all(write.kitchen)
        read = dishes[same_name(dish.name)]
        each = None if data.is_free else Fraction(price) if price is not None else _net(read)
        income = None if each is None else round_decimal(each * int(plates), MONEY_PLACES)
        row = Plating.objects.create(
            dish=dish, name=dish.name, plates=int(plates), income=income, at=at, **write.stamp
        )
        needs = list_needs(read, dishes, Fraction(row.plates))
        cost = costed[same_name(dish.name)].cost if same_name(dish.name) in costed else None
        others = None if cost is None else cost * row.plates - cost_needs(needs, prices)
        _take_parts(write, needs, row, income=_meat_income(income, others), use_past=data.use_past)
        return row

    return keep_once(write, Plating, serve)


def _net(read: ReadDish) -> Fraction | None:
    return None if read.menu is None else read.menu.net


def _meat_income(income: Decimal | None, others: Fraction | None) -> Decimal | None:
    """What plates brought in for their meat: all of it, less what their other parts cost."""
    if income is None or others is None:
        return income
    return max(Decimal(0), income - round_decimal(others, MONEY_PLACES))


def _take_parts(
    write: Write, needs: Sequence[Need], plating: Plating, *, income: Decimal | None, use_past: bool
) -> None:
    """What the plates take of each product; the first taking carries the ``income``.

    What is past its use-by date comes last, where it is used at all, and is marked.
    """
    here, today = list(list_here(write.kitchen)), timezone.localdate(plating.at)
    usable = list_usable(here, today)
    past = [now for now in here if is_past_use(now, today)]
    past_packs = {now.pack_id for now in past}
    position = 0

    def row(pack: Pack) -> Taken:
        return Taken(
            kitchen=write.kitchen,
            pack=pack,
            fate="plated",
            dish=plating.name,
            why=PAST_WORDS if pack.pk in past_packs else "",
            at=plating.at,
            recorded_at=write.now,
            recorded_by=write.user,
            key=write.key,
            fingerprint=write.fingerprint,
        )

    for need in needs:
        name = same_name(need.product)
        packs = [now for now in (*usable, *(past if use_past else ())) if _is_of(now, name)]
        left_over = [now for now in past if _is_of(now, name)]
        if left_over and not use_past and not _has_enough(packs, need):
            _refuse_past(write.kitchen, need, left_over)
        taken = take_oldest(
            packs,
            slices=None if need.slices is None else _whole(need),
            grams=need.grams or Fraction(0),
            row=row,
            first=position,
            income=income if not position else None,
            product=need.product,
        )
        if not taken:
            raise DomainError("not_enough", 422, "Not recorded", f"The larder has no {need.product}.")
        position += len(taken)


def _is_of(now: PackNow, name: str) -> bool:
    return same_name(now.pack.product) == name and not now.is_gone


def _has_enough(packs: Sequence[PackNow], need: Need) -> bool:
    if need.slices is not None:
        return sum(now.left_slices or 0 for now in packs) >= need.slices
    return sum((Fraction(now.left_grams) for now in packs), SLACK_GRAMS) >= (need.grams or 0)


def _refuse_past(kitchen: Kitchen, need: Need, past: Sequence[PackNow]) -> NoReturn:
    """What there is in date is too little, and more lies past its date: it is used only knowingly.

    Raises:
        DomainError: only_past.
    """
    more = print_weight(sum((Fraction(now.left_grams) for now in past), Fraction(0)))
    packs = ", ".join(now.pack.label for now in past[:3])
    said = (
        f"The larder has too little {need.product} in date; {more.say(kitchen.weight_unit)} more is past its "
        f"use-by date ({packs}). Throw it away, or serve it knowingly."
    )
    raise DomainError("only_past", 409, "Past its date", said)


def _whole(need: Need) -> int:
    """So many slices, which have to be whole ones.

    Raises:
        DomainError: part_of_slice.
    """
    assert need.slices is not None
    if need.slices.denominator != 1:
        said = f"That takes parts of slices of {need.product}: serve so many plates that they are whole."
        raise DomainError("part_of_slice", 422, "Not recorded", said)
    return int(need.slices)


def cancel_plates(write: Write, plating_id: int, data: schemas.CancelPlatesIn) -> PlatingCanceled:
    """Plates were not served: what they took is in the larder again.

    Raises:
        DomainError: not_found, bad_fields, done_already, key_reused.
    """

    def make() -> PlatingCanceled:
        row = Plating.objects.filter(kitchen=write.kitchen, pk=plating_id).first()
        if row is None:
            raise not_found("such plates")
        reader = Reader.of(write.kitchen)
        if not reader.need("reason", data.reason, "Say why: what was recorded stays in the book."):
            raise refuse_fields(reader.problems)
        if PlatingCanceled.objects.filter(plating=row).exists():
            raise DomainError("done_already", 409, "Not recorded", "Those plates were canceled already.")
        cancel_all(write, row.key, data.reason)
        return PlatingCanceled.objects.create(plating=row, reason=data.reason, **write.stamp)

    return keep_once(write, PlatingCanceled, make)


def note_stock(write: Write, data: schemas.StockIn) -> StockNote:
    """Note what was bought for the store cupboard, or what was counted in it.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def note() -> StockNote:
        reader = Reader.of(write.kitchen)
        reader.need("what", data.what, "What was it?")
        at = data.at or write.now
        reader.happened("at", at, now=write.now)
        row = StockNote(what=data.what, sort=data.sort, typed=data.amount, at=at, **write.stamp)
        if is_count(data.amount):
            bare = data.amount.casefold().removesuffix("each").strip()
            row.count = reader.number("amount", bare, what="count", limit=MAX_SLICES, places=4)
        elif data.sort == "counted" and data.amount.casefold() in ("none", "nothing"):
            row.count = Decimal(0)
        else:
            row.grams = reader.weight("amount", data.amount, bare=False)
        if reader.problems:
            raise refuse_fields(reader.problems)
        row.save(force_insert=True)
        return row

    return keep_once(write, StockNote, note)
