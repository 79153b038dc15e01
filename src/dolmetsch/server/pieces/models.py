"""What is known of pieces beside their weight. Every row is added, none changed: the latest counts."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.core.curing.cure import PRODUCTS
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.quantities.lengths import MARK_LENGTH, NAME_LENGTH, REASON_LENGTH, WORD_LENGTH
from dolmetsch.server.writing.kept import Kept

SORTS = ("fridge", "smoker", "chamber", "freezer")


class Store(Kept):
    """Something pieces lie or hang in, as this row says; the latest row of a name counts.

    It has ``levels`` (shelves, racks, rods), the first on top, and so many ``slots`` side by side on each.
    """

    name = models.CharField(max_length=WORD_LENGTH)
    sort = models.CharField(max_length=8)
    levels = models.PositiveSmallIntegerField()
    slots = models.PositiveSmallIntegerField()
    is_put_away = models.BooleanField(default=False)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="store_named", condition=~Q(name="")),
            models.CheckConstraint(name="store_sort", condition=Q(sort__in=SORTS)),
            models.CheckConstraint(
                name="store_room",
                condition=Q(levels__gte=1, levels__lte=20, slots__gte=1, slots__lte=20),
            ),
        ]

    def __str__(self) -> str:
        return self.name


class PieceFact(Kept):
    """Something learned of a piece: its size in millimetres, its skin, what it is cured as, its place,
    its owner, where it is a customer's.

    Null, empty: nothing was said of it.

    A place is the name of a store with level and slot from 1; "-" for taken out of every store.
    """

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="piece_facts")
    mark = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    length_mm = models.DecimalField(max_digits=7, decimal_places=2, null=True)
    width_mm = models.DecimalField(max_digits=7, decimal_places=2, null=True)
    thickness_mm = models.DecimalField(max_digits=7, decimal_places=2, null=True)
    skin = models.CharField(max_length=3, blank=True)
    product = models.CharField(max_length=12, blank=True, default="")
    owner = models.CharField(max_length=NAME_LENGTH, blank=True, default="")
    store = models.CharField(max_length=WORD_LENGTH, blank=True)
    level = models.PositiveSmallIntegerField(null=True)
    slot = models.PositiveSmallIntegerField(null=True)

    class Meta(Kept.Meta):
        abstract = False
        indexes: ClassVar = [models.Index(name="piece_facts", fields=["batch", "mark"])]
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="piece_fact_skin", condition=Q(skin__in=["", "on", "off"])),
            models.CheckConstraint(name="piece_fact_product", condition=Q(product__in=["", *PRODUCTS])),
            *(
                models.CheckConstraint(
                    name=f"piece_fact_{side}",
                    condition=Q(**{f"{side}_mm__isnull": True}) | Q(**{f"{side}_mm__gt": 0}),
                )
                for side in ("length", "width", "thickness")
            ),
        ]

    def __str__(self) -> str:
        return f"{self.batch_id} {self.mark}"


class LookOver(Kept):
    """Meat checked before it was cut: of each thing looked for, whether it was found."""

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="look_overs")
    found = models.JSONField()
    note = models.CharField(max_length=REASON_LENGTH, blank=True)

    def __str__(self) -> str:
        return f"{self.batch_id} checked"
