"""What each piece of a batch is to become: one answer for every room that asks."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from dolmetsch.core.ledger.course import Course, common_course, find_course, infer_course
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.server.batches.entries.chain import CostedBatch, EntryRows, list_statements
from dolmetsch.server.batches.entries.chosen_way import methods_but_cure, methods_of_way
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.kitchens.models import Kitchen


def courses_of(
    batch: Batch, pieces: Sequence[Piece], current: Iterable[EntryRows]
) -> Mapping[str, Course | None]:
    """The course of each of ``pieces``, living or not, by mark: as said last, else as its record shows.

    ``current``: the entries of ``batch`` that count.
    """
    statements = list_statements(batch, current)
    methods = methods_but_cure(batch)
    # what a fire was says nothing of pieces that were not in it
    chosen = [*methods_of_way(batch.chosen_way).values()]
    found: dict[str, Course | None] = {}
    for piece in pieces:
        heats = [heated.heat for strand in piece.strands for heated in strand.heats]
        is_cold = "cold" in heats or ("hot" not in heats and methods.get("smoke") == "cold_smoke")
        found[piece.id] = find_course(piece.path, statements) or infer_course(
            piece.kinds, methods=chosen, is_cold=is_cold
        )
    return found


def find_course_of(batch: Batch, costed: CostedBatch) -> Course | None:
    """What all pieces of ``batch`` are to become; None where they go different ways, or nobody said."""
    groups = group_by_course(batch, costed)
    return next(iter(groups)) if len(groups) == 1 else None


def group_by_course(batch: Batch, costed: CostedBatch) -> dict[Course | None, list[Piece]]:
    """The living pieces of ``batch`` by what they are to become, in their order."""
    mains = costed.sheet.ledger.mains
    courses = courses_of(batch, mains, costed.chain.current)
    groups: dict[Course | None, list[Piece]] = {}
    for piece in mains:
        groups.setdefault(courses[piece.id], []).append(piece)
    return groups


def course_of_summary(summary: Mapping[str, Any]) -> Course | None:
    """The same of a batch that is not read whole, by what it keeps for lists."""
    return common_course(piece.get("course") for piece in summary["mains"])


def course_said(batch: Batch, mark: str, current: Iterable[EntryRows]) -> Course | None:
    """What was said last of the piece ``mark``, whether it still lives or not."""
    return find_course({mark}, list_statements(batch, current))


def find_last_course(kitchen: Kitchen, *, cut: str | None = None) -> str | None:
    """What this kitchen last said meat is to become, of ``cut`` where one is given; None: nothing yet."""
    said = Entry.current.filter(kitchen=kitchen, act=Entry.Act.COURSE).exclude(course="")
    if cut is not None:
        said = said.filter(batch__cut=cut)
    return said.order_by("-id").values_list("course", flat=True).first()
