"""Weights and prices as the API tells them, and how a typed one was read."""

from typing import Annotated

from pydantic import BaseModel, Field

Fixed = Annotated[str, Field(pattern=r"^-?\d+(\.\d+)?$")]


class Weight(BaseModel):
    """A weight in both units."""

    lb: Fixed
    kg: Fixed


class UnitCost(BaseModel):
    """A price by weight in both units."""

    per_lb: Fixed
    per_kg: Fixed


class Reading(BaseModel):
    """How a typed quantity was read: the weight in both units, or the money."""

    path: str
    weight: Weight | None = None
    money: Fixed | None = None
