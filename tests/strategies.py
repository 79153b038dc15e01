"""Random batches that could have happened, for the properties."""

from dataclasses import replace
from fractions import Fraction

from hypothesis import strategies as st

from dolmetsch.core.ledger.batch import (
    AS_MAIN,
    Batch,
    ByProduct,
    Discard,
    Lot,
    Main,
    Merge,
    Policy,
    Split,
    Step,
    Used,
    Weigh,
)
from dolmetsch.core.numbers.quantity import Price

GROUPS = ("cure", "fuel", "packaging", "other")
money = st.integers(0, 100_000).map(lambda cents: Fraction(cents, 100))
weights = st.integers(1, 2_000_000).map(lambda tenths: Fraction(tenths, 10))
per_gram = st.builds(lambda paid: Price(paid=paid, grams=Fraction("453.59237")), money)
per_each = st.builds(lambda paid: Price(paid=paid, count=Fraction(1)), money)
policies = st.builds(
    Policy,
    labour_rate=st.none() | money,
    credit_by_products=st.booleans(),
    fuel=st.booleans(),
    packaging=st.booleans(),
)


@st.composite
def used_lines(draw, entering):
    pieces = draw(st.lists(st.sampled_from(entering), unique=True))
    price = draw(per_gram | per_each)
    return Used(
        what="stuff",
        amount=draw(st.integers(0, 5_000).map(Fraction)),
        price=price,
        group=draw(st.sampled_from(GROUPS)),
        pieces=tuple(pieces),
    )


@st.composite
def splits(draw, *, piece, grams, mint):
    """Parts of a whole by random shares; the last share is what is left unweighed."""
    count = draw(st.integers(1, 5))
    shares = draw(st.lists(st.integers(1, 100), min_size=count + 1, max_size=count + 1))
    parts = [grams * share / sum(shares) for share in shares[:count]]
    main_count = draw(st.integers(1, count))
    outputs = [Main(id=next(mint), grams=part) for part in parts[:main_count]]
    for part in parts[main_count:]:
        outputs.append(ByProduct(id=next(mint), grams=part, worth=draw(per_gram | st.just(AS_MAIN))))
    return Split(piece=piece, into=tuple(outputs))


@st.composite
def weighings(draw, *, standing):
    entering = draw(st.lists(st.sampled_from(sorted(standing)), unique=True, min_size=1))
    ratios = {mark: Fraction(draw(st.integers(50, 120)), 100) for mark in entering}
    return Weigh(grams={mark: standing[mark] * ratio for mark, ratio in ratios.items()})


@st.composite
def merges(draw, *, standing, mint):
    pieces = draw(st.lists(st.sampled_from(sorted(standing)), unique=True, min_size=1, max_size=4))
    together = sum(standing[mark] for mark in pieces)
    into = Main(id=next(mint), grams=together * draw(st.integers(60, 130)) / 100)
    return Merge(pieces=tuple(pieces), into=into)


@st.composite
def discards(draw, *, standing):
    pieces = draw(st.lists(st.sampled_from(sorted(standing)), unique=True, min_size=1, max_size=2))
    return Discard(pieces=tuple(pieces), charge=draw(st.sampled_from(["batch", "loss"])))


@st.composite
def actions(draw, *, standing, mint):
    """One action on the pieces that stand; ``standing`` is brought up to date."""
    act = draw(st.sampled_from(["split", "split", "weigh", "weigh", "merge", "discard"]))
    if act == "split":
        piece = draw(st.sampled_from(sorted(standing)))
        action = draw(splits(piece=piece, grams=standing.pop(piece), mint=mint))
        standing |= {out.id: out.grams for out in action.into}
        return action
    if act == "weigh":
        action = draw(weighings(standing=standing))
        standing |= action.grams
        return action
    if act == "merge":
        action = draw(merges(standing=standing, mint=mint))
        standing[action.into.id] = action.into.grams
    else:
        action = draw(discards(standing=standing))
    for mark in action.pieces:
        del standing[mark]
    return action


@st.composite
def batches(draw, *, min_lots=1, min_steps=0, prefix="p"):
    """Up to three lots and seven steps of all four kinds, by-products going on; always possible."""
    mint = iter(f"{prefix}{n}" for n in range(1000))
    lots = [
        Lot(id=next(mint), grams=draw(weights), paid=draw(money))
        for _ in range(draw(st.integers(min_lots, 3)))
    ]
    standing = {lot.id: lot.grams for lot in lots}
    steps = []
    for _ in range(draw(st.integers(min_steps, 7))):
        if not standing:
            break
        action = draw(actions(standing=standing, mint=mint))
        step = Step(
            kind="any",
            action=action,
            minutes=Fraction(draw(st.integers(0, 240))),
            overhead=draw(money),
        )
        used = draw(st.lists(used_lines(list(step.entering)), max_size=3))
        steps.append(replace(step, used=tuple(used)))
    return Batch(lots=tuple(lots), steps=tuple(steps), policy=draw(policies))
