"""What is here on a day and can be used then: one answer for plates, plans, thawing and what runs out.

A frozen pack past its day is no longer at its best, but safe: it counts, and is marked. Any other is past its
use-by date: it is skipped and said, and used only knowingly.
"""

from collections.abc import Iterable
from datetime import date
from typing import Protocol, TypeVar

from django.db.models import Q, QuerySet

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import PackNow

FROZEN = "frozen"


class Dated(Protocol):
    """Whatever has a state and a day."""

    @property
    def state(self) -> str:
        """Frozen, thawed, open or chilled."""

    @property
    def keep_until(self) -> date | None:
        """Its last day; None: the chart says nothing of it."""


OneDated = TypeVar("OneDated", bound=Dated)


def is_past_use(pack: Dated, day: date) -> bool:
    """Whether ``pack`` is past its use-by date on ``day``."""
    return pack.state != FROZEN and pack.keep_until is not None and pack.keep_until < day


def is_past_best(pack: Dated, day: date) -> bool:
    """Whether ``pack`` is frozen and no longer at its best on ``day``."""
    return pack.state == FROZEN and pack.keep_until is not None and pack.keep_until < day


def list_usable(packs: Iterable[OneDated], day: date) -> list[OneDated]:
    """Those of ``packs`` that can be used on ``day``, in their order."""
    return [pack for pack in packs if not is_past_use(pack, day)]


def find_usable(kitchen: Kitchen, day: date) -> QuerySet[PackNow]:
    """The kitchen's own packs, not its customers', that are in the larder and can be used on ``day``."""
    past = ~Q(state=FROZEN) & Q(keep_until__lt=day)
    return PackNow.objects.filter(kitchen=kitchen, is_gone=False, owner="").exclude(past)
