"""Importing a batch document: read whole into rows, costed once, and then written, or only shown."""

import uuid
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Any, Final, TypeVar

from pydantic import BaseModel, ValidationError

from dolmetsch.core.costing.sheet import Sheet, compute_sheet
from dolmetsch.core.documents.batch_reading import BatchDocument, read_batch, read_packs
from dolmetsch.core.documents.sheet_writing import Answer, write_sheet
from dolmetsch.core.documents.strict import Written, parse
from dolmetsch.core.errors import DolmetschError, LedgerError
from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.entries.chain import CostedBatch, EntryRows, build_chain, cost_chain
from dolmetsch.server.batches.entries.describing import plain_fraction
from dolmetsch.server.batches.entries.reading import read_content
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.models.pack_facts import pack_facts
from dolmetsch.server.batches.record.actions import find_done, marks_made, new_batch, next_code, save_drafted
from dolmetsch.server.batches.show import queries, schemas
from dolmetsch.server.batches.show.showing import show_house, show_strip, summarize
from dolmetsch.server.findings import show_findings
from dolmetsch.server.problems import DomainError, say_fault
from dolmetsch.server.quantities.lengths import MARK_LENGTH
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.quantities.visible import make_visible
from dolmetsch.server.writing.once import Write, once

Shape = TypeVar("Shape", bound=BaseModel)
#: More entries than this are no batch, and would take their time.
MAX_ENTRIES: Final = 2000
_LISTS: Final = ("lots", "steps", "store", "packs", "gone")
#: A batch's code until it is written.
NOT_YET: Final = "–"
Json = dict[str, Any]
#: What a by-product may be drawn as; anything else is drawn as other.
MATERIALS: Final = frozenset({"skin", "lean", "fat", "bone", "waste", "ends", "other"})


def import_document(
    write: Write, text: str, *, dry_run: bool, give_up: Callable[[], None] = lambda: None
) -> schemas.ImportOut:
    """Make the batches of a document, those it takes from first; all of them or none.

    Everything is read and computed in memory, once for a batch; only what is then to be written takes the
    kitchen's lock. ``dry_run``: it is shown and not written. ``give_up`` is called between entries, and
    raises where nobody waits for the answer any more.

    Raises:
        DomainError: bad_document, too_much (entries), or other_currency; with the place in the document.
    """
    try:
        raw = parse(text)
        _refuse_long(raw)
        # as every text is kept, so that the document and its records say the same
        raw = _as_kept(raw)
        document = read_batch(raw)
        expected = write_sheet(document, compute_sheet(document.batch))
    except DolmetschError as error:
        raise DomainError("bad_document", 422, "Not imported", f"{error}.") from error
    if document.currency not in (None, write.kitchen.currency):
        said = f"The document counts in {document.currency}, this kitchen in {write.kitchen.currency}."
        raise DomainError("other_currency", 422, "Not imported", said)
    assert isinstance(raw, dict)
    if not dry_run and (done := _find_written(write)) is not None:
        return done
    drafted = _draft_all(write, raw, give_up)
    _refuse_different(document, expected, drafted[-1])
    if dry_run:
        return schemas.ImportOut(written=False, batches=[_show_drafted(one) for one in drafted])
    return once(write, lambda: _find_written(write), lambda: write_drafted(write, drafted))


def _as_kept(value: object) -> object:
    if isinstance(value, dict):
        return {make_visible(name): _as_kept(one) for name, one in value.items()}
    if isinstance(value, list):
        return [_as_kept(one) for one in value]
    return make_visible(value) if isinstance(value, str) else value


def _find_written(write: Write) -> schemas.ImportOut | None:
    done = find_done(write)
    if done is None:
        return None
    return schemas.ImportOut(written=True, batches=[_show(queries.read_batch(done.entry.batch))])


@dataclass(slots=True, kw_only=True)
class Drafted:
    """A batch of a document, read and costed in memory."""

    batch: Batch
    rows: list[EntryRows]
    keys: list[uuid.UUID]
    costed: CostedBatch
    document: Json


def _refuse_long(raw: object) -> None:
    """More entries than any batch has: refused before anything is computed.

    Raises:
        DomainError: too_much.
    """
    if not isinstance(raw, dict):
        return
    parts = [raw, *(one for one in raw.get("batches") or [] if isinstance(one, dict))]
    count = sum(len(part[name]) for part in parts for name in _LISTS if isinstance(part.get(name), list))
    if count > MAX_ENTRIES:
        said = f"The document has {count} entries; at most {MAX_ENTRIES} are imported at once."
        raise DomainError("too_much", 413, "Too much at once", said)


def _show(batch: schemas.BatchOut) -> schemas.ImportedOut:
    return schemas.ImportedOut(
        code=batch.code,
        name=batch.name,
        cut=batch.cut,
        entries=len(batch.log),
        house=batch.house,
        strip=batch.strip,
        warnings=batch.warnings,
    )


def _show_drafted(drafted: Drafted) -> schemas.ImportedOut:
    batch, costed = drafted.batch, drafted.costed
    return schemas.ImportedOut(
        code=batch.code,
        name=batch.name,
        cut=costed.chain.batch.lots[0].cut,
        entries=len(drafted.rows),
        house=show_house(costed, is_finished=batch.is_finished),
        strip=show_strip(costed.strip, costed),
        warnings=show_findings(costed.sheet.ledger.warnings),
    )


def _draft_all(write: Write, raw: Json, give_up: Callable[[], None]) -> list[Drafted]:
    sources: dict[str, Drafted] = {}
    drafted = []
    for number, one in enumerate(raw.get("batches") or []):
        key = uuid.uuid5(write.key, f"batch {number}")
        made = _draft_one(write, one, sources, place=f"batches[{number}].", key=key, give_up=give_up)
        sources[one["id"]] = made
        drafted.append(made)
    drafted.append(_draft_one(write, raw, sources, place="", key=write.key, give_up=give_up))
    return drafted


def _draft_one(
    write: Write,
    document: Json,
    sources: dict[str, Drafted],
    *,
    place: str,
    key: uuid.UUID,
    give_up: Callable[[], None],
) -> Drafted:
    """One batch: every entry read into rows, then the whole costed once."""
    lots = list(_read_lots(document))
    first = lots[0]
    name = document.get("name") or first[1]["cut"]
    start = _typed(
        f"{place}{first[0]}", typed.StartIn, {"name": name, "bought": first[1], "happened_at": first[2]}
    )
    batch = new_batch(write.kitchen, start, now=write.now)
    batch.code = NOT_YET
    rows: list[EntryRows] = []
    taken: set[str] = set()
    for where, content, happened_at in [*lots, *_read_terms(document), *_read_steps(document)]:
        give_up()
        body = {"content": content, "seen": 0, "happened_at": happened_at}
        entry_in = _typed(f"{place}{where}", typed.EntryIn, body)
        entry = Entry(
            batch=batch,
            sequence=len(rows) + 1,
            happened_at=entry_in.happened_at or write.now,
            recorded_at=write.now,
            recorded_by=write.user,
        )
        reader = Reader.of(write.kitchen, verbatim=True)
        drafted = read_content(reader, entry, entry_in.content, taken=taken, sources=_Sources(sources))
        reader.happened("happened_at", entry.happened_at, now=write.now)
        if reader.problems:
            faults = "; ".join(f"{fault.path}: {fault.message}" for fault in reader.problems)
            raise DomainError("bad_document", 422, "Not imported", f"{place}{where}: {faults}")
        taken |= marks_made(drafted)
        rows.append(drafted)
    batch.last_sequence, batch.last_entry_at = len(rows), write.now
    bought = [row.lot for row in rows if row.lot is not None]
    for number, (lot, text) in enumerate(zip(bought, document["lots"], strict=True)):
        lot.from_pack = _read_pack(text, f"{place}lots[{number}]")
    try:
        costed = cost_chain(build_chain(batch, rows))
    except LedgerError as error:
        raise DomainError("bad_document", 422, "Not imported", f"{place}{error}.") from error
    summarize(batch, costed)
    keys = [key, *(uuid.uuid5(key, f"entry {seen}") for seen in range(1, len(rows)))]
    return Drafted(batch=batch, rows=rows, keys=keys, costed=costed, document=document)


class _Sources:
    """Linked batches of the document by its own ids, as drafted."""

    def __init__(self, drafted: dict[str, Drafted]) -> None:
        self._drafted = drafted

    def find(self, ident: str) -> tuple[Batch, Sheet] | None:
        """The batch, and what it came to."""
        found = self._drafted.get(ident)
        return None if found is None else (found.batch, found.costed.sheet)


def _typed(place: str, kind: type[Shape], body: Json) -> Shape:
    """A body in its shape; what does not fit is refused with its place in the document."""
    try:
        return kind.model_validate(body)
    except ValidationError as error:
        fault = error.errors()[0]
        where = ".".join(str(part) for part in fault["loc"] if part not in ("content", "bought"))
        said = f"{place}, {where}: {say_fault(fault)} This kitchen's records cannot hold that."
        raise DomainError("bad_document", 422, "Not imported", said) from error


def draft_document(write: Write, document: Json) -> Drafted:
    """One batch of a document that takes from no other, read and costed, nothing written.

    Raises:
        DomainError: bad_document.
    """
    return _draft_one(write, document, {}, place="", key=write.key, give_up=lambda: None)


def write_drafted(write: Write, drafted: Sequence[Drafted]) -> schemas.ImportOut:
    """Write what was drafted, under the kitchen's lock."""
    for one in drafted:
        one.batch.code = next_code(write.kitchen, one.rows[0].lot.cut if one.rows[0].lot else "")
        save_drafted(write, one.batch, one.rows, one.keys, one.costed)
        packs, gone = read_packs(one.document)
        if packs:
            mains = one.costed.sheet.ledger.mains
            pack_facts().read(replace(write, key=one.keys[0]), one.batch, one.document, packs, gone)
            pack_facts().renew(one.batch, mains)
    return schemas.ImportOut(written=True, batches=[_show_drafted(one) for one in drafted])


Described = tuple[str, Json, str | None]


def _read_lots(document: Json) -> Iterator[Described]:
    for number, lot in enumerate(document["lots"]):
        source = lot.get("from")
        content = {
            "act": "bought",
            "mark": lot["id"],
            "cut": lot.get("cut") or "meat",
            "label_weight": lot.get("label_weight") or "",
            "own_weight": lot.get("weight") or "",
            "price_basis": "pack",
            "price": (lot.get("paid") or "0").strip(),
            "extras": [
                {"what": extra.get("what") or "", "cost": extra["cost"].strip()}
                for extra in lot.get("extras") or []
            ],
            "solution": _percent(lot.get("solution")),
            "scale": lot.get("scale") or (document.get("scale") if lot.get("weight") else None) or "",
            "bought_from": lot.get("bought_from") or "",
            "source": source
            and {
                "batch": source["batch"],
                "piece": source["piece"],
                "weight": source.get("weight") or "",
            },
        }
        yield f"lots[{number}]", content, lot.get("bought_at")


def _percent(ratio: str | None) -> str:
    return "" if ratio is None else plain_fraction(Fraction(ratio.strip()) * 100)


def _text(number: object) -> str:
    """A JSON number or decimal text, as text; empty where there is none."""
    if number is None:
        return ""
    return number.text if isinstance(number, Written) else str(number).strip()


def _whole(number: object) -> str:
    """A whole number without needless zeros ("54.0" as "54")."""
    text = _text(number)
    return str(int(Fraction(text))) if text else ""


def _read_pack(lot: Json, place: str) -> str:
    """The pack a linked lot came out of; empty: none."""
    pack: str = (lot.get("from") or {}).get("pack") or ""
    if len(pack) > MARK_LENGTH:
        said = f"{place}.from.pack is longer than {MARK_LENGTH} letters."
        raise DomainError("bad_document", 422, "Not imported", said)
    return pack


def _read_terms(document: Json) -> Iterator[Described]:
    policy = document.get("policy") or {}
    yield (
        "policy",
        {
            "act": "policy",
            "labour_rate": (policy.get("labour_rate") or "").strip(),
            "by_products": policy.get("by_products") != "none",
            **{name: policy.get(name) is not False for name in ("fuel", "packaging", "overhead")},
        },
        None,
    )
    if portion := document.get("portion"):
        content = {
            "act": "portion",
            "slices": _text(portion.get("slices")),
            "weight": portion.get("weight") or "",
            "cooked_weight": portion.get("cooked_weight") or "",
        }
        yield "portion", content, None
    if fry := document.get("fry_yield"):
        yield "fry_yield", {"act": "fry", "kept": _percent(fry)}, None
    for number, pack in enumerate(document.get("store") or []):
        content = {
            "act": "shop_pack",
            "name": pack.get("name") or "",
            "paid": pack["paid"].strip(),
            "weight": pack["weight"],
            "slices": _whole(pack.get("slices")),
            "fry": _percent(pack.get("fry_yield")),
        }
        yield f"store[{number}]", content, None


def _read_steps(document: Json) -> Iterator[Described]:
    for number, step in enumerate(document.get("steps") or [], start=1):
        content: Json = {
            "kind": step.get("kind") or "",
            "minutes": _text(step.get("minutes")),
            "overhead": (step.get("overhead") or "").strip(),
            "scale": step.get("scale") or document.get("scale") or "",
            "used": [_read_used(line) for line in step.get("used") or []],
        }
        if inside := step.get("inside"):
            content["inside"] = f"{_text(inside['temp'])} {inside['unit']}"
        if heat := step.get("heat"):
            content["heat"] = heat
        yield f"step {number}", content | _read_action(step), step.get("happened_at")
    if course := document.get("course"):
        yield "course", {"act": "course", "course": course}, None
    for mark, course in (document.get("courses") or {}).items():
        if course:
            yield f"courses.{mark}", {"act": "course", "course": course, "pieces": [mark]}, None
    if document.get("finished") is True:
        yield "finished", {"act": "finish"}, None


def _read_action(step: Json) -> Json:
    if (piece := step.get("split")) is not None:
        mains = [out for out in step["into"] if out.get("role") != "by_product"]
        by_products = [out for out in step["into"] if out.get("role") == "by_product"]
        return {
            "act": "split",
            "piece": piece,
            "pieces": [_read_main(out) for out in mains],
            "cut_off": [_read_by_product(out) for out in by_products],
        }
    if (weights := step.get("weigh")) is not None:
        lines = [{"mark": mark, "weight": weight} for mark, weight in weights.items() if weight is not None]
        return {"act": "weigh", "weights": lines}
    if (pieces := step.get("merge")) is not None:
        return {"act": "merge", "pieces": pieces, "into": _read_main(step["into"])}
    why = step.get("why") or ""
    return {"act": "discard", "pieces": step["pieces"], "charge": step["charge"], "why": why}


def _read_main(out: Json) -> Json:
    return {"mark": out["id"], "weight": out["weight"], "slices": _whole(out.get("slices"))}


def _read_by_product(out: Json) -> Json:
    worth, material = out.get("worth"), out.get("material")
    content: Json = {
        "mark": out["id"],
        "name": out.get("name") or out["id"],
        "material": next((word for word in (material, out["id"]) if word in MATERIALS), "other"),
        "weight": out["weight"],
        "worth": "nothing",
    }
    if worth == "as_main":
        content["worth"] = "as_main"
    elif isinstance(worth, dict) or (worth and "/" in worth):
        content |= {"worth": "price", "price": _price(worth)}
    return content


def _price(price: str | Json) -> str:
    if isinstance(price, dict):
        return f"{price['paid'].strip()} for {price['for'].strip()}"
    return "".join(price.split())


def _read_used(line: Json) -> Json:
    amount = line.get("amount")
    return {
        "what": line.get("what") or line.get("group") or "something",
        "group": line.get("group") or "other",
        "amount": _text(line.get("count")) if amount is None else amount,
        "price": _price(line["price"]),
        "pieces": line.get("pieces") or [],
    }


def _refuse_different(document: BatchDocument, expected: Answer, drafted: Drafted) -> None:
    """What is written must come to what the document comes to, to the last printed digit."""
    record = drafted.costed.chain.batch
    found = write_sheet(replace(document, batch=record), drafted.costed.sheet)
    for answer in (expected, found):
        answer.pop("lineage", None)
    if found != expected:
        keys = ", ".join(key for key in expected if expected[key] != found.get(key))
        said = f"The records would come to other figures than the document ({keys}); nothing was written."
        raise DomainError("import_differs", 422, "Not imported", said)
