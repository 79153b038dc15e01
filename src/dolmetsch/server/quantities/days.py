"""Days where the kitchen is."""

from datetime import date, datetime, time

from django.utils import timezone


def midnight_of(day: date) -> datetime:
    """When ``day`` begins where they are."""
    return timezone.make_aware(datetime.combine(day, time()))
