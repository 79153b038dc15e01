"""How countries write days, times and money, and what they use.

``countries.json`` is the one table of it, which the web client reads too: from the Unicode CLDR, edition 48,
for the first language of each country (paper: its list of letter countries; units: what scales there show).
"""

import json
from dataclasses import dataclass
from pathlib import Path
from typing import Final, Literal


@dataclass(frozen=True, slots=True, kw_only=True)
class Country:
    """``order``: of day, month and year. ``week``: the first day of a week, 0 for Sunday. ``digits``: places
    of its money. ``symbol``: where the sign of its money stands.
    """

    name: str
    code: str
    currency: str
    digits: int
    symbol: Literal["before", "after"]
    decimal: Literal[".", ","]
    group: str
    unit: Literal["lb", "kg"]
    degrees: Literal["F", "C"]
    order: Literal["dmy", "mdy", "ymd"]
    clock: Literal[12, 24]
    week: int
    paper: Literal["letter", "a4"]


def _load() -> dict[str, Country]:
    rows = json.loads(Path(__file__).with_name("countries.json").read_text(encoding="utf-8"))
    return {row["code"]: Country(**row) for row in rows}


COUNTRIES: Final = _load()


def find_country(code: str, currency: str) -> Country | None:
    """The country of that ``code``; without one, the only country that pays in ``currency``."""
    if code:
        return COUNTRIES.get(code)
    paying = [country for country in COUNTRIES.values() if country.currency == currency]
    return paying[0] if len(paying) == 1 else None
