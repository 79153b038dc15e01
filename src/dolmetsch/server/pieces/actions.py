"""Writes: what was learned of a piece, a store, meat checked."""

import uuid

from dolmetsch.core.meat.looking_over import LOOKS_BY_KEY
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.forecast.derived import renew
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch, get_batch, get_piece
from dolmetsch.server.pieces import schemas
from dolmetsch.server.pieces.models import LookOver, PieceFact, Store
from dolmetsch.server.pieces.queries import NOWHERE, list_stores
from dolmetsch.server.problems import refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once


def learn_facts(write: Write, batch: Batch, mark: str, data: schemas.FactsIn) -> PieceFact:
    """Keep what was learned of a living piece.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """

    def learn() -> PieceFact:
        get_piece(cost_batch(batch), mark)
        reader = Reader.of(write.kitchen)
        row = PieceFact(batch=batch, mark=mark, skin=data.skin, product=data.product, **write.stamp)
        row.length_mm = reader.length("length", data.length)
        row.width_mm = reader.length("width", data.width)
        row.thickness_mm = reader.length("thickness", data.thickness)
        if data.place is not None:
            put_in_store(row, data.place, write, reader, path="place")
        sizes = (row.length_mm, row.width_mm, row.thickness_mm)
        if not reader.problems and not any((*sizes, row.skin, row.product, row.store)):
            reader.refuse("thickness", "empty", "Fill in something about the piece.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        row.save(force_insert=True)
        return row

    return keep_once(write, PieceFact, learn)


def set_owner(write: Write, code: str, data: schemas.OwnerIn) -> PieceFact:
    """Note whose pieces of the batch ``code`` are, all of them in one go.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """

    def note() -> PieceFact:
        # read under the lock: it may be renewed, and what others recorded meanwhile is to stay
        batch = get_batch(write.kitchen, code)
        costed = cost_batch(batch)
        reader = Reader.of(write.kitchen)
        if not reader.need("owner", data.owner, "Say whose they are."):
            raise refuse_fields(reader.problems)
        rows = []
        for at, mark in enumerate(dict.fromkeys(data.marks)):
            get_piece(costed, mark)
            stamp = write.stamp if at == 0 else {**write.stamp, "key": uuid.uuid5(write.key, mark)}
            rows.append(PieceFact(batch=batch, mark=mark, owner=data.owner, **stamp))
        PieceFact.objects.bulk_create(rows)
        if batch.is_finished or batch.packs_made:
            # packs of these pieces are the customer's too, and what they saved is no saving of the kitchen's
            renew(batch, costed)
        return rows[0]

    return keep_once(write, PieceFact, note)


def put_in_store(row: PieceFact, place: schemas.PlaceIn, write: Write, reader: Reader, *, path: str) -> None:
    """Note on ``row``, unsaved, where its piece lies; ``path`` of ``place`` in what was sent.

    Faults: ``unknown``, ``no_such_place``.
    """
    if not place.store:
        row.store = NOWHERE
        return
    stores = {same_name(store.name): store for store in list_stores(write.kitchen)}
    store = stores.get(same_name(place.store))
    if store is None:
        reader.refuse(
            f"{path}.store", "unknown", f"There is no “{place.store}” here; add it on the map first."
        )
        return
    if place.level > store.levels or place.slot > store.slots:
        said = f"{store.name} has {store.levels} levels of {store.slots}."
        reader.refuse(f"{path}.level", "no_such_place", said)
        return
    row.store, row.level, row.slot = store.name, place.level, place.slot


def save_store(write: Write, data: schemas.StoreIn) -> Store:
    """Save a store; pieces already in it stay.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def save() -> Store:
        reader = Reader.of(write.kitchen)
        reader.need("name", data.name, "Give it a name, like Fridge 1.")
        if data.name == NOWHERE:
            reader.refuse("name", "unreadable", "Give it a name of letters.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        return Store.objects.create(
            name=data.name,
            sort=data.sort,
            levels=data.levels,
            slots=data.slots,
            is_put_away=data.put_away,
            **write.stamp,
        )

    return keep_once(write, Store, save)


def look_over(write: Write, batch: Batch, data: schemas.LookOverIn) -> LookOver:
    """Keep that the meat was checked, and what was found.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def look() -> LookOver:
        reader = Reader.of(write.kitchen)
        for index, key in enumerate(data.found):
            if key not in LOOKS_BY_KEY:
                reader.refuse(f"found[{index}]", "unknown", f"“{key}” is nothing that is looked for.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        found = [key for key in LOOKS_BY_KEY if key in data.found]
        return LookOver.objects.create(batch=batch, found=found, note=data.note, **write.stamp)

    return keep_once(write, LookOver, look)
