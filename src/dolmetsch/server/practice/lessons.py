"""What can be practiced: a made-up piece, its program, its meal, and the troubles that may come."""

from dataclasses import dataclass
from random import Random
from typing import Any, Final, Literal

TroubleKind = Literal["fire_out", "fat", "stall"]
#: The true middle of a piece is practiced on by this probe.
PROBE: Final = "1"


@dataclass(frozen=True, slots=True, kw_only=True)
class Lesson:
    """A made-up cook: ``grams`` of meat that cost ``cost``, cured with ``nitrite_ppm`` or not.

    ``served``: the part of what comes out of the fire that is served.

    ``stages`` as a fire keeps them, ``wrap_at``: the inside (°F) at which wrapping ends the stall, if it is
    wrapped at all. ``reserve``: seconds between the best end and the meal.
    """

    key: str
    name: str
    why: str
    cut: str
    thickness: int
    nitrite_ppm: int | None
    grams: int
    cost: int
    served: float
    stages: tuple[dict[str, Any], ...]
    pull_at: int
    wrap_at: int | None
    reserve: int


@dataclass(frozen=True, slots=True, kw_only=True)
class HiddenTrouble:
    """A trouble of a run, and when it begins (seconds of its clock)."""

    kind: TroubleKind
    seconds: int


def _stage(kind: str, air: int, *, minutes: int | None = None, inside: int | None = None) -> dict[str, Any]:
    return {
        "kind": kind,
        "air": str(air),
        "minutes": None if minutes is None else str(minutes),
        "inside": None if inside is None else str(inside),
    }


LESSONS: Final[dict[str, Lesson]] = {
    lesson.key: lesson
    for lesson in (
        Lesson(
            key="belly",
            name="A belly for breakfast",
            why="A hot smoke to 150 °F: keep the fire, watch the probe, pull in time.",
            cut="practice belly",
            thickness=45,
            nitrite_ppm=140,
            grams=4200,
            cost=58,
            served=0.985 * 0.90,
            stages=(
                _stage("dry", 130, minutes=45),
                _stage("smoke", 180, minutes=75),
                _stage("cook", 225),
            ),
            pull_at=150,
            wrap_at=None,
            reserve=2400,
        ),
        Lesson(
            key="shoulder",
            name="Pulled shoulder for supper",
            why="Smoke, stall, wrap, and on to 195 °F: the meal will not wait.",
            cut="practice shoulder",
            thickness=62,
            nitrite_ppm=None,
            grams=3400,
            cost=31,
            served=1.0,
            stages=(_stage("smoke", 240, inside=160), _stage("wrap", 265)),
            pull_at=195,
            wrap_at=160,
            reserve=3600,
        ),
    )
}


def draw_troubles(lesson: Lesson, seed: int, *, length: int) -> tuple[HiddenTrouble, ...]:
    """The troubles of a run of about ``length`` seconds, in order; the same seed draws the same."""
    draw = Random(seed)  # noqa: S311 (no secret)
    found = [HiddenTrouble(kind="fire_out", seconds=int(length * draw.uniform(0.25, 0.6)))]
    if draw.random() < 0.7:
        found.append(HiddenTrouble(kind="fat", seconds=int(length * draw.uniform(0.1, 0.3))))
    if lesson.wrap_at is not None:
        # when it comes to where it stalls, which the simulation knows
        found.append(HiddenTrouble(kind="stall", seconds=0))
    return tuple(sorted(found, key=lambda one: one.seconds))
