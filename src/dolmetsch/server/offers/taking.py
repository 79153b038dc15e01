"""Taking an offer home: it becomes the lot of a new batch, with its way, the shop's packs and the portion."""

import json
import uuid
from fractions import Fraction

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.forecast.outlooks import put_way
from dolmetsch.server.batches.record import actions
from dolmetsch.server.batches.record.actions import Recorded
from dolmetsch.server.offers import schemas as out
from dolmetsch.server.offers.checking import Case, check, find_offer, name_of
from dolmetsch.server.offers.reading import ReadOffer
from dolmetsch.server.prices.queries import Priced
from dolmetsch.server.problems import FieldProblem, not_found, refuse_fields
from dolmetsch.server.ways.schemas import WayIn
from dolmetsch.server.writing.once import Write, once


def take_offer(write: Write, data: out.TakeIn) -> Recorded:
    """Start a batch with an offer of a case check.

    All of it or nothing: the lot as the tag reads, the way, every shop pack of the price list at its price
    of today, and the way's portion.

    Raises:
        DomainError: not_found (way, offer), bad_fields, key_reused.
    """
    return once(write, lambda: actions.find_done(write), lambda: _take(write, data))


def _take(write: Write, data: out.TakeIn) -> Recorded:
    case = check(write.kitchen, data.case)
    read = find_offer(case, data.offer)
    if read is None:
        if case.reader.problems:
            raise refuse_fields(case.reader.problems)
        raise not_found(f"offer “{data.offer}”")
    start = typed.StartIn(
        name=data.name or name_of(read.input, case.way),
        bought=_bought(read, data),
        course="" if case.way is not None else data.case.course,
    )
    entry = actions.start_batch(write, start).entry
    batch = entry.batch
    if case.way is not None:
        put_way(write, batch, case.way.name)
    for index, content in enumerate(_terms(case), start=batch.last_sequence):
        step = typed.EntryIn.model_validate({"content": content, "seen": index})
        body = json.dumps(content, sort_keys=True)
        beside = Write(
            kitchen=write.kitchen,
            user=write.user,
            now=write.now,
            key=uuid.uuid5(write.key, f"terms {index}"),
            fingerprint=body[:64],
        )
        entry.batch = actions.record_entry(beside, batch.code, step).entry.batch
    return Recorded(entry=entry, was_there=False)


def _bought(read: ReadOffer, data: out.TakeIn) -> typed.BoughtIn:
    offer = read.input
    weight, price = data.weight, offer.price
    if offer.pack_weight:
        grams = read.offer.pack_grams
        assert grams is not None
        weight = offer.pack_weight if data.packs == 1 else f"{fixed(grams * data.packs, 2)} g"
        if offer.basis == "pack" and data.packs > 1:
            price = fixed(read.offer.price * grams * data.packs, 2)
    elif not weight:
        said = "Say what it weighs: the tag has a price by weight only."
        raise refuse_fields([FieldProblem(path="weight", code="missing", message=said)])
    return typed.BoughtIn(
        cut=_cut_words(read),
        label_weight=weight,
        price_basis=offer.basis,
        price=price,
        solution=offer.solution,
    )


def _cut_words(read: ReadOffer) -> str:
    """The cut with what the tag said of skin, bone and trim, so that the record has it."""
    words = [read.input.cut]
    low = read.input.cut.lower().replace("-", " ")
    forms = (
        {"on": "skin on", "off": "skinless"}.get(read.input.skin, ""),
        {
            "in": "bone in",
            "out": "boneless",
        }.get(read.input.bone, ""),
    )
    words += [form for form in forms if form and form not in low]
    if read.input.trimmed and "trimmed" not in low:
        words.append("trimmed")
    return ", ".join(words)[:80]


def _terms(case: Case) -> list[dict[str, object]]:
    """What the batch will be judged by: the shop's packs, the chosen one first, and the portion."""
    chosen = None if case.against is None else case.against.name
    packs = sorted(case.shops, key=lambda shop: (shop.item.name != chosen, shop.item.name))
    terms: list[dict[str, object]] = [_pack(shop) for shop in packs[:12]]
    if case.way is None:
        return terms
    way = WayIn.model_validate(case.way.input)
    if way.portion_slices or way.portion_weight or way.portion_cooked:
        terms.append(
            {
                "act": "portion",
                "slices": way.portion_slices,
                "weight": way.portion_weight,
                "cooked_weight": way.portion_cooked,
            }
        )
    return terms


def _pack(shop: Priced) -> dict[str, object]:
    latest = shop.latest
    assert latest.grams is not None
    fry = ""
    if shop.fryings:
        fry = fixed(sum(shop.fryings, Fraction(0)) / len(shop.fryings) * 100, 2)
    return {
        "act": "shop_pack",
        "name": shop.item.name[:40],
        "paid": f"{latest.paid.normalize():f}",
        "weight": f"{latest.grams.normalize():f} g",
        "slices": "" if latest.slices is None else str(latest.slices),
        "fry": fry,
    }
