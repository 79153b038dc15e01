"""What the core refuses.

DolmetschError
├── QuantityError      something typed that is not a weight, price or number
├── CureError          a cure that cannot be mixed as entered
└── PlacedError        something refused at a path in a batch
    ├── LedgerError    a batch whose entries cannot have happened as recorded
    └── DocumentError  a document that cannot be read
"""

from typing import ClassVar


class DolmetschError(Exception):
    """Root of all refusals; ``code`` is stable, the text is for the cook."""

    code: ClassVar[str] = "refused"


class QuantityError(DolmetschError):
    """A typed quantity that cannot be taken.

    Attributes:
        reason: stable word for the cause (``unreadable``, ``zero``, ``negative``, ``too_heavy``,
            ``too_fine``, ``too_large``).
        found: what was typed, as it came.
    """

    code = "bad_quantity"

    def __init__(self, reason: str, found: str, message: str) -> None:
        self.reason = reason
        self.found = found
        super().__init__(message)


class CureError(DolmetschError):
    """A cure that cannot be mixed: ``field`` of the cure document, and why."""

    code = "impossible_cure"

    def __init__(self, field: str, text: str) -> None:
        self.field = field
        self.text = text
        super().__init__(f"{field}: {text}")


class PlacedError(DolmetschError):
    """Refused whole, because of one path in it.

    Attributes:
        reason: stable word for the cause (``overweight``, ``piece_gone``, ``unknown_piece``, …).
        step: the step counted from 1; None where the batch's lots or head are meant.
        field: path inside the step (``into[0].weight``) or inside the batch (``lots[0].paid``).
        text: the message without the path.
    """

    def __init__(self, reason: str, *, step: int | None = None, field: str, text: str) -> None:
        self.reason = reason
        self.step = step
        self.field = field
        self.text = text
        path = field if step is None else f"step {step}, {field}" if field else f"step {step}"
        super().__init__(f"{path}: {text}" if path else text)


class LedgerError(PlacedError):
    """A batch that is refused whole, because one entry is impossible."""

    code = "impossible_batch"


class DocumentError(PlacedError):
    """A document that is refused whole, because one value in it cannot be read."""

    code = "bad_document"
