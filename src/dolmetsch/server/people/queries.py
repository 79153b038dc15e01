"""Reads: the people of a kitchen."""

from datetime import datetime

from django.db.models import Max
from django_otp.plugins.otp_totp.models import TOTPDevice

from dolmetsch.server.access.models import SignedInDevice
from dolmetsch.server.audit.models import AuditRow
from dolmetsch.server.kitchens.models import Kitchen, Membership, User
from dolmetsch.server.people import schemas
from dolmetsch.server.people.members import list_waiting


def list_people(kitchen: Kitchen, asking: User, now: datetime) -> schemas.PeopleOut:
    """Who is in the kitchen, by name; who was; who is invited; its tablets."""
    places = Membership.objects.select_related("user").filter(kitchen=kitchen)
    seen = dict(
        AuditRow.objects.filter(kitchen=kitchen, user__isnull=False)
        .values_list("user")
        .annotate(last=Max("at"))
    )
    apps = TOTPDevice.objects.filter(confirmed=True, user__memberships__kitchen=kitchen)
    safe = set(apps.values_list("user_id", flat=True))
    people = [
        schemas.PersonOut(
            id=one.pk,
            name=one.user.called,
            username=one.user.get_username(),
            role=one.role,  # type: ignore[arg-type]
            joined_at=one.joined_at,
            left_at=one.left_at,
            last_at=seen.get(one.user_id),
            has_second_factor=one.user_id in safe,
            has_tablet_code=bool(one.tablet_code),
            is_locked=not one.user.is_active,
            is_me=one.user_id == asking.pk,
        )
        for one in places.order_by("user__first_name", "pk")
    ]
    return schemas.PeopleOut(
        people=[one for one in people if one.left_at is None],
        former=[one for one in people if one.left_at is not None],
        invitations=[
            schemas.InvitationOut(
                id=one.pk,
                called=one.called,
                role=one.role,  # type: ignore[arg-type]
                made_by=one.made_by.called,
                ends_at=one.ends_at,
            )
            for one in list_waiting(kitchen, now)
        ],
        tablets=list(SignedInDevice.objects.filter(kitchen=kitchen).values_list("name", flat=True)),
    )
