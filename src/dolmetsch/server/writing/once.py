"""A write to a kitchen: who, when, and the key that makes a resend harmless. Every feature writes so."""

import hashlib
import uuid
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import date, datetime
from typing import Annotated, Any, TypeVar

from django.db import models, transaction
from django.db.models import F
from django.http import HttpRequest
from django.utils import timezone
from ninja import Header

from dolmetsch.server.audit.noting import COMMAND, Origin, note_done
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.kitchens.queries import get_membership, refuse_role, signed_in
from dolmetsch.server.problems import DomainError

Key = Annotated[uuid.UUID, Header(alias="Idempotency-Key")]


@dataclass(frozen=True, slots=True, kw_only=True)
class Write:
    """Who writes, where, when, and the key that makes a resend harmless.

    ``fingerprint`` is of the whole request; the same key with another fingerprint is refused.
    ``is_brief``: who writes asks for no more than that it was done (``Prefer: return=minimal``, RFC 7240).
    ``origin``: where it comes from, for the audit.
    """

    kitchen: Kitchen
    user: User
    now: datetime
    key: uuid.UUID
    fingerprint: str
    is_brief: bool = False
    origin: Origin = COMMAND

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


#: A table with the columns `kitchen`, `key` and `fingerprint`: those of `Kept`, and of what is older than it.
Row = TypeVar("Row", bound=models.Model)
Made = TypeVar("Made")


def once(write: Write, find: Callable[[], Made | None], make: Callable[[], Made]) -> Made:
    """What ``make`` makes in one transaction, unless the key has made it already: then what ``find`` finds.

    The kitchen's row is locked before anything is looked up, so of two requests with one key, however
    close, the second waits and then finds what the first made, and of two cooks the second sees what the
    first did. Every write with a key goes through here; nothing below needs a lock of its own.

    The role is looked at under the lock too: it may have been taken away since the request was let in. What
    was made now gets its row in the audit.

    Raises:
        DomainError: key_reused (by ``find``), not_found and not_allowed (the role is theirs no more), and
            what ``make`` raises; then nothing is written.
    """
    with locked_for(write.kitchen, write.user, write.origin):
        if found := find():
            return found
        made = make()
        note_done(write.origin, kitchen=write.kitchen, user=write.user, now=write.now, made=made)
        return made


@contextmanager
def locked_for(kitchen: Kitchen, user: User, origin: Origin) -> Iterator[None]:
    """A transaction that holds the kitchen for ``user`` (``lock_for``).

    Raises:
        DomainError: not_found, not_allowed.
    """
    with transaction.atomic():
        lock_for(kitchen, user, origin)
        yield


def lock_for(kitchen: Kitchen, user: User, origin: Origin) -> None:
    """``lock_kitchen`` for ``user``, whose role is looked at again: it may have been taken away meanwhile.

    Raises:
        DomainError: not_found, not_allowed.
    """
    lock_kitchen(kitchen)
    if origin.least is None:
        return
    if (error := refuse_role(get_membership(user, kitchen.slug), origin.least)) is not None:
        raise error


def lock_kitchen(kitchen: Kitchen) -> None:
    """Lock the kitchen's row until the transaction ends, and count the write."""
    # an update locks what it changes: nobody else gets past this line before the transaction ends
    Kitchen.objects.filter(pk=kitchen.pk).update(writes=F("writes") + 1)


def keep_once(write: Write, kind: type[Row], make: Callable[[], Row]) -> Row:
    """``once`` for what makes one row of ``kind``.

    Raises:
        DomainError: key_reused, and what ``make`` raises.
    """
    return once(write, lambda: find_kept(write, kind), make)


def find_kept(write: Write, kind: type[Row]) -> Row | None:
    """What this key has made already; None where nothing.

    Raises:
        DomainError: key_reused.
    """
    done: Row | None = kind._default_manager.filter(kitchen=write.kitchen, key=write.key).first()
    if done is not None:
        write.refuse_reused(done.serializable_value("fingerprint"))
    return done


def write_of(
    request: HttpRequest, kitchen: Kitchen, key: uuid.UUID, *, uploaded: bytes | None = None
) -> Write:
    """The write a request asks for; ``uploaded`` takes the place of the body where that came in parts."""
    user = signed_in(request)
    body = request.body if uploaded is None else uploaded
    request_text = f"{user.pk} {request.method} {request.path}\n".encode() + body
    return Write(
        kitchen=kitchen,
        user=user,
        now=timezone.now(),
        key=key,
        fingerprint=hashlib.sha256(request_text).hexdigest(),
        is_brief="return=minimal" in request.headers.get("Prefer", ""),
        origin=request.__dict__.get("origin", COMMAND),
    )
