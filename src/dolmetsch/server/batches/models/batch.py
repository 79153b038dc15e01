"""One chain of weighings."""

from functools import cached_property
from typing import TYPE_CHECKING, ClassVar, Optional

from django.db import models
from django.db.models import Q

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.lengths import CODE_LENGTH, NAME_LENGTH

if TYPE_CHECKING:
    from dolmetsch.server.batches.models.outlook import BatchWay


class Batch(models.Model):
    """One chain of weighings.

    The policy is the kitchen's as of the day the batch was started; ``cut`` is the first lot's.
    ``summary`` (with ``is_finished``, ``place``, ``pieces_count``, ``last_…``) is what the entries come to,
    kept for lists; every write renews it.
    ``packs_made``: how many packs were made of it; of most there are none, and then none are looked for.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="batches")
    code = models.CharField(max_length=CODE_LENGTH, db_collation="utf8mb4_bin")
    name = models.CharField(max_length=NAME_LENGTH)
    cut = models.CharField(max_length=NAME_LENGTH, default="")
    started_at = models.DateTimeField()
    labour_rate = models.DecimalField(max_digits=8, decimal_places=2, null=True, blank=True)
    credit_by_products = models.BooleanField()
    count_fuel = models.BooleanField()
    count_packaging = models.BooleanField()
    count_overhead = models.BooleanField()
    is_finished = models.BooleanField(default=False)
    place = models.CharField(max_length=8, default="bench")
    pieces_count = models.PositiveIntegerField(default=1)
    last_entry_at = models.DateTimeField()
    last_sequence = models.PositiveIntegerField(default=1)
    summary = models.JSONField(default=dict)
    packs_made = models.PositiveIntegerField(default=0)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="batch_code_once", fields=["kitchen", "code"]),
            models.UniqueConstraint(name="batch_of_kitchen", fields=["id", "kitchen"]),
            models.CheckConstraint(
                name="batch_place", condition=Q(place__in=["bench", "fire", "slice", "books"])
            ),
            models.CheckConstraint(name="batch_named", condition=~Q(name="") & ~Q(code="")),
        ]
        indexes: ClassVar = [
            # read backward for the latest first; one that descends could not break ties by id as well
            models.Index(name="batch_latest", fields=["kitchen", "is_finished", "last_entry_at"]),
            models.Index(name="batch_since", fields=["kitchen", "started_at"]),
        ]

    def label_piece(self, mark: str) -> str:
        """What a piece of it is called among others: code and mark; of a whole lot the code alone."""
        return self.code if mark == "lot" else f"{self.code} {mark}"

    def __str__(self) -> str:
        return f"{self.code} {self.name}"

    @cached_property
    def chosen_way(self) -> Optional["BatchWay"]:
        """The method it is made by, as chosen last; None where nobody chose. Read once for each object."""
        if self._state.adding:
            return None
        chosen = self.ways_chosen.select_related("way").order_by("-id").first()
        if chosen is not None:
            chosen.way.kitchen = self.kitchen
        return chosen
