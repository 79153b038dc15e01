"""What starting a kitchen and its settings take and answer."""

from typing import Annotated, Literal

from pydantic import Field

from dolmetsch.server.access.schemas import Closed, Password, Session, Username
from dolmetsch.server.quantities.lengths import NAME_LENGTH

Name = Annotated[str, Field(min_length=1, max_length=NAME_LENGTH, pattern=r"^[^\x00-\x1f\x7f]*$")]
Currency = Annotated[str, Field(pattern=r"^[A-Z]{3}$")]
Zone = Annotated[str, Field(max_length=60)]
CountryCode = Annotated[str, Field(pattern=r"^([A-Z]{2})?$")]


class SettingsIn(Closed):
    """What a kitchen counts by default, its scale, and how many slabs fit. Empty texts: not set.

    ``labour_rate`` an hour, ``scale`` a weight like "5 g". ``helpers_see_money``: else prices are kept from
    helpers.
    """

    labour_rate: Annotated[str, Field(max_length=20)] = ""
    by_products: bool = True
    fuel: bool = True
    packaging: bool = True
    overhead: bool = True
    scale: Annotated[str, Field(max_length=20)] = ""
    fridge_slabs: Annotated[int, Field(ge=1, le=500)] | None = None
    smoker_slabs: Annotated[int, Field(ge=1, le=500)] | None = None
    helpers_see_money: bool = True


class UnitsIn(Closed):
    """A kitchen's name, units, currency and clock. ``time_zone``: an IANA name; empty: that of the
    first device that looks. ``country``: two letters; empty: not said.
    """

    name: Name
    currency: Currency
    weight_unit: Literal["lb", "kg"]
    temperature_unit: Literal["F", "C"]
    decimal_sign: Literal[".", ","] = "."
    time_zone: Zone = ""
    country: CountryCode = ""


class UnitsOut(UnitsIn):
    """As saved; ``is_currency_fixed``: prices were recorded in it, so it stays."""

    is_currency_fixed: bool


class StoreWanted(Closed):
    """A fridge, smoker or chamber one has: what it is called."""

    kind: Literal["fridge", "smoker", "chamber"]
    name: Name


class StartKitchenIn(UnitsIn):
    """A new kitchen with its owner: ``cook`` is what the others call them; none where who asks is signed in.

    ``scale``: what its steps are, like "5 g"; ``stores``: what it has, to be put on the map.
    """

    cook: Annotated[str, Field(max_length=NAME_LENGTH, pattern=r"^[^\x00-\x1f\x7f]*$")] = ""
    username: Username = ""
    password: Password = ""
    scale: Annotated[str, Field(max_length=20)] = ""
    stores: Annotated[list[StoreWanted], Field(max_length=12)] = []


class StartedOut(Closed):
    """The session in the new kitchen, and its address."""

    slug: str
    session: Session


class DemoOut(Closed):
    """Whether the demo is there, and whether it was put away."""

    is_there: bool
    is_away: bool


class DemoIn(Closed):
    """Put the demo away, or bring it back."""

    is_away: bool
