"""A write to a kitchen: who, when, and the key that makes a resend harmless. Every feature writes so."""

import hashlib
import uuid
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from django.http import HttpRequest
from django.utils import timezone
from ninja import Header

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.kitchens.queries import get_kitchen, signed_in
from dolmetsch.server.problems import DomainError

Key = Annotated[uuid.UUID, Header(alias="Idempotency-Key")]
#: The statuses an answer may have besides its own.
REFUSALS = frozenset({400, 401, 403, 404, 409, 413, 422, 500, 503})


@dataclass(frozen=True, slots=True, kw_only=True)
class Write:
    """Who writes, where, when, and the key that makes a resend harmless.

    ``fingerprint`` is of the whole request; the same key with another fingerprint is refused.
    """

    kitchen: Kitchen
    user: User
    now: datetime
    key: uuid.UUID
    fingerprint: str

    def refuse_reused(self, fingerprint: str) -> None:
        """Refuse where the key was used for something of another ``fingerprint``.

        Raises:
            DomainError: key_reused.
        """
        if fingerprint != self.fingerprint:
            said = "This key was used for something else; nothing was written. Send it with a new key."
            raise DomainError("key_reused", 409, "Not recorded", said)


def kitchen_of(request: HttpRequest, slug: str) -> Kitchen:
    """The kitchen a request is about, where its user is a member."""
    return get_kitchen(signed_in(request), slug)


def write_of(
    request: HttpRequest, kitchen: Kitchen, key: uuid.UUID, *, uploaded: bytes | None = None
) -> Write:
    """The write a request asks for; ``uploaded`` takes the place of the body where that came in parts."""
    user = signed_in(request)
    body = request.body if uploaded is None else uploaded
    told = f"{user.pk} {request.method} {request.path}\n".encode() + body
    return Write(
        kitchen=kitchen,
        user=user,
        now=timezone.now(),
        key=key,
        fingerprint=hashlib.sha256(told).hexdigest(),
    )
