"""For all tests."""

import pytest
from django.core.cache import cache


@pytest.fixture(autouse=True)
def _nothing_printed_before():
    """Batches of different tests may share a number; what was printed of one is not another's."""
    cache.clear()
