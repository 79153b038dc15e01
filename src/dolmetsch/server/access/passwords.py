"""Passwords: what makes a good one, changing one, and links for who forgot theirs."""

from datetime import datetime, timedelta
from typing import Final

from django.contrib.auth import password_validation
from django.core.exceptions import ValidationError
from django.db import transaction

from dolmetsch.server.access.models import PasswordLink
from dolmetsch.server.access.one_time import hash_code, make_code
from dolmetsch.server.access.sessions import end_sessions
from dolmetsch.server.kitchens.models import User
from dolmetsch.server.problems import DomainError, FieldProblem, refuse_fields

#: A link for a new password works so long.
LINK_LIVES: Final = timedelta(hours=24)


def find_weakness(password: str, user: User, *, path: str = "password") -> list[FieldProblem]:
    """What is wrong with a password: short, common, all digits, or like the person's name."""
    try:
        password_validation.validate_password(password, user)
    except ValidationError as error:
        return [FieldProblem(path=path, code="weak", message=" ".join(error.messages))]
    return []


def set_password(user: User, password: str, *, but: str = "") -> None:
    """Set a new password; every session ends ``but`` that of this key.

    Raises:
        DomainError: bad_fields, of ``new``.
    """
    if problems := find_weakness(password, user, path="new"):
        raise refuse_fields(problems)
    with transaction.atomic():
        user.set_password(password)
        user.save(update_fields=["password"])
        end_sessions(user, but=but)
        PasswordLink.objects.filter(user=user, used_at=None).delete()


def make_password_link(user: User, made_by: User | None, now: datetime) -> tuple[str, datetime]:
    """A code that lets ``user`` set a new password once, and until when; an older one works no more."""
    code = make_code()
    with transaction.atomic():
        PasswordLink.objects.filter(user=user, used_at=None).delete()
        link = PasswordLink.objects.create(
            user=user, made_by=made_by, code_hash=hash_code(code), made_at=now, ends_at=now + LINK_LIVES
        )
    return code, link.ends_at


def find_password_link(code: str, now: datetime, *, lock: bool = False) -> PasswordLink:
    """The link of ``code``, while it works.

    Raises:
        DomainError: no_link (unknown, used, or too old: said alike, so that nobody learns which).
    """
    links = PasswordLink.objects.select_related("user")
    if lock:
        links = links.select_for_update()
    found = links.filter(code_hash=hash_code(code), used_at=None, ends_at__gt=now).first()
    if found is None or not found.user.is_active:
        said = (
            "This link does not work: it was used, is older than a day, or was mistyped. Ask for a new one."
        )
        raise DomainError("no_link", 404, "Not here", said)
    return found


def use_password_link(code: str, password: str, now: datetime) -> User:
    """Set a new password by a link, which works no more after that.

    Raises:
        DomainError: no_link, bad_fields.
    """
    with transaction.atomic():
        link = find_password_link(code, now, lock=True)
        link.used_at = now
        link.save(update_fields=["used_at"])
        set_password(link.user, password)
    return link.user
