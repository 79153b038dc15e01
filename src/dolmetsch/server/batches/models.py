"""Batches and their entries.

An entry is never changed (a trigger in the database refuses it): a wrong one is corrected by a later
entry that names it. Weights are grams to 12 places, so that every typed pound and ounce is exact.
"""

from typing import Any, ClassVar, Final

from django.db import models
from django.db.models import Q

from dolmetsch.core.quantity import GRAM_PLACES, MAX_GRAMS, MAX_MONEY, MONEY_PLACES
from dolmetsch.server.kitchens.models import Kitchen, User

#: The mark of what was bought, until it is cut.
LOT_MARK: Final = "lot"
MARK_LENGTH: Final = 60
RATIO_PLACES: Final = 8
ACTS: Final = (
    *("bought", "split", "weigh", "merge", "discard", "policy", "fry"),
    *("portion", "shop_pack", "withdraw"),
)


def grams_field(**options: Any) -> Any:
    """A weight in grams."""
    return models.DecimalField(max_digits=20, decimal_places=GRAM_PLACES, **options)


def money_field(**options: Any) -> Any:
    """Money in the kitchen's currency."""
    return models.DecimalField(max_digits=12, decimal_places=MONEY_PLACES, **options)


def ratio_field() -> Any:
    """A ratio 0–1; null where it was not told."""
    return models.DecimalField(max_digits=9, decimal_places=RATIO_PLACES, null=True, blank=True)


def ratio_check(name: str, column: str) -> models.CheckConstraint:
    """A ratio is from 0 to 1; null passes."""
    within = Q(**{f"{column}__gte": 0, f"{column}__lte": 1})
    return models.CheckConstraint(name=name, condition=Q(**{f"{column}__isnull": True}) | within)


def weight_check(name: str, column: str) -> models.CheckConstraint:
    """A weight is above nothing and at most 5 t; null passes."""
    within = Q(**{f"{column}__gt": 0, f"{column}__lte": int(MAX_GRAMS)})
    return models.CheckConstraint(name=name, condition=Q(**{f"{column}__isnull": True}) | within)


def money_check(name: str, column: str) -> models.CheckConstraint:
    """Money is not negative; null passes."""
    within = Q(**{f"{column}__gte": 0, f"{column}__lte": int(MAX_MONEY)})
    return models.CheckConstraint(name=name, condition=Q(**{f"{column}__isnull": True}) | within)


class Batch(models.Model):
    """One chain of weighings.

    The policy is the kitchen's as of the day the batch was started. ``standing`` (with ``is_finished``,
    ``place``, ``pieces_count``, ``last_…``) is what the entries come to, kept for lists; every write
    renews it. ``page`` is the whole batch as printed by edition ``page_edition`` of the program.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="batches")
    code = models.CharField(max_length=12, db_collation="utf8mb4_bin")
    name = models.CharField(max_length=80)
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
    standing = models.JSONField(default=dict)
    page = models.TextField(default="")
    page_edition = models.CharField(max_length=16, default="")

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
            models.Index(name="batch_under_way", fields=["kitchen", "is_finished", "-last_entry_at"])
        ]

    def __str__(self) -> str:
        return f"{self.code} {self.name}"


class Entry(models.Model):
    """One thing that was recorded, in the order of ``sequence`` within its batch.

    A merge or discard names the ``marks`` it takes, a discard also who bears them (``charge``) and why
    (``note``). ``scale_grams`` is the resolution of the scale its weights were read on, where known.
    A correction has ``corrects`` (always the first entry of its line) and ``reason``; the latest of a
    line counts, in the place of the first. ``key`` and ``fingerprint`` make a resend harmless.
    """

    class Act(models.TextChoices):
        """What an entry records."""

        BOUGHT = "bought"
        SPLIT = "split"
        WEIGH = "weigh"
        MERGE = "merge"
        DISCARD = "discard"
        POLICY = "policy"
        FRY = "fry"
        PORTION = "portion"
        SHOP_PACK = "shop_pack"
        WITHDRAW = "withdraw"

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="+")
    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="entries")
    sequence = models.PositiveIntegerField()
    act = models.CharField(max_length=10, choices=Act.choices)
    kind = models.CharField(max_length=60, blank=True)
    from_mark = models.CharField(max_length=MARK_LENGTH, blank=True, db_collation="utf8mb4_bin")
    marks = models.JSONField(default=list)
    charge = models.CharField(max_length=5, blank=True)
    note = models.CharField(max_length=200, blank=True)
    overhead = money_field(null=True, blank=True)
    scale_grams = grams_field(null=True, blank=True)
    scale_typed = models.CharField(max_length=40, blank=True)
    minutes = models.DecimalField(max_digits=8, decimal_places=2, null=True, blank=True)
    happened_at = models.DateTimeField()
    recorded_at = models.DateTimeField()
    recorded_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    corrects = models.ForeignKey(
        "self", on_delete=models.PROTECT, null=True, blank=True, related_name="corrections"
    )
    reason = models.CharField(max_length=200, blank=True)
    key = models.UUIDField()
    fingerprint = models.CharField(max_length=64)

    class Meta:
        ordering: ClassVar = ["sequence"]
        constraints: ClassVar = [
            models.UniqueConstraint(name="entry_in_order", fields=["batch", "sequence"]),
            models.UniqueConstraint(name="entry_key_once", fields=["kitchen", "key"]),
            models.CheckConstraint(name="entry_sequence", condition=Q(sequence__gte=1)),
            models.CheckConstraint(
                name="entry_act",
                condition=Q(act__in=[*ACTS]),
            ),
            models.CheckConstraint(
                name="entry_charge",
                condition=Q(act="discard", charge__in=["batch", "loss"]) | (~Q(act="discard") & Q(charge="")),
            ),
            money_check("entry_overhead", "overhead"),
            weight_check("entry_scale", "scale_grams"),
            models.CheckConstraint(
                name="entry_reason",
                condition=(Q(corrects__isnull=True) & Q(reason=""))
                | (Q(corrects__isnull=False) & ~Q(reason="")),
            ),
            models.CheckConstraint(
                name="entry_withdraws", condition=~Q(act="withdraw") | Q(corrects__isnull=False)
            ),
            models.CheckConstraint(
                name="entry_split_piece",
                condition=(Q(act="split") & ~Q(from_mark="")) | (~Q(act="split") & Q(from_mark="")),
            ),
            models.CheckConstraint(
                name="entry_minutes", condition=Q(minutes__isnull=True) | Q(minutes__gte=0)
            ),
        ]

    def __str__(self) -> str:
        return f"{self.batch_id}/{self.sequence} {self.act}"


class LotLine(models.Model):
    """The meat as purchased. ``paid`` follows from the price as typed, to the cent where by weight.

    ``solution_ratio``: water added, of the meat. A lot that is a piece of another batch names it
    (``from_batch``, ``from_mark``, all of it where ``from_grams`` is null), and keeps what it carried on
    the day it was taken (``carried_then``), so that a later correction there can be told.
    """

    class Basis(models.TextChoices):
        """What the typed price is for."""

        PER_LB = "per_lb"
        PER_KG = "per_kg"
        PACK = "pack"

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="lot")
    mark = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    cut = models.CharField(max_length=60)
    label_grams = grams_field(null=True, blank=True)
    label_typed = models.CharField(max_length=40, blank=True)
    own_grams = grams_field(null=True, blank=True)
    own_typed = models.CharField(max_length=40, blank=True)
    price_basis = models.CharField(max_length=6, choices=Basis.choices)
    price = money_field()
    price_typed = models.CharField(max_length=40)
    paid = money_field()
    solution_ratio = ratio_field()
    from_batch = models.ForeignKey(
        Batch, on_delete=models.PROTECT, null=True, blank=True, related_name="taken_lots"
    )
    from_mark = models.CharField(max_length=MARK_LENGTH, blank=True, db_collation="utf8mb4_bin")
    from_grams = grams_field(null=True, blank=True)
    from_typed = models.CharField(max_length=40, blank=True)
    carried_then = money_field(null=True, blank=True)

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
    what = models.CharField(max_length=40)
    cost = money_field()
    typed = models.CharField(max_length=40)

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
    typed = models.CharField(max_length=40)
    slices = models.PositiveIntegerField(null=True, blank=True)
    name = models.CharField(max_length=40, blank=True)
    material = models.CharField(max_length=8, blank=True)
    worth = models.CharField(max_length=8, choices=Worth.choices, default=Worth.NOTHING)
    worth_paid = money_field(null=True, blank=True)
    worth_grams = grams_field(null=True, blank=True)
    worth_typed = models.CharField(max_length=40, blank=True)

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
    what = models.CharField(max_length=40)
    cost_group = models.CharField(max_length=24)
    amount_grams = grams_field(null=True, blank=True)
    amount_count = models.DecimalField(max_digits=12, decimal_places=MONEY_PLACES, null=True, blank=True)
    amount_typed = models.CharField(max_length=40, blank=True)
    price_paid = money_field()
    price_grams = grams_field(null=True, blank=True)
    price_count = models.DecimalField(max_digits=12, decimal_places=MONEY_PLACES, null=True, blank=True)
    price_typed = models.CharField(max_length=40)
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


class PortionLine(models.Model):
    """What is served as one portion: so many slices, a weight raw, or a weight cooked."""

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="portion")
    slices = models.DecimalField(max_digits=6, decimal_places=2, null=True, blank=True)
    grams = grams_field(null=True, blank=True)
    cooked_grams = grams_field(null=True, blank=True)
    typed = models.CharField(max_length=40, blank=True)

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
    name = models.CharField(max_length=40, blank=True)
    paid = money_field()
    paid_typed = models.CharField(max_length=40)
    grams = grams_field()
    typed = models.CharField(max_length=40)
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
    """What is left of a piece after frying: cooked ÷ raw weight."""

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="fry")
    ratio = models.DecimalField(max_digits=9, decimal_places=RATIO_PLACES)
    typed = models.CharField(max_length=40)

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
