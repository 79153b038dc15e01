"""A practice run, worked out from its seed and what was done: the same every time, on every worker."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import lru_cache
from random import Random
from typing import Final

from dolmetsch.devices.cooker.simulated import SimulatedCooker, to_fahrenheit
from dolmetsch.server.practice.lessons import LESSONS, PROBE, HiddenTrouble, Lesson, draw_troubles

#: Seconds of its clock between two readings.
STEP: Final = 30
#: Nobody cooks on for longer.
MOST_SECONDS: Final = 36 * 3600
#: Someone who looks now and then mends a trouble so soon.
_MENDED_AFTER: Final = 300
_BEGINS_AT: Final = datetime(2026, 1, 1)  # noqa: DTZ001 (only differences count)


@dataclass(frozen=True, slots=True, kw_only=True)
class Act:
    """What was done at a time of the run; ``stage`` and ``piece`` where it needs them."""

    seconds: int
    kind: str
    stage: int = 0


@dataclass(slots=True, kw_only=True)
class Course:
    """How a run went: readings at seconds of its clock, the true middle (°F) then, and when it came out."""

    readings: list[tuple[int, dict[str, str]]] = field(default_factory=list)
    middles: list[tuple[int, float]] = field(default_factory=list)
    troubles: tuple[HiddenTrouble, ...] = ()
    out_at: int | None = None

    def middle_at(self, seconds: int) -> float:
        """The true middle of the piece at a time."""
        return next((middle for at, middle in reversed(self.middles) if at <= seconds), self.middles[0][1])

    @property
    def peak(self) -> float:
        """The highest the true middle came to."""
        return max(middle for _, middle in self.middles)


def run_course(lesson: Lesson, seed: int, acts: Sequence[Act], *, until: int) -> Course:
    """The run up to ``until`` seconds, with what the cook did."""
    troubles = draw_troubles(lesson, seed, length=find_length(lesson))
    return _run(lesson, seed, acts, troubles, until=until)


def find_length(lesson: Lesson) -> int:
    """Seconds in the fire where nothing goes wrong."""
    return _find_best(lesson.key, None)[0]


def find_best(lesson: Lesson, seed: int) -> tuple[int, float]:
    """Seconds in the fire and the peak (°F) of the best that could have been done in a run: each trouble
    mended as soon as someone who looks now and then would, each stage moved when due, pulled in time.
    """
    return _find_best(lesson.key, seed)


@lru_cache(maxsize=64)
def _find_best(key: str, seed: int | None) -> tuple[int, float]:
    lesson = LESSONS[key]
    troubles = () if seed is None else draw_troubles(lesson, seed, length=find_length(lesson))
    course = _run(lesson, seed or 1, (), troubles, until=MOST_SECONDS, is_perfect=True)
    return course.out_at or MOST_SECONDS, course.peak


def _run(
    lesson: Lesson,
    seed: int,
    acts: Sequence[Act],
    troubles: tuple[HiddenTrouble, ...],
    *,
    until: int,
    is_perfect: bool = False,
) -> Course:
    cooker = SimulatedCooker(now=_BEGINS_AT, random=Random(seed))  # noqa: S311 (no secret)
    cooker.do(["MEAT", PROBE, str(lesson.thickness)])
    cooker.do(["SET", lesson.stages[0]["air"]])
    course = Course(troubles=troubles)
    waiting = sorted(acts, key=lambda act: act.seconds)
    coming = [one for one in troubles if one.kind != "stall"]
    mending: list[tuple[int, str]] = []
    stage, stage_at = 0, 0
    for seconds in range(0, min(until, MOST_SECONDS) + 1, STEP):
        while coming and coming[0].seconds <= seconds:
            trouble = coming.pop(0)
            cooker.do(["FIRE", "OUT"] if trouble.kind == "fire_out" else ["FAT", PROBE])
            mending.append((seconds + _MENDED_AFTER, "fuel" if trouble.kind == "fire_out" else "probe"))
        while waiting and waiting[0].seconds <= seconds:
            act = waiting.pop(0)
            _do(cooker, lesson, course, act.kind, stage=act.stage, seconds=act.seconds)
        reading = cooker.go_on(STEP)
        middle = to_fahrenheit(cooker.pieces[PROBE].slab.middle)
        course.readings.append((seconds, dict(reading.values)))
        course.middles.append((seconds, middle))
        if is_perfect:
            for at, kind in [one for one in mending if one[0] <= seconds]:
                _do(cooker, lesson, course, kind, stage=0, seconds=seconds)
                mending.remove((at, kind))
            if stage + 1 < len(lesson.stages) and _is_due(lesson, stage, seconds - stage_at, middle):
                stage, stage_at = stage + 1, seconds
                _do(cooker, lesson, course, "stage", stage=stage, seconds=seconds)
                if lesson.wrap_at is not None:
                    _do(cooker, lesson, course, "wrap", stage=0, seconds=seconds)
            if middle >= lesson.pull_at:
                course.out_at = seconds
                break
    return course


def _is_due(lesson: Lesson, stage: int, passed: int, middle: float) -> bool:
    minutes, inside = lesson.stages[stage]["minutes"], lesson.stages[stage]["inside"]
    return passed >= int(minutes) * 60 if minutes is not None else middle >= float(inside)


def _do(
    cooker: SimulatedCooker, lesson: Lesson, course: Course, kind: str, *, stage: int, seconds: int
) -> None:
    """What an act does to the fire and the meat; what does nothing there is only noted."""
    if kind == "fuel":
        cooker.do(["FIRE", "GOOD"])
    elif kind == "probe":
        cooker.plugs[PROBE].depth = 1.0
    elif kind == "wrap":
        cooker.do(["WRAP", PROBE])
    elif kind == "stage":
        cooker.do(["SET", lesson.stages[stage]["air"]])
        if lesson.stages[stage]["kind"] == "wrap":
            cooker.do(["WRAP", PROBE])
    elif kind in ("rest", "hold", "cool", "done"):
        cooker.do(["ICE" if kind == "cool" else "TAKE", PROBE])
        course.out_at = seconds if course.out_at is None else course.out_at
