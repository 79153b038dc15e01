"""What a batch is judged by: portion, shop packs, frying, policy."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.batches.models.entry import Entry
from dolmetsch.server.quantities.columns import (
    RATIO_PLACES,
    grams_field,
    money_check,
    money_field,
    ratio_check,
    ratio_field,
    weight_check,
)
from dolmetsch.server.quantities.lengths import TYPED_LENGTH, WORD_LENGTH


class PortionLine(models.Model):
    """What is served as one portion: so many slices, a weight raw, or a weight cooked."""

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="portion")
    slices = models.DecimalField(max_digits=6, decimal_places=2, null=True, blank=True)
    grams = grams_field(null=True, blank=True)
    cooked_grams = grams_field(null=True, blank=True)
    typed = models.CharField(max_length=TYPED_LENGTH, blank=True)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                name="portion_one_way",
                condition=Q(slices__isnull=False, slices__gt=0, grams__isnull=True, cooked_grams__isnull=True)
                | Q(slices__isnull=True, grams__isnull=False, cooked_grams__isnull=True)
                | Q(slices__isnull=True, grams__isnull=True, cooked_grams__isnull=False),
            ),
            weight_check("portion_weight", "grams"),
            weight_check("portion_cooked_weight", "cooked_grams"),
        ]

    def __str__(self) -> str:
        return self.typed or f"{self.slices} slices"


class ShopPackLine(models.Model):
    """A pack the shop sells, beside which the batch is judged."""

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="shop_pack")
    name = models.CharField(max_length=WORD_LENGTH, blank=True)
    paid = money_field()
    paid_typed = models.CharField(max_length=TYPED_LENGTH)
    grams = grams_field()
    typed = models.CharField(max_length=TYPED_LENGTH)
    slices = models.PositiveIntegerField(null=True, blank=True)
    fry_ratio = ratio_field()

    class Meta:
        constraints: ClassVar = [
            weight_check("shop_pack_weight", "grams"),
            money_check("shop_pack_paid", "paid"),
            ratio_check("shop_pack_fry", "fry_ratio"),
            models.CheckConstraint(
                name="shop_pack_slices", condition=Q(slices__isnull=True) | Q(slices__gte=1)
            ),
        ]

    def __str__(self) -> str:
        return self.name


class FryLine(models.Model):
    """A frying: cooked ÷ raw weight, and both weights as typed where it was entered by them."""

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="fry")
    raw_typed = models.CharField(max_length=TYPED_LENGTH, blank=True)
    cooked_typed = models.CharField(max_length=TYPED_LENGTH, blank=True)
    ratio = models.DecimalField(max_digits=9, decimal_places=RATIO_PLACES)
    typed = models.CharField(max_length=TYPED_LENGTH, blank=True)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(name="fry_ratio", condition=Q(ratio__gt=0, ratio__lte=1))
        ]

    def __str__(self) -> str:
        return self.typed


class PolicyLine(models.Model):
    """What this batch counts, instead of what the kitchen counts. ``labour_rate`` null: work left out."""

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="policy")
    labour_rate = models.DecimalField(max_digits=8, decimal_places=2, null=True, blank=True)
    credit_by_products = models.BooleanField()
    count_fuel = models.BooleanField()
    count_packaging = models.BooleanField()
    count_overhead = models.BooleanField()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                name="policy_labour_rate", condition=Q(labour_rate__isnull=True) | Q(labour_rate__gte=0)
            )
        ]

    def __str__(self) -> str:
        return f"policy of {self.entry_id}"
