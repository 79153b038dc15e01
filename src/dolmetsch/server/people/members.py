"""Who is in a kitchen: inviting, joining, roles, leaving."""

from datetime import datetime, timedelta
from typing import Final

from django.contrib.auth.hashers import make_password
from django.db import models, transaction
from django.db.models import Q

from dolmetsch.server.access.one_time import hash_code, make_code
from dolmetsch.server.access.sessions import end_sessions
from dolmetsch.server.audit.models import ABOUT
from dolmetsch.server.audit.noting import Origin, note_done
from dolmetsch.server.house.starting import make_user
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from dolmetsch.server.people.models import Invitation
from dolmetsch.server.people.naming import rename
from dolmetsch.server.people.schemas import InviteIn, JoinIn
from dolmetsch.server.problems import DomainError, not_found
from dolmetsch.server.writing.once import lock_kitchen, locked_for

#: An invitation works so long.
INVITATION_LIVES: Final = timedelta(hours=48)
#: So many people are in a kitchen at most, and so many invitations wait.
MOST_PEOPLE: Final = 500
MOST_INVITATIONS: Final = 100


def invite(
    kitchen: Kitchen, data: InviteIn, *, user: User, origin: Origin, now: datetime
) -> tuple[Invitation, str]:
    """An invitation, and its code, which is kept nowhere.

    Raises:
        DomainError: too_many.
    """
    code = make_code()
    with locked_for(kitchen, user, origin):
        waiting = _waiting(now).filter(kitchen=kitchen).count()
        people = Membership.objects.filter(kitchen=kitchen, left_at=None).count()
        if waiting >= MOST_INVITATIONS or people >= MOST_PEOPLE:
            said = f"{waiting} invitations wait and {people} people are in the kitchen; that is the most."
            raise DomainError("too_many", 409, "Not invited", said)
        made = Invitation.objects.create(
            kitchen=kitchen,
            role=data.role,
            called=data.called.strip(),
            code_hash=hash_code(code),
            made_by=user,
            made_at=now,
            ends_at=now + INVITATION_LIVES,
        )
        words = f"invited someone as {data.role}"
        note_done(origin, kitchen=kitchen, user=user, now=now, made=made, words=words)
    return made, code


def withdraw(kitchen: Kitchen, invitation_id: int, *, user: User, origin: Origin, now: datetime) -> None:
    """An invitation works no more.

    Raises:
        DomainError: not_found (none waits by this id).
    """
    with locked_for(kitchen, user, origin):
        waiting = _waiting(now).filter(kitchen=kitchen, pk=invitation_id).first()
        if waiting is None:
            raise not_found("such invitation that still waits")
        waiting.withdrawn_at = now
        waiting.save(update_fields=["withdrawn_at"])
        note_done(origin, kitchen=kitchen, user=user, now=now, made=waiting)


def find_invitation(code: str, now: datetime) -> Invitation:
    """The invitation of ``code``, while it works.

    Raises:
        DomainError: no_invitation (unknown, withdrawn), invitation_used, invitation_old.
    """
    found = Invitation.objects.select_related("kitchen", "made_by").filter(code_hash=hash_code(code)).first()
    if found is None or found.withdrawn_at is not None or found.kitchen.put_away_at is not None:
        said = "There is no such invitation. Check the code, or ask for a new one."
        raise DomainError("no_invitation", 404, "Not here", said)
    if found.used_at is not None:
        said = "This invitation was used already; each lets in one person. Ask for a new one."
        raise DomainError("invitation_used", 409, "Used already", said)
    if found.ends_at <= now:
        said = "This invitation is older than two days. Ask for a new one."
        raise DomainError("invitation_old", 409, "Too old", said)
    return found


def join(code: str, data: JoinIn, *, user: User | None, origin: Origin, now: datetime) -> Membership:
    """Use an invitation: as ``user``, or as a new person. Two at once: one is let in.

    Raises:
        DomainError: no_invitation, invitation_used, invitation_old, member_already, bad_fields.
    """
    with transaction.atomic():
        # against two who use one invitation at once
        lock_kitchen(find_invitation(code, now).kitchen)
        # looked at again under the lock: somebody may have used it meanwhile
        invitation = find_invitation(code, now)
        kitchen = invitation.kitchen
        who = user or make_user(data.username, data.password, data.cook or invitation.called)
        member = Membership.objects.filter(kitchen=kitchen, user=who).first()
        if member is not None and member.left_at is None:
            said = f"You are in {kitchen.name} already. The invitation still works for someone else."
            raise DomainError("member_already", 409, "Already in", said)
        if member is None:
            member = Membership(kitchen=kitchen, user=who)
        member.role, member.joined_at, member.left_at, member.tablet_code = (
            invitation.role,
            now,
            None,
            "",
        )
        member.save()
        invitation.used_by, invitation.used_at = who, now
        invitation.save(update_fields=["used_by", "used_at"])
        words = f"joined as {invitation.role}"
        note_done(origin, kitchen=kitchen, user=who, now=now, made=invitation, words=words)
    return member


def change_role(
    kitchen: Kitchen, member_id: int, role: str, *, user: User, origin: Origin, now: datetime
) -> None:
    """Give a member another role; what they are writing just now is refused if the new one forbids it.

    Raises:
        DomainError: not_found, last_owner.
    """
    with locked_for(kitchen, user, origin):
        member = _get_member(kitchen, member_id)
        if role != Role.OWNER:
            _refuse_last_owner(member)
        before, member.role = member.role, role
        member.save(update_fields=["role"])
        words = f"made {ABOUT} {role}, who was {before}"
        note_done(origin, kitchen=kitchen, user=user, now=now, made=member, words=words, about=member.user)


def leave(kitchen: Kitchen, *, user: User, origin: Origin, now: datetime) -> None:
    """Leave the kitchen oneself.

    Raises:
        DomainError: last_owner.
    """
    with locked_for(kitchen, user, origin):
        member = Membership.objects.select_related("user").get(kitchen=kitchen, user=user, left_at=None)
        _end(member, now)
        note_done(origin, kitchen=kitchen, user=user, now=now, made=member)


def remove(kitchen: Kitchen, member_id: int, *, user: User, origin: Origin, now: datetime) -> None:
    """Take someone out of the kitchen; what they recorded stays under their name.

    Raises:
        DomainError: not_found, last_owner.
    """
    with locked_for(kitchen, user, origin):
        member = _get_member(kitchen, member_id)
        _end(member, now)
        words = f"removed {ABOUT} from the kitchen"
        note_done(origin, kitchen=kitchen, user=user, now=now, made=member, words=words, about=member.user)


def remove_name(kitchen: Kitchen, member_id: int, *, user: User, origin: Origin, now: datetime) -> None:
    """Replace the name of someone who left by a number, everywhere; they can't sign in any more.

    Raises:
        DomainError: not_found, still_in, elsewhere_too.
    """
    with locked_for(kitchen, user, origin):
        member = find_member(kitchen, member_id)
        if member.left_at is None:
            said = f"{member.user.called} is in the kitchen. Remove them from it first."
            raise DomainError("still_in", 409, "Not removed", said)
        person = member.user
        if person.memberships.filter(left_at=None).exists():
            said = f"{person.called} signs in here for something else too; they can change their own name."
            raise DomainError("elsewhere_too", 409, "Not removed", said)
        rename(person, f"Former cook {person.pk}")
        person.last_name = person.email = ""
        person.username, person.is_active = f"former-{person.pk}", False
        person.set_unusable_password()
        person.save()
        Invitation.objects.filter(used_by=person).update(called="")
        end_sessions(person)
        note_done(origin, kitchen=kitchen, user=user, now=now, made=member)


def set_tablet_code(kitchen: Kitchen, code: str, *, user: User, origin: Origin, now: datetime) -> None:
    """Set the short code by which ``user`` says who they are at the kitchen's tablet; empty: none."""
    hashed = make_password(code) if code else ""
    with locked_for(kitchen, user, origin):
        Membership.objects.filter(kitchen=kitchen, user=user, left_at=None).update(tablet_code=hashed)
        note_done(origin, kitchen=kitchen, user=user, now=now)


def refuse_other_kitchens(member: Membership) -> None:
    """Refuse to open the account of someone who left, or who is in another kitchen too: that would open what
    is there. They change their password themselves, or who keeps the machine does.

    Raises:
        DomainError: elsewhere_too.
    """
    others = member.user.memberships.filter(left_at=None).exclude(pk=member.pk)
    if member.left_at is not None or others.exists():
        said = (
            f"{member.user.called} is in another kitchen here too. Who keeps this machine helps: "
            f"./dolmetsch user password {member.user.get_username()}"
        )
        raise DomainError("elsewhere_too", 409, "No link made", said)


def find_member(kitchen: Kitchen, member_id: int) -> Membership:
    """Someone who is in the kitchen, or was.

    Raises:
        DomainError: not_found.
    """
    member = Membership.objects.select_related("user").filter(kitchen=kitchen, pk=member_id).first()
    if member is None:
        raise not_found("such person")
    return member


def _waiting(now: datetime) -> "models.QuerySet[Invitation]":
    return Invitation.objects.filter(used_at=None, withdrawn_at=None, ends_at__gt=now)


def list_waiting(kitchen: Kitchen, now: datetime) -> list[Invitation]:
    """The invitations that still wait, the latest first."""
    waiting = _waiting(now).select_related("made_by").filter(kitchen=kitchen)
    return list(waiting.order_by("-made_at"))


def _get_member(kitchen: Kitchen, member_id: int) -> Membership:
    member = find_member(kitchen, member_id)
    if member.left_at is not None:
        raise not_found("such person")
    return member


def _end(member: Membership, now: datetime) -> None:
    _refuse_last_owner(member)
    member.left_at, member.tablet_code = now, ""
    member.save(update_fields=["left_at", "tablet_code"])
    if not member.user.memberships.filter(left_at=None).exists():
        end_sessions(member.user)


def _refuse_last_owner(member: Membership) -> None:
    if member.role != Role.OWNER:
        return
    others = Membership.objects.filter(
        ~Q(pk=member.pk),
        kitchen_id=member.kitchen_id,
        role=Role.OWNER,
        left_at=None,
        user__is_active=True,
    )
    if not others.exists():
        said = "A kitchen needs an owner. Make someone else an owner first."
        raise DomainError("last_owner", 409, "Not changed", said)
