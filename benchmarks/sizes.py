"""How much a benchmark measures and where it writes: what is published, or so little that a test runs all.

``DOLMETSCH_PAGES`` names a folder of pages to write in place of ``docs``; what is written there is of
little, and says nothing of speed.
"""

import os
from pathlib import Path
from typing import Final, TypeVar

ROOT: Final = Path(__file__).resolve().parents[1]
IS_SMALL: Final = "DOLMETSCH_PAGES" in os.environ
PAGES: Final = Path(os.environ.get("DOLMETSCH_PAGES", ROOT / "docs"))
#: So long a page may take where the machine is busy with other things, in milliseconds.
LONGEST_MS: Final = 120_000
#: Where records of a small run lie: in memory where that can be; nothing is measured of them.
IN_MEMORY: Final = "/dev/shm" if IS_SMALL and os.access("/dev/shm", os.W_OK) else None
Size = TypeVar("Size")


def of(full: Size, little: Size) -> Size:
    """``full``, or ``little`` where it is only run to see that it runs."""
    return little if IS_SMALL else full
