"""Days and times in words, as the country of the kitchen writes them; their names are English everywhere.

Outside of a kitchen, and where it said no country: "Mon 2 Mar, 14:02".
"""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from datetime import date, datetime, time

from django.utils import timezone

from dolmetsch.server.quantities.countries import Country

_ruling: ContextVar[Country | None] = ContextVar("country", default=None)


@contextmanager
def written_as_in(country: Country | None) -> Iterator[None]:
    """Write days and times as ``country`` does until the end; whoever is inside may say another."""
    held = _ruling.set(country)
    try:
        yield
    finally:
        _ruling.reset(held)


def write_as_in(country: Country | None) -> None:
    """From here on, until what is answered is."""
    _ruling.set(country)


def _local(moment: datetime | date) -> datetime | date:
    return timezone.localtime(moment) if isinstance(moment, datetime) else moment


def _is_day_first() -> bool:
    country = _ruling.get()
    return country is None or country.order == "dmy"


def print_day(moment: datetime | date) -> str:
    """A day by the clock of whoever asks: "2 Mar", or "Mar 2"."""
    return f"{_local(moment):%-d %b}" if _is_day_first() else f"{_local(moment):%b %-d}"


def print_year_day(moment: datetime | date) -> str:
    """With its year: "2 Mar 2026", or "Mar 2, 2026"."""
    return f"{_local(moment):%-d %b %Y}" if _is_day_first() else f"{_local(moment):%b %-d, %Y}"


def _clock_form() -> str:
    country = _ruling.get()
    return "%H:%M" if country is None or country.clock == 24 else "%-I:%M %p"


def print_time(moment: datetime) -> str:
    """By the kitchen's clock: "14:02", or "2:02 PM"."""
    return f"{timezone.localtime(moment):{_clock_form()}}"


def print_clock(typed: str) -> str:
    """A time as it is kept, "09:05", as the country writes it: "9:05 AM"."""
    return f"{time.fromisoformat(typed.zfill(5)):{_clock_form()}}"


def print_moment(moment: datetime) -> str:
    """ "2 Mar, 14:02", or "Mar 2, 2:02 PM"."""
    return f"{print_day(moment)}, {print_time(moment)}"


def print_week_moment(moment: datetime) -> str:
    """ "Mon 2 Mar, 14:02", or "Mon, Mar 2, 2:02 PM"."""
    comma = "" if _is_day_first() else ","
    return f"{timezone.localtime(moment):%a}{comma} {print_moment(moment)}"
