"""Looking meat over before it is cut: what to feel and smell for, and what to do then. Common practice."""

from dataclasses import dataclass
from typing import Final


@dataclass(frozen=True, slots=True, kw_only=True)
class Look:
    """One thing to look for; ``what_to_do`` where it is found. ``stops``: the meat is not to be cured."""

    key: str
    question: str
    what_to_do: str
    stops: bool = False


LOOKS: Final[tuple[Look, ...]] = (
    Look(
        key="bone",
        question="Bone chips?",
        what_to_do="Run the fingers along every sawn edge; cut them out, they spoil the slicer and a tooth.",
    ),
    Look(
        key="cartilage",
        question="Cartilage?",
        what_to_do="Cut it off: salt does not soften it, and the slice tears there.",
    ),
    Look(
        key="glands",
        question="Glands, blood clots?",
        what_to_do="Cut out every grey or dark soft lump with the fat around it; jowls have many.",
    ),
    Look(
        key="smell",
        question="Smells off, or sticky?",
        what_to_do="Do not cure it: salt hides what is spoiled and mends nothing. Back to the shop, or away.",
        stops=True,
    ),
)
LOOKS_BY_KEY: Final = {look.key: look for look in LOOKS}
