"""Codes that open something once: shown when they are made, kept as a hash only."""

import hashlib
import hmac
import re
import secrets
from typing import Final

from django.conf import settings

#: Digits and letters that are not taken for each other when read off a screen.
LETTERS: Final = "23456789ABCDEFGHJKMNPQRSTVWXYZ"
#: Ten of thirty letters: 49 bits, with guesses slowed by address (``access.throttle``).
LENGTH: Final = 10


def make_code() -> str:
    """A new code, like ``K7QM3-XPD2V``."""
    letters = "".join(secrets.choice(LETTERS) for _ in range(LENGTH))
    return f"{letters[:5]}-{letters[5:]}"


def hash_code(code: str) -> str:
    """What is kept of a code, however it was typed: without its dash, in small letters, with spaces."""
    letters = re.sub(r"[\s-]", "", code).upper()
    return hmac.new(settings.SECRET_KEY.encode(), letters.encode(), hashlib.sha256).hexdigest()
