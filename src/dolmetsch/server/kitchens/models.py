"""Kitchens and the people in them."""

from typing import ClassVar

from django.contrib.auth.models import AbstractUser
from django.db import models
from django.db.models import Q

from dolmetsch.server.quantities.countries import Country, find_country
from dolmetsch.server.quantities.lengths import NAME_LENGTH


class User(AbstractUser):
    """Someone who signs in. What they may see follows from their memberships."""

    @property
    def called(self) -> str:
        """What the others in the kitchen call them."""
        return self.first_name or self.username


class Kitchen(models.Model):
    """A tenant: every record belongs to one kitchen and is seen by its members only.

    The policy fields are the defaults a new batch takes over. ``scale_grams`` is what its scale shows
    steps of; null: not set. ``fridge_slabs`` and ``smoker_slabs``: so many fit; null: no wall is known.
    ``writes`` counts what was written in it: an answer worked out at that count is as good as new.
    ``derived_edition``: the edition of the program that derived what its batches keep of themselves.
    ``country``: two letters; empty: not said, so the only one that pays in its currency, if there is one.
    ``time_zone``: an IANA name; empty: not said yet, so the first device says it. ``put_away_at``: not shown
    since, its records kept. ``helpers_see_money``: else prices are left out of what helpers are shown.
    """

    class Unit(models.TextChoices):
        """The unit that comes first on screen."""

        LB = "lb"
        KG = "kg"

    class TemperatureUnit(models.TextChoices):
        """The unit temperatures are shown and typed in."""

        FAHRENHEIT = "F"
        CELSIUS = "C"

    slug = models.SlugField(max_length=40, unique=True)
    name = models.CharField(max_length=NAME_LENGTH)
    weight_unit = models.CharField(max_length=2, choices=Unit.choices, default=Unit.LB)
    currency = models.CharField(max_length=3, default="USD")
    temperature_unit = models.CharField(
        max_length=1, choices=TemperatureUnit.choices, default=TemperatureUnit.FAHRENHEIT
    )
    time_zone = models.CharField(max_length=60, blank=True, default="")
    country = models.CharField(max_length=2, blank=True, default="", db_default="")
    decimal_sign = models.CharField(max_length=1, default=".")
    helpers_see_money = models.BooleanField(default=True)
    put_away_at = models.DateTimeField(null=True, blank=True)
    labour_rate = models.DecimalField(max_digits=8, decimal_places=2, null=True, blank=True)
    credit_by_products = models.BooleanField(default=True)
    count_fuel = models.BooleanField(default=True)
    count_packaging = models.BooleanField(default=True)
    count_overhead = models.BooleanField(default=True)
    scale_grams = models.DecimalField(max_digits=9, decimal_places=3, null=True, blank=True)
    fridge_slabs = models.PositiveSmallIntegerField(null=True, blank=True)
    smoker_slabs = models.PositiveSmallIntegerField(null=True, blank=True)
    derived_edition = models.CharField(max_length=8, default="", editable=False)
    writes = models.PositiveBigIntegerField(default=0, editable=False)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                name="kitchen_scale", condition=Q(scale_grams__isnull=True) | Q(scale_grams__gt=0)
            ),
            models.CheckConstraint(name="kitchen_unit", condition=Q(weight_unit__in=["lb", "kg"])),
            models.CheckConstraint(
                name="kitchen_temperature_unit", condition=Q(temperature_unit__in=["F", "C"])
            ),
            models.CheckConstraint(name="kitchen_decimal_sign", condition=Q(decimal_sign__in=[".", ","])),
            models.CheckConstraint(
                name="kitchen_labour_rate", condition=Q(labour_rate__isnull=True) | Q(labour_rate__gte=0)
            ),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def in_country(self) -> Country | None:
        """Whose rules its days, times and money are written by; None: no country's."""
        return find_country(self.country, self.currency)

    @property
    def paper(self) -> str:
        """The paper its pages are printed on, as style sheets name it."""
        return "A4" if self.in_country is None else self.in_country.paper


class SignInFailure(models.Model):
    """A wrong password: which name was tried, from which address, and when."""

    name = models.CharField(max_length=150)
    address = models.CharField(max_length=45)
    at = models.DateTimeField()

    class Meta:
        indexes: ClassVar = [
            models.Index(name="failures_of_name", fields=["address", "name", "at"]),
            models.Index(name="failures_of_address", fields=["address", "at"]),
            models.Index(name="failures_by_age", fields=["at"]),
        ]

    def __str__(self) -> str:
        return f"{self.name} from {self.address}"


class Role(models.TextChoices):
    """What someone may do in a kitchen, the least first; each may do what those before it may.

    A reader reads; a helper also weighs and ticks off; a cook does all the work; an owner also says who is
    in the kitchen and sees who did what.
    """

    READER = "reader"
    HELPER = "helper"
    COOK = "cook"
    OWNER = "owner"

    def covers(self, least: "Role") -> bool:
        """Whether it may do what ``least`` may."""
        order = list(Role)
        return order.index(self) >= order.index(least)


class Membership(models.Model):
    """Someone's place in a kitchen, until ``left_at``; what they recorded stays under their name.

    ``tablet_code``: the hash of the short code by which they say who they are on the kitchen's tablet.
    """

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="memberships")
    role = models.CharField(max_length=6, choices=Role.choices, default=Role.OWNER)
    joined_at = models.DateTimeField(null=True, blank=True)
    left_at = models.DateTimeField(null=True, blank=True)
    tablet_code = models.CharField(max_length=128, blank=True, default="")

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="membership_once", fields=["user", "kitchen"]),
            models.CheckConstraint(name="membership_role", condition=Q(role__in=Role.values)),
        ]

    def __str__(self) -> str:
        return f"{self.user} in {self.kitchen}"

    @property
    def sees_money(self) -> bool:
        """Whether prices are shown to them."""
        return self.role != Role.HELPER or self.kitchen.helpers_see_money
