"""The course of a piece: what it is to become, as the cook last said, else as its record shows."""

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from typing import Final, Literal, get_args

from dolmetsch.core.ledger.kinds import FINISHING, method_kinds

Course = Literal[
    "cooked", "pulled", "steamed", "cold_smoked_raw", "cured_raw", "air_dried", "fermented_dried"
]
COURSES: Final[tuple[Course, ...]] = get_args(Course)


#: What most meat goes through.
USUAL_STEPS: Final = ("trim", "cure", "rest", "smoke", "chill", "slice")


@dataclass(frozen=True, slots=True, kw_only=True)
class CourseFacts:
    """What a course means: its words, and whether what is made of it has to be cooked before it is eaten.

    ``is_dried``: it ends by losing water as it hangs. ``is_smoked_cold``: a smoke of it is a cold one.
    ``steps``: the usual kinds of step from buying to serving, in order, where no method says others.
    """

    label: str
    steps: tuple[str, ...]
    is_raw: bool = False
    is_dried: bool = False
    is_smoked_cold: bool = False


COURSE_FACTS: Final[Mapping[Course, CourseFacts]] = {
    "cooked": CourseFacts(label="cooked", steps=USUAL_STEPS),
    "pulled": CourseFacts(label="pulled", steps=("trim", "cook", "pull")),
    "steamed": CourseFacts(label="steamed", steps=("trim", "cure", "rest", "steam", "chill", "slice")),
    "cold_smoked_raw": CourseFacts(
        label="cold-smoked, raw", steps=USUAL_STEPS, is_raw=True, is_smoked_cold=True
    ),
    "cured_raw": CourseFacts(label="cured, raw", steps=("trim", "cure", "rest", "slice"), is_raw=True),
    "air_dried": CourseFacts(
        label="air-dried",
        steps=("trim", "cure", "hang", "slice"),
        is_raw=True,
        is_dried=True,
        is_smoked_cold=True,
    ),
    "fermented_dried": CourseFacts(
        label="fermented and dried",
        steps=("trim", "cure", "hang", "slice"),
        is_raw=True,
        is_dried=True,
        is_smoked_cold=True,
    ),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class CourseStatement:
    """What pieces were said to become; None: not said any more. ``marks`` empty: all of the batch."""

    course: Course | None
    marks: frozenset[str] = frozenset()


def find_course(path: Collection[str], statements: Iterable[CourseStatement]) -> Course | None:
    """The course of a piece that was ``path``, from its lot to itself; None where nobody said.

    The latest of ``statements`` (in order) that is about it, or about what it was cut from, counts.
    """
    said: Course | None = None
    for statement in statements:
        if not statement.marks or not statement.marks.isdisjoint(path):
            said = statement.course
    return said


def common_course(courses: Iterable[Course | None]) -> Course | None:
    """The course of all of them; None where they go different ways, or one is not said."""
    found = set(courses)
    return found.pop() if len(found) == 1 else None


def infer_course(kinds: Iterable[str], *, methods: Collection[str], is_cold: bool) -> Course | None:
    """The course that a record shows where nobody said one; None where it shows none yet.

    ``kinds`` of step done, ``methods`` of the steps its method has (start values' keys), ``is_cold``: its
    smoke was a cold one. What was done counts before what the method still has to come.
    """
    steps = {kind.strip().casefold() for kind in kinds}
    done = method_kinds(steps)
    if "ferment" in done or "ferment" in methods:
        return "fermented_dried"
    if "dry" in done or "air_dry" in methods:
        return "air_dried"
    if "pull" in done or "pulled" in methods:
        return "pulled"
    if "steam" in steps:
        return "steamed"
    heated = done & {"smoke", "cook"}
    if "cook" in heated or (heated and not is_cold) or {"hot_smoke", "stepped_smoke"} & set(methods):
        return "cooked"
    if heated or "cold_smoke" in methods:
        return "cold_smoked_raw"
    return "cured_raw" if done & FINISHING and "cure" in done else None
