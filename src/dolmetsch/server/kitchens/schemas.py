"""A kitchen, as the session describes it."""

from typing import Any, Literal

from ninja import Schema

from dolmetsch.server.kitchens.models import Membership


class KitchenInfo(Schema):
    """A kitchen one cooks in, the units it thinks in, and what one may do there.

    ``country``: two letters, whose rules days and money are written by; empty: no country's.
    ``time_zone``: empty where it was not said yet; the first device that looks says it.
    """

    slug: str
    name: str
    weight_unit: Literal["lb", "kg"]
    temperature_unit: Literal["F", "C"]
    decimal_sign: Literal[".", ","]
    time_zone: str
    country: str
    currency: str
    role: Literal["reader", "helper", "cook", "owner"]
    sees_money: bool

    @classmethod
    def of(cls, membership: Membership) -> "KitchenInfo":
        """The kitchen of ``membership``, with what that allows."""
        kitchen: Any = membership.kitchen
        return cls(
            slug=kitchen.slug,
            name=kitchen.name,
            weight_unit=kitchen.weight_unit,
            temperature_unit=kitchen.temperature_unit,
            decimal_sign=kitchen.decimal_sign,
            time_zone=kitchen.time_zone,
            country=kitchen.in_country.code if kitchen.in_country else "",
            currency=kitchen.currency,
            role=membership.role,  # type: ignore[arg-type]
            sees_money=membership.sees_money,
        )
