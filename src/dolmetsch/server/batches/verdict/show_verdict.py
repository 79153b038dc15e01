"""The verdict of one batch, and trials of it: reads only, nothing is written."""

from datetime import datetime
from fractions import Fraction
from typing import Final

from dolmetsch.core.costing.customers import OwnShare
from dolmetsch.core.costing.derivation import Derivation, Input, Unit
from dolmetsch.core.costing.explain import explain
from dolmetsch.core.costing.parts import compute_outlay
from dolmetsch.core.costing.scale_error import compute_spread
from dolmetsch.core.costing.strip import label_kind
from dolmetsch.core.costing.trial import rank_levers, tag_per_lb, yields_by_kind
from dolmetsch.core.findings import note
from dolmetsch.core.heat.raw import raw_finding
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.reference.nitrite import INSPECTED_PLANTS
from dolmetsch.server.batches.entries.chain import (
    CostedBatch,
    EntryRows,
    build_chain,
    cost_chain,
    find_policy,
    find_portion,
    list_entry_rows,
)
from dolmetsch.server.batches.entries.describing import describe_policy, plain, read_back_policy
from dolmetsch.server.batches.entries.finishing import is_finished
from dolmetsch.server.batches.entries.raw import list_raw
from dolmetsch.server.batches.entries.taken import list_taken
from dolmetsch.server.batches.forecast.forecasting import forecast
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show import schemas
from dolmetsch.server.batches.show.own_share import find_own_share
from dolmetsch.server.batches.show.showing import pack_names, show_policy, show_sources
from dolmetsch.server.batches.verdict import schemas as out
from dolmetsch.server.batches.verdict.pace import find_pace
from dolmetsch.server.batches.verdict.sections import GROUP_LABELS, entries_of, judge, show_levers
from dolmetsch.server.batches.verdict.stowed import show_stowed
from dolmetsch.server.findings import show_findings
from dolmetsch.server.quantities.printing import (
    per_kg,
    print_money,
    print_money_or_none,
    print_percent,
    print_unit_cost,
    print_weight,
    sign_of,
)
from dolmetsch.server.quantities.units import UNITS

#: Figures that set the house beside the shop: of an unfinished batch they are the forecast's, not the
#: sheet's.
COMPARING: Final = frozenset(
    {"saved_per_lb", "saved_per_portion", "saved_on_batch", "break_even", "earned_per_hour"}
)
CAUTIONS: Final = (
    note(
        "weigh_agent",
        "Nitrite that goes in is limited by product and method; weigh curing salt on a scale fine enough "
        "for it.",
        source=INSPECTED_PLANTS,
    ),
    note(
        "local_rules",
        "Curing, smoking to keep and vacuum packing may need a permit or a written plan where you are: "
        "ask the local food authority.",
    ),
)


def read_verdict(batch: Batch, now: datetime) -> out.VerdictOut:
    """The verdict as the records have it."""
    rows = list_entry_rows(batch)
    return show_verdict(batch, rows, cost_chain(build_chain(batch, rows)), now=now)


def show_verdict(
    batch: Batch, rows: list[EntryRows], costed: CostedBatch, *, now: datetime
) -> out.VerdictOut:
    """The verdict of a costed batch."""
    record, sheet = costed.chain.batch, costed.sheet
    is_done = is_finished(batch, costed)
    ahead = None if is_done else forecast(batch, costed)
    outlay = compute_outlay(record)
    sign = sign_of(batch.kitchen.currency)
    own = find_policy(costed.chain.current)
    hourly = record.policy.labour_rate or batch.kitchen.labour_rate
    return out.VerdictOut(
        code=batch.code,
        name=batch.name,
        cut=record.lots[0].cut,
        is_finished=is_done,
        judged=judge(
            costed,
            find_pace(batch.kitchen, now, shops=pack_names(record)),
            unit=UNITS[batch.kitchen.weight_unit],
            is_done=is_done,
            ahead=ahead,
            spread=compute_spread(record, sheet),
        ),
        dials=_show_dials(costed),
        levers=show_levers(rank_levers(record, sheet)),
        outlay=[
            out.OutlayOut(
                what=line.what or "something used",
                packs=line.packs,
                paid=print_money(line.paid),
                charged=print_money(line.charged),
            )
            for line in outlay
        ],
        outlay_paid=print_money(sum([line.paid for line in outlay], Fraction(0))),
        outlay_charged=print_money(sum([line.charged for line in outlay], Fraction(0))),
        derivations=[
            _show_derivation(one, costed, sign)
            for one in explain(record, sheet, costed.strip)
            if is_done or one.figure not in COMPARING
        ],
        policy=show_policy(batch, costed),
        policy_words=describe_policy(own or batch, sign),
        policy_is_own=own is not None,
        kitchen_policy=read_back_policy(batch.kitchen),
        sources=list(show_sources(costed)),
        takers=list_takers(batch),
        loss_account=print_money(sheet.ledger.loss.total),
        warnings=show_findings(sheet.ledger.warnings),
        cautions=show_findings([*([raw_finding()] if list_raw(batch, costed) else []), *CAUTIONS]),
        seen=rows[-1].entry.sequence,
        hourly=None if hourly is None else print_money(Fraction(hourly)),
        stowed=show_stowed(batch, costed) if batch.packs_made else None,
        yours=_show_yours(find_own_share(batch, costed), is_done=is_done),
    )


def _show_yours(share: OwnShare, *, is_done: bool) -> out.YoursOut | None:
    """The kitchen's own part; None where all of it is."""
    if not share.customers_pieces:
        return None
    return out.YoursOut(
        pieces=share.pieces,
        weight=print_weight(share.grams),
        unit_cost=print_unit_cost(share.cost_per_lb),
        customers_pieces=share.customers_pieces,
        customers_weight=print_weight(share.customers_grams),
        saved=[print_money_or_none(saved) if is_done else None for saved in share.saved],
    )


def list_takers(batch: Batch) -> list[schemas.TakerOut]:
    """Batches that took a piece of this one."""
    return [
        schemas.TakerOut(batch=taker.code, name=taker.name, piece=lot.from_mark)
        for taker, lot in list_taken(batch)
    ]


def _show_dials(costed: CostedBatch) -> out.DialsOut:
    record, sheet = costed.chain.batch, costed.sheet
    tag = tag_per_lb(record)
    portion = find_portion(costed.chain.current)
    return out.DialsOut(
        tag_per_lb=print_money(tag),
        tag_per_kg=print_money(per_kg(tag)),
        yields=[
            out.YieldDial(kind=kind, label=label_kind(kind) or "Step", kept=print_percent(kept))
            for kind, kept in yields_by_kind(sheet).items()
        ],
        minutes=fixed(sheet.minutes, 0),
        portion_slices="" if portion is None or portion.slices is None else plain(portion.slices),
        portion_weight="" if portion is None or portion.grams is None else portion.typed,
        portion_cooked_weight="" if portion is None or portion.cooked_grams is None else portion.typed,
        shops=[print_money(pack.paid) for pack in record.shop],
    )


def _show_derivation(derivation: Derivation, costed: CostedBatch, sign: str) -> out.DerivationOut:
    return out.DerivationOut(
        figure=derivation.figure,
        shop=derivation.shop,
        title=derivation.title,
        formula=derivation.formula,
        value=_print_input(derivation.value, derivation.unit, sign),
        inputs=[_show_input(line, costed, sign) for line in derivation.inputs],
    )


def _show_input(line: Input, costed: CostedBatch, sign: str) -> out.InputOut:
    return out.InputOut(
        label=GROUP_LABELS.get(line.label, line.label),
        value=_print_input(line.value, line.unit, sign),
        entries=entries_of(costed, line.steps),
    )


def _print_input(value: Fraction, unit: Unit, sign: str) -> str:
    minus = "−" if value < 0 else ""
    size = abs(value)
    match unit:
        case "money":
            # a slice costs cents: show their parts, so that the sum can be followed
            return f"{minus}{sign}{fixed(size, 2 if size >= 1 or not size else 4)}"
        case "unit_cost":
            return f"{minus}{sign}{fixed(size, 4)} a pound, {sign}{fixed(per_kg(size), 4)} a kilogram"
        case "weight":
            grams = print_weight(value)
            return f"{grams.lb} lb, {grams.kg} kg"
        case "ratio":
            return f"{print_percent(value)} %"
        case "minutes":
            return f"{plain_number(value)} minutes"
    return plain_number(value)


def plain_number(value: Fraction) -> str:
    """To two places, needless zeros left out."""
    return fixed(value, 2).rstrip("0").rstrip(".")
