"""How meat warms in a fire: two layers driven by the air, the outer one cooled by what evaporates from it.

    outer' = a·(E − outer)        E = A − e·(A − W),  e falling off as the surface dries: e = e₀·exp(−d·t)
    inner' = k·(outer − inner)    W = the temperature of a wet surface in air of A

Four parameters, fitted to a cook so far with start values as priors: a and k in 1/h (lag and rate), e₀ from 0
to 1 (evaporation: the stall) and d in 1/h (how soon the stall ends). Temperatures are floats in °F here,
times hours: none of it is compared with a limit.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import exp, log, sqrt
from typing import Final

#: Parameters are fitted as ln a, ln k, e₀ and ln d; middle and standard deviation of each (start values).
PRIORS: Final = ((log(2.5), 0.7), (log(0.5), 0.8), (0.65, 0.35), (log(0.07), 0.6))
#: A point of the cook may lie so far (°F) off the model, and the older it is the less it counts.
MODEL_DEVIATION: Final = 2.5
HALF_LIFE_HOURS: Final = 3.0
_STEPS: Final = 12
_NUDGE: Final = 1e-3
#: A surface that stays wet: W = _WET_AT_ZERO + _WET_SLOPE·A, about 140 °F in air of 225 °F.
_WET_AT_ZERO, _WET_SLOPE = 60.0, 0.35

#: Hours from now and the air (°F) from then on; the first is of now.
AirToCome = Sequence[tuple[float, float]]
Vector = tuple[float, float, float, float]
Matrix = list[list[float]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Course:
    """A cook so far on an even grid of time: the air, and the inside where it was read (None: not)."""

    step_hours: float
    air: Sequence[float]
    inside: Sequence[float | None]


@dataclass(frozen=True, slots=True, kw_only=True)
class State:
    """Both layers after a course, and the evaporation that is left."""

    outer: float
    inner: float
    evaporation: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Warming:
    """A fitted model: the most likely parameters, and a triangular root of their covariance."""

    mode: Vector
    root: Matrix


def surface_goal(air: float, evaporation: float) -> float:
    """What the outer layer is drawn to, °F."""
    return air - evaporation * (air - (_WET_AT_ZERO + _WET_SLOPE * air))


def evaporation_after(course: Course, parameters: Vector) -> float:
    """What is left of the evaporation at the end of ``course``."""
    _, _, evaporation, ln_d = parameters
    return evaporation * exp(-exp(ln_d) * course.step_hours * (len(course.air) - 1))


def run_course(course: Course, parameters: Vector) -> list[float]:
    """The inner temperature at each point of ``course`` by the model."""
    ln_a, ln_k, evaporation, ln_d = parameters
    step = course.step_hours
    keep_outer, keep_inner = exp(-exp(ln_a) * step), exp(-exp(ln_k) * step)
    drying = exp(-exp(ln_d) * step)
    inner = next(value for value in course.inside if value is not None)
    outer, found = inner, [inner]
    for air in course.air[1:]:
        goal = surface_goal(air, evaporation)
        next_outer = goal + (outer - goal) * keep_outer
        middle = (outer + next_outer) / 2
        inner = middle + (inner - middle) * keep_inner
        outer = next_outer
        evaporation *= drying
        found.append(inner)
    return found


def hours_until(
    goal: float, state: State, parameters: Vector, *, air: AirToCome, step_hours: float, most_hours: float
) -> float | None:
    """Hours until the inner layer reaches ``goal`` in the ``air`` to come; None: over ``most_hours``."""
    ln_a, ln_k, _, ln_d = parameters
    keep_outer, keep_inner = exp(-exp(ln_a) * step_hours), exp(-exp(ln_k) * step_hours)
    drying = exp(-exp(ln_d) * step_hours)
    outer, inner, evaporation = state.outer, state.inner, state.evaporation
    to_come = list(air)
    for number in range(int(most_hours / step_hours)):
        while len(to_come) > 1 and to_come[1][0] <= number * step_hours:
            del to_come[0]
        drawn = surface_goal(to_come[0][1], evaporation)
        next_outer = drawn + (outer - drawn) * keep_outer
        middle = (outer + next_outer) / 2
        later = middle + (inner - middle) * keep_inner
        if later >= goal:
            part = (goal - inner) / (later - inner) if later > inner else 1.0
            return (number + part) * step_hours
        outer, inner = next_outer, later
        evaporation *= drying
    return None


def fit_warming(course: Course) -> Warming:
    """The parameters that fit ``course``, and how sure they are, by damped Gauss-Newton."""
    mode: Vector = tuple(middle for middle, _ in PRIORS)  # type: ignore[assignment]
    residuals = _residuals(course, mode)
    misfit = sum(value * value for value in residuals)
    damping = 1e-2
    for _ in range(_STEPS):
        gradient, curvature = _linearize(course, mode, residuals)
        damped = [
            [value * (1 + damping) if row == column else value for column, value in enumerate(line)]
            for row, line in enumerate(curvature)
        ]
        step = solve(damped, gradient)
        tried = bound(tuple(value - move for value, move in zip(mode, step, strict=True)))
        tried_residuals = _residuals(course, tried)
        tried_misfit = sum(value * value for value in tried_residuals)
        if tried_misfit >= misfit:
            damping *= 8
            continue
        is_there = misfit - tried_misfit < 1e-4
        mode, residuals, misfit, damping = tried, tried_residuals, tried_misfit, damping / 8
        if is_there:
            break
    _, curvature = _linearize(course, mode, residuals)
    return Warming(mode=mode, root=_root_of_inverse(curvature))


def bound(parameters: Sequence[float]) -> Vector:
    """``parameters`` brought inside what meat can do."""
    ln_a, ln_k, evaporation, ln_d = parameters
    return (
        min(max(ln_a, -2.5), 4.0),
        min(max(ln_k, -4.0), 3.0),
        min(max(evaporation, 0.0), 1.0),
        min(max(ln_d, -6.0), 1.5),
    )


def _residuals(course: Course, parameters: Vector) -> list[float]:
    """How far the cook and the priors lie off, in deviations."""
    found = run_course(course, parameters)
    off = [
        (model - read) * weight
        for model, read, weight in zip(
            found, course.inside, _weigh(len(found), course.step_hours), strict=True
        )
        if read is not None
    ]
    prior = [
        (value - middle) / deviation for value, (middle, deviation) in zip(parameters, PRIORS, strict=True)
    ]
    return off + prior


@lru_cache(maxsize=8)
def _weigh(points: int, step_hours: float) -> list[float]:
    decay = log(2) / HALF_LIFE_HOURS * step_hours
    # points close together say the same thing: an hour of them counts as three
    weight = sqrt(3 * step_hours) / MODEL_DEVIATION
    return [weight * exp(-decay * (points - 1 - index) / 2) for index in range(points)]


def _linearize(course: Course, mode: Vector, residuals: Sequence[float]) -> tuple[list[float], Matrix]:
    """Gradient and Gauss-Newton matrix of half the misfit."""
    slopes = []
    for index in range(len(mode)):
        nudged = tuple(value + _NUDGE * (other == index) for other, value in enumerate(mode))
        slopes.append(
            [
                (after - before) / _NUDGE
                for after, before in zip(_residuals(course, nudged), residuals, strict=True)  # type: ignore[arg-type]
            ]
        )
    gradient = [_dot(slope, residuals) for slope in slopes]
    return gradient, [[_dot(one, other) for other in slopes] for one in slopes]


def _dot(one: Sequence[float], other: Sequence[float]) -> float:
    return sum(map(_times, one, other))


_times: Callable[[float, float], float] = float.__mul__


def _root(matrix: Matrix) -> Matrix:
    """The lower triangular root of a positive matrix (Cholesky)."""
    size = len(matrix)
    lower = [[0.0] * size for _ in range(size)]
    for row in range(size):
        for column in range(row + 1):
            rest = matrix[row][column] - _dot(lower[row][:column], lower[column][:column])
            lower[row][column] = sqrt(max(rest, 1e-12)) if row == column else rest / lower[column][column]
    return lower


def solve(matrix: Matrix, wanted: Sequence[float]) -> list[float]:
    """x of matrix·x = wanted, for a positive matrix."""
    lower = _root(matrix)
    size = len(wanted)
    half = [0.0] * size
    for row in range(size):
        half[row] = (wanted[row] - _dot(lower[row][:row], half[:row])) / lower[row][row]
    found = [0.0] * size
    for row in reversed(range(size)):
        above = sum(lower[below][row] * found[below] for below in range(row + 1, size))
        found[row] = (half[row] - above) / lower[row][row]
    return found


def _root_of_inverse(matrix: Matrix) -> Matrix:
    """A triangular root of the inverse of a positive matrix."""
    size = len(matrix)
    columns = [
        solve(matrix, [1.0 if row == column else 0.0 for row in range(size)]) for column in range(size)
    ]
    return _root([[(columns[j][i] + columns[i][j]) / 2 for j in range(size)] for i in range(size)])
