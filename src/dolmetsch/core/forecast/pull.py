"""What a fire keeps of the meat when it is pulled at an inside temperature, by the kitchen's own cooks.

A cook of one's own says by how much it kept more or less than the start values (``heat.cook_shrink``), in ln,
whatever it was taken to; that is carried over to the temperature asked about. The start value is worth three
cooks, as everywhere (``yields``).
"""

from collections.abc import Sequence
from math import log

from dolmetsch.core.forecast.yields import Belief, believe_ratio, tally_logs
from dolmetsch.core.heat.cook_shrink import OwnCook, kept_at
from dolmetsch.core.reference.yields import StartYield


def believe_pull(
    fahrenheit: float, *, hours: float, method: str, cooks: Sequence[OwnCook], at: str
) -> Belief:
    """What is kept of what went into the fire if it is pulled at ``fahrenheit`` after ``hours`` in the smoke.

    ``method`` of the step it is; ``at``: the temperature in words, for the basis.
    """
    kept, deviation = kept_at(fahrenheit, hours=hours)
    start = StartYield(mean=kept, deviation=deviation)
    own = tally_logs([(log(kept) + cook.off, 0.0) for cook in cooks], start=start)
    log_mean, log_deviation = believe_ratio(start, own)
    count = len(cooks)
    learned = "start value, 0 cooks" if not count else f"{count} of your cooks, however hot each was taken"
    return Belief(
        method=method,
        log_mean=min(log_mean, 0.0),
        log_deviation=log_deviation,
        batches=count,
        others=0,
        start=start,
        is_borrowed=False,
        basis=f"pulled at {at}: {learned}",
    )
