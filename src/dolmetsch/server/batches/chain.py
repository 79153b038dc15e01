"""From rows to the core: a batch's entries as one core record, and its sheet.

``EntryRows`` is one entry with its lines, stored or about to be. Of each line of corrections the
latest counts, in the place of the first.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction

from dolmetsch.core import batch as core
from dolmetsch.core.quantity import Price
from dolmetsch.core.sheet import Sheet, compute_sheet
from dolmetsch.core.strip import Strip, lay_out
from dolmetsch.server.batches.models import (
    Batch,
    Entry,
    LotLine,
    PortionLine,
    ShopPackLine,
    UsedLine,
    Weighing,
)

Act = Entry.Act


@dataclass(frozen=True, slots=True, kw_only=True)
class EntryRows:
    """One entry and the lines that belong to it."""

    entry: Entry
    lot: LotLine | None = None
    weighings: Sequence[Weighing] = ()
    used: Sequence[UsedLine] = ()
    portion: PortionLine | None = None
    shop_pack: ShopPackLine | None = None

    @property
    def root_sequence(self) -> int:
        """Where in the batch's order this entry counts."""
        corrected = self.entry.corrects
        return self.entry.sequence if corrected is None else corrected.sequence


@dataclass(frozen=True, slots=True, kw_only=True)
class Chain:
    """A batch's entries as the core sees them.

    ``batch`` is the core's record; ``step_entries[i]`` is the entry behind its step i + 1;
    ``current`` are the entries that count.
    """

    batch: core.Batch
    step_entries: tuple[EntryRows, ...]
    current: tuple[EntryRows, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Reckoning:
    """A chain with what the core computed from it."""

    chain: Chain
    sheet: Sheet
    strip: Strip


def list_entry_rows(batch: Batch) -> list[EntryRows]:
    """All entries of ``batch`` in order, in three queries."""
    entries = (
        Entry.objects.filter(batch=batch)
        .select_related("lot", "portion", "shop_pack", "recorded_by")
        .order_by("sequence")
    )
    by_id = {entry.id: entry for entry in entries}
    weighings: dict[int, list[Weighing]] = {}
    for weighing in Weighing.objects.filter(entry__batch=batch).order_by("position"):
        weighings.setdefault(weighing.entry_id, []).append(weighing)
    used: dict[int, list[UsedLine]] = {}
    for line in UsedLine.objects.filter(entry__batch=batch).order_by("position"):
        used.setdefault(line.entry_id, []).append(line)
    for entry in by_id.values():
        if entry.corrects_id is not None:
            entry.corrects = by_id[entry.corrects_id]
    return [
        EntryRows(
            entry=entry,
            lot=getattr(entry, "lot", None),
            weighings=weighings.get(entry.id, ()),
            used=used.get(entry.id, ()),
            portion=getattr(entry, "portion", None),
            shop_pack=getattr(entry, "shop_pack", None),
        )
        for entry in by_id.values()
    ]


def list_current(rows: Iterable[EntryRows]) -> list[EntryRows]:
    """The entries that count: of each line of corrections the latest, unless it takes the line back."""
    latest = {row.root_sequence: row for row in rows}
    return [row for _, row in sorted(latest.items()) if row.entry.act != Act.WITHDRAW]


def build_chain(batch: Batch, rows: Iterable[EntryRows]) -> Chain:
    """The chain of ``rows`` (in order of sequence), corrections applied."""
    current = list_current(rows)
    steps = tuple(row for row in current if row.entry.act in (Act.SPLIT, Act.WEIGH))
    portions = [row.portion for row in current if row.portion is not None]
    packs = [row.shop_pack for row in current if row.shop_pack is not None]
    record = core.Batch(
        lots=tuple(_lot(row.lot) for row in current if row.lot is not None),
        steps=tuple(_step(row) for row in steps),
        policy=core.Policy(
            labour_rate=None if batch.labour_rate is None else Fraction(batch.labour_rate),
            credit_by_products=batch.credit_by_products,
            fuel=batch.count_fuel,
            packaging=batch.count_packaging,
            overhead=batch.count_overhead,
        ),
        portion=_portion(portions[-1]) if portions else None,
        shop=(_shop_pack(packs[-1]),) if packs else (),
    )
    return Chain(batch=record, step_entries=steps, current=tuple(current))


def reckon(chain: Chain) -> Reckoning:
    """Sheet and strip of ``chain``.

    Raises:
        LedgerError: where an entry is impossible.
    """
    sheet = compute_sheet(chain.batch)
    return Reckoning(chain=chain, sheet=sheet, strip=lay_out(chain.batch, sheet))


def lot_grams(lot: LotLine) -> Fraction:
    """What the lot weighs here: by the own scale where weighed, else by its label."""
    grams = lot.own_grams if lot.own_grams is not None else lot.label_grams
    if grams is None:
        raise ValueError("a lot has at least one weight")
    return Fraction(grams)


def _lot(lot: LotLine) -> core.Lot:
    return core.Lot(id=lot.mark, cut=lot.cut, grams=lot_grams(lot), paid=Fraction(lot.paid))


def _step(row: EntryRows) -> core.Step:
    entry = row.entry
    action: core.Split | core.Weigh
    if entry.act == Act.SPLIT:
        action = core.Split(piece=entry.from_mark, into=tuple(_output(out) for out in row.weighings))
    else:
        action = core.Weigh(grams={line.mark: Fraction(line.grams) for line in row.weighings})
    return core.Step(
        kind=entry.kind,
        action=action,
        minutes=Fraction(entry.minutes or 0),
        used=tuple(used_record(line) for line in row.used),
    )


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
    )
    return core.Used(what=line.what, amount=Fraction(amount or 0), price=price, group=line.cost_group)


def _portion(line: PortionLine) -> core.Portion:
    if line.slices is not None:
        return core.Portion(slices=Fraction(line.slices))
    return core.Portion(grams=Fraction(line.grams))


def _shop_pack(line: ShopPackLine) -> core.ShopPack:
    return core.ShopPack(
        name=line.name, paid=Fraction(line.paid), grams=Fraction(line.grams), slices=line.slices
    )
