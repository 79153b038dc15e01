"""From the text of a document to its answer: what the command line prints and the application agrees with."""

from pathlib import Path
from typing import Final

from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.curing.cure import mix_cure
from dolmetsch.core.documents.batch_reading import read_batch
from dolmetsch.core.documents.cook_reading import read_cook
from dolmetsch.core.documents.cook_writing import write_cook
from dolmetsch.core.documents.cure_reading import read_cure
from dolmetsch.core.documents.cure_writing import write_mix
from dolmetsch.core.documents.drying_reading import read_drying
from dolmetsch.core.documents.drying_writing import write_drying
from dolmetsch.core.documents.sheet_writing import write_sheet
from dolmetsch.core.documents.strict import parse
from dolmetsch.core.drying.follow_drying import follow_drying
from dolmetsch.core.heat.follow_cook import follow_cook

#: Where the JSON Schemas of documents and answers lie: ``batch``, ``sheet``, ``cure``, ``cure-answer``, …
SCHEMAS: Final = Path(__file__).parent / "schemas"


def answer_cost(data: bytes | str) -> dict[str, object]:
    """The sheet of a batch document.

    Raises:
        DocumentError: it cannot be read.
        LedgerError: its entries cannot have happened.
    """
    document = read_batch(parse(data))
    return write_sheet(document, compute_sheet(document.batch))


def answer_cure(data: bytes | str) -> dict[str, object]:
    """What to weigh out for a cure document.

    Raises:
        DocumentError: it cannot be read.
        CureError: it cannot be mixed.
    """
    return write_mix(mix_cure(read_cure(parse(data))))


def answer_cook(data: bytes | str) -> dict[str, object]:
    """How a cook log's meat stands: inside, lethality, cooling, when it is ready, what is wrong.

    Raises:
        DocumentError: it cannot be read.
    """
    document = read_cook(parse(data))
    return write_cook(follow_cook(document.log, until=document.until))


def answer_drying(data: bytes | str) -> dict[str, object]:
    """What a drying log's piece has lost, and when it is dry.

    Raises:
        DocumentError: it cannot be read.
    """
    log, until = read_drying(parse(data))
    return write_drying(follow_drying(log, until=until))
