"""From what was typed to rows: every quantity is read by the core, all faults are told at once."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from itertools import count
from string import ascii_uppercase
from typing import TypeVar

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.exact import GRAMS_PER
from dolmetsch.core.quantity import (
    GRAM_PLACES,
    MAX_MONEY,
    MONEY_PLACES,
    Price,
    read_count,
    read_money,
    read_number,
    read_price,
    read_weight,
)
from dolmetsch.server.batches import schemas
from dolmetsch.server.batches.chain import EntryRows, used_record
from dolmetsch.server.batches.models import (
    LOT_MARK,
    Entry,
    LotLine,
    PortionLine,
    ShopPackLine,
    UsedLine,
    Weighing,
)
from dolmetsch.server.batches.printing import print_money, print_weight
from dolmetsch.server.problems import FieldProblem

T = TypeVar("T")
MAX_MINUTES = Fraction(100_000)
MAX_SLICES = Fraction(1_000_000)


@dataclass(slots=True)
class Reader:
    """Reads typed quantities, gathering what was understood and what was not."""

    unit: str
    readings: list[schemas.Reading] = field(default_factory=list)
    problems: list[FieldProblem] = field(default_factory=list)

    def refuse(self, path: str, code: str, message: str) -> None:
        """Note a fault at ``path``."""
        self.problems.append(FieldProblem(path=path, code=code, message=message))

    def _try(self, path: str, read: Callable[[], T]) -> T | None:
        try:
            return read()
        except QuantityError as error:
            self.refuse(path, error.reason, str(error))
            return None

    def need(self, path: str, typed: str, message: str) -> bool:
        """Whether something was typed; a fault if not."""
        if not typed:
            self.refuse(path, "missing", message)
        return bool(typed)

    def weight(self, path: str, typed: str, *, bare: bool = True) -> Decimal | None:
        """Grams, or None with a fault noted. ``bare``: a number alone is in the kitchen's unit."""
        if not self.need(path, typed, "A weight is missing."):
            return None
        grams = self._try(path, lambda: read_weight(typed, default_unit=self.unit if bare else None))
        if grams is None:
            return None
        self.readings.append(schemas.Reading(path=path, weight=print_weight(grams)))
        return as_decimal(grams, GRAM_PLACES)

    def money(self, path: str, typed: str) -> Decimal | None:
        """Money, or None with a fault noted."""
        if not self.need(path, typed, "A price is missing."):
            return None
        money = self._try(path, lambda: read_money(typed))
        return None if money is None else as_decimal(money, MONEY_PLACES)

    def price_by_weight(self, path: str, typed: str) -> Price | None:
        """A price by weight, or None with a fault noted."""
        if not self.need(path, typed, "A price is missing."):
            return None
        price = self._try(path, lambda: read_price(typed, default_unit=self.unit))
        if price is not None and price.grams is None:
            self.refuse(path, "unreadable", f"“{typed}” is a price for each; give one by weight")
            return None
        return price

    def number(self, path: str, typed: str, *, what: str, limit: Fraction, places: int) -> Decimal | None:
        """A plain number; None where nothing was typed, or with a fault noted."""
        if not typed:
            return None
        value = self._try(path, lambda: read_number(typed, what=what, limit=limit, places=places))
        return None if value is None else as_decimal(value, places)

    def slices(self, path: str, typed: str) -> int | None:
        """A count of slices, at least one; None where nothing was typed."""
        value = self.number(path, typed, what="count of slices", limit=MAX_SLICES, places=0)
        if value is not None and value < 1:
            self.refuse(path, "zero", "At least one slice, or leave it empty.")
            return None
        return None if value is None else int(value)


def as_decimal(value: Fraction, places: int) -> Decimal:
    """The decimal of a rational that has at most ``places`` decimals, exactly."""
    return Decimal(int(value * 10**places)).scaleb(-places)


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


def read_content(reader: Reader, entry: Entry, content: schemas.Content, *, taken: set[str]) -> EntryRows:
    """Unsaved rows of ``content`` below ``entry``; ``reader`` holds the faults, rows with faults lack.

    ``taken`` are the marks the rest of the batch has used.
    """
    entry.act = Entry.Act(content.act)
    if isinstance(content, schemas.BoughtIn):
        return EntryRows(entry=entry, lot=_read_bought(reader, entry, content))
    if isinstance(content, schemas.PortionIn):
        return EntryRows(entry=entry, portion=_read_portion(reader, entry, content))
    if isinstance(content, schemas.ShopPackIn):
        return EntryRows(entry=entry, shop_pack=_read_shop_pack(reader, entry, content))
    if isinstance(content, schemas.WithdrawIn):
        return EntryRows(entry=entry)
    if reader.need("kind", content.kind, "Say what was done."):
        entry.kind = content.kind
    entry.minutes = reader.number(
        "minutes", content.minutes, what="number of minutes", limit=MAX_MINUTES, places=2
    )
    used = [line for line in (_read_used(reader, entry, i, u) for i, u in enumerate(content.used)) if line]
    if isinstance(content, schemas.SplitIn):
        weighings = _read_split(reader, entry, content, taken=taken)
    else:
        weighings = _read_weights(reader, entry, content)
    return EntryRows(entry=entry, weighings=weighings, used=used)


def _read_bought(reader: Reader, entry: Entry, content: schemas.BoughtIn) -> LotLine | None:
    reader.need("cut", content.cut, "Say which cut it is.")
    if not content.label_weight and not content.own_weight:
        reader.refuse("label_weight", "missing", "Give the weight on the label, on your scale, or both.")
        return None
    label = reader.weight("label_weight", content.label_weight) if content.label_weight else None
    own = reader.weight("own_weight", content.own_weight) if content.own_weight else None
    price = reader.money("price", content.price)
    charged = label if label is not None else own
    if price is None or charged is None or reader.problems:
        return None
    paid = price
    if content.price_basis != "pack":
        unit_grams = GRAMS_PER[content.price_basis.removeprefix("per_")]
        paid = _as_a_till(Fraction(price) * Fraction(charged) / unit_grams)
    if paid > MAX_MONEY:
        reader.refuse("price", "too_large", f"That comes to {paid}; check price and weight.")
        return None
    return LotLine(
        entry=entry,
        mark=LOT_MARK,
        cut=content.cut,
        label_grams=label,
        label_typed=content.label_weight,
        own_grams=own,
        own_typed=content.own_weight,
        price_basis=content.price_basis,
        price=price,
        price_typed=content.price,
        paid=paid,
    )


def _as_a_till(money: Fraction) -> Decimal:
    """To the cent, halves up, as the shop's till charges a price by weight."""
    return (Decimal(money.numerator) / Decimal(money.denominator)).quantize(
        Decimal("0.01"), rounding=ROUND_HALF_UP
    )


def _read_split(reader: Reader, entry: Entry, content: schemas.SplitIn, *, taken: set[str]) -> list[Weighing]:
    entry.from_mark = content.piece
    reader.need("piece", content.piece, "Say which piece was cut.")
    if not content.pieces:
        reader.refuse("pieces", "no_main", "Weigh at least one piece that stays.")
    named = {piece.mark.upper() for piece in content.pieces if piece.mark}
    free = free_marks(content.piece, is_lot=content.piece == LOT_MARK, taken=taken | named)
    made = []
    for index, piece in enumerate(content.pieces):
        grams = reader.weight(f"pieces[{index}].weight", piece.weight)
        slices = reader.slices(f"pieces[{index}].slices", piece.slices)
        mark = piece.mark.upper() or next(free)
        if mark == LOT_MARK.upper():
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
        row.mark = next(name for name in _numbered(cut.name) if name not in marks)
        marks.add(row.mark)
        made.append(row)
    return made


def _numbered(name: str) -> Iterator[str]:
    yield name
    yield from (f"{name} {number}" for number in count(2))


def _read_cut_off(reader: Reader, entry: Entry, path: str, cut: schemas.CutOffIn) -> Weighing:
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


def _read_weights(reader: Reader, entry: Entry, content: schemas.WeighIn) -> list[Weighing]:
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


def _read_used(reader: Reader, entry: Entry, index: int, used: schemas.UsedIn) -> UsedLine | None:
    path = f"used[{index}]"
    reader.need(f"{path}.what", used.what, "Say what was used.")
    if not reader.need(f"{path}.price", used.price, "Say what it cost."):
        return None
    try:
        price, amount = _price_and_amount(used)
    except QuantityError as error:
        at_amount = error.reason == "missing" or (used.amount and error.found == used.amount)
        reader.refuse(f"{path}.{'amount' if at_amount else 'price'}", error.reason, str(error))
        return None
    line = UsedLine(
        entry=entry,
        position=index,
        what=used.what,
        cost_group=used.group,
        amount_typed=used.amount,
        price_typed=used.price,
        price_paid=as_decimal(price.paid, MONEY_PLACES),
    )
    if price.grams is not None:
        line.amount_grams = as_decimal(amount, GRAM_PLACES)
        line.price_grams = as_decimal(price.grams, GRAM_PLACES)
    elif price.count is not None:
        line.amount_count = as_decimal(amount, MONEY_PLACES)
        line.price_count = as_decimal(price.count, MONEY_PLACES)
    cost = used_record(line).cost
    if cost > MAX_MONEY:
        reader.refuse(f"{path}.price", "too_large", f"That comes to {print_money(cost)}; check the units.")
        return None
    reader.readings.append(schemas.Reading(path=f"{path}.price", money=print_money(cost)))
    return line


def _price_and_amount(used: schemas.UsedIn) -> tuple[Price, Fraction]:
    """Unit price and amount; a bare sum is for all of it, be it 95 g, 3 bags or nothing said."""
    if _is_bare(used.price):
        paid = read_money(used.price)
        if not used.amount:
            return Price(paid=paid, count=Fraction(1)), Fraction(1)
        if _is_counted(used.amount):
            amount = read_count(used.amount)
            return Price(paid=paid, count=amount), amount
        amount = read_weight(used.amount)
        return Price(paid=paid, grams=amount), amount
    price = read_price(used.price)
    if not used.amount:
        raise QuantityError("missing", used.price, "Say how much of it was used, or give one sum for all.")
    if price.count is not None:
        return price, read_count(used.amount)
    return price, read_weight(used.amount)


def _is_bare(price: str) -> bool:
    try:
        read_money(price)
    except QuantityError as error:
        return error.reason != "unreadable"
    return True


def _is_counted(amount: str) -> bool:
    try:
        read_count(amount)
    except QuantityError as error:
        return error.reason != "unreadable"
    return True


def _read_portion(reader: Reader, entry: Entry, content: schemas.PortionIn) -> PortionLine | None:
    if bool(content.slices) == bool(content.weight):
        reader.refuse("slices", "one_of", "A portion is so many slices or a weight: give one of them.")
        return None
    line = PortionLine(entry=entry, typed=content.weight)
    if content.slices:
        line.slices = reader.number(
            "slices", content.slices, what="count of slices", limit=Fraction(9999), places=2
        )
        if line.slices is not None and line.slices <= 0:
            reader.refuse("slices", "zero", "A portion of nothing has no price.")
    else:
        line.grams = reader.weight("weight", content.weight)
    return line


def _read_shop_pack(reader: Reader, entry: Entry, content: schemas.ShopPackIn) -> ShopPackLine | None:
    reader.need("name", content.name, "Say which kind it is: cheap, good, best.")
    paid = reader.money("paid", content.paid)
    grams = reader.weight("weight", content.weight)
    slices = reader.slices("slices", content.slices)
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
    )
