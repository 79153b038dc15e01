"""Points in time: exact seconds since 1970 in UTC inside, ISO 8601 at the edges."""

import re
from datetime import UTC, datetime, timedelta
from fractions import Fraction
from typing import Final

from dolmetsch.core.numbers.exact import round_to

_EPOCH: Final = datetime(1970, 1, 1, tzinfo=UTC)
_ISO: Final = re.compile(
    r"(\d{4}-\d{2}-\d{2})[Tt ](\d{2}:\d{2})(?::(\d{2})(?:[.,](\d{1,12}))?)?"
    r"(?:[Zz]|([+-])(\d{2}):?(\d{2})?)",
    re.ASCII,
)
#: A year on either side is left free, so that an offset or a forecast never leaves the calendar.
_YEARS: Final = (2, 9900)
MINUTE_SECONDS: Final = 60
HOUR_SECONDS: Final = 3600
DAY_SECONDS: Final = 86_400


def read_moment(text: str) -> Fraction | None:
    """Seconds since 1970 of an ISO 8601 time with ``Z`` or an offset; None where ``text`` is not one.

    Fractions of a second are kept exactly; a date alone, a time without an offset and a second of 60 are
    not taken.
    """
    match = _ISO.fullmatch(text.strip())
    if match is None:
        return None
    day, minute, seconds, part, sign, hours, minutes = match.groups()
    try:
        found = datetime.fromisoformat(f"{day}T{minute}:{seconds or '00'}+00:00")
    except ValueError:
        return None
    offset = Fraction(0)
    if sign is not None:
        if int(hours) > 23 or int(minutes or 0) > 59:
            return None
        offset = Fraction(int(hours) * HOUR_SECONDS + int(minutes or 0) * MINUTE_SECONDS)
    if not _YEARS[0] <= found.year <= _YEARS[1]:
        return None
    whole = Fraction((found - _EPOCH) // timedelta(seconds=1))
    return whole + Fraction(f"0.{part or 0}") + (offset if sign == "-" else -offset)


def print_moment(at: Fraction) -> str:
    """ISO 8601 in UTC, to whole seconds, rounded half to even."""
    return (_EPOCH + timedelta(seconds=round_to(at, 0))).strftime("%Y-%m-%dT%H:%M:%SZ").rjust(20, "0")
