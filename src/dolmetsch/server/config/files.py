"""Where what is worked out once is kept for all workers of a machine: as files."""

import random
from typing import Final

from django.core.cache.backends.filebased import FileBasedCache

#: Only one in so many looks whether too many files are kept, for that lists them all.
_LOOKED_EACH: Final = 20


class ServedFiles(FileBasedCache):
    """Django's cache of files, for thousands of them."""

    def _cull(self) -> None:
        if random.randrange(_LOOKED_EACH) == 0:  # noqa: S311 (which of them looks is no secret)
            super()._cull()  # type: ignore[misc]
