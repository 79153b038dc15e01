"""Something found in what a cook recorded or typed that is worth saying; by itself it stops no record."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

#: ``note``: good to know. ``care``: could hurt someone or spoil the meat or the figure. ``ask``: more likely
#: a slip than meant; a yes settles it. ``refuse``: cannot be taken as it is.
Severity = Literal["note", "care", "ask", "refuse"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """One thing found, with a stable ``code``.

    Attributes:
        subject: what it is about: a step ("steps[2]"), a field ("salt"), a row of a list ("rows[7]").
        message: the same in a sentence.
        params: the values in the message, as printed in it.
        source: where the limit or the figure behind it is from; empty for plain arithmetic.
    """

    code: str
    severity: Severity
    message: str
    subject: str = ""
    params: Mapping[str, str] = field(default_factory=dict)
    source: str = ""


def note(code: str, message: str, *, source: str = "", **params: str) -> Finding:
    """Something good to know."""
    return Finding(code=code, severity="note", message=message, source=source, params=params)


def care(code: str, message: str, *, source: str = "", subject: str = "", **params: str) -> Finding:
    """Something that could hurt someone or spoil the meat or the figure."""
    return Finding(code=code, severity="care", subject=subject, message=message, source=source, params=params)


def question(subject: str, message: str) -> Finding:
    """A question about a field or a piece; a yes settles it."""
    return Finding(code="ask", severity="ask", subject=subject, message=message)
