"""What has changed since a plan was put on the list: what it asks for now beside what the list says."""

from collections.abc import Iterator, Mapping, Sequence
from fractions import Fraction
from typing import Final

from dolmetsch.server.meals.inputs.facts import Fact
from dolmetsch.server.meals.models import MealJob
from dolmetsch.server.meals.words import say_products
from dolmetsch.server.meals.working import Batch, Worked
from dolmetsch.server.quantities.lengths import NAME_LENGTH
from dolmetsch.server.quantities.printing import print_weight

#: The kind of the job that buys the meat.
BUY: Final = "buy"
#: What is to be bought differs where it does so by more than this part; less is drift of forecasts (ours).
DRIFT: Final = 0.02


def say_buy(worked: Worked, batch: Batch) -> str:
    """What is to be bought for a batch of the plan, in words."""
    bought = print_weight(Fraction(batch.grams)).say(worked.read.known.kitchen.weight_unit)
    return f"Buy {bought} of {batch.read.cut_words}"[:NAME_LENGTH]


def list_changes(worked: Worked, jobs: Sequence[MealJob], facts: Mapping[int, Fact]) -> Iterator[str]:
    """What the plan asks for as things stand that the list, its ``jobs``, does not say, in words."""
    listed = {tuple(job.products): job for job in jobs if job.kind == BUY}
    for batch in worked.batches:
        job = listed.pop(tuple(batch.products), None)
        now = say_buy(worked, batch)
        if job is None:
            yield f"{now}: that is not on the list."
        elif job.pk in facts:
            yield f"More is needed than was bought: {now}."
        elif job.grams and abs(batch.grams / float(job.grams) - 1) > DRIFT:
            yield f"{now}; the list says “{job.words}”."
    for products, job in listed.items():
        if job.pk not in facts:
            yield f"Nothing of {say_products(products)} is needed any more; the list says “{job.words}”."
