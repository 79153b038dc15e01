"""A page to print for one owner: what came in, what goes out, its yield, the charge by finished weight."""

from datetime import datetime
from fractions import Fraction
from pathlib import Path
from typing import Final, Literal

from django.template import Context, Engine

from dolmetsch.core.heat.raw import RAW_LABEL
from dolmetsch.core.numbers.exact import weigh_in
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.entries.raw import list_raw
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.pieces.table import Traced, read_owners, trace_pieces
from dolmetsch.server.problems import not_found, refuse_fields
from dolmetsch.server.quantities.calendar import print_year_day
from dolmetsch.server.quantities.printing import print_money, print_percent, print_weight, sign_of
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.quantities.units import UNITS

ENGINE: Final = Engine(dirs=[str(Path(__file__).parent / "templates")])


#: The weight that is charged by: what goes out, or what came in.
ChargedBy = Literal["out", "in"]


def write_owner_page(batch: Batch, owner: str, charge: str, now: datetime, by: ChargedBy = "out") -> str:
    """The page of ``owner`` as HTML; ``charge`` for a unit of weight as typed, ``by`` which; empty: none.

    Raises:
        DomainError: not_found (nothing here is theirs), bad_fields (the charge).
    """
    costed = cost_batch(batch)
    traced = trace_pieces(costed.chain.batch, costed.sheet)
    owners = read_owners(batch, traced)
    mine = [one for one in traced if same_name(owners[one.piece.id]) == same_name(owner)]
    if not owner or not mine:
        raise not_found(f"piece of “{owner}” in {batch.code}")
    kitchen = batch.kitchen
    unit = kitchen.weight_unit
    reader = Reader.of(kitchen)
    each = reader.money("charge", charge) if charge else None
    if reader.problems:
        raise refuse_fields(reader.problems)
    came_in = sum((one.came_in for one in mine), Fraction(0))
    out = sum((one.piece.grams for one in mine), Fraction(0))
    raw = list_raw(batch, costed)
    charged = out if by == "out" else came_in
    context = {
        "owner": owners[mine[0].piece.id],
        "batch": batch,
        "kitchen": kitchen,
        "day": print_year_day(now),
        "rows": [_show_row(one, unit) for one in mine],
        "came_in": print_weight(came_in).say(unit),
        "out": print_weight(out).say(unit),
        "kept": print_percent(out / came_in),
        "sign": sign_of(kitchen.currency),
        "each": None if each is None else print_money(Fraction(each)),
        "charge": None
        if each is None
        else print_money(Fraction(each) * weigh_in(charged, "lb" if unit == "lb" else "kg")),
        "charged": print_weight(charged).say(unit),
        "charged_by": "finished" if by == "out" else "as it came in",
        "word": UNITS["lb" if unit == "lb" else "kg"].word,
        "is_finished": batch.is_finished,
        "is_raw": any(one.piece.id in raw for one in mine),
        "raw": RAW_LABEL,
    }
    return str(ENGINE.get_template("owner.html").render(Context(context)))


def _show_row(one: Traced, unit: str) -> dict[str, str]:
    gain = one.pump_gain_ratio
    return {
        "mark": one.piece.id,
        "came_in": print_weight(one.came_in).say(unit),
        "gain": "" if gain is None else f"{print_percent(gain)} %",
        "out": print_weight(one.piece.grams).say(unit),
        "kept": print_percent(one.kept_ratio),
    }


def write_owner_pdf(batch: Batch, owner: str, charge: str, now: datetime, by: ChargedBy = "out") -> bytes:
    """The page as PDF.

    Raises:
        DomainError: not_found, bad_fields.
    """
    # slow to import, and needed for nothing else
    from weasyprint import HTML

    written = HTML(string=write_owner_page(batch, owner, charge, now, by)).write_pdf()
    assert isinstance(written, bytes)
    return written
