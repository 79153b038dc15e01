"""The writes of the demo: their keys follow from their content, so that they are the same every time."""

import hashlib
import json
import uuid
from datetime import datetime
from typing import Final

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.writing.once import Write

KEYS: Final = uuid.UUID("5a17ab1e-0000-4000-8000-000000000000")


def write_demo(kitchen: Kitchen, cook: User, content: object, when: datetime) -> Write:
    """A write of ``content`` by ``cook``."""
    text = json.dumps(content, sort_keys=True)
    fingerprint = hashlib.sha256(text.encode()).hexdigest()
    return Write(kitchen=kitchen, user=cook, now=when, key=uuid.uuid5(KEYS, text), fingerprint=fingerprint)
