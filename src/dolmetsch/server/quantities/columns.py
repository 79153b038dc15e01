"""Columns of weights, money and ratios, and what their tables refuse."""

from decimal import Decimal
from fractions import Fraction
from typing import Any, Final

from django.db import models
from django.db.models import Q

from dolmetsch.core.numbers.quantity import GRAM_PLACES, MAX_GRAMS, MAX_MONEY, MONEY_PLACES

#: 0.00000001 of a ratio is a hundredth of a ppm: nothing anyone types is finer.
RATIO_PLACES: Final = 8


def exact_or_none(value: Decimal | str | None) -> Fraction | None:
    """What a column holds, or a summary keeps of one, as an exact number; None where it is empty."""
    return None if value is None else Fraction(value)


def grams_field(**options: Any) -> Any:
    """A weight in grams."""
    return models.DecimalField(max_digits=20, decimal_places=GRAM_PLACES, **options)


def money_field(**options: Any) -> Any:
    """Money in the kitchen's currency."""
    return models.DecimalField(max_digits=12, decimal_places=MONEY_PLACES, **options)


def exact_money_field(**options: Any) -> Any:
    """Money as computed, not as paid: to 12 places, so that sums of it are right to the cent."""
    return models.DecimalField(max_digits=24, decimal_places=12, **options)


def ratio_field() -> Any:
    """A ratio 0–1; null where it was not entered."""
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
