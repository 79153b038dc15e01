"""A practice run as a live view, and how it ended: computed by the same core as a real fire."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from fractions import Fraction
from typing import Final

from django.utils import timezone

from dolmetsch.core.heat.cook_log import CookLog, Phase, Probe, Reading
from dolmetsch.core.heat.cook_shrink import kept_at
from dolmetsch.core.heat.follow_cook import follow_cook
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.moment import HOUR_SECONDS
from dolmetsch.core.reference.cook_shrink import COOK_SHRINK
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.fires.cooked import is_log_cooked
from dolmetsch.server.fires.followed import FollowedFire, draw_curves
from dolmetsch.server.fires.live import show_live
from dolmetsch.server.fires.models import Fire, FireEvent, FirePiece
from dolmetsch.server.fires.schemas import PullOut
from dolmetsch.server.fires.story import build_log, build_story, plan_air, seconds_of, unit_of
from dolmetsch.server.practice import schemas as out
from dolmetsch.server.practice.lessons import LESSONS, PROBE, Lesson
from dolmetsch.server.practice.models import PracticeAct, PracticeRun
from dolmetsch.server.practice.simulation import (
    MOST_SECONDS,
    Act,
    Course,
    find_best,
    find_length,
    run_course,
)
from dolmetsch.server.quantities.printing import print_money, print_price_of_gram, print_weight
from dolmetsch.server.quantities.temperatures import print_degrees

#: What the made-up batch and its piece are called.
CODE, MARK = "P-00", "A"
#: What was seen to within so long was caught in time.
IN_TIME_SECONDS: Final = 30 * 60
#: Pulled this much (°F) over the plan is pulled late.
_PULLED_LATE: Final = 5
RUNS_SHOWN: Final = 8


@dataclass(frozen=True, slots=True, kw_only=True)
class Run:
    """A run with what was done in it, up to now."""

    row: PracticeRun
    lesson: Lesson
    acts: list[PracticeAct]
    course: Course
    now: datetime

    @property
    def done_seconds(self) -> int | None:
        """When it was done."""
        return next((act.seconds for act in self.acts if act.kind == "done"), None)


def seconds_now(row: PracticeRun) -> int:
    """The seconds of a run's clock since it began."""
    passed = (timezone.now() - row.recorded_at).total_seconds() * row.speed
    return min(max(0, int(passed)), MOST_SECONDS)


def read_run(row: PracticeRun) -> Run:
    """A run as it is now."""
    acts = list(row.acts.select_related("recorded_by").order_by("seconds", "id"))
    lesson = LESSONS[row.lesson]
    done = next((act.seconds for act in acts if act.kind == "done"), None)
    until = seconds_now(row) if done is None else done
    course = run_course(
        lesson,
        row.seed,
        [Act(seconds=act.seconds, kind=act.kind, stage=act.data.get("stage") or 0) for act in acts],
        until=until,
    )
    return Run(
        row=row, lesson=lesson, acts=acts, course=course, now=row.recorded_at + timedelta(seconds=until)
    )


def show_run(row: PracticeRun) -> out.PracticeOut:
    """A run as it is shown."""
    run = read_run(row)
    followed, pieces = _follow(run)
    pulls = _show_pulls(run, followed) if followed.story.out_at is None else []
    return out.PracticeOut(
        id=row.pk,
        lesson=run.lesson.name,
        speed=row.speed,
        live=show_live(followed, pieces, pulls=pulls, tender=None),
        verdict=None if run.done_seconds is None else judge(run),
    )


def _follow(run: Run) -> tuple[FollowedFire, list[FirePiece]]:
    """The run as a fire that nobody keeps: the same story, the same core."""
    row, lesson = run.row, run.lesson
    best, _ = find_best(lesson, row.seed)
    fire = Fire(
        pk=row.pk,
        kitchen=row.kitchen,
        name=lesson.name,
        cooker="practice",
        meat="pork",
        pull_at=lesson.pull_at,
        nitrite_ppm=lesson.nitrite_ppm,
        stages=list(lesson.stages),
        begun_at=row.recorded_at,
        meal_at=row.recorded_at + timedelta(seconds=best + lesson.reserve),
    )
    batch = Batch(kitchen=row.kitchen, code=CODE, name=lesson.cut)
    piece = FirePiece(fire=fire, batch=batch, mark=MARK, rack=1, slot=1, grams=lesson.grams)
    placed = FireEvent(
        fire=fire,
        at=row.recorded_at,
        kind="probe",
        data={"probe": PROBE, "piece": piece.label, "where": "thick end"},
        recorded_by=row.recorded_by,
    )
    done = [
        FireEvent(
            fire=fire,
            at=row.recorded_at + timedelta(seconds=act.seconds),
            kind=act.kind,
            data={"probe": PROBE, "where": "thick end", **act.data, "piece": piece.label},
            recorded_by=act.recorded_by,
        )
        for act in run.acts
    ]
    story = build_story(fire, [placed, *done])
    readings = [(row.recorded_at + timedelta(seconds=at), values) for at, values in run.course.readings]
    log = build_log(story, readings)
    cook = follow_cook(log, program=plan_air(story, now=run.now))
    curves = draw_curves(cook, row.recorded_at)
    return FollowedFire(story=story, cook=cook, now=run.now, curves=curves, up_to=()), [piece]


def _price(lesson: Lesson, kept: float) -> float:
    """Money a gram that is served."""
    return lesson.cost / (lesson.grams * kept * lesson.served)


def _show_pulls(run: Run, followed: FollowedFire) -> list[PullOut]:
    lesson, unit = run.lesson, unit_of(run.row.kitchen)
    hours = (run.now - run.row.recorded_at).total_seconds() / HOUR_SECONDS
    found = []
    for mark in sorted({mark for mark, _, _ in COOK_SHRINK} | {float(lesson.pull_at)}):
        kept, deviation = kept_at(mark, hours=hours)
        found.append(
            PullOut(
                inside=print_degrees(Fraction(mark), unit),
                kept=fixed(Fraction(kept) * 100, 0),
                low=fixed(Fraction(kept - 1.28 * deviation) * 100, 0),
                high=fixed(Fraction(kept + 1.28 * deviation) * 100, 0),
                weight=print_weight(lesson.grams * Fraction(kept)),
                price=print_price_of_gram(_price(lesson, kept)),
                is_plan=mark == lesson.pull_at,
            )
        )
    return found


def judge(run: Run) -> out.PracticeVerdictOut:
    """How a run that is done ended, in weight and money, beside the best that could have been done."""
    lesson, course = run.lesson, run.course
    best_seconds, best_peak = find_best(lesson, run.row.seed)
    out_at = course.out_at or run.done_seconds or 0
    kept, _ = kept_at(course.peak, hours=out_at / HOUR_SECONDS)
    best, _ = kept_at(best_peak, hours=best_seconds / HOUR_SECONDS)
    lost = Fraction(lesson.grams * (best - kept)) if best > kept else None
    late = max(0, out_at - (best_seconds + lesson.reserve))
    cooked = _is_truly_cooked(run)
    money = Fraction(0) if lost is None else lost * Fraction(_price(lesson, best) * lesson.served)
    return out.PracticeVerdictOut(
        weight=print_weight(lesson.grams * Fraction(kept)),
        best_weight=print_weight(lesson.grams * Fraction(best)),
        lost=None if lost is None else print_weight(lost),
        price=print_price_of_gram(_price(lesson, kept)),
        best_price=print_price_of_gram(_price(lesson, best)),
        money=print_money(money),
        out_seconds=out_at,
        best_seconds=best_seconds,
        late_seconds=late,
        peak=print_degrees(Fraction(course.peak), unit_of(run.row.kitchen)),
        is_cooked=cooked,
        caught=_list_caught(run, late=late, cooked=cooked),
    )


def _is_truly_cooked(run: Run) -> bool:
    """Whether the true middle was heated enough, whatever the probe read."""
    begun = seconds_of(run.row.recorded_at)
    readings = tuple(
        Reading(at=begun + at, values={PROBE: Fraction(round(middle, 2))})
        for at, middle in run.course.middles
    )
    log = CookLog(
        unit="F",
        probes=(Probe(id=PROBE, piece=MARK),),
        readings=readings,
        phases=(Phase(kind="cook", start=begun),),
        meat="pork",
    )
    return is_log_cooked(log)


def _first(acts: Sequence[PracticeAct], kinds: Sequence[str], *, since: int) -> int | None:
    return next((act.seconds for act in acts if act.kind in kinds and act.seconds >= since), None)


def _list_caught(run: Run, *, late: int, cooked: bool) -> list[out.CaughtOut]:
    """Every trouble of the run and what became of it; then what the cook made of it."""
    lesson, course = run.lesson, run.course
    end = course.out_at or run.done_seconds or 0
    found = []
    for trouble in course.troubles:
        begun, mends = trouble.seconds, ["fuel"]
        text, tip = "The fire went out.", "Watch the air: when it falls 40 °F, look at the fire at once."
        if trouble.kind == "fat":
            mends = ["probe"]
            text = "The probe slipped into fat and read too hot."
            tip = "Check with an instant reading before you believe a probe that suddenly runs ahead."
        elif trouble.kind == "stall":
            wrap_at = lesson.wrap_at or 0
            begun = next((at for at, middle in course.middles if middle >= wrap_at), end)
            mends = ["wrap", "stage"]
            text = "It stalled while its surface dried."
            tip = "Wrap when it stands still near 160 °F, or plan hours for it."
        if begun >= end:
            continue
        at = _first(run.acts, mends, since=begun if trouble.kind != "stall" else max(0, begun - 3600))
        caught = at is not None and at < end
        after = max(0, at - begun) if caught and at is not None else None
        found.append(
            out.CaughtOut(
                kind=trouble.kind,
                text=text,
                after_seconds=after,
                is_caught=caught and after is not None and after <= IN_TIME_SECONDS,
                next_time=tip,
            )
        )
    found.append(_judge_pull(run))
    if late:
        tip = "Begin earlier, cook hotter or wrap: look at “ready between” from the first hour on."
        found.append(_missed("late", "It came after the meal.", tip))
    if not cooked:
        tip = "Pull by the coldest place, checked by hand, and watch “cooked through”."
        found.append(_missed("raw", "It was not cooked through.", tip))
    return found


def _judge_pull(run: Run) -> out.CaughtOut:
    over = run.course.peak - run.lesson.pull_at
    plan = print_degrees(Fraction(run.lesson.pull_at), unit_of(run.row.kitchen))
    tip = "Stand by when “ready between” comes near: each degree over costs weight."
    if over > _PULLED_LATE:
        return _missed("pull", f"It was pulled well over {plan}°.", tip)
    if over < -_PULLED_LATE:
        return _missed("pull", f"It was pulled before {plan}°.", "Wait for the coldest probe to be there.")
    return out.CaughtOut(
        kind="pull", text=f"Pulled near {plan}°, as planned.", after_seconds=0, is_caught=True, next_time=tip
    )


def _missed(kind: str, text: str, tip: str) -> out.CaughtOut:
    return out.CaughtOut.model_validate(
        {"kind": kind, "text": text, "after_seconds": None, "is_caught": False, "next_time": tip}
    )


def show_practices(rows: Sequence[PracticeRun]) -> out.PracticesOut:
    """Lessons, and the latest runs."""
    shown = []
    for row in rows:
        run = read_run(row)
        verdict = None if run.done_seconds is None else judge(run)
        shown.append(
            out.RunOut(
                id=row.pk,
                name=run.lesson.name,
                begun_at=row.recorded_at.isoformat(),
                is_done=verdict is not None,
                lost=None if verdict is None else verdict.money,
            )
        )
    return out.PracticesOut(
        lessons=[
            out.LessonOut(
                key=lesson.key,
                name=lesson.name,
                why=lesson.why,
                hours=fixed(Fraction(find_length(lesson), HOUR_SECONDS), 1),
            )
            for lesson in LESSONS.values()
        ],
        runs=shown,
    )
