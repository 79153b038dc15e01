"""Seeded cooks to try the ready range on: the simulated cooker's slab, and simpler ones."""

from dataclasses import dataclass
from fractions import Fraction as F
from math import exp
from random import Random

from dolmetsch.core.heat.cook_log import CookLog, Phase, Probe, Reading
from dolmetsch.devices.cooker.fire import Fire, FireKind
from dolmetsch.devices.cooker.meat import Cut, Slab


@dataclass(frozen=True, slots=True, kw_only=True)
class SimulatedCook:
    """A cook to its end: the log, and when its coldest probe was really there."""

    log: CookLog
    ready_at: float
    began: float


def to_f(celsius):
    return celsius * 1.8 + 32


def to_c(fahrenheit):
    return (fahrenheit - 32) / 1.8


def _fixed(value):
    return F(round(value * 10), 10)


def _log(rows, pull, *, air=True):
    readings = tuple(
        Reading(at=F(at), values={name: _fixed(value) for name, value in values.items()})
        for at, values in rows
    )
    names = [name for name in rows[0][1] if name != "air"]
    probes = tuple(Probe(id=name, piece=name) for name in names)
    if air:
        probes += (Probe(id="air", role="air"),)
    phases = (Phase(kind="cook", start=F(rows[0][0])),)
    return CookLog(unit="F", probes=probes, readings=readings, phases=phases, pull_at=F(pull), meat="pork")


def _finish(rows, truth, pull):
    """The log, and the first time at which the coldest was there without noise."""
    ready = next((at for at, coldest in truth if coldest >= pull), None)
    if ready is None:
        return None
    return SimulatedCook(log=_log(rows, pull), ready_at=ready, began=rows[0][0])


def slab_cook(seed):
    """A belly, a loin or a shoulder in a fire; None where it never got there."""
    random = Random(seed)
    is_large = random.random() < 0.4
    pull = random.choice([195, 200, 203]) if is_large else random.choice([140, 145, 150, 155, 160])
    thickness = random.uniform(0.08, 0.12) if is_large else random.uniform(0.03, 0.065)
    goal = to_c(random.uniform(225, 275) if is_large else random.uniform(pull + 35, 250))
    steps = random.choice([1, 1, 1, 3])
    cuts = [
        Cut(
            thickness=thickness * random.uniform(0.75, 1),
            heat_transfer=random.uniform(9, 18),
            wetness=random.uniform(0.05, 0.2),
            drying_kg=random.uniform(1.2, 3.5),
        )
        for _ in range(random.choice([1, 2, 3]))
    ]
    slabs = [Slab.at(random.uniform(2, 6), cut) for cut in cuts]
    depths = [random.uniform(0.8, 1) for _ in cuts]
    kind = FireKind(
        lag_seconds=random.uniform(200, 700), swing=random.uniform(1, 6), noise=random.uniform(0.2, 1)
    )
    fire = Fire(kind=kind, random=random, air=kind.outside, goal=goal)
    step = random.choice([30, 60, 120])
    rows, truth = [], []
    low = to_c(120)
    for number in range(int(26 * 3600 / step)):
        at = number * step
        stage = min(steps, 1 + int(at / 3600))
        fire.goal = goal if stage >= steps else low + (goal - low) * (stage - 1) / max(1, steps - 1)
        air = fire.burn(step)
        for slab in slabs:
            slab.warm(step, air=air, vapor=random.choice([3000, 4000]))
        inside = [to_f(slab.read_at(depth)) for slab, depth in zip(slabs, depths, strict=True)]
        truth.append((at, min(inside)))
        values = {str(index + 1): value + random.gauss(0, 0.4) for index, value in enumerate(inside)}
        rows.append((at, {**values, "air": to_f(air) + random.gauss(0, 1)}))
        if min(inside) >= pull + 3:
            break
    return _finish(rows, truth, pull)


def simple_cook(seed):
    """A cook of one time constant behind a lag, with or without a stall: none of it is our model."""
    random = Random(seed)
    pull = random.choice([145, 150, 165, 195])
    air_goal = random.uniform(max(pull + 25, 200), 275)
    rate, lag = random.uniform(0.12, 0.55), random.uniform(0.05, 0.5)
    if pull > 180:
        rate *= 0.6
    stall = random.choice([0, 0, random.uniform(0.3, 0.8)])
    inside, shell, step = random.uniform(36, 45), 40.0, random.choice([60, 120, 300])
    rows, truth, air = [], [], 70.0
    for number in range(int(30 * 3600 / step)):
        at, hours = number * step, step / 3600
        air += (air_goal + random.gauss(0, 4) - air) * min(1, hours / 0.2)
        held = 1 - stall * exp(-(((inside - 158) / 9) ** 2))
        shell += (air - shell) * (1 - exp(-hours / lag))
        inside += (shell - inside) * rate * held * hours
        truth.append((at, inside))
        rows.append((at, {"1": inside + random.gauss(0, 0.5), "air": air + random.gauss(0, 2)}))
        if inside >= pull + 3:
            break
    return _finish(rows, truth, pull)
