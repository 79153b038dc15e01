"""The butcher's test of a batch: everything its trims made of what was bought."""

from fractions import Fraction

from dolmetsch.core.meat.butchers_test import ButchersTest, judge_cutting
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.pieces import schemas
from dolmetsch.server.problems import DomainError, refuse_fields
from dolmetsch.server.quantities.printing import (
    print_money,
    print_percent,
    print_price_of_gram,
    print_weight,
)
from dolmetsch.server.quantities.reader import Reader


def read_test(batch: Batch, data: schemas.TestIn) -> schemas.TestOut:
    """The butcher's test of ``batch``, and what next week's price makes of it.

    Raises:
        DomainError: not_trimmed (nothing was cut yet), bad_fields.
    """
    test = _judge(cost_batch(batch))
    reader = Reader.of(batch.kitchen)
    price = reader.price_by_weight("price", data.price) if data.price else None
    if reader.problems:
        raise refuse_fields(reader.problems)
    each = None if price is None else price.paid / price.size
    by_factor = None if each is None else test.price_usable(each)
    return schemas.TestOut(
        bought=print_weight(test.bought),
        paid=print_money(test.cost),
        price=print_price_of_gram(test.price),
        parts=[
            schemas.TestPartOut(
                name=part.name,
                is_usable=part.is_usable,
                weight=print_weight(part.grams),
                share=print_percent(part.share),
                worth=print_money(part.worth),
            )
            for part in test.parts
        ],
        lost=print_weight(test.lost),
        lost_share=print_percent(test.lost / test.bought),
        usable=print_weight(test.usable),
        usable_share=print_percent(test.usable / test.bought),
        usable_price=print_price_of_gram(test.usable_price),
        factor=None if test.factor is None else fixed(test.factor, 3),
        next_price=None if each is None else print_price_of_gram(each),
        next_usable=None if by_factor is None else print_price_of_gram(by_factor),
        next_with_same_worth=None
        if each is None
        else print_price_of_gram(test.price_usable_with_same_worth(each)),
    )


def _judge(costed: CostedBatch) -> ButchersTest:
    """All trims of the lots: meat as purchased, with its buying extras, against what can be used."""
    ledger = costed.sheet.ledger
    stages = [stage for stage in ledger.stages if stage.act == "split" and stage.kind == "trim"]
    if not stages:
        said = "Nothing has been trimmed yet: record the trim, then the test shows what a usable pound costs."
        raise DomainError("not_trimmed", 409, "Not yet", said)
    entered = [piece for stage in stages for piece in stage.entered]
    made = [piece for stage in stages for piece in stage.made]
    cost = sum((piece.costs.get("meat", Fraction(0)) for piece in entered), Fraction(0))
    cost += sum((piece.costs.get("buying", Fraction(0)) for piece in entered), Fraction(0))
    return judge_cutting(
        bought=sum((piece.grams for piece in entered), Fraction(0)),
        cost=cost,
        usable=[(piece.id, piece.grams) for piece in made if piece.is_main],
        cut_off=[(piece.name or piece.id, piece.grams, piece.cost) for piece in made if not piece.is_main],
    )
