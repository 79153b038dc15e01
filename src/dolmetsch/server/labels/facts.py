"""What stands on a label: mark, batch, dates, what went in, and the address its code opens."""

import uuid
from dataclasses import dataclass
from datetime import datetime
from fractions import Fraction

from dolmetsch.core.curing.schools import SCHOOLS
from dolmetsch.core.heat.raw import RAW_LABEL
from dolmetsch.server.batches.entries.raw import list_raw
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.cures.queries import list_cures
from dolmetsch.server.larder.models import PackNow
from dolmetsch.server.pieces.table import owners_of
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.problems import DomainError, not_found
from dolmetsch.server.quantities.calendar import print_day, print_year_day
from dolmetsch.server.quantities.printing import print_weight

#: More are not printed at once.
MOST = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class LabelFacts:
    """One label. ``lines`` stand below the mark; a tub's mark are those of the pieces in it."""

    mark: str
    code: str
    name: str
    lines: tuple[str, ...]
    address: str


def gather_labels(batch: Batch, marks: list[str], *, root: str) -> list[LabelFacts]:
    """Labels of living pieces of ``batch``: of ``marks``, or of all where none is named.

    ``root``: the application's address, up to the path.

    Raises:
        DomainError: not_found (a piece), too_many.
    """
    costed = cost_batch(batch)
    mains = {piece.id: piece for piece in costed.sheet.ledger.mains}
    for mark in marks:
        if mark not in mains:
            raise not_found(f"piece “{mark}”, or it is no longer in use,")
    owners = owners_of(batch, costed.chain.batch, costed.sheet)
    wanted = marks or list(owners)
    if len(wanted) > MOST:
        raise DomainError("too_many", 422, "Too many", f"At most {MOST} labels at once.")
    cures: dict[str, PieceCure] = {}
    for cure in list_cures(batch):
        if getattr(cure, "taken_back", None) is None:
            cures.setdefault(cure.mark, cure)
    unit = batch.kitchen.weight_unit
    raw = list_raw(batch, costed)
    labels = []
    for mark in wanted:
        weight = print_weight(mains[mark].grams)
        weight_text = weight.say(unit)
        labels.append(
            LabelFacts(
                mark=mark,
                code=batch.code,
                name=batch.name,
                lines=(
                    *([owners[mark]] if owners[mark] else []),
                    *_cure_lines(cures.get(mark)),
                    weight_text,
                    *([RAW_LABEL] if mark in raw else []),
                ),
                address=f"{root}/bench/{batch.code}/piece/{mark}",
            )
        )
    return labels


def gather_tubs(batch: Batch, *, root: str) -> list[LabelFacts]:
    """Labels of tubs: one for all pieces of ``batch`` that went into one brine together and are in it still.

    Raises:
        DomainError: no_tub.
    """
    costed = cost_batch(batch)
    owners = owners_of(batch, costed.chain.batch, costed.sheet)
    mains = {piece.id for piece in costed.sheet.ledger.mains if "cure" not in piece.kinds}
    tubs: dict[tuple[uuid.UUID, str], list[PieceCure]] = {}
    for cure in list_cures(batch):
        is_in = cure.mark in mains and getattr(cure, "taken_back", None) is None
        if is_in and SCHOOLS[cure.school].method in ("brine", "pump_and_brine"):
            tubs.setdefault((cure.key, cure.school), []).append(cure)
    if not tubs:
        said = "No piece of this batch is under a brine, so there is no tub to label."
        raise DomainError("no_tub", 409, "No tub", said)
    return [
        LabelFacts(
            mark="·".join(sorted(cure.mark for cure in cures)),
            code=batch.code,
            name=batch.name,
            lines=(
                *sorted({owners[cure.mark] for cure in cures if owners[cure.mark]}),
                *_cure_lines(cures[0]),
                "tub: turn the pieces, keep them under",
            ),
            address=f"{root}/bench/{batch.code}/diary",
        )
        for cures in tubs.values()
    ]


def gather_pack_labels(batch: Batch, marks: list[str], *, root: str) -> list[LabelFacts]:
    """Labels of packs of ``batch``: of ``marks``, or of all that are not gone where none is named.

    Raises:
        DomainError: not_found (a pack), too_many, no_packs.
    """
    rows = PackNow.objects.filter(pack__batch=batch, pack__canceled__isnull=True).select_related("pack")
    packs = {row.pack.mark: row for row in rows.order_by("pack__number")}
    for mark in marks:
        if mark not in packs:
            raise not_found(f"pack “{batch.code} {mark}”")
    wanted = marks or [mark for mark, row in packs.items() if not row.is_gone]
    if not wanted:
        raise DomainError("no_packs", 409, "No packs", "No pack of this batch is left to label.")
    if len(wanted) > MOST:
        raise DomainError("too_many", 422, "Too many", f"At most {MOST} labels at once.")
    costed = cost_batch(batch)
    owners = owners_of(batch, costed.chain.batch, costed.sheet)
    return [
        _label_pack(batch, packs[mark], owner=owners.get(packs[mark].pack.piece, ""), root=root)
        for mark in wanted
    ]


def _label_pack(batch: Batch, now: PackNow, *, owner: str, root: str) -> LabelFacts:
    pack = now.pack
    weight = print_weight(Fraction(pack.grams)).say(batch.kitchen.weight_unit)
    until = now.keep_until
    word = "best by" if now.state == "frozen" else "use by"
    lines = [
        *([owner] if owner else []),
        weight if pack.slices is None else f"{pack.slices} slices, {weight}",
        f"packed {print_day(pack.packed_at)}",
        *([] if until is None else [f"{word} {print_year_day(until)}"]),
        *([RAW_LABEL] if now.is_raw else []),
    ]
    return LabelFacts(
        mark=pack.mark,
        code=batch.code,
        name=pack.product,
        lines=tuple(lines),
        address=f"{root}/slice/pack/{batch.code}/{pack.mark}",
    )


def _out_day(cure: PieceCure) -> datetime:
    """The day it comes out: as planned now, else as chosen at the desk."""
    tasks = PlannedTask.objects.filter(batch=cure.batch_id, key=cure.key, kind="out").exclude(state="dropped")
    planned = next((task for task in tasks.order_by("-id") if cure.mark in task.marks), None)
    return cure.out_at if planned is None else planned.due_at


def _cure_lines(cure: PieceCure | None) -> list[str]:
    if cure is None:
        return []
    return [
        f"in {print_day(cure.in_at)}",
        f"out {print_day(_out_day(cure))}",
        f"window {print_day(cure.first_at)} to {print_day(cure.last_at)}",
        cure.answer["school"],
    ]
