"""Invitations into a kitchen."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.kitchens.models import Kitchen, Role, User
from dolmetsch.server.quantities.lengths import NAME_LENGTH


class Invitation(models.Model):
    """A link or code that lets one person into a kitchen, once, until ``ends_at``.

    ``called``: whom it is meant for, as the owner wrote it. ``code_hash``: the code is shown once, not kept.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="invitations")
    role = models.CharField(max_length=6, choices=Role.choices)
    called = models.CharField(max_length=NAME_LENGTH, blank=True)
    code_hash = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made_at = models.DateTimeField()
    ends_at = models.DateTimeField()
    used_by = models.ForeignKey(User, on_delete=models.PROTECT, null=True, related_name="+")
    used_at = models.DateTimeField(null=True)
    withdrawn_at = models.DateTimeField(null=True)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(name="invitation_role", condition=Q(role__in=Role.values))
        ]
        indexes: ClassVar = [models.Index(name="invitations_of_kitchen", fields=["kitchen", "made_at"])]

    def __str__(self) -> str:
        return f"{self.called or 'someone'} as {self.role} of {self.kitchen}"
