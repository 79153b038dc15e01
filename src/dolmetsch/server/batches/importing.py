"""Importing a batch document: checked whole, then told entry by entry through a cook's own actions."""

import uuid
from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction
from typing import Any, Final

from django.db import transaction
from pydantic import ValidationError

from dolmetsch.core.documents.batch_reading import BatchDocument, read_batch
from dolmetsch.core.documents.sheet_writing import Answer, write_sheet
from dolmetsch.core.documents.strict import Written, parse
from dolmetsch.core.errors import DolmetschError
from dolmetsch.core.sheet import compute_sheet
from dolmetsch.server.batches import schemas, typed
from dolmetsch.server.batches.actions import Recorded, find_done, record_entry, start_batch
from dolmetsch.server.batches.chain import build_chain, list_entry_rows
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.retelling import plain_fraction
from dolmetsch.server.kitchens.writing import Write
from dolmetsch.server.problems import DomainError

Json = dict[str, Any]
#: What a by-product may be drawn as; anything else is drawn as other.
MATERIALS: Final = frozenset({"skin", "lean", "fat", "bone", "waste", "ends", "other"})


def import_document(write: Write, text: str, *, dry_run: bool) -> schemas.ImportOut:
    """Make the batches of a document, those it takes from first; all of them or none.

    ``dry_run``: everything is done and shown, then taken back.

    Raises:
        DomainError: bad_document, or other_currency; with the place in the document.
    """
    try:
        raw = parse(text)
        document = read_batch(raw)
        expected = write_sheet(document, compute_sheet(document.batch))
    except DolmetschError as error:
        raise DomainError("bad_document", 422, "Not imported", f"{error}.") from error
    if document.currency not in (None, write.kitchen.currency):
        said = f"The document counts in {document.currency}, this kitchen in {write.kitchen.currency}."
        raise DomainError("other_currency", 422, "Not imported", said)
    assert isinstance(raw, dict)
    with transaction.atomic():
        if (done := find_done(write)) is not None:
            return schemas.ImportOut(written=True, batches=[_show(done)])
        made = _import_all(write, raw)
        _refuse_different(document, expected, made[-1])
        if dry_run:
            transaction.set_rollback(True)
    return schemas.ImportOut(written=not dry_run, batches=[_show(recorded) for recorded in made])


def _show(recorded: Recorded) -> schemas.ImportedOut:
    batch = recorded.batch
    return schemas.ImportedOut(
        code=batch.code,
        name=batch.name,
        cut=batch.cut,
        entries=len(batch.log),
        house=batch.house,
        strip=batch.strip,
        warnings=batch.warnings,
    )


def _import_all(write: Write, raw: Json) -> list[Recorded]:
    codes: dict[str, str] = {}
    made = []
    linked = raw.get("batches") or []
    for number, one in enumerate(linked):
        recorded = _import_one(
            replace(write, key=uuid.uuid5(write.key, f"batch {number}")),
            one,
            codes,
            place=f"batches[{number}].",
        )
        codes[one["id"]] = recorded.batch.code
        made.append(recorded)
    made.append(_import_one(write, raw, codes, place=""))
    return made


def _import_one(write: Write, told: Json, codes: dict[str, str], *, place: str) -> Recorded:
    lots = list(_tell_lots(told, codes))
    name = told.get("name") or lots[0][1]["cut"]
    start = {"name": name, "bought": lots[0][1], "happened_at": lots[0][2]}
    recorded = _telling(
        f"{place}{lots[0][0]}",
        lambda: start_batch(write, typed.StartIn.model_validate(start), verbatim=True),
    )
    code = recorded.batch.code
    rest = [*lots[1:], *_tell_terms(told), *_tell_steps(told)]
    for seen, (where, content, happened_at) in enumerate(rest, start=1):
        entry = {"content": content, "seen": seen, "happened_at": happened_at}
        mine = replace(write, key=uuid.uuid5(write.key, f"entry {seen}"))
        recorded = _telling(
            f"{place}{where}",
            lambda mine=mine, entry=entry: record_entry(
                mine, code, typed.EntryIn.model_validate(entry), verbatim=True
            ),
        )
    return recorded


def _telling(place: str, act: Any) -> Recorded:
    """Run one write; what it refuses is told with its place in the document."""
    try:
        return act()  # type: ignore[no-any-return]
    except ValidationError as error:
        fault = error.errors()[0]
        where = ".".join(str(part) for part in fault["loc"] if part not in ("content", "bought"))
        said = f"{place}, {where}: {fault['msg']}. This kitchen's book cannot keep that."
        raise DomainError("bad_document", 422, "Not imported", said) from error
    except DomainError as error:
        told = "; ".join(f"{field.path}: {field.message}" for field in error.fields) or error.detail
        raise DomainError("bad_document", 422, "Not imported", f"{place}: {told}") from error


Told = tuple[str, Json, str | None]


def _tell_lots(told: Json, codes: dict[str, str]) -> Iterator[Told]:
    for number, lot in enumerate(told["lots"]):
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
            "scale": lot.get("scale") or (told.get("scale") if lot.get("weight") else None) or "",
            "source": source
            and {
                "batch": codes[source["batch"]],
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


def _tell_terms(told: Json) -> Iterator[Told]:
    policy = told.get("policy") or {}
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
    if portion := told.get("portion"):
        content = {
            "act": "portion",
            "slices": _text(portion.get("slices")),
            "weight": portion.get("weight") or "",
            "cooked_weight": portion.get("cooked_weight") or "",
        }
        yield "portion", content, None
    if fry := told.get("fry_yield"):
        yield "fry_yield", {"act": "fry", "kept": _percent(fry)}, None
    for number, pack in enumerate(told.get("store") or []):
        content = {
            "act": "shop_pack",
            "name": pack.get("name") or "",
            "paid": pack["paid"].strip(),
            "weight": pack["weight"],
            "slices": _whole(pack.get("slices")),
            "fry": _percent(pack.get("fry_yield")),
        }
        yield f"store[{number}]", content, None


def _tell_steps(told: Json) -> Iterator[Told]:
    for number, step in enumerate(told.get("steps") or [], start=1):
        content: Json = {
            "kind": step.get("kind") or "",
            "minutes": _text(step.get("minutes")),
            "overhead": (step.get("overhead") or "").strip(),
            "scale": step.get("scale") or told.get("scale") or "",
            "used": [_tell_used(line) for line in step.get("used") or []],
        }
        yield f"step {number}", content | _tell_action(step), step.get("happened_at")
    if told.get("finished") is True:
        yield "finished", {"act": "finish"}, None


def _tell_action(step: Json) -> Json:
    if (piece := step.get("split")) is not None:
        mains = [out for out in step["into"] if out.get("role") != "by_product"]
        by_products = [out for out in step["into"] if out.get("role") == "by_product"]
        return {
            "act": "split",
            "piece": piece,
            "pieces": [_tell_main(out) for out in mains],
            "cut_off": [_tell_by_product(out) for out in by_products],
        }
    if (weights := step.get("weigh")) is not None:
        lines = [{"mark": mark, "weight": weight} for mark, weight in weights.items() if weight is not None]
        return {"act": "weigh", "weights": lines}
    if (pieces := step.get("merge")) is not None:
        return {"act": "merge", "pieces": pieces, "into": _tell_main(step["into"])}
    why = step.get("why") or ""
    return {"act": "discard", "pieces": step["pieces"], "charge": step["charge"], "why": why}


def _tell_main(out: Json) -> Json:
    return {"mark": out["id"], "weight": out["weight"], "slices": _whole(out.get("slices"))}


def _tell_by_product(out: Json) -> Json:
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


def _tell_used(line: Json) -> Json:
    amount = line.get("amount")
    return {
        "what": line.get("what") or line.get("group") or "something",
        "group": line.get("group") or "other",
        "amount": _text(line.get("count")) if amount is None else amount,
        "price": _price(line["price"]),
        "pieces": line.get("pieces") or [],
    }


def _refuse_different(document: BatchDocument, expected: Answer, recorded: Recorded) -> None:
    """What was written must come to what the document comes to, to the last printed digit."""
    batch = Batch.objects.select_related("kitchen").get(pk=recorded.entry.batch_id)
    record = build_chain(batch, list_entry_rows(batch)).batch
    found = write_sheet(replace(document, batch=record), compute_sheet(record))
    for answer in (expected, found):
        answer.pop("lineage", None)
    if found != expected:
        keys = ", ".join(key for key in expected if expected[key] != found.get(key))
        said = f"The book would come to other figures than the document ({keys}); nothing was written."
        raise DomainError("import_differs", 422, "Not imported", said)
