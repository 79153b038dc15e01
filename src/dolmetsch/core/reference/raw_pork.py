"""Pork that is never cooked."""

from typing import Final

RAW_PORK_SOURCE: Final = "FSIS compliance guideline for trichinae (formerly 9 CFR 318.10)"
RAW_PORK: Final = (
    "Pork eaten raw: certified free of trichinae, or frozen first: pieces up to 6 in thick 20 days at 5 °F,"
    " 10 at −10 °F, 6 at −20 °F; thicker ones 30, 20, 12."
)
