"""Which pieces of a batch have to be cooked before they are eaten."""

from collections.abc import Sequence
from fractions import Fraction
from typing import cast

from dolmetsch.core.heat.raw import is_cooked, is_raw
from dolmetsch.core.ledger.kinds import method_kind
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.ledger.run_ledger import run
from dolmetsch.core.meat.cuts import safe_inside
from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.server.batches.entries.chain import (
    CostedBatch,
    EntryRows,
    build_chain,
    list_entry_rows,
)
from dolmetsch.server.batches.entries.chosen_way import methods_but_cure
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.models import Batch, LotLine
from dolmetsch.server.batches.models.fire_facts import fire_facts
from dolmetsch.server.quantities.temperatures import print_degrees


def list_raw(batch: Batch, costed: CostedBatch) -> set[str]:
    """The marks of living pieces that are raw, by their steps and the fires they were in."""
    return list_raw_of(batch, costed.sheet.ledger.mains, costed.chain.current)


def list_raw_of(batch: Batch, pieces: Sequence[Piece], current: Sequence[EntryRows]) -> set[str]:
    """Which of ``pieces`` of ``batch`` are raw; ``current``: its entries that count."""
    methods, followed = methods_but_cure(batch), fire_facts().cooked(batch)
    courses = courses_of(batch, pieces, current)
    lots = _lots_of(current)
    raw: set[str] = set()
    for piece in pieces:
        cooked = [
            strand
            for strand in piece.strands
            if any(
                is_cooked(
                    heated,
                    course=courses[piece.id],
                    methods=methods,
                    followed=followed,
                    safe_fahrenheit=safe_inside(lots[strand.lot].cut, piece.kinds),
                )
                for heated in strand.heats
            )
            or _came_cooked(lots[strand.lot])
        ]
        if is_raw(piece.kinds, piece.strands, cooked):
            raw.add(piece.id)
    return raw


def ask_heat(row: EntryRows, costed: CostedBatch) -> list[str]:
    """What is odd about a step that is to cook and read too cold inside for that; its pieces will be raw."""
    entry, inside = row.entry, row.entry.inside_fahrenheit
    if inside is None or (method_kind(entry.kind) == "smoke" and entry.heat != "hot"):
        return []
    marks = {line.mark for line in row.weighings}
    lots = _lots_of(costed.chain.current)
    safe = [
        safe_inside(lots[strand.lot].cut, piece.kinds)
        for piece in costed.sheet.ledger.mains
        if piece.id in marks
        for strand in piece.strands
    ]
    if not safe or inside >= max(safe):
        return []
    unit = cast(TemperatureUnit, entry.batch.kitchen.temperature_unit)
    read, least = (print_degrees(Fraction(one), unit) for one in (inside, max(safe)))
    return [
        f"{read} °{unit} inside: under {least} °{unit} it is not cooked, and is called raw. Is that right?"
    ]


def _lots_of(current: Sequence[EntryRows]) -> dict[str, LotLine]:
    return {row.lot.mark: row.lot for row in current if row.lot is not None}


def _came_cooked(lot: LotLine) -> bool:
    """Whether the lot is a piece of another batch that was cooked there."""
    if lot.from_batch is None:
        return False
    chain = build_chain(lot.from_batch, list_entry_rows(lot.from_batch))
    pieces = run(chain.batch).mains
    mine = [piece for piece in pieces if piece.id == lot.from_mark]
    if not mine:
        return False
    is_heated = any(strand.heats for strand in mine[0].strands)
    return is_heated and not list_raw_of(lot.from_batch, mine, chain.current)
