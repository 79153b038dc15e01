"""Records that are added once and never changed: their columns, versions and names."""

from collections.abc import Collection, Iterable
from typing import Any, ClassVar, Protocol, TypeVar

from django.db import models
from django.db.models import F, Func, Max, QuerySet, Value
from django.db.models.expressions import Combinable
from django.db.models.lookups import In

from dolmetsch.core.numbers.spelling import IDLE_SPACES, same_name
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


def called_so(
    rows: "QuerySet[Row, Row]", names: Collection[str], *, column: str = "name"
) -> "QuerySet[Row, Row]":
    """Those of ``rows`` that are called like one of ``names``: neither case nor spaces tell two apart."""
    bare: Combinable = F(column)
    for spaces, instead in IDLE_SPACES:
        bare = Func(bare, Value(spaces), Value(instead), function="REGEXP_REPLACE")
    # the database's own order of letters has no case
    return rows.filter(In(bare, [same_name(name) for name in names]))


def next_version(write: Write, kind: type[Row], name: str) -> tuple[str, int]:
    """``name`` as ``kind`` has it already, and the next version of what is kept under it; asked within
    ``once``, so none is twice.
    """
    mine = kind._default_manager.filter(kitchen=write.kitchen)
    written_so = mine.filter(name=name).aggregate(last=Max("version"))["last"]
    if written_so is not None:
        # as it is here, or in another case, which is a new spelling
        return name, written_so + 1
    # with other spaces it would be a second thing beside the first
    last = called_so(mine, [name]).order_by("-version").values_list("name", "version").first()
    return (name, 1) if last is None else (last[0], last[1] + 1)


def latest_by_name(rows: Iterable[Named]) -> list[Named]:
    """Of ``rows``, oldest first, the latest of each name in the order of the first, none put away."""
    latest: dict[str, Named] = {}
    for row in rows:
        latest[row.name.casefold()] = row
    return [row for row in latest.values() if not row.is_put_away]
