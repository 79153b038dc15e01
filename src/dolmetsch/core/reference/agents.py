"""Kinds of curing agent: what they hold and what they are for."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final


@dataclass(frozen=True, slots=True, kw_only=True)
class Agent:
    """A kind of curing agent: its shares of nitrite and nitrate (None: by its label, else unknown).

    ``spoon`` is the kind of spoonful it weighs like; ``purpose`` what it is for.
    """

    key: str
    label: str
    nitrite: Fraction | None
    nitrate: Fraction = Fraction(0)
    spoon: str = "curing_salt"
    purpose: str
    is_ready_mixed: bool = False


AGENTS: Final[dict[str, Agent]] = {
    agent.key: agent
    for agent in (
        Agent(
            key="no_1",
            label="curing salt no. 1",
            nitrite=Fraction("0.0625"),
            purpose="everything cooked or smoked within weeks",
        ),
        Agent(
            key="no_2",
            label="curing salt no. 2",
            nitrite=Fraction("0.0625"),
            nitrate=Fraction("0.04"),
            purpose="only dried or fermented pieces aged over about 30 days",
        ),
        Agent(
            key="weak",
            label="nitrited salt, weak",
            nitrite=None,
            spoon="fine_salt",
            purpose="used as the salt, nitrite by its label",
        ),
        Agent(
            key="complete",
            label="complete home cure",
            nitrite=Fraction("0.005"),
            nitrate=Fraction("0.005"),
            spoon="ready_mixed",
            purpose="use at the rate on its packet",
            is_ready_mixed=True,
        ),
        Agent(
            key="packet",
            label="packet cure",
            nitrite=None,
            spoon="ready_mixed",
            purpose="use at the rate on its packet only, nitrite by its label",
            is_ready_mixed=True,
        ),
    )
}
