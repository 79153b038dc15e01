"""Room on the disk that the records lie on."""

import shutil
from pathlib import Path
from typing import Final, NamedTuple

from django.conf import settings

#: Below this, and below this part of the disk, it is said.
LOW_BYTES: Final = 2_000_000_000
LOW_RATIO: Final = 0.1


class Room(NamedTuple):
    """Bytes of a disk."""

    total: int
    free: int


def read_room() -> Room:
    """Bytes in all, and free, of the disk that the records lie on."""
    usage = shutil.disk_usage(_existing(Path(settings.PHOTOS)))
    return Room(total=usage.total, free=usage.free)


def say_room() -> str | None:
    """Where the disk is nearly full: how much is left, as "1.4 GB"; None where there is enough."""
    usage = read_room()
    if usage.free >= LOW_BYTES or usage.free >= usage.total * LOW_RATIO:
        return None
    return f"{usage.free / 1e9:.1f} GB"


def _existing(path: Path) -> Path:
    while not path.exists():
        path = path.parent
    return path
