"""What signing in takes and tells."""

from typing import Annotated, Literal

from ninja import Schema
from pydantic import ConfigDict, Field


class KitchenInfo(Schema):
    """A kitchen one cooks in, and the unit it thinks in."""

    slug: str
    name: str
    weight_unit: Literal["lb", "kg"]
    currency: str


class SettingsIn(Schema):
    """What a kitchen counts by default, its scale, and how many slabs fit. Empty texts: not set.

    ``labour_rate`` an hour, ``scale`` a weight like "5 g".
    """

    model_config = ConfigDict(extra="forbid")

    labour_rate: Annotated[str, Field(max_length=20)] = ""
    by_products: bool = True
    fuel: bool = True
    packaging: bool = True
    overhead: bool = True
    scale: Annotated[str, Field(max_length=20)] = ""
    fridge_slabs: Annotated[int, Field(ge=1, le=500)] | None = None
    smoker_slabs: Annotated[int, Field(ge=1, le=500)] | None = None
