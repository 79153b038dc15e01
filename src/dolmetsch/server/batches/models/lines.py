"""What was bought, weighed and used: the lines of an entry."""

from typing import ClassVar, Final

from django.db import models
from django.db.models import Q

from dolmetsch.core.numbers.quantity import MONEY_PLACES
from dolmetsch.server.batches.models.batch import Batch
from dolmetsch.server.batches.models.entry import Entry
from dolmetsch.server.quantities.columns import (
    grams_field,
    money_check,
    money_field,
    ratio_check,
    ratio_field,
    weight_check,
)
from dolmetsch.server.quantities.lengths import (
    KIND_LENGTH,
    MARK_LENGTH,
    NAME_LENGTH,
    SOURCE_LENGTH,
    TYPED_LENGTH,
    WORD_LENGTH,
)

#: The mark of what was bought, until it is cut.
LOT_MARK: Final = "lot"


class LotLine(models.Model):
    """The meat as purchased. ``paid`` follows from the price as typed, to the cent where by weight.

    ``solution_ratio``: water added, of the meat. A lot that is a piece of another batch names it
    (``from_batch``, ``from_mark``, all of it where ``from_grams`` is null), and keeps what it carried on
    the day it was taken (``carried_then``), so that a later correction there can be shown. ``from_pack``: the
    pack it was taken out of, where it was in one; then it is the larder's record too. ``bought_from``: the
    butcher or shop, where said.
    """

    class Basis(models.TextChoices):
        """What the typed price is for."""

        PER_LB = "per_lb"
        PER_KG = "per_kg"
        PACK = "pack"

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="lot")
    mark = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    cut = models.CharField(max_length=NAME_LENGTH)
    label_grams = grams_field(null=True, blank=True)
    label_typed = models.CharField(max_length=TYPED_LENGTH, blank=True)
    own_grams = grams_field(null=True, blank=True)
    own_typed = models.CharField(max_length=TYPED_LENGTH, blank=True)
    price_basis = models.CharField(max_length=6, choices=Basis.choices)
    price = money_field()
    price_typed = models.CharField(max_length=TYPED_LENGTH)
    paid = money_field()
    solution_ratio = ratio_field()
    from_batch = models.ForeignKey(
        Batch, on_delete=models.PROTECT, null=True, blank=True, related_name="taken_lots"
    )
    from_mark = models.CharField(max_length=MARK_LENGTH, blank=True, db_collation="utf8mb4_bin")
    from_grams = grams_field(null=True, blank=True)
    from_typed = models.CharField(max_length=TYPED_LENGTH, blank=True)
    from_pack = models.CharField(max_length=MARK_LENGTH, blank=True, default="", db_collation="utf8mb4_bin")
    carried_then = money_field(null=True, blank=True)
    bought_from = models.CharField(max_length=SOURCE_LENGTH, blank=True, default="")

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                name="lot_weighed",
                condition=Q(label_grams__isnull=False)
                | Q(own_grams__isnull=False)
                | Q(from_batch__isnull=False),
            ),
            models.CheckConstraint(
                name="lot_source",
                condition=(
                    Q(from_batch__isnull=True, from_mark="", from_grams__isnull=True)
                    | (Q(from_batch__isnull=False) & ~Q(from_mark=""))
                ),
            ),
            ratio_check("lot_solution", "solution_ratio"),
            weight_check("lot_label_weight", "label_grams"),
            weight_check("lot_own_weight", "own_grams"),
            money_check("lot_price", "price"),
            money_check("lot_paid", "paid"),
            models.CheckConstraint(
                name="lot_basis", condition=Q(price_basis__in=["per_lb", "per_kg", "pack"])
            ),
        ]

    def __str__(self) -> str:
        return f"{self.cut} {self.own_typed or self.label_typed}"


class ExtraLine(models.Model):
    """A cost of buying a lot: delivery, tax, the trip."""

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="extras")
    position = models.PositiveSmallIntegerField()
    what = models.CharField(max_length=WORD_LENGTH)
    cost = money_field()
    typed = models.CharField(max_length=TYPED_LENGTH)

    class Meta:
        ordering: ClassVar = ["entry_id", "position"]
        constraints: ClassVar = [
            models.UniqueConstraint(name="extra_in_order", fields=["entry", "position"]),
            money_check("extra_cost", "cost"),
        ]

    def __str__(self) -> str:
        return f"{self.what} {self.typed}"


class Weighing(models.Model):
    """A weight of one piece: gone on under its mark (``same``), made by a split (``main``), or cut off."""

    class Role(models.TextChoices):
        """What the weighed thing is to the chain."""

        SAME = "same"
        MAIN = "main"
        BY_PRODUCT = "by_product"

    class Worth(models.TextChoices):
        """How a by-product is valued."""

        NOTHING = "nothing"
        PRICE = "price"
        AS_MAIN = "as_main"

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="weighings")
    position = models.PositiveSmallIntegerField()
    mark = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    role = models.CharField(max_length=10, choices=Role.choices)
    grams = grams_field()
    typed = models.CharField(max_length=TYPED_LENGTH)
    slices = models.PositiveIntegerField(null=True, blank=True)
    name = models.CharField(max_length=WORD_LENGTH, blank=True)
    material = models.CharField(max_length=8, blank=True)
    worth = models.CharField(max_length=8, choices=Worth.choices, default=Worth.NOTHING)
    worth_paid = money_field(null=True, blank=True)
    worth_grams = grams_field(null=True, blank=True)
    worth_typed = models.CharField(max_length=TYPED_LENGTH, blank=True)

    class Meta:
        ordering: ClassVar = ["entry_id", "position"]
        constraints: ClassVar = [
            models.UniqueConstraint(name="weighing_in_order", fields=["entry", "position"]),
            models.UniqueConstraint(name="weighing_mark_once", fields=["entry", "mark"]),
            models.CheckConstraint(name="weighing_marked", condition=~Q(mark="")),
            weight_check("weighing_weight", "grams"),
            weight_check("weighing_worth_weight", "worth_grams"),
            money_check("weighing_worth_money", "worth_paid"),
            models.CheckConstraint(
                name="weighing_role", condition=Q(role__in=["same", "main", "by_product"])
            ),
            models.CheckConstraint(
                name="weighing_worth",
                condition=Q(
                    worth="price", role="by_product", worth_paid__isnull=False, worth_grams__isnull=False
                )
                | (
                    Q(worth__in=["nothing", "as_main"])
                    & Q(worth_paid__isnull=True, worth_grams__isnull=True)
                    & (Q(worth="nothing") | Q(role="by_product"))
                ),
            ),
            models.CheckConstraint(
                name="weighing_slices",
                condition=Q(slices__isnull=True) | Q(slices__gte=1, role="main"),
            ),
        ]

    def __str__(self) -> str:
        return f"{self.mark} {self.typed}"


class UsedLine(models.Model):
    """Something used in a step: an amount (by weight or count) at a price (by weight or count).

    ``is_pack``: bought as a whole pack of that size. ``marks`` of the pieces that bear it; empty: all.
    """

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="used")
    position = models.PositiveSmallIntegerField()
    what = models.CharField(max_length=WORD_LENGTH)
    cost_group = models.CharField(max_length=KIND_LENGTH)
    amount_grams = grams_field(null=True, blank=True)
    amount_count = models.DecimalField(max_digits=12, decimal_places=MONEY_PLACES, null=True, blank=True)
    amount_typed = models.CharField(max_length=TYPED_LENGTH, blank=True)
    price_paid = money_field()
    price_grams = grams_field(null=True, blank=True)
    price_count = models.DecimalField(max_digits=12, decimal_places=MONEY_PLACES, null=True, blank=True)
    price_typed = models.CharField(max_length=TYPED_LENGTH)
    is_pack = models.BooleanField(default=False)
    marks = models.JSONField(default=list)

    class Meta:
        ordering: ClassVar = ["entry_id", "position"]
        constraints: ClassVar = [
            models.UniqueConstraint(name="used_in_order", fields=["entry", "position"]),
            models.CheckConstraint(name="used_what", condition=~Q(what="")),
            money_check("used_price", "price_paid"),
            weight_check("used_amount_weight", "amount_grams"),
            weight_check("used_price_weight", "price_grams"),
            models.CheckConstraint(
                name="used_like_with_like",
                condition=Q(
                    amount_grams__isnull=False,
                    price_grams__isnull=False,
                    amount_count__isnull=True,
                    price_count__isnull=True,
                )
                | Q(
                    amount_grams__isnull=True,
                    price_grams__isnull=True,
                    amount_count__isnull=False,
                    price_count__isnull=False,
                    amount_count__gte=0,
                    price_count__gt=0,
                ),
            ),
        ]

    def __str__(self) -> str:
        return f"{self.what} {self.amount_typed}"
