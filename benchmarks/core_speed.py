"""The core alone: one sheet beside the same sums in plain floats."""

import statistics
import time
from fractions import Fraction

from dolmetsch.core.batch import Batch, ByProduct, Lot, Main, Policy, Split, Step, Used, Weigh
from dolmetsch.core.quantity import read_price, read_weight
from dolmetsch.core.sheet import compute_sheet
from dolmetsch.core.strip import lay_out

RUNS = 200
MARKS = "ABCD"


def make_batch(steps: int) -> Batch:
    """A lot cut in four, then ``steps`` − 1 weighings of all four with salt and minutes."""
    into = tuple(Main(id=mark, grams=read_weight("5.37 lb")) for mark in MARKS)
    lean = ByProduct(id="lean", grams=read_weight("1.9 lb"), worth=read_price("2.40/lb"))
    chain = [Step(kind="trim", action=Split(piece="L", into=(*into, lean)), minutes=Fraction(28))]
    salt = Used(what="salt", group="cure", amount=Fraction(95), price=read_price("1.20/kg"))
    for number in range(1, steps):
        grams = {mark: read_weight(f"{5.37 - 0.03 * number:.2f} lb") for mark in MARKS}
        chain.append(
            Step(kind=f"step {number}", action=Weigh(grams=grams), minutes=Fraction(11), used=(salt,))
        )
    lot = Lot(id="L", grams=read_weight("24 lb"), paid=Fraction("68.40"))
    return Batch(lots=(lot,), steps=tuple(chain), policy=Policy(labour_rate=Fraction(18)))


def in_floats(batch: Batch) -> float:
    """The same final price, worked once in floats."""
    weights = {"L": float(batch.lots[0].grams)}
    costs = {"L": float(batch.lots[0].paid)}
    for step in batch.steps:
        own = sum(float(used.cost) for used in step.used) + float(step.minutes) * 18 / 60
        if isinstance(step.action, Split):
            cost = costs.pop("L") + own
            weights.pop("L")
            mains = [out for out in step.action.into if isinstance(out, Main)]
            for out in step.action.into:
                if isinstance(out, ByProduct):
                    cost -= float(out.worth.cost_of(out.grams))
            together = sum(float(out.grams) for out in mains)
            for out in mains:
                weights[out.id], costs[out.id] = float(out.grams), cost * float(out.grams) / together
        else:
            together = sum(weights.values())
            for mark in step.action.grams:
                costs[mark] += own * weights[mark] / together
            weights = {mark: float(grams) for mark, grams in step.action.grams.items()}
    return sum(costs.values()) / sum(weights.values()) * 453.59237


def median_ms(act) -> float:
    times = []
    for _ in range(RUNS):
        begun = time.perf_counter()
        act()
        times.append((time.perf_counter() - begun) * 1000)
    return statistics.median(times)


def measure_core() -> dict:
    batch, longer = make_batch(10), make_batch(20)
    sheet = compute_sheet(batch)
    assert abs(float(sheet.final.cost_per_lb or 0) - in_floats(batch)) < 1e-9
    sheet_ms = median_ms(lambda: lay_out(batch, compute_sheet(batch)))
    longer_ms = median_ms(lambda: lay_out(longer, compute_sheet(longer)))
    floats_ms = median_ms(lambda: in_floats(batch))
    return {
        "runs": RUNS,
        "sheet_ms": sheet_ms,
        "times_floats": sheet_ms / floats_ms,
        "twice_as_long": longer_ms / sheet_ms,
    }
