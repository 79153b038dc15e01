"""A batch as an open document: the same records give the same bytes."""

import json
from collections.abc import Sequence
from decimal import Decimal
from fractions import Fraction
from typing import Any

from dolmetsch.core.documents.batch_reading import FORMAT
from dolmetsch.core.numbers.spelling import spell_price, spell_weight, spell_worth
from dolmetsch.server.batches.entries.chain import (
    STEP_ACTS,
    Act,
    EntryRows,
    list_current,
    list_entry_rows,
    read_policy,
)
from dolmetsch.server.batches.entries.describing import plain
from dolmetsch.server.batches.models import Batch, Entry, UsedLine, Weighing
from dolmetsch.server.batches.models.pack_facts import pack_facts
from dolmetsch.server.quantities.columns import RATIO_PLACES
from dolmetsch.server.quantities.reader import round_decimal
from dolmetsch.server.quantities.temperatures import split_unit

Json = dict[str, Any]


def export_batch(batch: Batch) -> bytes:
    """``batch`` and those it takes from, as a document; the same records give the same bytes."""
    upstream: dict[int, Json] = {}
    document: Json = {"format": FORMAT, "name": batch.name, "currency": batch.kitchen.currency}
    body = _write_body(batch, upstream)
    if upstream:
        document["batches"] = list(upstream.values())
    return (json.dumps(document | body, ensure_ascii=False, indent=1) + "\n").encode()


def _write_body(batch: Batch, upstream: dict[int, Json]) -> Json:
    current = list_current(list_entry_rows(batch))
    unit = batch.kitchen.weight_unit
    policy = read_policy(batch, current)
    rate = policy.labour_rate
    body: Json = {
        "policy": {
            "labour_rate": None if rate is None else _money(Decimal(rate.numerator) / rate.denominator),
            "by_products": "credit" if policy.credit_by_products else "none",
            "fuel": policy.fuel,
            "packaging": policy.packaging,
            "overhead": policy.overhead,
        },
        "lots": [_write_lot(row, unit, upstream) for row in current if row.lot is not None],
        "steps": [_write_step(row, unit) for row in current if row.entry.act in STEP_ACTS],
    }
    for row in current:
        if row.portion is not None:
            line = row.portion
            body["portion"] = (
                {"slices": _number(line.slices)}
                if line.slices is not None
                else {"cooked_weight" if line.grams is None else "weight": spell_weight(line.typed, unit)}
            )
        if row.shop_pack is not None:
            body.setdefault("store", []).append(_write_pack(row, unit))
    fries = [Fraction(row.fry.ratio) for row in current if row.fry is not None]
    if batch.packs_made:
        body |= pack_facts().write(batch)
    if any(row.entry.act == Act.FINISH for row in current):
        body["finished"] = True
    body |= _write_courses(current)
    if fries:
        body["fry_yield"] = plain(round_decimal(sum(fries, Fraction(0)) / len(fries), RATIO_PLACES))
    return body


def _write_courses(current: Sequence[EntryRows]) -> Json:
    """What the batch is to become, and its pieces that go another way."""
    course = ""
    courses: dict[str, str] = {}
    for row in current:
        if row.entry.act != Act.COURSE:
            continue
        if row.entry.marks:
            courses |= dict.fromkeys(row.entry.marks, row.entry.course)
        else:
            course, courses = row.entry.course, {}
    courses = {mark: said for mark, said in courses.items() if said}
    return ({"course": course} if course else {}) | ({"courses": courses} if courses else {})


def _without_none(document: Json) -> Json:
    return {key: value for key, value in document.items() if value is not None}


def _money(money: Decimal) -> str:
    """At least two decimals, more only where they matter."""
    text = plain(money)
    whole, _, cents = text.partition(".")
    return f"{whole}.{cents.ljust(2, '0')}"


def _number(number: Decimal) -> int | str:
    text = plain(number)
    return text if "." in text else int(text)


def _write_lot(row: EntryRows, unit: str, upstream: dict[int, Json]) -> Json:
    lot = row.lot
    assert lot is not None
    source = None
    if lot.from_batch is not None:
        ident = _ident_of(lot.from_batch, upstream)
        taken = spell_weight(lot.from_typed, unit) if lot.from_typed else None
        pack = lot.from_pack or None
        source = _without_none({"batch": ident, "piece": lot.from_mark, "weight": taken, "pack": pack})
    return _without_none(
        {
            "id": lot.mark,
            "cut": lot.cut,
            "from": source,
            "label_weight": spell_weight(lot.label_typed, unit) if lot.label_typed else None,
            "weight": spell_weight(lot.own_typed, unit) if lot.own_typed else None,
            "paid": _money(lot.paid),
            "extras": [{"what": extra.what, "cost": _money(extra.cost)} for extra in row.extras] or None,
            "solution": None if lot.solution_ratio is None else plain(lot.solution_ratio),
            "scale": _spell_scale(row.entry, unit),
            "bought_from": lot.bought_from or None,
            "bought_at": row.entry.happened_at.isoformat(),
        }
    )


def _ident_of(batch: Batch, upstream: dict[int, Json]) -> str:
    """The document's name for a linked batch, which is written before its taker."""
    if batch.pk not in upstream:
        body = _write_body(batch, upstream)
        upstream[batch.pk] = {"id": f"batch-{len(upstream) + 1}", "name": batch.name, **body}
    return str(upstream[batch.pk]["id"])


def _spell_scale(entry: Entry, unit: str) -> str | None:
    if entry.scale_typed:
        return spell_weight(entry.scale_typed, unit)
    return None if entry.scale_grams is None else f"{plain(entry.scale_grams)} g"


def _write_step(row: EntryRows, unit: str) -> Json:
    entry = row.entry
    step: Json = {"kind": entry.kind or None}
    match entry.act:
        case Act.SPLIT:
            step |= {"split": entry.from_mark, "into": [_write_output(out, unit) for out in row.weighings]}
        case Act.WEIGH:
            step["weigh"] = {line.mark: spell_weight(line.typed, unit) for line in row.weighings}
        case Act.MERGE:
            step |= {"merge": entry.marks, "into": _write_output(row.weighings[0], unit)}
        case Act.DISCARD:
            step |= {"pieces": entry.marks, "charge": entry.charge, "why": entry.note or None}
    step["heat"] = entry.heat or None
    if entry.inside_fahrenheit is not None:
        temp, degrees = split_unit(entry.inside_typed, "F")
        step["inside"] = {"temp": temp.replace("−", "-"), "unit": degrees}
    step["minutes"] = None if entry.minutes is None else _number(entry.minutes)
    step["overhead"] = None if entry.overhead is None else _money(entry.overhead)
    step["used"] = [_write_used(line, unit) for line in row.used] or None
    step["scale"] = _spell_scale(entry, unit)
    step["happened_at"] = entry.happened_at.isoformat()
    return _without_none(step)


def _write_used(line: UsedLine, unit: str) -> Json:
    key, amount, price = spell_price(line.price_typed, line.amount_typed, unit)
    document: Json = {"what": line.what, "group": line.cost_group, key: amount, "price": price}
    return document | ({"pieces": line.marks} if line.marks else {})


def _write_output(out: Weighing, unit: str) -> Json:
    document: Json = {"id": out.mark, "weight": spell_weight(out.typed, unit), "slices": out.slices}
    if out.role == Weighing.Role.BY_PRODUCT:
        document["role"] = "by_product"
        document["worth"] = {"nothing": "0", "as_main": "as_main"}.get(out.worth)
        if out.worth == Weighing.Worth.PRICE:
            document["worth"] = spell_worth(out.worth_typed, unit)
        document["name"] = None if out.name == out.mark else out.name
        document["material"] = None if out.material == "other" else out.material
    return _without_none(document)


def _write_pack(row: EntryRows, unit: str) -> Json:
    pack = row.shop_pack
    assert pack is not None
    return _without_none(
        {
            "name": pack.name,
            "paid": _money(pack.paid),
            "weight": spell_weight(pack.typed, unit),
            "slices": pack.slices,
            "fry_yield": None if pack.fry_ratio is None else plain(pack.fry_ratio),
        }
    )
