"""One collector at a time: whoever has the lease of a group of devices hears them; a standby takes over."""

import time
from datetime import timedelta
from typing import Final

from django.db import DatabaseError
from django.db.models import Q
from django.db.models.functions import Now

from dolmetsch.server.fires.models import CollectorLease

#: A lease that is not renewed so long goes to whoever asks next.
LEASE: Final = timedelta(seconds=10)
RENEW_SECONDS: Final = 2.0
#: Whoever could not renew in time takes it for lost, well before another may have it.
SURE_SECONDS: Final = 6.0


class Lease:
    """The lease of the group ``name``, asked for by ``holder``: another start of the same one has it at
    once."""

    def __init__(self, name: str, holder: str) -> None:
        self.name, self.holder = name, holder
        self._renewed = float("-inf")

    @property
    def is_held(self) -> bool:
        """Whether it is surely this one's."""
        return time.monotonic() - self._renewed < SURE_SECONDS

    def renew(self) -> bool:
        """Take it or keep it, where nobody else has it; whether it is this one's now.

        While the record store is away it is this one's for as long as it surely was.
        """
        if time.monotonic() - self._renewed < RENEW_SECONDS:
            return True
        asked = time.monotonic()
        try:
            has_it = self._take()
        except DatabaseError:
            return self.is_held
        self._renewed = asked if has_it else float("-inf")
        return has_it

    def give_up(self) -> None:
        """Leave it to another at once."""
        self._renewed = float("-inf")
        CollectorLease.objects.filter(name=self.name, holder=self.holder).update(until=Now())

    def _take(self) -> bool:
        mine = CollectorLease.objects.filter(name=self.name)
        free = Q(holder=self.holder) | Q(until__lte=Now())
        # of two that ask at once the record store lets one through
        if mine.filter(free).update(holder=self.holder, until=Now() + LEASE):
            return True
        first = {"holder": self.holder, "until": Now() + LEASE}
        return CollectorLease.objects.get_or_create(name=self.name, defaults=first)[1]
