"""Moments and spans of a plan in words, by the kitchen's clock."""

from datetime import datetime, timedelta

from django.utils import timezone


def say_time(moment: datetime) -> str:
    """ "Sat 5 Dec, 18:30", by the kitchen's clock."""
    return f"{timezone.localtime(moment):%a %-d %b, %H:%M}"


def say_hours(span: timedelta) -> str:
    """ "5 hours", from two days on "2 days"."""
    hours = round(span.total_seconds() / 3600)
    if hours >= 48:
        return f"{hours // 24} days"
    return "1 hour" if hours == 1 else f"{hours} hours"
