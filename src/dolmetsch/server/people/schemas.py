"""What the people of a kitchen take and answer."""

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from dolmetsch.server.access.schemas import Closed, Password, Session, Username
from dolmetsch.server.quantities.lengths import NAME_LENGTH

RoleWord = Literal["reader", "helper", "cook", "owner"]
Named = Annotated[str, Field(max_length=NAME_LENGTH, pattern=r"^[^\x00-\x1f\x7f]*$")]


class PersonOut(Schema):
    """Someone in the kitchen, or who was. ``last_at``: when they recorded last; ``is_me``: who asks."""

    id: int
    name: str
    username: str
    role: RoleWord
    joined_at: datetime | None
    left_at: datetime | None
    last_at: datetime | None
    has_second_factor: bool
    has_tablet_code: bool
    is_locked: bool
    is_me: bool


class InvitationOut(Schema):
    """An invitation that still waits."""

    id: int
    called: str
    role: RoleWord
    made_by: str
    ends_at: datetime


class PeopleOut(Schema):
    """Who is in the kitchen, who was, who is invited; and its tablets."""

    people: list[PersonOut]
    former: list[PersonOut]
    invitations: list[InvitationOut]
    tablets: list[str]


class InviteIn(Closed):
    """Whom to invite, as what; ``mail``: also sent there, where this machine sends mail."""

    role: RoleWord = "cook"
    called: Named = ""
    mail: Annotated[str, Field(max_length=200)] = ""


class LinkOut(Schema):
    """A link and the code in it, shown only now; ``qr``: the link as SVG. ``mailed``: it was sent."""

    code: str
    link: str
    qr: str
    ends_at: datetime
    mailed: bool = False


class RoleIn(Closed):
    """Another role."""

    role: RoleWord


class TabletCodeIn(Closed):
    """The short code by which one says at the tablet who one is: 4 to 8 digits; empty: none."""

    code: Annotated[str, Field(max_length=8, pattern=r"^(\d{4,8})?$")]


class InvitedOut(Schema):
    """What an invitation is into."""

    kitchen: str
    role: RoleWord
    called: str
    made_by: str
    ends_at: datetime


class JoinIn(Closed):
    """Join a kitchen: as who is signed in, or as a new person with these."""

    cook: Named = ""
    username: Username = ""
    password: Password = ""


class JoinedOut(Schema):
    """The session in the kitchen one joined, and its address."""

    slug: str
    session: Session


class AuditOut(Schema):
    """A row of the audit."""

    id: int
    at: datetime
    who: str
    outcome: Literal["done", "refused"]
    words: str
    page: str
    made: str = Field(description="what the entry says that was recorded; empty for other records")
    before: str = Field(description="what it took the place of: what that entry says, or a version")
    device: str
    address: str


class AuditPage(Schema):
    """Who did what, the latest first, a page at a time."""

    rows: list[AuditOut]
    page: int
    has_more: bool
