"""What has prices, the dated prices, frying tests of shop packs, and lists brought in."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.core.numbers.quantity import MONEY_PLACES
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.columns import (
    grams_field,
    money_check,
    money_field,
    ratio_check,
    ratio_field,
    weight_check,
)
from dolmetsch.server.quantities.lengths import (
    NAME_LENGTH,
    PRICE_LENGTH,
    REASON_LENGTH,
    SOURCE_LENGTH,
    TYPED_LENGTH,
    WORD_LENGTH,
)
from dolmetsch.server.tables.uploaded import UploadedTable
from dolmetsch.server.writing.kept import Kept


class Sort(models.TextChoices):
    """What a priced thing is to the kitchen."""

    MEAT = "meat", "Raw meat"
    INGREDIENT = "ingredient", "Ingredients"
    PACKAGING = "packaging", "Packaging"
    FUEL = "fuel", "Fuel"
    BY_PRODUCT = "by_product", "What trim is worth"
    SHOP_PACK = "shop_pack", "Shop packs"


class PriceItem(models.Model):
    """Something with a price, by its name. ``kind`` of a shop pack: cheap, good, best, or an own word."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="price_items")
    sort = models.CharField(max_length=10, choices=Sort.choices)
    name = models.CharField(max_length=NAME_LENGTH)
    kind = models.CharField(max_length=WORD_LENGTH, blank=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="price_item_once", fields=["kitchen", "sort", "name"]),
            models.CheckConstraint(name="price_item_named", condition=~Q(name="")),
            models.CheckConstraint(name="price_item_sort", condition=Q(sort__in=Sort.values)),
            models.CheckConstraint(name="price_item_kind", condition=Q(kind="") | Q(sort="shop_pack")),
        ]

    def __str__(self) -> str:
        return self.name


class PriceFile(UploadedTable):
    """A supplier's list or receipts as uploaded."""

    source = models.CharField(max_length=SOURCE_LENGTH)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="price_file_key", fields=["kitchen", "key"]),
        ]

    def __str__(self) -> str:
        return f"{self.name} from {self.source}"


class SellerName(Kept):
    """That a seller's ``name`` stands for another one's; the latest of a name counts. ``same_as`` empty: it
    stands for itself again.
    """

    name = models.CharField(max_length=SOURCE_LENGTH)
    same_as = models.CharField(max_length=SOURCE_LENGTH, blank=True)

    class Meta(Kept.Meta):
        abstract = False

    def __str__(self) -> str:
        return f"{self.name} is {self.same_as or 'itself'}"


class CountingQuotes(models.Manager["Quote"]):
    """The prices that count: not corrected, not taken back."""

    def get_queryset(self) -> models.QuerySet["Quote"]:
        """Without those a later row corrects, and without the rows that take one back."""
        return super().get_queryset().filter(corrections__isnull=True, is_withdrawal=False)


class Quote(models.Model):
    """A price seen on a day at a source: ``paid`` for so many ``grams`` or so many of a ``count``.

    Never changed: a wrong one is corrected by a later row that names it (``replaces``) and says why, or
    taken back by one (``is_withdrawal``). ``is_pack``: sold as a whole pack of that size. ``slices`` and
    ``solution_ratio`` (water added, of the meat) are of that pack.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="quotes")
    item = models.ForeignKey(PriceItem, on_delete=models.PROTECT, related_name="quotes")
    source = models.CharField(max_length=SOURCE_LENGTH)
    seen_on = models.DateField()
    paid = money_field()
    grams = grams_field(null=True, blank=True)
    count = models.DecimalField(max_digits=12, decimal_places=MONEY_PLACES, null=True, blank=True)
    typed = models.CharField(max_length=PRICE_LENGTH)
    is_pack = models.BooleanField(default=False)
    slices = models.PositiveIntegerField(null=True, blank=True)
    solution_ratio = ratio_field()
    #: The one before, which another may replace in turn; entries of a batch name the first of their line.
    replaces = models.ForeignKey(
        "self",
        on_delete=models.PROTECT,
        null=True,
        blank=True,
        related_name="corrections",
        db_column="corrects_id",
    )
    is_withdrawal = models.BooleanField(default=False)
    reason = models.CharField(max_length=REASON_LENGTH, blank=True)
    file = models.ForeignKey(
        PriceFile, on_delete=models.PROTECT, null=True, blank=True, related_name="quotes"
    )
    recorded_at = models.DateTimeField()
    recorded_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    key = models.UUIDField(null=True, blank=True)
    fingerprint = models.CharField(max_length=64, blank=True)

    objects = models.Manager["Quote"]()
    counting = CountingQuotes()

    class Meta:
        indexes: ClassVar = [models.Index(name="quote_history", fields=["item", "seen_on", "id"])]
        constraints: ClassVar = [
            models.UniqueConstraint(name="quote_key", fields=["kitchen", "key"]),
            money_check("quote_paid", "paid"),
            weight_check("quote_weight", "grams"),
            ratio_check("quote_solution", "solution_ratio"),
            models.CheckConstraint(
                name="quote_for_one_thing",
                condition=Q(grams__isnull=False, count__isnull=True)
                | Q(grams__isnull=True, count__isnull=False, count__gt=0),
            ),
            models.CheckConstraint(
                name="quote_reason",
                condition=Q(replaces__isnull=True, reason="", is_withdrawal=False)
                | (Q(replaces__isnull=False) & ~Q(reason="")),
            ),
        ]

    def __str__(self) -> str:
        return f"{self.item_id} {self.typed} on {self.seen_on}"


class FryTest(models.Model):
    """A frying of a shop pack: raw and cooked weight."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="fry_tests")
    item = models.ForeignKey(PriceItem, on_delete=models.PROTECT, related_name="fry_tests")
    raw_grams = grams_field()
    raw_typed = models.CharField(max_length=TYPED_LENGTH)
    cooked_grams = grams_field()
    cooked_typed = models.CharField(max_length=TYPED_LENGTH)
    tested_on = models.DateField()
    recorded_at = models.DateTimeField()
    recorded_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    key = models.UUIDField()
    fingerprint = models.CharField(max_length=64)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="fry_test_key", fields=["kitchen", "key"]),
            weight_check("fry_test_raw", "raw_grams"),
            weight_check("fry_test_cooked", "cooked_grams"),
            models.CheckConstraint(
                name="fry_test_shrinks", condition=Q(cooked_grams__lte=models.F("raw_grams"))
            ),
        ]

    def __str__(self) -> str:
        return f"{self.raw_typed} to {self.cooked_typed}"


class SourceMatch(models.Model):
    """How the columns of a source's lists were matched the last time."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="source_matches")
    source = models.CharField(max_length=SOURCE_LENGTH)
    match = models.JSONField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="source_match_once", fields=["kitchen", "source"])
        ]

    def __str__(self) -> str:
        return self.source
