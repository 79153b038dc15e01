"""Dishes in versions, plates of them, the kitchen's aims, and what its store cupboard holds.

Every row is added, none changed: the latest of a name counts.
"""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.quantities.columns import grams_field, money_check, money_field, weight_check
from dolmetsch.server.quantities.lengths import NAME_LENGTH, NOTE_LENGTH, REASON_LENGTH, TYPED_LENGTH
from dolmetsch.server.writing.kept import Kept

STOCK_SORTS = ("bought", "counted")


class Dish(Kept):
    """A dish as this version has it; ``input`` is as typed. ``cost_then``: what a plate cost when it was
    saved or last looked at; null where a part had no price.
    """

    name = models.CharField(max_length=NAME_LENGTH)
    version = models.PositiveIntegerField()
    input = models.JSONField()
    words = models.CharField(max_length=NOTE_LENGTH, blank=True)
    cost_then = models.DecimalField(max_digits=18, decimal_places=8, null=True)
    is_put_away = models.BooleanField(default=False)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.UniqueConstraint(name="dish_version_once", fields=["kitchen", "name", "version"]),
            models.CheckConstraint(name="dish_named", condition=~Q(name="")),
        ]

    def __str__(self) -> str:
        return f"{self.name}, version {self.version}"


class Plating(Kept):
    """Plates of a dish: how many, and what came in. What they took is in the larder, under the same key."""

    dish = models.ForeignKey(Dish, on_delete=models.PROTECT, related_name="platings")
    name = models.CharField(max_length=NAME_LENGTH)
    plates = models.PositiveIntegerField()
    income = money_field(null=True)
    at = models.DateTimeField()

    class Meta(Kept.Meta):
        abstract = False
        indexes: ClassVar = [models.Index(name="plated_lately", fields=["kitchen", "name", "at"])]
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            money_check("plating_income", "income"),
            models.CheckConstraint(name="plating_plates", condition=Q(plates__gt=0)),
        ]

    def __str__(self) -> str:
        return f"{self.plates} {self.name}"


class PlatingCanceled(Kept):
    """Plates that were not served."""

    plating = models.OneToOneField(Plating, on_delete=models.PROTECT, related_name="canceled")
    reason = models.CharField(max_length=REASON_LENGTH)

    def __str__(self) -> str:
        return f"{self.plating_id} canceled"


class DishAims(Kept):
    """What the kitchen aims at: food cost from ``low`` to ``high``, and by how much a plate's cost may move
    before it is said; all ratios.
    """

    low = models.DecimalField(max_digits=5, decimal_places=4)
    high = models.DecimalField(max_digits=5, decimal_places=4)
    threshold = models.DecimalField(max_digits=5, decimal_places=4)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(
                name="dish_aims",
                condition=Q(low__gt=0, low__lte=models.F("high"), high__lte=1, threshold__gt=0),
            ),
        ]

    def __str__(self) -> str:
        return f"{self.low} to {self.high}"


class StockNote(Kept):
    """Something of the store cupboard was bought or counted: so much by weight, or so many."""

    what = models.CharField(max_length=NAME_LENGTH)
    sort = models.CharField(max_length=8)
    grams = grams_field(null=True)
    count = models.DecimalField(max_digits=12, decimal_places=4, null=True)
    typed = models.CharField(max_length=TYPED_LENGTH)
    at = models.DateTimeField()

    class Meta(Kept.Meta):
        abstract = False
        indexes: ClassVar = [models.Index(name="stock_of", fields=["kitchen", "what", "at"])]
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            weight_check("stock_weight", "grams"),
            models.CheckConstraint(name="stock_sort", condition=Q(sort__in=STOCK_SORTS) & ~Q(what="")),
            models.CheckConstraint(
                name="stock_one_amount",
                condition=Q(grams__isnull=True, count__isnull=False, count__gte=0)
                | Q(grams__isnull=False, count__isnull=True),
            ),
        ]

    def __str__(self) -> str:
        return f"{self.typed} {self.what}"
