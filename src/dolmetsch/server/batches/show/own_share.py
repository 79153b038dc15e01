"""What of a batch is the kitchen's own, beside its customers' pieces."""

from dolmetsch.core.costing.customers import OwnShare, share_with_customers
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.models.pack_facts import pack_facts


def find_own_share(batch: Batch, costed: CostedBatch) -> OwnShare:
    """The kitchen's own part of a costed batch; all of it where no piece is a customer's."""
    customers = pack_facts().customers(batch, costed.chain.batch, costed.sheet)
    return share_with_customers(costed.sheet, customers)
