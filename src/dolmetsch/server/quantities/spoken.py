"""Amounts of money inside sentences, told apart from the words around them.

A sentence is kept and sent as one text, and not everybody may read its amounts: each is put between two
characters that mean nothing else, and whoever answers takes out the characters, or the amount as well
(``access.money``).
"""

import re
from typing import Final

#: Of Unicode's private use area; nobody types them.
OPEN: Final = "\ue000"
CLOSE: Final = "\ue001"
HIDDEN: Final = "…"
#: As UTF-8 or escaped as in ASCII JSON, which is how answers are printed.
_MARKS: Final = re.compile(rb"\xee\x80[\x80\x81]|\\ue00[01]")
_AMOUNT: Final = re.compile(rb"(?:\xee\x80\x80|\\ue000)(.*?)(?:\xee\x80\x81|\\ue001)")


def say_amount(amount: str) -> str:
    """``amount`` ("$2.50") as a part of a sentence."""
    return f"{OPEN}{amount}{CLOSE}"


def show_amounts(content: bytes) -> bytes:
    """An answer whose sentences have their amounts."""
    # nearly all have none, and are not searched twice
    return _MARKS.sub(b"", content) if b"\xee\x80" in content or b"\\ue00" in content else content


def hide_amounts(content: bytes) -> bytes:
    """An answer whose sentences have … in place of each amount."""
    return _AMOUNT.sub(HIDDEN.encode(), content)
