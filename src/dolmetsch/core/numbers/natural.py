"""The order in which people number things: P2 before P10."""

import re
from typing import Final

_DIGITS: Final = re.compile(r"([0-9]+)")

#: Of each stretch of a text whether it is letters, the number it is, and the letters.
NaturalKey = tuple[tuple[bool, int, str], ...]


def natural_key(text: str) -> NaturalKey:
    """What to sort ``text`` by: numbers in it by their value, letters without regard to case."""
    parts = [part for part in _DIGITS.split(text) if part]
    return tuple(
        (False, int(part), "") if _DIGITS.fullmatch(part) else (True, 0, part.casefold()) for part in parts
    )
