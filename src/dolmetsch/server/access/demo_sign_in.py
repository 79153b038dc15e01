"""The demo cook's sign-in, shown on the sign-in page of a demo start and printed by it."""

from typing import Final

DEMO_USERNAME: Final = "maren"
DEMO_PASSWORD: Final = "salt-lantern"
