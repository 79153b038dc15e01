"""Says what a piece is to become, where something else that is recorded says it."""

import uuid
from dataclasses import replace

from dolmetsch.core.ledger.course import Course
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.entries.typed import CourseIn, EntryIn
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.record.actions import record_within
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.writing.once import Write


def state_course(write: Write, batch: Batch, course: Course, *, mark: str) -> None:
    """Record that piece ``mark`` is to become ``course``, within the caller's ``once``; nothing where it is
    known already.

    Raises:
        DomainError: not_found, bad_fields.
    """
    costed = cost_batch(batch)
    mains = costed.sheet.ledger.mains
    if courses_of(batch, mains, costed.chain.current).get(mark) == course:
        return
    # alone in its batch, the piece is the batch
    pieces = [] if [piece.id for piece in mains] == [mark] else [mark]
    draft = EntryIn(content=CourseIn(course=course, pieces=pieces), seen=batch.last_sequence)
    recorded = record_within(replace(write, key=uuid.uuid5(write.key, f"course {mark}")), batch.code, draft)
    batch.last_sequence = recorded.entry.sequence
