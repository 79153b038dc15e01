"""The jowl batch: a whole chain whose every printed figure is known (docs/examples)."""

from fractions import Fraction as F
from pathlib import Path

from dolmetsch.core.documents.batch_reading import read_batch
from dolmetsch.core.documents.strict import parse
from dolmetsch.core.ledger.batch import Step, Weigh
from dolmetsch.core.numbers.quantity import read_weight

EXAMPLES = Path(__file__).resolve().parents[2] / "docs" / "examples"

JOWL = read_batch(parse((EXAMPLES / "batch.json").read_bytes())).batch


def weigh(kind, minutes=0, lines=(), **weights):
    grams = {mark: read_weight(weight) for mark, weight in weights.items()}
    return Step(kind=kind, action=Weigh(grams=grams), minutes=F(minutes), used=lines)
