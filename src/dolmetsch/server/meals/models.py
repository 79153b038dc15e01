"""Meal plans, each saving a version of its own, and their jobs that were put on the list."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.quantities.columns import grams_field
from dolmetsch.server.quantities.lengths import KIND_LENGTH, NAME_LENGTH
from dolmetsch.server.writing.kept import Kept


class Meal(Kept):
    """A version of a meal plan, never changed: saving again makes the next one. ``input``: as typed."""

    name = models.CharField(max_length=NAME_LENGTH)
    version = models.PositiveIntegerField()
    input = models.JSONField()
    is_put_away = models.BooleanField(default=False)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.UniqueConstraint(name="meal_version_once", fields=["kitchen", "name", "version"]),
            models.CheckConstraint(name="meal_named", condition=~Q(name="")),
        ]

    def __str__(self) -> str:
        return f"{self.name}, version {self.version}"


class MealJob(Kept):
    """A job of a plan as it was put on the list: when it begins, and the minutes of work it takes.

    ``position`` counts within the ``listing``; a plan put on the list again replaces what was there.
    ``wait_minutes``: what passes by itself after it at least, until ``ends_at``, with ``pieces`` that take so
    many places in ``stores``. ``products``: what it is for, of what the plan makes. ``grams``: what is to be
    bought; null: of another job, or not kept then.
    """

    meal = models.ForeignKey(Meal, on_delete=models.PROTECT, related_name="jobs")
    listing = models.UUIDField()
    uid = models.UUIDField(unique=True)
    position = models.PositiveIntegerField()
    kind = models.CharField(max_length=KIND_LENGTH)
    words = models.CharField(max_length=NAME_LENGTH)
    products = models.JSONField(default=list)
    due_at = models.DateTimeField()
    minutes = models.PositiveIntegerField()
    wait_minutes = models.PositiveIntegerField()
    ends_at = models.DateTimeField()
    stores = models.JSONField(default=list)
    pieces = models.PositiveIntegerField(default=0)
    grams = grams_field(null=True, db_default=None)

    class Meta(Kept.Meta):
        abstract = False
        indexes: ClassVar = [models.Index(name="meal_jobs", fields=["meal", "position"])]

    def __str__(self) -> str:
        return f"{self.kind} of {self.meal_id}"


class MealJobNews(Kept):
    """What became of a job: done, or open again."""

    job = models.ForeignKey(MealJob, on_delete=models.PROTECT, related_name="news")
    sort = models.CharField(max_length=8)
    happened_at = models.DateTimeField()

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="meal_news_sort", condition=Q(sort__in=["done", "open"])),
        ]

    def __str__(self) -> str:
        return f"{self.sort} {self.job_id}"


class MealMade(Kept):
    """The batch in which ``products`` of a plan are made; the latest of each counts, null: none after all."""

    meal = models.ForeignKey(Meal, on_delete=models.PROTECT, related_name="made")
    products = models.JSONField(default=list)
    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, null=True, related_name="made_for")

    def __str__(self) -> str:
        return f"{self.products} of {self.meal_id} in {self.batch_id}"
