"""When the coldest inside will be there, with a range that holds eight times of ten.

The cook so far is fitted by ``warming``; the parameters it leaves open, the air to come and what the model
does not know are drawn many times, and the times counted (10, 50, 90 %). How often the range holds over
simulated cooks is tested in `tests/core/heat/test_ready.py`.
"""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from math import ceil, exp, sqrt
from random import Random
from statistics import fmean
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS, CookLog
from dolmetsch.core.heat.moments import INSTANT, InsideMoment, list_within
from dolmetsch.core.heat.warming import (
    Course,
    State,
    Vector,
    Warming,
    bound,
    evaporation_after,
    fit_warming,
    hours_until,
)
from dolmetsch.core.numbers.moment import HOUR_SECONDS, MINUTE_SECONDS
from dolmetsch.core.numbers.span import HIGH, LIKELY, LOW, REACHED, TimeForecast, TimeSpan, at_once

#: Times to come (seconds since 1970, in order) and the air (°F) from each on.
Program = Sequence[tuple[Fraction, float]]
#: So much of a cook, and so much of a climb (°F), has to be seen before anything can be said.
LEAST_SECONDS, LEAST_CLIMB = 1200, 6.0
#: A mark that was reached is taken back where the inside is so much (°F) under it later.
TAKEN_BACK_UNDER: Final = 2
#: The grid a cook is looked at by; of a long one so many points.
_STEP_SECONDS, _MOST_POINTS = 300, 200
#: The air to come is that of the last half hour, give or take so much (°F).
_AIR_SECONDS, _AIR_DEVIATION = 1800, 4.0
#: Air that is not this much (°F) warmer than what is wanted never gets there in a day.
_AIR_OVER: Final = 3.0
#: Where no probe is in the air: common in a smoker, but not known.
_AIR_UNKNOWN, _AIR_UNKNOWN_DEVIATION = 225.0, 20.0
#: The climb now is that of so long; how far off it may be (°F an hour) beside its own scatter.
_CLIMB_SECONDS, _CLIMB_DEVIATION = 1500, 1.2
#: What the model does not know of the rest of the time: standard deviation of its logarithm.
_UNKNOWN: Final = 0.08
_DRAWS: Final = 96
_MOST_HOURS: Final = 30.0


def forecast_ready(
    log: CookLog, inside: Sequence[InsideMoment], *, program: Program = ()
) -> TimeForecast | None:
    """When the coldest inside reaches the log's ``pull_at``; None where none is aimed at.

    ``program``: the air (°F) that is planned from times to come on; without it the air stays as it is.
    """
    if log.pull_at is None:
        return None
    cooked = list_within(inside, log.list_phases("cook"))
    if not cooked:
        return TimeForecast(span=None, why="nothing has been read in the cook yet")
    last = cooked[-1]
    reached = find_reached(cooked, log.pull_at)
    if reached is not None:
        return TimeForecast(span=at_once(reached.at), why=REACHED)
    if inside[-1].at > last.at:
        return TimeForecast(span=None, why="the cook is over")
    if last.coldest >= log.pull_at:
        return TimeForecast(span=None, why=f"not read, so not known to be done: {', '.join(last.unread)}")
    goal = log.pull_at
    # the probes alone are followed, where there are any: a place read by hand comes and goes
    probed = [replace(one, cold=one.probed) for one in cooked if one.probed is not None]
    if probed and last.probe == INSTANT:
        # where it is colder by hand it is taken to climb as the probes do
        goal += max(probed[-1].coldest - last.coldest, Fraction(0))
        if probed[-1].coldest >= log.pull_at:
            colder = " and ".join(_coldest_by_hand(log, last))
            return TimeForecast(span=None, why=f"{colder} is colder, read by hand")
    return _forecast(replace(log, pull_at=goal), probed or cooked, program, now=last.at)


def _forecast(
    log: CookLog, cooked: Sequence[InsideMoment], program: Program, *, now: Fraction
) -> TimeForecast:
    """When ``cooked``, which has not reached it, will; never before the last moment of the log."""
    course = _lay_out(log, cooked)
    to_come = _air_to_come(course, program, now=cooked[-1].at)
    why = _why_not(log, cooked, warmest=max(air for _, air in to_come))
    if why is not None:
        return TimeForecast(span=None, why=why)
    waits = _draw_waits(log, cooked, course, to_come)
    if len(waits) * 2 < _DRAWS:
        return TimeForecast(span=None, why="it is not climbing toward that in this air")
    latest = max([now, *(reading.at for reading in log.readings[-1:]), *(one.at for one in log.instant)])
    low, likely, high = (
        max(cooked[-1].at + Fraction(_quantile(waits, part) * HOUR_SECONDS), latest)
        for part in (LOW, LIKELY, HIGH)
    )
    return TimeForecast(span=TimeSpan(low=low, likely=likely, high=high))


def find_reached(cooked: Sequence[InsideMoment], mark: Fraction) -> InsideMoment | None:
    """The first of ``cooked``, in order of time, at which ``mark`` (°F) was reached and held to the last.

    It is not reached while a piece is unread, and taken back where the inside is over ``TAKEN_BACK_UNDER``
    colder later.
    """
    found: InsideMoment | None = None
    for one in reversed(cooked):
        degrees = one.scale.degrees
        if one.cold < ceil((mark - TAKEN_BACK_UNDER) * degrees.parts):
            break
        if one.cold >= ceil(mark * degrees.parts) and not one.unread:
            found = one
    return found


def _coldest_by_hand(log: CookLog, last: InsideMoment) -> list[str]:
    """The pieces whose reading by hand decided at ``last``."""
    since = last.at - STALE_SECONDS
    held = [one for one in log.instant if since <= one.at <= last.at and one.fahrenheit == last.coldest]
    return list(dict.fromkeys(one.piece for one in held))


def _why_not(log: CookLog, cooked: Sequence[InsideMoment], *, warmest: float) -> str | None:
    assert log.pull_at is not None
    if cooked[-1].at - cooked[0].at < LEAST_SECONDS:
        return f"the cook has to be seen for {LEAST_SECONDS // MINUTE_SECONDS} minutes first"
    if cooked[-1].point[1] - min(one.point[1] for one in cooked) < LEAST_CLIMB:
        return "the inside has hardly begun to climb"
    if log.air and warmest < float(log.pull_at) + _AIR_OVER:
        return "the air is no warmer than the inside is to be"
    return None


def _lay_out(log: CookLog, cooked: Sequence[InsideMoment]) -> Course:
    """The cook on an even grid that ends now."""
    start, now = cooked[0].at, cooked[-1].at
    length = float(now - start)
    step = max(float(_STEP_SECONDS), length / _MOST_POINTS)
    count = max(1, int(length / step))
    times = [float(now) - (count - index) * step for index in range(count + 1)]
    air = _sample_air(log, times, step)
    inside = _sample([one.point for one in cooked], times, float(STALE_SECONDS))
    inside[0] = inside[0] if inside[0] is not None else float(cooked[0].coldest)
    return Course(step_hours=step / HOUR_SECONDS, air=air, inside=inside)


def _sample(
    points: Sequence[tuple[float, float]], times: Sequence[float], stale: float
) -> list[float | None]:
    """The last value at or before each time; None where it is stale."""
    found: list[float | None] = []
    index = 0
    for time in times:
        while index < len(points) and points[index][0] <= time + 1e-6:
            index += 1
        is_known = index > 0 and time - points[index - 1][0] <= stale
        found.append(points[index - 1][1] if is_known else None)
    return found


def _sample_air(log: CookLog, times: Sequence[float], step: float) -> list[float]:
    """The air over each step, the mean of what was read in it; where none was, as it was before."""
    ids = {probe.id for probe in log.air}
    points = []
    for reading in log.readings:
        read = [float(reading.values[probe]) for probe in ids if probe in reading.values]
        if read:
            points.append((float(reading.at), sum(read) / len(read)))
    found: list[float] = []
    index = 0
    last = points[0][1] if points else _AIR_UNKNOWN
    for time in times:
        in_step = []
        while index < len(points) and points[index][0] <= time + 1e-6:
            if points[index][0] > time - step:
                in_step.append(points[index][1])
            last = points[index][1]
            index += 1
        found.append(fmean(in_step) if in_step else last)
    return found


def _air_to_come(course: Course, program: Program, *, now: Fraction) -> list[tuple[float, float]]:
    """The air as it is, and as it is planned, by hours from now."""
    planned = [(max(0.0, float(at - now)) / HOUR_SECONDS, air) for at, air in program]
    return [(0.0, _recent_air(course)), *planned]


def _recent_air(course: Course) -> float:
    points = max(1, round(_AIR_SECONDS / HOUR_SECONDS / course.step_hours))
    return fmean(course.air[-points:])


def _fit_climb(cooked: Sequence[InsideMoment]) -> tuple[float, float, float]:
    """The inside now (°F), its climb (°F an hour) by least squares, and how far off the climb may be."""
    now = cooked[-1].at
    recent = list(cooked[bisect_left(cooked, now - _CLIMB_SECONDS, key=lambda one: one.at) :])
    if len(recent) < 3:
        recent = list(cooked[-3:])
    hours = [float(one.at - now) / HOUR_SECONDS for one in recent]
    values = [float(one.coldest) for one in recent]
    middle, mean = fmean(hours), fmean(values)
    spread = sum((hour - middle) ** 2 for hour in hours)
    climb = sum((hour - middle) * value for hour, value in zip(hours, values, strict=True)) / spread
    left = sum(
        (value - mean - climb * (hour - middle)) ** 2 for hour, value in zip(hours, values, strict=True)
    )
    scatter = left / max(1, len(recent) - 2)
    return mean - climb * middle, climb, sqrt(scatter / spread + _CLIMB_DEVIATION**2)


def _draw_waits(
    log: CookLog, cooked: Sequence[InsideMoment], course: Course, to_come: Sequence[tuple[float, float]]
) -> list[float]:
    """Hours to go, drawn many times, in order; those that never arrive are left out."""
    assert log.pull_at is not None
    warming = fit_warming(course)
    now, climb, climb_deviation = _fit_climb(cooked)
    air_deviation = _AIR_DEVIATION if log.air else _AIR_UNKNOWN_DEVIATION
    # the same log is always answered alike
    draw = Random(1)  # noqa: S311 (no secret)
    waits = []
    for _ in range(_DRAWS):
        parameters = _draw_parameters(warming, draw)
        drawn_climb = max(0.0, climb + draw.gauss(0, climb_deviation))
        state = _anchor(course, parameters, now=now, climb=drawn_climb)
        off = draw.gauss(0, air_deviation)
        hours = hours_until(
            float(log.pull_at),
            state,
            parameters,
            air=[(hour, air + off) for hour, air in to_come],
            step_hours=1 / 6,
            most_hours=_MOST_HOURS,
        )
        if hours is not None:
            waits.append(hours * exp(draw.gauss(0, _UNKNOWN)))
    return sorted(waits)


def _draw_parameters(warming: Warming, draw: Random) -> Vector:
    normal = [draw.gauss(0, 1) for _ in warming.mode]
    return bound(
        [
            middle + sum(part * one for part, one in zip(line, normal, strict=True))
            for middle, line in zip(warming.mode, warming.root, strict=True)
        ]
    )


def _anchor(course: Course, parameters: Vector, *, now: float, climb: float) -> State:
    """The state now: the inside as read, and the outer layer as much warmer as the climb asks for."""
    outer = now + climb / exp(parameters[1])
    return State(outer=outer, inner=now, evaporation=evaporation_after(course, parameters))


def _quantile(waits: Sequence[float], part: float) -> float:
    return waits[min(len(waits) - 1, int(part * len(waits)))]
