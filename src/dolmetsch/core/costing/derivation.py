"""Where a figure comes from: the record that ``explain`` fills."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

Unit = Literal["money", "unit_cost", "weight", "ratio", "count", "minutes", "plain"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Input:
    """One input of a figure. ``steps`` (from 1) are the entries behind it; 0 stands for what was bought."""

    label: str
    value: Fraction
    unit: Unit
    steps: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Derivation:
    """Where a figure comes from. ``figure`` is its stable name; ``shop`` the position of a shop pack's."""

    figure: str
    title: str
    formula: str
    inputs: tuple[Input, ...]
    value: Fraction
    unit: Unit
    shop: int | None = None
