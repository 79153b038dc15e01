"""Packs as made and what happened to them; every row is added, none changed.

``PackNow`` and ``TakenNow`` alone are derived: what is left, what it cost, how long it keeps. Every write
that touches a batch renews them.
"""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.core.reference.keeping import KEEPING
from dolmetsch.core.slicing.packs import FATES
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.columns import (
    exact_money_field,
    grams_field,
    money_check,
    money_field,
    weight_check,
)
from dolmetsch.server.quantities.lengths import (
    MARK_LENGTH,
    NAME_LENGTH,
    REASON_LENGTH,
    TYPED_LENGTH,
    WORD_LENGTH,
)
from dolmetsch.server.writing.kept import Kept

FORMS = ("slices", "dice", "lardons", "pulled", "ends", "whole")
STATES = ("chilled", "frozen", "thawed", "open")
MOVES = ("placed", "opened")


class Packing(Kept):
    """Packs closed in one go, all of ``batch``."""

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="packings")

    def __str__(self) -> str:
        return f"{self.batch_id} packed"


class Pack(models.Model):
    """A pack of the final main ``piece``: what is in it, and where it was put.

    ``number`` counts within the batch, ``mark`` is its name there. ``product`` is what it is called in the
    larder and in dishes.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="+")
    packing = models.ForeignKey(Packing, on_delete=models.PROTECT, related_name="packs")
    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="packs")
    number = models.PositiveIntegerField()
    mark = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    piece = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    product = models.CharField(max_length=NAME_LENGTH)
    form = models.CharField(max_length=8)
    grams = grams_field()
    typed = models.CharField(max_length=TYPED_LENGTH)
    slices = models.PositiveIntegerField(null=True)
    store = models.CharField(max_length=WORD_LENGTH, blank=True)
    packed_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="pack_mark_once", fields=["batch", "mark"]),
            weight_check("pack_weight", "grams"),
            models.CheckConstraint(name="pack_named", condition=~Q(product="") & ~Q(mark="")),
            models.CheckConstraint(name="pack_form", condition=Q(form__in=FORMS)),
            models.CheckConstraint(name="pack_slices", condition=Q(slices__isnull=True) | Q(slices__gt=0)),
        ]

    @property
    def label(self) -> str:
        """The batch's code and the pack's mark."""
        return f"{self.batch.code} {self.mark}"

    def __str__(self) -> str:
        return self.label


class PackCanceled(Kept):
    """A pack that was recorded by mistake."""

    pack = models.OneToOneField(Pack, on_delete=models.PROTECT, related_name="canceled")
    reason = models.CharField(max_length=REASON_LENGTH)

    def __str__(self) -> str:
        return f"{self.pack_id} canceled"


class PackMove(Kept):
    """A pack was placed elsewhere, or opened."""

    pack = models.ForeignKey(Pack, on_delete=models.PROTECT, related_name="moves")
    sort = models.CharField(max_length=8)
    store = models.CharField(max_length=WORD_LENGTH, blank=True)
    at = models.DateTimeField()

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="pack_move_sort", condition=Q(sort__in=MOVES)),
        ]

    def __str__(self) -> str:
        return f"{self.pack_id} {self.sort}"


class Taken(models.Model):
    """What left a pack: by weight, by slices, or (neither) all that was left.

    ``position`` counts within the write: a dish of three packs is one write. ``into``: the batch it was used
    in; ``dish``: what it was plated as.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="+")
    pack = models.ForeignKey(Pack, on_delete=models.PROTECT, related_name="takings")
    fate = models.CharField(max_length=9)
    grams = grams_field(null=True)
    typed = models.CharField(max_length=TYPED_LENGTH, blank=True)
    slices = models.PositiveIntegerField(null=True)
    income = money_field(null=True)
    why = models.CharField(max_length=REASON_LENGTH, blank=True)
    into = models.ForeignKey(Batch, on_delete=models.PROTECT, null=True, related_name="packs_used")
    dish = models.CharField(max_length=NAME_LENGTH, blank=True)
    at = models.DateTimeField()
    recorded_at = models.DateTimeField()
    recorded_by = models.ForeignKey("kitchens.User", on_delete=models.PROTECT, related_name="+")
    key = models.UUIDField()
    fingerprint = models.CharField(max_length=64)
    position = models.PositiveIntegerField(default=0)

    class Meta:
        indexes: ClassVar = [models.Index(name="taken_of_pack", fields=["pack", "id"])]
        constraints: ClassVar = [
            models.UniqueConstraint(name="taken_key_once", fields=["kitchen", "key", "position"]),
            models.CheckConstraint(name="taken_fate", condition=Q(fate__in=FATES)),
            models.CheckConstraint(
                name="taken_one_amount", condition=Q(grams__isnull=True) | Q(slices__isnull=True)
            ),
            models.CheckConstraint(name="taken_slices", condition=Q(slices__isnull=True) | Q(slices__gt=0)),
            weight_check("taken_weight", "grams"),
            money_check("taken_income", "income"),
            models.CheckConstraint(
                name="taken_income_fate", condition=Q(income__isnull=True) | Q(fate__in=["plated", "sold"])
            ),
        ]

    def __str__(self) -> str:
        return f"{self.pack_id} {self.fate}"


class PackWeighing(Kept):
    """A pack weighed again: what it weighed ``at`` a time, and what was left of it then by the book.

    What is missing ran out as purge, or dried away in the freezer; it changes no cost.
    """

    pack = models.ForeignKey(Pack, on_delete=models.PROTECT, related_name="weighings")
    grams = grams_field()
    typed = models.CharField(max_length=TYPED_LENGTH)
    book_grams = grams_field()
    at = models.DateTimeField()

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            weight_check("pack_weighed", "grams"),
            weight_check("pack_weighed_of", "book_grams"),
        ]

    def __str__(self) -> str:
        return f"{self.pack_id} weighed {self.typed}"


class TakenCanceled(Kept):
    """A taking that did not happen, or was found again."""

    taken = models.OneToOneField(Taken, on_delete=models.PROTECT, related_name="canceled")
    reason = models.CharField(max_length=REASON_LENGTH)

    def __str__(self) -> str:
        return f"{self.taken_id} canceled"


class ShelfCount(Kept):
    """The shelves were counted: how many packs were looked for, found and not, and found beside the book."""

    expected = models.PositiveIntegerField()
    missing = models.PositiveIntegerField()
    found_again = models.PositiveIntegerField()

    def __str__(self) -> str:
        return f"{self.expected} counted"


class PackNow(models.Model):
    """Derived: a pack as it is now. ``cost`` is of all of it as made; ``keeps`` its row of the chart.

    ``left_grams`` as it was weighed last; ``book_grams`` the same by what it weighed as it was made.

    ``owner``: the customer it belongs to; empty: it is the kitchen's own.
    """

    pack = models.OneToOneField(Pack, on_delete=models.CASCADE, primary_key=True, related_name="now")
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="+")
    cost = exact_money_field()
    left_grams = models.DecimalField(max_digits=20, decimal_places=12)
    book_grams = models.DecimalField(max_digits=20, decimal_places=12, default=0, db_default=0)
    left_slices = models.PositiveIntegerField(null=True)
    left_cost = exact_money_field()
    state = models.CharField(max_length=8)
    store = models.CharField(max_length=WORD_LENGTH, blank=True)
    keeps = models.CharField(max_length=12, blank=True)
    is_raw = models.BooleanField()
    keep_until = models.DateField(null=True)
    is_gone = models.BooleanField()
    owner = models.CharField(max_length=NAME_LENGTH, blank=True, default="")

    class Meta:
        indexes: ClassVar = [models.Index(name="packs_here", fields=["kitchen", "is_gone"])]
        constraints: ClassVar = [
            models.CheckConstraint(name="pack_left", condition=Q(left_grams__gte=0)),
            models.CheckConstraint(name="pack_state", condition=Q(state__in=STATES)),
            models.CheckConstraint(name="pack_keeps", condition=Q(keeps__in=["", *KEEPING])),
        ]

    def __str__(self) -> str:
        return f"{self.pack_id} now"


class TakenNow(models.Model):
    """Derived: what a taking that counts came to."""

    taken = models.OneToOneField(Taken, on_delete=models.CASCADE, primary_key=True, related_name="now")
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="+")
    fate = models.CharField(max_length=9)
    product = models.CharField(max_length=NAME_LENGTH)
    day = models.DateField()
    grams = models.DecimalField(max_digits=20, decimal_places=12)
    cost = exact_money_field()
    income = money_field()

    class Meta:
        indexes: ClassVar = [models.Index(name="taken_lately", fields=["kitchen", "day"])]

    def __str__(self) -> str:
        return f"{self.taken_id} now"
