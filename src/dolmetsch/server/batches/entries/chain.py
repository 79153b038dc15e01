"""From rows to the core: a batch's entries as one core record, and its sheet.

``EntryRows`` is one entry with its lines, stored or about to be. Of each line of corrections the
latest counts, in the place of the first.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Final, Literal, cast

from django.db.models import prefetch_related_objects

from dolmetsch.core.costing.lineage import Taken, take_piece
from dolmetsch.core.costing.sheet import Sheet, compute_sheet
from dolmetsch.core.costing.strip import Strip, lay_out
from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger import batch as core
from dolmetsch.core.ledger.course import Course, CourseStatement, common_course, find_course
from dolmetsch.core.ledger.strands import Heat, Heated, is_heated_kind
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.server.batches.entries.chosen_way import course_of_way
from dolmetsch.server.batches.models import (
    Batch,
    Entry,
    ExtraLine,
    FryLine,
    LotLine,
    PolicyLine,
    PortionLine,
    ShopPackLine,
    UsedLine,
    Weighing,
)
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.writing.kept_answers import keep

Act = Entry.Act
#: Entries of a batch are kept as read for an hour.
KEPT_SECONDS: Final = 3600
STEP_ACTS: Final = (Act.SPLIT, Act.WEIGH, Act.MERGE, Act.DISCARD)


@dataclass(frozen=True, slots=True, kw_only=True)
class EntryRows:
    """One entry and the lines that belong to it.

    ``source_sheet``: what the batch a lot is taken from came to, where that is drafted only.
    """

    entry: Entry
    lot: LotLine | None = None
    extras: Sequence[ExtraLine] = ()
    weighings: Sequence[Weighing] = ()
    used: Sequence[UsedLine] = ()
    portion: PortionLine | None = None
    shop_pack: ShopPackLine | None = None
    fry: FryLine | None = None
    policy: PolicyLine | None = None
    source_sheet: Sheet | None = None

    @property
    def root_sequence(self) -> int:
        """Where in the batch's order this entry counts."""
        corrected = self.entry.corrects
        return self.entry.sequence if corrected is None else corrected.sequence


@dataclass(frozen=True, slots=True, kw_only=True)
class Chain:
    """A batch's entries as the core sees them.

    ``batch`` is the core's record; ``step_entries[i]`` is the entry behind its step i + 1, and
    ``lot_entries[i]`` that behind its lot i; ``current`` are the entries that count; ``statements`` what was
    said of what its pieces are to become.
    """

    batch: core.Batch
    step_entries: tuple[EntryRows, ...]
    lot_entries: tuple[EntryRows, ...]
    current: tuple[EntryRows, ...]
    statements: tuple[CourseStatement, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class CostedBatch:
    """A chain with what the core computed from it."""

    chain: Chain
    sheet: Sheet
    strip: Strip


def list_entry_rows(batch: Batch) -> list[EntryRows]:
    """All entries of ``batch`` in order, up to its last as it was read.

    Entries never change: what was read up to one of them is kept and good for as long as it is asked for.
    """
    return keep(("rows", batch.pk, batch.last_sequence), lambda: _read_rows(batch), seconds=KEPT_SECONDS)


def _read_rows(batch: Batch) -> list[EntryRows]:
    """Entries and their lines, in four queries."""
    entries = (
        Entry.objects.filter(batch=batch, sequence__lte=batch.last_sequence)
        .select_related("lot", "portion", "shop_pack", "fry", "policy")
        .order_by("sequence")
    )
    by_id = {entry.id: entry for entry in entries}
    weighings: dict[int, list[Weighing]] = {}
    for weighing in Weighing.objects.filter(entry__batch=batch).order_by("position"):
        weighings.setdefault(weighing.entry_id, []).append(weighing)
    used: dict[int, list[UsedLine]] = {}
    for line in UsedLine.objects.filter(entry__batch=batch).order_by("position"):
        used.setdefault(line.entry_id, []).append(line)
    extras: dict[int, list[ExtraLine]] = {}
    for extra in ExtraLine.objects.filter(entry__batch=batch).order_by("position"):
        extras.setdefault(extra.entry_id, []).append(extra)
    for entry in by_id.values():
        if entry.corrects_id is not None:
            entry.corrects = by_id[entry.corrects_id]
    return [
        EntryRows(
            entry=entry,
            lot=getattr(entry, "lot", None),
            extras=extras.get(entry.id, ()),
            weighings=weighings.get(entry.id, ()),
            used=used.get(entry.id, ()),
            portion=getattr(entry, "portion", None),
            shop_pack=getattr(entry, "shop_pack", None),
            fry=getattr(entry, "fry", None),
            policy=getattr(entry, "policy", None),
        )
        for entry in by_id.values()
    ]


def fetch_cooks(rows: Iterable[EntryRows]) -> None:
    """Read who recorded each of ``rows``, where they are to be named.

    A query of its own: joined to the entries, MariaDB begins with the few users and reads all that each of
    them ever recorded.
    """
    prefetch_related_objects([row.entry for row in rows], "recorded_by")


def list_current(rows: Iterable[EntryRows]) -> list[EntryRows]:
    """The entries that count: of each line of corrections the latest, unless it takes the line back.

    What is not read whole is asked for by ``Entry.current``, which says the same.
    """
    latest = {row.root_sequence: row for row in rows}
    return [row for _, row in sorted(latest.items()) if row.entry.act != Act.WITHDRAW]


def build_chain(batch: Batch, rows: Iterable[EntryRows]) -> Chain:
    """The chain of ``rows`` (in order of sequence), corrections applied, linked batches costed as they are.

    Raises:
        LedgerError: a lot is more of a piece of another batch than there is.
    """
    current = list_current(rows)
    steps = tuple(row for row in current if row.entry.act in STEP_ACTS)
    lots = tuple(row for row in current if row.lot is not None)
    portion = find_portion(current)
    fries = [Fraction(row.fry.ratio) for row in current if row.fry is not None]
    record = core.Batch(
        lots=tuple(_lot(row, row.lot, index) for index, row in enumerate(lots) if row.lot is not None),
        steps=tuple(_step(row) for row in steps),
        policy=read_policy(batch, current),
        portion=None if portion is None else portion_record(portion),
        fry_yield=sum(fries, Fraction(0)) / len(fries) if fries else None,
        shop=tuple(_shop_pack(row.shop_pack) for row in current if row.shop_pack is not None),
    )
    return Chain(
        batch=record,
        step_entries=steps,
        lot_entries=lots,
        current=tuple(current),
        statements=tuple(list_statements(batch, current)),
    )


def find_policy(current: Sequence[EntryRows]) -> PolicyLine | None:
    """The batch's own policy, the latest; None where it counts as the kitchen did."""
    return next((row.policy for row in reversed(current) if row.policy is not None), None)


def find_portion(current: Sequence[EntryRows]) -> PortionLine | None:
    """What is served: the latest portion recorded."""
    return next((row.portion for row in reversed(current) if row.portion is not None), None)


def read_policy(batch: Batch, current: Sequence[EntryRows]) -> core.Policy:
    """What the batch counts: its own latest policy, else the kitchen's on the day it was started."""
    return policy_record(find_policy(current) or batch)


def policy_record(row: PolicyLine | Batch | Kitchen) -> core.Policy:
    """What is counted, as the core reads it."""
    return core.Policy(
        labour_rate=None if row.labour_rate is None else Fraction(row.labour_rate),
        credit_by_products=row.credit_by_products,
        fuel=row.count_fuel,
        packaging=row.count_packaging,
        overhead=row.count_overhead,
    )


def cost_chain(chain: Chain) -> CostedBatch:
    """Sheet and strip of ``chain``.

    Raises:
        LedgerError: where an entry is impossible.
    """
    sheet = compute_sheet(chain.batch)
    course = _said_course(chain, sheet)
    return CostedBatch(chain=chain, sheet=sheet, strip=lay_out(chain.batch, sheet, course))


def list_statements(batch: Batch, current: Iterable[EntryRows]) -> list[CourseStatement]:
    """What was said of ``batch``, in order: by its entries that count (``current``), and by choosing a method
    that leads to something.
    """
    said = [row.entry for row in current if row.entry.act == Act.COURSE]
    statements = [
        CourseStatement(
            course=cast(Course, entry.course) if entry.course else None, marks=frozenset(entry.marks)
        )
        for entry in said
    ]
    chosen = batch.chosen_way
    by_way = None if chosen is None else course_of_way(chosen.way)
    if chosen is not None and by_way is not None:
        before = [entry for entry in said if entry.recorded_at and entry.recorded_at <= chosen.chosen_at]
        statements.insert(len(before), CourseStatement(course=by_way))
    return statements


def _said_course(chain: Chain, sheet: Sheet) -> Course | None:
    """What all pieces were said to become; None where they go different ways, or nobody said."""
    if not chain.statements:
        return None
    return common_course(find_course(piece.path, chain.statements) for piece in sheet.ledger.mains)


def take_upstream(lot: LotLine, *, field: str, sheet: Sheet | None = None) -> Taken:
    """What a linked lot takes of its batch as that stands now; ``sheet``: what it came to, where that is
    known.

    Raises:
        LedgerError: the piece is not there, or is lighter than what was taken.
    """
    batch = lot.from_batch
    if batch is None:
        raise ValueError("this lot is bought, not taken from a batch")
    if sheet is None:
        sheet = compute_sheet(build_chain(batch, list_entry_rows(batch)).batch)
    grams = None if lot.from_grams is None else Fraction(lot.from_grams)
    taken = take_piece(sheet, lot.from_mark, grams)
    if taken is None:
        text = f"{batch.code} has no piece “{lot.from_mark}” left to take"
        raise LedgerError("unknown_piece", field=f"{field}.piece", text=text)
    if taken.too_much:
        text = f"that is more than “{lot.from_mark}” of {batch.code} weighs"
        raise LedgerError("overweight", field=f"{field}.weight", text=text)
    return taken


def _lot(row: EntryRows, lot: LotLine, index: int) -> core.Lot:
    taken = None
    if lot.from_batch:
        taken = take_upstream(lot, field=f"lots[{index}].source", sheet=row.source_sheet)
    weighed = lot.own_grams if lot.own_grams is not None else lot.label_grams
    if weighed is None and taken is None:
        raise ValueError("a lot has at least one weight")
    scale = row.entry.scale_grams if lot.own_grams is not None else None
    return core.Lot(
        id=lot.mark,
        cut=lot.cut,
        grams=taken.grams if weighed is None and taken else Fraction(weighed or 0),
        label_grams=None if lot.label_grams is None else Fraction(lot.label_grams),
        paid=Fraction(lot.paid),
        extras=tuple(core.Extra(what=extra.what, cost=Fraction(extra.cost)) for extra in row.extras),
        solution=Fraction(lot.solution_ratio or 0),
        resolution_grams=None if scale is None else Fraction(scale),
        origin=core.Origin(batch=lot.from_batch.code, piece=lot.from_mark) if lot.from_batch else None,
        carried=taken.carried if taken else (),
    )


def _step(row: EntryRows) -> core.Step:
    entry = row.entry
    return core.Step(
        kind=entry.kind,
        action=_action(row),
        minutes=Fraction(entry.minutes or 0),
        used=tuple(used_record(line) for line in row.used),
        overhead=Fraction(entry.overhead or 0),
        resolution_grams=None if entry.scale_grams is None else Fraction(entry.scale_grams),
        heated=_heated(entry),
    )


def _heated(entry: Entry) -> Heated | None:
    if entry.act not in (Act.SPLIT, Act.WEIGH) or not is_heated_kind(entry.kind):
        return None
    inside = entry.inside_fahrenheit
    return Heated(
        kind=entry.kind,
        heat=cast(Heat, entry.heat) if entry.heat else None,
        inside_fahrenheit=None if inside is None else Fraction(inside),
    )


def _action(row: EntryRows) -> core.Action:
    entry = row.entry
    match entry.act:
        case Act.SPLIT:
            return core.Split(piece=entry.from_mark, into=tuple(_output(out) for out in row.weighings))
        case Act.MERGE:
            (into,) = row.weighings
            main = core.Main(id=into.mark, grams=Fraction(into.grams), slices=into.slices)
            return core.Merge(pieces=tuple(entry.marks), into=main)
        case Act.DISCARD:
            charge: Literal["batch", "loss"] = "loss" if entry.charge == "loss" else "batch"
            return core.Discard(pieces=tuple(entry.marks), charge=charge, why=entry.note)
    return core.Weigh(grams={line.mark: Fraction(line.grams) for line in row.weighings})


def _output(out: Weighing) -> core.Main | core.ByProduct:
    if out.role == Weighing.Role.MAIN:
        return core.Main(id=out.mark, grams=Fraction(out.grams), slices=out.slices)
    worth: Price | core.Worth = core.WORTH_NOTHING
    if out.worth == Weighing.Worth.AS_MAIN:
        worth = core.AS_MAIN
    elif out.worth_paid is not None:
        worth = Price(paid=Fraction(out.worth_paid), grams=Fraction(out.worth_grams))
    return core.ByProduct(
        id=out.mark, grams=Fraction(out.grams), worth=worth, name=out.name, material=out.material
    )


def used_record(line: UsedLine) -> core.Used:
    """A used line as the core reads it."""
    amount = line.amount_count if line.amount_grams is None else line.amount_grams
    price = Price(
        paid=Fraction(line.price_paid),
        grams=None if line.price_grams is None else Fraction(line.price_grams),
        count=None if line.price_count is None else Fraction(line.price_count),
        is_pack=line.is_pack,
    )
    return core.Used(
        what=line.what,
        amount=Fraction(amount or 0),
        price=price,
        group=line.cost_group,
        pieces=tuple(line.marks),
    )


def portion_record(line: PortionLine) -> core.Portion:
    """A portion as the core reads it."""
    if line.slices is not None:
        return core.Portion(slices=Fraction(line.slices))
    if line.cooked_grams is not None:
        return core.Portion(cooked_grams=Fraction(line.cooked_grams))
    return core.Portion(grams=Fraction(line.grams))


def _shop_pack(line: ShopPackLine) -> core.ShopPack:
    return core.ShopPack(
        name=line.name,
        paid=Fraction(line.paid),
        grams=Fraction(line.grams),
        slices=line.slices,
        fry_yield=None if line.fry_ratio is None else Fraction(line.fry_ratio),
    )
