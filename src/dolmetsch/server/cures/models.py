"""Recipes by version, pieces in the cure, mixes made, and a kitchen's own figures. Added, never changed."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.quantities.columns import grams_field, weight_check
from dolmetsch.server.quantities.lengths import MARK_LENGTH, NAME_LENGTH, REASON_LENGTH, WORD_LENGTH
from dolmetsch.server.writing.kept import Kept


class CureRecipe(Kept):
    """A version of a recipe; saving again under its name makes the next one. ``input`` is what was typed."""

    name = models.CharField(max_length=NAME_LENGTH)
    version = models.PositiveIntegerField()
    input = models.JSONField()
    is_put_away = models.BooleanField(default=False)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.UniqueConstraint(name="recipe_version_once", fields=["kitchen", "name", "version"]),
            models.CheckConstraint(name="recipe_named", condition=~Q(name="")),
        ]

    def __str__(self) -> str:
        return f"{self.name}, version {self.version}"


class OwnFigure(Kept):
    """A kitchen's own figure in place of a reference: a nitrite limit, or what a teaspoon weighs.

    ``name`` is the reference's key (``bacon/dry/off``, ``fine_salt``); the latest of a name counts, and one
    without a value gives the reference back. ``source``: where the figure is from.
    """

    sort = models.CharField(max_length=5)
    name = models.CharField(max_length=WORD_LENGTH)
    value = models.DecimalField(max_digits=10, decimal_places=3, null=True)
    source = models.CharField(max_length=REASON_LENGTH)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="figure_sort", condition=Q(sort__in=["limit", "spoon"])),
            models.CheckConstraint(
                name="figure_value", condition=Q(value__isnull=True) | Q(value__gte=0, value__lte=100_000)
            ),
        ]

    def __str__(self) -> str:
        return f"{self.sort} {self.name} {self.value}"


class MadeMix(Kept):
    """A mix made once, to be used up by weight: ``grams`` of the dry things of a recipe, well mixed."""

    recipe = models.ForeignKey(CureRecipe, on_delete=models.PROTECT, related_name="mixes")
    grams = grams_field()
    note = models.CharField(max_length=REASON_LENGTH, blank=True)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [*Kept.Meta.constraints, weight_check("made_mix_weight", "grams")]

    def __str__(self) -> str:
        return f"{self.grams} g of {self.recipe}"


class PieceCure(Kept):
    """A piece put into the cure: by what, what was weighed out, and the window it is to come out in.

    ``input`` is the recipe as typed; ``recipe`` the version it was saved as, if it was. ``answer`` is what
    the desk showed then. Pieces put in together share their ``key``.
    """

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="cures")
    mark = models.CharField(max_length=MARK_LENGTH, db_collation="utf8mb4_bin")
    recipe = models.ForeignKey(CureRecipe, on_delete=models.PROTECT, null=True, related_name="+")
    input = models.JSONField()
    answer = models.JSONField()
    green_grams = grams_field()
    school = models.CharField(max_length=14)
    in_at = models.DateTimeField()
    first_at = models.DateTimeField()
    last_at = models.DateTimeField()
    out_at = models.DateTimeField()
    mix = models.ForeignKey(MadeMix, on_delete=models.PROTECT, null=True, related_name="uses")
    mix_grams = grams_field(null=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="cure_key_once", fields=["kitchen", "key", "mark"]),
            weight_check("cure_green", "green_grams"),
            weight_check("cure_mix_weight", "mix_grams"),
        ]
        indexes: ClassVar = [models.Index(name="cures_of_batch", fields=["batch", "mark"])]

    def __str__(self) -> str:
        return f"{self.batch_id} {self.mark} {self.school}"


class CureTakenBack(Kept):
    """A cure that was put down by mistake; it stays readable, and counts no more."""

    cure = models.OneToOneField(PieceCure, on_delete=models.PROTECT, related_name="taken_back")
    reason = models.CharField(max_length=REASON_LENGTH)

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            models.CheckConstraint(name="cure_back_reason", condition=~Q(reason="")),
        ]

    def __str__(self) -> str:
        return f"{self.cure_id} canceled"
