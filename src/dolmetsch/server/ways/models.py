"""Ways, each saving a version of its own."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.lengths import NAME_LENGTH
from dolmetsch.server.writing.kept import Kept


class Way(Kept):
    """A version of a way, never changed: saving again makes the next one. ``input`` is what was typed."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="ways")
    name = models.CharField(max_length=NAME_LENGTH)
    version = models.PositiveIntegerField()
    input = models.JSONField()
    is_put_away = models.BooleanField(default=False)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="way_version_once", fields=["kitchen", "name", "version"]),
            models.UniqueConstraint(name="way_key", fields=["kitchen", "key"]),
            models.CheckConstraint(name="way_named", condition=~Q(name="")),
        ]

    def __str__(self) -> str:
        return f"{self.name}, version {self.version}"
