"""Notes and photos. Added, never changed. The photos themselves lie beside the record store."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.quantities.lengths import MARK_LENGTH, NOTE_LENGTH, REASON_LENGTH
from dolmetsch.server.writing.kept import Kept


class Note(Kept):
    """Something a cook wrote down, of the batch or of one piece."""

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="notes")
    mark = models.CharField(max_length=MARK_LENGTH, blank=True, db_collation="utf8mb4_bin")
    text = models.CharField(max_length=NOTE_LENGTH)
    happened_at = models.DateTimeField()

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="note_said", condition=~Q(text="")),
        ]

    def __str__(self) -> str:
        return self.text[:40]


class Photo(Kept):
    """A photo as it was kept: scaled, turned upright, without anything about place or camera.

    ``digest`` names its files (SHA-256 of the kept picture).
    """

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="photos")
    mark = models.CharField(max_length=MARK_LENGTH, blank=True, db_collation="utf8mb4_bin")
    note = models.CharField(max_length=REASON_LENGTH, blank=True)
    digest = models.CharField(max_length=64)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()

    class Meta(Kept.Meta):
        abstract = False
        indexes: ClassVar = [models.Index(name="photos_of_batch", fields=["batch"])]

    def __str__(self) -> str:
        return f"{self.batch_id} {self.digest[:8]}"
