"""What meat becomes by the program of a fire, and which programs lead to what it is to become."""

from collections.abc import Collection
from fractions import Fraction

from dolmetsch.core.ledger.course import COURSE_FACTS, Course
from dolmetsch.core.reference.yields import LONG_COOK_FROM


def is_cold_program(kinds: Collection[str]) -> bool:
    """Whether stages of ``kinds`` are a cold smoke, with none that heats."""
    return "cold_smoke" in kinds and set(kinds) <= {"cold_smoke", "dry"}


def course_of_program(kinds: Collection[str], pull_at: Fraction | None) -> Course | None:
    """What meat becomes by stages of ``kinds``, pulled at an inside °F; None where they do not tell."""
    if is_cold_program(kinds):
        return "cold_smoked_raw"
    if pull_at is None:
        return None
    if "steam" in kinds:
        return "steamed"
    return "pulled" if pull_at >= LONG_COOK_FROM else "cooked"


def fits_course(kinds: Collection[str], pull_at: Fraction | None, course: Course) -> bool:
    """Whether meat that is to become ``course`` goes through such a program.

    A long cook may be sliced as well as pulled.
    """
    if is_cold_program(kinds):
        return COURSE_FACTS[course].is_smoked_cold
    by_program = course_of_program(kinds, pull_at)
    return by_program == course or (by_program == "pulled" and course == "cooked")
