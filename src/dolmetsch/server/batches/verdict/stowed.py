"""Where a finished batch's packs went, and what they brought in."""

from fractions import Fraction

from dolmetsch.core.costing.sheet import Comparison, Sheet
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.slicing.packs import LOST, Share, Stowed, together
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.models.pack_facts import pack_facts
from dolmetsch.server.batches.record.links import share_taken
from dolmetsch.server.batches.verdict.schemas import EarnedOut, GoneOut, StowedOut
from dolmetsch.server.quantities.printing import print_money, print_percent, print_weight


def show_stowed(batch: Batch, costed: CostedBatch) -> StowedOut:
    """Where the packs of ``batch`` went."""
    stowed = pack_facts().follow(batch, costed.sheet.ledger.mains)
    packed = sum((now.pack.grams for now in stowed.packs.values()), Fraction(0))
    used = together(share_taken(batch, costed.sheet).values())
    gone = dict(stowed.gone)
    if used.grams:
        gone["used"] = gone.get("used", Share()).plus(used)
    lost = together(stowed.gone.get(fate, Share()) for fate in LOST)
    return StowedOut(
        went=[
            GoneOut(
                fate=fate,
                weight=print_weight(share.grams),
                cost=print_money(share.cost),
                income=print_money(share.income),
            )
            for fate, share in gone.items()
        ],
        left=print_weight(stowed.on_hand.grams - used.grams),
        left_cost=print_money(stowed.on_hand.cost - used.cost),
        income=print_money(together(stowed.takings).income),
        shrink=print_percent(lost.grams / packed if packed else Fraction(0)),
        earned=[_show_earned(shop, costed.sheet, stowed) for shop in costed.sheet.shop],
    )


def _show_earned(shop: Comparison, sheet: Sheet, stowed: Stowed) -> EarnedOut:
    """What came in, and the shop's worth of the rest, less the cost without labor."""
    paid_for = together(share for share in stowed.takings if share.income)
    rest = sheet.final.grams - paid_for.grams
    spent = sheet.final.cost - sheet.final.groups.get("labour", Fraction(0))
    earned = paid_for.income + shop.cost_per_lb * rest / GRAMS_PER_LB - spent
    return EarnedOut(
        shop=shop.name,
        on_batch=print_money(earned),
        per_hour=print_money(earned * 60 / sheet.minutes) if sheet.minutes else None,
    )
