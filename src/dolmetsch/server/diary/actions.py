"""Writes: a note, a photo."""

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.diary import schemas
from dolmetsch.server.diary.models import Note, Photo
from dolmetsch.server.diary.pictures import keep_files, read_picture
from dolmetsch.server.problems import refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once


def write_note(write: Write, batch: Batch, data: schemas.NoteIn) -> Note:
    """Keep a note.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def keep() -> Note:
        happened_at = data.happened_at or write.now
        reader = Reader.of(write.kitchen)
        reader.need("text", data.text, "Add a note.")
        reader.happened("happened_at", happened_at, now=write.now)
        if reader.problems:
            raise refuse_fields(reader.problems)
        return Note.objects.create(
            batch=batch, mark=data.mark, text=data.text, happened_at=happened_at, **write.stamp
        )

    return keep_once(write, Note, keep)


def keep_photo(write: Write, batch: Batch, content: bytes, *, data: schemas.PhotoIn) -> Photo:
    """Add a photo: its files first, so that no row is without them.

    Raises:
        DomainError: no_photo, too_much, key_reused.
    """
    picture = read_picture(content)
    keep_files(picture)
    return keep_once(
        write,
        Photo,
        lambda: Photo.objects.create(
            batch=batch,
            mark=data.mark,
            note=data.note,
            digest=picture.digest,
            width=picture.width,
            height=picture.height,
            **write.stamp,
        ),
    )
