"""What has to be cooked before it is eaten: cold-smoked, air-dried, or never heated enough."""

from collections.abc import Collection, Mapping
from fractions import Fraction
from typing import Final

from dolmetsch.core.findings import Finding, care
from dolmetsch.core.ledger.course import COURSE_FACTS, Course
from dolmetsch.core.ledger.kinds import FINISHING, ONGOING, method_kind, method_kinds
from dolmetsch.core.ledger.strands import Heated, Strand

RAW_TEXT: Final = "Raw: cook before eating."
RAW_LABEL: Final = "RAW - COOK BEFORE EATING"


def is_cooked(
    heated: Heated,
    *,
    course: Course | None,
    methods: Mapping[str, str],
    followed: Mapping[str, bool],
    safe_fahrenheit: Fraction,
) -> bool:
    """Whether one heating cooked the meat.

    What was measured counts first: the fire that was ``followed`` (by kind of step: whether it heated enough,
    by safe harbor or home rule), or a reading inside of at least ``safe_fahrenheit``. Else what was said:
    of the smoke itself, of what the meat is to become, by the method. A smoke nobody said anything of is
    taken for a hot one, as a cook is.
    """
    kind = method_kind(heated.kind)
    inside = heated.inside_fahrenheit
    if kind in followed or inside is not None:
        return followed.get(kind, False) or (inside is not None and inside >= safe_fahrenheit)
    if heated.heat is not None:
        return heated.heat == "hot"
    if kind != "smoke":
        return True
    if course is not None:
        return not COURSE_FACTS[course].is_smoked_cold
    return methods.get(kind) != "cold_smoke"


def is_raw(kinds: Collection[str], strands: Collection[Strand], cooked: Collection[Strand]) -> bool:
    """Whether a piece that went through ``kinds`` of step has to be cooked before it is eaten.

    It is where one of its ``strands`` is not among the ``cooked``. What is still on its way, neither smoked,
    dried nor cut, is said to be nothing yet.
    """
    if all(strand in cooked for strand in strands):
        return False
    return bool(any(strand.heats for strand in strands) or method_kinds(kinds) & (FINISHING | ONGOING))


def raw_finding() -> Finding:
    """The caution beside what is raw."""
    return care(
        "raw",
        f"{RAW_TEXT} It was not heated enough to be cooked.",
        source="common practice; your food authority's rules come first",
    )
