"""What a helper may record in a batch: weights, splits and fryings, and corrections of such."""

from typing import Final

from dolmetsch.server.batches.entries.typed import EntryIn
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.kitchens.models import Membership, Role
from dolmetsch.server.problems import DomainError

ACTS: Final = frozenset({"weigh", "split", "fry"})


def refuse_beyond_helping(membership: Membership, draft: EntryIn) -> None:
    """Refuse a helper what is not weighing: purchases, prices, the policy, finishing, and their corrections.

    Raises:
        DomainError: not_allowed.
    """
    if membership.role != Role.HELPER:
        return
    act = draft.content.act
    if draft.corrects is not None:
        entries = Entry.objects.filter(kitchen=membership.kitchen, pk=draft.corrects)
        corrected = entries.values_list("act", flat=True).first()
        # what takes an entry back is as free as the entry was; one that is not there is refused as such later
        if corrected is not None and corrected not in ACTS:
            act = "bought"
        elif act == "withdraw":
            return
    if act not in ACTS:
        said = "Helpers record weights, splits and fryings. Ask a cook for this entry."
        raise DomainError("not_allowed", 403, "Not for you", said)
