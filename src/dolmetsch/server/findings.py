"""What was found worth saying, as the API shows it."""

from collections.abc import Iterable
from typing import Any, Self

from pydantic import BaseModel, model_validator

from dolmetsch.core.findings import Finding, Severity


class FindingOut(BaseModel):
    """One thing found: its code, how much it matters, what it is about, the sentence, where it is from."""

    code: str
    severity: Severity = "care"
    subject: str = ""
    message: str
    source: str = ""

    @classmethod
    def of(cls, found: Finding) -> Self:
        """A finding of the core."""
        return cls(
            code=found.code,
            severity=found.severity,
            subject=found.subject,
            message=found.message,
            source=found.source,
        )

    @model_validator(mode="before")
    @classmethod
    def _read_older(cls, kept: Any) -> Any:
        """Cures put down by an earlier program hold theirs as ``text``, all of them things to mind."""
        if isinstance(kept, dict) and "text" in kept:
            return {**kept, "message": kept["text"]}
        return kept


def show_findings(found: Iterable[Finding]) -> list[FindingOut]:
    """Findings of the core, in their order."""
    return [FindingOut.of(one) for one in found]
