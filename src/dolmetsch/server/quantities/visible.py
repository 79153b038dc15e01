"""Text as people see it: without letters nobody can see, so that what looks empty is empty."""

import unicodedata
from typing import Final

#: Categories that print something of their own: letters, digits, punctuation, symbols.
_SEEN: Final = frozenset("LNPS")
#: Blank although they count as letters or symbols.
_BLANK: Final = frozenset("\u115f\u1160\u3164\uffa0\u2800")


def make_visible(text: str) -> str:
    """``text`` composed (NFC), without invisible format characters; empty where nothing of it can be seen.

    Combining marks need a letter to stand on, and direction overrides would let one text read as another.
    Line breaks and tabs stay: whether they may is for the shape of the text.
    """
    kept = "".join(
        letter
        for letter in unicodedata.normalize("NFC", text)
        if unicodedata.category(letter) not in ("Cf", "Cn", "Co")
    )
    is_seen = any(unicodedata.category(letter)[0] in _SEEN and letter not in _BLANK for letter in kept)
    # what is refused for its control characters or half letters is refused as it came
    is_odd = any(unicodedata.category(letter) in ("Cc", "Cs") for letter in kept.strip())
    return kept if is_seen or is_odd else ""
