"""Bringing a table in: uploaded, matched and previewed with nothing written, then written piece by piece.

Each piece is one transaction that begins where the last one ended, so that a broken connection loses nothing
and doubles nothing.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Generic, TypeVar

from django.db import transaction
from ninja.files import UploadedFile

from dolmetsch.server.audit.noting import note_done
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError, FieldProblem, not_found, refuse_fields
from dolmetsch.server.quantities.lengths import FILE_NAME_LENGTH
from dolmetsch.server.quantities.typed import Body
from dolmetsch.server.tables.reading import MAX_BYTES, Cell, Table, too_large
from dolmetsch.server.tables.uploaded import UploadedTable
from dolmetsch.server.writing.once import Write, keep_once, lock_for

File = TypeVar("File", bound=UploadedTable)
Match = TypeVar("Match", bound=Body)


@dataclass(frozen=True, slots=True, kw_only=True)
class Counts:
    """What became of the rows of a piece: ``known`` were there already, ``faulty`` were left out."""

    added: int
    known: int
    faulty: int


@dataclass(frozen=True, slots=True, kw_only=True)
class TableKind(Generic[File, Match]):
    """A kind of table that is brought in: where it is kept, how many rows a piece has, how they are written.

    ``find_problems`` gives what has to be settled before the first row is written.
    """

    model: type[File]
    noun: str
    piece_rows: int
    find_problems: Callable[[File, Match], list[FieldProblem]]
    remember: Callable[[File, Match], None]
    write_rows: Callable[[Write, File, Match, list[list[Cell]]], Counts]


def read_upload(file: UploadedFile) -> bytes:
    """The content of an uploaded file.

    Raises:
        DomainError: too_large.
    """
    if file.size is not None and file.size > MAX_BYTES:
        raise too_large(file.size)
    return bytes(file.read())


def keep_upload(
    write: Write, kind: TableKind[File, Match], table: Table, *, name: str, **columns: object
) -> File:
    """Keep an uploaded table, ready to be matched; nothing of it is written. ``columns`` of the model alone.

    Raises:
        DomainError: key_reused.
    """

    def keep() -> File:
        return kind.model._default_manager.create(
            kitchen=write.kitchen,
            name="".join(sign for sign in name if sign.isprintable())[:FILE_NAME_LENGTH] or kind.noun,
            heads=table.heads,
            table=table.rows,
            rows_count=len(table.rows),
            notes=table.notes,
            uploaded_at=write.now,
            uploaded_by=write.user,
            key=write.key,
            fingerprint=write.fingerprint,
            **columns,
        )

    return keep_once(write, kind.model, keep)


def get_uploaded(kitchen: Kitchen, kind: TableKind[File, Match], file_id: int) -> File:
    """The uploaded table ``file_id``.

    Raises:
        DomainError: not_found.
    """
    kept = kind.model._default_manager.filter(kitchen=kitchen, pk=file_id).first()
    if kept is None:
        raise not_found(f"such {kind.noun}")
    return kept


def write_piece(
    write: Write, kind: TableKind[File, Match], file_id: int, *, from_row: int, match: Match
) -> File:
    """Write the next piece by a confirmed match. Sent again, it tells how far the table is.

    Raises:
        DomainError: not_found, bad_fields, moved_on (another match was confirmed before).
    """
    with transaction.atomic():
        # against the same piece sent twice at once: the second waits, and finds it written
        kept = (
            kind.model._default_manager.select_for_update().filter(kitchen=write.kitchen, pk=file_id).first()
        )
        if kept is None:
            raise not_found(f"such {kind.noun}")
        kept.kitchen = write.kitchen
        confirmed = match.model_dump(mode="json")
        if kept.match and kept.match != confirmed:
            said = (
                f"This {kind.noun} is being written by another match. "
                "Look at how far it is, or bring it in anew."
            )
            raise DomainError("moved_on", 409, "Begun already", said)
        if problems := kind.find_problems(kept, match):
            raise refuse_fields(problems)
        if from_row == kept.next_row and kept.next_row < kept.rows_count:
            if not kept.match:
                kept.match = confirmed
                kind.remember(kept, match)
            _write_rows(write, kind, kept, match)
            # last, so that others in the kitchen wait for this piece no longer than they must
            lock_for(write.kitchen, write.user, write.origin)
            note_done(write.origin, kitchen=write.kitchen, user=write.user, now=write.now, made=kept)
        return kept


def _write_rows(write: Write, kind: TableKind[File, Match], kept: File, match: Match) -> None:
    rows: list[list[Cell]] = kept.table[kept.next_row : kept.next_row + kind.piece_rows]
    counts = kind.write_rows(write, kept, match, rows)
    kept.next_row += len(rows)
    kept.added += counts.added
    kept.known += counts.known
    kept.faulty += counts.faulty
    kept.save(update_fields=["match", "next_row", "added", "known", "faulty"])
