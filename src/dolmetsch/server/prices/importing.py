"""Bringing in a price list: a price that is there already (line, source, day, paid, size) is left alone."""

from collections.abc import Iterable, Sequence
from datetime import date
from fractions import Fraction
from statistics import median
from typing import Final

from dolmetsch.core.buying.price_history import is_odd
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices import schemas
from dolmetsch.server.prices.matching import (
    FaultyRow,
    ReadRow,
    ask_cents,
    find_decimal,
    guess_columns,
    read_rows,
)
from dolmetsch.server.prices.models import PriceFile, PriceItem, Quote, SourceMatch
from dolmetsch.server.prices.queries import price_text, show_per
from dolmetsch.server.prices.reading import put_price
from dolmetsch.server.problems import FieldProblem, refuse_fields
from dolmetsch.server.quantities.columns import RATIO_PLACES
from dolmetsch.server.quantities.lengths import SOURCE_LENGTH
from dolmetsch.server.quantities.reader import round_decimal
from dolmetsch.server.tables.reading import Cell, read_table
from dolmetsch.server.tables.schemas import FaultyRowOut
from dolmetsch.server.tables.uploaded import SAMPLE
from dolmetsch.server.tables.uploading import Counts, TableKind, keep_upload
from dolmetsch.server.writing.kept import called_so
from dolmetsch.server.writing.once import Write

FAULTS_SHOWN: Final = 500
TWICE_TOLD: Final = 12
Identity = tuple[str, str, date, Fraction, Fraction, bool]


def upload(write: Write, *, name: str, source: str, content: bytes) -> schemas.FileOut:
    """Keep an uploaded list, ready to be matched; no price is written.

    Raises:
        DomainError: too_large, bad_file, bad_fields, key_reused.
    """
    source = " ".join(source.split())
    if not source or len(source) > SOURCE_LENGTH or not source.isprintable():
        said = f"Say whose list this is, in at most {SOURCE_LENGTH} letters."
        raise refuse_fields([FieldProblem(path="source", code="missing", message=said)])
    kept = keep_upload(write, PRICE_LIST, read_table(name, content), name=name, source=source)
    return show_file(kept, today=write.today)


def show_file(kept: PriceFile, *, today: date) -> schemas.FileOut:
    """A list with the match confirmed, remembered of its source, or guessed."""
    remembered = called_so(
        SourceMatch.objects.filter(kitchen_id=kept.kitchen_id), [kept.source], column="source"
    ).first()
    match = schemas.MatchIn(columns=guess_columns(kept.heads), on=today)
    is_remembered = False
    if kept.match:
        match = schemas.MatchIn.model_validate(kept.match)
    elif remembered is not None:
        remembered_match = {**remembered.match, "on": today}
        # by the words of the heads, for columns move
        columns = {
            target: kept.heads.index(head)
            for target, head in remembered_match["columns"].items()
            if head in kept.heads
        }
        is_remembered = bool(columns)
        if is_remembered:
            match = schemas.MatchIn.model_validate({**remembered_match, "columns": columns})
    return schemas.FileOut(
        source=kept.source,
        match=match,
        is_remembered=is_remembered,
        **kept.show_progress(),
    )


def preview(kept: PriceFile, match: schemas.MatchIn, *, today: date) -> schemas.FilePreviewOut:
    """What writing the list by ``match`` would do; nothing is written."""
    decimal = find_decimal(match, kept.table)
    problems = _problems_of(kept, match)
    answer = schemas.FilePreviewOut(
        problems=problems,
        sample=[],
        asks_cents=ask_cents(match, kept.table),
        decimal=decimal,
    )
    if problems:
        return answer
    known = _known(kept)
    fresh: list[ReadRow] = []
    days: dict[tuple[str, str, date], tuple[int, Identity]] = {}
    for read in read_rows(kept.table, match, decimal=decimal, today=today):
        if isinstance(read, FaultyRow):
            answer.faulty += 1
            if len(answer.faults) < FAULTS_SHOWN:
                message = read.finding.message
                answer.faults.append(FaultyRowOut(row=read.row, cells=read.cells, message=message))
            continue
        is_known = read.identity in known
        answer.known += is_known
        answer.new += not is_known
        if not is_known:
            _note_twice(answer.notes, days, read)
            fresh.append(read)
        known.add(read.identity)
        if len(answer.sample) < SAMPLE:
            answer.sample.append(_show_row(read, is_known=is_known))
    answer.notes += _describe_odd(kept, fresh)
    if len(answer.notes) > TWICE_TOLD:
        more = len(answer.notes) - TWICE_TOLD
        answer.notes = [*answer.notes[:TWICE_TOLD], f"… and {more} more like these."]
    return answer


def _problems_of(kept: PriceFile, match: schemas.MatchIn) -> list[FieldProblem]:
    problems = []
    for target, what in (("name", "what it is"), ("price", "its price")):
        if target not in match.columns:
            said = f"Choose the column for {what}."
            problems.append(FieldProblem(path=f"columns.{target}", code="missing", message=said))
    beyond = [target for target, at in match.columns.items() if at >= len(kept.heads)]
    problems += [
        FieldProblem(path=f"columns.{target}", code="not_found", message="That column is not in the file.")
        for target in beyond
    ]
    return problems


def _note_twice(
    notes: list[str], days: dict[tuple[str, str, date], tuple[int, Identity]], read: ReadRow
) -> None:
    day = (read.sort, same_name(read.name), read.on)
    if day in days:
        row, _ = days[day]
        said = f"Rows {row} and {read.row}: two prices of “{read.name}” on {read.on.isoformat()}. "
        notes.append(said + "Both are saved; the later row counts.")
    days[day] = (read.row, read.identity)


def _describe_odd(kept: PriceFile, fresh: Sequence[ReadRow]) -> list[str]:
    """Rows far off what their line usually costs: by the price list, else by three rows of this one."""
    by_line: dict[tuple[str, bool], list[Fraction]] = {}
    for read in fresh:
        by_line.setdefault(_line_of(read), []).append(read.price.paid / read.price.size)
    quotes = Quote.counting.filter(
        kitchen_id=kept.kitchen_id, item__name__in={read.name for read in fresh}
    ).values_list("item__sort", "item__name", "paid", "grams", "count")
    listed: dict[tuple[str, bool], list[Fraction]] = {}
    for sort, name, paid, grams, count in quotes:
        line = f"{sort} {same_name(name)}", grams is None
        listed.setdefault(line, []).append(Fraction(paid) / Fraction(grams or count or 1))
    notes, unit = [], kept.kitchen.weight_unit
    for read in fresh:
        line = _line_of(read)
        others = listed.get(line) or (by_line[line] if len(by_line[line]) > 2 else [])
        each = read.price.paid / read.price.size
        if others and is_odd(each, usual := median(others)):
            is_weighed = read.price.grams is not None
            now, then = (price_text(one, is_weighed=is_weighed, unit=unit) for one in (each, usual))
            said = f"“{read.name}” at {now} is far off the usual {then}. Is it the price of a pack?"
            notes.append(f"Row {read.row}: {said}")
    return notes


def _line_of(read: ReadRow) -> tuple[str, bool]:
    return f"{read.sort} {same_name(read.name)}", read.price.grams is None


def _show_row(read: ReadRow, *, is_known: bool) -> schemas.ReadRowOut:
    price = read.price
    return schemas.ReadRowOut(
        row=read.row,
        sort=read.sort,
        name=read.name,
        price=read.typed,
        per=show_per(price.paid / price.size, is_weighed=price.grams is not None),
        on=read.on,
        is_known=is_known,
    )


def _known(kept: PriceFile, items: Iterable[PriceItem] | None = None) -> set[Identity]:
    """Identities of the prices that are there already from this source."""
    mine = Quote.objects.filter(kitchen_id=kept.kitchen_id, is_withdrawal=False)
    quotes = called_so(mine, [kept.source], column="source")
    if items is not None:
        quotes = quotes.filter(item__in=list(items))
    rows = quotes.values_list("item__sort", "item__name", "seen_on", "paid", "grams", "count")
    return {
        (sort, same_name(name), on, Fraction(paid), Fraction(grams or count or 0), grams is None)
        for sort, name, on, paid, grams, count in rows
    }


def _find_problems_to_write(kept: PriceFile, match: schemas.MatchIn) -> list[FieldProblem]:
    problems = _problems_of(kept, match)
    # a list that was begun was asked about then
    if not kept.match and (asked := ask_cents(match, kept.table)):
        problems.append(FieldProblem(path="is_in_cents", code="ask", message=asked))
    return problems


def _remember(kept: PriceFile, match: schemas.MatchIn) -> None:
    kept_match = match.model_dump(mode="json", exclude={"on"})
    kept_match["columns"] = {target: kept.heads[at] for target, at in match.columns.items()}
    SourceMatch.objects.update_or_create(
        kitchen_id=kept.kitchen_id, source=kept.source, defaults={"match": kept_match}
    )


def _write_rows(write: Write, kept: PriceFile, match: schemas.MatchIn, table: list[list[Cell]]) -> Counts:
    decimal = find_decimal(match, kept.table)
    reads = list(read_rows(table, match, decimal=decimal, today=write.today))
    rows = [read for read in reads if isinstance(read, ReadRow)]
    items = _make_items(write.kitchen, rows)
    known = _known(kept, items.values())
    fresh: list[Quote] = []
    for read in rows:
        if read.identity in known:
            continue
        known.add(read.identity)
        quote = Quote(
            kitchen=write.kitchen,
            item=items[read.sort, read.name],
            source=kept.source,
            seen_on=read.on,
            typed=read.typed,
            slices=read.slices,
            solution_ratio=None if read.solution is None else round_decimal(read.solution, RATIO_PLACES),
            file=kept,
            recorded_at=write.now,
            recorded_by=write.user,
        )
        put_price(quote, read.price)
        fresh.append(quote)
    Quote.objects.bulk_create(fresh, batch_size=1_000)
    return Counts(added=len(fresh), known=len(rows) - len(fresh), faulty=len(reads) - len(rows))


def _make_items(kitchen: Kitchen, rows: Iterable[ReadRow]) -> dict[tuple[str, str], PriceItem]:
    """Lines by sort and name as written, made where there are none."""
    wanted = {(read.sort, read.name): read.kind for read in rows}
    names = {name for _, name in wanted}

    def find() -> dict[tuple[str, str], PriceItem]:
        found = called_so(PriceItem.objects.filter(kitchen=kitchen), names).order_by("-id")
        return {(item.sort, same_name(item.name)): item for item in found}

    there = find()
    missing = {key for key in wanted if (key[0], same_name(key[1])) not in there}
    PriceItem.objects.bulk_create(
        [
            PriceItem(kitchen=kitchen, sort=sort, name=name, kind=wanted[sort, name])
            for sort, name in sorted(missing)
        ],
        ignore_conflicts=True,
    )
    items = find()
    return {(sort, name): items[sort, same_name(name)] for sort, name in wanted}


PRICE_LIST: Final = TableKind(
    model=PriceFile,
    noun="list",
    piece_rows=2_000,
    find_problems=_find_problems_to_write,
    remember=_remember,
    write_rows=_write_rows,
)
