"""The core alone: one sheet, and a report of many, beside the same sums in plain floats."""

import time
from fractions import Fraction

from benchmarks.sizes import of
from benchmarks.speed.float_ledger import float_sheet
from dolmetsch.core.costing.scale_error import compute_spread
from dolmetsch.core.costing.sheet import Sheet, compute_sheet
from dolmetsch.core.costing.strip import lay_out
from dolmetsch.core.ledger.batch import (
    Batch,
    ByProduct,
    Extra,
    Lot,
    Main,
    Policy,
    ShopPack,
    Split,
    Step,
    Used,
    Weigh,
)
from dolmetsch.core.numbers.quantity import read_price, read_weight

RUNS, ROUNDS = of((10, 40), (1, 1))
REPORT = of(10_000, 20)
MARKS = "ABCD"


def make_batch(steps: int, *, ounces: int = 0) -> Batch:
    """A lot cut in four, then ``steps`` − 1 weighings of all four with salt and minutes."""
    into = tuple(Main(id=mark, grams=read_weight(f"5 lb {4 + ounces / 10:.1f} oz")) for mark in MARKS)
    lean = ByProduct(id="lean", grams=read_weight("1.9 lb"), worth=read_price("2.40/lb"))
    scale = Fraction(5)
    chain = [
        Step(
            kind="trim",
            action=Split(piece="L", into=(*into, lean)),
            minutes=Fraction(28),
            resolution_grams=scale,
        )
    ]
    salt = Used(what="salt", group="cure", amount=Fraction(95), price=read_price("1.20/kg"))
    wood = Used(what="wood", group="fuel", amount=Fraction(700), price=read_price("19.50 for 20 lb"))
    for number in range(1, steps):
        grams = {mark: read_weight(f"{5.3 - 0.03 * number:.2f} lb") for mark in MARKS}
        chain.append(
            Step(
                kind=f"step {number}",
                action=Weigh(grams=grams),
                minutes=Fraction(11),
                used=(salt, wood),
                resolution_grams=scale,
            )
        )
    lot = Lot(
        id="L",
        grams=read_weight("24 lb"),
        paid=Fraction("68.40"),
        extras=(Extra(what="cart", cost=Fraction(2)),),
        resolution_grams=scale,
    )
    shop = (ShopPack(name="good", paid=Fraction("5.40"), grams=read_weight("12 oz"), slices=11),)
    policy = Policy(labour_rate=Fraction(18))
    return Batch(lots=(lot,), steps=tuple(chain), policy=policy, shop=shop)


def exact_sheet(batch: Batch) -> tuple[Sheet, list]:
    """The sheet with every figure of its stages, as the float one has them."""
    sheet = compute_sheet(batch)
    stages = []
    for stage in sheet.ledger.stages:
        stages.append(
            (
                stage.grams_in,
                stage.grams_out,
                stage.yield_ratio,
                stage.kept_of_bought_ratio,
                stage.cost_added,
                stage.credits,
                stage.cost_per_lb,
            )
        )
    return sheet, stages


def least_ms(acts: dict) -> dict[str, float]:
    """The least processor time of each, over rounds that take turns: a busy machine harms all alike."""
    found = dict.fromkeys(acts, float("inf"))
    for _ in range(ROUNDS):
        for name, act in acts.items():
            begun = time.process_time()
            for _ in range(RUNS):
                act()
            found[name] = min(found[name], (time.process_time() - begun) * 1000 / RUNS)
    return found


def measure_core() -> dict:
    batch, longer = make_batch(12), make_batch(24)
    sheet, _ = exact_sheet(batch)
    assert abs(float(sheet.final.cost_per_lb or 0) - float_sheet(batch)["final"][2]) < 1e-9
    least = least_ms(
        {
            "sheet": lambda: compute_sheet(batch),
            "all": lambda: exact_sheet(batch),
            "longer": lambda: exact_sheet(longer),
            "floats": lambda: float_sheet(batch),
            "strip": lambda: lay_out(batch, sheet),
        }
    )
    many = [make_batch(12, ounces=number % 7) for number in range(of(50, 2))]
    begun = time.process_time()
    for number in range(REPORT):
        exact_sheet(many[number % len(many)])
    report_s = time.process_time() - begun
    begun = time.perf_counter()
    for _ in range(10):
        compute_spread(batch, sheet)
    return {
        **least,
        "times_floats": least["sheet"] / least["floats"],
        "all_times_floats": least["all"] / least["floats"],
        "twice_as_long": least["longer"] / least["all"],
        "report": REPORT,
        "report_s": report_s,
        "spread": (time.perf_counter() - begun) * 100,
    }


if __name__ == "__main__":
    for name, value in measure_core().items():
        print(f"{name:22} {value:.3f}")
