"""Programs a fire is often run by: start values of common practice, to be changed by the cook."""

from dataclasses import dataclass
from typing import Final, Literal

StageKind = Literal["dry", "cold_smoke", "smoke", "cook", "steam", "wrap", "hold"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ProgramStage:
    """A stage: its air (°F), and its end: after so many minutes, at an inside °F, or by the cook's word."""

    kind: StageKind
    air: int
    minutes: int | None = None
    inside: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Program:
    """Stages in their order, and the inside temperature (°F) at which it comes out (None: it stays raw)."""

    name: str
    stages: tuple[ProgramStage, ...]
    pull_at: int | None


PROGRAMS_SOURCE: Final = "common practice; change what your smoker and your meat ask for"
PROGRAMS: Final = (
    Program(
        name="Hot smoke",
        stages=(
            ProgramStage(kind="dry", air=130, minutes=60),
            ProgramStage(kind="smoke", air=180, minutes=120),
            ProgramStage(kind="cook", air=225),
        ),
        pull_at=150,
    ),
    Program(
        name="Stepped",
        stages=(
            ProgramStage(kind="dry", air=120, minutes=60),
            ProgramStage(kind="smoke", air=135, minutes=60),
            ProgramStage(kind="smoke", air=150, minutes=60),
            ProgramStage(kind="smoke", air=165, minutes=60),
            ProgramStage(kind="cook", air=180),
        ),
        pull_at=140,
    ),
    Program(name="Cold smoke", stages=(ProgramStage(kind="cold_smoke", air=80),), pull_at=None),
    Program(
        name="Smoke, wrap, pull",
        stages=(
            ProgramStage(kind="smoke", air=225, inside=160),
            ProgramStage(kind="wrap", air=250),
        ),
        pull_at=200,
    ),
    Program(
        name="Smoke, then steam",
        stages=(ProgramStage(kind="smoke", air=225, minutes=180), ProgramStage(kind="steam", air=212)),
        pull_at=200,
    ),
)
