"""From what was typed to rows: every quantity is read by the core, all faults are reported at once."""

from collections.abc import Iterator
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from itertools import count
from string import ascii_uppercase
from typing import Any, Protocol, cast

from dolmetsch.core.costing.sheet import Sheet
from dolmetsch.core.ledger.strands import is_heated_kind
from dolmetsch.core.numbers.exact import GRAMS_PER
from dolmetsch.core.numbers.quantity import GRAM_PLACES, MAX_MONEY, MONEY_PLACES
from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.entries.chain import EntryRows
from dolmetsch.server.batches.entries.reading_used import read_used
from dolmetsch.server.batches.entries.sources import find_source
from dolmetsch.server.batches.models import (
    LOT_MARK,
    Batch,
    Entry,
    ExtraLine,
    FryLine,
    LotLine,
    PolicyLine,
    PortionLine,
    ShopPackLine,
    Weighing,
)
from dolmetsch.server.quantities.columns import RATIO_PLACES
from dolmetsch.server.quantities.reader import Reader, as_decimal, round_decimal
from dolmetsch.server.quantities.temperatures import read_temperature, split_unit


class DraftedSources(Protocol):
    """Batches that are drafted and not written, by the name they go by."""

    def find(self, ident: str) -> tuple[Batch, Sheet] | None:
        """The batch and what it came to; None where there is none of that name."""


MAX_MINUTES = Fraction(100_000)


def free_marks(mark: str, *, is_lot: bool, taken: set[str]) -> Iterator[str]:
    """Marks for what comes of piece ``mark``: A, B, … of a lot, A1, A2 of A, A1A, A1B of A1."""
    lettered = is_lot or mark[-1:].isdigit()
    stem = "" if is_lot else mark
    for number in count():
        tail = _letters(number) if lettered else str(number + 1)
        if f"{stem}{tail}" not in taken:
            yield f"{stem}{tail}"


def _letters(number: int) -> str:
    more, last = divmod(number, 26)
    return (_letters(more - 1) if more else "") + ascii_uppercase[last]


def read_content(
    reader: Reader,
    entry: Entry,
    content: typed.Content,
    *,
    taken: set[str],
    sources: DraftedSources | None = None,
) -> EntryRows:
    """Unsaved rows of ``content`` below ``entry``; ``reader`` holds the faults, rows with faults lack.

    ``taken`` are the marks the rest of the batch has used; ``sources``: drafted batches that lots are taken
    from, in place of those on record.
    """
    entry.act = Entry.Act(content.act)
    if isinstance(content, typed.BoughtIn):
        return _read_bought(reader, entry, content, taken=taken, sources=sources)
    if isinstance(content, typed.PortionIn):
        return EntryRows(entry=entry, portion=_read_portion(reader, entry, content))
    if isinstance(content, typed.ShopPackIn):
        return EntryRows(entry=entry, shop_pack=_read_shop_pack(reader, entry, content))
    if isinstance(content, typed.FryIn):
        return EntryRows(entry=entry, fry=_read_fry(reader, entry, content))
    if isinstance(content, typed.PolicyIn):
        return EntryRows(entry=entry, policy=_read_policy(reader, entry, content))
    if isinstance(content, typed.CourseIn):
        entry.course, entry.marks = content.course, list(content.pieces)
        for index, mark in enumerate(content.pieces):
            if mark not in taken:
                reader.refuse(f"pieces[{index}]", "unknown_piece", f"There is no piece “{mark}” here.")
        return EntryRows(entry=entry)
    if isinstance(content, typed.WithdrawIn | typed.FinishIn):
        return EntryRows(entry=entry)
    return _read_step(reader, entry, content, taken=taken)


def _read_step(reader: Reader, entry: Entry, content: typed.Step, *, taken: set[str]) -> EntryRows:
    if reader.verbatim or reader.need("kind", content.kind, "Say what was done."):
        entry.kind = content.kind
    entry.minutes = reader.number(
        "minutes", content.minutes, what="number of minutes", limit=MAX_MINUTES, places=2
    )
    entry.overhead = reader.money("overhead", content.overhead) if content.overhead else None
    if isinstance(content, typed.HeatedStepIn):
        _read_heat(reader, entry, content)
    used = [line for line in (read_used(reader, entry, i, u) for i, u in enumerate(content.used)) if line]
    weighings: list[Weighing] = []
    match content:
        case typed.SplitIn():
            weighings = _read_split(reader, entry, content, taken=taken)
        case typed.WeighIn():
            weighings = _read_weights(reader, entry, content)
        case typed.MergeIn():
            weighings = [_read_merge(reader, entry, content, taken=taken)]
        case typed.DiscardIn():
            entry.marks, entry.charge, entry.note = list(content.pieces), content.charge, content.why
            if not content.pieces:
                reader.refuse("pieces", "empty", "Say which pieces are thrown away.")
    if not isinstance(content, typed.DiscardIn):
        entry.scale_grams, entry.scale_typed = reader.scale("scale", content.scale), content.scale
    return EntryRows(entry=entry, weighings=weighings, used=used)


def _read_heat(reader: Reader, entry: Entry, content: typed.HeatedStepIn) -> None:
    if not is_heated_kind(content.kind):
        for path, said in (("heat", content.heat), ("inside", content.inside)):
            if said:
                reader.refuse(path, "no_heat", "Only a smoke, a cook or a steaming has heat.")
        return
    entry.heat = content.heat
    unit = cast(TemperatureUnit, entry.batch.kitchen.temperature_unit)
    entry.inside_fahrenheit = read_temperature(reader, "inside", content.inside, unit)
    if entry.inside_fahrenheit is not None:
        # with its unit: the kitchen may change its own
        degrees, unit = split_unit(content.inside, unit)
        entry.inside_typed = f"{degrees} °{unit}"


def _read_merge(reader: Reader, entry: Entry, content: typed.MergeIn, *, taken: set[str]) -> Weighing:
    entry.marks = list(content.pieces)
    if not content.pieces:
        reader.refuse("pieces", "empty", "Say which pieces come together.")
    into = content.into
    mark = into.mark if reader.verbatim else into.mark.upper()
    row = Weighing(
        entry=entry,
        position=0,
        mark=mark or next(free_marks("mix", is_lot=False, taken=taken)).upper(),
        role=Weighing.Role.MAIN,
        typed=into.weight,
    )
    row.grams = reader.weight("into.weight", into.weight)
    row.slices = reader.slices("into.slices", into.slices)
    return row


def _read_bought(
    reader: Reader,
    entry: Entry,
    content: typed.BoughtIn,
    *,
    taken: set[str],
    sources: DraftedSources | None,
) -> EntryRows:
    reader.need("cut", content.cut, "Say which cut it is.")
    source = content.source
    if not source and not content.label_weight and not content.own_weight:
        reader.refuse("label_weight", "missing", "Give the weight on the label, on your scale, or both.")
        return EntryRows(entry=entry)
    label = reader.weight("label_weight", content.label_weight) if content.label_weight else None
    own = reader.weight("own_weight", content.own_weight) if content.own_weight else None
    price = reader.money("price", content.price or ("0" if source else ""))
    solution = reader.percent("solution", content.solution, what="share of solution")
    entry.scale_grams = reader.scale("scale", content.scale) if content.own_weight else None
    entry.scale_typed = content.scale
    extras = [_read_extra(reader, entry, index, extra) for index, extra in enumerate(content.extras)]
    origin, sheet = _read_source(reader, entry.batch, source, sources)
    if price is None or reader.problems:
        return EntryRows(entry=entry)
    lot = LotLine(
        entry=entry,
        mark=content.mark or next(_numbered(LOT_MARK, taken)),
        cut=content.cut,
        label_grams=label,
        label_typed=content.label_weight,
        own_grams=own,
        own_typed=content.own_weight,
        price_basis=content.price_basis,
        price=price,
        price_typed=content.price,
        paid=_paid(reader, content, price=price, charged=label if label is not None else own),
        solution_ratio=solution,
        bought_from="" if source else content.bought_from,
        **origin,
    )
    return EntryRows(entry=entry, lot=None if reader.problems else lot, extras=extras, source_sheet=sheet)


def _read_source(
    reader: Reader, batch: Batch, source: typed.SourceIn | None, sources: DraftedSources | None
) -> tuple[dict[str, Any], Sheet | None]:
    """Columns of the piece of another batch that a lot is, and what that batch comes to where it is drafted
    beside this one.
    """
    if source is None:
        return {}, None
    grams = reader.weight("source.weight", source.weight) if source.weight else None
    drafted = None if sources is None else sources.find(source.batch)
    from_batch, sheet = drafted or (find_source(reader, batch, source.batch), None)
    columns = {
        "from_batch": from_batch,
        "from_mark": source.piece,
        "from_grams": grams,
        "from_typed": source.weight,
    }
    return columns, sheet


def _paid(reader: Reader, content: typed.BoughtIn, *, price: Decimal, charged: Decimal | None) -> Decimal:
    """What was paid: the pack's price, or the price by weight of what was charged, as a till computes it."""
    paid = price
    if content.price_basis != "pack":
        if charged is None:
            reader.refuse("label_weight", "missing", "A price by weight needs a weight.")
            return price
        unit_grams = GRAMS_PER[content.price_basis.removeprefix("per_")]
        paid = _as_a_till(Fraction(price) * Fraction(charged) / unit_grams)
    if paid > MAX_MONEY:
        reader.refuse("price", "too_large", f"That comes to {paid}; check price and weight.")
    return paid


def _read_extra(reader: Reader, entry: Entry, index: int, extra: typed.ExtraIn) -> ExtraLine:
    path = f"extras[{index}]"
    if not reader.verbatim:
        reader.need(f"{path}.what", extra.what, "Say what it was for.")
    line = ExtraLine(entry=entry, position=index, what=extra.what, typed=extra.cost)
    line.cost = reader.money(f"{path}.cost", extra.cost)
    return line


def _as_a_till(money: Fraction) -> Decimal:
    """To the cent, halves up, as the shop's till charges a price by weight."""
    return (Decimal(money.numerator) / Decimal(money.denominator)).quantize(
        Decimal("0.01"), rounding=ROUND_HALF_UP
    )


def _read_split(reader: Reader, entry: Entry, content: typed.SplitIn, *, taken: set[str]) -> list[Weighing]:
    entry.from_mark = content.piece
    reader.need("piece", content.piece, "Say which piece was cut.")
    if not content.pieces:
        reader.refuse("pieces", "no_main", "Weigh at least one piece that stays.")
    named = {piece.mark.upper() for piece in content.pieces if piece.mark}
    is_lot = content.piece.partition(" ")[0] == LOT_MARK
    free = free_marks(content.piece, is_lot=is_lot, taken=taken | named)
    made = []
    for index, piece in enumerate(content.pieces):
        grams = reader.weight(f"pieces[{index}].weight", piece.weight)
        slices = reader.slices(f"pieces[{index}].slices", piece.slices)
        mark = (piece.mark if reader.verbatim else piece.mark.upper()) or next(free)
        if mark == LOT_MARK.upper() and not reader.verbatim:
            reader.refuse(
                f"pieces[{index}].mark", "same_mark", "“LOT” is what was bought; take another mark."
            )
        row = Weighing(entry=entry, position=index, mark=mark, role=Weighing.Role.MAIN, typed=piece.weight)
        row.grams, row.slices = grams, slices
        made.append(row)
    marks = taken | {row.mark for row in made}
    for index, cut in enumerate(content.cut_off):
        row = _read_cut_off(reader, entry, f"cut_off[{index}]", cut)
        row.position = len(content.pieces) + index
        row.mark = cut.mark or next(_numbered(cut.name, marks))
        marks.add(row.mark)
        made.append(row)
    return made


def _numbered(name: str, taken: set[str]) -> Iterator[str]:
    """The name, or with the first number that is not taken."""
    if name not in taken:
        yield name
    yield from (mark for number in count(2) if (mark := f"{name} {number}") not in taken)


def _read_cut_off(reader: Reader, entry: Entry, path: str, cut: typed.CutOffIn) -> Weighing:
    reader.need(f"{path}.name", cut.name, "Say what came off.")
    row = Weighing(
        entry=entry,
        role=Weighing.Role.BY_PRODUCT,
        typed=cut.weight,
        name=cut.name,
        material=cut.material,
        worth=cut.worth,
        worth_typed=cut.price if cut.worth == "price" else "",
    )
    row.grams = reader.weight(f"{path}.weight", cut.weight)
    if cut.worth == "price":
        price = reader.price_by_weight(f"{path}.price", cut.price)
        if price is not None and price.grams is not None:
            row.worth_paid = as_decimal(price.paid, MONEY_PLACES)
            row.worth_grams = as_decimal(price.grams, GRAM_PLACES)
    return row


def _read_weights(reader: Reader, entry: Entry, content: typed.WeighIn) -> list[Weighing]:
    if not content.weights:
        reader.refuse("weights", "empty", "Weigh at least one piece.")
    rows: list[Weighing] = []
    for index, line in enumerate(content.weights):
        if any(row.mark == line.mark for row in rows):
            reader.refuse(f"weights[{index}].mark", "same_mark", f"“{line.mark}” is weighed twice.")
            continue
        row = Weighing(
            entry=entry, position=index, mark=line.mark, role=Weighing.Role.SAME, typed=line.weight
        )
        row.grams = reader.weight(f"weights[{index}].weight", line.weight)
        rows.append(row)
    return rows


def _read_portion(reader: Reader, entry: Entry, content: typed.PortionIn) -> PortionLine | None:
    if [bool(content.slices), bool(content.weight), bool(content.cooked_weight)].count(True) != 1:
        said = "A portion is so many slices, a weight raw, or a weight cooked: give one of them."
        reader.refuse("slices", "one_of", said)
        return None
    line = PortionLine(entry=entry, typed=content.weight or content.cooked_weight)
    if content.slices:
        line.slices = reader.number(
            "slices", content.slices, what="count of slices", limit=Fraction(9999), places=2
        )
        if line.slices is not None and line.slices <= 0:
            reader.refuse("slices", "zero", "A portion of nothing has no price.")
    elif content.weight:
        line.grams = reader.weight("weight", content.weight)
    else:
        line.cooked_grams = reader.weight("cooked_weight", content.cooked_weight)
    return line


def _read_fry(reader: Reader, entry: Entry, content: typed.FryIn) -> FryLine | None:
    if content.raw or content.cooked:
        return _read_weighed_fry(reader, entry, content)
    if not reader.need("kept", content.kept, "Say how much is left after frying."):
        return None
    ratio = reader.percent("kept", content.kept, what="share left after frying")
    if ratio is not None and not ratio:
        reader.refuse("kept", "zero", "Something is left after frying; leave it out if it was not weighed.")
    return None if not ratio else FryLine(entry=entry, ratio=ratio, typed=content.kept)


def _read_weighed_fry(reader: Reader, entry: Entry, content: typed.FryIn) -> FryLine | None:
    if content.kept:
        reader.refuse("kept", "one_of", "Give the share that is left, or both weights.")
        return None
    weighed = reader.frying(content.raw, content.cooked)
    if weighed is None:
        return None
    raw, cooked = weighed
    ratio = round_decimal(Fraction(cooked) / Fraction(raw), RATIO_PLACES)
    return FryLine(entry=entry, ratio=ratio, raw_typed=content.raw, cooked_typed=content.cooked)


def _read_policy(reader: Reader, entry: Entry, content: typed.PolicyIn) -> PolicyLine:
    rate = reader.number("labour_rate", content.labour_rate, what="wage", limit=Fraction(100_000), places=2)
    return PolicyLine(
        entry=entry,
        labour_rate=rate,
        credit_by_products=content.by_products,
        count_fuel=content.fuel,
        count_packaging=content.packaging,
        count_overhead=content.overhead,
    )


def _read_shop_pack(reader: Reader, entry: Entry, content: typed.ShopPackIn) -> ShopPackLine | None:
    if not reader.verbatim:
        reader.need("name", content.name, "Say which kind it is: cheap, good, best.")
    paid = reader.money("paid", content.paid)
    grams = reader.weight("weight", content.weight)
    slices = reader.slices("slices", content.slices)
    fry = reader.percent("fry", content.fry, what="share left after frying")
    if fry is not None and not fry:
        reader.refuse("fry", "zero", "Something is left after frying; leave it empty if it was not tried.")
    if paid is None or grams is None:
        return None
    return ShopPackLine(
        entry=entry,
        name=content.name,
        paid=paid,
        paid_typed=content.paid,
        grams=grams,
        typed=content.weight,
        slices=slices,
        fry_ratio=fry,
    )
