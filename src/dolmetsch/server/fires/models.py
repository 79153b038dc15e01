"""Fires as begun, what happened in them, and what probes read. Every row is added, none changed."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.columns import grams_field
from dolmetsch.server.quantities.lengths import MARK_LENGTH, NAME_LENGTH, WORD_LENGTH
from dolmetsch.server.writing.kept import Kept

MEATS = ("pork", "beef", "poultry", "other")
#: Stages of a program; in the core's phases all but cold smoke and hold are a cook.
STAGE_KINDS = ("dry", "cold_smoke", "smoke", "cook", "steam", "wrap", "hold")
EVENT_KINDS = (
    *("probe", "swap", "stage", "instant", "wrap", "spritz", "fuel", "taste", "tender", "note"),
    *("rest", "hold", "cool", "done", "quiet", "import"),
)


class ProbeReading(models.Model):
    """What a cooker's probes read at a time of its clock: °F text by probe, kept every ten seconds or so."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="+")
    cooker = models.CharField(max_length=WORD_LENGTH)
    at = models.DateTimeField()
    values = models.JSONField()
    heard_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="probe_reading_once", fields=["kitchen", "cooker", "at"])
        ]
        # the last that was heard, whatever its clock says
        indexes: ClassVar = [models.Index(name="probe_reading_latest", fields=["kitchen", "cooker", "id"])]

    def __str__(self) -> str:
        return f"{self.cooker} {self.at}"

    @classmethod
    def last_id(cls, kitchen: int, cooker: str) -> int | None:
        """The number of the last that was heard of a device, whatever its clock says; None where nothing was.

        Asked for as the largest, which MariaDB finds at the end of the index; as the first in an order it may
        walk back through all kitchens' readings.
        """
        mine = cls.objects.filter(kitchen=kitchen, cooker=cooker)
        found: int | None = mine.aggregate(last=models.Max("id"))["last"]
        return found

    @classmethod
    def last_heard(cls, kitchen: int, cooker: str) -> "ProbeReading | None":
        """The last that was heard of a device (``last_id``)."""
        return cls.objects.filter(pk=cls.last_id(kitchen, cooker)).first()


class CollectorLease(models.Model):
    """Which of several collectors hears a group of devices, ``holder`` by its own name, and until when.

    By the record store's clock, so that the clocks of machines may differ.
    """

    name = models.CharField(max_length=WORD_LENGTH, unique=True)
    holder = models.CharField(max_length=NAME_LENGTH)
    until = models.DateTimeField()

    def __str__(self) -> str:
        return f"{self.name} {self.holder}"


class Fire(Kept):
    """A fire as it was begun: what is cooked in which ``cooker`` (empty: without one), and by which program.

    ``stages``: kind, air (°F) and end (minutes, inside °F, or the cook's word) of each. Temperatures are °F.
    """

    name = models.CharField(max_length=NAME_LENGTH)
    cooker = models.CharField(max_length=WORD_LENGTH, blank=True)
    meat = models.CharField(max_length=8)
    is_ground = models.BooleanField(default=False)
    nitrite_ppm = models.DecimalField(max_digits=8, decimal_places=2, null=True)
    wood = models.CharField(max_length=NAME_LENGTH, blank=True)
    #: The program it was begun with, its version, and whether it was changed; empty: none.
    program = models.CharField(max_length=2 * NAME_LENGTH, blank=True)
    pull_at = models.DecimalField(max_digits=7, decimal_places=3, null=True)
    meal_at = models.DateTimeField(null=True)
    stages = models.JSONField()
    begun_at = models.DateTimeField()

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="fire_named", condition=~Q(name="")),
            models.CheckConstraint(name="fire_meat", condition=Q(meat__in=MEATS)),
        ]

    def __str__(self) -> str:
        return self.name


class Program(Kept):
    """A version of a program, never changed: saving again makes the next one. Temperatures are °F.

    ``way``: the method it belongs to, by name; empty: to none.
    """

    name = models.CharField(max_length=NAME_LENGTH)
    version = models.PositiveIntegerField()
    stages = models.JSONField()
    pull_at = models.DecimalField(max_digits=7, decimal_places=3, null=True)
    wood = models.CharField(max_length=NAME_LENGTH, blank=True)
    way = models.CharField(max_length=NAME_LENGTH, blank=True)
    is_put_away = models.BooleanField(default=False)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.UniqueConstraint(name="program_version_once", fields=["kitchen", "name", "version"]),
            models.CheckConstraint(name="program_named", condition=~Q(name="")),
        ]

    def __str__(self) -> str:
        return f"{self.name}, version {self.version}"


class FirePiece(models.Model):
    """A piece in a fire, and where it hangs: rack from the top, slot from the left; 0: nobody said."""

    fire = models.ForeignKey(Fire, on_delete=models.PROTECT, related_name="pieces")
    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="+")
    mark = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    rack = models.PositiveSmallIntegerField(default=0)
    slot = models.PositiveSmallIntegerField(default=0)
    #: What it weighed when it went in; none of fires begun before that was kept.
    grams = grams_field(null=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="fire_piece_once", fields=["fire", "batch", "mark"])
        ]

    def __str__(self) -> str:
        return self.label

    @property
    def label(self) -> str:
        """The batch's code and the piece's mark; of a whole lot the code alone."""
        return self.batch.label_piece(self.mark)


class FireEvent(Kept):
    """Something that happened in a fire ``at`` a time of its clock; ``data`` by its ``kind``."""

    fire = models.ForeignKey(Fire, on_delete=models.PROTECT, related_name="events")
    at = models.DateTimeField()
    kind = models.CharField(max_length=8)
    data = models.JSONField(default=dict)

    class Meta(Kept.Meta):
        abstract = False
        indexes: ClassVar = [models.Index(name="fire_events", fields=["fire", "at", "id"])]
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="fire_event_kind", condition=Q(kind__in=EVENT_KINDS)),
        ]

    def __str__(self) -> str:
        return f"{self.kind} at {self.at}"
