"""What signing in, one's own page and the kitchen's tablet take and answer."""

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import ConfigDict, Field

from dolmetsch.server.kitchens.schemas import KitchenInfo
from dolmetsch.server.quantities.lengths import NAME_LENGTH

#: Longer than any code there is.
CODE = 40
Password = Annotated[str, Field(max_length=200)]
Code = Annotated[str, Field(max_length=CODE)]
Username = Annotated[str, Field(max_length=60)]
FirstName = Annotated[str, Field(max_length=NAME_LENGTH, pattern=r"^[^\x00-\x1f\x7f]*$")]


class Closed(Schema):
    """What is typed: no field that is not known."""

    model_config = ConfigDict(extra="forbid")


class SignIn(Schema):
    """A name and a password; the code of the second factor where it is asked for."""

    username: Annotated[str, Field(max_length=150)]
    password: Password
    code: Code = ""


class Session(Schema):
    """Who is signed in, and in which kitchens they are.

    ``demo`` carries the sign-in of a demo, else null. ``may_start``: a kitchen can be started here.
    ``tablet``: this device is that kitchen's tablet. ``disk_low``: how little room the disk has, else null;
    ``mail``: invitations can be sent by mail.
    """

    signed_in: bool
    name: str | None = None
    username: str | None = None
    kitchens: list[KitchenInfo] = []
    demo: SignIn | None = None
    may_start: bool = False
    tablet: str | None = None
    disk_low: str | None = None
    mail: bool = False


class Alive(Schema):
    """The session still holds."""

    alive: Literal[True] = True


class DeviceOut(Schema):
    """A device someone is signed in on; ``is_here``: the one that asks."""

    id: int
    name: str
    address: str
    since: datetime
    last_at: datetime
    is_here: bool
    tablet_of: str | None


class OwnPage(Schema):
    """Someone's own page. ``recovery_left``: recovery codes that were not used yet."""

    name: str
    username: str
    has_second_factor: bool
    recovery_left: int
    devices: list[DeviceOut]


class OwnName(Closed):
    """What the others in the kitchen call one."""

    name: Annotated[str, Field(min_length=1, max_length=NAME_LENGTH, pattern=r"^[^\x00-\x1f\x7f]*$")]


class NewPassword(Closed):
    """The password so far, and the new one."""

    password: Password
    new: Password


class PasswordAgain(Closed):
    """The password, asked for again before something that matters."""

    password: Password


class AppCode(Closed):
    """The code an authenticator app shows now."""

    code: Code


class SecondFactorOut(Schema):
    """The key for an authenticator app: as a QR code (SVG), and to be typed."""

    secret: str
    qr: str


class RecoveryCodes(Schema):
    """Codes that stand in for the app, each once; shown only now."""

    codes: list[str]


class PasswordLinkOut(Schema):
    """Whose password a link sets."""

    name: str
    username: str


class PasswordByLink(Closed):
    """A new password, by a link."""

    new: Password


class TabletPerson(Schema):
    """Someone who can say at the tablet who they are."""

    id: int
    name: str
    has_code: bool


class TabletOut(Schema):
    """A kitchen's tablet: the kitchen, and who works in it."""

    kitchen: str
    people: list[TabletPerson]


class WhoIn(Closed):
    """Who one is, by a short code."""

    person: int
    code: Annotated[str, Field(max_length=12)]
