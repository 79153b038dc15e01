"""How countries write days, times and money, and what they use.

``countries.json`` is the one table of it, which the web client reads too: from the Unicode CLDR, edition 48,
for the first language of each country (paper: its list of letter countries; units: what scales there show).
"""

import json
from collections import Counter
from dataclasses import dataclass
from pathlib import Path
from typing import Final, Literal


@dataclass(frozen=True, slots=True, kw_only=True)
class Country:
    """``sign``: of its money; empty: its code. ``digits``: places of its money. ``symbol``: where the sign
    stands. ``order``: of day, month and year. ``week``: the first day of a week, 0 for Sunday.
    """

    name: str
    code: str
    currency: str
    sign: str
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
_PAYING: Final = Counter(country.currency for country in COUNTRIES.values())
#: By currency, where one country alone pays in it.
_ALONE: Final = {one.currency: one for one in COUNTRIES.values() if _PAYING[one.currency] == 1}
#: Signs of currencies that have one of their own; others go by their code.
SIGNS: Final = {country.currency: country.sign for country in COUNTRIES.values() if country.sign}


def find_country(code: str, currency: str) -> Country | None:
    """The country of that ``code``; without one, the only country that pays in ``currency``."""
    return COUNTRIES.get(code) if code else _ALONE.get(currency)
