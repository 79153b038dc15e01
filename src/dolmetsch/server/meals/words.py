"""What a plan makes, its moments and spans in words, by the kitchen's clock."""

from collections.abc import Iterable
from datetime import timedelta


def say_hours(span: timedelta) -> str:
    """ "27 minutes", from an hour on "5 hours", from two days on "2 days"."""
    minutes = round(span.total_seconds() / 60)
    hours = round(minutes / 60)
    if hours >= 48:
        return f"{hours // 24} days"
    count, unit = (minutes, "minute") if minutes < 60 else (hours, "hour")
    return f"1 {unit}" if count == 1 else f"{count} {unit}s"


def say_products(products: Iterable[str]) -> str:
    """What is made together: "Cherry jowl and Jowl ends"."""
    return " and ".join(products)
