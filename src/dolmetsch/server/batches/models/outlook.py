"""What a batch is made by, what each of its steps kept, and what was forecast of it."""

from datetime import UTC, datetime
from typing import ClassVar, Final

from django.db import models

from dolmetsch.server.batches.models.batch import Batch
from dolmetsch.server.batches.models.entry import Entry
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.columns import exact_money_field, grams_field
from dolmetsch.server.quantities.lengths import COURSE_LENGTH, KIND_LENGTH, NAME_LENGTH, SOURCE_LENGTH
from dolmetsch.server.ways.models import Way

#: Of what was kept before it was known; renewed when the program starts.
NEVER: Final = datetime(2000, 1, 1, tzinfo=UTC)


class BatchWay(models.Model):
    """The way a batch is made by; the latest counts."""

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="ways_chosen")
    way = models.ForeignKey(Way, on_delete=models.PROTECT, related_name="batches")
    chosen_at = models.DateTimeField()
    chosen_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    key = models.UUIDField()
    fingerprint = models.CharField(max_length=64)

    class Meta:
        constraints: ClassVar = [models.UniqueConstraint(name="batch_way_key", fields=["batch", "key"])]

    def __str__(self) -> str:
        return f"{self.batch_id} by {self.way_id}"


class StepYield(models.Model):
    """What a finished batch kept in a step: derived from its entries, renewed whenever they change.

    ``log_ratio`` is ln(weight out ÷ weight in), ``scale_variance`` what its scale alone scatters it by.
    ``per_gram``: what a gram cost after the step; ``cook``: who recorded it last.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="step_yields")
    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="step_yields")
    method = models.CharField(max_length=16)
    cut = models.CharField(max_length=NAME_LENGTH)
    log_ratio = models.FloatField()
    scale_variance = models.FloatField()
    per_gram = models.FloatField(null=True)
    cook = models.ForeignKey(User, on_delete=models.PROTECT, null=True, related_name="+")

    class Meta:
        # the latest of each method and cut are read, by id
        indexes: ClassVar = [models.Index(name="step_yield_latest", fields=["kitchen", "method", "cut"])]

    def __str__(self) -> str:
        return f"{self.batch_id} {self.method}"


class BatchFacts(models.Model):
    """What a finished batch came to, for the books; derived as yields are.

    ``cut`` by its key, empty where meats came together; then, and of pieces of other batches, there is no
    ``log_yield`` (ln of sliced ÷ bought weight). ``way``: the method's name; ``course``: what it became,
    empty: several things or not said; ``is_long``: a long cook; ``source``: whom the meat was
    bought from; ``cook``: who recorded most of its steps. ``meat`` is what of ``paid``, for ``own_grams`` of
    meat, the finished pieces carry; ``customers_grams`` and ``customers_labour`` what of weight and work is
    customers'; ``loss`` and ``discarded_grams`` what was thrown away before packing.
    """

    batch = models.OneToOneField(Batch, on_delete=models.CASCADE, primary_key=True, related_name="facts")
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="+")
    cut = models.CharField(max_length=NAME_LENGTH, blank=True)
    way = models.CharField(max_length=NAME_LENGTH, blank=True)
    course = models.CharField(max_length=COURSE_LENGTH, blank=True, default="", db_default="")
    is_long = models.BooleanField(default=False, db_default=False)
    source = models.CharField(max_length=SOURCE_LENGTH, blank=True)
    cook = models.ForeignKey(User, on_delete=models.PROTECT, null=True, related_name="+")
    started_at = models.DateTimeField()
    finished_at = models.DateTimeField()
    bought_grams = grams_field()
    own_grams = grams_field()
    final_grams = grams_field()
    customers_grams = grams_field(default=0)
    discarded_grams = grams_field()
    paid = exact_money_field()
    meat = exact_money_field()
    labour = exact_money_field()
    customers_labour = exact_money_field(default=0)
    cost = exact_money_field()
    loss = exact_money_field()
    minutes = models.DecimalField(max_digits=10, decimal_places=2)
    log_yield = models.FloatField(null=True)
    scale_variance = models.FloatField(default=0)

    class Meta:
        indexes: ClassVar = [
            models.Index(name="facts_by_day", fields=["kitchen", "finished_at"]),
            models.Index(
                name="facts_by_cut", fields=["kitchen", "cut", "way", "course", "is_long", "finished_at"]
            ),
        ]

    def __str__(self) -> str:
        return f"{self.batch_id} came to {self.cost}"


class ShopSaving(models.Model):
    """What a finished batch saved beside one of its shop packs, below zero: lost; derived as yields are.

    ``last_entry_at`` is the batch's, ``finished_at`` that of its facts.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="+")
    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="shop_savings")
    name = models.CharField(max_length=NAME_LENGTH, db_collation="utf8mb4_bin")
    saved = models.DecimalField(max_digits=12, decimal_places=2)
    last_entry_at = models.DateTimeField()
    finished_at = models.DateTimeField(default=NEVER)

    class Meta:
        # all that is summed up, so that the sums are read from the index alone
        indexes: ClassVar = [
            models.Index(name="shop_saving_sums", fields=["kitchen", "name", "last_entry_at", "saved"]),
            models.Index(
                name="shop_saving_days", fields=["kitchen", "name", "finished_at", "batch", "saved"]
            ),
        ]

    def __str__(self) -> str:
        return f"{self.batch_id} beside {self.name}"


class Forecast(models.Model):
    """What was forecast after an entry, or a choice of way: the price of a sliced gram, the sliced weight.

    Kept as it was, whatever comes: ``middle`` and the deviation of ln. ``stage`` is the last step then
    done, ``way`` what it was computed by (null: the plain way).
    """

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="forecasts")
    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="forecasts")
    stage = models.CharField(max_length=KIND_LENGTH)
    way = models.ForeignKey(Way, on_delete=models.PROTECT, null=True, related_name="+")
    made_at = models.DateTimeField()
    price_middle = models.FloatField()
    price_deviation = models.FloatField()
    grams_middle = models.FloatField()
    grams_deviation = models.FloatField()

    def __str__(self) -> str:
        return f"{self.batch_id} after {self.stage}"


class ForecastScore(models.Model):
    """A kept forecast of a finished batch beside what came true; derived as yields are.

    Of each step the last forecast made after it counts. ``came``: the price was within its range (0), above
    (1) or below it (-1); ``off`` without its sign, of ln. ``is_enough``: the finished weight was no less than
    what a plan counts on nine times out of ten.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="+")
    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="forecast_scores")
    forecast = models.OneToOneField(Forecast, on_delete=models.CASCADE, related_name="score")
    stage = models.CharField(max_length=KIND_LENGTH)
    came = models.SmallIntegerField()
    off = models.FloatField()
    true_price = models.FloatField()
    is_enough = models.BooleanField()

    class Meta:
        # counted by what came, and the middle found by how far off, from the indexes alone
        indexes: ClassVar = [
            models.Index(name="scores_that_came", fields=["kitchen", "stage", "came", "is_enough"]),
            models.Index(name="scores_of_stage", fields=["kitchen", "stage", "off"]),
            models.Index(name="scores_by_off", fields=["kitchen", "off"]),
        ]

    def __str__(self) -> str:
        return f"{self.forecast_id} came {self.came}"
