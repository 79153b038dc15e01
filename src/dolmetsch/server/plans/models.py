"""Tasks to be done, and the news of each. ``state`` and the two times are what the news come to."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.core.planning.plan import TASK_WORDS
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.quantities.lengths import KIND_LENGTH, REASON_LENGTH
from dolmetsch.server.writing.kept import Kept


class PlannedTask(Kept):
    """Something to do with pieces of a batch, from ``due_at``, late after ``until_at``.

    ``uid`` names it for calendars, for good; ``changes`` counts its news. ``follows`` is shared by the tasks
    that were planned together, so that they can be moved together.
    """

    class State(models.TextChoices):
        """What has become of it."""

        OPEN = "open"
        DONE = "done"
        DROPPED = "dropped"

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="planned_tasks")
    uid = models.UUIDField(unique=True)
    follows = models.UUIDField()
    kind = models.CharField(max_length=10)
    words = models.CharField(max_length=KIND_LENGTH, blank=True)
    marks = models.JSONField()
    due_at = models.DateTimeField()
    until_at = models.DateTimeField()
    minutes = models.PositiveIntegerField(null=True)
    state = models.CharField(max_length=8, choices=State.choices, default=State.OPEN)
    changes = models.PositiveIntegerField(default=0)
    changed_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(name="act_kind", condition=Q(kind__in=list(TASK_WORDS))),
            models.CheckConstraint(name="act_state", condition=Q(state__in=["open", "done", "dropped"])),
            models.CheckConstraint(name="act_times", condition=Q(until_at__gte=models.F("due_at"))),
        ]
        indexes: ClassVar = [
            models.Index(name="acts_due", fields=["kitchen", "state", "due_at"]),
            models.Index(name="acts_of_batch", fields=["batch", "due_at"]),
            models.Index(name="acts_of_key", fields=["kitchen", "key"]),
        ]

    def __str__(self) -> str:
        return f"{self.kind} {self.batch_id}"


class TaskNews(Kept):
    """What became of a task: done (with the taste, where it was tasted), moved, dropped, open again."""

    task = models.ForeignKey(PlannedTask, on_delete=models.PROTECT, related_name="news")
    sort = models.CharField(max_length=8)
    happened_at = models.DateTimeField()
    due_before = models.DateTimeField()
    due_now = models.DateTimeField()
    taste = models.CharField(max_length=6, blank=True)
    note = models.CharField(max_length=REASON_LENGTH, blank=True)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(
                name="act_news_sort", condition=Q(sort__in=["done", "moved", "dropped", "open"])
            ),
            models.CheckConstraint(
                name="act_news_taste", condition=Q(taste__in=["", "salty", "right", "flat"])
            ),
        ]

    def __str__(self) -> str:
        return f"{self.sort} {self.task_id}"
