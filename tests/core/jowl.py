"""The jowl batch: a whole chain whose every printed figure is known (docs/examples)."""

from pathlib import Path

from dolmetsch.core.documents.batch_reading import read_batch
from dolmetsch.core.documents.strict import parse

EXAMPLES = Path(__file__).resolve().parents[2] / "docs" / "examples"

JOWL = read_batch(parse((EXAMPLES / "batch.json").read_bytes())).batch
