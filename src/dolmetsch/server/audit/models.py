"""The rows of the audit. Added, never changed."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.lengths import DEVICE_LENGTH, REASON_LENGTH

PAGE_LENGTH = 200
ABOUT = "{about}"


class AuditRow(models.Model):
    """Something done or refused: who, when, from which device, what, and where to see it.

    ``kitchen`` is null for what concerns a person alone, such as signing in; ``user`` is null for a stranger
    and for the command line. ``operation``: its name in the API, or a command's. ``page``: where the web
    client shows what was made; ``made`` and ``before`` name the record and the one it took the place of, as
    its kind and number (``entry 412``). ``about``: the person it was done to; ``words`` hold ``{about}``
    where their name is shown, as they are called by then.
    """

    class Outcome(models.TextChoices):
        """Whether it was done."""

        DONE = "done"
        REFUSED = "refused"

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, null=True, related_name="+")
    user = models.ForeignKey(User, on_delete=models.PROTECT, null=True, related_name="+")
    about = models.ForeignKey(User, on_delete=models.PROTECT, null=True, related_name="+")
    at = models.DateTimeField()
    outcome = models.CharField(max_length=7, choices=Outcome.choices, default=Outcome.DONE)
    operation = models.CharField(max_length=40)
    words = models.CharField(max_length=REASON_LENGTH)
    page = models.CharField(max_length=PAGE_LENGTH, blank=True)
    made = models.CharField(max_length=60, blank=True)
    before = models.CharField(max_length=60, blank=True)
    device = models.CharField(max_length=DEVICE_LENGTH, blank=True)
    address = models.CharField(max_length=45, blank=True)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(name="audit_outcome", condition=Q(outcome__in=["done", "refused"]))
        ]
        indexes: ClassVar = [
            models.Index(name="audit_of_kitchen", fields=["kitchen", "at", "id"]),
            models.Index(name="audit_of_user", fields=["user", "at", "id"]),
        ]

    @property
    def sentence(self) -> str:
        """What was done, with the name of whom it was done to."""
        return self.words if self.about is None else self.words.replace(ABOUT, self.about.called)

    def __str__(self) -> str:
        return f"{self.at:%Y-%m-%d %H:%M} {self.words}"
