"""Weights and prices as the API tells them, and how a typed one was read."""

from typing import Annotated, Final

from pydantic import BaseModel, Field

#: Marks the type of a field that holds money, as an answer or as typed.
MONEY: Final = object()
Fixed = Annotated[str, Field(pattern=r"^-?\d+(\.\d+)?$")]
#: An amount of money; empty where the one who asks is shown no prices (``access.money``).
Money = Annotated[str, Field(pattern=r"^(-?\d+(\.\d+)?)?$"), MONEY]

#: Money as it was typed or in words ("3.49/lb"), where an answer holds it.
MoneyText = Annotated[str, MONEY]


class Weight(BaseModel):
    """A weight in both units."""

    lb: Fixed
    kg: Fixed

    def of(self, unit: str) -> str:
        """The figure in ``unit``, "lb" or "kg"."""
        return self.lb if unit == "lb" else self.kg

    def say(self, unit: str) -> str:
        """ "4.40 lb" """
        return f"{self.of(unit)} {unit}"


class UnitCost(BaseModel):
    """A price by weight in both units."""

    per_lb: Money
    per_kg: Money

    def of(self, unit: str) -> str:
        """The price of one ``unit``, "lb" or "kg"."""
        return self.per_lb if unit == "lb" else self.per_kg


class ReadQuantity(BaseModel):
    """How a typed quantity was read: the weight in both units, or the money."""

    path: str
    weight: Weight | None = None
    money: Money | None = None
