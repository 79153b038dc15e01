"""The ledger's sums in plain floats: the yardstick for the exact one, and wrong in the last cent."""

from dolmetsch.core.ledger.batch import Batch, ByProduct, Main, Split
from dolmetsch.core.numbers.quantity import Price

LB = 453.59237


def float_sheet(batch: Batch) -> dict:
    """Every figure of the sheet: stages, pieces, bill by group, portion, shop. Splits and weighings only."""
    here = {}
    for lot in batch.lots:
        costs = {"meat": float(lot.paid)}
        for extra in lot.extras:
            costs["buying"] = costs.get("buying", 0.0) + float(extra.cost)
        here[lot.id] = [float(lot.grams), costs, True, None]
    bought = sum(piece[0] for piece in here.values())
    paid = sum(sum(piece[1].values()) for piece in here.values())
    stages = []
    before = bought
    for number, step in enumerate(batch.steps, start=1):
        stages.append(_run_step(batch, number, step=step, here=here, before=before, bought=bought))
        before = stages[-1]["out"]
    mains = {mark: piece for mark, piece in here.items() if piece[2]}
    return _finish(batch, stages, mains=mains, bought=bought, paid=paid)


def _run_step(batch: Batch, number: int, *, step, here: dict, before: float, bought: float) -> dict:
    entering = step.entering
    together = sum(here[mark][0] for mark in entering)
    lines = []
    for used in step.used:
        price = used.price
        if batch.policy.counts(used.group):
            cost = float(used.amount) * float(price.paid) / float(price.size)
            lines.append((used.group, cost, used.pieces or entering))
    if batch.policy.labour_rate is not None:
        lines.append(("labour", float(step.minutes) * float(batch.policy.labour_rate) / 60, entering))
    lines.append(("overhead", float(step.overhead), entering))
    borne = {mark: dict(here[mark][1]) for mark in entering}
    for group, cost, bearers in lines:
        bearing = sum(here[mark][0] for mark in bearers)
        for mark in bearers:
            borne[mark][group] = borne[mark].get(group, 0.0) + cost * here[mark][0] / bearing
    credited = 0.0
    if isinstance(step.action, Split):
        credited = _split(step.action, here, borne[step.action.piece], batch)
        made = [out.id for out in step.action.into if isinstance(out, Main)]
    else:
        for mark, grams in step.action.grams.items():
            here[mark] = [float(grams), borne[mark], here[mark][2], here[mark][3]]
        made = list(entering)
    out = sum(piece[0] for piece in here.values() if piece[2])
    cost_out = sum(sum(piece[1].values()) for piece in here.values() if piece[2])
    return {
        "step": number,
        "kind": step.kind,
        "in": before,
        "out": out,
        "yield_of_step": sum(here[mark][0] for mark in made) / together,
        "yield_of_bought": out / bought,
        "cost_added": sum(line[1] for line in lines),
        "credits": credited,
        "cost_per_lb": cost_out * LB / out,
    }


def _split(split: Split, here: dict, costs: dict, batch: Batch) -> float:
    worths = {}
    for out in split.into:
        if isinstance(out, ByProduct) and isinstance(out.worth, Price):
            price = out.worth
            worth = float(out.grams) * float(price.paid) / float(price.size)
            worths[out.id] = worth if batch.policy.credit_by_products else 0.0
    available, wanted = sum(costs.values()), sum(worths.values())
    if wanted > available:
        worths = {mark: worth * available / wanted for mark, worth in worths.items()}
    credited = sum(worths.values())
    costs["credit"] = costs.get("credit", 0.0) - credited
    sharing = sum(float(out.grams) for out in split.into if out.id not in worths)
    del here[split.piece]
    for out in split.into:
        grams, is_main = float(out.grams), isinstance(out, Main)
        if out.id in worths:
            mine = {"credit": worths[out.id]}
        else:
            mine = {group: cost * grams / sharing for group, cost in costs.items()}
        here[out.id] = [grams, mine, is_main, out.slices if is_main else None]
    return credited


def _finish(batch: Batch, stages: list, *, mains: dict, bought: float, paid: float) -> dict:
    grams = sum(piece[0] for piece in mains.values())
    groups = {}
    for piece in mains.values():
        for group, cost in piece[1].items():
            groups[group] = groups.get(group, 0.0) + cost
    cost = sum(groups.values())
    per_lb = cost * LB / grams
    counts = [piece[3] for piece in mains.values()]
    per_slice = cost / sum(counts) if all(counts) else None
    labour, minutes = groups.get("labour", 0.0), sum(float(step.minutes) for step in batch.steps)
    store = []
    for pack in batch.shop:
        theirs = float(pack.paid) * LB / float(pack.grams)
        target = theirs * grams / LB
        factor = (target - (cost - groups["meat"])) / groups["meat"]
        store.append(
            {
                "cost_per_lb": theirs,
                "saved_per_lb": theirs - per_lb,
                "saved_on_batch": (theirs - per_lb) * grams / LB,
                "break_even": paid * factor * LB / bought,
                "earned_per_hour": (target - cost + labour) * 60 / minutes,
            }
        )
    return {
        "bought": (bought, paid, paid * LB / bought),
        "stages": stages,
        "pieces": {mark: (piece[0], sum(piece[1].values())) for mark, piece in mains.items()},
        "final": (grams, cost, per_lb, grams / bought, per_slice),
        "groups": groups,
        "store": store,
    }
