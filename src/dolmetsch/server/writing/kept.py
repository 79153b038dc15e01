"""Records that are added once and never changed: their columns, versions and names."""

from collections.abc import Iterable
from typing import Any, ClassVar, Protocol, TypeVar

from django.db import models
from django.db.models import Max

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.writing.once import Row, Write


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


class HasName(Protocol):
    """Something kept under a name, until it is put away."""

    name: Any
    is_put_away: Any


Named = TypeVar("Named", bound=HasName)


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
