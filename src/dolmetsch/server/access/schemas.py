"""What signing in takes and answers."""

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from dolmetsch.server.kitchens.schemas import KitchenInfo


class SignIn(Schema):
    """A name and a password."""

    username: Annotated[str, Field(max_length=150)]
    password: Annotated[str, Field(max_length=200)]


class Session(Schema):
    """Who is signed in. ``demo`` carries the sign-in of a demo start, else null."""

    signed_in: bool
    name: str | None = None
    username: str | None = None
    kitchens: list[KitchenInfo] = []
    demo: SignIn | None = None


class Alive(Schema):
    """The session still holds."""

    alive: Literal[True] = True
