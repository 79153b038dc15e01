"""Devices someone is signed in on, and links for a new password."""

from typing import ClassVar

from django.db import models

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.lengths import DEVICE_LENGTH


class SignedInDevice(models.Model):
    """A session: whose, on which device, since when and last used when.

    ``kitchen``: it is this kitchen's tablet; then ``user`` is the owner who made it one.
    """

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="devices")
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, null=True, related_name="tablets")
    session_key = models.CharField(max_length=40, unique=True)
    name = models.CharField(max_length=DEVICE_LENGTH)
    address = models.CharField(max_length=45, blank=True)
    since = models.DateTimeField()
    last_at = models.DateTimeField()

    class Meta:
        indexes: ClassVar = [models.Index(name="devices_of_user", fields=["user", "last_at"])]

    def __str__(self) -> str:
        return f"{self.user} on {self.name}"


class PasswordLink(models.Model):
    """A link by which someone who forgot their password sets a new one, once, until ``ends_at``.

    ``code_hash``: the code itself is shown once and not kept.
    """

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    made_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    code_hash = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField()
    ends_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True)

    def __str__(self) -> str:
        return f"for {self.user}, until {self.ends_at:%Y-%m-%d %H:%M}"
