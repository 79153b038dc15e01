"""Pieces as they were hung, and what was noted of them since. Every row is added, none changed."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.quantities.columns import grams_field, weight_check
from dolmetsch.server.quantities.lengths import MARK_LENGTH, TYPED_LENGTH, WORD_LENGTH
from dolmetsch.server.writing.kept import Kept

NOTE_KINDS = ("air", "ph", "ferment", "cut", "down")


class Hook(Kept):
    """A piece hung to dry: its green weight then, and the part of it that it is to lose.

    Its weighings are those of the batch, of the mark, since it was hung. ``chamber``: where it hangs.
    """

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="hooks")
    mark = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    green_grams = grams_field()
    green_typed = models.CharField(max_length=TYPED_LENGTH)
    target_loss = models.DecimalField(max_digits=9, decimal_places=8)
    hung_at = models.DateTimeField()
    chamber = models.CharField(max_length=WORD_LENGTH, blank=True)
    #: The load cell it hangs on, by its number; empty: on none.
    cell = models.CharField(max_length=1, blank=True)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            weight_check("hook_green", "green_grams"),
            models.CheckConstraint(name="hook_target", condition=Q(target_loss__gt=0, target_loss__lt=1)),
        ]

    def __str__(self) -> str:
        return self.label

    @property
    def label(self) -> str:
        """The batch's code and the piece's mark; of a whole lot the code alone."""
        return self.batch.label_piece(self.mark)


class HookNote(Kept):
    """Something noted of a hanging piece ``at`` a time; ``data`` by its ``kind``."""

    hook = models.ForeignKey(Hook, on_delete=models.PROTECT, related_name="notes")
    at = models.DateTimeField()
    kind = models.CharField(max_length=8)
    data = models.JSONField(default=dict)

    class Meta(Kept.Meta):
        abstract = False
        indexes: ClassVar = [models.Index(name="hook_notes", fields=["hook", "at", "id"])]
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="hook_note_kind", condition=Q(kind__in=NOTE_KINDS)),
        ]

    def __str__(self) -> str:
        return f"{self.kind} at {self.at}"
