"""What the nodes of a set do not do by themselves: join again after they have given their group up, and begin
again where none of them serves.

A node whose group communication fails runs on without a group (``Disconnected``), and nodes that are left
without the greater part of their last group wait for all who were in it, who may have forgotten that. Nothing
that was acknowledged is lost by beginning again: each commit was on the disk of the node that took it, and
all nodes are ended before the one with the last write begins. Only who watches over *all* nodes may do that.
"""

import time
from collections.abc import Callable, Sequence
from typing import Final, Protocol

from dolmetsch.command.telling import TroubleError, say

#: Between two looks.
PAUSE: Final = 3.0
#: A node that runs apart from the others who serve is ended after so long; longer than one is cut off for.
APART_SECONDS: Final = 20.0
#: All begin again where none has served for so long; each time in a row twice as long, at most ``LONGEST``.
NONE_SECONDS: Final = 40.0
LONGEST: Final = 640.0
SERVES: Final = "Primary"


class Member(Protocol):
    """A node, as far as it is looked at here."""

    def find_group(self) -> str | None:
        """``Primary``, ``non-Primary`` or ``Disconnected``; None where it does not answer."""

    def kill(self) -> None:
        """End it at once; who watches over it starts it again."""


class Rejoining:
    """Looks at all ``members`` of a set; ``begin_again`` starts all, the one that wrote last first."""

    def __init__(
        self,
        members: Sequence[Member],
        begin_again: Callable[[], None],
        *,
        now: Callable[[], float] = time.monotonic,
    ) -> None:
        self._members, self._begin_again, self._now = members, begin_again, now
        self._due = self._served = now()
        self._apart_since: dict[int, float] = {}
        self._patience = NONE_SECONDS

    def look(self) -> None:
        """One look, where it is due."""
        if self._now() < self._due:
            return
        groups = [member.find_group() for member in self._members]
        if SERVES in groups:
            self._served, self._patience = self._now(), NONE_SECONDS
            self._end_apart(groups)
        elif self._now() - self._served >= self._patience:
            self._begin_all()
        self._due = self._now() + PAUSE

    def _end_apart(self, groups: Sequence[str | None]) -> None:
        """End who has answered for long that it is not of the group that serves."""
        apart = {at for at, group in enumerate(groups) if group not in (SERVES, None)}
        self._apart_since = {at: self._apart_since.get(at, self._now()) for at in apart}
        for at, since in list(self._apart_since.items()):
            if self._now() - since >= APART_SECONDS:
                say(f"Node {at + 1} is apart from the others ({groups[at]}); ending it: it will join again.")
                self._members[at].kill()
                del self._apart_since[at]

    def _begin_all(self) -> None:
        say(f"No node has served for {self._now() - self._served:.0f} s; all begin again …")
        for member in self._members:
            member.kill()
        try:
            self._begin_again()
        except (TroubleError, OSError) as error:
            say(f"They did not come up; trying again later. {error}")
        else:
            say("The nodes have begun again.")
        self._served, self._apart_since = self._now(), {}
        self._patience = min(self._patience * 2, LONGEST)
