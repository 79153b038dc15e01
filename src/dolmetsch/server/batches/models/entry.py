"""One thing that was recorded."""

from typing import ClassVar, Final

from django.db import models
from django.db.models import Exists, OuterRef, Q

from dolmetsch.core.ledger.course import COURSES
from dolmetsch.server.batches.models.batch import Batch
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.columns import (
    grams_field,
    money_check,
    money_field,
    weight_check,
)
from dolmetsch.server.quantities.lengths import (
    COURSE_LENGTH,
    KIND_LENGTH,
    MARK_LENGTH,
    REASON_LENGTH,
    TYPED_LENGTH,
)

ACTS: Final = (
    *("bought", "split", "weigh", "merge", "discard", "policy", "fry"),
    *("portion", "shop_pack", "finish", "course", "withdraw"),
)


class CurrentEntries(models.Manager["Entry"]):
    """The entries that count (``chain.list_current`` says the same of entries that were read)."""

    def get_queryset(self) -> models.QuerySet["Entry"]:
        """Of each line of corrections the latest, unless it takes the line back."""
        after = Entry.objects.filter(corrects=OuterRef("corrects"), sequence__gt=OuterRef("sequence"))
        counting = super().get_queryset().exclude(act=Entry.Act.WITHDRAW)
        return counting.filter(~Exists(Entry.objects.filter(corrects=OuterRef("pk"))), ~Exists(after))


class Entry(models.Model):
    """One thing that was recorded, in the order of ``sequence`` within its batch.

    A merge or discard names the ``marks`` it takes, a discard also who bears them (``charge``) and why
    (``note``). ``heat`` (empty: not said) and the highest temperature inside are those of a step that heats.
    A ``course`` is what its ``marks`` (none: all of the batch) are to become, empty: not said any more.
    ``scale_grams`` is the resolution of the scale its weights were read on, where known.
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
        FINISH = "finish"
        COURSE = "course"
        WITHDRAW = "withdraw"

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="+")
    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="entries")
    sequence = models.PositiveIntegerField()
    act = models.CharField(max_length=10, choices=Act.choices)
    kind = models.CharField(max_length=KIND_LENGTH, blank=True)
    from_mark = models.CharField(max_length=MARK_LENGTH, blank=True, db_collation="utf8mb4_bin")
    marks = models.JSONField(default=list)
    charge = models.CharField(max_length=5, blank=True)
    note = models.CharField(max_length=REASON_LENGTH, blank=True)
    heat = models.CharField(max_length=4, blank=True, default="", db_default="")
    inside_fahrenheit = models.DecimalField(max_digits=7, decimal_places=3, null=True, blank=True)
    inside_typed = models.CharField(max_length=TYPED_LENGTH, blank=True, default="", db_default="")
    course = models.CharField(max_length=COURSE_LENGTH, blank=True, default="", db_default="")
    overhead = money_field(null=True, blank=True)
    scale_grams = grams_field(null=True, blank=True)
    scale_typed = models.CharField(max_length=TYPED_LENGTH, blank=True)
    minutes = models.DecimalField(max_digits=8, decimal_places=2, null=True, blank=True)
    happened_at = models.DateTimeField()
    recorded_at = models.DateTimeField()
    recorded_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    corrects = models.ForeignKey(
        "self", on_delete=models.PROTECT, null=True, blank=True, related_name="corrections"
    )
    reason = models.CharField(max_length=REASON_LENGTH, blank=True)
    key = models.UUIDField()
    fingerprint = models.CharField(max_length=64)

    objects = models.Manager["Entry"]()
    #: Who sums up, looks for, or learns from what was recorded asks here, or ``chain.list_current``.
    current = CurrentEntries()

    class Meta:
        ordering: ClassVar = ["sequence"]
        # a kitchen's latest fryings are read without its other entries
        indexes: ClassVar = [models.Index(name="entries_of_act", fields=["kitchen", "act"])]
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
            models.CheckConstraint(name="entry_heat", condition=Q(heat__in=["", "hot", "cold"])),
            models.CheckConstraint(
                name="entry_course", condition=Q(course="") | Q(act="course", course__in=[*COURSES])
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
