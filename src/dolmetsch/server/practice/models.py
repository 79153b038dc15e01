"""Practice runs and what was done in them. Nothing here enters a ledger, a yield or a price."""

from typing import ClassVar

from django.db import models

from dolmetsch.server.quantities.lengths import WORD_LENGTH
from dolmetsch.server.writing.kept import Kept


class PracticeRun(Kept):
    """A run: its ``lesson``, the ``seed`` all of it follows from, and how many times real time it goes."""

    lesson = models.CharField(max_length=WORD_LENGTH)
    seed = models.PositiveIntegerField()
    speed = models.PositiveSmallIntegerField()

    class Meta(Kept.Meta):
        abstract = False

    def __str__(self) -> str:
        return f"{self.lesson} {self.pk}"


class PracticeAct(Kept):
    """Something the cook did in a run, so many seconds of its own clock after it began."""

    run = models.ForeignKey(PracticeRun, on_delete=models.PROTECT, related_name="acts")
    seconds = models.PositiveIntegerField()
    kind = models.CharField(max_length=8)
    data = models.JSONField(default=dict)

    class Meta(Kept.Meta):
        abstract = False
        indexes: ClassVar = [models.Index(name="practice_acts", fields=["run", "seconds", "id"])]

    def __str__(self) -> str:
        return f"{self.kind} at {self.seconds} s"
