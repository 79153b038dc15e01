"""Trials, what stands side by side in them, tastings, and what tasters scored. Added, never changed."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.lengths import MARK_LENGTH, NAME_LENGTH, WORD_LENGTH
from dolmetsch.server.writing.kept import Kept

#: 32 random bytes in base64, without padding.
TOKEN_LENGTH = 43


class Trial(Kept):
    """Something that was tried: the same meat in different ways."""

    name = models.CharField(max_length=NAME_LENGTH)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="trial_named", condition=~Q(name="")),
        ]

    def __str__(self) -> str:
        return self.name


class TrialSide(models.Model):
    """One side of a trial: a piece of a batch (empty ``mark``: the whole batch), and what is different."""

    trial = models.ForeignKey(Trial, on_delete=models.PROTECT, related_name="sides")
    letter = models.CharField(max_length=1)
    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="+")
    mark = models.CharField(max_length=MARK_LENGTH, blank=True, db_collation="utf8mb4_bin")
    what = models.CharField(max_length=WORD_LENGTH)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="trial_letter_once", fields=["trial", "letter"]),
            models.UniqueConstraint(name="trial_side_once", fields=["trial", "batch", "mark"]),
        ]

    def __str__(self) -> str:
        return f"{self.letter} {self.what}"


class Tasting(Kept):
    """A blind tasting of a trial: its link's ``token``, when it closes, each plate's code by letter."""

    trial = models.ForeignKey(Trial, on_delete=models.PROTECT, related_name="tastings")
    token = models.CharField(max_length=TOKEN_LENGTH, unique=True, db_collation="utf8mb4_bin")
    closes_at = models.DateTimeField()
    codes = models.JSONField()

    def __str__(self) -> str:
        return f"tasting of {self.trial_id}"


class TastingSheet(models.Model):
    """What one taster scored, from one ``device``: ``scores`` by letter and scale, whole numbers.

    ``again``: the letter of the plate they would have again; empty: they could not choose.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="+")
    tasting = models.ForeignKey(Tasting, on_delete=models.PROTECT, related_name="sheets")
    taster = models.CharField(max_length=WORD_LENGTH)
    device = models.UUIDField()
    scores = models.JSONField()
    again = models.CharField(max_length=1, blank=True)
    recorded_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="tasting_device_once", fields=["tasting", "device"]),
        ]

    def __str__(self) -> str:
        return f"{self.taster} at {self.tasting_id}"
