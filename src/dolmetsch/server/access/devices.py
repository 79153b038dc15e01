"""What a request's device is called, and whether it is a kitchen's tablet."""

import re
from typing import Final

from django.http import HttpRequest

#: The session's key for the kitchen whose tablet it is.
TABLET: Final = "tablet"
#: The session's key for what its device is called.
DEVICE: Final = "device"

_SYSTEMS: Final = (
    ("iPad", "iPad"),
    ("iPhone", "iPhone"),
    (r"Android.*Mobile", "Android phone"),
    ("Android", "Android tablet"),
    ("Windows", "Windows computer"),
    ("CrOS", "Chromebook"),
    ("Mac OS X|Macintosh", "Mac"),
    ("Linux|X11", "Linux computer"),
)
_BROWSERS: Final = (
    ("Edg", "Edge"),
    ("OPR", "Opera"),
    ("SamsungBrowser", "Samsung Internet"),
    ("Firefox|FxiOS", "Firefox"),
    ("Chrome|CriOS", "Chrome"),
    ("Safari", "Safari"),
)


def name_device(agent: str) -> str:
    """Like "Android phone, Firefox", by what a browser says of itself; else "Unknown device"."""
    system = next((word for pattern, word in _SYSTEMS if re.search(pattern, agent)), "")
    browser = next((word for pattern, word in _BROWSERS if re.search(pattern, agent)), "")
    return ", ".join(filter(None, (system, browser))) or "Unknown device"


def device_of(request: HttpRequest) -> str:
    """What the device of a request is called."""
    kept = request.session.get(DEVICE)
    return str(kept) if kept else name_device(request.headers.get("User-Agent", ""))


def is_tablet(request: HttpRequest) -> bool:
    """Whether it comes from a kitchen's tablet."""
    return TABLET in request.session
