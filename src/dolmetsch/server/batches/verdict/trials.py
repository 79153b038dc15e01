"""What if: a batch with something changed, and whether a machine would pay; nothing is written."""

from dataclasses import replace
from datetime import datetime
from fractions import Fraction

from dolmetsch.core.costing.batch_size import compute_pay_back
from dolmetsch.core.costing.sheet import compute_sheet
from dolmetsch.core.costing.strip import lay_out
from dolmetsch.core.costing.trial import Changes, apply_changes
from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.batch import Policy, Portion
from dolmetsch.core.numbers.exact import GRAMS_PER_LB, fixed
from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.entries.chain import (
    Chain,
    CostedBatch,
    build_chain,
    cost_chain,
    list_entry_rows,
    portion_record,
    read_policy,
)
from dolmetsch.server.batches.entries.finishing import is_finished
from dolmetsch.server.batches.entries.reading import read_content
from dolmetsch.server.batches.forecast.forecasting import forecast
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.show.showing import pack_names, show_strip
from dolmetsch.server.batches.verdict import schemas as out
from dolmetsch.server.batches.verdict.pace import find_pace
from dolmetsch.server.batches.verdict.sections import judge
from dolmetsch.server.quantities.printing import (
    print_money,
)
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.quantities.units import UNITS


def read_trial(batch: Batch, wanted: out.TrialIn, now: datetime) -> out.TrialOut:
    """What would come of ``wanted``."""
    chain = build_chain(batch, list_entry_rows(batch))
    reader = Reader.of(batch.kitchen)
    changes, policy = _read_trial(reader, batch, wanted, chain)
    if reader.problems:
        return out.TrialOut(judged=None, strip=None, readings=reader.readings, problems=reader.problems)
    try:
        tried = _try(chain, changes, policy)
    except LedgerError as error:
        reader.refuse("", error.reason, f"That cannot be: {error.text}.")
        return out.TrialOut(judged=None, strip=None, problems=reader.problems)
    pace = find_pace(batch.kitchen, now, shops=pack_names(tried.chain.batch))
    is_done = is_finished(batch, tried)
    ahead = None if is_done else forecast(batch, tried)
    return out.TrialOut(
        judged=judge(tried, pace, unit=UNITS[batch.kitchen.weight_unit], is_done=is_done, ahead=ahead),
        strip=show_strip(tried.strip, tried),
        readings=reader.readings,
    )


def _try(chain: Chain, changes: Changes, policy: Policy) -> CostedBatch:
    record = replace(chain.batch, policy=policy)
    tried = apply_changes(record, compute_sheet(record), changes)
    sheet = compute_sheet(tried)
    return CostedBatch(chain=replace(chain, batch=tried), sheet=sheet, strip=lay_out(tried, sheet))


def _read_trial(reader: Reader, batch: Batch, wanted: out.TrialIn, chain: Chain) -> tuple[Changes, Policy]:
    tag = reader.money("tag", wanted.tag) if wanted.tag else None
    per_lb = None if tag is None else Fraction(tag)
    if per_lb is not None and wanted.tag_unit == "kg":
        per_lb = per_lb * GRAMS_PER_LB / 1000
    minutes = reader.number(
        "minutes", wanted.minutes, what="number of minutes", limit=Fraction(100_000), places=2
    )
    paid = {
        index: Fraction(money)
        for index, typed_price in enumerate(wanted.shops)
        if typed_price and (money := reader.money(f"shops[{index}]", typed_price)) is not None
    }
    changes = Changes(
        tag_per_lb=per_lb,
        yields=_read_yields(reader, wanted),
        minutes=None if minutes is None else Fraction(minutes),
        portion=_read_portion(reader, batch, wanted),
        shop_paid=paid,
    )
    policy = read_policy(batch, chain.current)
    if wanted.policy is not None:
        rows = read_content(reader, Entry(batch=batch), wanted.policy, taken=set())
        if rows.policy is not None:
            policy = read_policy(batch, [rows])
    return changes, policy


def _read_yields(reader: Reader, wanted: out.TrialIn) -> dict[str, Fraction]:
    yields: dict[str, Fraction] = {}
    for kind, typed_share in wanted.yields.items():
        kept = reader.percent(f"yields.{kind}", typed_share, what="share kept", most=200)
        if kept is not None and not kept:
            reader.refuse(f"yields.{kind}", "zero", "The share has to be more than 0.")
        elif kept is not None:
            yields[kind] = Fraction(kept)
    return yields


def _read_portion(reader: Reader, batch: Batch, wanted: out.TrialIn) -> Portion | None:
    if wanted.portion is None:
        return None
    content = typed.PortionIn(**wanted.portion.model_dump())
    rows = read_content(reader, Entry(batch=batch), content, taken=set())
    if rows.portion is None or reader.problems:
        return None
    return portion_record(rows.portion)


def read_pay_back(batch: Batch, machine: out.MachineIn, now: datetime) -> out.PayBackOut:
    """After how many batches like this one a machine is paid."""
    costed = cost_chain(build_chain(batch, list_entry_rows(batch)))
    reader = Reader.of(batch.kitchen)
    price = reader.money("price", machine.price)
    minutes = reader.number(
        "minutes", machine.minutes, what="number of minutes", limit=Fraction(10_000), places=2
    )
    kept = reader.percent("kept_more", machine.kept_more, what="share kept")
    hourly = costed.chain.batch.policy.labour_rate or Fraction(batch.kitchen.labour_rate or 0)
    paid = compute_pay_back(
        costed.sheet,
        price=Fraction(price or 0),
        minutes=Fraction(minutes or 0),
        kept_more_ratio=Fraction(kept or 0),
        hourly=hourly,
    )
    pace = find_pace(batch.kitchen, now).batches_a_year
    years = None if paid.batches is None or not pace else fixed(paid.batches / pace, 1)
    return out.PayBackOut(
        saved_by_minutes=print_money(paid.saved_by_minutes),
        saved_by_loss=print_money(paid.saved_by_loss),
        saved=print_money(paid.saved),
        batches=None if reader.problems else paid.batches,
        years=years,
        problems=reader.problems,
    )
