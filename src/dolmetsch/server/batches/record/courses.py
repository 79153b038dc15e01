"""Says what a piece is to become, where something else that is recorded says it."""

import uuid
from collections.abc import Sequence
from dataclasses import replace

from dolmetsch.core.ledger.course import Course
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.entries.typed import CourseIn, EntryIn
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.record.actions import record_within
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.writing.once import Write


def state_course(write: Write, batch: Batch, course: Course, *, marks: Sequence[str]) -> None:
    """Record in one entry that pieces ``marks`` are to become ``course``, within the caller's ``once``; none
    where it is known of all of them.

    Raises:
        DomainError: not_found, bad_fields.
    """
    costed = cost_batch(batch)
    mains = costed.sheet.ledger.mains
    known = courses_of(batch, mains, costed.chain.current)
    new = [mark for mark in marks if known.get(mark) != course]
    if not new:
        return
    # all of its pieces are the batch
    pieces = [] if {piece.id for piece in mains} <= set(marks) else new
    draft = EntryIn(content=CourseIn(course=course, pieces=pieces), seen=batch.last_sequence)
    own = replace(write, key=uuid.uuid5(write.key, f"course {batch.code} {' '.join(marks)}"))
    recorded = record_within(own, batch.code, draft)
    batch.last_sequence = recorded.entry.sequence
