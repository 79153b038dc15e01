"""What has to be cooked before it is eaten: cold-smoked, air-dried, or never heated enough."""

from collections.abc import Collection, Mapping
from typing import Final

from dolmetsch.core.findings import Finding
from dolmetsch.core.ledger.kinds import FINISHING, ONGOING, method_kinds

RAW_TEXT: Final = "Raw: cook before eating."
RAW_LABEL: Final = "RAW - COOK BEFORE EATING"
_FROM_A_FIRE: Final = frozenset({"smoke", "cook"})


def is_raw(kinds: Collection[str], *, methods: Mapping[str, str], cooked: Mapping[str, bool]) -> bool:
    """Whether a piece that went through ``kinds`` of step has to be cooked before it is eaten.

    ``cooked``: by kind of step, whether a fire that was followed heated it enough (safe harbor or home rule).
    Where none was followed, the method counts: a cook and a hot smoke are taken for cooked, a cold smoke is
    not. What is still on its way, neither smoked, dried nor cut, is said to be nothing yet.
    """
    done = method_kinds(kinds)
    heated = {
        kind: cooked.get(kind, kind == "cook" or methods.get(kind) != "cold_smoke")
        for kind in done & _FROM_A_FIRE
    }
    if any(heated.values()):
        return False
    return bool(heated or done & (FINISHING | ONGOING))


def raw_finding() -> Finding:
    """The caution beside what is raw."""
    return Finding(
        code="raw",
        severity="care",
        message=f"{RAW_TEXT} It was not heated enough to be cooked.",
        source="common practice; your food authority's rules come first",
    )
