"""A write to a kitchen: who, when, and the key that makes a resend harmless. Every feature writes so."""

import hashlib
import uuid
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import date, datetime
from typing import Annotated, Any, ClassVar, Protocol, TypeVar

from django.db import models, transaction
from django.db.models import Max
from django.http import HttpRequest
from django.utils import timezone
from ninja import Header

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.kitchens.queries import get_kitchen, signed_in
from dolmetsch.server.problems import DomainError

Key = Annotated[uuid.UUID, Header(alias="Idempotency-Key")]
#: The statuses an answer may have besides its own.
REFUSALS = frozenset({400, 401, 403, 404, 409, 413, 422, 429, 500, 503})


def answer_with(*media_types: str) -> dict[str, Any]:
    """What the API document says of an operation that answers with a file of one of ``media_types``."""
    content = {one.split(";")[0]: {"schema": {"type": "string", "format": "binary"}} for one in media_types}
    return {"responses": {200: {"description": "The file", "content": content}}}


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

    @property
    def today(self) -> date:
        """The day it is where they are."""
        return timezone.localdate(self.now)

    @property
    def stamp(self) -> dict[str, Any]:
        """The columns every ``Kept`` row has, as keyword arguments."""
        return {
            "kitchen": self.kitchen,
            "recorded_at": self.now,
            "recorded_by": self.user,
            "key": self.key,
            "fingerprint": self.fingerprint,
        }


class Kept(models.Model):
    """A record of a kitchen that is added once and never changed."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="+")
    recorded_at = models.DateTimeField()
    recorded_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    key = models.UUIDField()
    fingerprint = models.CharField(max_length=64)

    class Meta:
        abstract = True
        constraints: ClassVar[list[models.BaseConstraint]] = [
            models.UniqueConstraint(name="%(class)s_key_once", fields=["kitchen", "key"])
        ]


#: A table with the columns `kitchen`, `key` and `fingerprint`: those of `Kept`, and of what is older than it.
Row = TypeVar("Row", bound=models.Model)
Made = TypeVar("Made")


class HasName(Protocol):
    """Something kept under a name, until it is put away."""

    name: Any
    is_put_away: Any


Named = TypeVar("Named", bound=HasName)


def once(write: Write, find: Callable[[], Made | None], make: Callable[[], Made]) -> Made:
    """What ``make`` makes in one transaction, unless the key has made it already: then what ``find`` finds.

    The kitchen's row is locked before anything is looked up, so of two requests with one key, however
    close, the second waits and then finds what the first made, and of two cooks the second sees what the
    first did. Every write with a key goes through here; nothing below needs a lock of its own.

    Raises:
        DomainError: key_reused (by ``find``), and what ``make`` raises; then nothing is written.
    """
    with transaction.atomic():
        lock_kitchen(write.kitchen)
        return find() or make()


def lock_kitchen(kitchen: Kitchen) -> Kitchen:
    """The kitchen as it is now, its row locked until the transaction ends."""
    return Kitchen.objects.select_for_update().get(pk=kitchen.pk)


def keep_once(write: Write, kind: type[Row], make: Callable[[], Row]) -> Row:
    """``once`` for what makes one row of ``kind``.

    Raises:
        DomainError: key_reused, and what ``make`` raises.
    """
    return once(write, lambda: find_kept(write, kind), make)


def next_version(write: Write, kind: type[Row], name: str) -> int:
    """The next version of what ``kind`` keeps under ``name``; asked within ``once``, so none is twice."""
    versions = kind._default_manager.filter(kitchen=write.kitchen, name=name)
    return (versions.aggregate(last=Max("version"))["last"] or 0) + 1


def latest_by_name(rows: Iterable[Named]) -> list[Named]:
    """Of ``rows``, oldest first, the latest of each name in the order of the first, none put away."""
    latest: dict[str, Named] = {}
    for row in rows:
        latest[row.name.casefold()] = row
    return [row for row in latest.values() if not row.is_put_away]


def find_kept(write: Write, kind: type[Row]) -> Row | None:
    """What this key has made already; None where nothing.

    Raises:
        DomainError: key_reused.
    """
    done: Row | None = kind._default_manager.filter(kitchen=write.kitchen, key=write.key).first()
    if done is not None:
        write.refuse_reused(done.serializable_value("fingerprint"))
    return done


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
