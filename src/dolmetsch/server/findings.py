"""What was found worth saying, as the API shows it."""

from collections.abc import Iterable
from typing import Any

from pydantic import BaseModel, ConfigDict, model_validator

from dolmetsch.core.findings import Finding, Severity


class FindingOut(BaseModel):
    """One thing found: its code, how much it matters, what it is about, the sentence, where it is from."""

    model_config = ConfigDict(from_attributes=True)

    code: str
    severity: Severity = "care"
    subject: str = ""
    message: str
    source: str = ""

    @model_validator(mode="before")
    @classmethod
    def _read_older(cls, kept: Any) -> Any:
        """Cures put down by an earlier program hold theirs as ``text``, all of them things to mind."""
        if isinstance(kept, dict) and "text" in kept:
            return {**kept, "message": kept["text"]}
        return kept


def show_findings(found: Iterable[Finding]) -> list[FindingOut]:
    """Findings of the core, in their order."""
    return [FindingOut.model_validate(one) for one in found]
